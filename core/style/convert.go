package style

import "strings"

// Convert gives a length in px, rem, per cent, vw or vh as one in another of these units
// that is as long where a percentage is of base and the viewport is v, in px. It gives the
// text as people enter it; ok is false when there is no such length.
func Convert(text, unit string, base float64, v Viewport) (out string, ok bool) {
	l, err := EvaluateLength(strings.ToLower(strings.TrimSpace(text)))
	if err != nil {
		return "", false
	}
	px, ok := l.Resolve(base, v)
	if !ok {
		return "", false
	}
	one := map[string]float64{"px": 1, "rem": RootFontSize, "%": base / 100, "vw": v.Width / 100, "vh": v.Height / 100}[unit]
	if one <= 0 {
		return "", false
	}
	return Number(px/one) + unit, true
}
