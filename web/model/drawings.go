package model

import (
	"strconv"

	"openplot/site"
)

// DrawingLook is what drawings of a site's pages depend on beside the pages, when it is at a version.
func DrawingLook(version int64, hosts site.Hosts) string {
	return strconv.FormatInt(version, 10) + " " + hosts.Uploads()
}
