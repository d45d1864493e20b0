package settings

import (
	"net/url"
	"strings"
	"testing"
	"unicode/utf8"
)

func TestCheckLink(t *testing.T) {
	for _, ok := range []string{"", "/fares", "/fares#prices", "#crew", "https://example.org/a?b=c", "mailto:a@example.org", "tel:+15550142"} {
		if got, err := CheckLink(ok); err != nil || got != ok {
			t.Errorf("%q: %q, %v", ok, got, err)
		}
	}
	for _, bad := range []string{
		"fares", "javascript:alert(1)", "JAVASCRIPT:alert(1)", "data:text/html,x", "//evil.example", "https:///x",
		`https://a"b`, "mailto:", "/a b", "vbscript:x", "\x01javascript:x",
		strings.Repeat("/a", 4000),
	} {
		if _, err := CheckLink(bad); err == nil {
			t.Errorf("%q was taken", bad)
		}
	}
}

// An address that is taken leads where it says, and runs nothing.
func FuzzCheckLink(f *testing.F) {
	for _, s := range []string{"/fares#a", "https://example.org", "java\tscript:alert(1)", " JAVASCRIPT:x", "//example.org", "mailto:a@b", "data:text/html,x", "\x00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, address string) {
		kept, err := CheckLink(address)
		if err != nil || kept == "" {
			return
		}
		u, err := url.Parse(kept)
		if err != nil || !utf8.ValidString(kept) || strings.ContainsAny(kept, "\x00\n\r\t") {
			t.Errorf("%q: %v", kept, err)
			return
		}
		switch u.Scheme {
		case "", "http", "https", "mailto", "tel":
		default:
			t.Errorf("%q has the scheme %s", kept, u.Scheme)
		}
		if u.Scheme == "" && u.Host != "" {
			t.Errorf("%q leads to another host", kept)
		}
	})
}
