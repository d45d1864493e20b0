package element

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// built gives a block's element as it stands alone in a section of an arrangement.
func built(t *testing.T, in doc.Arrangement, kind doc.Kind, pairs ...string) *Node {
	t.Helper()
	b := Start(kind)
	b.ID = "b"
	b.Style = Look(pairs...)
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	n := (&Builder{Site: site}).Section(&doc.Section{ID: "s", Arrangement: in, Blocks: []*doc.Block{b}})
	var found *Node
	n.Walk(func(c *Node) {
		if c.Block == "b" {
			found = c
		}
	})
	if found == nil {
		t.Fatalf("no %s", kind)
	}
	return found
}

// text gives the CSS of a property of a block on desktop.
func cssOf(n *Node, property string) string {
	for _, p := range style.Properties {
		if p.Name == property {
			return p.Text(&n.Styles[0])
		}
	}
	return "no property " + property
}

// What is set becomes that property, as CSS writes it.
func TestSettingsBecomeCSS(t *testing.T) {
	for _, tt := range []struct {
		in             doc.Arrangement
		kind           doc.Kind
		setting, value string
		property, want string
	}{
		{doc.Placed, doc.Heading, "font", "Oswald", "font-family", `"Oswald", sans-serif`},
		{doc.Placed, doc.Heading, "font-weight", "250", "font-weight", "250"},
		{doc.Placed, doc.Heading, "line-height", "1.05", "line-height", "1.05"},
		{doc.Placed, doc.Heading, "letter-spacing", "0.3em", "letter-spacing", "0.3em"},
		{doc.Placed, doc.Heading, "text-transform", "uppercase", "text-transform", "uppercase"},
		{doc.Placed, doc.Heading, "text-wrap", "auto", "text-wrap-style", "auto"},
		{doc.Placed, doc.Heading, "font", "Gone Sans", "font-family", `"Bricolage Grotesque", sans-serif`}, // one that the house style lost
		{doc.Columns, doc.Card, "margin-top", "40px", "margin", "40px 0 0"},
		{doc.Columns, doc.Card, "margin-left", "40px", "margin", "0"}, // in columns there is only above and below
		{doc.LineUp, doc.Text, "margin-left", "-12px", "margin", "0 0 0 -12px"},
		{doc.Placed, doc.Text, "margin-top", "40px", "margin", "0"}, // in a grid its place says where it is
		{doc.Placed, doc.Picture, "overhang", "120px", "margin", "0 0 -120px"},
		{doc.LineUp, doc.Card, "overhang", "2rem", "margin", "0 0 -2rem"},
		{doc.Placed, doc.Card, "box-shadow", "0px 6px 20px 0px $deep/30% inset", "box-shadow", "0px 6px 20px 0px #123a444d inset"},
		{doc.Placed, doc.Card, "border-top-left-radius", "20px", "border-radius", "20px 0 0"},
		{doc.Placed, doc.Text, "border-bottom-width", "3px", "border-width", "0 0 3px"},
		{doc.Placed, doc.Picture, "rotate", "-3deg", "rotate", "-3deg"},
		{doc.Placed, doc.Text, "max-width", "60%", "max-width", "60%"},
		{doc.Placed, doc.Text, "min-width", "8rem", "min-width", "8rem"},
		{doc.Placed, doc.Text, "height", "50vh", "height", "50svh"},
		{doc.Placed, doc.Text, "width", "calc(50% - 20px)", "width", "calc(50% - 20px)"},
		{doc.Placed, doc.Text, "background", "$accent/50%", "background", "#1d5f6b80"},
		{doc.Placed, doc.Container, "gradient", "linear 90deg #ffffff 45%, #ffffff00 45%", "background", "linear-gradient(90deg, #ffffff 45%, #ffffff00 45%)"},
		{doc.Placed, doc.Text, "entrance", "rise", "animation-range", "entry 0% entry 80%"},
		{doc.Placed, doc.Text, "sway", "vertical", "animation", "sway-vertical 4s ease-in-out infinite alternate"},
	} {
		n := built(t, tt.in, tt.kind, tt.setting, tt.value)
		if got := cssOf(n, tt.property); got != tt.want {
			t.Errorf(
				"%s of a %s set to %s: %s is %q, want %q",
				tt.setting,
				tt.kind,
				tt.value,
				tt.property,
				got,
				tt.want,
			)
		}
	}
}

// A button that is see-through with a hairline, and white when it is pointed at.
func TestStates(t *testing.T) {
	n := built(
		t,
		doc.Placed,
		doc.Button,
		"background",
		"none",
		"border-width",
		"1px",
		"border-color",
		"#ffffff",
		"color",
		"#ffffff",
		"hover-background",
		"#ffffff",
		"hover-color",
		"#123456",
		"hover-lift",
		"4px",
		"active-grow",
		"95%",
		"focus-underline",
		"yes",
	)
	looks := map[string]style.Style{}
	var order []string
	for _, s := range n.States {
		look := n.Styles[0]
		s.Change(0, &look)
		looks[s.Pseudo] = look
		order = append(order, s.Pseudo)
	}
	if h := looks[":hover"]; h.Background != "#ffffff" || h.Color != "#123456" || h.TranslateY != -4 {
		t.Errorf("hover: %q on %q, moved %v", h.Color, h.Background, h.TranslateY)
	}
	if a := looks[":active"]; a.ScaleX != 0.95 {
		t.Errorf("pressed: %v", a.ScaleX)
	}
	if !looks[":focus-visible"].Underline {
		t.Error("focus isn't underlined")
	}
	if !n.Styles[0].Quick {
		t.Error("it jumps from one state to another")
	}
	if len(order) != 3 {
		t.Errorf("states: %v", order)
	}
}

