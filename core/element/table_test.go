package element

import (
	"fmt"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// Who hears a table hears its headings also where its rows are cards: they aren't drawn there, but
// they are said (WCAG 2.2, 1.3.1).
func TestTablesAreHeard(t *testing.T) {
	b := builder()
	bl := &doc.Block{ID: "t", Kind: doc.Table, Content: doc.Content{Values: map[string]string{
		"cells": "\tSingle\tReturn\nInner\t4.80\t€ 8\nOuter\t12.50\t€ 21", "head": "both", "narrow": "cards",
	}}}
	n := b.Section(section(bl))
	phone := len(b.Site.Zones) - 1
	head := n.find("thead")
	if st := head.Styles[phone]; st.Display == style.None || st.ClipPath != "inset(50%)" {
		t.Errorf("headings on the phone: display %v, clipped to %q", st.Display, st.ClipPath)
	}
	scopes := ""
	for _, e := range n.all("th") {
		scopes += e.value("scope") + " "
	}
	if scopes != "col col row row " {
		t.Errorf("headings are of %s", scopes) // the corner heads nothing
	}
	for _, td := range n.find("tbody").all("td") {
		if wide, narrow := td.Styles[0], td.Styles[phone]; wide.TextAlign != style.TextEnd || !wide.Tabular ||
			narrow.TextAlign == style.TextEnd {
			t.Errorf("figures are aligned %v and on the phone %v", wide.TextAlign, narrow.TextAlign)
		}
	}
}

func TestFigures(t *testing.T) {
	for cell, want := range map[string]bool{
		"12": true, "1,299.00": true, "€ 8": true, "−4 %": true, "": false, "–": false, "12 km": false, "08:10": false, "A4": false,
	} {
		if got := figure(cell); got != want {
			t.Errorf("%q: %v", cell, got)
		}
	}
	if got := figureColumns([][]string{{"", "Price"}, {"Single", "4"}, {"Return", ""}}, true); fmt.Sprint(
		got,
	) != "[false true]" {
		t.Errorf("columns of figures: %v", got)
	}
}

// A time of day is one for machines too, and what isn't one isn't (HTML §2.3.5.4).
func TestTimesOfDay(t *testing.T) {
	for said, want := range map[string]bool{
		"08:10": true, "23:59": true, "24:00": false, "8:10": false, "08:60": false, "from 8": false, "": false, "+8:10": false, "08:10–09:00": false,
	} {
		if clock(said) != want {
			t.Errorf("%q is a time of day: %v", said, clock(said))
		}
	}
	b := builder()
	n := b.Section(section(&doc.Block{Kind: doc.Timetable, Content: doc.Content{Entries: []doc.Entry{
		{Values: map[string]string{"time": "08:10"}}, {Values: map[string]string{"time": "At dusk"}},
	}}}))
	if times := n.all("time"); len(times) != 1 || times[0].value("datetime") != "08:10" {
		t.Errorf("%d times", len(times))
	}
}
