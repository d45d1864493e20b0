package style

import (
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"openplot/core/doc"
)

func TestEvaluate(t *testing.T) {
	for in, want := range map[string]float64{
		"(1000-40)/2": 480, "12": 12, " 1 + 2 * 3 ": 7, "-4": -4, "2*(3+4)*5": 70, "10/4": 2.5, ".5": 0.5, "--3": 3, "8-3-2": 3,
	} {
		got, err := Evaluate(in)
		if err != nil || got != want {
			t.Errorf("%q = %v, %v; want %v", in, got, err, want)
		}
	}
	for _, in := range []string{
		"", "1+", "(1", "1)", "1/0", "0/0", "a", "1 2", "1e5", "NaN", "Inf", "1..2",
		strings.Repeat("(", 300),
		strings.Repeat("9", 199) + "*" + strings.Repeat("9", 199),
	} {
		if got, err := Evaluate(in); err == nil {
			t.Errorf("%.20q = %v, want a problem", in, got)
		}
	}
}

func TestEvaluateLength(t *testing.T) {
	for in, want := range map[string]string{
		"24": "24px", "100%/3": "33.3333%", "2*1.5rem": "3rem", "50% - 20": "calc(50% - 20px)", "calc(50% - 20px)": "calc(50% - 20px)",
		"10vw + 1rem + 4px": "calc(10vw + 1rem + 4px)", "0%": "0", "-(2rem)": "-2rem",
	} {
		got, err := EvaluateLength(in)
		if err != nil || got.String() != want {
			t.Errorf("%q = %v, %v; want %s", in, got, err, want)
		}
	}
	for _, in := range []string{"", "px", "1px*1px", "1/1px", "calc(1px", "1em", "1px 2px"} {
		if got, err := EvaluateLength(in); err == nil {
			t.Errorf("%q = %v, want a problem", in, got)
		}
	}
	for _, tt := range []struct{ text, unit, want string }{
		{"16", "rem", "1rem"}, {"1rem", "px", "16px"}, {"100", "%", "25%"}, {"128", "vw", "10vw"}, {"50% - 40", "px", "160px"},
	} {
		if got, ok := Convert(tt.text, tt.unit, 400, Viewport{Width: 1280, Height: 800}); !ok || got != tt.want {
			t.Errorf("%s in %s: %q, want %q", tt.text, tt.unit, got, tt.want)
		}
	}
}

func FuzzEvaluate(f *testing.F) {
	for _, s := range []string{"(1000-40)/2", "-(-3)", "1/0", "((((", "9*9*9"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		if v, err := Evaluate(s); err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
			t.Errorf("%q = %v", s, v)
		}
	})
}

