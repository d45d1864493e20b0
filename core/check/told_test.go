package check_test

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"openplot/core/check"
)

// The table of rules in docs/checks.md is what they say of themselves; with UPDATE=1 it is written
// anew.
func TestRulesAreTold(t *testing.T) {
	var b strings.Builder
	b.WriteString("\n| rule | | what | by |\n|---|---|---|---|\n")
	for _, r := range check.Rules {
		if r.What == "" {
			t.Errorf("%s doesn't say what it finds", r.ID)
		}
		fmt.Fprintf(&b, "| `%s` | %s | %s | %s |\n", r.ID, r.Severity, r.What, r.Standard)
	}
	b.WriteString("\n")
	const file, begin, end = "../../docs/checks.md", "<!-- written by TestRulesAreTold -->\n", "<!-- to here -->"
	text, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	before, rest, there := strings.Cut(string(text), begin)
	was, after, ends := strings.Cut(rest, end)
	if !there || !ends {
		t.Fatal("there is no place for it")
	}
	if was == b.String() {
		return
	}
	if os.Getenv("UPDATE") == "" {
		t.Fatal("it is another one now: UPDATE=1 go test ./core/check -run TestRulesAreTold writes it")
	}
	if err := os.WriteFile(file, []byte(before+begin+b.String()+end+after), 0o644); err != nil {
		t.Fatal(err)
	}
}
