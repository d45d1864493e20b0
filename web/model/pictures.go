package model

import (
	"cmp"
	"math"

	"openplot/core/doc"
	"openplot/core/layout"
)

// focal lets the field of a picture's focal point show the picture.
func (v clusters) focal(fs []field, setting, picture string) {
	m, ok := v.Builder.Media(picture)
	if !ok || m.Sort() != doc.PictureMedium {
		return
	}
	for i := range fs {
		if fs[i].Setting == setting {
			fs[i].Thumb, fs[i].Now = m.Thumb(), cmp.Or(fs[i].Raw, m.Focal, "50% 50%")
		}
	}
}

// crops gives the frames in which the zones show the selected picture.
func (v clusters) crops(sec *doc.Section, picture string) (out []crop) {
	m, ok := v.Builder.Media(picture)
	if !ok || m.Sort() != doc.PictureMedium || sec.Hidden {
		return nil
	}
	for _, zone := range v.Site.Zones {
		within := false
		v.Stage.scene(v.Page, sec).at(float64(zone.Typical)).Walk(func(b *layout.Box, _, _ float64) {
			if b.Node.Block != "" {
				within = b.Node.Block == v.Selected
			}
			if within && b.Node.Tag == "img" && b.W > 0 && b.H > 0 &&
				(len(out) == 0 || out[len(out)-1].Zone != zone.Name) {
				out = append(out, crop{zone.Name, m.Thumb(), math.Round(b.W), math.Round(b.H)})
			}
		})
	}
	return out
}
