package site

import (
	"strconv"
	"strings"
)

// Brief names a few things and counts the others.
func Brief(names []string) string {
	if len(names) > 4 {
		return strings.Join(names[:3], ", ") + " and " + strconv.Itoa(len(names)-3) + " others"
	}
	return strings.Join(names, ", ")
}
