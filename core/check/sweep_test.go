package check_test

import (
	"context"
	"errors"
	"testing"

	"openplot/core/check"
	"openplot/demo"
)

// A check that nobody waits for any more ends, and says so rather than that all is well.
func TestCheckEndsWithItsContext(t *testing.T) {
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	page := prepared(t, library(t), demo.Site(), demo.Home(ids))
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	for i, part := range page.Parts {
		if _, err := check.Section(ctx, part); !errors.Is(err, context.Canceled) {
			t.Errorf("section %d: %v", i, err)
		}
	}
}
