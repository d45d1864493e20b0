package doc

import "strings"

// HoursOf writes the hours of a day as edit.ReadFacts reads them.
func (f Facts) HoursOf(day string) string {
	var spans []string
	for _, o := range f.Opening {
		if o.Day == day {
			spans = append(spans, strings.TrimPrefix(o.From, "0")+"–"+strings.TrimPrefix(o.To, "0"))
		}
	}
	return strings.Join(spans, ", ")
}

// InWords says when it is open: as it was written, or else the hours by day, a line for days in
// a row that have the same.
func (f Facts) InWords() string {
	if f.Hours != "" {
		return f.Hours
	}
	var lines []string
	for i := 0; i < len(Days); {
		hours, k := f.HoursOf(Days[i]), i
		for k+1 < len(Days) && f.HoursOf(Days[k+1]) == hours {
			k++
		}
		if hours != "" {
			name := Days[i]
			if k > i {
				name += " to " + Days[k]
			}
			lines = append(lines, name+" "+hours)
		}
		i = k + 1
	}
	return strings.Join(lines, "\n")
}
