package element

import (
	"cmp"
	"strconv"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A video is a <video> of one of the site's own, played when it is pressed or silently
// over and over, or a link to a player elsewhere, which is embedded only when somebody
// presses it: until then nothing is asked of anybody else.
var video = Anatomy{
	Name: "Video", Hint: "a video of your own, or one from elsewhere", Icon: "play-btn", Find: "film movie player embed clip",
	Shelf: Showing, Span: 6, Rows: 8,
	Fields: []Field{
		{Name: "video", Label: "Video", Type: VideoID},
		{Name: "picture", Label: "Poster", Type: PictureID},
		{Name: "player", Label: "Embed URL", Type: Address},
		{
			Name:    "plays",
			Label:   "Playback",
			Type:    Choice,
			Choices: value.Is(value.Click, "On click", value.Loop, "Silently, in a loop"),
		},
		{Name: "caption", Label: "Caption", Type: Line},
		{Name: "alt", Label: "Alternative text", Type: Prose},
	},
	Settings: []string{"aspect-ratio"},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Alt: "A video"}}
	},
	build: as(mediaBlocks.video),
}

// playMark is drawn over what plays when it is pressed.
const playMark = `<circle cx="32" cy="32" r="31" fill="#fff" fill-opacity=".92"/><path d="M25 19l22 13-22 13z" fill="#1b1b1b"/>`

func (b mediaBlocks) video(in *Node, bl *doc.Block) *Node {
	v := bl.Content.Values
	m, own := b.medium(v["video"])
	own = own && m.Sort() == doc.VideoMedium
	poster, hasPoster := b.medium(bl.Content.Picture)
	if !own && v["player"] == "" && b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "div"}
	silent := v["plays"] == value.Loop
	if silent || !own {
		n.Script = "video"
	}
	if v["caption"] != "" {
		n.Tag = "figure"
	}
	n.Styles = b.styles(in, func(z int, st *style.Style) { st.Width = style.Percentage(100) })
	ratio := func(z int) float64 {
		if r := b.sheet(bl.Style, z).Ratio("aspect-ratio"); r > 0 {
			return r
		}
		if own && m.Height > 0 {
			return float64(m.Width) / float64(m.Height)
		}
		return 16.0 / 9
	}
	frame := b.child(n, "div", func(z int, st *style.Style) { st.Position = style.Relative })
	fills := func(z int, st *style.Style) {
		st.Width, st.AspectRatio, st.ObjectFit = style.Percentage(100), ratio(z), "cover"
		st.BorderRadius = b.sheet(bl.Style, z).Length("border-radius", style.Length{})
	}
	switch {
	case own:
		b.ownVideo(frame, m, bl.Content.Alt, silent, fills)
		if hasPoster {
			film := frame.Children[0]
			film.attr("poster", poster.Variants[len(poster.Variants)-1].URL)
		}
	default:
		b.player(frame, v["player"], poster, hasPoster, bl.Content.Alt, fills)
	}
	if v["caption"] != "" {
		say(b.child(n, "figcaption", func(z int, st *style.Style) {
			b.smallWords(z, st)
			st.Padding.Top = style.Pixels(8)
		}), v["caption"])
	}
	return n
}

// ownVideo adds a video of the site's. A silent one begins by a script where motion is
// wanted, and has a button that stops it (WCAG 2.2, 2.2.2).
func (b mediaBlocks) ownVideo(frame *Node, m Medium, alt string, silent bool, look func(int, *style.Style)) {
	film := b.child(frame, "video", look)
	film.attr("src", m.Variants[0].URL)
	film.attr("width", strconv.Itoa(m.Width))
	film.attr("height", strconv.Itoa(m.Height))
	film.attr("preload", "none")
	if b.Still {
		film.Attrs[len(film.Attrs)-1].Value = "metadata" // so that the canvas has something to show
	}
	film.attr("playsinline", "")
	if alt != "" {
		film.attr("aria-label", alt)
	}
	if !silent {
		film.attr("controls", "")
		return
	}
	film.attr("muted", "")
	film.attr("loop", "")
	b.pause(frame)
}

// pause adds the button that stops a silent video; the script shows it.
func (b *Builder) pause(in *Node) {
	stop := b.child(in, "button", func(z int, st *style.Style) {
		b.smallWords(z, st)
		st.Position, st.ZIndex = style.Absolute, 2
		st.Inset.Right, st.Inset.Bottom = style.Pixels(12), style.Pixels(12)
		st.Padding = style.Edges{
			Top:    style.Pixels(4),
			Right:  style.Pixels(10),
			Bottom: style.Pixels(4),
			Left:   style.Pixels(10),
		}
		st.Background, st.Color, st.BorderRadius = "#1b1b1b", "#ffffff", style.Pixels(4)
	})
	stop.attr("type", "button")
	stop.attr("hidden", "")
	stop.Folded = true
	say(stop, "Pause")
}

// player adds a link to a player elsewhere, which the script puts in its place when it is
// pressed.
func (b mediaBlocks) player(
	frame *Node,
	address string,
	poster Medium,
	hasPoster bool,
	alt string,
	look func(int, *style.Style),
) {
	a := b.child(frame, "a", func(z int, st *style.Style) {
		look(z, st)
		st.Position, st.Background = style.Relative, "#1b1b1b"
		st.Overflow = style.Hidden
	})
	if address, _ = doc.SplitLink(address); address != "" {
		a.attr("href", address)
		a.attr("type", "text/html") // what is embedded; the script knows the link by it
	}
	a.attr("aria-label", "Play: "+cmp.Or(alt, "a video"))
	if !hasPoster {
		poster = emptyMedium
	}
	if hasPoster || !b.DropEmpty {
		img := b.child(a, "img", func(_ int, st *style.Style) {
			st.Position, st.Inset = style.Absolute, style.Same(style.Pixels(0))
			st.Width, st.Height, st.ObjectFit, st.ObjectPos = style.Percentage(
				100,
			), style.Percentage(
				100,
			), "cover", poster.Focal
		})
		b.source(img, poster, "")
	}
	mark := b.child(a, "svg", func(_ int, st *style.Style) {
		st.Position, st.Width, st.Height = style.Absolute, style.Pixels(64), style.Pixels(64)
		st.Inset.Left, st.Inset.Top = style.Pixels(20), style.Pixels(20)
	})
	mark.attr("viewBox", "0 0 64 64")
	mark.attr("width", "64")
	mark.attr("height", "64")
	mark.attr("aria-hidden", "true")
	mark.Raw = playMark
}
