package web_test

import (
	"fmt"
	"os"
	"reflect"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/web/model"
)

// TestTypesOfScripts holds what scripts are told of commands and of the Bench's state, web/types.d.ts, against Go's types.
// With UPDATE=1 it is written anew.
func TestTypesOfScripts(t *testing.T) {
	want := typesOfScripts()
	const file = "types.d.ts"
	if os.Getenv("UPDATE") != "" {
		if err := os.WriteFile(file, []byte(want), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	got, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	if string(got) != want {
		t.Errorf("%s isn't what Go's types are; UPDATE=1 go test ./web -run TestTypesOfScripts writes it", file)
	}
}

// typesOfScripts declares in TypeScript what commands and the state of the Bench are, from Go's types.
func typesOfScripts() string {
	var b strings.Builder
	b.WriteString("// Commands and the state of the Bench, as Go has them; written by TestTypesOfScripts.\n\n")
	union := func(name string, of []string) {
		fmt.Fprintf(&b, "type %s =\n  | '%s';\n\n", name, strings.Join(of, "'\n  | '"))
	}
	union("Op", append(edit.Operations(), edit.Many))
	kinds := make([]string, 0, len(doc.Kinds))
	for _, k := range doc.Kinds {
		kinds = append(kinds, string(k))
	}
	union("Kind", kinds)

	named := map[reflect.Type]string{}
	var queue []reflect.Type
	var of func(reflect.Type) string
	of = func(t reflect.Type) string {
		switch t.Kind() {
		case reflect.Pointer:
			return of(t.Elem())
		case reflect.Slice, reflect.Array:
			return of(t.Elem()) + "[]"
		case reflect.Map:
			return "Record<string, " + of(t.Elem()) + ">"
		case reflect.Bool:
			return "boolean"
		case reflect.String:
			if t == reflect.TypeFor[doc.Kind]() {
				return "Kind"
			}
			return "string"
		case reflect.Struct:
			if _, ok := named[t]; !ok {
				named[t] = strings.ToUpper(t.Name()[:1]) + t.Name()[1:]
				queue = append(queue, t)
			}
			return named[t]
		case reflect.Interface:
			return "unknown"
		default:
			return "number"
		}
	}
	of(reflect.TypeFor[edit.Command]())
	of(reflect.TypeFor[model.State]())
	for len(queue) > 0 {
		t := queue[0]
		queue = queue[1:]
		fmt.Fprintf(&b, "interface %s {\n", named[t])
		for f := range fieldsOf(t) {
			name, rest, _ := strings.Cut(f.Tag.Get("json"), ",")
			if name == "" {
				name = f.Name
			}
			if name == "-" || !f.IsExported() {
				continue
			}
			optional := ""
			if strings.Contains(rest, "omit") ||
				t == reflect.TypeFor[edit.Command]() && name != "op" { // send adds its base
				optional = "?"
			}
			typ := of(f.Type)
			if t == reflect.TypeFor[edit.Command]() && name == "op" {
				typ = "Op"
			}
			fmt.Fprintf(&b, "  %s%s: %s;\n", name, optional, typ)
		}
		b.WriteString("}\n\n")
	}
	return strings.TrimSuffix(b.String(), "\n")
}

// fieldsOf goes through a struct's fields, those of embedded ones among them, as encoding/json does.
func fieldsOf(t reflect.Type) func(yield func(reflect.StructField) bool) {
	return func(yield func(reflect.StructField) bool) {
		for _, f := range reflect.VisibleFields(t) {
			if f.Anonymous && f.Tag.Get("json") == "" || len(f.Index) > 1 && f.Tag.Get("json") == "" {
				continue
			}
			if !yield(f) {
				return
			}
		}
	}
}
