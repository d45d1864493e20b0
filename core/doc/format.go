package doc

import "fmt"

// Format is the version of the form in which documents are kept: pages and house styles
// say it in their JSON. Package migrate brings older ones up to date.
const Format = 2

// A FormatError is a document in a form that can't be read.
type FormatError struct{ Format int }

func (e FormatError) Error() string {
	if e.Format > Format {
		return fmt.Sprintf(
			"the document is of format %d, from a newer version of Open Plot; this one reads %d",
			e.Format,
			Format,
		)
	}
	return fmt.Sprintf("the document is of format %d and has to be brought up to date to %d first", e.Format, Format)
}
