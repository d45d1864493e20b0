package desk

import (
	"context"
	"errors"
	"mime/multipart"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/policy"
	"openplot/fonts"
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

// CheckCarried checks fonts of a file as uploaded ones. Errors are *doc.Problem when they are
// about one.
func CheckCarried(ctx context.Context, carried []carry.Font) ([]*fonts.Own, error) {
	if len(carried) > policy.Fonts {
		return nil, doc.Problemf("Fonts", "in the file are %d; %d is the most a site has", len(carried), policy.Fonts)
	}
	checked := make([]*fonts.Own, len(carried))
	for i, f := range carried {
		own, err := fonts.ReadOwn(ctx, f.WOFF2)
		var problem *doc.Problem
		if errors.As(err, &problem) {
			return nil, doc.Problemf("Fonts", "of %s in the file can't be used: it %s", f.Family, problem.Message)
		}
		if err != nil {
			return nil, err
		}
		checked[i] = own
	}
	return checked, nil
}
