package element

import "strconv"

// part names a field of an entry, or its words for "".
func part(entry int, field string) string {
	if field == "" {
		return strconv.Itoa(entry)
	}
	return strconv.Itoa(entry) + "." + field
}
