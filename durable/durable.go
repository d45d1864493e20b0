// Package durable writes files so that they are whole or not there, and stay after a power
// failure: written under another name, synchronised, renamed, and the folder synchronised.
//
// What is kept is nobody else's to read. Start at Write.
package durable

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"
)

// Permissions of what is written.
const (
	filePermissions   = 0o600
	folderPermissions = 0o700
)

// Write replaces a file in one step, and makes the folders that it lacks. A file that is the
// same already stays, and is as young as if it were new.
func Write(name string, b []byte) error {
	if fi, err := os.Stat(name); err == nil && fi.Size() == int64(len(b)) {
		if old, err := os.ReadFile(name); err == nil && bytes.Equal(old, b) {
			return Touch(name)
		}
	}
	_, err := Copy(name, bytes.NewReader(b))
	return err
}

// Copy writes what is read to a file, in one step, and gives the number of bytes.
func Copy(name string, from io.Reader) (n int64, err error) {
	folder := filepath.Dir(name)
	if err := os.MkdirAll(folder, folderPermissions); err != nil {
		return 0, fmt.Errorf("making a folder: %w", err)
	}
	f, err := os.CreateTemp(folder, TemporaryPrefix+"*")
	if err != nil {
		return 0, fmt.Errorf("writing %s: %w", filepath.Base(name), err)
	}
	n, err = io.Copy(f, from)
	err = errors.Join(err, f.Chmod(filePermissions), f.Sync(), f.Close())
	if err == nil {
		err = os.Rename(f.Name(), name)
	}
	if err != nil {
		_ = os.Remove(f.Name()) // what is left of a failed write
		return n, fmt.Errorf("writing %s: %w", filepath.Base(name), err)
	}
	return n, SyncFolder(folder)
}

// Touch makes a file as young as if it were new, so that it isn't taken for one that nobody
// needs any more.
func Touch(name string) error {
	now := time.Now()
	if err := os.Chtimes(name, now, now); err != nil {
		return fmt.Errorf("keeping %s young: %w", filepath.Base(name), err)
	}
	return nil
}

// TemporaryPrefix begins the names of files that are still being written, or were when the
// program was killed.
const TemporaryPrefix = ".new-"

// SyncFolder sees to it that a folder's entries are on the disk.
func SyncFolder(name string) error {
	d, err := os.Open(name)
	if err != nil {
		return fmt.Errorf("opening a folder: %w", err)
	}
	if err := errors.Join(d.Sync(), d.Close()); err != nil {
		return fmt.Errorf("synchronising a folder: %w", err)
	}
	return nil
}
