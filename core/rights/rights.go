// Package rights says who may do what on a site: a role has rights, and an operation on a
// page (edit.RightFor) or a route of the application (web/shell) needs one. There is
// one check, Role.May.
package rights

import "slices"

// Role is what a person is on a site.
type Role string

// The roles.
const (
	Owner    Role = "owner" // a designer who answers for the site
	Designer Role = "designer"
	Writer   Role = "writer" // writes words and chooses pictures, and changes nothing else
)

// Right is what something needs that not everybody may do.
type Right string

// The rights.
const (
	None    Right = ""        // anybody, signed in or not
	Sign    Right = "sign"    // whoever is signed in
	See     Right = "see"     // look at a site's pages, pictures and entries
	Write   Right = "write"   // change words and pictures, and take that back
	Compose Right = "compose" // change anything else on pages, and add pages
	House   Right = "house"   // change the house style
	Publish Right = "publish" // publish and preview
	Keep    Right = "keep"    // change what the site keeps: its Shelf, its facts, deleting pictures and entries
	Account Right = "account" // see who did what
	Operate Right = "operate" // run the program: of operators, on no site
)

// Rights lists those that belong to a site, which a role has or hasn't.
var Rights = []Right{See, Write, Compose, House, Publish, Keep, Account}

// byRole is what each role may do.
var byRole = map[Role][]Right{
	Owner:    Rights,
	Designer: {See, Write, Compose, House, Publish, Keep},
	Writer:   {See, Write},
}

// May reports whether a role on a site has a right there. Everybody has None and Sign.
func (r Role) May(right Right) bool {
	return right == None || right == Sign || slices.Contains(byRole[r], right)
}
