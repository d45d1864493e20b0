// Package chart draws maps: a small made-up sea chart that ships with the program,
// seen through the Web Mercator projection.
//
// In come a latitude, a longitude and a zoom; out comes SVG. Start at Draw.
package chart

import "math"

// MaxLatitude is the latitude in degrees at which the projection's plane ends.
const MaxLatitude = 85.0511287798066

// earth is the radius in metres of the sphere that is projected (EPSG:3857).
const earth = 6378137.0

// Metres gives a place's easting and northing in metres (EPSG:3857, method 1024,
// Popular Visualisation Pseudo Mercator).
func Metres(lat, lon float64) (east, north float64) {
	lat = min(max(lat, -MaxLatitude), MaxLatitude) * math.Pi / 180
	return earth * lon * math.Pi / 180, earth * math.Log(math.Tan(math.Pi/4+lat/2))
}

// Pixels gives a place's position in px from the plane's top left corner when it is
// 256 px wide at zoom 0 and twice that at each zoom more (common practice for tiled
// maps).
func Pixels(lat, lon, zoom float64) (x, y float64) {
	size := 256 * math.Exp2(zoom)
	e, n := Metres(lat, lon)
	half := earth * math.Pi
	return (e + half) / (2 * half) * size, (half - n) / (2 * half) * size
}
