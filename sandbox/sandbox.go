// Package sandbox opens what comes from outside in a process of its own: this same program,
// started anew with a task, the file as its standard input, no environment, and limits of memory
// and time. A file that takes more than its share ends that process and nothing else
// (docs/decisions/0013).
//
// In come a task by name, what there is to say about it and a file; out comes what the task
// writes. Tasks are registered by the packages that have them, as the program starts. Start at
// Register and Run.
package sandbox

import (
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

	"openplot/core/doc"
)

// variable is that of the environment which makes a process such a one.
const variable = "OPENPLOT_TASK"

// Limits are what a task may take.
type Limits struct {
	Memory uint64        // bytes
	CPU    time.Duration // of a processor, in whole seconds
	Wall   time.Duration
	Answer int64 // bytes that are read of what it writes
}

type task struct {
	Name    string
	About   json.RawMessage
	Memory  uint64
	Seconds uint64
}

// ErrTooMuch means that a file took more than its share, or broke what opened it.
var ErrTooMuch = errors.New("the file takes too much to open")

// exitProblem is the status of a process that ended with a problem of the file, which it wrote
// to its standard error.
const exitProblem = 3

// Register says how tasks of a name are done. It is called from an init function, and doesn't
// return in a process that is there for such a task. A *doc.Problem that f gives is what Run
// returns; f writes nothing before it.
func Register(name string, f func(in *os.File, about []byte, out io.Writer) error) {
	text := os.Getenv(variable)
	if text == "" {
		return
	}
	var t task
	err := json.Unmarshal([]byte(text), &t)
	if err == nil && t.Name != name {
		return // it is registered elsewhere
	}
	if err == nil {
		err = t.hold()
	}
	if err == nil {
		err = f(os.Stdin, t.About, os.Stdout)
	}
	var problem *doc.Problem
	switch {
	case err == nil:
		os.Exit(0)
	case errors.As(err, &problem):
		_ = json.NewEncoder(os.Stderr).Encode(problem) // without it, it took too much
		os.Exit(exitProblem)
	}
	fmt.Fprintln(os.Stderr, err)
	os.Exit(1)
}

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

// Whole reads a file, without making more room than it takes where its size is known.
func Whole(f *os.File) ([]byte, error) {
	fi, err := f.Stat()
	if err != nil {
		return nil, err
	}
	if !fi.Mode().IsRegular() {
		return io.ReadAll(f)
	}
	data := make([]byte, fi.Size())
	_, err = io.ReadFull(f, data)
	return data, err
}

// Run does a task on a file, or on what is read, in a process of its own, and has answer read
// what it writes. It tells how much processor time that took. Errors are *doc.Problem when they
// are about the file, ErrTooMuch, or answer's.
func Run(
	ctx context.Context,
	name string,
	about any,
	l Limits,
	in io.Reader,
	answer func(io.Reader) error,
) (took time.Duration, err error) {
	t := task{Name: name, Memory: l.Memory, Seconds: uint64(l.CPU / time.Second)}
	if t.About, err = json.Marshal(about); err != nil {
		return 0, fmt.Errorf("writing a task: %w", err)
	}
	text, err := json.Marshal(t)
	if err != nil {
		return 0, fmt.Errorf("writing a task: %w", err)
	}
	program, err := os.Executable()
	if err != nil {
		return 0, fmt.Errorf("finding this program: %w", err)
	}
	ctx, cancel := context.WithTimeout(ctx, l.Wall)
	defer cancel()
	cmd := exec.CommandContext(ctx, program)
	cmd.Env = []string{variable + "=" + string(text), "GOMAXPROCS=1", "HOME=/nonexistent"} // nothing of ours
	cmd.Dir, cmd.Stdin, cmd.WaitDelay = "/", in, time.Second
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGKILL}
	var complaint bytes.Buffer
	cmd.Stderr = &capped{to: &complaint}
	out, err := cmd.StdoutPipe()
	if err != nil {
		return 0, fmt.Errorf("starting a process: %w", err)
	}
	runtime.LockOSThread() // Pdeathsig is sent when the thread that started the child ends
	defer runtime.UnlockOSThread()
	if err := cmd.Start(); err != nil {
		return 0, fmt.Errorf("starting a process: %w", err)
	}
	read := &counted{Reader: io.LimitReader(out, l.Answer)}
	answered := answer(read)
	if answered != nil || read.n == l.Answer {
		_ = cmd.Process.Kill() // it may be amid writing
	}
	waited := cmd.Wait()
	took = cmd.ProcessState.UserTime() + cmd.ProcessState.SystemTime()
	var broken *Broken
	switch {
	case answered != nil && !errors.As(answered, &broken):
		return took, answered
	case cmd.ProcessState.ExitCode() == exitProblem:
		problem := new(doc.Problem)
		if err := json.Unmarshal(complaint.Bytes(), problem); err != nil {
			return took, errors.Join(ErrTooMuch, err)
		}
		return took, problem
	case waited != nil || answered != nil:
		if ctx.Err() != nil && !errors.Is(ctx.Err(), context.DeadlineExceeded) {
			return took, ctx.Err()
		}
		return took, errors.Join(ErrTooMuch, errors.New(complaint.String()))
	}
	return took, nil
}

// Broken is what answer gives where a process ended before it had answered whole.
type Broken struct{ Err error }

func (b *Broken) Error() string { return b.Err.Error() }

// Unwrap gives what was met.
func (b *Broken) Unwrap() error { return b.Err }

// counted counts what is read.
type counted struct {
	io.Reader
	n int64
}

func (c *counted) Read(p []byte) (int, error) {
	n, err := c.Reader.Read(p)
	c.n += int64(n)
	return n, err
}

// capped keeps the beginning of what is written.
type capped struct{ to *bytes.Buffer }

func (c *capped) Write(p []byte) (int, error) {
	c.to.Write(p[:min(len(p), max(4000-c.to.Len(), 0))])
	return len(p), nil
}
