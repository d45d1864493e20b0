// Package number reads numbers that come from outside: of requests, files, forms and pages.
//
// In comes text, out come finite numbers within bounds, or an error that says what would be
// right. Nothing else in the program parses numbers (number_test.go), so that no NaN and no
// infinity gets into what is computed with them. Start at Real and Whole.
package number

import (
	"errors"
	"fmt"
	"strconv"
	"strings"
)

// Greatest bounds what Real and Whole read: larger ones are nothing that anybody means.
const Greatest = 1_000_000_000

// ErrNumber means that text is no number as it is written in decimal, or too large.
var ErrNumber = errors.New("write a number")

// Real reads a decimal number from -Greatest to Greatest (CSS Values 4 §4.3, <number>); zero has no
// sign.
func Real(text string) (float64, error) { return Between(text, -Greatest, Greatest) }

// Between reads a decimal number that is neither less than one nor more than another.
func Between(text string, least, most float64) (float64, error) {
	if strings.Trim(text, "0123456789.eE+-") != "" { // no hexadecimal, NaN, Inf
		return 0, ErrNumber
	}
	f, err := strconv.ParseFloat(text, 64)
	if err != nil {
		return 0, ErrNumber
	}
	if !(f >= least && f <= most) {
		return 0, fmt.Errorf("write a number from %v to %v", least, most)
	}
	return f + 0, nil // -0 becomes 0
}

// Whole reads a whole decimal number from -Greatest to Greatest.
func Whole(text string) (int, error) {
	n, err := strconv.Atoi(text)
	if err != nil {
		return 0, ErrNumber
	}
	if n < -Greatest || n > Greatest {
		return 0, fmt.Errorf("write a whole number from %d to %d", -Greatest, Greatest)
	}
	return n, nil
}

// MaxSequence is the greatest sequence number: JavaScript keeps larger ones inexactly
// (ECMA-262 §21.1.2.6).
const MaxSequence = 1<<53 - 1

// Sequence reads a number that the program gave out: of an edit, a version, a job.
func Sequence(text string) (int64, error) {
	n, err := strconv.ParseInt(text, 10, 64)
	if err != nil || n < 0 || n > MaxSequence {
		return 0, ErrNumber
	}
	return n, nil
}
