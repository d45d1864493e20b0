package doc

import "testing"

// Of what a file brings as menus, those of a site's own are what has the form of one: no menu of
// every site, and nothing that isn't an id, becomes one by having a name.
func TestOwnMenusAreFormedAsSuch(t *testing.T) {
	named := []MenuItem{{Hand: true, Label: "Mine"}, {Label: "Home", Link: "/"}}
	s := Site{Menus: map[string][]MenuItem{
		"pages": named, "footer": named, "legal": named, "own": named, "": named, `u"><script>`: named, "u/../x": named,
		"u1nameless": {{Hand: true}}, "u2follows": {{Label: "Mine"}}, "u3empty": {},
		"u4mine": named,
	}}
	if own := s.OwnMenus(); len(own) != 1 || own[0] != (OwnMenu{"u4mine", "Mine"}) {
		t.Errorf("%+v", own)
	}
}
