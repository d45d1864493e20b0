package house

import (
	"maps"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/emit"
	"openplot/fonts"
	"openplot/site"
	"openplot/store"
	"openplot/web/model"
	"openplot/web/shell"
)

// specimen answers with a page set in the house style, for the frame beside it.
func (s *Screen) specimen(c *gin.Context) {
	st, err := s.Worn(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	document, err := s.specimenDocument(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Header(
		"Content-Security-Policy",
		"default-src 'none'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data:; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
	)
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(document))
}

// specimenDocument sets the specimen in a site's house style.
func (s *Screen) specimenDocument(c *gin.Context, st *store.Site) (string, error) {
	src, err := s.Source(c, st)
	if err != nil {
		return "", err
	}
	stage := s.Workshop.Stage(st, src, "")
	body := stage.Builder.Page(specimenPage(&st.House))
	var faces []emit.FontFace
	for _, f := range fonts.Needed(emit.Used(body)) {
		faces = append(faces, site.FontFace(f, "/fonts/"))
	}
	faces = append(faces, stage.OwnFaces()...)
	return emit.NewSheet(st.Zones).Inline(emit.Page{Title: "Specimen", Language: "en", Fonts: faces}, body), nil
}

// tryHouseEdit answers with the specimen, or with a page, as a change of the house style would
// have it, and keeps nothing. A house style that is tried on whole is named instead.
func (s *Screen) tryHouseEdit(c *gin.Context) {
	as := *shell.SiteOf(c)
	var err error
	if id := c.PostForm("house"); id != "" {
		as.House, err = s.FindHouse(c, shell.SiteOf(c), id)
	} else {
		as.House, err = edit.ApplyHouse(as.House, as.Zones, houseCommand(c))
	}
	if err != nil {
		s.RefuseTry(c, err)
		return
	}
	as.Worn = store.NewID("try")
	as.Site.Zones = as.Zones.WithHeights(as.House.ViewHeight)
	page := c.PostForm("page")
	if page == "" {
		document, err := s.specimenDocument(c, &as)
		if err != nil {
			s.Fail(c, err)
			return
		}
		c.JSON(http.StatusOK, gin.H{"document": document})
		return
	}
	if page == "home" {
		page = ""
	}
	p, err := s.Store.Pages.At(c, as.ID, page)
	if err != nil {
		s.Fail(c, err)
		return
	}
	src, err := s.Source(c, &as)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := &model.View{Stage: s.Workshop.Stage(&as, src, p.Slug).Passing(), Page: p.Doc}
	c.JSON(http.StatusOK, gin.H{"document": v.Canvas(s.Address("bench/canvas.css"))})
}

// specimenWords are what text styles are shown with; others say their own name.
var specimenWords = map[string]string{
	"display": "The last boat leaves at dusk",
	"h1":      "What to bring, and what to leave",
	"h2":      "On the quiet ground",
	"h3":      "A heading over a few words",
	"h4":      "A smaller one, in a card",
	"h5":      "Smaller still",
	"h6":      "The least of headings",
	"lead":    "A lead says in two lines why somebody should read on. It is a size larger than the words below it.",
	"quote":   "We were late, and they had waited.",
	"small":   "Small print: what may be passed over.",
	"label":   "Label · 08:10",
	"mono":    "08:10  11:40  15:20",
}

// specimenPage shows every text style, role, button and step in real words.
func specimenPage(h *doc.House) *doc.Page {
	set := func(style string) *doc.Block { return compose.Words(style, specimenWords[style]) }
	body := &doc.Block{
		Kind: doc.Text,
		Content: doc.Content{
			Words: doc.Words{
				{
					{Text: "Words for reading stand in lines of fifty to seventy characters. "},
					{Text: "Strong ones", Bold: true},
					{Text: " carry weight, "},
					{Text: "slanted ones", Italic: true},
					{Text: " a tone, and "},
					{Text: "a link", Link: "#x"},
					{Text: " goes somewhere."},
				},
			},
		},
	}
	button := func(look, size, words string) *doc.Block {
		return compose.Button(words, "#x", "button-look", look, "button-size", "$"+size)
	}
	room := func(pairs ...string) doc.Style {
		return compose.Look(
			append([]string{"padding-top", "$wide", "padding-bottom", "$wide", "row-gap", "$snug"}, pairs...)...)
	}
	words := compose.Section(doc.LineUp, room(),
		compose.Heading(1, specimenWords["display"], "text-style", "$display"),
		compose.Heading(2, specimenWords["h1"], "text-style", "$h1"),
		set("lead"), body)
	looks := compose.Section(doc.LineUp, room("padding-top", "0px"))
	for _, look := range []string{"filled", "outlined", "quiet"} {
		row := compose.Row("$snug")
		medium := h.ButtonSize("")
		row.Blocks = []*doc.Block{
			button(
				look,
				medium.Token,
				map[string]string{"filled": "Ask for a berth", "outlined": "See the times", "quiet": "Read the notices"}[look],
			),
		}
		for _, size := range h.ButtonSizes() {
			if size.Token != medium.Token {
				row.Blocks = append(row.Blocks, button(look, size.Token, size.Name))
			}
		}
		looks.Blocks = append(looks.Blocks, row)
	}
	quiet := compose.Section(doc.LineUp, room("background", "$quiet-ground"),
		compose.Heading(2, specimenWords["h2"], "text-style", "$h2"),
		compose.With(
			compose.Words("", "Quiet words are for what may be passed over: times of day, small print, a caption."),
			"color", "$quiet-words",
		),
		compose.Heading(3, "Accent, in a smaller heading", "color", "$accent"),
		compose.Heading(3, "Second accent, beside it", "color", "$second-accent"),
	)
	named := func(name string, pairs ...string) *doc.Block {
		b := compose.Words("small", name)
		return compose.With(
			b,
			append(
				[]string{
					"background", "$ground", "padding-top", "$snug", "padding-right", "$snug", "padding-bottom", "$snug",
					"padding-left", "$snug",
				},
				pairs...,
			)...,
		)
	}
	rest := compose.Section(doc.LineUp, room("background", "$quiet-ground", "padding-top", "0px"))
	steps := compose.Row("$snug")
	for _, s := range h.Corners {
		steps.Blocks = append(steps.Blocks, named(s.Name, "border-radius", "$"+s.Token))
	}
	for _, s := range h.LineSteps() {
		steps.Blocks = append(steps.Blocks, named(s.Name, "border-width", "$"+s.Token))
	}
	for _, s := range h.Shadows {
		steps.Blocks = append(steps.Blocks, named(s.Name, "box-shadow", "$"+s.Token))
	}
	rest.Blocks = append(rest.Blocks, steps)
	more := compose.Section(doc.LineUp, room())
	for _, style := range []string{"h3", "h4", "h5", "h6", "quote", "small", "label", "mono"} {
		more.Blocks = append(more.Blocks, set(style))
	}
	for _, style := range slices.Sorted(maps.Keys(h.Text)) {
		if !slices.Contains(textStyles, style) {
			more.Blocks = append(more.Blocks, compose.Words(style, "Set in "+style))
		}
	}
	p := &doc.Page{ID: "specimen", Name: "Specimen", Sections: []*doc.Section{words, looks, quiet, rest, more}}
	ids := 0
	for i, s := range p.Sections {
		s.ID, s.Name = "s"+string(rune('a'+i)), "Specimen"
		s.Walk(func(b *doc.Block) { ids++; b.ID = "x" + string(rune('a'+ids/26)) + string(rune('a'+ids%26)) })
	}
	return p
}
