package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"time"

	"openplot/demo"
)

// answered is what the program said that it kept.
type answered struct {
	mu       sync.Mutex
	names    map[string]string // the last name of each section
	sent     map[string]string // the last name that was sent, answered or not
	seq      int64
	uploads  []string
	title    int // the greatest number that was published
	edits    int
	publicly int
	both     int // the greatest number that two pages were published with at once
	restored int
}

// kill kills the program in the middle of everything, n times, and looks each time whether all
// is there that was answered. Every seventh round it is one that starts for the first time, and
// is killed several times.
func (t *trial) kill(ctx context.Context, n int) error {
	p, err := t.start()
	if err != nil {
		return err
	}
	a := &answered{names: map[string]string{}, sent: map[string]string{}}
	var starts times
	firsts := 0
	for round, kills := 0, 0; kills < n && ctx.Err() == nil; round++ {
		if round%7 == 6 {
			if err := t.killFirst(ctx); err != nil {
				return fmt.Errorf("round %d, a first start: %w", round, err)
			}
			firsts += firstKills
			kills += firstKills
			continue
		}
		kills++
		if err := t.burst(ctx, p, a, round); err != nil {
			return fmt.Errorf("round %d: %w", round, err)
		}
		if p, err = t.start(); err != nil {
			return fmt.Errorf("round %d: starting again: %w", round, err)
		}
		starts.add(p.took)
		if err := t.sound(p, a); err != nil {
			return fmt.Errorf("round %d: %w", round, err)
		}
		if round%10 == 0 {
			fmt.Printf(
				"round %d: %d edits, %d uploads, %d publications answered, none lost\n",
				round,
				a.edits,
				len(a.uploads),
				a.publicly,
			)
		}
	}
	p.stop()
	fmt.Printf(
		"%d × kill -9 (%d of them during a first start): %d edits, %d uploads, %d publications and %d restorations were answered, none is lost or half; starting again took %s\n",
		n,
		firsts,
		a.edits,
		len(a.uploads),
		a.publicly,
		a.restored,
		&starts,
	)
	return nil
}

// burst has people edit, upload and publish, and kills the program in the middle of it.
func (t *trial) burst(ctx context.Context, p *program, a *answered, round int) error {
	designer, err := p.designer()
	if err != nil {
		return err
	}
	begun, err := designer.bench(home)
	if err != nil {
		return err
	}
	var wg sync.WaitGroup
	for i := range 4 {
		wg.Go(func() {
			id, base := begun.Order[i], begun.Seq
			for k := 0; ; k++ {
				name := fmt.Sprintf("Name %d of round %d", k, round)
				a.mu.Lock()
				a.sent[id] = name
				a.mu.Unlock()
				status, s, err := designer.edit(
					home,
					map[string]any{"op": "rename", "node": id, "value": name, "base": base},
				)
				if err != nil || status != http.StatusOK {
					return
				}
				a.mu.Lock()
				base, a.names[id], a.seq = s.Seq, name, max(a.seq, s.Seq)
				a.edits++
				a.mu.Unlock()
			}
		})
	}
	wg.Go(func() {
		for k := 0; ; k++ {
			name := fmt.Sprintf("upload-%d-%d.png", round, k)
			if status, _, err := designer.upload(demo.SiteSlug, name, picture(round*100+k)); err != nil ||
				status != http.StatusOK {
				return
			}
			a.mu.Lock()
			a.uploads = append(a.uploads, name)
			a.mu.Unlock()
		}
	})
	wg.Go(func() {
		base := begun.Seq
		for k := 1; ; k++ {
			number := round*1000 + k
			status, s, err := designer.edit(
				home,
				map[string]any{
					"op":      "page.set",
					"setting": "title",
					"value":   fmt.Sprint("Title ", number),
					"base":    base,
				},
			)
			if err != nil || status != http.StatusOK {
				return
			}
			base = s.Seq
			if status, _, err := designer.post(home+"/publish", nil); err != nil || status != http.StatusOK {
				return
			}
			a.mu.Lock()
			a.title = number
			a.publicly++
			a.mu.Unlock()
		}
	})
	wg.Go(func() { t.publishBoth(designer, a, round) })
	wg.Go(func() { t.restoreAgain(designer, a, round) })
	wait(ctx, time.Duration(200+rand.IntN(1800))*time.Millisecond)
	p.kill()
	wg.Wait()
	return nil
}

// Pages of the demo on which more than one thing is done at once.
const (
	sitePath    = "/sites/" + demo.SiteSlug
	faresPage   = sitePath + "/pages/fares"
	crewPage    = sitePath + "/pages/crew"
	islandsPage = sitePath + "/pages/islands"
)

var (
	pageIDs    = regexp.MustCompile(`data-page="([^"]+)" data-slug="(fares|crew)"`)
	versionIDs = regexp.MustCompile(`id="version-([^"]+)"`)
)

// publishBoth gives two pages one number in their titles, and publishes both at once, again and
// again.
func (t *trial) publishBoth(designer *person, a *answered, round int) {
	_, list, err := designer.get(sitePath)
	if err != nil {
		return
	}
	ids := url.Values{}
	for _, m := range pageIDs.FindAllStringSubmatch(list, -1) {
		ids.Add("id", m[1])
	}
	seqs := map[string]int64{}
	for _, page := range []string{faresPage, crewPage} {
		s, err := designer.bench(page)
		if err != nil {
			return
		}
		seqs[page] = s.Seq
	}
	for k := 1; len(ids["id"]) == 2; k++ {
		number := round*1000 + k
		for _, page := range []string{faresPage, crewPage} {
			status, s, err := designer.edit(
				page,
				map[string]any{
					"op":      "page.set",
					"setting": "title",
					"value":   fmt.Sprint("Title ", number),
					"base":    seqs[page],
				},
			)
			if err != nil || status != http.StatusOK {
				return
			}
			seqs[page] = s.Seq
		}
		if status, _, err := designer.post(sitePath+"/publish", ids); err != nil || status >= http.StatusBadRequest {
			return
		}
		a.mu.Lock()
		a.both = number
		a.publicly++
		a.mu.Unlock()
	}
}

