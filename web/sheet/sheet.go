// Package sheet is what files for spreadsheets have in common (RFC 4180).
package sheet

import "strings"

// Cell keeps spreadsheets from taking words for a formula (OWASP, CSV Injection).
func Cell(text string) string {
	if text != "" && strings.ContainsRune("=+-@\t\r", rune(text[0])) {
		return "'" + text
	}
	return text
}
