package jobs

import (
	"context"
	"errors"
	"time"

	"github.com/riverqueue/river"

	"openplot/core/doc"
	"openplot/store"
)

// copier makes copies of pictures.
type copier struct {
	river.WorkerDefaults[store.MakeCopies]
	*Tasks
}

func (c *copier) Work(ctx context.Context, job *river.Job[store.MakeCopies]) error {
	err := c.Pictures.Finish(ctx, job.Args)
	var problem *doc.Problem
	hopeless := errors.As(err, &problem) // trying again won't help
	if err != nil && (hopeless || job.Attempt >= job.MaxAttempts) {
		why := "something went wrong on our side"
		if hopeless {
			why = problem.Message
		}
		err = errors.Join(err, c.Store.Media.FailCopies(context.WithoutCancel(ctx), job.Args, why))
	}
	if err == nil {
		err = c.Publisher.CopiesMade(ctx, c.Store, job.Args)
	}
	if counted(job.Kind, err); hopeless {
		return river.JobCancel(err)
	}
	return err
}

// Timeout is for the largest picture there can be, many times over.
func (c *copier) Timeout(*river.Job[store.MakeCopies]) time.Duration { return 10 * time.Minute }
