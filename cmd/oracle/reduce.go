package main

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/style"
)

// maxQuestions bounds how often the browser is asked to reduce one case.
const maxQuestions = 600

// explain reduces a case to its smallest tree that still disagrees, and prints it.
func (j *judge) explain(c testCase, ws []int) error {
	t, err := j.compare(c, ws)
	if err != nil {
		return err
	}
	fmt.Printf("%s: %s\n", c.name, t.worstText)
	w := t.worstAt
	if t.worst <= 1 { // only lines differ: find a width where they do
		for _, at := range ws {
			if one, err := j.compare(c, []int{at}); err == nil && disagrees(one) {
				w = at
				break
			}
		}
	}
	r := reducer{j: j, c: c, w: w, faults: faults(c.root)}
	root := r.reduce(clone(c.root))
	c.root = root
	if t, err = j.compare(c, []int{w}); err != nil {
		return err
	}
	fmt.Printf("  smallest, at %d px: %s\n", w, t.worstText)
	html, css := emit.NewSheet(c.zones).Document(emit.Page{Title: "x", Language: "en", Stylesheet: "x.css"}, root)
	_, html, _ = strings.Cut(html, "</head>")
	fmt.Printf("%s%s", strings.TrimPrefix(css, emit.Reset(c.root)), html)
	for _, b := range computed(j.tree(c, root), w) {
		fmt.Printf("    core     %-16s %8.2f %8.2f %8.2f %8.2f  %.2f\n", b.name, b.x, b.y, b.w, b.h, b.lines)
	}
	theirs, err := j.ask(c, []int{w})
	if err != nil {
		return err
	}
	for _, b := range theirs[w] {
		fmt.Printf("    browser  %-16s %8.2f %8.2f %8.2f %8.2f  %.2f\n", b.tag, b.x, b.y, b.w, b.h, b.lines)
	}
	return nil
}

func disagrees(t *tally) bool {
	return t.boxes > t.one || t.paragraphs > t.lines
}

// reducer takes away what a disagreement doesn't need.
type reducer struct {
	j      *judge
	c      testCase
	w      int
	asked  int
	faults map[string]bool // of the tree to begin with
}

func (r *reducer) still(root *element.Node) bool {
	for key := range faults(root) {
		if !r.faults[key] {
			return false
		}
	}
	r.asked++
	c := r.c
	c.root = root
	t, err := r.j.compare(c, []int{r.w})
	return err == nil && disagrees(t)
}

func (r *reducer) reduce(root *element.Node) *element.Node {
	for changed := true; changed && r.asked < maxQuestions; {
		changed = false
		try := func(change func(at *element.Node) bool) {
			for i := 0; i < count(root) && r.asked < maxQuestions; i++ {
				next := clone(root)
				if change(nth(next, i)) && r.still(next) {
					root, changed = next, true
					i--
				}
			}
		}
		try(func(n *element.Node) bool { // half of the children, then one
			if len(n.Children) < 4 {
				return false
			}
			n.Children = n.Children[:len(n.Children)/2]
			return true
		})
		for k := range 12 {
			try(func(n *element.Node) bool {
				if k >= len(n.Children) || len(n.Children) == 1 && n.Children[0].Tag == "" {
					return false
				}
				n.Children = slices.Delete(n.Children, k, k+1)
				return true
			})
		}
		try(func(n *element.Node) bool { // a wrapper
			if len(n.Children) != 1 || n.Children[0].Tag == "" || n.Inline() || len(n.Children[0].Children) == 0 ||
				n.Children[0].Inline() {
				return false
			}
			n.Children = n.Children[0].Children
			return true
		})
		for _, keep := range []func([]string) []string{
			func(w []string) []string { return w[:len(w)/2] },
			func(w []string) []string { return w[len(w)/2:] },
			func(w []string) []string { return w[:len(w)-1] },
			func(w []string) []string { return w[1:] },
		} {
			try(func(n *element.Node) bool {
				w := strings.Fields(n.Text)
				if len(w) < 2 {
					return false
				}
				n.Text = strings.Join(keep(w), " ")
				return true
			})
		}
		for f := range reflect.TypeFor[style.Style]().NumField() {
			if inherited(f) {
				continue
			}
			try(func(n *element.Node) bool { return unset(n, f) })
		}
	}
	return root
}

// faults gives the elements of a tree that emit may not be given: inline ones without
// text, margins that would collapse. A whole page has some that do no harm there; taking
// parts of it away must add none.
func faults(root *element.Node) map[string]bool {
	found := map[string]bool{}
	root.Walk(func(el *element.Node) {
		fault := func(is bool) {
			if is {
				found[el.Key] = true
			}
		}
		if el.Tag == "" || el.Tag == "br" {
			return
		}
		if el.Tag == "img" || el.Tag == "svg" || el.Tag == "iframe" { // a width that isn't CSS would count
			for z := range el.Styles {
				fault(el.Styles[z].Width.Unit == style.Auto)
			}
			return
		}
		for z := range el.Styles {
			s := &el.Styles[z]
			fault(s.Display == style.Inline && (len(el.Children) == 0 || el.Children[0].Tag == "br"))
			fault(
				s.Display != style.Grid && s.JustifyItems != 0 ||
					s.Display != style.Grid && s.Display != style.Flex &&
						(s.AlignContent != 0 || s.JustifyContent != 0),
			)
			for _, c := range el.Children {
				fault(c.Tag != "" && c.Styles[z].Position == style.Absolute && s.Position == style.Static)
			}
			if s.Display != style.Block || el.Inline() {
				continue
			}
			for i, c := range el.Children {
				fault(
					len(c.Children) == 0 && c.Tag != "img" || c.Styles[z].JustifySelf != 0 ||
						c.Styles[z].AlignSelf != 0,
				)
				m := c.Styles[z].Margin.Top
				fault(m.Unit != style.Auto && (m.N != 0 || m.Unit == style.Math) && i == 0)
			}
		}
	})
	return found
}

// inherited fields are left alone: every element has its parent's.
func inherited(field int) bool {
	switch reflect.TypeFor[style.Style]().Field(field).Name {
	case "FontFamily",
		"FontWeight",
		"FontItalic",
		"FontSize",
		"LineHeight",
		"LetterSpacing",
		"TextAlign",
		"TextTransform",
		"NoWrap",
		"Balance",
		"OverflowWrap",
		"Color":
		return true
	}
	return false
}

func unset(n *element.Node, field int) bool {
	if n.Tag == "" || n.Tag == "br" || n.Styles[0].Display == style.Inline {
		return false
	}
	any := false
	for z := range n.Styles {
		v := reflect.ValueOf(&n.Styles[z]).Elem().Field(field)
		any = any || !v.IsZero()
		v.SetZero()
	}
	return any
}

func clone(n *element.Node) *element.Node {
	c := *n
	c.Styles = slices.Clone(n.Styles)
	c.Children = make([]*element.Node, len(n.Children))
	for i, k := range n.Children {
		c.Children[i] = clone(k)
	}
	return &c
}

func count(n *element.Node) int {
	total := 0
	n.Walk(func(*element.Node) { total++ })
	return total
}

func nth(n *element.Node, i int) (found *element.Node) {
	n.Walk(func(k *element.Node) {
		if i == 0 {
			found = k
		}
		i--
	})
	return found
}
