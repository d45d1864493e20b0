package model

import (
	"context"
	"runtime"

	"openplot/core/check"
	"openplot/site"
	"openplot/store"
)

// Checker checks pages as they are kept, a few at a time, so that one site leaves a turn to others.
type Checker struct {
	store    *store.Store
	workshop *Workshop
	turns    turns
}

// NewChecker makes one that checks as many pages at once as there are processors, and one more.
func NewChecker(st *store.Store, w *Workshop) *Checker {
	at := runtime.GOMAXPROCS(0)
	return &Checker{store: st, workshop: w, turns: turns{all: at + 1, each: max(at, 2)}}
}

// Checking is a page that was checked, and what it was checked with.
type Checking struct {
	Stage  *Stage
	Others []check.Other
	Hushed []store.Quiet // what is kept quiet on it
	*Checked
}

// Page checks a page of a site when it is its turn. Errors are of the store, and of ctx.
func (c *Checker) Page(ctx context.Context, st *store.Site, src site.Source, p *store.Page) (*Checking, error) {
	done, err := c.turns.take(ctx, st.ID)
	if err != nil {
		return nil, err
	}
	defer done()
	k := &Checking{Stage: c.workshop.Stage(st, src, p.Slug)}
	if k.Others, err = c.store.Findings.OtherPages(ctx, st.ID, p.ID); err != nil {
		return nil, err
	}
	if k.Hushed, err = c.store.Findings.Quiets(ctx, p.ID); err != nil {
		return nil, err
	}
	k.Checked, err = k.Stage.Check(ctx, p.Doc, p.Slug, k.Others, k.Hushed)
	return k, err
}
