package media

import (
	"context"

	"openplot/core/doc"
	"openplot/store"
)

// Bring keeps a medium of another site for this one too: under an id of its own, of the same
// files, which stay as long as one of the two needs them. Errors are *doc.Problem when the
// site's files take as much as they may.
func (k *Keeper) Bring(ctx context.Context, by By, m *store.Medium) (*store.Medium, error) {
	if err := k.allowed(ctx, by); err != nil {
		return nil, err
	}
	if m.CopiesLeft > 0 {
		return nil, doc.Problemf("Pictures", "can't be brought along yet: copies of %q are still being made; paste again in a moment", m.Name)
	}
	brought := *m
	brought.ID, brought.SiteID, brought.UploadedBy, brought.Folder = store.NewID("m"), by.Site, by.User, ""
	if err := k.store.AddMedium(ctx, &brought); err != nil {
		return nil, err
	}
	return &brought, nil
}
