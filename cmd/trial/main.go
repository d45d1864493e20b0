// Command trial tries Open Plot hard: the real program, killed, starved and flooded, as no
// test that has to be quick can. It ends with 1 when something was lost or broken. bin/trial
// runs it; docs/reliability.md has its last figures. All it talks to is on loopback.
//
//	trial kill -n 100          kill −9 during edits, uploads, publishing and first starts
//	trial postgres             PostgreSQL killed and paused under load
//	trial disk                 a disk that is full
//	trial clock                the database's clock jumping (needs Debian's faketime)
//	trial load -minutes 10     200 editors on 50 pages
//	trial hostile -n 1000      hostile files in a row
//	trial amid -n 20           kill −9 amid imports, copies, plans and large uploads, so often each
//	trial beside -minutes 5    editing, setting and publishing of one site at once
//	trial flood -minutes 1     programs that fill in a form
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"os"
	"os/signal"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	if err := try(ctx, os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, "trial:", err)
		os.Exit(1)
	}
}

func try(ctx context.Context, args []string) error {
	if len(args) == 0 {
		return errors.New("usage: trial kill|postgres|disk|clock|load|hostile|amid|beside|flood")
	}
	flags := flag.NewFlagSet(args[0], flag.ExitOnError)
	binary := flags.String("binary", ".build/openplot", "the program")
	n := flags.Int("n", 0, "how often")
	minutes := flags.Float64("minutes", 10, "how long the load lasts")
	editors := flags.Int("editors", 200, "how many edit at once")
	pages := flags.Int("pages", 50, "how many pages they edit")
	_ = flags.Parse(args[1:]) // it exits
	t, err := begin(*binary)
	if err != nil {
		return err
	}
	defer t.end()
	switch args[0] {
	case "kill":
		return t.kill(ctx, max(*n, 1))
	case "postgres":
		return t.postgres(ctx)
	case "disk":
		return t.disk(ctx)
	case "clock":
		return t.clock(ctx)
	case "load":
		return t.load(ctx, *editors, *pages, *minutes)
	case "hostile":
		return t.hostile(ctx, max(*n, 1))
	case "amid":
		return company{t}.amid(ctx, max(*n, 1))
	case "beside":
		return company{t}.beside(ctx, *minutes)
	case "flood":
		return company{t}.flood(ctx, *minutes)
	}
	return fmt.Errorf("there is no trial %q", args[0])
}
