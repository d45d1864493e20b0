package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"mime/multipart"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"time"

	"openplot/demo"
)

// amid kills the program amid each of what takes long, n times each: a site that is begun from a
// file, one that is a copy, a plan that is carried out, an upload of 50 MB. What was answered is
// there whole, and of the rest nothing is, or all of it.
func (t company) amid(ctx context.Context, n int) error {
	p, err := t.start()
	if err != nil {
		return err
	}
	designer, err := p.designer()
	if err != nil {
		return err
	}
	status, file, err := designer.get("/sites/" + demo.SiteSlug + "/file")
	if err != nil || status != http.StatusOK {
		return fmt.Errorf("saving the site: %d, %w", status, err)
	}
	for _, what := range []struct {
		name string
		try  func(p *program, round int, file string) (func(p *program) (string, error), error)
	}{{"imports", t.anImport}, {"copies", t.aCopy}, {"plans", t.aPlan}, {"uploads", t.anUpload}} {
		ends := map[string]int{}
		for round := range n {
			if ctx.Err() != nil {
				return ctx.Err()
			}
			look, err := what.try(p, round, file)
			p.kill()
			if err != nil {
				return fmt.Errorf("%s, round %d: %w", what.name, round, err)
			}
			if p, err = t.start(); err != nil {
				return fmt.Errorf("%s, round %d: starting again: %w", what.name, round, err)
			}
			end, err := look(p)
			if err == nil {
				err = t.doctor()
			}
			if err != nil {
				return fmt.Errorf("%s, round %d: %w", what.name, round, err)
			}
			ends[end]++
		}
		fmt.Printf("%d × kill -9 amid %s: %v\n", n, what.name, ends)
	}
	p.stop()
	return nil
}

// sending sends something and gives whether it was answered within a time at random.
func sending(most time.Duration, send func() (int, error)) (answered bool) {
	done := make(chan bool, 1)
	go func() {
		status, err := send()
		done <- err == nil && status == http.StatusSeeOther || err == nil && status == http.StatusOK
	}()
	select {
	case answered = <-done:
	case <-time.After(time.Duration(rand.Int64N(int64(most)))):
	}
	return answered
}

var pageRows = regexp.MustCompile(`/pages/[a-z.-]+/bench`)

// whole looks whether a new site is there with all its pages, or not at all.
func whole(slug string, answered bool) func(p *program) (string, error) {
	return func(p *program) (string, error) {
		q, err := p.designer()
		if err != nil {
			return "", err
		}
		status, body, err := q.get("/sites/" + slug)
		if err != nil {
			return "", err
		}
		pages := map[string]bool{}
		for _, m := range pageRows.FindAllString(body, -1) {
			pages[m] = true
		}
		switch {
		case status == http.StatusOK && len(pages) == len(demo.Pages(nil)):
			return "whole", nil
		case status == http.StatusNotFound && !answered:
			_, list, err := q.get("/")
			if strings.Contains(list, "/sites/"+slug+`"`) {
				return "", errors.Join(err, fmt.Errorf("%s is listed and isn't there", slug))
			}
			return "not there", err
		}
		return "", fmt.Errorf(
			"%s: %d with %d of %d pages, answered: %v",
			slug,
			status,
			len(pages),
			len(demo.Pages(nil)),
			answered,
		)
	}
}

func (t company) anImport(p *program, round int, file string) (func(p *program) (string, error), error) {
	q, err := p.designer()
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	_ = w.WriteField("name", fmt.Sprint("Import ", round)) // into memory
	f, err := w.CreateFormFile("file", "skerry.site.zip")
	if err != nil {
		return nil, err
	}
	_, _ = f.Write([]byte(file))
	_ = w.Close()
	answered := sending(12*time.Second, func() (int, error) {
		status, _, err := q.ask(http.MethodPost, "/new/file", w.FormDataContentType(), &b)
		return status, err
	})
	return whole(fmt.Sprint("import-", round), answered), nil
}

func (t company) aCopy(p *program, round int, _ string) (func(p *program) (string, error), error) {
	q, err := p.designer()
	if err != nil {
		return nil, err
	}
	answered := sending(900*time.Millisecond, func() (int, error) {
		status, _, err := q.post(
			"/new",
			url.Values{"name": {fmt.Sprint("Copy ", round)}, "from": {"copy:" + demo.SiteSlug}},
		)
		return status, err
	})
	return whole(fmt.Sprint("copy-", round), answered), nil
}

// takenUp is how long a plan that was interrupted may wait for the next start.
const takenUp = 15 * time.Second

