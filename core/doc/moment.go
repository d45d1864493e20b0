package doc

import (
	"fmt"
	"strings"

	"openplot/core/number"
)

// Moment is a date and a time of day as clocks somewhere show it.
type Moment struct{ Year, Month, Day, Hour, Minute int }

// IsDate reports whether a text is a date (HTML, "2027-06-01"), between the years 1970 and 2999.
func IsDate(v string) bool {
	_, ok := ParseMoment(v + "T00:00")
	return ok
}

// ParseMoment reads a local date and time (HTML, "2027-06-01T18:00"), between the years 1970
// and 2999.
func ParseMoment(v string) (m Moment, ok bool) {
	const shape = "0000-00-00T00:00"
	if len(v) != len(shape) {
		return m, false
	}
	for i := range shape {
		if digit := v[i] >= '0' && v[i] <= '9'; digit != (shape[i] == '0') || !digit && v[i] != shape[i] {
			return m, false
		}
	}
	n := func(from, to int) int { k, _ := number.Whole(v[from:to]); return k }
	m = Moment{n(0, 4), n(5, 7), n(8, 10), n(11, 13), n(14, 16)}
	return m, m.Year >= 1970 && m.Year < 3000 && m.Month >= 1 && m.Month <= 12 && m.Day >= 1 && m.Day <= m.days() &&
		m.Hour < 24 &&
		m.Minute < 60
}

// days is how many the month has (the Gregorian calendar).
func (m Moment) days() int {
	switch m.Month {
	case 2:
		if m.Year%4 == 0 && m.Year%100 != 0 || m.Year%400 == 0 {
			return 29
		}
		return 28
	case 4, 6, 9, 11:
		return 30
	}
	return 31
}

var months = strings.Fields("January February March April May June July August September October November December")

// In writes the moment for a reader of a language (BCP 47): in words for English, as ISO 8601
// has it for others.
func (m Moment) In(language string) string {
	if language == "" || language == "en" || strings.HasPrefix(language, "en-") {
		return fmt.Sprintf("%d %s %d, %02d:%02d", m.Day, months[m.Month-1], m.Year, m.Hour, m.Minute)
	}
	return fmt.Sprintf("%04d-%02d-%02d %02d:%02d", m.Year, m.Month, m.Day, m.Hour, m.Minute)
}
