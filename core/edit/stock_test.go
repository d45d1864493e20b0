package edit

import "testing"

// A stock picture is a value where a picture is chosen, and words where words are written.
func TestStocks(t *testing.T) {
	own := map[string]string{"discs": "m1"}
	for op, want := range map[string]string{
		"section.picture": "m1", "block.content": "m1", "block.add": "m1",
		"block.write": "stock:discs", "rename": "stock:discs", "entry.write": "stock:discs",
	} {
		c := Command{Op: Many, Parts: []Command{{Op: op, Value: StockPrefix + "discs"}}}
		if got := c.WithStocks(own).Parts[0].Value; got != want || len(c.Stocks()) == 1 != (want == "m1") {
			t.Errorf("%s: %s, %v", op, got, c.Stocks())
		}
		if c.Parts[0].Value != StockPrefix+"discs" {
			t.Errorf("%s: the command given is another one now", op)
		}
	}
}
