package main

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"time"

	"openplot/demo"
)

// editing has four people edit until stop is called, which gives what was answered, and how
// often what else was.
func (p *program) editing(ctx context.Context) (stop func() (a *answered, other map[string]int), err error) {
	designer, err := p.designer()
	if err != nil {
		return nil, err
	}
	begun, err := designer.bench(home)
	if err != nil {
		return nil, err
	}
	a, other := &answered{names: map[string]string{}, sent: map[string]string{}}, map[string]int{}
	ctx, cancel := context.WithCancel(ctx)
	var wg sync.WaitGroup
	for i := range 4 {
		wg.Go(func() {
			id, base := begun.Order[i], begun.Seq
			for k := 0; ctx.Err() == nil; k++ {
				name := fmt.Sprintf("Name %d of %d", k, i)
				a.mu.Lock()
				a.sent[id] = name
				a.mu.Unlock()
				status, s, err := designer.edit(
					home,
					map[string]any{"op": "rename", "node": id, "value": name, "base": base},
				)
				a.mu.Lock()
				switch {
				case err != nil:
					other["no answer"]++
				case status == http.StatusOK:
					base, a.names[id], a.seq = s.Seq, name, max(a.seq, s.Seq)
					a.edits++
				default:
					other[strconv.Itoa(status)]++
				}
				a.mu.Unlock()
				if err != nil || status != http.StatusOK {
					wait(ctx, 100*time.Millisecond)
					if s, err := designer.bench(home); err == nil {
						base = s.Seq
					}
				}
			}
		})
	}
	return func() (*answered, map[string]int) { cancel(); wg.Wait(); return a, other }, nil
}

// recovers tells how long it takes until an edit is answered again.
func (p *program) recovers(ctx context.Context, n int) (time.Duration, error) {
	start := time.Now()
	for time.Since(start) < time.Minute && ctx.Err() == nil {
		q, err := p.designer()
		if err == nil {
			if s, err := q.bench(home); err == nil {
				if status, _, err := q.edit(home, map[string]any{
					"op": "rename", "node": s.Order[4], "value": fmt.Sprint("Again ", n), "base": s.Seq,
				}); err == nil && status == http.StatusOK {
					return time.Since(start), nil
				}
			}
		}
		n += 1000
		wait(ctx, 50*time.Millisecond)
	}
	return 0, errors.New("it doesn't recover within a minute")
}

// postmaster is the process of the private cluster's server, and all of its children.
func (t *trial) postmaster() (int, []int, error) {
	b, err := os.ReadFile(filepath.Join(t.data(), "postgres", "postmaster.pid"))
	if err != nil {
		return 0, nil, err
	}
	first, _, _ := strings.Cut(string(b), "\n")
	pid, err := strconv.Atoi(first)
	if err != nil {
		return 0, nil, err
	}
	all := []int{pid}
	stats, err := filepath.Glob("/proc/[0-9]*/stat")
	if err != nil {
		return 0, nil, err
	}
	for _, name := range stats {
		b, err := os.ReadFile(name)
		if err != nil {
			continue // it has ended
		}
		_, after, _ := strings.Cut(string(b), ") ")
		fields := strings.Fields(after)
		if len(fields) > 1 && fields[1] == first {
			child, _ := strconv.Atoi(filepath.Base(filepath.Dir(name)))
			all = append(all, child)
		}
	}
	return pid, all, nil
}

// postgres kills the database and pauses it, under load.
func (t *trial) postgres(ctx context.Context) error {
	p, err := t.start()
	if err != nil {
		return err
	}
	defer p.stop()
	n := 0
	for _, fault := range []struct {
		name string
		do   func() error
	}{
		{"the server killed", func() error {
			pid, _, err := t.postmaster()
			if err == nil {
				err = syscall.Kill(pid, syscall.SIGKILL)
			}
			return err
		}},
		{"all of its processes killed", func() error {
			_, all, err := t.postmaster()
			for _, pid := range all {
				err = errors.Join(err, syscall.Kill(pid, syscall.SIGKILL))
			}
			return err
		}},
		{"one of its processes killed", func() error {
			_, all, err := t.postmaster()
			if err == nil {
				err = syscall.Kill(all[len(all)-1], syscall.SIGKILL)
			}
			return err
		}},
		{"paused for 10 s", func() error {
			_, all, err := t.postmaster()
			for _, pid := range all {
				err = errors.Join(err, syscall.Kill(pid, syscall.SIGSTOP))
			}
			wait(ctx, 10*time.Second)
			for _, pid := range all {
				err = errors.Join(err, syscall.Kill(pid, syscall.SIGCONT))
			}
			return err
		}},
	} {
		for range 3 {
			stop, err := p.editing(ctx)
			if err != nil {
				return err
			}
			wait(ctx, time.Second)
			if err := fault.do(); err != nil {
				return fmt.Errorf("%s: %w", fault.name, err)
			}
			n++
			took, err := p.recovers(ctx, 100+n)
			wait(ctx, time.Second)
			a, other := stop()
			if err != nil {
				return fmt.Errorf("%s: %w", fault.name, err)
			}
			if err := t.sound(p, a); err != nil {
				return fmt.Errorf("%s: %w", fault.name, err)
			}
			fmt.Printf(
				"%s: %d edits answered, none lost; other answers %v; an edit is answered again after %s\n",
				fault.name,
				a.edits,
				other,
				took.Round(time.Millisecond),
			)
			if took > 5*time.Second {
				return fmt.Errorf("%s: it took %s", fault.name, took)
			}
		}
	}
	return nil
}

