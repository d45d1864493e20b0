package place

import (
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
)

// Twelfths is what a row of columns is divided into.
const Twelfths = 12

// MaxShares is how many shares a pattern of columns can have.
const MaxShares = 24

// Shares gives the pattern of a Columns arrangement in a zone, in twelfths; it is
// repeated over the columns. A nil pattern is equal columns, all in one row.
//
// A pattern holds for its zone and the narrower ones. But in the narrowest zone
// columns stand below one another unless a pattern was set there: a phone has no
// room for two (common practice).
func Shares(h doc.Holder, zs doc.Zones, zone int) []int {
	v, from, ok := h.Style["shares"].Resolve(zs, zone)
	if zone == len(zs)-1 && zone > 0 && (!ok || from != zs[zone].ID) {
		return []int{Twelfths}
	}
	return ReadShares(v)
}

// ReadShares reads a pattern as settings hold it, "3 6 3"; nil is equal columns.
func ReadShares(v string) []int {
	var shares []int
	for _, f := range strings.Fields(v) {
		n, err := number.Whole(f)
		if err != nil || n < 1 || n > Twelfths || len(shares) == MaxShares {
			return nil
		}
		shares = append(shares, n)
	}
	return shares
}

// ColumnSpans gives the number of grid tracks, and the span of each of n columns in
// them. There are as few tracks as the shares allow, so that gaps take no more room
// than they have to; the columns' edges are those of twelve.
func ColumnSpans(shares []int, n int) (tracks int, spans []int) {
	spans = make([]int, n)
	if len(shares) == 0 {
		for i := range spans {
			spans[i] = 1
		}
		return max(n, 1), spans
	}
	unit := Twelfths
	for _, s := range shares {
		unit = gcd(unit, s)
	}
	for i := range spans {
		spans[i] = shares[i%len(shares)] / unit
	}
	return Twelfths / unit, spans
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// FirstRow gives the shares of the columns in the first row, of n, in twelfths, and what of
// the pattern comes behind them. Equal columns are rounded to twelfths.
func FirstRow(shares []int, n int) (row, rest []int) {
	if len(shares) == 0 {
		n = min(n, Twelfths)
		for i := range n {
			row = append(row, (i+1)*Twelfths/n-i*Twelfths/n)
		}
		return row, nil
	}
	sum := 0
	for i := range n {
		s := shares[i%len(shares)]
		if sum+s > Twelfths {
			break
		}
		row = append(row, s)
		sum += s
	}
	if len(shares) > len(row) {
		rest = shares[len(row):]
	}
	return row, rest
}
