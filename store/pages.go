package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/memory"
)

// PageInfo is what lists of pages show.
type PageInfo struct {
	ID           string     `db:"id"`
	SiteID       string     `db:"site_id"`
	Slug         string     `db:"slug"` // "" is the home page
	Name         string     `db:"name"`
	Description  string     `db:"description"`
	Categories   words      `db:"categories"`
	Dated        string     `db:"dated"` // the day that it is of, as it says, or ""
	BegunAt      time.Time  `db:"begun_at"`
	Picture      string     `db:"picture"` // a medium that stands for it, or ""
	Seq          int64      `db:"seq"`
	PublishedAt  *time.Time `db:"published_at"`
	PublishedSeq *int64     `db:"published_seq"`
	// PublishedLook is the version of the site that it was published with.
	PublishedLook *int64 `db:"published_look"`
	// AskedBy is the name of who asked that it be published as of AskedSeq, nil when nobody did.
	AskedBy  string `db:"asked_by"`
	AskedSeq *int64 `db:"asked_seq"`
	// Parent is the page that it stands under, nil at the top.
	Parent *string `db:"parent"`
	Placing
	// Shared are the ids of its sections that stand on other pages too.
	Shared words `db:"shared"`
	// Lock is the hash of the password that visitors need, or "".
	Lock      string     `db:"lock"`
	DeletedAt *time.Time `db:"deleted_at"`
}

// words reads a list of words that the database gives as JSON.
type words []string

// Scan implements sql.Scanner.
func (c *words) Scan(from any) error {
	switch v := from.(type) {
	case []byte:
		return json.Unmarshal(v, c)
	case string:
		return json.Unmarshal([]byte(v), c)
	}
	return fmt.Errorf("words can't be read from a %T", from)
}

// Page is a page at one place in its log.
type Page struct {
	PageInfo
	Doc *doc.Page
}

// History tells where in its log a page stands.
type History struct {
	Edits   int64 // that stand
	CanUndo bool  // an edit of the person's own
	CanRedo bool
	// Undo and Redo say what would be taken back and done again, in a few words, or are "".
	Undo, Redo string
}

// ErrStale means that somebody changed the same node since the page was seen.
var ErrStale = errors.New("somebody else changed this since")

// ErrNothing means that there is nothing to undo or redo.
var ErrNothing = errors.New("nothing to undo or redo")

const pageColumns = `p.id, p.site_id, p.slug, p.name, p.description, array_to_json(p.categories) AS categories, p.picture, p.dated, p.begun_at, p.seq, p.published_at, p.published_seq, p.published_look,
	p.asked_by, p.asked_seq, p.parent, p.in_menu, p.in_footer, p.menu_name, p.lock, p.deleted_at,
	array_to_json(p.shared) AS shared`

// Asked gives who asked that the page be published as it is in its draft, or "" once it is or when nobody did.
func (p *PageInfo) Asked() string {
	if p.AskedSeq == nil || p.PublishedSeq != nil && *p.PublishedSeq >= *p.AskedSeq {
		return ""
	}
	return p.AskedBy
}

