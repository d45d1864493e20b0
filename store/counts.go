package store

import (
	"context"
	"crypto/sha256"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/policy"
)

// What is counted of visits, each by day and key.
const (
	CountedView     = "view"     // of a page
	CountedVisit    = "visit"    // somebody's first page of a day
	CountedPage     = "page"     // by the page's id
	CountedFrom     = "from"     // by the site that led there
	CountedCampaign = "campaign" // by what the address says
	CountedLanguage = "language" // by its tag
	CountedEntry    = "entry"    // sent, by the form
	CountedSearch   = "search"   // that found nothing, by what was looked for
	CountedMissing  = "missing"  // addresses where there is nothing
	CountedFile     = "file"     // taken, by its name
)

// mostKeys is how many keys are told apart of each sort on a day of a site; what is more counts together, by "".
const mostKeys = 500

// Count is one more of something.
type Count struct{ What, Key string }

// Add counts things that happened on a site once each, of sorts that differ, where the site counts visits.
func (s *Visits) Add(ctx context.Context, site string, counts ...Count) error {
	return s.add(ctx, s.db, site, counts)
}

func (s *Visits) add(ctx context.Context, q sqlx.ExtContext, site string, counts []Count) error {
	what, keys := make([]string, len(counts)), make([]string, len(counts))
	for i, c := range counts {
		what[i], keys[i] = c.What, Clean(c.Key)
	}
	if _, err := q.ExecContext(ctx, `INSERT INTO counts (site_id, day, what, key, n) SELECT s.id, current_date, u.what,
		CASE WHEN EXISTS (SELECT FROM counts c WHERE c.site_id = s.id AND c.what = u.what AND c.day = current_date AND c.key = u.key)
			OR (SELECT count(*) FROM counts c WHERE c.site_id = s.id AND c.what = u.what AND c.day = current_date) < $4 THEN left(u.key, 200) ELSE '' END, 1
		FROM unnest($2::text[], $3::text[]) AS u (what, key), shown_sites s WHERE s.id = $1 AND s.counts_visits ORDER BY u.what
		ON CONFLICT (site_id, what, day, key) DO UPDATE SET n = counts.n + 1`, site, what, keys, mostKeys); err != nil {
		return fmt.Errorf("counting: %w", err)
	}
	return nil
}

// Viewed is a page that somebody looked at.
type Viewed struct {
	Page                     string // its address
	Width                    int    // of the window, px
	Who                      string // what tells people of a day apart, of which a hash is kept as long as the day
	From, Campaign, Language string // or ""
}

// See counts that a published page of a site was looked at, where the site counts that; ErrNotFound tells that there
// is no such page, or that it doesn't.
func (s *Visits) See(ctx context.Context, site string, v Viewed) error {
	salt, err := s.all.Limits.salt(ctx)
	if err != nil {
		return err
	}
	mark := sha256.Sum256(append(salt, site+" "+v.Who...))
	page, err := s.Count(ctx, site, v.Page, v.Width)
	if err != nil {
		return err
	}
	counts := []Count{{CountedView, ""}, {CountedPage, page}}
	for what, key := range map[string]string{CountedFrom: v.From, CountedCampaign: v.Campaign, CountedLanguage: v.Language} {
		if key != "" {
			counts = append(counts, Count{what, key})
		}
	}
	r, err := s.db.ExecContext(
		ctx,
		`INSERT INTO visit_marks (site_id, day, mark) VALUES ($1, current_date, $2) ON CONFLICT DO NOTHING`,
		site,
		mark[:16],
	)
	if err != nil {
		return fmt.Errorf("counting a visit: %w", err)
	}
	if n, err := r.RowsAffected(); err == nil && n == 1 {
		counts = append(counts, Count{CountedVisit, ""})
	}
	return s.Add(ctx, site, counts...)
}

// CountedDay is how much was counted on a day.
type CountedDay struct {
	Day time.Time `db:"day"`
	N   int       `db:"n"`
}

