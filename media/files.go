package media

import (
	"slices"
	"strings"

	"github.com/gabriel-vasile/mimetype"

	"openplot/core/doc"
)

// Limits of what is neither a picture nor a video. It is kept as it is.
const (
	MaxAudioBytes = MaxVideoBytes
	MaxFileBytes  = MaxBytes
)

// asItIs is a type of file that is taken as it is: what it is called where browsers read it,
// and how its files end.
type asItIs struct{ mediaType, ext string }

// sounds are those that browsers play (HTML, the audio element; common practice).
var sounds = []asItIs{
	{
		"audio/mpeg",
		".mp3",
	}, {"audio/ogg", ".ogg"}, {"audio/mp4", ".m4a"}, {"audio/x-m4a", ".m4a"}, {"audio/wav", ".wav"}, {"audio/flac", ".flac"}, {"audio/aac", ".aac"},
}

// files are those that people hand to others. None can run in the page's name.
var files = []asItIs{
	{"application/pdf", ".pdf"}, {"application/epub+zip", ".epub"}, {"application/zip", ".zip"}, {"text/plain", ".txt"},
	{"text/csv", ".csv"}, {"text/calendar", ".ics"}, {"text/vcard", ".vcf"}, {"application/gpx+xml", ".gpx"},
	{"application/vnd.openxmlformats-officedocument.wordprocessingml.document", ".docx"},
	{"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", ".xlsx"},
	{"application/vnd.openxmlformats-officedocument.presentationml.presentation", ".pptx"},
	{"application/vnd.oasis.opendocument.text", ".odt"}, {"application/vnd.oasis.opendocument.spreadsheet", ".ods"},
	{"application/vnd.oasis.opendocument.presentation", ".odp"},
}

// openOther reads an upload that is no picture: what is to be listened to, and what links
// lead to. It is nil when the upload is neither.
func openOther(data []byte) (*Picture, error) {
	if len(data) == 0 {
		return nil, nil
	}
	found := mimetype.Detect(data)
	for _, sort := range []struct {
		of   []asItIs
		most int
		is   string
	}{{sounds, MaxAudioBytes, "Audio"}, {files, MaxFileBytes, "File"}} {
		i := slices.IndexFunc(sort.of, func(k asItIs) bool { return found.Is(k.mediaType) })
		if i < 0 {
			continue
		}
		if len(data) > sort.most {
			return nil, doc.Problemf(
				sort.is,
				"has %.1f MB; upload at most %d MB",
				float64(len(data))/(1<<20),
				sort.most>>20,
			)
		}
		k := sort.of[i]
		return &Picture{Type: strings.Replace(k.mediaType, "x-m4a", "mp4", 1), Copies: []Copy{{0, k.ext, data}}}, nil
	}
	return nil, nil
}
