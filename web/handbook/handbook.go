// Package handbook is the handbook for people who compose: twelve short chapters, to read, and to
// search from the Bench's list of commands. Its words are in docs/handbook.
package handbook

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/docs"
	"openplot/web/desk"
	"openplot/web/shell"
)

// Screen is the handbook.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(base, rights.Sign, s.chapter),
		shell.Get(base+"/:chapter", rights.Sign, s.chapter),
		shell.Get(base+"/pictures/:file", rights.Sign, s.picture),
		shell.Get(base+"/parts", rights.Sign, s.parts),
	}
}

// view is the screen: a chapter, or what was looked for.
type view struct {
	Chapters []Chapter
	Shown    *Chapter
	Next     *Chapter
	Sought   string
	Found    []Part
}

// chapter shows a chapter, the first unless another is asked for, or what ?q finds.
func (s *Screen) chapter(c *gin.Context) {
	all, err := chapters()
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := view{Chapters: all, Sought: c.Query("q")}
	if v.Sought != "" {
		v.Found = find(all, v.Sought)
		s.Screen(c, http.StatusOK, "handbook", v)
		return
	}
	i := 0
	if id := c.Param("chapter"); id != "" {
		i = slices.IndexFunc(all, func(one Chapter) bool { return one.ID == id })
	}
	if i < 0 {
		s.ProblemPage(c, http.StatusNotFound)
		return
	}
	v.Shown = &all[i]
	if i+1 < len(all) {
		v.Next = &all[i+1]
	}
	s.Screen(c, http.StatusOK, "handbook", v)
}

// picture answers with a picture of the handbook's.
func (s *Screen) picture(c *gin.Context) {
	picture, err := docs.Files.ReadFile("screenshots/" + c.Param("file"))
	if err != nil {
		s.ProblemPage(c, http.StatusNotFound)
		return
	}
	c.Header("Cache-Control", "private, max-age=3600")
	c.Data(http.StatusOK, "image/png", picture)
}

// parts lists what stands below each heading, to be searched in.
func (s *Screen) parts(c *gin.Context) {
	all, err := chapters()
	if err != nil {
		s.Fail(c, err)
		return
	}
	var parts []Part
	for _, one := range all {
		parts = append(parts, one.Parts...)
	}
	c.JSON(http.StatusOK, parts)
}