func TestSettingsRead(t *testing.T) {
	house := doc.StandardHouse()
	tests := []struct {
		setting string
		kind    doc.Kind
		entry   string
		want    string // "" for a problem
	}{
		{"padding-top", doc.Text, "24", "24px"},
		{"padding-top", doc.Text, "24px", "24px"},
		{"padding-top", doc.Text, "(1000-40)/40", "24px"},
		{"padding-top", doc.Text, "1.5rem", "1.5rem"},
		{"padding-top", doc.Text, "$room", "$room"},
		{"padding-top", doc.Text, "Room", "$room"},
		{"padding-top", doc.Text, "None", "$none"},
		{"padding-top", doc.Text, "$nowhere", ""},
		{"padding-top", doc.Text, "-1", ""},
		{"padding-top", doc.Text, "1001", ""},
		{"padding-top", doc.Text, "10%", "10%"},
		{"padding-top", doc.Text, "10vh", ""},
		{"padding-top", doc.Text, "1e9px", ""},
		{"padding-top", doc.Text, "NaN", ""},
		{"padding-top", doc.Text, "10em", ""},
		{"width", doc.Picture, "50%", "50%"},
		{"width", doc.Picture, "150%", ""},
		{"background", doc.Text, "#1D5F6B", "#1d5f6b"},
		{"background", doc.Text, "1D5", "#11dd55"},
		{"background", doc.Text, "accent", "$accent"},
		{"background", doc.Text, "#12345", ""},
		{"background", doc.Text, "url(x)", ""},
		{"background", doc.Text, "red;}body{", ""},
		{"aspect-ratio", doc.Picture, "4:3", "4:3"},
		{"aspect-ratio", doc.Picture, "16 / 9", "16:9"},
		{"aspect-ratio", doc.Picture, "0:3", ""},
		{"aspect-ratio", doc.Picture, "rows", "rows"},
		{"opacity", doc.Text, "50", "50%"},
		{"opacity", doc.Text, "101%", ""},
		{"text-style", doc.Text, "lead", "$lead"},
		{"text-style", doc.Text, "Lead", "$lead"},
		{"text-style", doc.Text, "enormous", ""},
		{"text-align", doc.Text, "Center", "center"},
		{"text-align", doc.Text, "left", "start"},
		{"text-align", doc.Text, "justify", ""},
		{"columns", OnSection, "6", "6"},
		{"columns", OnSection, "2.5", ""},
		{"columns", OnSection, "0", ""},
		{"columns", OnSection, "25", ""},
		{"box-shadow", doc.Text, "Card", "$card"},
		{"box-shadow", doc.Text, "0 0 3px red", ""},
		{"box-shadow", doc.Text, "0 6 20 0 #00000024", "0px 6px 20px 0px #00000024"},
		{"box-shadow", doc.Text, "0 6px 20px -4px Deep 30% inset", "0px 6px 20px -4px $deep/30% inset"},
		{"box-shadow", doc.Text, "0 6 -20 0 #000", ""},
		{"box-shadow", doc.Text, "0 6 2000 0 #000", ""},
		{"width", doc.Picture, "100%/3", "33.3333%"},
		{"width", doc.Picture, "100% - 40", "calc(100% - 40px)"},
		{"width", doc.Picture, "(1000px-2rem)/2", "calc(-1rem + 500px)"},
		{"width", doc.Picture, "10px*10px", ""},
		{"width", doc.Picture, "10/0px", ""},
		{"width", doc.Picture, "wide", ""},
		{"width", doc.Picture, strings.Repeat("9", 10_000), ""},
		{"margin-top", doc.Text, "-40", "-40px"},
		{"margin-top", doc.Text, "-601", ""},
		{"margin-top", doc.Text, "40pt", ""},
		{"font", doc.Text, "oswald", "Oswald"},
		{"font", doc.Text, "Papyrus", ""},
		{"font-weight", doc.Text, "350", "350"},
		{"font-weight", doc.Text, "950", ""},
		{"line-height", doc.Text, "1.35", "1.35"},
		{"line-height", doc.Text, "24px", ""},
		{"letter-spacing", doc.Text, "0.2", "0.2em"},
		{"letter-spacing", doc.Text, "2em", ""},
		{"text-transform", doc.Text, "Uppercase", "uppercase"},
		{"rotate", doc.Text, "-12", "-12deg"},
		{"rotate", doc.Text, "190", ""},
		{"background", doc.Text, "Deep 40%", "$deep/40%"},
		{"background", doc.Text, "$deep/40%", "$deep/40%"},
		{"background", doc.Text, "$gone/40%", ""},
		{"background", doc.Text, "rgb(255 255 255 / 0.5)", "#ffffff80"},
		{"background", doc.Text, "oklch(45% 0.07 210 / 50%)", "#17606b80"},
		{"background", doc.Text, "transparent", "#00000000"},
		{"content", OnSection, "1000", "1000px"},
		{"content", OnSection, "Full", "full"},
		{"hover-background", doc.Button, "#fff", "#ffffff"},
		{"hover-lift", doc.Button, "4", "4px"},
		{"sway-period", doc.Text, "12s", "12s"},
		{"gradient", doc.Card, "linear 90deg #fff 45%, transparent 45%", "linear 90deg #ffffff 45%, #00000000 45%"},
	}
	for _, tt := range tests {
		s := Find(tt.setting, tt.kind)
		if s == nil {
			t.Fatalf("no setting %s on %s", tt.setting, tt.kind)
		}
		got, problem := s.Read(&house, tt.entry)
		if got != tt.want || (problem == nil) == (tt.want == "") {
			t.Errorf("%s = %q: got %q, %v; want %q", tt.setting, tt.entry, got, problem, tt.want)
		}
		if problem != nil && (problem.Field != s.Label || len(problem.Message) < 10) {
			t.Errorf("%s = %q: the problem says too little: %v", tt.setting, tt.entry, problem)
		}
		if tt.want != "" {
			if again, problem := s.Read(&house, got); problem != nil || again != got {
				t.Errorf("%s: the canonical %q reads as %q, %v", tt.setting, got, again, problem)
			}
			if back, problem := s.Read(&house, s.Shown(&house, got)); problem != nil || back != got {
				t.Errorf("%s: shown as %q, which reads as %q, %v", tt.setting, s.Shown(&house, got), back, problem)
			}
		}
	}
	if Find("padding-top", doc.Picture) != nil || Find("columns", doc.Text) != nil {
		t.Error("a setting is found on a kind that hasn't it")
	}
}

