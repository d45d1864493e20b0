package store

import (
	"encoding/json"
	"slices"
	"testing"

	"openplot/core/doc"
)

// A page's media are found in its document wherever it names one, as the migration finds them in those
// that were there.
func TestMediaInDocuments(t *testing.T) {
	p := &doc.Page{
		ID:      "p1",
		Name:    "morning",
		Title:   "more of \"m9\" than that",
		Picture: "mab1",
		Sections: []*doc.Section{{
			ID: "s1", Picture: "mcd2", Blocks: []*doc.Block{
				{ID: "b1", Content: doc.Content{Picture: "mef3", Link: doc.FilePrefix + "mgh4"}},
				{
					ID: "b2",
					Content: doc.Content{
						Link:   doc.JoinLink(doc.FilePrefix+"mij5", true),
						Values: map[string]string{"video": "mkl6"},
					},
				},
				{ID: "b3", Items: []doc.Item{{ID: "i1", Contents: map[string]doc.Content{"b4": {Picture: "mmn7"}}}}},
			},
		}},
	}
	document, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	got := mediaIn(document)
	for _, want := range []string{"mab1", "mcd2", "mef3", "mgh4", "mij5", "mkl6", "mmn7"} {
		if !slices.Contains(got, want) {
			t.Errorf("%s isn't found", want)
		}
	}
	f := begin(t)
	var migrated []string
	if err := f.pool.Select(&migrated, `SELECT DISTINCT coalesce(m[1], m[2]) FROM regexp_matches($1, '"(?:file:(m[a-z0-9]+)|(m[a-z0-9]+)")', 'g') m`, string(document)); err != nil {
		t.Fatal(err)
	}
	slices.Sort(got)
	slices.Sort(migrated)
	if !slices.Equal(got, migrated) {
		t.Errorf("the migration finds %v, an edit %v", migrated, got)
	}
	for _, broken := range []string{"", "\"", "\"m", "\"file:", "\"file:m", "\"ma"} {
		if ids := mediaIn([]byte(broken)); len(ids) > 0 {
			t.Errorf("%q has %v", broken, ids)
		}
	}
}
