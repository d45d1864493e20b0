package fonts

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"
	"unicode"

	sfntfont "github.com/tdewolff/font"
	"golang.org/x/sync/singleflight"
	"golang.org/x/text/unicode/norm"

	"openplot/fonts/hb"
)

// Usual are the characters that every cut font has, so that the pages of a site mostly need the
// same ones: those of ASCII and the signs of western typography.
const Usual = " !\"#$%&'()*+,-./0123456789:;<=>?@ABCDEFGHIJKLMNOPQRSTUVWXYZ[\\]^_`abcdefghijklmnopqrstuvwxyz{|}~" +
	"\u00a0©«°·»×–—‘’“”•…€"

// Ranges gives characters as unicode-range has them.
func Ranges(characters string) string {
	var out [][2]rune
	rs := []rune(characters)
	slices.Sort(rs)
	for _, r := range rs {
		if k := len(out) - 1; k >= 0 && r <= out[k][1]+1 {
			out[k][1] = r
			continue
		}
		out = append(out, [2]rune{r, r})
	}
	return unicodeRange(out)
}

// Letters gives the characters of words in order, each once, with the capital and the small
// letter of each, without those that are Usual; also as they are composed, since browsers set
// an accent that is written apart with the letter that has it.
func Letters(words string) string {
	seen := map[rune]bool{}
	for _, r := range words + norm.NFC.String(words) {
		for _, c := range []rune{r, unicode.ToUpper(r), unicode.ToLower(r)} {
			seen[c] = seen[c] || c > ' ' && !strings.ContainsRune(Usual, c)
		}
	}
	var out []rune
	for r, in := range seen {
		if in {
			out = append(out, r)
		}
	}
	slices.Sort(out)
	return string(out)
}

// Western are the characters beside the Usual ones that whoever writes a western language may
// type into a form.
var Western = func() string {
	var b strings.Builder
	for r := rune(0xa1); r <= 0xff; r++ {
		if !strings.ContainsRune(Usual, r) {
			b.WriteRune(r)
		}
	}
	return b.String() + "Œœ„‚‹›"
}()

// Want is what is kept of a font: the Usual characters, others, and of a variable one the weights
// in a range. Both 0 is as it is.
type Want struct {
	Letters string
	Weights [2]int
	Bare    bool // without the Usual characters
}

// Within gives the weights that are wanted of a file with others; both 0 where all are, or where
// it has one.
func (w Want) Within(has [2]int) [2]int {
	if has[0] == has[1] || w.Weights[1] == 0 {
		return [2]int{}
	}
	return [2]int{min(max(w.Weights[0], has[0]), has[1]), max(min(w.Weights[1], has[1]), has[0])}
}

// Holds gives all characters that are kept; bare leaves the Usual ones out.
func (w Want) Holds(bare bool) string {
	if bare {
		return w.Letters
	}
	return Usual + w.Letters
}

// Rest is what has the characters that whoever writes a western language may type and that this
// hasn't.
func (w Want) Rest() Want {
	var rest strings.Builder
	for _, r := range Western {
		if !strings.ContainsRune(w.Letters, r) {
			rest.WriteRune(r)
		}
	}
	return Want{Letters: rest.String(), Weights: w.Weights, Bare: true}
}

// Key is alike for what comes out alike of a file.
func (w Want) Key(file []byte) string {
	sum := sha256.Sum256(
		fmt.Appendf(nil, "%v %d %d %s %x", w.Bare, w.Weights[0], w.Weights[1], w.Letters, sha256.Sum256(file)),
	)
	return hex.EncodeToString(sum[:6])
}

// cutTime bounds how long a font may take.
const cutTime = 20 * time.Second

// keepFeatures are layout features beside those that HarfBuzz keeps: tabular figures.
var keepFeatures = []string{"tnum"}

// Cut gives the part of an SFNT that is wanted, as WOFF2. Words come out as they do in the whole
// font (TestCutsKeepWhatIsSeen).
func Cut(ctx context.Context, sfnt []byte, w Want) ([]byte, error) {
	ctx, cancel := context.WithTimeout(ctx, cutTime)
	defer cancel()
	part, err := hb.Subset(ctx, sfnt, hb.Want{
		Characters: []rune(w.Holds(w.Bare)), Weights: w.Weights, Features: keepFeatures,
	})
	if err != nil {
		return nil, err
	}
	return Pack(part, Small)
}

// cuts are shipped files that were cut lately, by name and key. Pages that are published together
// wait for one another's.
var cuts = struct {
	sync.Mutex
	by     map[string][]byte
	flight singleflight.Group
}{by: map[string][]byte{}}

// mostCuts is how many of them are kept, some 20 kB each.
const mostCuts = 200

// CutName names the file as it is cut to what is wanted: alike for what is alike.
func (f Face) CutName(w Want) string {
	w.Weights = w.Within(f.Weights)
	whole, _ := Files.ReadFile("files/" + f.File) // what isn't there isn't cut either
	return strings.TrimSuffix(f.File, ".woff2") + "-" + w.Key(whole) + ".woff2"
}

// Cut gives the file cut to what is wanted. One of a single weight is cut to characters alone.
func (f Face) Cut(ctx context.Context, w Want) (woff2 []byte, err error) {
	name := f.CutName(w)
	w.Weights = w.Within(f.Weights)
	cuts.Lock()
	woff2, known := cuts.by[name]
	cuts.Unlock()
	if known {
		return woff2, nil
	}
	made, err, _ := cuts.flight.Do(name, func() (any, error) { return f.cut(context.WithoutCancel(ctx), w) })
	if err != nil {
		return nil, fmt.Errorf("cutting font %s: %w", f.File, err)
	}
	woff2, _ = made.([]byte)
	cuts.Lock()
	if len(cuts.by) >= mostCuts {
		clear(cuts.by)
	}
	cuts.by[name] = woff2
	cuts.Unlock()
	return woff2, nil
}

func (f Face) cut(ctx context.Context, w Want) ([]byte, error) {
	whole, err := Files.ReadFile("files/" + f.File)
	if err != nil {
		return nil, err
	}
	sfnt, err := sfntfont.ToSFNT(whole)
	if err != nil {
		return nil, err
	}
	return Cut(ctx, sfnt, w)
}