// Ask notes that somebody asks for a page to be published as it is.
func (s *Pages) Ask(ctx context.Context, page, name string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE pages SET asked_by = $2, asked_seq = seq WHERE id = $1`, page, name); err != nil {
		return fmt.Errorf("asking to publish: %w", err)
	}
	return nil
}

// List lists a site's pages in their order.
func (s *Pages) List(ctx context.Context, site string) ([]*PageInfo, error) {
	var ps []*PageInfo
	if err := s.db.SelectContext(ctx, &ps, `SELECT `+pageColumns+` FROM pages p WHERE p.site_id = $1 AND p.deleted_at IS NULL ORDER BY p.position, p.slug`, site); err != nil {
		return nil, fmt.Errorf("listing pages: %w", err)
	}
	return ps, nil
}

// At gives a page of a site by slug.
func (s *Pages) At(ctx context.Context, site, slug string) (*Page, error) {
	return s.page(ctx, `p.site_id = $1 AND p.slug = $2`, site, slug)
}

// ByID gives a page of a site by id.
func (s *Pages) ByID(ctx context.Context, site, id string) (*Page, error) {
	return s.page(ctx, `p.site_id = $1 AND p.id = $2`, site, id)
}

func (s *Pages) page(ctx context.Context, which string, args ...any) (*Page, error) {
	var p Page
	if err := s.db.GetContext(ctx, &p.PageInfo, `SELECT `+pageColumns+` FROM pages p WHERE `+which+` AND p.deleted_at IS NULL`, args...); err != nil {
		return nil, fmt.Errorf("finding page: %w", notFound(err))
	}
	var err error
	p.Doc, err = s.doc(ctx, s.db, p.ID, p.Seq)
	return &p, err
}

// Read gives a page that is listed with its document, which may be a newer one than when it was listed.
func (s *Pages) Read(ctx context.Context, info *PageInfo) (*Page, error) {
	d, err := s.doc(ctx, s.db, info.ID, info.Seq)
	return &Page{PageInfo: *info, Doc: d}, err
}

// Add keeps a new page of a site.
func (s *Pages) Add(ctx context.Context, site, slug string, position int, p *doc.Page) error {
	b, err := json.Marshal(p)
	if err != nil {
		return fmt.Errorf("writing page %s: %w", p.ID, err)
	}
	if _, err := s.db.ExecContext(
		ctx,
		`INSERT INTO pages (id, site_id, slug, position, doc, name, description, categories, picture, shared, dated, media) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
		p.ID, site, slug, position, b, p.Name, p.Description, append([]string{}, p.Categories...), p.Picture, p.SharedSections(), p.Date, mediaIn(b),
	); err != nil {
		return fmt.Errorf("adding page %s: %w", slug, err)
	}
	return nil
}

// doc gives a page's document at the sequence number just read in the same
// snapshot; from memory when this process has it.
func (s *Pages) doc(ctx context.Context, q sqlx.QueryerContext, page string, seq int64) (*doc.Page, error) {
	if d := s.pages.get(page, seq); d != nil {
		return d, nil
	}
	var row struct {
		Doc []byte `db:"doc"`
		Seq int64  `db:"seq"`
	}
	if err := sqlx.GetContext(ctx, q, &row, `SELECT doc, seq FROM pages WHERE id = $1`, page); err != nil {
		return nil, fmt.Errorf("reading page: %w", notFound(err))
	}
	d := new(doc.Page)
	if err := json.Unmarshal(row.Doc, d); err != nil {
		return nil, fmt.Errorf("reading page %s: %w", page, err)
	}
	s.pages.put(page, row.Seq, d)
	return d, nil
}

// Edited is a page after an edit.
type Edited struct {
	Page    *doc.Page
	Seq     int64
	Result  *edit.Result
	History History
	// Shared is on how many other pages the edit was made too.
	Shared int
}

// Edit applies a command that was made against the page as of base. The command,
// its steps and their inverse are in the log before Edit returns. ErrStale means
// that a newer entry touched the same nodes; other errors are apply's.
func (s *Pages) Edit(
	ctx context.Context,
	page, user string,
	base int64,
	command edit.Command,
	apply func(*doc.Page) (*edit.Result, error),
) (*Edited, error) {
	var shared []string
	for range 3 { // what is shared may change in between, but not for ever
		done, spreads, err := s.edit(ctx, page, user, base, command, apply, shared)
		if err != nil {
			return nil, err
		}
		if len(spreads) > 0 { // other pages are to be locked before this one, in their order
			shared = spreads
			continue
		}
		for id, e := range done {
			s.pages.put(id, e.Seq, e.Page)
		}
		return done[page], nil
	}
	return nil, ErrStale
}

