package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A countdown says when something will be, and with the script of that name how long it is
// until then. Where no script runs the figures aren't there.
var countdown = Anatomy{
	Name: "Countdown", Hint: "how long it is until a date", Icon: "hourglass-split", Find: "timer clock date event launch days hours",
	Shelf: Listing, Span: 6, Rows: 4,
	Fields: []Field{
		{Name: "until", Label: "Date and time", Type: LocalTime},
		{Name: "zone", Label: "Time zone", Type: Choice, Choices: timeZones},
		{Name: "label", Label: "Label", Type: Line},
		{Name: "over", Label: "Text when it is over", Type: Line, Default: "It has begun."},
	},
	start: func() *doc.Block {
		return &doc.Block{
			Content: doc.Content{Values: map[string]string{"until": "2030-06-01T18:00", "label": "Until it begins"}},
		}
	},
	build: as(siteBlocks.countdown),
}

// timeZones are places whose clocks people know theirs by (IANA time zone database); every
// offset that many live by is among them.
var timeZones = value.Is(
	"UTC",
	"UTC",
	"Europe/London",
	"London, Dublin, Lisbon",
	"Europe/Berlin",
	"Berlin, Paris, Madrid, Stockholm",
	"Europe/Helsinki",
	"Helsinki, Athens, Kyiv",
	"Europe/Istanbul",
	"Istanbul",
	"Africa/Lagos",
	"Lagos",
	"Africa/Johannesburg",
	"Johannesburg",
	"Africa/Cairo",
	"Cairo",
	"Africa/Nairobi",
	"Nairobi",
	"Asia/Dubai",
	"Dubai",
	"Asia/Tehran",
	"Tehran",
	"Asia/Karachi",
	"Karachi",
	"Asia/Kolkata",
	"Kolkata, Mumbai",
	"Asia/Dhaka",
	"Dhaka",
	"Asia/Bangkok",
	"Bangkok, Jakarta",
	"Asia/Singapore",
	"Singapore",
	"Asia/Shanghai",
	"Shanghai, Hong Kong",
	"Asia/Tokyo",
	"Tokyo",
	"Asia/Seoul",
	"Seoul",
	"Australia/Perth",
	"Perth",
	"Australia/Adelaide",
	"Adelaide",
	"Australia/Sydney",
	"Sydney, Melbourne",
	"Pacific/Auckland",
	"Auckland",
	"America/St_Johns",
	"St John’s",
	"America/Halifax",
	"Halifax",
	"America/Sao_Paulo",
	"São Paulo",
	"America/Argentina/Buenos_Aires",
	"Buenos Aires",
	"America/New_York",
	"New York, Toronto",
	"America/Bogota",
	"Bogotá, Lima",
	"America/Chicago",
	"Chicago",
	"America/Mexico_City",
	"Mexico City",
	"America/Denver",
	"Denver",
	"America/Phoenix",
	"Phoenix",
	"America/Los_Angeles",
	"Los Angeles",
	"America/Anchorage",
	"Anchorage",
	"Pacific/Honolulu",
	"Honolulu",
)

func (b siteBlocks) countdown(in *Node, bl *doc.Block) *Node {
	v := bl.Content.Values
	until, ok := doc.ParseMoment(v["until"])
	if !ok && b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "div"}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
		st.Display, st.FlexDirection, st.RowGap = style.Flex, style.Column, style.Pixels(8)
	})
	if v["label"] != "" {
		say(b.child(n, "p", nil), v["label"])
	}
	figures := b.child(n, "div", func(_ int, st *style.Style) {
		st.Display, st.GridColumns, st.ColumnGap = style.Grid, style.EqualColumns(4), style.Pixels(12)
	})
	figures.attr("role", "timer")
	figures.attr("data-scripted", "yes")
	for i, unit := range []string{"days", "hours", "minutes", "seconds"} {
		figure := "–" // until the script begins
		if !b.DropEmpty {
			figure = [...]string{"12", "8", "45", "30"}[i] // so that the canvas shows what figures look like
		}
		cell := b.child(figures, "div", nil)
		say(b.child(cell, "p", func(z int, st *style.Style) {
			colour := st.Color
			b.sheet(bl.Style, z).TextStyle(st, "h2")
			st.Color = colour
		}), figure)
		say(b.child(cell, "p", b.smallWords), unit)
	}
	when := b.child(b.child(n, "p", b.smallWords), "time", func(_ int, st *style.Style) { st.Display = style.Inline })
	if !ok {
		say(when, "Choose a date and a time")
		return n
	}
	n.Script = "countdown"
	when.attr("datetime", v["until"])
	if b.Instant != nil {
		when.Attrs[0].Value = b.Instant(v["until"], cmp.Or(v["zone"], "UTC"))
	}
	say(when, until.In(b.Site.Language))
	over := b.child(n, "p", nil)
	over.Folded = true
	over.attr("hidden", "")
	say(over, cmp.Or(v["over"], "It has begun."))
	return n
}
