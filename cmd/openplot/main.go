// Command openplot serves Open Plot, and does what whoever runs it needs.
//
//	openplot serve                              serve the application and what is published
//	openplot user list
//	openplot user add EMAIL NAME                make an account; the password is asked for
//	openplot user password EMAIL                give it another password
//	openplot user disable|enable EMAIL
//	openplot user operator EMAIL yes|no         let it see what failed, or no longer
//	openplot site add ADDRESS NAME OWNER        make a site; OWNER is an email
//	openplot member add SITE EMAIL ROLE         owner, designer or writer
//	openplot member remove SITE EMAIL
//	openplot backup FILE                        everything in one archive, while it runs or not
//	openplot restore FILE                       into an empty data folder and database
//	openplot doctor [-repair]                   check the database against the files
//	openplot check SITE [PAGE] [-json|-sarif]   what is wrong with its pages; 1 when something is broken
//
// The environment is described in docs/operating.md.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"openplot/postgres"
	"openplot/store"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := do(ctx, os.Args[1:]); err != nil {
		if errors.Is(err, errUsage) {
			fmt.Fprint(os.Stderr, usage)
			os.Exit(2)
		}
		fmt.Fprintln(os.Stderr, "openplot:", err)
		os.Exit(1)
	}
}

const usage = `usage:
  openplot serve
  openplot user list
  openplot user add EMAIL NAME
  openplot user password|disable|enable EMAIL
  openplot user operator EMAIL yes|no
  openplot site add ADDRESS NAME OWNER
  openplot member add SITE EMAIL owner|designer|writer
  openplot member remove SITE EMAIL
  openplot backup FILE
  openplot restore FILE
  openplot doctor [-repair]
  openplot check SITE [PAGE] [-json|-sarif]
`

// do carries out what the command line says.
func do(ctx context.Context, args []string) error {
	command, rest := first(args)
	commands := map[string]func(context.Context, *store.Store, []string) error{
		"user": userCommand, "site": siteCommand, "member": memberCommand,
	}
	s, err := readSettings()
	if err != nil {
		return err
	}
	switch {
	case command == "serve" && len(rest) == 0:
		return serve(ctx, s)
	case command == "backup" && len(rest) == 1:
		return s.with(ctx, func(st *store.Store, dsn string) error { return s.backup(ctx, st, dsn, rest[0]) })
	case command == "restore" && len(rest) == 1:
		return s.restore(ctx, rest[0])
	case command == "doctor" && (len(rest) == 0 || len(rest) == 1 && rest[0] == "-repair"):
		return s.with(ctx, func(st *store.Store, _ string) error { return s.doctor(ctx, st, len(rest) == 1) })
	case command == "check":
		return s.with(ctx, func(st *store.Store, _ string) error { return s.check(ctx, st, rest) })
	case commands[command] != nil:
		return s.with(ctx, func(st *store.Store, _ string) error { return commands[command](ctx, st, rest) })
	}
	return errUsage
}

// with opens the store for a command, beside a server that may be running.
func (s settings) with(ctx context.Context, f func(st *store.Store, dsn string) error) error {
	dsn, end, err := s.open(
		func(dir string, o postgres.Options) (*postgres.Cluster, error) { return postgres.Attach(ctx, dir, o) },
	)
	if err != nil {
		return err
	}
	defer end()
	st, err := store.Open(ctx, dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	return f(st, dsn)
}