// ByDay gives how much of something was counted on each of the days from one to before another on which there was any.
func (s *Visits) ByDay(ctx context.Context, site, what string, from, to time.Time) (ds []CountedDay, err error) {
	if err := s.db.SelectContext(ctx, &ds, `SELECT day, sum(n)::bigint AS n FROM counts WHERE site_id = $1 AND what = $2 AND day >= $3::date AND day < $4::date
		GROUP BY day ORDER BY day`, site, what, from.Format(time.DateOnly), to.Format(time.DateOnly)); err != nil {
		return nil, fmt.Errorf("reading counts: %w", err)
	}
	return ds, nil
}

// Keyed is how much was counted of a key.
type Keyed struct {
	Key string `db:"key"`
	N   int    `db:"n"`
}

// Top gives what was counted most of a sort from a day to before another.
func (s *Visits) Top(ctx context.Context, site, what string, from, to time.Time, limit int) (ks []Keyed, err error) {
	if err := s.db.SelectContext(ctx, &ks, `SELECT key, sum(n)::bigint AS n FROM counts WHERE site_id = $1 AND what = $2 AND day >= $3::date AND day < $4::date
		GROUP BY key ORDER BY n DESC, key LIMIT $5`, site, what, from.Format(time.DateOnly), to.Format(time.DateOnly), limit); err != nil {
		return nil, fmt.Errorf("reading counts: %w", err)
	}
	return ks, nil
}

// OfPages gives how often some pages of a site were seen on each of so many days before a day, by the page's id.
func (s *Visits) OfPages(
	ctx context.Context,
	site string,
	pages []string,
	to time.Time,
	days int,
) (map[string][]int, error) {
	from := to.AddDate(0, 0, -days)
	var rows []struct {
		Key string `db:"key"`
		At  int    `db:"at"`
		N   int    `db:"n"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT key, day - $3::date AS at, n FROM counts WHERE site_id = $1 AND what = $2 AND day >= $3::date AND day < $4::date AND key = ANY ($5)`,
		site, CountedPage, from.Format(time.DateOnly), to.Format(time.DateOnly), pages); err != nil {
		return nil, fmt.Errorf("reading counts: %w", err)
	}
	all := map[string][]int{}
	for _, r := range rows {
		if all[r.Key] == nil {
			all[r.Key] = make([]int, days)
		}
		all[r.Key][r.At] = r.N
	}
	return all, nil
}

// EachCount gives all that was counted on a site, by day.
func (s *Visits) EachCount(
	ctx context.Context,
	site string,
	f func(day time.Time, what, key string, n int) error,
) error {
	rows, err := s.db.QueryxContext(
		ctx,
		`SELECT day, what, key, n FROM counts WHERE site_id = $1 ORDER BY day, what, key`,
		site,
	)
	if err != nil {
		return fmt.Errorf("reading counts: %w", err)
	}
	defer rows.Close()
	for rows.Next() {
		var c struct {
			Day  time.Time `db:"day"`
			What string    `db:"what"`
			Key  string    `db:"key"`
			N    int       `db:"n"`
		}
		if err := rows.StructScan(&c); err != nil {
			return fmt.Errorf("reading counts: %w", err)
		}
		if err := f(c.Day, c.What, c.Key, c.N); err != nil {
			return err
		}
	}
	return rows.Err()
}

// forgetCounts ends counts after a while, and who was here with the day.
func (s *Visits) forgetCounts(ctx context.Context) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM counts WHERE day <= current_date - $1::int`, policy.Days(policy.Counts)); err != nil {
		return fmt.Errorf("forgetting counts: %w", err)
	}
	if _, err := s.db.ExecContext(ctx, `DELETE FROM visit_marks WHERE day < current_date`); err != nil {
		return fmt.Errorf("forgetting counts: %w", err)
	}
	return nil
}
