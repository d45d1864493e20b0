package store

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"openplot/postgres"
	"openplot/postgres/postgrestest"
)

// The schema that all migrations come to is in schema.sql to be read, as pg_dump writes it; with
// UPDATE=1 it is written anew. Each table says what it holds.
func TestSchema(t *testing.T) {
	var problem bytes.Buffer
	dump := exec.Command(
		filepath.Join(
			postgres.Programs,
			"pg_dump",
		),
		"--schema-only",
		"--no-owner",
		"--no-privileges",
		"--exclude-table=river_*",
		"--exclude-table=goose_*",
		"--dbname",
		postgrestest.Database(t),
	)
	dump.Stderr = &problem
	out, err := dump.Output()
	if err != nil {
		t.Fatalf("%v: %s", err, problem.String())
	}
	text := regexp.MustCompile(`(?m)^(--.*|SET .*|SELECT pg_catalog.*|\\(un)?restrict.*)\n`).
		ReplaceAllString(string(out), "")
	if i := strings.Index(text, "CREATE TABLE"); i > 0 { // what comes first is the queue's types
		text = text[i:]
	}
	text = strings.TrimSpace(regexp.MustCompile(`\n{2,}`).ReplaceAllString(text, "\n\n")) + "\n"
	for _, m := range regexp.MustCompile(`(?m)^CREATE (TABLE|VIEW) (public\.\w+)`).FindAllStringSubmatch(text, -1) {
		if !strings.Contains(text, "COMMENT ON "+m[1]+" "+m[2]+" IS") {
			t.Errorf("nothing says what %s holds: COMMENT ON it in its migration", m[2])
		}
	}
	const file = "schema.sql"
	was, err := os.ReadFile(file)
	if os.Getenv("UPDATE") != "" {
		err = os.WriteFile(file, []byte(text), 0o644)
	} else if string(was) != text {
		t.Error("schema.sql isn't what the migrations come to: UPDATE=1 go test ./store -run TestSchema writes it")
	}
	if err != nil {
		t.Error(err)
	}
}
