package store

import (
	"compress/gzip"
	"encoding/json"
	"io"
	"maps"
	"os"
	"slices"
	"testing"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/style"
	"openplot/core/value"
	"openplot/memory"
	"openplot/postgres/postgrestest"
)

// later has references looked at when a transaction ends, and not before.
const later = `DO $$ DECLARE r record; BEGIN
	FOR r IN SELECT conrelid::regclass AS t, conname AS c FROM pg_constraint WHERE contype = 'f' LOOP
		EXECUTE format('ALTER TABLE %s ALTER CONSTRAINT %I DEFERRABLE INITIALLY DEFERRED', r.t, r.c);
	END LOOP;
END $$;`

// before gives a database as the version before a migration left it, with what
// testdata/format-1.sql.gz has: a page of every ready-made section, one of every kind of
// block with every choice that there was, their logs with undone and redone edits, kept
// sections and editions, all written by that version.
func before(t *testing.T, version int64) string {
	t.Helper()
	dsn := postgrestest.Empty(t)
	db, err := sqlx.Open("pgx", dsn)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	m, err := provider(db.DB)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := m.UpTo(t.Context(), version-1); err != nil {
		t.Fatal(err)
	}
	f, err := os.Open("testdata/format-1.sql.gz")
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	z, err := gzip.NewReader(f)
	if err != nil {
		t.Fatal(err)
	}
	rows, err := io.ReadAll(z)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.ExecContext(t.Context(), later+string(rows)); err != nil { // rows in any order
		t.Fatal(err)
	}
	return dsn
}

// A database of the version before has only values afterwards that this one knows, on
// pages, on kept sections and in every state that the log leads back to.
func TestStableValues(t *testing.T) {
	st, err := Open(t.Context(), before(t, 9))
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	c := checker{t: t, house: doc.StandardHouse(), seen: map[string]bool{}}
	states := 0
	for _, slug := range []string{"", "kinds"} {
		p, err := st.Pages.At(t.Context(), "w1", slug)
		if err != nil {
			t.Fatal(err)
		}
		c.page("as it stands", p.Doc)
		for d, seq := p.Doc, p.Seq; seq > 0; seq-- { // back to the beginning
			var raw struct{ Steps, Inverse []byte }
			if err := st.pool.Get(&raw, `SELECT steps, inverse FROM page_log WHERE page_id = $1 AND seq = $2`, p.ID, seq); err != nil {
				t.Fatal(err)
			}
			var steps, inverse []edit.Step
			if err := json.Unmarshal(raw.Steps, &steps); err != nil {
				t.Fatal(err)
			}
			if err := json.Unmarshal(raw.Inverse, &inverse); err != nil {
				t.Fatal(err)
			}
			earlier, again, err := edit.Run(d, inverse)
			if err != nil {
				t.Fatalf("%s, back from %d: %v", slug, seq, err)
			}
			if a, b := encodedSteps(t, again), encodedSteps(t, steps); a != b {
				t.Fatalf("%s, entry %d: the steps are %s, and what undoes the inverse %s", slug, seq, b, a)
			}
			c.page("in the log", earlier)
			d, states = earlier, states+1
		}
	}
	kept, err := st.Shelf.KeptSections(t.Context(), "w1", "")
	if err != nil || len(kept) != 3 {
		t.Fatalf("%d kept sections, %v", len(kept), err)
	}
	for _, k := range kept {
		c.section("kept", k.Section)
	}
	var sources [][]byte
	if err := st.pool.Select(&sources, `SELECT source FROM editions`); err != nil || len(sources) != 2 {
		t.Fatalf("%d editions, %v", len(sources), err)
	}
	for _, s := range sources {
		var e struct{ Page *doc.Page }
		if err := json.Unmarshal(s, &e); err != nil {
			t.Fatal(err)
		}
		c.page("an edition", e.Page)
	}
	var commands [][]byte
	if err := st.pool.Select(&commands, `SELECT command FROM page_log WHERE command->>'op' = 'set'`); err != nil {
		t.Fatal(err)
	}
	for _, b := range commands {
		var command edit.Command
		if err := json.Unmarshal(b, &command); err != nil {
			t.Fatal(err)
		}
		c.known(command.Setting, command.Value)
	}
	if states < 300 || len(c.seen) < 200 {
		t.Errorf("only %d states and %d values were looked at", states, len(c.seen))
	}
	// Everything can go on from there.
	var user string
	if err := st.pool.Get(&user, `SELECT id FROM users`); err != nil {
		t.Fatal(err)
	}
	for _, page := range []string{"p1", "p2"} {
		if _, err := st.Log.Undo(t.Context(), page, user); err != nil {
			t.Errorf("undo on %s: %v", page, err)
		}
	}
}

