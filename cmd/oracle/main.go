// Command oracle holds package layout against Chromium: it makes pages, lays them
// out, has a browser lay them out too (e2e/judge.mjs), and compares every box and
// every line of text.
//
//	oracle [-pages 200] [-trees 200] [-seed 1] [-widths 12] [-yoga 200] [-demo] [-show 3]
//
// Pages are made from everything that package doc allows, trees from everything
// that package style can emit. The smallest page that still shows it is printed for
// a disagreement. It ends with 1 when a box of the demo, or of the page that each kind of block has, is off by more than 1 px,
// when fewer than 99.9 % of the pages' boxes or 95 % of the trees' are within 1 px
// (docs/layout.md has why), or when fewer paragraphs than that have as many lines.
package main

import (
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"

	"openplot/demo"
)

func main() {
	var o options
	flag.IntVar(&o.pages, "pages", 200, "pages to generate")
	flag.IntVar(&o.trees, "trees", 200, "element trees to generate")
	flag.Uint64Var(&o.seed, "seed", 1, "of the generators")
	flag.IntVar(&o.widths, "widths", 12, "widths to look at, 1 to 24")
	flag.Float64Var(&o.root, "root", 0, "the text size in px that readers set, instead of 16")
	flag.BoolVar(&o.demo, "demo", true, "the demo's pages, too")
	flag.IntVar(&o.show, "show", 3, "disagreements to reduce and print")
	flag.IntVar(&o.yoga, "yoga", 200, "flex trees to hold against Yoga, too")
	flag.IntVar(&o.sweep, "sweep", 0, "only measure a sweep over all widths of a page with this many blocks")
	flag.StringVar(&o.only, "only", "", "a single case by name, such as tree-17")
	flag.StringVar(&o.write, "write", "", "only write the pages of all kinds and ready-made sections into this folder")
	flag.IntVar(&o.outside, "outside", 0, "only hold Checks against the browser and axe-core on so many pages")
	flag.IntVar(&o.words, "words", 0, "only print so many random rich texts")
	flag.BoolVar(&o.back, "back", false, "only read rich texts from standard input, and print what they are")
	flag.Parse()
	ok, err := run(o)
	if err != nil {
		fmt.Fprintln(os.Stderr, "oracle:", err)
		os.Exit(1)
	}
	if !ok {
		os.Exit(1)
	}
}

type options struct {
	pages, trees int
	seed         uint64
	widths       int
	demo         bool
	root         float64
	show         int
	only         string
	yoga, sweep  int
	write        string
	words        int
	outside      int
	back         bool
}

// widths are those looked at, the most telling first: around the zones'
// boundaries, and typical ones.
var widths = []int{
	320,
	375,
	412,
	540,
	639,
	640,
	800,
	1023,
	1024,
	1280,
	1440,
	1920,
	333,
	360,
	480,
	600,
	700,
	768,
	900,
	1100,
	1160,
	1366,
	1600,
	1777,
}

func run(o options) (bool, error) {
	switch {
	case o.write != "":
		return true, write(o.write)
	case o.words > 0:
		return true, words(o.words, o.seed)
	case o.back:
		return true, wordsBack()
	}
	j, err := startJudge(filepath.Join("e2e", "judge.mjs"))
	if err != nil {
		return false, err
	}
	j.root = o.root
	defer j.stop()
	if o.outside > 0 {
		return true, j.outside(o.outside, o.seed)
	}
	if o.sweep > 0 {
		return true, j.sweep(o.sweep)
	}
	cases := []testCase{}
	if o.demo {
		cases = append(cases, demoCases()...)
	}
	s := demo.Site()
	kinds, err := kindCases(s)
	if err != nil {
		return false, err
	}
	cases = append(cases, kinds...)
	for i := range o.pages {
		r := rand.New(rand.NewPCG(o.seed, uint64(i)))
		cases = append(cases, pageCase(fmt.Sprintf("page-%d", i), s, Generate(r, s)))
	}
	for i := range o.trees {
		r := rand.New(rand.NewPCG(o.seed, uint64(1<<32+i)))
		cases = append(
			cases,
			testCase{name: fmt.Sprintf("tree-%d", i), kind: "trees", zones: s.Zones, root: generateTree(r, s)},
		)
	}
	ws := widths[:min(max(o.widths, 1), len(widths))]
	totals := map[string]*tally{}
	var wrong []testCase
	for _, c := range cases {
		if o.only != "" && o.only != c.name {
			continue
		}
		t, err := j.compare(c, ws)
		if err != nil {
			return false, fmt.Errorf("%s: %w", c.name, err)
		}
		if totals[c.kind] == nil {
			totals[c.kind] = &tally{}
		}
		totals[c.kind].add(t)
		if disagrees(t) {
			c.worst, c.at = t.worst, t.worstAt
			wrong = append(wrong, c)
		}
	}
	for i, c := range wrong {
		if i == o.show {
			fmt.Printf("… and %d more\n", len(wrong)-i)
			break
		}
		if err := j.explain(c, ws); err != nil {
			return false, err
		}
	}
	ok := len(totals) > 0
	for _, kind := range []string{"demo", "kinds", "pages", "trees"} {
		if t := totals[kind]; t != nil {
			fmt.Printf("oracle: %-5s %v\n", kind, t)
			ok = ok && t.good(map[string]float64{"demo": 1, "kinds": 1, "pages": 0.999, "trees": 0.95}[kind])
		}
	}
	if o.yoga > 0 && o.only == "" {
		near, err := againstYoga(o.yoga, o.seed)
		if err != nil {
			return false, err
		}
		ok = ok && near
	}
	return ok, nil
}
