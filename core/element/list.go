package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// list is a <ul>, or an <ol> when it is numbered on the widest zone, with an <li> a
// paragraph. The marks stand in the padding beside the words. A list without marks
// says that it is one, since some browsers no longer do (common practice).
func (b *Builder) list(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ul"}
	switch b.sheet(bl.Style, 0).Word("list-marks", "dots") {
	case "numbers":
		n.Tag = "ol"
	case "none":
		n.attr("role", "list")
	}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		words(st, sh, "body")
		marks := sh.Word("list-marks", "dots")
		if st.ListStyle = map[string]string{"dots": "disc", "numbers": "decimal", "squares": "square"}[marks]; st.ListStyle != "" {
			st.Padding.Left = style.Sum(st.Padding.Left, style.Pixels(b.share(st, z, 1.5)))
		}
	})
	for i, p := range bl.Content.Words {
		c := &Node{Tag: "li"}
		c.Styles = b.styles(n, func(z int, st *style.Style) {
			st.Display = style.ListItem
			if i > 0 {
				st.Margin.Top = style.Pixels(b.share(st, z, 0.35))
			}
		})
		b.lines(c, p)
		n.Children = append(n.Children, c)
	}
	if len(n.Children) == 0 { // a list without items isn't one
		c := &Node{Tag: "li"}
		c.Styles = b.styles(n, func(_ int, st *style.Style) { st.Display = style.ListItem })
		b.lines(c, nil)
		n.Children = append(n.Children, c)
	}
	return n
}
