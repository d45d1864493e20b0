package web

import (
	"encoding/json"
	"net/http"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

// All that was found in a zone is mended by one command, as far as repairs are known, and what it
// says is what comes of it.
func TestAllIsMended(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	const at = "/sites/skerry/pages/home"
	var seq int64
	found := func() (n int) {
		t.Helper()
		_, body, _ := d.get(at + "/checks/marks")
		var answer struct {
			Seq   int64
			Marks []struct {
				Severity int
				Ranges   [][2]int
			}
		}
		if err := json.Unmarshal([]byte(body), &answer); err != nil {
			t.Fatalf("%v: %.200s", err, body)
		}
		seq = answer.Seq
		for _, m := range answer.Marks {
			if m.Severity > 0 && m.Ranges[len(m.Ranges)-1][1] >= 1280 {
				n++
			}
		}
		return n
	}
	small := 0
	for _, sec := range p.page.Sections {
		for _, b := range sec.Blocks {
			if b.Kind == doc.Text && small < 2 {
				if status, body := d.edit(edit.Command{
					Op: "set", Node: b.ID, Zone: "desktop", Setting: "font-size", Value: "8px",
				}); status != http.StatusOK {
					t.Fatalf("%d %.200s", status, body)
				}
				small++
			}
		}
	}
	before := found()
	if small == 0 || before < small {
		t.Fatalf("%d texts are small, %d found", small, before)
	}
	status, body, _ := d.get(at + "/checks/mend-all?width=1280")
	if status != http.StatusOK {
		t.Fatalf("%d %s", status, body)
	}
	var all struct {
		Command  edit.Command
		Of, Left int
	}
	if err := json.Unmarshal([]byte(body), &all); err != nil || all.Of < small {
		t.Fatalf("%v: %s", err, body)
	}
	all.Command.Base = seq
	if status, body := d.edit(all.Command); status != http.StatusOK {
		t.Fatalf("%d %.200s", status, body)
	}
	if after := found(); after != all.Left || after > before-all.Of {
		t.Errorf("%d were found, %d mended, %d said to be left, and %d are", before, all.Of, all.Left, after)
	}
	if status, _, _ := d.get(at + "/checks/mend-all?width=NaN"); status != http.StatusUnprocessableEntity {
		t.Errorf("a width that is none: %d", status)
	}
	if status, _, _ := p.as("writer@example.org").get(at + "/checks/mend-all?width=1280"); status != http.StatusForbidden {
		t.Errorf("a writer: %d", status)
	}
}
