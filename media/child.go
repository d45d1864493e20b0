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
	"os/exec"
	"runtime"
	"runtime/debug"
	"syscall"
	"time"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/metrics"
)

// Whatever comes from outside is opened in a process of its own: this same program, started
// anew with a task in its environment, the file as its standard input, and limits of memory
// and time. What it makes comes back on its standard output. A file that takes more than its
// share ends that process and nothing else.

// childTask is the variable of the environment that makes a process such a one.
const childTask = "OPENPLOT_PICTURE_TASK"

func init() {
	if text := os.Getenv(childTask); text != "" {
		os.Exit(child(text))
	}
}

// task is what such a process is to do.
type task struct {
	Do      string // one of those below
	Wants   []Want `json:",omitempty"` // for copying
	Change  Change // for changing
	Memory  uint64 // bytes
	Seconds uint64 // of processor time
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
	Problem *doc.Problem `json:",omitempty"`
	Picture *Picture     `json:",omitempty"`
	Wants   []Want       `json:",omitempty"` // of a picture that was opened
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
	openMemory  = 3 << 29 // 1.5 GB
	openSeconds = 20
	openWall    = 45 * time.Second
	copySeconds = 360
	copyWall    = 9 * time.Minute
)

// hold holds this process to its limits (setrlimit(2)).
func (t task) hold() error {
	for resource, limit := range map[int]uint64{syscall.RLIMIT_DATA: t.Memory, syscall.RLIMIT_CPU: t.Seconds, syscall.RLIMIT_CORE: 0, syscall.RLIMIT_FSIZE: 0} {
		if err := syscall.Setrlimit(resource, &syscall.Rlimit{Cur: limit, Max: limit}); err != nil {
			return err
		}
	}
	debug.SetMemoryLimit(int64(t.Memory / 2))
	return nil
}

// child does a task and gives the process's exit status.
func child(text string) int {
	var t task
	err := json.Unmarshal([]byte(text), &t)
	if err == nil {
		err = t.hold()
	}
	var r result
	var copies [][]byte
	if err == nil {
		r, copies, err = t.do(os.Stdin)
	}
	if problem := (*doc.Problem)(nil); errors.As(err, &problem) {
		r, copies, err = result{Problem: problem}, nil, nil
	}
	if err == nil {
		err = json.NewEncoder(os.Stdout).Encode(r)
	}
	for _, b := range copies {
		if err == nil {
			_, err = os.Stdout.Write(b)
		}
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	return 0
}

// whole reads a file without making more room than it takes.
func whole(f *os.File) ([]byte, error) {
	fi, err := f.Stat()
	if err != nil {
		return nil, err
	}
	data := make([]byte, fi.Size())
	_, err = io.ReadFull(f, data)
	return data, err
}

func (t task) do(in *os.File) (r result, copies [][]byte, err error) {
	data, err := whole(in)
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
var errTooMuch = doc.Problemf(field, "takes too much work to open: save it again as a plain PNG or JPEG, smaller if it can be, and upload that")

// run does a task on a file in a process of its own, and gives each copy that it makes to
// keep. It tells how much processor time that took. Errors are *doc.Problem when they are
// about the file.
func run(ctx context.Context, t task, wall time.Duration, name string, keep func(Want, io.Reader) error) (r result, took time.Duration, err error) {
	start, end := time.Now(), "done"
	defer func() { metrics.Since(metrics.Pictures.WithLabelValues(t.Do, end), start) }()
	text, err := json.Marshal(t)
	if err != nil {
		return r, 0, fmt.Errorf("writing a task: %w", err)
	}
	program, err := os.Executable()
	if err != nil {
		return r, 0, fmt.Errorf("finding this program: %w", err)
	}
	in, err := os.Open(name)
	if err != nil {
		return r, 0, fmt.Errorf("opening an upload: %w", err)
	}
	defer in.Close()
	ctx, cancel := context.WithTimeout(ctx, wall)
	defer cancel()
	cmd := exec.CommandContext(ctx, program)
	cmd.Env = []string{childTask + "=" + string(text), "GOMAXPROCS=1", "HOME=/nonexistent"} // nothing of ours
	cmd.Dir, cmd.Stdin = "/", in
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGKILL}
	var complaint bytes.Buffer
	cmd.Stderr = &capped{to: &complaint}
	out, err := cmd.StdoutPipe()
	if err != nil {
		return r, 0, fmt.Errorf("starting a process: %w", err)
	}
	runtime.LockOSThread() // Pdeathsig is sent when the thread that started the child ends
	defer runtime.UnlockOSThread()
	if err := cmd.Start(); err != nil {
		return r, 0, fmt.Errorf("starting a process: %w", err)
	}
	kept := receive(out, &r, keep)
	if kept != nil {
		_ = cmd.Process.Kill() // it may be amid writing
	}
	err = cmd.Wait()
	took = cmd.ProcessState.UserTime() + cmd.ProcessState.SystemTime()
	var broken *brokenAnswer
	switch {
	case kept != nil && !errors.As(kept, &broken):
		end = "failed"
		return r, took, kept
	case err != nil || kept != nil:
		if end = "too much"; ctx.Err() != nil && !errors.Is(ctx.Err(), context.DeadlineExceeded) {
			return r, took, ctx.Err()
		}
		return r, took, errors.Join(errTooMuch, errors.New(complaint.String()))
	case r.Problem != nil:
		end = "problem"
		return r, took, r.Problem
	}
	return r, took, nil
}

// brokenAnswer means that a process ended before it answered whole.
type brokenAnswer struct{ error }

// maxAnswer bounds what a process may send: the largest video isn't sent, a PNG that was
// cropped may be.
const maxAnswer = 400 << 20

// receive reads what a process answers.
func receive(out io.Reader, r *result, keep func(Want, io.Reader) error) error {
	b := bufio.NewReader(io.LimitReader(out, maxAnswer))
	line, err := b.ReadBytes('\n')
	if err == nil {
		err = json.Unmarshal(line, r)
	}
	if err != nil {
		return &brokenAnswer{err}
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
			return &brokenAnswer{io.ErrUnexpectedEOF}
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

// capped keeps the beginning of what is written.
type capped struct{ to *bytes.Buffer }

func (c *capped) Write(p []byte) (int, error) {
	c.to.Write(p[:min(len(p), max(2000-c.to.Len(), 0))])
	return len(p), nil
}
