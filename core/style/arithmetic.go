package style

import (
	"errors"
	"math"
	"strings"

	"openplot/core/number"
)

// maxSum is how long an entry that is computed may be, in bytes.
const maxSum = 200

// Evaluate computes an arithmetic expression of plain numbers with + - * / and
// parentheses, such as "(1000-40)/2".
func Evaluate(s string) (float64, error) {
	q, err := compute(s)
	if err != nil || q.lengths {
		return 0, errors.New("write a number or a sum such as (1000-40)/2")
	}
	return q.of[Px], nil
}

// EvaluateLength computes an arithmetic expression of lengths, such as "100%/3" or
// "(1000px - 2rem)/2". What has no unit is in px, unless something is multiplied or
// divided by it. Lengths of several units become a calc().
func EvaluateLength(s string) (Length, error) {
	wrong := errors.New("write a length or a sum such as 100%/3")
	if in, ok := strings.CutPrefix(s, "calc("); ok && strings.HasSuffix(in, ")") {
		s = strings.TrimSuffix(in, ")")
	}
	q, err := compute(s)
	if err != nil {
		return Length{}, wrong
	}
	var terms []Length
	for u := Px; u <= Vh; u++ {
		if n := math.Round(q.of[u]*1e4) / 1e4; n != 0 {
			terms = append(terms, Length{N: n, Unit: u})
		}
	}
	switch len(terms) {
	case 0:
		return Length{Unit: max(q.unit, Px)}, nil
	case 1:
		return terms[0], nil
	}
	for i, j := 0, len(terms)-1; i < j; i, j = i+1, j-1 { // percentages first, as they are usually written
		terms[i], terms[j] = terms[j], terms[i]
	}
	return Sum(terms...), nil
}

// quantity is a sum of lengths, or a plain number, which is kept as px.
type quantity struct {
	of      [Vh + 1]float64
	unit    Unit // the last one that was written
	lengths bool
}

func compute(s string) (quantity, error) {
	wrong := errors.New("no sum")
	if len(s) > maxSum {
		return quantity{}, wrong
	}
	e := expression{text: s}
	q := e.sum()
	e.space()
	if e.failed || e.at != len(s) {
		return quantity{}, wrong
	}
	for _, n := range q.of {
		if math.IsNaN(n) || math.IsInf(n, 0) {
			return quantity{}, wrong
		}
	}
	return q, nil
}

func (q quantity) plus(r quantity, sign float64) quantity {
	for u := range q.of {
		q.of[u] += sign * r.of[u]
	}
	q.lengths, q.unit = q.lengths || r.lengths, max(q.unit, r.unit)
	return q
}

func (q quantity) times(by float64) quantity {
	for u := range q.of {
		if q.of[u] != 0 {
			q.of[u] *= by
		}
	}
	return q
}

type expression struct {
	text   string
	at     int
	failed bool
}

func (e *expression) space() {
	for e.at < len(e.text) && e.text[e.at] == ' ' {
		e.at++
	}
}

func (e *expression) take(c byte) bool {
	e.space()
	if e.at < len(e.text) && e.text[e.at] == c {
		e.at++
		return true
	}
	return false
}

func (e *expression) sum() quantity {
	q := e.product()
	for {
		switch {
		case e.take('+'):
			q = q.plus(e.product(), 1)
		case e.take('-'):
			q = q.plus(e.product(), -1)
		default:
			return q
		}
	}
}

func (e *expression) product() quantity {
	q := e.factor()
	for {
		switch {
		case e.take('*'):
			r := e.factor()
			if q.lengths {
				q, r = r, q
			}
			e.failed = e.failed || q.lengths // an area is no length
			q = r.times(q.of[Px])
		case e.take('/'):
			r := e.factor()
			e.failed = e.failed || r.lengths || r.of[Px] == 0
			q = q.times(1 / r.of[Px])
		default:
			return q
		}
	}
}

func (e *expression) factor() quantity {
	if e.take('-') {
		return e.factor().times(-1)
	}
	if e.take('(') {
		q := e.sum()
		if !e.take(')') {
			e.failed = true
		}
		return q
	}
	e.space()
	from := e.at
	for e.at < len(e.text) && (e.text[e.at] >= '0' && e.text[e.at] <= '9' || e.text[e.at] == '.') {
		e.at++
	}
	v, err := number.Real(e.text[from:e.at])
	if err != nil {
		e.failed = true
	}
	q := quantity{}
	unit := Px
	for u := Px; u <= Vh; u++ {
		if strings.HasPrefix(e.text[e.at:], unitNames[u]) {
			e.at += len(unitNames[u])
			unit, q.lengths = u, true
			break
		}
	}
	q.of[unit], q.unit = v, unit
	return q
}
