package colour

import "testing"

// CSS Color 4 §5.2, its examples among them.
func TestParseHex(t *testing.T) {
	for in, want := range map[string]string{
		"#0f0": "#00ff00", "#00ff00": "#00ff00", "00FF00": "#00ff00", " #3cb371 ": "#3cb371", "#0000ffcc": "#0000ffcc", "#00fc": "#0000ffcc", "#fff": "#ffffff", "#000000ff": "#000000",
	} {
		c, err := ParseHex(in)
		if err != nil || c.String() != want {
			t.Errorf("%q is %v, %v; want %s", in, c, err, want)
		}
		if again, err := ParseHex(c.String()); err != nil || again != c {
			t.Errorf("%v reads back as %v, %v", c, again, err)
		}
	}
	for _, in := range []string{"", "#", "#12", "#12345", "#1234567", "#123456789", "red", "#ggg", "#-12345", "#+12345", "0x12345"} {
		if c, err := ParseHex(in); err == nil {
			t.Errorf("%q was read as %v", in, c)
		}
	}
}
