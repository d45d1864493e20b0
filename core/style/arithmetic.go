package style

import (
	"errors"
	"math"
	"strconv"
)

// Evaluate computes an arithmetic expression of plain numbers with + - * / and
// parentheses, such as "(1000-40)/2".
func Evaluate(s string) (float64, error) {
	if len(s) > 200 {
		return 0, errors.New("write a shorter sum")
	}
	e := expression{text: s}
	v := e.sum()
	e.space()
	if e.failed || e.at != len(s) || math.IsNaN(v) || math.IsInf(v, 0) {
		return 0, errors.New("write a number or a sum such as (1000-40)/2")
	}
	return v, nil
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

func (e *expression) sum() float64 {
	v := e.product()
	for {
		switch {
		case e.take('+'):
			v += e.product()
		case e.take('-'):
			v -= e.product()
		default:
			return v
		}
	}
}

func (e *expression) product() float64 {
	v := e.factor()
	for {
		switch {
		case e.take('*'):
			v *= e.factor()
		case e.take('/'):
			v /= e.factor()
		default:
			return v
		}
	}
}

func (e *expression) factor() float64 {
	if e.take('-') {
		return -e.factor()
	}
	if e.take('(') {
		v := e.sum()
		if !e.take(')') {
			e.failed = true
		}
		return v
	}
	e.space()
	from := e.at
	for e.at < len(e.text) && (e.text[e.at] >= '0' && e.text[e.at] <= '9' || e.text[e.at] == '.') {
		e.at++
	}
	v, err := strconv.ParseFloat(e.text[from:e.at], 64)
	if err != nil {
		e.failed = true
	}
	return v
}
