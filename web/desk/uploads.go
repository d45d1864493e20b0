package desk

import (
	"errors"
	"mime/multipart"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/media"
	"openplot/origin"
	"openplot/web/shell"
)

// By says for whom uploads are kept.
func By(c *gin.Context) media.By { return media.By{Site: shell.SiteOf(c).ID, User: shell.User(c).ID} }

// SentFile gives the file of a form. Little of it is held in memory; the rest is in a file
// until the request ends.
func SentFile(c *gin.Context) (multipart.File, *multipart.FileHeader, error) {
	header, err := c.FormFile("file")
	origin.CleanForm(c.Request)
	if err != nil {
		return nil, nil, err
	}
	file, err := header.Open()
	return file, header, err
}

// Received gives the file that came with a form. Errors are *doc.Problem.
func Received(c *gin.Context) (name string, from multipart.File, err error) {
	file, header, err := SentFile(c)
	if err != nil {
		var large *http.MaxBytesError
		if errors.As(err, &large) {
			return "", nil, doc.Problemf(
				"Picture",
				"is larger than %d MB; make it smaller and upload it again",
				media.MaxVideoBytes>>20,
			)
		}
		return "", nil, doc.Problemf("Picture", "did not come with the form; choose one first")
	}
	return header.Filename, file, nil
}

type PickerItem struct {
	ID, Name, Thumb, Size string
	Width, Height         int
	Wordless              bool // a picture of which nobody has said what is seen on it
}
