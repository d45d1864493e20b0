package element

import (
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// mostDrift is by which part of its section's height a parallax picture is moved at most each
// way while the section goes by.
const mostDrift = 0.5

// drifts reports whether a section's picture goes by more slowly than the section.
func drifts(sh style.Sheet) bool { return sh.Word("picture-scroll", "") == value.Parallax }

// behind adds what is seen behind a section's content, when that is more than a CSS
// background can be: a video, or a picture that scrolls more slowly. The content then
// lies over it.
func (b grounds) behind(n *Node, s *doc.Section) {
	film, moving := b.medium(s.Video)
	moving = moving && film.Sort() == doc.VideoMedium
	m, pictured := b.medium(s.Picture)
	slow := false
	for z := range n.Styles {
		slow = slow || pictured && drifts(b.sheet(s.Style, z))
	}
	if !moving && !slow {
		return
	}
	fill := func(st *style.Style) {
		st.Position, st.Inset = style.Absolute, style.Same(style.Pixels(0))
		st.Width, st.Height = style.Percentage(100), style.Percentage(100)
	}
	back := b.child(n, "div", func(z int, st *style.Style) {
		fill(st)
		st.Overflow = style.Clip // not only painted within: what it is moved by makes the page no longer
		up := &n.Styles[z]
		st.BorderRadius, st.Corners = up.BorderRadius, up.Corners
		if up.Position == style.Static {
			up.Position = style.Relative
		}
		if up.Pictured = moving || drifts(b.sheet(s.Style, z)); !up.Pictured {
			st.Display = style.None
		}
	})
	if moving {
		v := b.child(back, "video", func(_ int, st *style.Style) { fill(st); st.ObjectFit = "cover" })
		v.attr("src", film.Variants[0].URL)
		v.attr("preload", "none")
		if b.Still {
			v.Attrs[len(v.Attrs)-1].Value = "metadata"
		}
		v.attr("muted", "")
		v.attr("loop", "")
		v.attr("playsinline", "")
		v.attr("tabindex", "-1")
		v.attr("aria-hidden", "true")
		if pictured {
			v.attr("poster", m.Variants[len(m.Variants)-1].URL)
		}
		n.Script = "video"
	} else {
		img := b.child(back, "img", func(z int, st *style.Style) {
			fill(st)
			if sh := b.sheet(s.Style, z); drifts(sh) {
				st.Drift = mostDrift * sh.Share("parallax", 0.5)
			}
			st.ObjectFit, st.ObjectPos = "cover", b.sheet(s.Style, z).Word("picture-position", m.Focal)
		})
		img.attr("data-drift", "")
		b.source(img, m, "")
	}
	// The filter lies over it, not under it.
	veil := b.child(back, "div", func(z int, st *style.Style) {
		fill(st)
		if up := &n.Styles[z]; moving || drifts(b.sheet(s.Style, z)) {
			st.BackgroundTop, up.BackgroundTop = up.BackgroundTop, ""
			up.BackgroundURL, up.BackgroundModern, up.BackgroundFit = "", "", ""
		}
	})
	veiled := false
	for z := range veil.Styles {
		veiled = veiled || veil.Styles[z].BackgroundTop != ""
	}
	if !veiled {
		back.Children = back.Children[:len(back.Children)-1]
	}
	if moving {
		b.pause(n)
	}
}
