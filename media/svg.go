package media

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
)

// svgElements are those kept of an SVG: shapes, text, paint servers, filters and
// structure. Scripts, foreign content, links, animation and style sheets go.
var svgElements = set(
	`svg g defs symbol use title desc path rect circle ellipse line polyline polygon text tspan textPath
	linearGradient radialGradient stop pattern clipPath mask marker filter feBlend feColorMatrix feComponentTransfer feComposite
	feFlood feFuncA feFuncB feFuncG feFuncR feGaussianBlur feMerge feMergeNode feMorphology feOffset feTurbulence feDropShadow`,
)

// svgAttributes are kept too; presentation attributes are all in svgPaint.
var svgAttributes = set(
	`id class viewBox width height x y x1 y1 x2 y2 cx cy r rx ry fx fy d points transform gradientTransform
	gradientUnits patternTransform patternUnits patternContentUnits clipPathUnits maskUnits maskContentUnits offset spreadMethod
	preserveAspectRatio pathLength startOffset dx dy rotate textLength markerWidth markerHeight markerUnits refX refY orient
	in in2 result type values mode operator k1 k2 k3 k4 stdDeviation baseFrequency numOctaves seed stitchTiles tableValues slope
	intercept amplitude exponent radius filterUnits primitiveUnits version role aria-label aria-hidden`,
)

var svgPaint = set(
	`fill fill-opacity fill-rule stroke stroke-width stroke-linecap stroke-linejoin stroke-miterlimit stroke-dasharray
	stroke-dashoffset stroke-opacity opacity color display visibility clip-path clip-rule mask filter marker-start marker-mid
	marker-end font-family font-size font-weight font-style letter-spacing text-anchor dominant-baseline stop-color stop-opacity
	flood-color flood-opacity mix-blend-mode vector-effect paint-order shape-rendering`,
)

func set(words string) map[string]bool {
	m := map[string]bool{}
	for _, w := range strings.Fields(words) {
		m[w] = true
	}
	return m
}

const (
	svgNamespace   = "http://www.w3.org/2000/svg"
	xlinkNamespace = "http://www.w3.org/1999/xlink"
	maxSVGElements = 50_000
	maxSVGDepth    = 200
	maxSVGDrawn    = 200_000 // elements that are drawn, those included that are drawn where others refer to them
)

func looksLikeSVG(data []byte) bool {
	return bytes.Contains(data[:min(len(data), 4096)], []byte("<svg"))
}

// CleanSVG rewrites an SVG with only what draws, and gives its natural size in
// px. References may point within the file only.
func CleanSVG(data []byte) (clean []byte, width, height int, err error) {
	d := xml.NewDecoder(bytes.NewReader(data))
	d.Strict = true
	d.Entity = map[string]string{}
	var b bytes.Buffer
	skip, depth, elements := 0, 0, 0
	var drawn svgDrawn
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, 0, 0, doc.Problemf(
				field,
				"is SVG with a mistake in it (%v): save it again from a drawing program",
				err,
			)
		}
		switch t := token.(type) {
		case xml.StartElement:
			if elements++; elements > maxSVGElements || depth > maxSVGDepth {
				return nil, 0, 0, doc.Problemf(
					field, "is an SVG of more than %d elements or deeper than %d: make it simpler, or save it as PNG",
					maxSVGElements, maxSVGDepth,
				)
			}
			depth++
			t.Name.Local = unlinked(t.Name.Local)
			if skip > 0 || !svgElements[t.Name.Local] || t.Name.Space != svgNamespace && t.Name.Space != "" {
				skip++
				continue
			}
			if depth == 1 {
				if t.Name.Local != "svg" {
					return nil, 0, 0, doc.Problemf(field, "is XML but not SVG")
				}
				width, height = svgSize(t)
			}
			drawn.begin(t)
			b.WriteByte('<')
			b.WriteString(t.Name.Local)
			if depth == 1 {
				b.WriteString(` xmlns="` + svgNamespace + `"`)
			}
			writeSVGAttributes(&b, t.Attr, depth == 1)
			if depth == 1 {
				b.WriteString(` width="` + strconv.Itoa(width) + `" height="` + strconv.Itoa(height) + `"`)
			}
			b.WriteByte('>')
		case xml.EndElement:
			depth--
			if skip > 0 {
				skip--
				continue
			}
			drawn.end()
			b.WriteString("</" + unlinked(t.Name.Local) + ">")
		case xml.CharData:
			if skip == 0 && depth > 0 {
				_ = xml.EscapeText(&b, t) // a bytes.Buffer takes everything
			}
		}
	}
	if width == 0 {
		return nil, 0, 0, doc.Problemf(field, "has no SVG drawing in it")
	}
	if drawn.count() > maxSVGDrawn {
		return nil, 0, 0, doc.Problemf(
			field,
			"is an SVG that draws parts of itself more than %d times over: make it simpler, or save it as PNG",
			maxSVGDrawn,
		)
	}
	return b.Bytes(), width, height, nil
}