// edit makes an edit of a page and what comes of it for others, on which the sections stand that
// are named in shared; it gives all of them by id. Where the edit changes others than those it
// isn't made, and spreads names them.
func (s *Pages) edit(
	ctx context.Context,
	page, user string,
	base int64,
	command edit.Command,
	apply func(*doc.Page) (*edit.Result, error),
	shared []string,
) (done map[string]*Edited, spreads []string, err error) {
	done = map[string]*Edited{}
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		clear(done)
		spreads = nil
		var others []string
		if len(shared) > 0 {
			if err := tx.SelectContext(ctx, &others, `SELECT id FROM pages WHERE site_id = (SELECT site_id FROM pages WHERE id = $1) AND (shared && $2 OR id = $1)
				ORDER BY id FOR NO KEY UPDATE`, page, shared); err != nil {
				return fmt.Errorf("locking pages that share a section: %w", err)
			}
		}
		seq, d, err := s.lock(ctx, tx, page)
		if err != nil {
			return err
		}
		r, err := apply(d)
		if err == nil {
			changed := r.Spread(d)
			for _, id := range changed {
				if !slices.Contains(shared, id) {
					spreads = changed
					return nil
				}
			}
		}
		e := entry{page: page, seq: seq, user: user, kind: kindEdit, command: command, result: r}
		if len(others) > 1 {
			act := NewID("a")
			e.act = &act
		}
		if done[page], err = s.change(ctx, tx, e, base, command.Nodes(), err); err != nil {
			return err
		}
		for _, id := range others {
			if id == page {
				continue
			}
			seq, d, err := s.lock(ctx, tx, id)
			if err != nil {
				return err
			}
			follows, err := r.Follow(shared, d)
			if err != nil || follows == nil {
				if err != nil {
					return err
				}
				continue
			}
			if err := s.append(ctx, tx, entry{page: id, seq: seq + 1, user: user, kind: kindEdit, command: command, act: e.act, result: follows}); err != nil {
				return err
			}
			done[id] = &Edited{Page: follows.Page, Seq: seq + 1, Result: follows}
		}
		done[page].Shared = len(done) - 1
		return nil
	})
	return done, spreads, err
}

// change writes an edit of a page that is locked at e.seq, unless something newer than
// base touched the same nodes. failed is the error that applying it gave.
func (s *Pages) change(
	ctx context.Context,
	tx *sqlx.Tx,
	e entry,
	base int64,
	about []string,
	failed error,
) (*Edited, error) {
	if base > e.seq || base < 0 {
		return nil, doc.Problemf("Edit", "was made against state %d; the page is at %d: load it again", base, e.seq)
	}
	if failed == nil {
		about = e.result.Nodes
	}
	if base < e.seq { // what it is about may be another, or gone
		if stale, err := touchedSince(ctx, tx, e.page, base, about); err != nil || stale {
			return nil, errors.Join(ErrStale, err)
		}
	}
	if failed != nil {
		return nil, failed
	}
	if len(e.result.Steps) > 0 {
		e.seq++
		if err := s.append(ctx, tx, e); err != nil {
			return nil, err
		}
	}
	h, err := history(ctx, tx, e.page, e.user)
	return &Edited{Page: e.result.Page, Seq: e.seq, Result: e.result, History: h}, err
}

func (s *Pages) lock(ctx context.Context, tx *sqlx.Tx, page string) (int64, *doc.Page, error) {
	var seq int64
	if err := tx.GetContext(ctx, &seq, `SELECT seq FROM pages WHERE id = $1 FOR NO KEY UPDATE`, page); err != nil {
		return 0, nil, fmt.Errorf("locking page: %w", notFound(err))
	}
	d, err := s.doc(ctx, tx, page, seq)
	return seq, d, err
}

func touchedSince(ctx context.Context, tx *sqlx.Tx, page string, base int64, nodes []string) (bool, error) {
	var stale bool
	err := tx.GetContext(
		ctx,
		&stale,
		`SELECT EXISTS (SELECT FROM page_log WHERE page_id = $1 AND seq > $2 AND nodes && $3)`,
		page,
		base,
		nodes,
	)
	if err != nil {
		return false, fmt.Errorf("looking for newer edits: %w", err)
	}
	return stale, nil
}

// entry is a row to add to a page's log.
type entry struct {
	page    string
	seq     int64
	user    string
	kind    string
	target  *int64
	act     *string // what it belongs to, with entries of other logs
	command any
	result  *edit.Result
}

