package media

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"time"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/metrics"
	"openplot/sandbox"
)

// Pictures and whatever else is uploaded are opened in a process of their own (package sandbox).

const picturesTask = "pictures"

func init() { sandbox.Register(picturesTask, child) }

// task is what such a process is to do.
type task struct {
	Do     string // one of those below
	Wants  []Want `json:",omitempty"` // for copying
	Change Change // for changing
	// What it may take, which is for whoever starts it.
	Memory uint64        `json:"-"` // bytes
	CPU    time.Duration `json:"-"`
}

// The tasks.
const (
	doOpen    = "open"    // check, and make the first copy
	doCopy    = "copy"    // make copies
	doChange  = "change"  // turn and crop
	doColours = "colours" // of what is it made
)

// result is what such a process answers with, before the bytes of its copies.
type result struct {
	Picture *Picture `json:",omitempty"`
	Wants   []Want   `json:",omitempty"` // of a picture that was opened
	// Same says that the only copy is the file itself, which isn't sent back.
	Same    bool             `json:",omitempty"`
	Copies  []header         `json:",omitempty"`
	Colours []colour.Cluster `json:",omitempty"`
}

// header tells about a copy whose bytes follow.
type header struct {
	Want
	Size int
}

// Limits of a process that opens a file. The largest pictures that are taken need about half
// of the memory and a third of the time (docs/performance.md).
const (
	openMemory = 3 << 29 // 1.5 GB
	openCPU    = 20 * time.Second
	openWall   = 45 * time.Second
	copyCPU    = 6 * time.Minute
	copyWall   = 9 * time.Minute
)

// child does a task in such a process.
func child(in *os.File, about []byte, out io.Writer) error {
	var t task
	if err := json.Unmarshal(about, &t); err != nil {
		return err
	}
	r, copies, err := t.do(in)
	if err != nil {
		return err
	}
	if err := json.NewEncoder(out).Encode(r); err != nil {
		return err
	}
	for _, b := range copies {
		if _, err := out.Write(b); err != nil {
			return err
		}
	}
	return nil
}

func (t task) do(in *os.File) (r result, copies [][]byte, err error) {
	data, err := sandbox.Whole(in)
	if err != nil {
		return r, nil, fmt.Errorf("reading the file: %w", err)
	}
	add := func(c Copy) {
		r.Copies = append(r.Copies, header{Want{c.Width, c.Ext}, len(c.Data)})
		copies = append(copies, c.Data)
	}
	switch t.Do {
	case doChange:
		b, err := t.Change.apply(data)
		if err == nil {
			add(Copy{Ext: ".png", Data: b})
		}
		return r, copies, err
	case doColours:
		img, err := decode(sniff(data), data)
		if err != nil {
			return r, nil, fmt.Errorf("reading a picture: %w", err)
		}
		r.Colours = colour.Clusters(img, 6)
		return r, nil, nil
	}
	if r.Picture, err = Open(data); err != nil {
		return r, nil, err
	}
	if r.Wants = r.Picture.Wants(); len(r.Wants) == 0 {
		if c := r.Picture.Copies[0]; len(c.Data) == len(data) && bytes.Equal(c.Data, data) {
			r.Same = true
			r.Copies = []header{{Want{c.Width, c.Ext}, len(data)}}
		} else {
			add(c)
		}
		return r, copies, nil
	}
	wants := t.Wants
	if t.Do == doOpen {
		wants = r.Wants[:1]
	}
	for _, w := range wants {
		c, err := r.Picture.Make(w)
		if err != nil {
			return r, nil, err
		}
		add(c)
	}
	return r, copies, nil
}

// errTooMuch means that a file took more than its share.
var errTooMuch = doc.Problemf(
	field,
	"takes too much work to open: save it again as a plain PNG or JPEG, smaller if it can be, and upload that",
)

// run does a task on a file in a process of its own, and gives each copy that it makes to
// keep. It tells how much processor time that took. Errors are *doc.Problem when they are
// about the file.
func run(
	ctx context.Context,
	t task,
	wall time.Duration,
	name string,
	keep func(Want, io.Reader) error,
) (r result, took time.Duration, err error) {
	start, end := time.Now(), "done"
	defer func() { metrics.Since(metrics.Pictures.WithLabelValues(t.Do, end), start) }()
	in, err := os.Open(name)
	if err != nil {
		return r, 0, fmt.Errorf("opening an upload: %w", err)
	}
	defer in.Close()
	l := sandbox.Limits{Memory: t.Memory, CPU: t.CPU, Wall: wall, Answer: maxAnswer}
	took, err = sandbox.Run(ctx, picturesTask, t, l, in, func(out io.Reader) error { return receive(out, &r, keep) })
	var problem *doc.Problem
	switch {
	case errors.Is(err, sandbox.ErrTooMuch):
		end = "too much"
		return r, took, errors.Join(errTooMuch, err)
	case errors.As(err, &problem):
		end = "problem"
	case err != nil:
		end = "failed"
	}
	return r, took, err
}

// maxAnswer bounds what a process may send: the largest video isn't sent, a PNG that was
// cropped may be.
const maxAnswer = 400 << 20

// receive reads what a process answers.
func receive(out io.Reader, r *result, keep func(Want, io.Reader) error) error {
	b := bufio.NewReader(out)
	line, err := b.ReadBytes('\n')
	if err == nil {
		err = json.Unmarshal(line, r)
	}
	if err != nil {
		return &sandbox.Broken{Err: err}
	}
	if r.Same || keep == nil {
		return nil
	}
	for _, h := range r.Copies {
		part := io.LimitReader(b, int64(h.Size))
		whole := &counted{Reader: part}
		if err := keep(h.Want, whole); err != nil {
			return err
		}
		if whole.n != h.Size {
			return &sandbox.Broken{Err: io.ErrUnexpectedEOF}
		}
	}
	return nil
}

// counted counts what is read.
type counted struct {
	io.Reader
	n int
}

func (c *counted) Read(p []byte) (int, error) {
	n, err := c.Reader.Read(p)
	c.n += n
	return n, err
}