func FuzzRead(f *testing.F) {
	house := doc.StandardHouse()
	f.Add("padding-top", "1.5rem")
	f.Add("background", "#fff")
	f.Add("aspect-ratio", "4:3")
	f.Fuzz(func(t *testing.T, name, entry string) {
		for _, kind := range append([]doc.Kind{OnSection}, doc.Kinds...) {
			s := Find(name, kind)
			if s == nil {
				continue
			}
			v, problem := s.Read(&house, entry)
			if problem == nil && strings.ContainsAny(v, ";{}<>\"'\\") {
				t.Errorf("%s took %q as %q", name, entry, v)
			}
		}
	})
}

// Every field of Style must be written by some property, so that a change of it
// can't be lost between layout and the page.
func TestEveryFieldIsEmitted(t *testing.T) {
	carriers := map[string]string{ // fields that show only together with another
		"BackgroundURL": "Background", "BackgroundFit": "BackgroundURL", "BackgroundModern": "BackgroundURL", "GridFill": "GridColumns",
	}
	typ := reflect.TypeFor[Style]()
	texts := func(s *Style) (all []string) {
		for _, p := range Properties {
			all = append(all, p.Text(s))
		}
		return all
	}
	for i := range typ.NumField() {
		name := typ.Field(i).Name
		if name == "Behind" || name == "Pictured" || name == "TextName" { // known, never written
			continue
		}
		base, changed := Style{}, Style{}
		if with := carriers[name]; with != "" {
			set(reflect.ValueOf(&base).Elem().FieldByName(with))
			set(reflect.ValueOf(&changed).Elem().FieldByName(with))
		}
		if name == "ColumnSpan" || name == "RowSpan" {
			base.ColumnStart, base.RowStart, base.ColumnSpan, base.RowSpan = 1, 1, 1, 1
			changed = base
		}
		set(reflect.ValueOf(&changed).Elem().Field(i))
		if slices.Equal(texts(&base), texts(&changed)) {
			t.Errorf("changing Style.%s changes no property", name)
		}
	}
}

func set(v reflect.Value) {
	switch v.Kind() {
	case reflect.Float64:
		v.SetFloat(7)
	case reflect.Int:
		v.SetInt(7)
	case reflect.Uint8:
		v.SetUint(2)
	case reflect.Bool:
		v.SetBool(true)
	case reflect.String:
		v.SetString("IBM Plex Mono")
	case reflect.Struct:
		switch v.Interface().(type) {
		case Length:
			v.Set(reflect.ValueOf(Pixels(7)))
		case Edges:
			v.Set(reflect.ValueOf(Same(Pixels(7))))
		case Widths:
			v.Set(reflect.ValueOf(AllSides(7)))
		case Corners:
			v.Set(reflect.ValueOf(Corners{TopLeft: Pixels(7)}))
		case Entrance:
			v.Set(reflect.ValueOf(Entrance{Kind: "rise", By: 7, To: 50}))
		case Sway:
			v.Set(reflect.ValueOf(Sway{Kind: "vertical", By: 7, Period: 4}))
		case Factor:
			v.Set(reflect.ValueOf(Times0))
		case Track:
			v.Set(reflect.ValueOf(Track{Min: Pixels(7)}))
		}
	case reflect.Slice:
		v.Set(reflect.ValueOf(EqualColumns(3)))
	}
}

func TestPropertyTexts(t *testing.T) {
	s := Style{
		Display: Grid, Padding: Edges{Pixels(1), Pixels(2), Pixels(3), Pixels(2)}, MarginAuto: Left | Right,
		GridColumns: EqualColumns(
			12,
		), GridAutoRows: Track{Min: Pixels(24)}, ColumnStart: 3, ColumnSpan: 4, RowStart: 1, RowSpan: 1,
	}
	want := map[string]string{
		"display": "grid", "padding": "1px 2px 3px", "margin": "0 auto", "grid-template-columns": "repeat(12, minmax(0, 1fr))",
		"grid-auto-rows": "minmax(24px, auto)", "grid-column": "3 / span 4", "grid-row": "1", "max-width": "none", "border-width": "0",
	}
	for _, p := range Properties {
		if w, ok := want[p.Name]; ok && p.Text(&s) != w {
			t.Errorf("%s: %q, want %q", p.Name, p.Text(&s), w)
		}
	}
}