func encodedSteps(t *testing.T, steps []edit.Step) string {
	t.Helper()
	b, err := json.Marshal(steps)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// checker holds documents against the settings and fields that there are.
type checker struct {
	t     *testing.T
	house doc.House
	seen  map[string]bool
}

func (c *checker) page(where string, p *doc.Page) {
	for _, s := range p.Sections {
		c.section(where, s)
	}
}

func (c *checker) section(where string, s *doc.Section) {
	c.style(where, style.OnSection, s.Style)
	s.Walk(func(b *doc.Block) {
		c.style(where, b.Kind, b.Style)
		c.content(where, b.Kind, b.Content)
		for _, it := range b.Items {
			b.Walk(func(in *doc.Block) {
				if said, ok := it.Contents[in.ID]; ok {
					c.content(where, in.Kind, said)
				}
			})
		}
	})
}

func (c *checker) style(where string, kind doc.Kind, values doc.Style) {
	for name, zones := range values {
		for _, v := range zones {
			s := style.Find(name, kind)
			if s == nil {
				continue // left from another arrangement, and not read
			}
			c.seen[name+"="+v] = true
			if got, problem := s.Read(&c.house, v); problem != nil || got != v {
				c.t.Errorf("%s: %s of a %s is %q, which reads as %q, %v", where, name, kind, v, got, problem)
			}
		}
	}
}

// known reports a value of a setting that no kind has.
func (c *checker) known(name, v string) {
	for _, s := range style.Settings {
		if got, problem := s.Read(&c.house, v); s.Name == name && problem == nil && got == v {
			return
		}
	}
	c.t.Errorf("a command sets %s to %q", name, v)
}

func (c *checker) content(where string, kind doc.Kind, said doc.Content) {
	a := element.Of(kind)
	field := func(f *element.Field, v string) {
		if f == nil || f.Type != element.Choice || v == "" {
			return
		}
		c.seen[f.Name+"="+v] = true
		if !slices.ContainsFunc(f.Choices, func(c value.Choice) bool { return c.Value == v }) {
			c.t.Errorf("%s: %s of a %s is %q", where, f.Name, kind, v)
		}
	}
	for _, name := range slices.Sorted(maps.Keys(said.Values)) {
		field(a.Field(name), said.Values[name])
	}
	for _, e := range said.Entries {
		for name, v := range e.Values {
			field(a.EntryField(name), v)
		}
	}
	for _, p := range said.Words {
		if it := p.Item(); it != "" && it != value.Disc && it != value.Decimal {
			c.t.Errorf("%s: a paragraph is an item of %q", where, it)
		}
	}
}

// A page that a newer version wrote is refused, and says so.
func TestNewerFormats(t *testing.T) {
	f := begin(t)
	if _, err := f.pool.Exec(`UPDATE pages SET doc = '{"format": 99, "id": "p1", "sections": []}'`); err != nil {
		t.Fatal(err)
	}
	f.Pages.Remember(memory.New(1 << 20))
	if _, err := f.Pages.At(t.Context(), "w1", ""); err == nil {
		t.Error("a page of format 99 is read")
	}
}
