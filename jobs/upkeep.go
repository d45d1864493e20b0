package jobs

import (
	"context"
	"errors"
	"time"

	"github.com/riverqueue/river"

	"openplot/core/policy"
	"openplot/store"
)

// FileGrace is how long a file that nothing refers to is left alone: what is being uploaded or
// published isn't referred to yet.
const FileGrace = 24 * time.Hour

// Forget ends what is no longer to be kept, and looks at the domains that are shown.
func (w *Tasks) Forget(ctx context.Context) error {
	ago := func(life time.Duration) time.Time { return time.Now().Add(-life) }
	edits, err := w.Store.Pages.Compact(ctx, ago(policy.Log))
	err = errors.Join(
		err,
		w.Store.Media.Forget(ctx, ago(policy.DeletedMedia)),
		w.Store.Entries.Forget(ctx),
		w.Store.Limits.Forget(ctx),
		w.Store.Visits.Forget(ctx),
		w.Store.Audit.Forget(ctx),
		w.Store.Releases.Forget(
			ctx,
			ago(policy.Releases),
		),
		w.Store.Log.ForgetVersions(ctx, ago(policy.Log)),
		w.Store.Tree.Forget(ctx, ago(policy.DeletedPages)),
		w.Store.Sites.Forget(ctx, ago(policy.DeletedSites)),
		w.Store.Works.Forget(ctx, ago(policy.Works)),
		w.Store.Mails.Forget(ctx, ago(policy.Mails)),
	)
	uploads, freed, uerr := w.Pictures.Collect(ctx, ago(FileGrace))
	published, more, perr := w.Publisher.Collect(ctx, w.Store, ago(FileGrace))
	w.Log.Info("upkeep", "edits", edits, "uploads", uploads, "published", published, "bytes", freed+more)
	return errors.Join(err, uerr, perr, w.Domains.LookAgain(ctx))
}

// keeper forgets what is no longer to be kept.
type keeper struct {
	river.WorkerDefaults[store.Upkeep]
	*Tasks
}

func (k *keeper) Work(ctx context.Context, job *river.Job[store.Upkeep]) error {
	return counted(job.Kind, k.Forget(ctx))
}

// Timeout is for many large sites.
func (k *keeper) Timeout(*river.Job[store.Upkeep]) time.Duration { return time.Hour }