// Kinds of entry.
const (
	kindEdit = "edit"
	kindUndo = "undo"
	kindRedo = "redo"
)

// append writes the entry and the page as it is after it.
func (s *Pages) append(ctx context.Context, tx *sqlx.Tx, e entry) error {
	var command []byte
	var err error
	if e.command != nil {
		if command, err = json.Marshal(e.command); err != nil {
			return fmt.Errorf("writing the command: %w", err)
		}
	}
	steps, err := json.Marshal(e.result.Steps)
	if err != nil {
		return fmt.Errorf("writing steps: %w", err)
	}
	inverse, err := json.Marshal(e.result.Inverse)
	if err != nil {
		return fmt.Errorf("writing the inverse: %w", err)
	}
	document, err := json.Marshal(e.result.Page)
	if err != nil {
		return fmt.Errorf("writing the page: %w", err)
	}
	if _, err := tx.ExecContext(ctx, `WITH due AS (SELECT id, site_id, seq, doc FROM pages WHERE id = $1 AND seq > 0
			AND NOT EXISTS (SELECT FROM versions WHERE page_id = $1 AND made_at > now() - interval '1 hour')),
		kept AS (INSERT INTO page_docs (page_id, seq, doc) SELECT id, seq, doc FROM due ON CONFLICT DO NOTHING)
		INSERT INTO versions (id, site_id, page_id, seq, kind, made_by) SELECT $2, site_id, id, seq, 'hour', nullif($3, '') FROM due`, e.page, NewID("v"), e.user); err != nil {
		return fmt.Errorf("keeping an hour's version: %w", err)
	}
	_, err = tx.ExecContext(
		ctx,
		`WITH kept AS (
			INSERT INTO page_log (page_id, seq, user_id, kind, target, command, steps, inverse, nodes, act) VALUES ($1, $2, nullif($3, ''), $4, $5, $6, $7, $8, $9, $10)
		) UPDATE pages SET doc = $11, seq = $2, edits = edits + $12, name = $13, description = $14, categories = $15, picture = $16, edited_at = now(), shared = $17, dated = $18, media = $19
			WHERE id = $1`,
		e.page,
		e.seq,
		e.user,
		e.kind,
		e.target,
		command,
		steps,
		inverse,
		e.result.Nodes,
		e.act,
		document,
		map[string]int{
			kindEdit: 1, kindUndo: -1, kindRedo: 1,
		}[e.kind],
		e.result.Page.Name,
		e.result.Page.Description,
		append([]string{}, e.result.Page.Categories...),
		e.result.Page.Picture,
		e.result.Page.SharedSections(),
		e.result.Page.Date,
		mediaIn(document),
	)
	if err != nil {
		return fmt.Errorf("keeping the edit: %w", err)
	}
	return nil
}

// pageCache keeps the newest documents, so that an edit need not read its page
// again. Documents are values, so they can be shared.
type pageCache struct {
	pages *memory.Cache[string, cachedPage] // by id
}

type cachedPage struct {
	seq int64
	doc *doc.Page
}

func newPageCache(b *memory.Budget) pageCache {
	return pageCache{memory.Of[string](b, func(p cachedPage) int {
		size := p.doc.Size()
		return size.Blocks*blockBytes + 2*size.Runes
	})}
}

// blockBytes is about what a block takes beside its words, in bytes (measured on the demo's pages).
const blockBytes = 2500

// get gives a page as of a sequence number, or nil.
func (c pageCache) get(page string, seq int64) *doc.Page {
	if p, ok := c.pages.Get(page); ok && p.seq == seq {
		return p.doc
	}
	return nil
}

func (c pageCache) put(page string, seq int64, d *doc.Page) {
	if old, ok := c.pages.Get(page); ok && old.seq > seq {
		return
	}
	c.pages.Put(page, cachedPage{seq, d}, nil)
}

// Remember has the store remember within a budget that is shared with others.
func (s *Pages) Remember(b *memory.Budget) { s.pages = newPageCache(b) }

// storeMemory is what a store remembers in by itself, in bytes, and a transaction.
const (
	storeMemory       = 64 << 20
	transactionMemory = 32 << 20
)
