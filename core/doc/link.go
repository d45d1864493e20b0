package doc

import (
	"strings"
)

// newTab ends a link that opens in a new tab, after a space, as HTML calls that (the target
// attribute). No address has a space in it.
const newTab = " _blank"

// FilePrefix begins a link to a file of the site's library, before its id.
const FilePrefix = "file:"

// SplitLink gives the address that a link leads to, and whether it opens in a new tab.
func SplitLink(link string) (address string, inNewTab bool) {
	return strings.CutSuffix(link, newTab)
}

// JoinLink is the link to an address; to nowhere there is none.
func JoinLink(address string, inNewTab bool) string {
	if address == "" || !inNewTab {
		return address
	}
	return address + newTab
}

// LinkedFile gives the id of the file that a link leads to, or "".
func LinkedFile(link string) string {
	address, _ := SplitLink(link)
	id, ok := strings.CutPrefix(address, FilePrefix)
	if !ok {
		return ""
	}
	return id
}
