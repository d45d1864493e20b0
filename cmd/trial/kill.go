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
			fmt.Printf("round %d: %d edits, %d uploads, %d publications answered, none lost\n", round, a.edits, len(a.uploads), a.publicly)
		}
	}
	p.stop()
	fmt.Printf("%d × kill -9 (%d of them during a first start): %d edits, %d uploads and %d publications were answered, none is lost; starting again took %s\n",
		n, firsts, a.edits, len(a.uploads), a.publicly, &starts)
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
				status, s, err := designer.edit(home, map[string]any{"op": "rename", "node": id, "value": name, "base": base})
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
			if status, _, err := designer.upload(demo.SiteSlug, name, picture(round*100+k)); err != nil || status != http.StatusOK {
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
			status, s, err := designer.edit(home, map[string]any{"op": "page.set", "setting": "title", "value": fmt.Sprint("Title ", number), "base": base})
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
	wait(ctx, time.Duration(200+rand.IntN(1800))*time.Millisecond)
	p.kill()
	wg.Wait()
	return nil
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
