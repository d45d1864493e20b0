package emit

import "testing"

func TestAddressesRunNothing(t *testing.T) {
	for address, want := range map[string]bool{
		"/fares": true, "fares/": true, "#top": true, "?a=b:c": true, "./a:b": true, "": true, "https://example.org/a:b": true, "HTTP://x": true, "mailto:a@b.example": true, "tel:+47": true,
		"data:image/png;base64,AA": true, "javascript:x": false, "JavaScript:x": false, "java\tscript:x": false, "\x01javascript:x": false, " \njavascript:x": false, "javascript\n:x": false,
		"data:text/html,x": false, "data:image/svg+xml,x": false, "vbscript:x": false, "file:///etc/passwd": false, "blob:x": false, "about:blank": false, "a:b": false,
	} {
		if leads(address) != want {
			t.Errorf("%q: %v", address, !want)
		}
	}
}
