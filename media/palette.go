package media

import (
	"fmt"
	"net/http"
	"os"
	"path/filepath"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/store"
)

// Colours gives the colours that a kept picture is made of, the commonest first.
func Colours(dir string, m *store.Medium) ([]colour.Cluster, error) {
	if len(m.Variants) == 0 || m.Type == "image/svg+xml" {
		return nil, doc.Problemf(field, "is a drawing in SVG; take a palette from a photograph or a PNG")
	}
	data, err := os.ReadFile(filepath.Join(dir, m.Variants[0].File))
	if err != nil {
		return nil, fmt.Errorf("opening a picture: %w", err)
	}
	img, err := decode(http.DetectContentType(data), data)
	if err != nil {
		return nil, fmt.Errorf("reading a picture: %w", err)
	}
	return colour.Clusters(img, 6), nil
}