// unlinked makes a link a plain group, so that what it holds is kept.
func unlinked(name string) string {
	if name == "a" {
		return "g"
	}
	return name
}

// writeSVGAttributes writes what is allowed. Declarations of a style attribute
// become presentation attributes and, as in CSS, win over those given.
func writeSVGAttributes(b *bytes.Buffer, attrs []xml.Attr, root bool) {
	var names []string
	values := map[string]string{}
	add := func(name, v string) {
		if !localOnly(v) {
			return
		}
		if _, ok := values[name]; !ok {
			names = append(names, name)
		}
		values[name] = v
	}
	style := ""
	for _, a := range attrs {
		name, v := a.Name.Local, strings.TrimSpace(a.Value)
		switch {
		case name == "xmlns" || a.Name.Space == "xmlns" || root && (name == "width" || name == "height"):
		case name == "href" && (a.Name.Space == "" || a.Name.Space == xlinkNamespace):
			if strings.HasPrefix(v, "#") {
				add(name, v)
			}
		case a.Name.Space != "":
		case name == "style":
			style = v
		case svgAttributes[name] || svgPaint[name]:
			add(name, v)
		}
	}
	for _, declaration := range strings.Split(style, ";") {
		name, v, ok := strings.Cut(declaration, ":")
		if name = strings.TrimSpace(name); ok && svgPaint[name] {
			add(name, strings.TrimSpace(v))
		}
	}
	for _, name := range names {
		b.WriteString(" " + name + `="`)
		_ = xml.EscapeText(b, []byte(values[name])) // a bytes.Buffer takes everything
		b.WriteByte('"')
	}
}

// localOnly reports whether every url() in a value points within the file.
func localOnly(v string) bool {
	l := strings.ToLower(v)
	if strings.ContainsAny(l, "\\") || strings.Contains(l, "javascript:") || strings.Contains(l, "/*") {
		return false
	}
	for {
		i := strings.Index(l, "url(")
		if i < 0 {
			return true
		}
		l = strings.TrimLeft(l[i+4:], ` '"`)
		if !strings.HasPrefix(l, "#") {
			return false
		}
	}
}

// svgSize is the natural size: width and height in px, else the view box's, else
// 300 × 150 (CSS Images 3 §5.1).
func svgSize(t xml.StartElement) (w, h int) {
	px := func(s string) float64 {
		f, err := number.Real(strings.TrimSuffix(strings.TrimSpace(s), "px"))
		if err != nil || f < 1 || f > 20000 {
			return 0
		}
		return f
	}
	var width, height, boxW, boxH float64
	for _, a := range t.Attr {
		switch a.Name.Local {
		case "width":
			width = px(a.Value)
		case "height":
			height = px(a.Value)
		case "viewBox":
			if f := strings.FieldsFunc(a.Value, func(r rune) bool { return r == ' ' || r == ',' }); len(f) == 4 {
				boxW, boxH = px(f[2]), px(f[3])
			}
		}
	}
	switch {
	case width > 0 && height > 0:
	case width > 0 && boxW > 0 && boxH > 0:
		height = width * boxH / boxW
	case height > 0 && boxW > 0 && boxH > 0:
		width = height * boxW / boxH
	case boxW > 0 && boxH > 0:
		width, height = boxW, boxH
	default:
		width, height = 300, 150
	}
	return max(1, int(width+0.5)), max(1, int(height+0.5))
}
