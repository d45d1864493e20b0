package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"text/tabwriter"

	"golang.org/x/term"

	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/store"
)

// errUsage means that a command was written otherwise than it can be.
var errUsage = errors.New("usage")

// userCommand makes accounts and changes them.
func userCommand(ctx context.Context, st *store.Store, args []string) error {
	op, rest := first(args)
	switch {
	case op == "list" && len(rest) == 0:
		accounts, err := st.People.Accounts(ctx)
		if err != nil {
			return err
		}
		w := tabwriter.NewWriter(os.Stdout, 0, 0, 2, ' ', 0)
		for _, a := range accounts {
			notes := a.Sites
			if a.Operator {
				notes += " operator"
			}
			if a.Disabled {
				notes += " disabled"
			}
			fmt.Fprintf(w, "%s\t%s\t%s\n", a.Email, a.Name, strings.TrimSpace(notes))
		}
		return w.Flush()
	case op == "add" && len(rest) == 2:
		word, err := newPassword()
		if err != nil {
			return err
		}
		u, err := st.People.AddUser(ctx, rest[0], rest[1], word)
		if err != nil {
			return err
		}
		return done(ctx, st, "account added", u.Email, "%s can sign in now.", u.Email)
	case op == "password" && len(rest) == 1:
		word, err := newPassword()
		if err != nil {
			return err
		}
		if err := st.People.SetPassword(ctx, rest[0], word); err != nil {
			return err
		}
		return done(
			ctx,
			st,
			"password set",
			rest[0],
			"%s has another password now, and is signed out everywhere.",
			rest[0],
		)
	case (op == "disable" || op == "enable") && len(rest) == 1:
		if err := st.People.DisableUser(ctx, rest[0], op == "disable"); err != nil {
			return err
		}
		return done(ctx, st, "account "+op+"d", rest[0], "%s is "+op+"d.", rest[0])
	case op == "operator" && len(rest) == 2 && (rest[1] == "yes" || rest[1] == "no"):
		if err := st.People.SetOperator(ctx, rest[0], rest[1] == "yes"); err != nil {
			return err
		}
		return done(ctx, st, "operator "+rest[1], rest[0], "%s: operator %s.", rest[0], rest[1])
	}
	return errUsage
}

// siteCommand makes sites.
func siteCommand(ctx context.Context, st *store.Store, args []string) error {
	op, rest := first(args)
	if op != "add" || len(rest) != 3 {
		return errUsage
	}
	s, err := ready.NewSite(rest[0], rest[1], store.NewID)
	if err != nil {
		return err
	}
	home, err := ready.NewHome(s.Name, store.NewID)
	if err != nil {
		return err
	}
	owner, err := account(ctx, st, rest[2])
	if err != nil {
		return err
	}
	err = st.Transaction(ctx, func(st *store.Store) error {
		if err := st.Sites.Add(ctx, s); err != nil {
			return err
		}
		if err := st.Pages.Add(ctx, s.ID, "", 0, home); err != nil {
			return err
		}
		if err := st.People.AddMember(ctx, s.ID, owner.ID, store.Owner); err != nil {
			return err
		}
		return st.Audit.Note(ctx, store.Noted{Site: s.ID, Who: operatorName, Act: "site added", About: s.Slug})
	})
	if err == nil {
		fmt.Printf("%s is there, with an empty home page; %s is its owner.\n", s.Slug, owner.Email)
	}
	return err
}

// memberCommand says who belongs to a site.
func memberCommand(ctx context.Context, st *store.Store, args []string) error {
	op, rest := first(args)
	if !(op == "add" && len(rest) == 3 || op == "remove" && len(rest) == 2) {
		return errUsage
	}
	s, err := st.Sites.BySlug(ctx, rest[0])
	if errors.Is(err, store.ErrNotFound) {
		return doc.Problemf("Site", "%q isn't there", rest[0])
	}
	if err != nil {
		return err
	}
	u, err := account(ctx, st, rest[1])
	if err != nil {
		return err
	}
	act := store.Noted{Site: s.ID, Who: operatorName, Act: "member removed", About: u.Email}
	if op == "remove" {
		if err = st.Members.Set(ctx, s.ID, u.ID, ""); errors.Is(err, store.ErrNotFound) {
			return doc.Problemf("Email", "%s doesn't belong to %s", u.Email, s.Name)
		}
	} else {
		role := store.Role(rest[2])
		if role != store.Owner && role != store.Designer && role != store.Writer {
			return doc.Problemf("Role", "can't be %q: write owner, designer or writer", rest[2])
		}
		act.Act, act.About = "role given", u.Email+": "+rest[2]
		err = st.People.AddMember(ctx, s.ID, u.ID, role)
	}
	if err != nil {
		return err
	}
	if err := st.Audit.Note(ctx, act); err != nil {
		return err
	}
	fmt.Println("Done.")
	return nil
}

// operatorName is who did what was done on the command line.
const operatorName = "command line"

func done(ctx context.Context, st *store.Store, act, about, words string, args ...any) error {
	if err := st.Audit.Note(ctx, store.Noted{Who: operatorName, Act: act, About: about}); err != nil {
		return err
	}
	fmt.Printf(words+"\n", args...)
	return nil
}

func account(ctx context.Context, st *store.Store, email string) (*store.User, error) {
	u, err := st.People.UserByEmail(ctx, email)
	if errors.Is(err, store.ErrNotFound) {
		return nil, doc.Problemf("Email", "%s has no account; openplot user add makes one", email)
	}
	return u, err
}

func first(args []string) (string, []string) {
	if len(args) == 0 {
		return "", nil
	}
	return args[0], args[1:]
}

// newPassword reads a password: twice from a terminal, without showing it, or a line from
// what is piped in.
func newPassword() (string, error) {
	if !term.IsTerminal(int(os.Stdin.Fd())) {
		line, err := bufio.NewReader(os.Stdin).ReadString('\n')
		if err != nil && !errors.Is(err, io.EOF) {
			return "", fmt.Errorf("reading the password: %w", err)
		}
		return strings.TrimRight(line, "\r\n"), nil
	}
	var words [2]string
	for i, ask := range []string{"Password: ", "The same again: "} {
		fmt.Fprint(os.Stderr, ask)
		b, err := term.ReadPassword(int(os.Stdin.Fd()))
		fmt.Fprintln(os.Stderr)
		if err != nil {
			return "", fmt.Errorf("reading the password: %w", err)
		}
		words[i] = string(b)
	}
	if words[0] != words[1] {
		return "", doc.Problemf("Password", "was written in two ways; try again")
	}
	return words[0], nil
}
