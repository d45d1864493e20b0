package found

import (
	"strings"
	"testing"
)

// Widths of words in Liberation Sans, whose metrics are Arial's, as Chromium's canvas gives them
// at 20 px without kerning (measureText, Chromium 156 on Debian 12, rounded to the px).
func TestWidths(t *testing.T) {
	for text, want := range map[string]int{
		"Skerry Line": 101, "Fares and tickets": 152, "WWW iii": 76, "Überfahrt – täglich": 163, "": 0,
	} {
		if got := Title(text); got.Px < want-1 || got.Px > want+1 || got.Over() || got.Seen != text {
			t.Errorf("%q: %+v, want %d px", text, got, want)
		}
	}
}

func TestWhatIsSeen(t *testing.T) {
	long := strings.Repeat("Ferries to the islands ", 8)
	f := Title(long)
	if !f.Over() || f.Share() != 100 || !strings.HasSuffix(f.Seen, " …") ||
		!strings.HasPrefix(long, strings.TrimSuffix(f.Seen, " …")) {
		t.Errorf("%+v", f)
	}
	if w := width(f.Seen, titleSize); w > titleRoom || w < titleRoom-120 {
		t.Errorf("%.0f px are seen of %d", w, titleRoom)
	}
	if one := Title(strings.Repeat("W", 60)); !one.Over() || len(one.Seen) < 20 ||
		width(one.Seen, titleSize) > titleRoom {
		t.Errorf("a word that is too long: %+v", one)
	}
	if d := Description("Three islands, two boats.  One timetable."); d.Over() ||
		d.Seen != "Three islands, two boats. One timetable." ||
		d.Share() < 20 ||
		d.Share() > 40 {
		t.Errorf("%+v", d)
	}
	if w := Title("時刻表"); w.Px != 60 {
		t.Errorf("%+v", w)
	}
}
