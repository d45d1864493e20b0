package house

import (
	"cmp"
	"errors"
	"fmt"
	"maps"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/number"
	"openplot/core/rights"
	"openplot/core/style"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen of the house style.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/fonts.css", rights.See, s.fontRules),
		shell.Get(paths.SiteRoute+"/house", rights.House, s.house),
		shell.Get(paths.SiteRoute+"/house/specimen", rights.House, s.specimen),
		shell.Post(paths.SiteRoute+"/house/edits", rights.House, s.editHouse),
		shell.Post(paths.SiteRoute+"/house/undo", rights.House, s.undoHouse),
		shell.Get(paths.SiteRoute+"/house/file", rights.House, s.houseFile),
		shell.Within(shell.HouseFile, shell.Post(paths.SiteRoute+"/house/file", rights.House, s.takeHouseFile)),
		shell.Within(shell.Typeface, shell.Post(paths.SiteRoute+"/house/fonts", rights.House, s.addFont)),
		shell.Post(paths.SiteRoute+"/house/fonts/drop", rights.House, s.dropFont),
		shell.Post(paths.SiteRoute+"/house/tries", rights.House, s.tryHouseEdit),
		shell.Post(paths.SiteRoute+"/house/try", rights.House, s.tryHouse),
		shell.Post(paths.SiteRoute+"/house/take", rights.House, s.takeHouse),
		shell.Post(paths.SiteRoute+"/house/keep", rights.House, s.keepHouse),
		shell.Post(paths.SiteRoute+"/house/drop", rights.House, s.dropHouse),
		shell.Post(paths.SiteRoute+"/house/palette", rights.House, s.suggestPalette),
		shell.Post(paths.SiteRoute+"/house/contrasts", rights.House, s.tryColour),
	}
}

// houseView is the screen of a site's house style.
type houseView struct {
	User      *store.User
	Site      *store.Site
	Base      string // address of the screen
	CanUndo   bool
	Roles     []swatchView
	Named     []swatchView
	Contrasts []contrastView
	Pairings  []pairingView
	Families  []style.Family // the site's own first
	Own       []ownFamilyView
	Generics  []string
	Styles    []textStyleView
	Measures  []measureGroup
	Pictures  []desk.PickerItem
	Suggested *paletteView
	Ready     []desk.Worn // house styles to try on
	Trying    *desk.Worn
	Pages     []*store.PageInfo
	Shown     paths.Segment // the page that is the specimen, or ""
	Problem   string
	At        string // edit.HouseCommand.Input of the field that the problem is about
	Entered   string // what was entered there
}

type swatchView struct {
	doc.Swatch
	Scale []scaleStep
	Own   bool // added by hand
}

type scaleStep struct {
	X      int
	Colour string
}

// contrastView is a colour of words on a ground.
type contrastView struct {
	Words, Ground           string
	WordsValue, GroundValue string
	Ratio                   string
	Passes                  string
	Good                    bool // passes for all text
}

type pairingView struct {
	style.Pairing
	Chosen bool
}

// textStyleView is one text style with its fields.
type textStyleView struct {
	Token, Name string
	Fields      []typeField
	Case        string
	Fluid       bool
	Font        string // family
	Weight      int
	Size        float64 // px, no larger than there is room for
	Sample      string
}

// typeField is one number of a text style; Label names it wholly.
type typeField struct {
	Label, Name, Value string
	Least, Most, Step  float64
}

// textStyles are shown from large to small, before those added by hand.
var textStyles = []string{
	"display",
	"h1",
	"h2",
	"h3",
	"h4",
	"h5",
	"h6",
	"lead",
	"body",
	"small",
	"quote",
	"label",
	"button",
	"mono",
}

