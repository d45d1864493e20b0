// Package hb subsets fonts by HarfBuzz's own subsetter, compiled to WebAssembly: it has a memory
// of its own, and no way out of it.
//
// In come an SFNT, the characters and the range of weights that are kept; out comes a smaller
// SFNT that shapes those as the whole one does. The file comes from the npm package harfbuzzjs
// (bin/vendor). Start at Subset.
package hb

import (
	"context"
	_ "embed"
	"errors"
	"fmt"
	"math"
	"sync"

	"github.com/tetratelabs/wazero"
	"github.com/tetratelabs/wazero/api"
)

//go:embed harfbuzz-subset.wasm
var module []byte

// maxPages bounds the memory of one run: 256 MB, of 64 KiB each.
const maxPages = 4096

// compiled is the module made ready once: about a second.
var compiled = sync.OnceValues(func() (ready struct {
	wazero.Runtime
	wazero.CompiledModule
}, err error) {
	ctx := context.Background()
	ready.Runtime = wazero.NewRuntimeWithConfig(
		ctx,
		wazero.NewRuntimeConfig().WithMemoryLimitPages(maxPages).WithCloseOnContextDone(true),
	)
	ready.CompiledModule, err = ready.CompileModule(ctx, module)
	return ready, err
})

// Want is what is kept of a font.
type Want struct {
	Characters []rune
	// Weights are the least and greatest of the weight axis; both 0 keep it as it is, and a font
	// without one is as it is.
	Weights [2]int
	// Features are tags of layout features to be kept beside the usual ones, such as "tnum".
	Features []string
}

// ErrFont means that HarfBuzz can't read the font, or can't make it smaller.
var ErrFont = errors.New("the font can't be made smaller")

// Subset gives the part of an SFNT that is wanted.
func Subset(ctx context.Context, sfnt []byte, w Want) ([]byte, error) {
	ready, err := compiled()
	if err != nil {
		return nil, fmt.Errorf("preparing the subsetter: %w", err)
	}
	m, err := ready.InstantiateModule(ctx, ready.CompiledModule, wazero.NewModuleConfig().WithName(""))
	if err != nil {
		return nil, fmt.Errorf("starting the subsetter: %w", err)
	}
	defer m.Close(ctx)
	r := run{ctx: ctx, m: m}
	out := r.subset(sfnt, w)
	if r.err != nil {
		return nil, fmt.Errorf("%w: %w", ErrFont, r.err)
	}
	return out, nil
}

// run is one use of the module. Its first error stays.
type run struct {
	ctx context.Context
	m   api.Module
	err error
}

// call calls a function that gives at most one number.
func (r *run) call(name string, args ...uint64) uint64 {
	if r.err != nil {
		return 0
	}
	f := r.m.ExportedFunction(name)
	if f == nil {
		r.err = fmt.Errorf("there is no %s", name)
		return 0
	}
	out, err := f.Call(r.ctx, args...)
	if r.err = err; err != nil || len(out) == 0 {
		return 0
	}
	return out[0]
}

// must is call of what gives 0 when it can't be done.
func (r *run) must(name string, args ...uint64) uint64 {
	v := r.call(name, args...)
	if r.err == nil && v == 0 {
		r.err = fmt.Errorf("%s gives nothing", name)
	}
	return v
}

// Numbers of harfbuzz/src/hb-subset.h and hb-blob.h, of 11.x and later.
const (
	layoutFeatures = 6 // HB_SUBSET_SETS_LAYOUT_FEATURE_TAG
	readOnly       = 1 // HB_MEMORY_MODE_READONLY
)

func (r *run) subset(sfnt []byte, w Want) []byte {
	at := r.must("malloc", uint64(len(sfnt)))
	if r.err == nil && !r.m.Memory().Write(uint32(at), sfnt) {
		r.err = errors.New("no room for the font")
	}
	face := r.must("hb_face_create", r.must("hb_blob_create", at, uint64(len(sfnt)), readOnly, 0, 0), 0)
	input := r.must("hb_subset_input_create_or_fail")
	set := r.must("hb_subset_input_unicode_set", input)
	for _, c := range w.Characters {
		r.call("hb_set_add", set, uint64(c))
	}
	features := r.must("hb_subset_input_set", input, layoutFeatures)
	for _, f := range w.Features {
		r.call("hb_set_add", features, tag(f))
	}
	if w.Weights[1] > 0 { // false where there is no such axis
		lo, hi := float32(w.Weights[0]), float32(w.Weights[1])
		r.call("hb_subset_input_set_axis_range", input, face, tag("wght"),
			api.EncodeF32(lo), api.EncodeF32(hi), api.EncodeF32(float32(math.NaN())))
	}
	blob := r.must("hb_face_reference_blob", r.must("hb_subset_or_fail", face, input))
	size := r.must("hb_blob_get_length", blob)
	data := r.must("hb_blob_get_data", blob, 0)
	if r.err != nil {
		return nil
	}
	part, ok := r.m.Memory().Read(uint32(data), uint32(size))
	if !ok {
		r.err = errors.New("what came of it lies outside its memory")
		return nil
	}
	return append([]byte(nil), part...)
}

// tag is four letters as OpenType has them.
func tag(s string) (n uint64) {
	for i := range 4 {
		n = n<<8 | uint64(s[i])
	}
	return n
}
