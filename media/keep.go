package media

import (
	"context"
	"fmt"
	"os"
	"path"
	"path/filepath"
	"strings"
	"unicode"
	"unicode/utf8"

	"openplot/store"
)

// Keep makes an upload ready, writes its copies and keeps it as a medium of
// the site.
func Keep(ctx context.Context, st *store.Store, dir, site, name, alt string, data []byte) (*store.Medium, error) {
	p, err := Process(data)
	if err != nil {
		return nil, err
	}
	m := &store.Medium{ID: store.NewID("m"), SiteID: site, Name: fileName(name), Type: p.Type, Width: p.Width, Height: p.Height, Alt: alt}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, fmt.Errorf("making the media folder: %w", err)
	}
	for _, copy := range p.Copies {
		file := fmt.Sprintf("%s-%d%s", m.ID, copy.Width, copy.Ext)
		if err := os.WriteFile(filepath.Join(dir, file), copy.Data, 0o644); err != nil {
			return nil, fmt.Errorf("keeping a picture: %w", err)
		}
		m.Variants = append(m.Variants, store.MediumCopy{File: file, Width: copy.Width})
	}
	if err := st.AddMedium(ctx, m); err != nil {
		return nil, err
	}
	return m, nil
}

// fileName is what people see of an upload's name.
func fileName(name string) string {
	name = path.Base(strings.ReplaceAll(name, `\`, "/"))
	name = strings.Map(func(r rune) rune {
		if r == utf8.RuneError || unicode.IsControl(r) {
			return -1
		}
		return r
	}, name)
	if r := []rune(name); len(r) > 120 {
		name = string(r[:120])
	}
	if name == "" || name == "." || name == "/" {
		return "Picture"
	}
	return name
}
