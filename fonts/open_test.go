package fonts

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"errors"
	"runtime"
	"testing"

	"openplot/core/doc"
)

// woffOf is a WOFF file (WOFF File Format 1.0 §3) of one table, that says it unpacks to a size and
// unpacks to another.
func woffOf(t *testing.T, says uint32, unpacks int64) []byte {
	t.Helper()
	var packed bytes.Buffer
	w, err := zlib.NewWriterLevel(&packed, zlib.BestSpeed)
	if err != nil {
		t.Fatal(err)
	}
	zeros := make([]byte, 1<<20)
	for ; unpacks > 0; unpacks -= int64(len(zeros)) {
		if _, err := w.Write(zeros); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	b := []byte("wOFF\x00\x01\x00\x00")
	b = binary.BigEndian.AppendUint32(b, uint32(44+20+packed.Len()))
	b = binary.BigEndian.AppendUint16(b, 1)
	b = binary.BigEndian.AppendUint16(b, 0)
	b = binary.BigEndian.AppendUint32(b, 12+16+(says+3)&^3)
	b = append(b, make([]byte, 44-len(b))...)
	b = append(b, "glyf"...)
	for _, n := range []uint32{64, uint32(packed.Len()), says, 0} {
		b = binary.BigEndian.AppendUint32(b, n)
	}
	return append(b, packed.Bytes()...)
}

// A small file that unpacks to gigabytes costs this process nothing, whether it says so or not.
func TestFontsThatUnpackToMuch(t *testing.T) {
	for name, file := range map[string][]byte{
		"it says so": woffOf(t, 1<<30, 700<<20), "it says little": woffOf(t, 1000, 700<<20), "cut off": woffOf(t, 1000, 1<<20)[:60],
	} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, err := ReadOwn(t.Context(), file)
		runtime.ReadMemStats(&after)
		var problem *doc.Problem
		if !errors.As(err, &problem) || problem.Field != ownField {
			t.Errorf("%s: %v", name, err)
		}
		if grown := (after.TotalAlloc - before.TotalAlloc) >> 20; grown > 16 || len(file) > MaxOwnBytes {
			t.Errorf("%s: a file of %d kB took %d MB here", name, len(file)>>10, grown)
		}
	}
}

// What is read in a process of its own is what is read here.
func TestReadOwnApart(t *testing.T) {
	file, err := Files.ReadFile("files/" + Faces[0].File)
	if err != nil {
		t.Fatal(err)
	}
	here, err := readOwn(file)
	if err != nil {
		t.Fatal(err)
	}
	apart, err := ReadOwn(t.Context(), file)
	if err != nil || apart.Family != here.Family || apart.Weights != here.Weights || apart.Italic != here.Italic ||
		!bytes.Equal(apart.SFNT, here.SFNT) {
		t.Errorf("%+v, %v", apart, err)
	}
}
