package colour

import (
	"cmp"
	"image"
	"slices"
)

// Cluster is a group of alike colours in a picture: their mean, and the share of
// the picture's points that they are, 0 to 1.
type Cluster struct {
	Colour Colour
	Share  float64
}

// maxPoints is how many points of a picture are looked at.
const maxPoints = 20_000

// Clusters gives up to n colours that a picture is made of, the commonest first:
// k-means in OKLab over a sample of its points, begun with points far from each
// other (common practice, k-means++ without chance). Transparent points don't count.
func Clusters(img image.Image, n int) []Cluster {
	points := sample(img)
	if len(points) == 0 || n < 1 {
		return nil
	}
	centres := []OKLab{mean(points)}
	nearest := make([]float64, len(points))
	for len(centres) < n {
		far := -1
		for i, p := range points {
			d := Distance(p, centres[len(centres)-1])
			if len(centres) == 1 || d < nearest[i] {
				nearest[i] = d
			}
			if far < 0 || nearest[i] > nearest[far] {
				far = i
			}
		}
		if nearest[far] < 0.02 { // all is as near as the eye tells apart
			break
		}
		centres = append(centres, points[far])
	}
	of := make([]int, len(points))
	for range 20 {
		moved := false
		sums, counts := make([]OKLab, len(centres)), make([]float64, len(centres))
		for i, p := range points {
			best := 0
			for k := range centres {
				if Distance(p, centres[k]) < Distance(p, centres[best]) {
					best = k
				}
			}
			moved = moved || best != of[i]
			of[i] = best
			sums[best].L += p.L
			sums[best].A += p.A
			sums[best].B += p.B
			counts[best]++
		}
		for k := range centres {
			if counts[k] > 0 {
				centres[k] = OKLab{sums[k].L / counts[k], sums[k].A / counts[k], sums[k].B / counts[k]}
			}
		}
		if !moved {
			break
		}
	}
	out := make([]Cluster, len(centres))
	for k, c := range centres {
		out[k].Colour = c.OKLCH().SRGB()
	}
	for _, k := range of {
		out[k].Share += 1 / float64(len(points))
	}
	out = slices.DeleteFunc(out, func(c Cluster) bool { return c.Share == 0 })
	slices.SortStableFunc(out, func(a, b Cluster) int { return cmp.Compare(b.Share, a.Share) })
	return out
}

func sample(img image.Image) []OKLab {
	b := img.Bounds()
	step := 1
	for (b.Dx()/step)*(b.Dy()/step) > maxPoints {
		step++
	}
	var points []OKLab
	for y := b.Min.Y; y < b.Max.Y; y += step {
		for x := b.Min.X; x < b.Max.X; x += step {
			r, g, bl, a := img.At(x, y).RGBA()
			if a < 0x8000 {
				continue
			}
			part := func(v uint32) uint8 { return uint8(min(v*0xffff/a, 0xffff) >> 8) }
			points = append(points, Colour{part(r), part(g), part(bl), 255}.OKLab())
		}
	}
	return points
}

func mean(points []OKLab) (m OKLab) {
	for _, p := range points {
		m.L += p.L / float64(len(points))
		m.A += p.A / float64(len(points))
		m.B += p.B / float64(len(points))
	}
	return m
}

// Roles are the colours of a palette by their part in it.
type Roles struct{ Ground, QuietGround, Words, QuietWords, Accent, SecondAccent, Line Colour }

// SuggestRoles makes a palette of a picture's colours: a light ground of the
// commonest hue, words of the darkest, accents of the most colourful, each moved in
// lightness until text passes WCAG AA on both grounds.
func SuggestRoles(cs []Cluster) Roles {
	var r Roles
	if len(cs) == 0 {
		cs = []Cluster{{Colour{128, 128, 128, 255}, 1}}
	}
	common := cs[0].Colour.OKLCH()
	r.Ground = OKLCH{0.99, min(common.C, 0.006), common.H}.SRGB()
	r.QuietGround = OKLCH{0.955, min(common.C, 0.018), common.H}.SRGB()
	r.Line = OKLCH{0.86, min(common.C, 0.025), common.H}.SRGB()
	dark := slices.MinFunc(
		cs,
		func(a, b Cluster) int { return cmp.Compare(a.Colour.OKLCH().L, b.Colour.OKLCH().L) },
	).Colour.OKLCH()
	r.Words = Readable(OKLCH{min(dark.L, 0.27), min(dark.C, 0.04), dark.H}.SRGB(), r.QuietGround, AAA)
	r.QuietWords = Readable(OKLCH{0.46, min(dark.C, 0.03), dark.H}.SRGB(), r.QuietGround, AA)
	colourful := slices.Clone(cs)
	slices.SortStableFunc(
		colourful,
		func(a, b Cluster) int { return cmp.Compare(b.Colour.OKLCH().C, a.Colour.OKLCH().C) },
	)
	first := colourful[0].Colour
	second := first
	for _, c := range colourful[1:] { // the next of another hue
		d := c.Colour.OKLCH().H - first.OKLCH().H
		if d < 0 {
			d = -d
		}
		if min(d, 360-d) > 40 {
			second = c.Colour
			break
		}
	}
	r.Accent = Readable(first, r.QuietGround, AA)
	r.SecondAccent = Readable(second, r.QuietGround, AA)
	return r
}
