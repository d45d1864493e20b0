package web

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// mostMethods is how many methods a type has at most, so that one head holds it.
const mostMethods = 25

// No type has more methods than one head holds; with -v it tells of the largest.
func TestTypesAreSmall(t *testing.T) {
	methods := map[string]int{}
	err := filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git") {
			return fs.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.SkipObjectResolution)
		if err != nil {
			return err
		}
		for _, decl := range file.Decls {
			if f, ok := decl.(*ast.FuncDecl); ok && f.Recv != nil {
				methods[filepath.Dir(path)+"."+receiver(f.Recv.List[0].Type)]++
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if len(methods) < 100 {
		t.Fatalf("only %d types", len(methods))
	}
	names := make([]string, 0, len(methods))
	for name, n := range methods {
		names = append(names, name)
		if n > mostMethods {
			t.Errorf("%s has %d methods; %d is the most", strings.TrimPrefix(name, "../"), n, mostMethods)
		}
	}
	slices.SortFunc(names, func(a, b string) int { return methods[b] - methods[a] })
	for _, name := range names[:10] {
		t.Logf("%3d %s", methods[name], strings.TrimPrefix(name, "../"))
	}
}

// receiver is the name of a method's type.
func receiver(x ast.Expr) string {
	switch x := x.(type) {
	case *ast.StarExpr:
		return receiver(x.X)
	case *ast.IndexExpr:
		return receiver(x.X)
	case *ast.IndexListExpr:
		return receiver(x.X)
	case *ast.Ident:
		return x.Name
	}
	return ""
}
