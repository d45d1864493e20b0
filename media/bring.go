package media

import (
	"context"

	"openplot/store"
)

// Bring keeps a medium of another site for this one too: under an id of its own, of the same
// files, which stay as long as one of the two needs them. Copies that are still to be made are
// made for both. Errors are *doc.Problem when the site's files take as much as they may.
func (k *Keeper) Bring(ctx context.Context, by By, m *store.Medium) (*store.Medium, error) {
	if err := k.allowed(ctx, by); err != nil {
		return nil, err
	}
	brought := *m
	brought.ID, brought.SiteID, brought.UploadedBy, brought.Folder = store.NewID("m"), by.Site, by.User, ""
	if err := k.store.Media.Add(ctx, &brought); err != nil {
		return nil, err
	}
	return &brought, nil
}