func styleViews(st *store.Site) []textStyleView {
	var out []textStyleView
	own := slices.DeleteFunc(
		slices.Sorted(maps.Keys(st.House.Text)),
		func(t string) bool { return slices.Contains(textStyles, t) },
	)
	for _, token := range slices.Concat(textStyles, own) {
		t, ok := st.House.Text[token]
		if !ok {
			continue
		}
		v := textStyleView{
			Token:  token,
			Name:   doc.Capital(token),
			Case:   t.Case,
			Fluid:  t.Fluid,
			Weight: t.Weight,
		}
		v.Font = map[string]string{"heading": st.House.Fonts.Heading, "mono": st.House.Fonts.Mono}[t.Family]
		if v.Font == "" {
			v.Font = st.House.Fonts.Body
		}
		v.Size = min(t.Size.Or(st.Zones, 0, style.RootFontSize), 44)
		if v.Sample = specimenWords[token]; v.Sample == "" {
			v.Sample = "Set in " + v.Name
		}
		field := func(label, name string, value, least, most, step float64) {
			v.Fields = append(v.Fields, typeField{v.Name + ", " + label, name, style.Number(value), least, most, step})
		}
		for z, zone := range st.Zones {
			field("size on "+zone.Name, "size "+zone.ID, sizeIn(st, token, z), 8, 300, 1)
		}
		field("weight", "weight", float64(t.Weight), 100, 900, 25)
		field("line height", "line-height", t.LineHeight, 0.8, 3, 0.05)
		field("letter spacing", "letter-spacing", t.LetterSpacing, -0.1, 0.5, 0.01)
		out = append(out, v)
	}
	return out
}

// sizeIn is a text style's size in a zone in px; a fluid one's is that at the zone's typical width, to a tenth.
func sizeIn(st *store.Site, token string, zone int) float64 {
	t := st.House.Text[token]
	if !t.Fluid {
		return t.Size.Or(st.Zones, zone, style.RootFontSize)
	}
	var set style.Style
	style.Sheet{House: &st.House, Zones: st.Zones, Zone: zone}.TextStyle(&set, token)
	px, _ := set.FontSize.Resolve(0, style.Viewport{Width: float64(st.Zones[zone].Typical)})
	return math.Round(px*10) / 10
}

// paletteView is a palette suggested from a picture.
type paletteView struct {
	Picture, Name string
	Found         []scaleStep // the picture's colours
	Roles         []doc.Swatch
	Contrasts     []contrastView
}

// measureGroup is measures that stand together.
type measureGroup struct {
	Name     string
	Measures []measureView
	Choices  []desk.Choice
	Shadows  []shadowView
}

type shadowView struct {
	Token, Name string
	Raw         string // as style.ReadShadow reads it
	CSS         string
}

type measureView struct {
	edit.Measure
	Shown string
	Step  float64
	Draw  string // what it is drawn as: "space", "line", "corner" or ""
}

func measureGroups(st *store.Site) (out []measureGroup) {
	group := func(name string) *measureGroup {
		i := slices.IndexFunc(out, func(g measureGroup) bool { return g.Name == name })
		if i < 0 {
			out, i = append(out, measureGroup{Name: name}), len(out)
		}
		return &out[i]
	}
	group("Page")
	for _, m := range edit.Measures(&st.House, st.Zones) {
		g := group(m.Group)
		v := measureView{Measure: m, Shown: style.Number(m.Value), Step: 1}
		if m.Most <= 2 {
			v.Step = 0.01
		}
		kind, _, _ := strings.Cut(m.Name, ".")
		v.Draw = map[string]string{"space": "space", "gutter": "space", "gap": "space", "lines": "line", "corners": "corner"}[kind]
		g.Measures = append(g.Measures, v)
	}
	for _, p := range style.Picks(&st.House) {
		g := group(p.Group)
		g.Choices = append(g.Choices, pickView(&st.House, p))
	}
	g := group("Shadows")
	for _, sh := range st.House.Shadows {
		css := style.Sheet{House: &st.House, Zones: st.Zones}.ShadowOf(sh)
		g.Shadows = append(g.Shadows, shadowView{sh.Token, sh.Name, style.ShadowText(sh), css})
	}
	return out
}

