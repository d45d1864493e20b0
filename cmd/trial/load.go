package main

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"openplot/demo"
	"openplot/media/mediatest"
)

// thinks is how long somebody looks between two edits, on average.
const thinks = 4 * time.Second

// load has many people edit many pages for some minutes. Each has an account, a session and
// an address, opens the Bench, and then edits, now and then selects something else or takes
// an edit back.
func (t *trial) load(ctx context.Context, editors, pages int, minutes float64) error {
	t.settings = append(t.settings, "GOMEMLIMIT=400MiB")
	p, err := t.start()
	if err != nil {
		return err
	}
	defer p.stop()
	people, err := t.people(p, editors)
	if err != nil {
		return err
	}
	for i := range pages {
		if status, body, err := people[0].post("/sites/"+demo.SiteSlug+"/pages", url.Values{
			"name": {fmt.Sprint("Load ", i)}, "slug": {fmt.Sprint("load-", i)}, "ready": {"home"},
		}); err != nil || status != http.StatusSeeOther {
			return fmt.Errorf("making a page: %d %.300s, %w", status, body, err)
		}
	}
	fmt.Printf("%d people edit %d pages for %.1f minutes\n", editors, pages, minutes)
	var edits, opens times
	var kept, stale, lost atomic.Int64
	end, cancel := context.WithTimeout(ctx, time.Duration(minutes*float64(time.Minute)))
	defer cancel()
	var wg sync.WaitGroup
	var failed sync.Once
	var failure error
	fail := func(err error) { failed.Do(func() { failure = err; cancel() }) }
	for i, q := range people {
		wg.Go(func() {
			page := fmt.Sprintf("/sites/%s/pages/load-%d", demo.SiteSlug, i%pages)
			wait(end, time.Duration(rand.Int64N(int64(thinks))))
			start := time.Now()
			s, err := q.bench(page)
			opens.add(time.Since(start))
			if err != nil {
				fail(err)
				return
			}
			mine := s.Order[(i/pages)%len(s.Order)]
			last := ""
			for k := 0; end.Err() == nil; k++ {
				name := fmt.Sprintf("%d by %d", k, i)
				start := time.Now()
				status, next, err := q.edit(
					page,
					map[string]any{"op": "rename", "node": mine, "value": name, "base": s.Seq},
				)
				edits.add(time.Since(start))
				switch {
				case err != nil && end.Err() == nil:
					fail(err)
				case status == http.StatusOK:
					kept.Add(1)
					s, last = next, name
				case status == http.StatusConflict:
					stale.Add(1)
					if s, err = q.bench(page); err != nil {
						fail(err)
					}
				case err == nil:
					fail(fmt.Errorf("an edit is answered %d", status))
				}
				wait(end, time.Duration(rand.ExpFloat64()*float64(thinks)))
			}
			if s, err := q.bench(page); err != nil || last != "" && s.Names[mine] != last {
				lost.Add(1)
				fail(fmt.Errorf("%s is called %q, and %q was answered: %w", mine, s.Names[mine], last, err))
			}
		})
	}
	var memory []string
	for tick := time.NewTicker(time.Duration(minutes * float64(time.Minute) / 10)); end.Err() == nil; {
		select {
		case <-end.Done():
		case <-tick.C:
			memory = append(memory, fmt.Sprintf("%.0f", p.measure("process_resident_memory_bytes")/(1<<20)))
		}
	}
	wg.Wait()
	fmt.Printf(
		"edits: %s\nopening the Bench: %s\n%d kept, %d lost, %d made anew after somebody else's; resident memory in MB, ten times: %s\n",
		&edits,
		&opens,
		kept.Load(),
		lost.Load(),
		stale.Load(),
		strings.Join(memory, " "),
	)
	return failure
}

// people makes accounts, all members of the demo, and signs them in.
func (t *trial) people(p *program, n int) ([]*person, error) {
	people := make([]*person, n)
	run := func(in string, args ...string) error {
		cmd := t.command(args...)
		cmd.Stdin = strings.NewReader(in)
		if out, err := cmd.CombinedOutput(); err != nil {
			return fmt.Errorf("%v: %w: %s", args, err, out)
		}
		return nil
	}
	for i := range people {
		email := fmt.Sprintf("editor-%d@skerry.example", i)
		if err := run("a password of length\n", "user", "add", email, fmt.Sprint("Editor ", i)); err != nil {
			return nil, err
		}
		if err := run("", "member", "add", demo.SiteSlug, email, "designer"); err != nil {
			return nil, err
		}
		var err error
		if people[i], err = p.signIn(i, email, "a password of length"); err != nil {
			return nil, err
		}
	}
	return people, nil
}

// hostile uploads files in a row that are made to cost much, while somebody else works, and
// looks at the server's own memory.
func (t *trial) hostile(ctx context.Context, n int) error {
	p, err := t.start()
	if err != nil {
		return err
	}
	p.stop() // drawing the demo took memory
	if p, err = t.start(); err != nil {
		return err
	}
	defer p.stop()
	attacker, err := p.designer()
	if err != nil {
		return err
	}
	other, err := p.signIn(2, demo.WriterEmail, demo.Password)
	if err != nil {
		return err
	}
	var sets [][]mediatest.Hostile
	for seed := range byte(5) {
		sets = append(sets, mediatest.HostileFiles(seed))
	}
	done, cancel := context.WithCancel(ctx)
	var asks, edits times
	var wg sync.WaitGroup
	var failure error
	wg.Go(func() {
		for done.Err() == nil {
			for _, path := range []string{home + "/parts?width=1280", "/sites/" + demo.SiteSlug, home + "/bench"} {
				start := time.Now()
				if status, body, err := other.get(path); err != nil || status != http.StatusOK {
					failure = fmt.Errorf("somebody else's %s: %d %.200s, %w", path, status, body, err)
					return
				}
				if path == home+"/bench" {
					edits.add(time.Since(start))
				} else {
					asks.add(time.Since(start))
				}
				wait(done, 60*time.Millisecond)
			}
		}
	})
	memory := func() float64 { return p.measure("process_resident_memory_bytes") / (1 << 20) }
	wait(ctx, 10*time.Second)
	calm, peak := memory(), 0.0
	ends := map[int]int{}
	start := time.Now()
	for i := 0; i < n && ctx.Err() == nil; {
		for _, h := range sets[i/10%len(sets)] {
			status, _, err := attacker.upload(demo.SiteSlug, h.Name, h.Data)
			if err != nil {
				cancel()
				return err
			}
			ends[status]++
			peak = max(peak, memory())
			i++
		}
		if i%100 == 0 {
			fmt.Printf(
				"%d files in %s: %v, server's memory at most %.0f MB\n",
				i,
				time.Since(start).Round(time.Second),
				ends,
				peak,
			)
		}
	}
	cancel()
	wg.Wait()
	fmt.Printf(
		"%d hostile files, answers by status %v; the server's own resident memory was %.0f MB before and at most %.0f MB; somebody else's requests: %s; opening the Bench: %s\n",
		n,
		ends,
		calm,
		peak,
		&asks,
		&edits,
	)
	return failure
}
