package settings

import (
	"cmp"
	_ "embed"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/language"
	"golang.org/x/text/language/display"
)

// Language is one that is offered, with its name in itself.
type Language struct{ Tag, Name string }

// offered are the languages that are offered by name; any other can be written as its tag.
var offered = []string{
	"bg", "ca", "cs", "cy", "da", "de", "de-AT", "de-CH", "el", "en", "en-AU", "en-CA", "en-GB", "en-IE", "en-US", "es", "es-MX", "et",
	"eu", "fi", "fr", "fr-CA", "fr-CH", "ga", "gl", "hr", "hu", "is", "it", "ja", "ko", "lt", "lv", "mt", "nb", "nl", "nl-BE", "nn", "pl",
	"pt", "pt-BR", "ro", "sk", "sl", "sq", "sr", "sv", "tr", "uk", "vi", "zh-Hans", "zh-Hant",
}

// Languages lists languages by their tags (BCP 47), and one more if it isn't among them.
func Languages(also string) (all []Language) {
	known := also == ""
	for _, tag := range offered {
		all = append(all, named(tag))
		known = known || tag == also
	}
	if !known {
		all = append(all, named(also))
	}
	return all
}

// named gives a language its own name for itself, with the region where that isn't in it (CLDR has
// "British English", but no name for the English of Ireland).
func named(tag string) Language {
	l := language.Make(tag)
	name := cmp.Or(display.Self.Name(l), tag)
	base, _ := l.Base()
	if region, by := l.Region(); by == language.Exact && name == display.Self.Name(language.Make(base.String())) {
		if regions := display.Regions(l); regions != nil {
			name += " (" + regions.Name(region) + ")"
		}
	}
	first, size := utf8.DecodeRuneInString(name)
	return Language{tag, string(unicode.ToUpper(first)) + name[size:]}
}

//go:embed zones.txt
var zonesFile string

// Area is a part of the world with its time zones.
type Area struct {
	Name  string
	Zones []TimeZone
}

// TimeZone is one by its name in the tz database, and what people read for it.
type TimeZone struct{ ID, Name string }

// TimeZones lists the time zones by area.
func TimeZones() (areas []Area) {
	for line := range strings.Lines(zonesFile) {
		id := strings.TrimSpace(line)
		area, name, ok := strings.Cut(id, "/")
		if !ok || strings.HasPrefix(id, "#") {
			continue
		}
		if len(areas) == 0 || areas[len(areas)-1].Name != area {
			areas = append(areas, Area{Name: area})
		}
		in := &areas[len(areas)-1]
		in.Zones = append(in.Zones, TimeZone{id, strings.NewReplacer("_", " ", "/", ", ").Replace(name)})
	}
	return areas
}
