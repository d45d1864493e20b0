package store

import (
	"context"
	"encoding/json"
	"fmt"

	"openplot/core/doc"
	"openplot/core/policy"
)

// KeptHouse is a house style that a site keeps beside its own.
type KeptHouse struct {
	ID    string    `db:"id"`
	Name  string    `db:"name"`
	Raw   []byte    `db:"house"`
	House doc.House `db:"-"`
}

// Keep keeps a house style under a name; one of that name is replaced. Errors are
// *doc.Problem when there are too many.
func (s *Houses) Keep(ctx context.Context, site, name string, h doc.House) error {
	raw, err := json.Marshal(h)
	if err != nil {
		return fmt.Errorf("writing a house style: %w", err)
	}
	var id string
	err = s.db.GetContext(ctx, &id, `WITH kept AS (DELETE FROM kept_houses WHERE site_id = $2 AND name = $3)
		INSERT INTO kept_houses (id, site_id, name, house) SELECT $1, $2, $3, $4
		WHERE (SELECT count(*) FROM kept_houses WHERE site_id = $2 AND name <> $3) < $5 RETURNING id`, NewID("h"), site, name, raw, policy.KeptHouses)
	if notFound(err) == ErrNotFound {
		return doc.Problemf(
			"House styles",
			"are %d already, the most there can be; forget one first",
			policy.KeptHouses,
		)
	}
	if err != nil {
		return fmt.Errorf("keeping a house style: %w", err)
	}
	return nil
}

// Kept gives the house styles that a site keeps, by name.
func (s *Houses) Kept(ctx context.Context, site string) ([]*KeptHouse, error) {
	var ks []*KeptHouse
	if err := s.db.SelectContext(ctx, &ks, `SELECT id, name, house FROM kept_houses WHERE site_id = $1 ORDER BY name, id`, site); err != nil {
		return nil, fmt.Errorf("listing kept house styles: %w", err)
	}
	for _, k := range ks {
		if err := json.Unmarshal(k.Raw, &k.House); err != nil {
			return nil, fmt.Errorf("reading the house style %s: %w", k.Name, err)
		}
	}
	return ks, nil
}

// Drop forgets a house style that a site keeps.
func (s *Houses) Drop(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM kept_houses WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return fmt.Errorf("forgetting a house style: %w", err)
	}
	return nil
}