// pickView shows one of style.Picks.
func pickView(h *doc.House, p style.Pick) desk.Choice {
	v := desk.Choice{ID: "m-" + p.Name, Label: p.Label, Op: "house:pick", Name: p.Name}
	offers := p.Offers
	if p.Usual != "" {
		offers = slices.Concat([]style.Offer{{Name: p.Usual}}, offers)
	}
	for _, o := range offers {
		c := desk.Offer{Label: o.Name, Value: o.Value, Paint: o.Colour, Chosen: o.Value == p.Value}
		if s, ok := doc.FindStep(h.Corners, o.Value); ok && strings.HasSuffix(p.Name, ".corners") {
			c.Draw, c.Radius = "corner", min(s.Px, 20)
		}
		if p.Name == "forms.look" || p.Name == "forms.labels" {
			c.Draw = p.Name[len("forms."):] + "-" + cmp.Or(o.Value, "usual")
		}
		v.Offers = append(v.Offers, c)
	}
	return v
}

// Uses gives the choices of a family for headings, for reading and for code.
func (v *houseView) Uses() (out []desk.Choice) {
	f := v.Site.House.Fonts
	for _, use := range [][3]string{{"heading", "Headings", f.Heading}, {"body", "Body", f.Body}, {"mono", "Monospace", f.Mono}} {
		c := desk.Choice{ID: "font-" + use[0], Label: use[1], Op: "house:fonts.set", Token: use[0], Find: true}
		for _, o := range v.Families {
			c.Offers = append(
				c.Offers,
				desk.Offer{Label: o.Name, Value: o.Name, Font: o.Name, Chosen: o.Name == use[2]},
			)
		}
		out = append(out, c)
	}
	return out
}

// Cases gives the choice of a text style's case.
func (t textStyleView) Cases() desk.Choice {
	v := desk.Choice{
		ID:    "t-" + t.Token + "-case",
		Label: t.Name + ", case",
		Op:    "house:type.set",
		Token: t.Token,
		Name:  "case",
		Aside: true,
	}
	for _, o := range [][2]string{{"", "Aa"}, {"upper", "AA"}, {"lower", "aa"}} {
		v.Offers = append(v.Offers, desk.Offer{Label: o[1], Value: o[0], Chosen: t.Case == o[0]})
	}
	return v
}

