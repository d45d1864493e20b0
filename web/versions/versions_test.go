package versions

import (
	"testing"
	"time"

	"openplot/store"
)

// An hour's work is called by when it was and how much, in the site's time; what has a name keeps it.
func TestWhy(t *testing.T) {
	vienna, err := time.LoadLocation("Europe/Vienna")
	if err != nil {
		t.Fatal(err)
	}
	at := time.Date(2026, 11, 29, 9, 10, 0, 0, time.UTC)
	for want, c := range map[string]struct {
		v      store.Version
		before *store.Version
	}{
		"09:10 to 10:10, 40 edits": {store.Version{MadeAt: at, Seq: 40}, nil},
		"09:10 to 10:10, 1 edit":   {store.Version{MadeAt: at, Seq: 40}, &store.Version{Seq: 39, MadeAt: at.Add(-5 * time.Hour)}},
		"09:50 to 10:10, 8 edits":  {store.Version{MadeAt: at, Seq: 40}, &store.Version{Seq: 32, MadeAt: at.Add(-20 * time.Minute)}},
		"09:10 to 10:10":           {store.Version{MadeAt: at}, nil},
		"As it opened":             {store.Version{MadeAt: at, Kind: store.Named, Note: "As it opened"}, nil},
		"Published":                {store.Version{MadeAt: at, Kind: store.Published}, nil},
	} {
		if got := why(c.v, c.before, vienna); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