// The filters of a picture are its image's, not its frame's.
func TestPictureFilters(t *testing.T) {
	if got := built(t, doc.Placed, doc.Picture, "picture-parallax", "60%"); cssOf(
		got.Children[0],
		"--glide",
	) != "30%" ||
		cssOf(got.Children[0], "animation-timeline") != "view()" {
		t.Errorf(
			"a picture that scrolls more slowly has --glide %q in time %q",
			cssOf(got.Children[0], "--glide"),
			cssOf(got.Children[0], "animation-timeline"),
		)
	}
	n := built(
		t,
		doc.Placed,
		doc.Picture,
		"brightness",
		"120%",
		"grayscale",
		"40%",
		"mirror",
		"horizontal",
		"hue-rotate",
		"0deg",
	)
	img := n.Children[0]
	if img.Tag != "img" || cssOf(img, "filter") != "brightness(1.2) grayscale(0.4)" || cssOf(img, "scale") != "-1 1" ||
		cssOf(n, "filter") != "none" {
		t.Errorf("%s: %q, %q; around it %q", img.Tag, cssOf(img, "filter"), cssOf(img, "scale"), cssOf(n, "filter"))
	}
}

// A form's fields look as it says, or as the house style does; a label in a field is still
// there for those who hear it.
func TestFormFields(t *testing.T) {
	n := built(t, doc.Placed, doc.Form, "field-look", "below", "field-labels", "inside", "field-border", "#ff0000")
	inputs, labels := 0, 0
	n.Walk(func(c *Node) {
		switch c.Tag {
		case "input", "textarea":
			if c.Folded {
				return
			}
			inputs++
			st := &c.Styles[0]
			placeholder := ""
			for _, a := range c.Attrs {
				if a.Name == "placeholder" {
					placeholder = a.Value
				}
			}
			if st.Border != (style.Widths{Bottom: 2}) || st.BorderColor != "#ff0000" || placeholder == "" {
				t.Errorf("%s: border %v %s, placeholder %q", c.Tag, st.Border, st.BorderColor, placeholder)
			}
		case "label":
			labels++
			if st := &c.Styles[0]; st.ClipPath == "" || st.Display == style.None {
				t.Errorf("the label is %+v", st.ClipPath)
			}
		}
	})
	if inputs != 3 || labels != 3 {
		t.Errorf("%d fields, %d labels", inputs, labels)
	}
}

// A section is as wide as it says itself, with its gutters.
func TestContentWidth(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	for v, want := range map[string]string{"": "1160px", "boxed": "1160px", "full": "none", "1000px": "1080px", "80%": "80%", "60rem": "calc(60rem + 80px)"} {
		s := &doc.Section{ID: "s"}
		if v != "" {
			s.Style = Look("content", v)
		}
		if got := cssOf((&Builder{Site: site}).Section(s).Children[0], "max-width"); got != want {
			t.Errorf("%q: %s, want %s", v, got, want)
		}
	}
}

// Words on a see-through fill are read on what is seen: the fill over what lies below it.
func TestSeeThroughGrounds(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	b := Start(doc.Text)
	b.ID, b.Style = "b", Look("background", "#00000010")
	sec := &doc.Section{ID: "s", Style: Look("background", "$deep"), Blocks: []*doc.Block{b}}
	var color string
	(&Builder{Site: site}).Section(sec).Walk(func(n *Node) {
		if n.Block == "b" {
			color = n.Styles[0].Color
		}
	})
	if color != "#f3f7f6" {
		t.Errorf("on deep seen through a veil words are %s", color)
	}
	if got := style.Over("#00000080", "#ffffff"); !strings.HasPrefix(got, "#7f7f7f") {
		t.Errorf("half black over white is %s", got)
	}
}

// A page lies on its own ground, and words that are seen on it can be read there.
func TestPageGround(t *testing.T) {
	b := Start(doc.Text)
	b.ID = "b"
	p := &doc.Page{Ground: "deep", Sections: []*doc.Section{{ID: "s", Blocks: []*doc.Block{b}}}}
	body := (&Builder{Site: &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}}).Page(p)
	if body.Styles[0].Background != "#123a44" {
		t.Errorf("the page lies on %s", body.Styles[0].Background)
	}
	body.Walk(func(n *Node) {
		if n.Block == "b" && (n.Styles[0].Behind != "#123a44" || n.Styles[0].Color != "#f3f7f6") {
			t.Errorf("words are %s on %s", n.Styles[0].Color, n.Styles[0].Behind)
		}
	})
	p.Ground = "gone"
	if got := (&Builder{Site: &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}}).Page(p).Styles[0].Background; got != "#ffffff" {
		t.Errorf("a colour that is gone: %s", got)
	}
}

// Filled and outlined buttons of one size take the same room.
func TestButtonsOfOneSize(t *testing.T) {
	for _, size := range []string{"$small", "$medium", "$large"} {
		room := map[string][2]float64{}
		for _, look := range []string{value.Filled, value.Outlined} {
			st := built(t, doc.LineUp, doc.Button, "button-look", look, "button-size", size).Styles[0]
			room[look] = [2]float64{
				st.Padding.Left.N + st.Border.Left + st.Border.Right + st.Padding.Right.N,
				st.Padding.Top.N + st.Border.Top + st.Border.Bottom + st.Padding.Bottom.N,
			}
		}
		if room[value.Filled] != room[value.Outlined] || room[value.Filled][1] == 0 {
			t.Errorf("%s: %v", size, room)
		}
	}
}
