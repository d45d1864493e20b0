package model

import "cmp"

// helps says where the handbook is about a cluster of the Tray, by the cluster's ID. Of the others it
// says what holds of all.
var helps = map[string]string{
	"place": "placing#moving-and-resizing", "layout": "placing", "spacing": "placing#spacing", "align": "placing",
	"together": "placing#containers", "order": "sections#the-order-on-a-phone", "seen": "widths#seen-here-not-there",
	"elsewhere": "widths#elsewhere", "visibility": "widths#seen-here-not-there",
	"type": "words#text-styles", "surface": "sections#a-sections-own-settings", "border": "sections#a-sections-own-settings",
	"dividers": "sections#a-sections-own-settings", "scroll": "sections#a-sections-own-settings",
	"picture": "pictures#focal-point-and-shape", "size": "placing#moving-and-resizing",
	"listed": "series#lists-of-pages", "page": "pages-menus#what-is-set-on-a-page",
}

// Help is where the handbook is about it.
func (c cluster) Help() string { return "/handbook/" + cmp.Or(helps[c.ID], "bench#the-tray") }

// Helps lists everywhere that the Tray leads to in the handbook.
func Helps() (all []string) {
	for id := range helps {
		all = append(all, cluster{ID: id}.Help())
	}
	return append(all, cluster{}.Help())
}