func (t company) aPlan(p *program, round int, _ string) (func(p *program) (string, error), error) {
	q, err := p.designer()
	if err != nil {
		return nil, err
	}
	now, err := q.bench(home)
	if err != nil {
		return nil, err
	}
	number := 10_000 + round
	status, _, err := q.edit(
		home,
		map[string]any{"op": "page.set", "setting": "title", "value": fmt.Sprint("Title ", number), "base": now.Seq},
	)
	if err != nil || status != http.StatusOK {
		return nil, fmt.Errorf("an edit: %d, %w", status, err)
	}
	_, screen, err := q.get("/sites/" + demo.SiteSlug + "/publish")
	if err != nil {
		return nil, err
	}
	m := regexp.MustCompile(`name="id" value="(p[a-z0-9]+)"`).FindStringSubmatch(screen)
	if m == nil {
		return nil, errors.New("there is nothing to publish")
	}
	at := time.Now().In(demoZone()).Format("2006-01-02T15:04")
	status, body, err := q.post("/sites/"+demo.SiteSlug+"/publish/plan", url.Values{"id": {m[1]}, "at": {at}})
	if err != nil || status != http.StatusSeeOther {
		return nil, fmt.Errorf("planning: %d %.300s, %w", status, body, err)
	}
	time.Sleep(time.Duration(rand.Int64N(int64(900 * time.Millisecond))))
	return func(p *program) (string, error) {
		end := "done after the start"
		for until := time.Now().Add(takenUp); ; time.Sleep(100 * time.Millisecond) {
			_, page, err := p.published(demo.SiteSlug, "/")
			if err == nil && strings.Contains(page, fmt.Sprintf("<title>Title %d</title>", number)) {
				return end, nil
			}
			if time.Now().After(until) {
				return "", fmt.Errorf("the plan isn't carried out %v after the start: %.200s, %v", takenUp, page, err)
			}
		}
	}, nil
}

func demoZone() *time.Location {
	if z, err := time.LoadLocation(demo.Site().TimeZone); err == nil {
		return z
	}
	return time.UTC
}

func (t company) anUpload(p *program, round int, _ string) (func(p *program) (string, error), error) {
	q, err := p.designer()
	if err != nil {
		return nil, err
	}
	data := make([]byte, 50<<20) // a recording: WAVE, 44.1 kHz, 16 bits, one channel
	copy(
		data,
		"RIFF\xf8\xff\x1f\x03WAVEfmt \x10\x00\x00\x00\x01\x00\x01\x00\x44\xac\x00\x00\x88\x58\x01\x00\x02\x00\x10\x00data\xd4\xff\x1f\x03",
	)
	for i := 64; i < len(data); i += 4096 {
		data[i] = byte(rand.Int())
	}
	name := fmt.Sprintf("large-%d.wav", round)
	var refused string
	answered := sending(1500*time.Millisecond, func() (int, error) {
		status, body, err := q.upload(demo.SiteSlug, name, data)
		if status == http.StatusUnprocessableEntity {
			refused = body
		}
		return status, err
	})
	if refused != "" {
		return nil, fmt.Errorf("it is refused: %.300s", refused)
	}
	return func(p *program) (string, error) {
		q, err := p.designer()
		if err != nil {
			return "", err
		}
		_, library, err := q.get("/sites/" + demo.SiteSlug + "/library")
		if there := strings.Contains(library, `value="`+name+`"`); err != nil || there || !answered {
			return map[bool]string{true: "there", false: "not there"}[there], err
		}
		return "", fmt.Errorf("%s was answered and is lost", name)
	}, nil
}

