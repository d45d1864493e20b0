package paths

import "testing"

// An address comes back from its segment, and paths are put together of it.
func TestPaths(t *testing.T) {
	for address, segment := range map[string]Segment{"": "home", "about": "about", "about/crew/ann": "about.crew.ann"} {
		if got := Of(address); got != segment || got.Address() != address {
			t.Errorf("%q: %q, which is %q", address, got, got.Address())
		}
	}
	site := To("skerry")
	for want, got := range map[string]string{
		"/sites/skerry":                        site.At(),
		"/sites/skerry/library/stock":          site.At("library", "stock"),
		"/sites/skerry/pages/home/bench":       site.Page("").At("bench"),
		"/sites/skerry/pages/about.crew/bench": site.Page("about/crew").At("bench"),
		"/sites/skerry/pages/about.crew":       site.Segment("about.crew").At(),
	} {
		if got != want {
			t.Errorf("%s, want %s", got, want)
		}
	}
}
