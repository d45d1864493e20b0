package place

import (
	"math/rand/v2"
	"slices"
	"testing"

	"openplot/core/doc"
)

func placesOf(of ...[4]int) (ps []doc.Place) {
	for i, p := range of {
		ps = append(ps, doc.Place{Column: p[0], Span: p[1], Row: p[2], Rows: p[3], Layer: i})
	}
	return ps
}

func TestSeveral(t *testing.T) {
	three := placesOf([4]int{2, 3, 1, 2}, [4]int{4, 2, 5, 4}, [4]int{8, 4, 12, 1})
	area := Around(three)
	if want := (doc.Place{Column: 2, Span: 10, Row: 1, Rows: 12}); area != want {
		t.Fatalf("around them is %+v, want %+v", area, want)
	}
	for _, c := range []struct {
		name string
		got  []doc.Place
		want []doc.Place
	}{
		{"left", Align(three, "left", area, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{2, 2, 5, 4}, [4]int{2, 4, 12, 1})},
		{"right", Align(three, "right", area, 12), placesOf([4]int{9, 3, 1, 2}, [4]int{10, 2, 5, 4}, [4]int{8, 4, 12, 1})},
		{"center", Align(three, "center", area, 12), placesOf([4]int{5, 3, 1, 2}, [4]int{6, 2, 5, 4}, [4]int{5, 4, 12, 1})},
		{"top", Align(three, "top", area, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{4, 2, 1, 4}, [4]int{8, 4, 1, 1})},
		{"middle", Align(three, "middle", area, 12), placesOf([4]int{2, 3, 6, 2}, [4]int{4, 2, 5, 4}, [4]int{8, 4, 6, 1})},
		{"bottom", Align(three, "bottom", area, 12), placesOf([4]int{2, 3, 11, 2}, [4]int{4, 2, 9, 4}, [4]int{8, 4, 12, 1})},
		{"down", Spread(three, false, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{4, 2, 6, 4}, [4]int{8, 4, 12, 1})},
		{"across, 1 free in two gaps", Spread(three, true, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{6, 2, 5, 4}, [4]int{8, 4, 12, 1})},
		{"as wide", Same(three, true, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{4, 3, 5, 4}, [4]int{8, 3, 12, 1})},
		{"as high", Same(three, false, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{4, 2, 5, 2}, [4]int{8, 4, 12, 2})},
		{"twice as wide and high", Scale(placesOf([4]int{1, 2, 1, 2}, [4]int{3, 1, 3, 1}), doc.Place{Column: 1, Span: 6, Row: 1, Rows: 6}, 12), placesOf([4]int{1, 4, 1, 4}, [4]int{5, 2, 5, 2})},
		{"no smaller than a cell", Scale(three, doc.Place{Column: 2, Span: 2, Row: 1, Rows: 2}, 12), placesOf([4]int{2, 1, 1, 1}, [4]int{2, 1, 2, 1}, [4]int{3, 1, 3, 1})},
		{"3 rows apart", Apart(three, false, 3, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{4, 2, 6, 4}, [4]int{8, 4, 13, 1})},
		{"a column apart, to the edge", Apart(three, true, 1, 12), placesOf([4]int{2, 3, 1, 2}, [4]int{6, 2, 5, 4}, [4]int{9, 4, 12, 1})},
		{"together, to the edge", NudgeAll(three, 5, -3, 12), placesOf([4]int{3, 3, 1, 2}, [4]int{5, 2, 5, 4}, [4]int{9, 4, 12, 1})},
		{
			"tidied", Tidy(placesOf([4]int{1, 4, 1, 2}, [4]int{2, 4, 4, 2}, [4]int{1, 4, 7, 2}, [4]int{7, 3, 1, 2}, [4]int{8, 3, 9, 2}), 12),
			placesOf([4]int{1, 4, 1, 2}, [4]int{1, 4, 4, 2}, [4]int{1, 4, 7, 2}, [4]int{7, 3, 1, 2}, [4]int{7, 3, 9, 2}),
		},
	} {
		if !slices.Equal(c.got, c.want) {
			t.Errorf("%s: %v, want %v", c.name, c.got, c.want)
		}
	}
}

// Whatever is done with however many, all stay in the grid, and those that only move keep
// their sizes; gaps differ by a cell at most.
func TestSeveralStayInTheGrid(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 2))
	for range 3000 {
		columns := 1 + r.IntN(16)
		var ps []doc.Place
		for range 1 + r.IntN(9) {
			span := 1 + r.IntN(columns)
			ps = append(
				ps,
				doc.Place{Column: 1 + r.IntN(columns-span+1), Span: span, Row: 1 + r.IntN(40), Rows: 1 + r.IntN(9)},
			)
		}
		moved := map[string][]doc.Place{
			"nudged": NudgeAll(ps, r.IntN(9)-4, r.IntN(9)-4, columns),
			"across": Spread(ps, true, columns),
			"down":   Spread(ps, false, columns),
			"tidied": Tidy(ps, columns),
		}
		for _, how := range []string{"left", "center", "right", "top", "middle", "bottom"} {
			moved[how] = Align(ps, how, Around(ps), columns)
		}
		for name, out := range moved {
			for i, p := range out {
				if p.Column < 1 || p.Column+p.Span-1 > columns || p.Row < 1 || p.Span != ps[i].Span ||
					p.Rows != ps[i].Rows {
					t.Fatalf("%s of %v in %d columns: %+v", name, ps, columns, p)
				}
			}
		}
		down := slices.Clone(moved["down"])
		slices.SortStableFunc(down, func(a, b doc.Place) int { return a.Row - b.Row })
		least, most := 1<<20, -1<<20
		for i := 1; i < len(down); i++ {
			gap := down[i].Row - down[i-1].Row - down[i-1].Rows
			least, most = min(least, gap), max(most, gap)
		}
		if len(ps) > 2 && least >= 0 && most-least > 1 {
			t.Fatalf("gaps of %d to %d rows in %v", least, most, down)
		}
	}
}