// beside has people edit, publish, set and move pages of one site for so many minutes, and wants
// every request answered.
func (t company) beside(ctx context.Context, minutes float64) error {
	p, err := t.start()
	if err != nil {
		return err
	}
	defer p.stop()
	ctx, cancel := context.WithTimeout(ctx, time.Duration(minutes*float64(time.Minute)))
	defer cancel()
	q, err := p.designer()
	if err != nil {
		return err
	}
	_, list, err := q.get("/sites/" + demo.SiteSlug)
	if err != nil {
		return err
	}
	var ids []string
	for _, m := range regexp.MustCompile(`name="id" value="([a-z0-9]+)"`).FindAllStringSubmatch(list, -1) {
		ids = append(ids, m[1])
	}
	if len(ids) < 8 {
		return fmt.Errorf("%d pages are listed", len(ids))
	}
	counts := make(chan outcome)
	busy := 0
	run := func(what string, do func(k int) (int, error)) {
		busy++
		go func() {
			defer func() { counts <- outcome{} }()
			for k := 0; ctx.Err() == nil; k++ {
				status, err := do(k)
				counts <- outcome{what, status, err}
			}
		}()
	}
	for _, page := range []string{"home", "fares", "crew", "islands"} {
		at := "/sites/" + demo.SiteSlug + "/pages/" + page
		run("edits", func(k int) (int, error) {
			now, err := q.bench(at)
			if err != nil {
				return 0, err
			}
			status, _, err := q.edit(
				at,
				map[string]any{
					"op":    "rename",
					"node":  now.Order[k%len(now.Order)],
					"value": fmt.Sprint("Name ", k),
					"base":  now.Seq,
				},
			)
			return status, err
		})
	}
	for i := range 2 {
		run("publications", func(k int) (int, error) {
			status, _, err := q.post("/sites/"+demo.SiteSlug+"/publish", url.Values{"id": ids[i : i+4+k%3]})
			return status, err
		})
	}
	run("settings", func(k int) (int, error) {
		status, _, err := q.post("/sites/"+demo.SiteSlug+"/pages/fares/settings", url.Values{
			"name": {
				"Fares",
			}, "title": {fmt.Sprint("Fares ", k)}, "segment": {"fares"}, "in-menu": {"1"}, "base": {"0"},
		})
		return status, err
	})
	run("menus", func(k int) (int, error) {
		status, _, err := q.post(
			"/sites/"+demo.SiteSlug+"/pages/several",
			url.Values{"id": ids[2:6], "act": {[]string{"show", "hide"}[k%2]}},
		)
		return status, err
	})
	answers, failed := map[string]map[int]int{}, 0
	for busy > 0 {
		o := <-counts
		if o.what == "" {
			busy--
			continue
		}
		if answers[o.what] == nil {
			answers[o.what] = map[int]int{}
		}
		answers[o.what][o.status]++
		if o.err != nil || o.status >= 500 {
			failed++
			fmt.Printf("%s: %d, %v\n", o.what, o.status, o.err)
		}
	}
	fmt.Printf(
		"%.1f minutes of editing beside publishing, answers by status: %v; %d failed\n",
		minutes,
		answers,
		failed,
	)
	if failed > 0 {
		return fmt.Errorf("%d requests failed", failed)
	}
	return t.doctor()
}

type outcome struct {
	what   string
	status int
	err    error
}

// flood has programs from thousands of networks fill in a form for so many minutes, and a person
// every second: all of the person's are to be kept, and what was there before.
func (t company) flood(ctx context.Context, minutes float64) error {
	p, err := t.start()
	if err != nil {
		return err
	}
	defer p.stop()
	_, page, err := p.published(demo.SiteSlug, "/ask-for-a-berth/")
	if err != nil {
		return err
	}
	m := regexp.MustCompile(`action="(/_forms/[^"]+)"`).FindStringSubmatch(page)
	if m == nil {
		return errors.New("the demo has no form at /berth/")
	}
	field := regexp.MustCompile(`<(?:input|textarea)[^>]* name="([^"_]+)"`).FindStringSubmatch(page)
	if field == nil {
		return errors.New("the form has no field")
	}
	send := func(from string, form url.Values) int {
		r, err := http.NewRequest(http.MethodPost, "http://127.0.0.1:"+p.pages+m[1], strings.NewReader(form.Encode()))
		if err != nil {
			return 0
		}
		r.Host = demo.SiteSlug + ".localhost:" + p.pages
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", from)
		res, err := http.DefaultClient.Do(r)
		if err != nil {
			return 0
		}
		res.Body.Close()
		return res.StatusCode
	}
	person := func(i int) int {
		return send(
			fmt.Sprintf("10.77.%d.%d", i>>8, i&255),
			url.Values{field[1]: {fmt.Sprint("Person ", i)}, "_homepage": {""}, "_took": {"9000"}},
		)
	}
	if status := person(0); status != http.StatusOK {
		return fmt.Errorf("the first person: %d", status)
	}
	ctx, cancel := context.WithTimeout(ctx, time.Duration(minutes*float64(time.Minute)))
	defer cancel()
	sent := make(chan int)
	for w := range 4 {
		go func() {
			n := 0
			for ; ctx.Err() == nil; n++ {
				send(
					fmt.Sprintf("2001:db8:%x:%x::1", w, n%60_000),
					url.Values{field[1]: {"flood"}, fmt.Sprint("Invented ", n): {"x"}},
				)
			}
			sent <- n
		}()
	}
	people, refused := 1, 0
	for ctx.Err() == nil {
		wait(ctx, time.Second)
		if status := person(people); status != http.StatusOK {
			refused++
		}
		people++
	}
	programs := 0
	for range 4 {
		programs += <-sent
	}
	q, err := p.designer()
	if err != nil {
		return err
	}
	_, file, err := q.get("/sites/" + demo.SiteSlug + "/entries/file")
	if err != nil {
		return err
	}
	kept := strings.Count(file, "Person ")
	fmt.Printf(
		"%d entries of programs from as many networks in %.1f minutes beside %d of people: %d of people's kept, %d refused; the file has the invented fields: %v\n",
		programs,
		minutes,
		people,
		kept,
		refused,
		strings.Contains(file, "Invented"),
	)
	if refused > 0 || kept != people || strings.Contains(file, "Invented") || !strings.Contains(file, "Person 0") {
		return errors.New("people's entries are lost")
	}
	return nil
}
