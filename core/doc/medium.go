package doc

import "strings"

// MediumSort is what a file of the library is good for; "" is a file that isn't there.
type MediumSort string

// The sorts of medium.
const (
	PictureMedium MediumSort = "picture"
	VideoMedium   MediumSort = "video"
	AudioMedium   MediumSort = "audio"
	FileMedium    MediumSort = "file" // to be linked to
)

// SortOf tells what a file of a media type (RFC 6838) is good for.
func SortOf(mediaType string) MediumSort {
	switch main, _, _ := strings.Cut(mediaType, "/"); main {
	case "image":
		return PictureMedium
	case "video", "audio":
		return MediumSort(main)
	}
	return FileMedium
}

// ThumbWidth is how wide in px a picture has to be that is shown small, on screens with two
// pixels a px.
const ThumbWidth = 480
