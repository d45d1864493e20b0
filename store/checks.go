package store

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"openplot/core/finding"
)

// Quiet is a finding that somebody said is meant to be so, as long as what it is about has the
// content that it had.
type Quiet struct {
	Rule    string    `db:"rule"`
	Node    string    `db:"node"`
	Other   string    `db:"other"`
	Part    string    `db:"part"`
	Content string    `db:"content"`
	Reason  string    `db:"reason"`
	By      string    `db:"said_by"` // a name, or ""
	At      time.Time `db:"said_at"`
}

// Key is what it is about.
func (q Quiet) Key() finding.Key {
	return finding.Key{Rule: q.Rule, Node: q.Node, Other: q.Other, Part: q.Part}
}

// Quiets lists those of a page.
func (s *Findings) Quiets(ctx context.Context, page string) (qs []Quiet, err error) {
	if err := s.db.SelectContext(ctx, &qs, `SELECT rule, node, other, part, content, reason, coalesce(u.name, '') AS said_by, said_at
		FROM quiet_findings q LEFT JOIN users u ON u.id = q.said_by WHERE page_id = $1 ORDER BY said_at`, page); err != nil {
		return nil, fmt.Errorf("reading what is meant to be so: %w", err)
	}
	return qs, nil
}

// KeepQuiet notes that a finding is meant to be so.
func (s *Findings) KeepQuiet(ctx context.Context, page, user string, q Quiet) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO quiet_findings (page_id, rule, node, other, part, content, reason, said_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
		ON CONFLICT (page_id, rule, node, other, part) DO UPDATE SET content = $6, reason = $7, said_by = $8, said_at = now()`,
		page, q.Rule, Clean(q.Node), Clean(q.Other), Clean(q.Part), q.Content, Clean(q.Reason), user); err != nil {
		return fmt.Errorf("keeping a finding quiet: %w", err)
	}
	return nil
}

// TellAgain has a finding be told again.
func (s *Findings) TellAgain(ctx context.Context, page string, k finding.Key) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM quiet_findings WHERE page_id = $1 AND rule = $2 AND node = $3 AND other = $4 AND part = $5`,
		page, k.Rule, Clean(k.Node), Clean(k.Other), Clean(k.Part)); err != nil {
		return fmt.Errorf("telling a finding again: %w", err)
	}
	return nil
}

// Counts are how many findings a page has.
type Counts struct {
	Broken   int `db:"broken"`
	Doubtful int `db:"doubtful"`
	Hints    int `db:"hints"`
}

// Any reports whether there are some that aren't hints.
func (c Counts) Any() bool { return c.Broken+c.Doubtful > 0 }

// FoundOn gives how many findings each page of a site has whose counts are of its state and of
// the look given.
func (s *Findings) FoundOn(ctx context.Context, site, look string) (map[string]Counts, error) {
	var rows []struct {
		Page string `db:"page_id"`
		Counts
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT f.page_id, f.broken, f.doubtful, f.hints FROM page_findings f JOIN pages p ON p.id = f.page_id AND p.seq = f.seq
		WHERE p.site_id = $1 AND f.look = $2`, site, look); err != nil {
		return nil, fmt.Errorf("reading what was found: %w", err)
	}
	out := map[string]Counts{}
	for _, r := range rows {
		out[r.Page] = r.Counts
	}
	return out, nil
}

// KeepFound keeps how many findings a page has in a state.
func (s *Findings) KeepFound(ctx context.Context, page string, seq int64, look string, c Counts) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO page_findings (page_id, seq, look, broken, doubtful, hints) VALUES ($1, $2, $3, $4, $5, $6)
		ON CONFLICT (page_id) DO UPDATE SET seq = $2, look = $3, broken = $4, doubtful = $5, hints = $6 WHERE page_findings.seq <= $2`,
		page, seq, look, c.Broken, c.Doubtful, c.Hints); err != nil {
		return fmt.Errorf("keeping what was found: %w", err)
	}
	return nil
}

// OtherPages gives the pages of a site but one, as that one's checks know them.
func (s *Findings) OtherPages(ctx context.Context, site, but string) ([]finding.Other, error) {
	var rows []struct {
		Address     string `db:"slug"`
		Name        string `db:"name"`
		Title       string `db:"title"`
		Description string `db:"description"`
		Anchors     []byte `db:"anchors"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT slug, name, coalesce(doc->>'title', '') AS title, description,
			jsonb_path_query_array(doc::jsonb, '$.sections[*].anchor') || jsonb_path_query_array(doc::jsonb, '$.sections[*].view.anchor')
			|| jsonb_path_query_array(doc::jsonb, '$.sections[*].**.blocks[*] ? (@.kind == "anchor").content.values.name') AS anchors
		FROM pages WHERE site_id = $1 AND id <> $2 AND deleted_at IS NULL`, site, but); err != nil {
		return nil, fmt.Errorf("reading the other pages: %w", err)
	}
	out := make([]finding.Other, len(rows))
	for i, r := range rows {
		out[i] = finding.Other{
			Address:     strings.Trim(r.Address, "/"),
			Name:        r.Name,
			Title:       r.Title,
			Description: r.Description,
		}
		if err := json.Unmarshal(r.Anchors, &out[i].Anchors); err != nil {
			return nil, fmt.Errorf("reading the places on %s: %w", r.Name, err)
		}
	}
	return out, nil
}