// restoreAgain takes a page back to the first of its versions, again and again.
func (t *trial) restoreAgain(designer *person, a *answered, round int) {
	if status, _, err := designer.post(islandsPage+"/versions", url.Values{"name": {fmt.Sprint("Round ", round)}}); err != nil ||
		status >= http.StatusBadRequest {
		return
	}
	_, list, err := designer.get(islandsPage + "/versions")
	if err != nil {
		return
	}
	m := versionIDs.FindStringSubmatch(list)
	for m != nil {
		s, err := designer.bench(islandsPage)
		if err != nil || len(s.Order) == 0 {
			return
		}
		if status, _, err := designer.edit(islandsPage, map[string]any{"op": "section.shift", "node": s.Order[len(s.Order)-2], "dy": -1, "base": s.Seq}); err != nil ||
			status != http.StatusOK {
			return
		}
		if status, _, err := designer.post(islandsPage+"/versions/restore", url.Values{"version": {m[1]}}); err != nil ||
			status >= http.StatusBadRequest {
			return
		}
		a.mu.Lock()
		a.restored++
		a.mu.Unlock()
	}
}

// picture is one that no other is like.
func picture(n int) []byte {
	img := image.NewNRGBA(image.Rect(0, 0, 640, 420))
	for i := range 420 {
		img.Set(i, i, color.NRGBA{byte(n), byte(n >> 8), byte(i), 255})
	}
	var b bytes.Buffer
	_ = png.Encode(&b, img) // into memory
	return b.Bytes()
}

var titleIn = regexp.MustCompile(`<title>Title (\d+)</title>`)

// sound looks whether all is there that was answered, and whole.
func (t *trial) sound(p *program, a *answered) error {
	designer, err := p.designer()
	if err != nil {
		return err
	}
	now, err := designer.bench(home)
	if err != nil {
		return err
	}
	if now.Seq < a.seq {
		return fmt.Errorf("the log ends at %d; %d was answered", now.Seq, a.seq)
	}
	for id, name := range a.names {
		if now.Names[id] != name && now.Names[id] != a.sent[id] { // the last one may have been kept without an answer
			return fmt.Errorf("%s is called %q; %q was answered", id, now.Names[id], name)
		}
		a.names[id] = now.Names[id]
	}
	_, library, err := designer.get("/sites/" + demo.SiteSlug + "/library")
	if err != nil {
		return err
	}
	for _, name := range a.uploads {
		if !strings.Contains(library, `value="`+name+`"`) {
			return fmt.Errorf("the upload %s is lost", name)
		}
	}
	if a.title > 0 {
		status, page, err := p.published(demo.SiteSlug, "/")
		if err != nil || status != http.StatusOK || !strings.HasSuffix(strings.TrimSpace(page), "</html>") {
			return fmt.Errorf("the published page: %d %.100s, %w", status, page, err)
		}
		m := titleIn.FindStringSubmatch(page)
		if m == nil {
			return errors.New("the published page has another title")
		}
		if got, _ := strconv.Atoi(m[1]); got < a.title {
			return fmt.Errorf("%d is published; %d was answered", got, a.title)
		}
	}
	if a.both > 0 {
		numbers := map[string]int{}
		for _, path := range []string{"/fares/", "/crew/"} {
			status, page, err := p.published(demo.SiteSlug, path)
			m := titleIn.FindStringSubmatch(page)
			if err != nil || status != http.StatusOK || m == nil {
				return fmt.Errorf("%s: %d %.100s, %v", path, status, page, err)
			}
			numbers[path], _ = strconv.Atoi(m[1])
		}
		if numbers["/fares/"] != numbers["/crew/"] || numbers["/fares/"] < a.both {
			return fmt.Errorf("half of a publication is seen: %v; %d was answered", numbers, a.both)
		}
	}
	if _, err := designer.bench(islandsPage); err != nil {
		return fmt.Errorf("the page that was taken back: %w", err)
	}
	return t.doctor()
}

// firstKills is how often a program is killed that starts for the first time.
const firstKills = 4

// killFirst kills a program that starts for the first time, while its database is made, its
// schema migrated and its demo drawn, until it comes up.
func (t *trial) killFirst(ctx context.Context) error {
	dir, err := os.MkdirTemp(t.dir, "first-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	if err := os.Chmod(dir, 0o711); err != nil {
		return err
	}
	first := &trial{binary: t.binary, dir: dir, settings: []string{"OPENPLOT_DEMO=yes"}}
	for range firstKills {
		p, up, err := first.launch()
		if err != nil {
			return err
		}
		select {
		case <-up:
		case <-time.After(time.Duration(100+rand.IntN(4500)) * time.Millisecond):
		case <-ctx.Done():
		}
		p.kill()
	}
	p, err := first.start()
	if err != nil {
		return err
	}
	defer p.stop()
	if err := first.sound(p, &answered{}); err != nil {
		return err
	}
	if status, _, err := p.published(demo.SiteSlug, "/"); err != nil || status != http.StatusOK {
		return fmt.Errorf("the demo isn't published: %d, %w", status, err)
	}
	return nil
}