// disk fills the disk up under load, and makes room again.
func (t *trial) disk(ctx context.Context) error {
	if err := os.MkdirAll(t.data(), 0o711); err != nil {
		return err
	}
	if out, err := exec.Command("mount", "-t", "tmpfs", "-o", "size=700m,mode=711", "tmpfs", t.data()).CombinedOutput(); err != nil {
		return fmt.Errorf("a small disk can't be had here: %s", out)
	}
	defer func() { _ = exec.Command("umount", "-l", t.data()).Run() }()
	p, err := t.start()
	if err != nil {
		return err
	}
	defer p.stop()
	for round := range 3 {
		stop, err := p.editing(ctx)
		if err != nil {
			return err
		}
		designer, err := p.designer()
		if err != nil {
			return err
		}
		var uploads, published atomic.Int64
		said := map[int]int{}
		wait(ctx, time.Second)
		filler := filepath.Join(t.data(), "filler")
		f, err := os.Create(filler)
		if err != nil {
			return err
		}
		for buf := make([]byte, 1<<20); err == nil; _, err = f.Write(buf) {
		}
		for buf := make([]byte, 512); ; {
			if _, err := f.Write(buf); err != nil {
				break
			}
		}
		_ = f.Close()
		ready, _, err := designer.get("/ready")
		if err != nil {
			return err
		}
		var names []string
		for i := range 20 {
			name := fmt.Sprintf("full-%d-%d.png", round, i)
			status, _, err := designer.upload(demo.SiteSlug, name, picture(5000+round*100+i))
			if err != nil {
				return err
			}
			if said[status]++; status == http.StatusOK {
				uploads.Add(1)
				names = append(names, name)
			}
			if status, _, err := designer.post(home+"/publish", nil); err == nil && status == http.StatusOK {
				published.Add(1)
			} else if err == nil {
				said[status]++
			}
		}
		if err := os.Remove(filler); err != nil {
			return err
		}
		took, err := p.recovers(ctx, 200+round)
		a, other := stop()
		if err != nil {
			return err
		}
		a.uploads = names
		if err := t.sound(p, a); err != nil {
			return err
		}
		fmt.Printf(
			"a full disk: /ready says %d; %d edits answered (others: %v), %d uploads and %d publications (answers by status: %v); none is lost or half written; with room again an edit is answered after %s\n",
			ready,
			a.edits,
			other,
			uploads.Load(),
			published.Load(),
			said,
			took.Round(time.Millisecond),
		)
	}
	return nil
}

// clock has the database's clock jump by days and hours under load. The program's own clock
// can't be moved alone.
func (t *trial) clock(ctx context.Context) error {
	const library = "/usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1"
	if _, err := os.Stat(library); err != nil {
		return errors.New("install Debian's package faketime first")
	}
	offset := filepath.Join(t.dir, "offset")
	set := func(by string) error { return os.WriteFile(offset, []byte(by+"\n"), 0o644) }
	if err := set("+0"); err != nil {
		return err
	}
	t.settings = append(
		t.settings,
		"LD_PRELOAD="+library,
		"FAKETIME_TIMESTAMP_FILE="+offset,
		"FAKETIME_NO_CACHE=1",
		"DONT_FAKE_MONOTONIC=1",
	)
	p, err := t.start()
	if err != nil {
		return err
	}
	defer p.stop()
	for i, by := range []string{"+1h", "-1h", "+3d", "-3d", "+0"} {
		stop, err := p.editing(ctx)
		if err != nil {
			return fmt.Errorf("before %s: %w", by, err)
		}
		wait(ctx, time.Second)
		if err := set(by); err != nil {
			return err
		}
		took, err := p.recovers(ctx, 300+i)
		wait(ctx, time.Second)
		a, other := stop()
		if err != nil {
			return fmt.Errorf("%s: %w", by, err)
		}
		if err := t.sound(p, a); err != nil {
			return fmt.Errorf("%s: %w", by, err)
		}
		fmt.Printf(
			"the database's clock at %s: %d edits answered, none lost; other answers %v; an edit after %s\n",
			by,
			a.edits,
			other,
			took.Round(time.Millisecond),
		)
	}
	return nil
}