func TestLengths(t *testing.T) {
	v := Viewport{Width: 1000, Height: 800}
	for l, want := range map[Length]float64{
		Pixels(10): 10, {N: 1.5, Unit: Rem}: 24, Percentage(50): 100, {N: 10, Unit: Vw}: 100, {N: 10, Unit: Vh}: 80,
	} {
		if got, ok := l.Resolve(200, v); !ok || got != want {
			t.Errorf("%v = %v, %v; want %v", l, got, ok, want)
		}
	}
	if _, ok := (Length{}).Resolve(200, v); ok {
		t.Error("auto resolved")
	}
	if _, ok := Percentage(50).Resolve(math.NaN(), v); ok {
		t.Error("a percentage of nothing definite resolved")
	}
}

// Fluid type meets its two points, is even between them and stays beyond: y = y1 +
// (x - x1) (y2 - y1) / (x2 - x1), the two-point form of a line. What lies between is what
// four decimal places of CSS text say, so that core and browser reckon with the same.
func TestFluid(t *testing.T) {
	l := Fluid(38, 60, 375, 1280)
	for _, w := range []float64{320, 375, 500, 800, 1024, 1280, 1920} {
		want := 38 + (min(max(w, 375), 1280)-375)*(60-38)/(1280-375)
		got, ok := l.Resolve(0, Viewport{Width: w})
		if !ok || math.Abs(got-want) > 0.0025 || w >= 1280 && got != 60 || w < 375 && got != 38 {
			t.Errorf("at %v px it is %v, want %v", w, got, want)
		}
		for _, a := range l.Fn.Args[1].Fn.Args {
			if said, err := strconv.ParseFloat(Number(a.N), 64); err != nil || said != a.N {
				t.Errorf("%v is said as %s", a.N, Number(a.N))
			}
		}
	}
	if got := Fluid(16, 20, 400, 800).String(); got != "clamp(16px, calc(0.75rem + 1vw), 20px)" {
		t.Errorf("%s", got)
	}
	if got := Fluid(20, 20, 400, 800); got != Pixels(20) {
		t.Errorf("%v", got)
	}
	if got := Fluid(20, 16, 400, 800).String(); got != "clamp(16px, calc(1.5rem - 1vw), 20px)" {
		t.Errorf("a shrinking one: %s", got)
	}
}

// CSS Values 4 §10: the texts of math functions, and what they give.
func TestFunctions(t *testing.T) {
	v := Viewport{Width: 1000, Height: 800}
	for _, tt := range []struct {
		l    Length
		text string
		px   float64
	}{
		{Sum(Percentage(100), Pixels(-20)), "calc(100% - 20px)", 180},
		{Least(Pixels(300), Percentage(50)), "min(300px, 50%)", 100},
		{Greatest(Pixels(0), Length{N: 5, Unit: Vw}), "max(0px, 5vw)", 50},
		{Between(Pixels(10), Percentage(1), Pixels(5)), "clamp(10px, 1%, 5px)", 10}, // the least wins
	} {
		if got, ok := tt.l.Resolve(200, v); tt.l.String() != tt.text || !ok || got != tt.px {
			t.Errorf("%s = %v, want %s = %v", tt.l, got, tt.text, tt.px)
		}
	}
	if _, ok := Sum(Percentage(1), Pixels(1)).Resolve(math.NaN(), v); ok {
		t.Error("a percentage of nothing definite resolved")
	}
	if !Between(Pixels(1), Sum(Pixels(1), Length{N: 1, Unit: Vw}), Pixels(2)).OfViewport() || Sum(Pixels(1)).OfBase() {
		t.Error("what a function depends on isn't told")
	}
}

// A length turned round is as long the other way at every width, whatever function it is.
func TestScaledBelowZero(t *testing.T) {
	for _, l := range []Length{
		Pixels(12), Fluid(20, 64, 375, 1280), Fluid(64, 20, 375, 1280), Least(Pixels(40), Length{N: 5, Unit: Vw}), Greatest(Pixels(40), Length{N: 5, Unit: Vw}),
		Sum(Pixels(8), Greatest(Pixels(40), Length{N: 5, Unit: Vw})),
	} {
		for _, width := range []float64{320, 700, 1000, 1920} {
			v := Viewport{Width: width}
			is, _ := l.Resolve(0, v)
			if got, ok := l.Scaled(-1).Resolve(0, v); !ok || math.Abs(got+is) > 1e-9 {
				t.Errorf("%v at %v px is %v, and turned round %v", l, width, is, got)
			}
		}
	}
}
