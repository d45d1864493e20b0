// Package emit writes element trees as HTML and CSS text.
//
// In comes a tree (package element); out come plain HTML and a style sheet: one
// rule per distinct look, and one media query per narrower zone. It writes only
// CSS that package layout models, or that cannot move a box; style.Properties
// says which is which. Start at Sheet and Document.
package emit
