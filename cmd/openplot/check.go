package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"slices"
	"strings"

	"openplot/core/check"
	"openplot/media"
	"openplot/memory"
	"openplot/site"
	"openplot/store"
	"openplot/web/model"
)

// errBroken means that something on a page is broken.
var errBroken = errors.New("something is broken")

// check tells what is wrong with a page of a site, or with all of them, as lines, JSON or SARIF. It
// gives errBroken where visitors can't read, use or see something.
func (s settings) check(ctx context.Context, st *store.Store, args []string) error {
	as := "lines"
	for _, form := range []string{"-json", "-sarif"} {
		if i := slices.Index(args, form); i >= 0 {
			as, args = form[1:], slices.Delete(args, i, i+1)
		}
	}
	if len(args) == 0 || len(args) > 2 {
		return errUsage
	}
	of, err := st.Sites.BySlug(ctx, args[0])
	if err != nil {
		return fmt.Errorf("no site is at %q: %w", args[0], err)
	}
	src, err := site.ReadSource(ctx, st, of)
	if err != nil {
		return err
	}
	workshop, err := model.NewWorkshop(
		s.media(),
		s.hosts.Uploads()+"/media/",
		media.ReadPixels,
		memory.New(64<<20),
		slog.New(slog.DiscardHandler),
	)
	if err != nil {
		return err
	}
	checked, broken := 0, 0
	for _, info := range src.Pages {
		if len(args) == 2 && strings.Trim(args[1], "/") != info.Slug && (args[1] != "home" || info.Slug != "") {
			continue
		}
		checked++
		found, err := checkPage(ctx, st, of, src, workshop, info)
		if err != nil {
			return err
		}
		broken += found.Counts().Broken
		if err := tellFound(as, info, found); err != nil {
			return err
		}
	}
	if checked == 0 {
		return fmt.Errorf("%s has no page at %q", of.Name, args[1])
	}
	if broken > 0 {
		return errBroken
	}
	return nil
}

func checkPage(
	ctx context.Context,
	st *store.Store,
	of *store.Site,
	src site.Source,
	workshop *model.Workshop,
	info *store.PageInfo,
) (*model.Checked, error) {
	p, err := st.Pages.ByID(ctx, of.ID, info.ID)
	if err != nil {
		return nil, err
	}
	others, err := st.Findings.OtherPages(ctx, of.ID, info.ID)
	if err != nil {
		return nil, err
	}
	quiet, err := st.Findings.Quiets(ctx, info.ID)
	if err != nil {
		return nil, err
	}
	return workshop.Stage(of, src, info.Slug).Check(ctx, p.Doc, info.Slug, others, quiet)
}

// tellFound prints what was found on a page.
func tellFound(as string, info *store.PageInfo, found *model.Checked) error {
	var b []byte
	var err error
	switch as {
	case "json":
		b, err = found.JSON()
	case "sarif":
		b, err = found.SARIF("/" + info.Slug)
	default:
		c := found.Counts()
		fmt.Printf(
			"/%s  %s: %d broken, %d doubtful, %d hints, %d kept quiet\n",
			info.Slug,
			info.Name,
			c.Broken,
			c.Doubtful,
			c.Hints,
			len(found.Quiet),
		)
		for i := range found.Findings {
			f := &found.Findings[i]
			fmt.Printf("  %-8s  %s. %s  [%s]\n", f.Severity, f.Title(found.Name), f.Say(found.Name), rangesOf(f))
		}
		return nil
	}
	if err != nil {
		return err
	}
	_, err = os.Stdout.Write(append(b, '\n'))
	return err
}

func rangesOf(f *check.Finding) string {
	var out []string
	for _, r := range f.Ranges {
		out = append(out, fmt.Sprintf("%d–%d", r.From, r.To))
	}
	return strings.Join(out, ", ") + " px, " + f.ID
}