func (s *Screen) houseView(c *gin.Context, st *store.Site) (*houseView, error) {
	h := &st.House
	v := &houseView{
		User: shell.User(
			c,
		), Site: st, Base: paths.To(st.Slug).At("house"), Families: families(h), Generics: style.Generics,
		Contrasts: contrasts(h), Styles: styleViews(st),
		Measures: measureGroups(st),
	}
	var err error
	if v.CanUndo, err = s.Store.Houses.CanUndo(c, st.ID, shell.User(c).ID); err != nil {
		return nil, err
	}
	media, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, m := range media {
		if m.Type != "image/svg+xml" && m.Picture() {
			v.Pictures = append(
				v.Pictures,
				desk.PickerItem{ID: m.ID, Name: m.Name, Thumb: s.Hosts.Uploads() + "/media/" + m.Thumb()},
			)
		}
	}
	own, err := s.Store.Houses.Fonts(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, f := range h.Own {
		o := ownFamilyView{OwnFamily: f}
		for _, file := range own {
			if file.Family == f.Name {
				o.Files = append(o.Files, fontFileName(file))
			}
		}
		v.Own = append(v.Own, o)
	}
	if v.Ready, err = s.WornViews(c, st); err != nil {
		return nil, err
	}
	for _, w := range h.Palette {
		own := !slices.Contains(doc.Roles, w.Token)
		sv := swatchView{Swatch: w, Own: own}
		if col, err := colour.ParseHex(w.Value); err == nil {
			for i, step := range col.Scale(9) {
				sv.Scale = append(sv.Scale, scaleStep{i * 14, step.String()})
			}
		}
		if own {
			v.Named = append(v.Named, sv)
		} else {
			v.Roles = append(v.Roles, sv)
		}
	}
	for _, p := range style.Pairings {
		v.Pairings = append(v.Pairings, pairingView{p, p.Heading == h.Fonts.Heading && p.Body == h.Fonts.Body})
	}
	return v, nil
}

// ownFamilyView is a family that the site's people uploaded, with its files in words.
type ownFamilyView struct {
	doc.OwnFamily
	Files []string
}

func fontFileName(f *store.Font) string {
	name := strconv.Itoa(f.Least)
	if f.Most != f.Least {
		name += " to " + strconv.Itoa(f.Most)
	}
	if f.Italic {
		name += " italic"
	}
	return name
}

// families lists what a house style can be set in, the site's own first.
func families(h *doc.House) (out []style.Family) {
	for _, f := range h.Own {
		out = append(out, style.Family{Name: f.Name, Generic: f.Generic, Use: "the site’s own"})
	}
	return append(out, style.Families...)
}

// pairs are the colours of words and grounds that meet on pages.
var pairs = [][2]string{
	{"words", "ground"}, {"words", "quiet-ground"}, {"quiet-words", "ground"}, {"quiet-words", "quiet-ground"},
	{"accent", "ground"}, {"accent", "quiet-ground"}, {"second-accent", "ground"}, {"second-accent", "quiet-ground"},
	{"ground", "accent"}, {"ground", "second-accent"},
}

func contrasts(h *doc.House) []contrastView {
	var out []contrastView
	for _, p := range pairs {
		words, ground := h.Swatch(p[0]), h.Swatch(p[1])
		if words == nil || ground == nil {
			continue
		}
		a, errA := colour.ParseHex(words.Value)
		b, errB := colour.ParseHex(ground.Value)
		if errA != nil || errB != nil {
			continue
		}
		r := colour.Contrast(a, b)
		out = append(
			out,
			contrastView{
				words.Name,
				ground.Name,
				words.Value,
				ground.Value,
				fmt.Sprintf("%.2f", r),
				colour.Passes(r),
				r >= colour.AA,
			},
		)
	}
	return out
}

// house shows the house style.
func (s *Screen) house(c *gin.Context) {
	v, err := s.houseView(c, shell.SiteOf(c))
	if err != nil {
		s.Fail(c, err)
		return
	}
	if v.Pages, err = s.Store.Pages.List(c, v.Site.ID); err != nil {
		s.Fail(c, err)
		return
	}
	if slices.ContainsFunc(
		v.Pages,
		func(p *store.PageInfo) bool { return paths.Of(p.Slug) == paths.Segment(c.Query("page")) },
	) {
		v.Shown = paths.Segment(c.Query("page"))
	}
	s.Screen(c, http.StatusOK, "house", v)
}

func houseCommand(c *gin.Context) edit.HouseCommand {
	value := c.PostForm("value")
	if c.PostForm("picked") != "" { // by the browser's own colour field
		value = c.PostForm("picked")
	}
	return edit.HouseCommand{Op: c.PostForm("op"), Token: c.PostForm("token"), Name: c.PostForm("name"), Value: value}
}

// baseOf is the version that a change was made against; none is stale.
func baseOf(c *gin.Context) int64 {
	base, _ := number.Sequence(c.PostForm("base"))
	return base
}

// editHouse carries out one change and answers with the screen's changing part.
func (s *Screen) editHouse(c *gin.Context) {
	st := shell.SiteOf(c)
	command := houseCommand(c)
	base, err := number.Sequence(c.PostForm("base"))
	if err != nil {
		base = st.Version
	}
	err = s.Store.Houses.Edit(c, st.ID, shell.User(c).ID, base, command, func(h doc.House) (doc.House, error) {
		return edit.ApplyHouse(
			h, st.Zones, command,
		)
	})
	s.houseDone(c, command, err)
}

func (s *Screen) undoHouse(c *gin.Context) {
	s.houseDone(c, edit.HouseCommand{}, s.Store.Houses.Undo(c, shell.SiteOf(c).ID, shell.User(c).ID))
}

func (s *Screen) houseDone(c *gin.Context, command edit.HouseCommand, err error) {
	var problem *doc.Problem
	switch {
	case err == nil:
		s.houseAnswer(c, http.StatusOK, command, "")
	case errors.Is(err, store.ErrNothing):
		s.houseAnswer(c, http.StatusOK, command, "There is nothing to undo.")
	case errors.Is(err, store.ErrStale):
		s.houseAnswer(
			c,
			http.StatusConflict,
			command,
			"Somebody changed the house style at the same time. Here is how it stands now; make your change again if it is still wanted.",
		)
	case errors.As(err, &problem):
		s.houseAnswer(c, http.StatusUnprocessableEntity, command, problem.Sentence())
	default:
		s.Fail(c, err)
	}
}

// houseAnswer renders the part that changes; what was refused stays in its field.
func (s *Screen) houseAnswer(c *gin.Context, status int, command edit.HouseCommand, problem string) {
	st, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, shell.SiteOf(c).Slug)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v, err := s.houseView(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if v.Problem = problem; problem != "" && status == http.StatusUnprocessableEntity {
		v.At, v.Entered = command.Input(), desk.Shortened(command.Value, 200)
	}
	s.houseParts(c, status, v)
}

func (s *Screen) houseParts(c *gin.Context, status int, v *houseView) {
	s.Parted(c, status, "house-parts", v)
}

// tryColour answers with the table of contrasts as it would be.
func (s *Screen) tryColour(c *gin.Context) {
	st := shell.SiteOf(c)
	h, err := edit.ApplyHouse(
		st.House,
		st.Zones,
		edit.HouseCommand{Op: "colour.set", Token: c.PostForm("token"), Value: c.PostForm("value")},
	)
	if err != nil {
		h = st.House // not a colour yet
	}
	s.Parted(c, http.StatusOK, "contrasts", contrasts(&h))
}

// suggestPalette answers with a palette from a picture; with take it is taken.
func (s *Screen) suggestPalette(c *gin.Context) {
	st := shell.SiteOf(c)
	media, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	i := slices.IndexFunc(media, func(m *store.Medium) bool { return m.ID == c.PostForm("picture") })
	if i < 0 {
		s.houseAnswer(
			c,
			http.StatusUnprocessableEntity,
			edit.HouseCommand{},
			"Picture isn't one of this site's: choose one.",
		)
		return
	}
	found, err := s.Pictures.Colours(c, desk.By(c), media[i])
	if err != nil {
		s.houseDone(c, edit.HouseCommand{}, err)
		return
	}
	roles := colour.SuggestRoles(found)
	if c.PostForm("take") != "" {
		command := edit.HouseCommand{Op: "palette.take", Value: media[i].ID}
		s.houseDone(
			c,
			command,
			s.Store.Houses.Edit(c, st.ID, shell.User(c).ID, baseOf(c), command, func(h doc.House) (doc.House, error) {
				return edit.TakePalette(
					h, roles,
				), nil
			}),
		)
		return
	}
	v, err := s.houseView(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	would := edit.TakePalette(st.House, roles)
	v.Suggested = &paletteView{Picture: media[i].ID, Name: media[i].Name, Contrasts: contrasts(&would)}
	for k, f := range found {
		v.Suggested.Found = append(v.Suggested.Found, scaleStep{k * 30, f.Colour.String()})
	}
	for _, token := range doc.Roles {
		v.Suggested.Roles = append(v.Suggested.Roles, *would.Swatch(token))
	}
	s.houseParts(c, http.StatusOK, v)
}
