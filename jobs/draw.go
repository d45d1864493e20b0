package jobs

import (
	"context"
	"time"

	"github.com/riverqueue/river"

	"openplot/site"
	"openplot/store"
	"openplot/web/model"
)

// The size in px of a page's drawing on a card: as wide as they are shown at most, and as
// high as one that is narrower may be.
const (
	cardWidth  = 400
	cardHeight = 400
)

// drawnBatch is how many pages are drawn before it is looked anew which aren't.
const drawnBatch = 50

// Draw draws the pages of a site whose drawings aren't fresh.
func (w *Tasks) Draw(ctx context.Context, slug string) error {
	for {
		st, err := w.Store.Sites.BySlug(ctx, slug)
		if err != nil {
			return err
		}
		look := model.DrawingLook(st.Version, w.Publisher.Hosts)
		pages, err := w.Store.Drawings.Undrawn(ctx, st.ID, look, drawnBatch)
		if err != nil || len(pages) == 0 {
			return err
		}
		src, err := site.ReadSource(ctx, w.Store, st)
		if err != nil {
			return err
		}
		stage := w.Workshop.Stage(st, src, "")
		for _, info := range pages {
			p, err := w.Store.Pages.At(ctx, st.ID, info.Slug)
			if err != nil {
				return err
			}
			svg := stage.For(info.Slug).Passing().DrawPage(p.Doc, cardWidth, cardHeight)
			if err := w.Store.Drawings.Keep(ctx, p.ID, p.Seq, look, string(svg)); err != nil {
				return err
			}
		}
	}
}

// drawer draws pages.
type drawer struct {
	river.WorkerDefaults[store.DrawPages]
	*Tasks
}

func (d *drawer) Work(ctx context.Context, job *river.Job[store.DrawPages]) error {
	return counted(job.Kind, d.Draw(ctx, job.Args.Site))
}

// Timeout is for the largest site there can be, many times over.
func (d *drawer) Timeout(*river.Job[store.DrawPages]) time.Duration { return 10 * time.Minute }
