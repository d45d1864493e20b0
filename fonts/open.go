package fonts

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

	"golang.org/x/sync/semaphore"

	"openplot/core/doc"
	"openplot/sandbox"
)

// Font files are opened in a process of their own (package sandbox), whatever way they come: what
// reads them isn't ours, and a small file can unpack to much.

const ownTask = "font"

func init() { sandbox.Register(ownTask, openOwn) }

// ownLimits are what opening a font may take: the largest that is taken needs a third of it.
var ownLimits = sandbox.Limits{
	Memory: 600 << 20,
	CPU:    10 * time.Second,
	Wall:   20 * time.Second,
	Answer: maxFontSize + 1<<20,
}

// opening bounds how many are opened at a time.
var opening = semaphore.NewWeighted(2)

// openOwn checks a font in such a process, and answers with what it is and its SFNT.
func openOwn(in *os.File, _ []byte, out io.Writer) error {
	file, err := sandbox.Whole(in)
	if err != nil {
		return err
	}
	o, err := readOwn(file)
	if err != nil {
		return err
	}
	sfnt := o.SFNT
	o.SFNT = nil
	if err := json.NewEncoder(out).Encode(o); err != nil {
		return err
	}
	_, err = out.Write(sfnt)
	return err
}

// ReadOwn checks a WOFF2, WOFF, TrueType or OpenType file. Errors are *doc.Problem when they are
// about the file.
func ReadOwn(ctx context.Context, file []byte) (*Own, error) {
	if len(file) > MaxOwnBytes {
		return readOwn(file) // which says so, and opens nothing
	}
	if err := opening.Acquire(ctx, 1); err != nil {
		return nil, fmt.Errorf("waiting to open a font: %w", err)
	}
	defer opening.Release(1)
	o := new(Own)
	_, err := sandbox.Run(ctx, ownTask, nil, ownLimits, bytes.NewReader(file), func(out io.Reader) error {
		b := bufio.NewReader(out)
		line, err := b.ReadBytes('\n')
		if err == nil {
			err = json.Unmarshal(line, o)
		}
		if err == nil {
			o.SFNT, err = io.ReadAll(b)
		}
		if err != nil {
			return &sandbox.Broken{Err: err}
		}
		return nil
	})
	if errors.Is(err, sandbox.ErrTooMuch) {
		return nil, doc.Problemf(
			ownField,
			"takes too much work to open: export it again as WOFF2, with fewer scripts or weights, and upload that",
		)
	}
	if err != nil {
		return nil, err
	}
	return o, nil
}
