package style

import (
	"strings"
	"testing"

	"openplot/core/doc"
)

func TestGradient(t *testing.T) {
	h := doc.StandardHouse()
	s := Find("gradient", OnSection)
	for entry, want := range map[string]string{
		"linear 135deg Deep, Accent":                      "linear-gradient(135deg, #123a44 0%, #1d5f6b 100%)",
		"90 $deep 50%, $accent 50%":                       "linear-gradient(90deg, #123a44 50%, #1d5f6b 50%)",
		"#fff, #000 30%, rgb(255 0 0)":                    "linear-gradient(180deg, #ffffff 0%, #000000 30%, #ff0000 100%)",
		"radial Accent, Deep 80%":                         "radial-gradient(#1d5f6b 0%, #123a44 80%)",
		"linear-gradient(45deg, hsl(0, 100%, 50%), #000)": "linear-gradient(45deg, #ff0000 0%, #000000 100%)",
		"conic from 45deg, $deep, $accent/50% 60%":        "conic-gradient(from 45deg, #123a44 0%, #1d5f6b80 60%)",
		"linear 90deg #fff 45%, transparent 45%":          "linear-gradient(90deg, #ffffff 45%, #00000000 45%)",
		"linear 0deg #000 60%, #fff 20%":                  "linear-gradient(0deg, #000000 60%, #ffffff 60%)",
	} {
		v, problem := s.Read(&h, entry)
		if problem != nil {
			t.Errorf("%q: %v", entry, problem)
			continue
		}
		sh := Sheet{House: &h, Zones: doc.StandardZones(), Style: doc.Style{"gradient": {"desktop": v}}}
		if got := sh.Gradient("gradient", 1); got != want {
			t.Errorf("%q is %s, want %s", entry, got, want)
		}
		if again, _ := s.Read(&h, v); again != v {
			t.Errorf("%q is read as %q and that as %q", entry, v, again)
		}
	}
	for entry, want := range map[string]string{
		"linear 135deg": "no colours", "linear #fff": "1 colours", "radial": "no colours", "#fff, nonsense": "nonsense", "#fff, #000 140%": "140%",
		"linear " + strings.Repeat("#fff,", 20) + "#fff":  "21 colours",
		"linear " + strings.Repeat("#fff,", 199) + "#fff": "200 colours", "$gone, #fff": "$gone", strings.Repeat("#fff,", 1000): "too long",
	} {
		if _, problem := s.Read(&h, entry); problem == nil || !strings.Contains(problem.Message, want) {
			t.Errorf("%q gives %v, want a problem about %q", entry, problem, want)
		}
	}
	sh := Sheet{
		House: &h,
		Zones: doc.StandardZones(),
		Style: doc.Style{"filter": {"desktop": "linear 0deg $deep 0%, #000000 100%"}},
	}
	if got := sh.Gradient("filter", 0.5); got != "linear-gradient(0deg, #123a4480 0%, #00000080 100%)" {
		t.Errorf("half seen through: %s", got)
	}
}
