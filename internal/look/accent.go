package look

import (
	"fmt"
	"math"
	"strconv"
)

// Colour is one in sRGB, each part from 0 to 1.
type Colour struct{ R, G, B float64 }

// ParseColour reads "#rgb" or "#rrggbb".
func ParseColour(text string) (c Colour, ok bool) {
	if len(text) == 4 && text[0] == '#' {
		text = string([]byte{'#', text[1], text[1], text[2], text[2], text[3], text[3]})
	}
	if len(text) != 7 || text[0] != '#' {
		return Colour{}, false
	}
	n, err := strconv.ParseUint(text[1:], 16, 32)
	if err != nil {
		return Colour{}, false
	}
	part := func(shift uint) float64 { return float64(n>>shift&0xFF) / 255 }
	return Colour{part(16), part(8), part(0)}, true
}

// String writes "#rrggbb".
func (c Colour) String() string {
	part := func(v float64) int { return int(math.Round(255 * math.Min(1, math.Max(0, v)))) }
	return fmt.Sprintf("#%02x%02x%02x", part(c.R), part(c.G), part(c.B))
}

func linear(v float64) float64 {
	if v <= 0.04045 {
		return v / 12.92
	}
	return math.Pow((v+0.055)/1.055, 2.4)
}

func gamma(v float64) float64 {
	if v <= 0.0031308 {
		return 12.92 * v
	}
	return 1.055*math.Pow(v, 1/2.4) - 0.055
}

// luminance is the relative luminance of WCAG 2.2.
func (c Colour) luminance() float64 {
	return 0.2126*linear(c.R) + 0.7152*linear(c.G) + 0.0722*linear(c.B)
}

// Contrast is the contrast ratio of WCAG 2.2, from 1 to 21.
func Contrast(a, b Colour) float64 {
	x, y := a.luminance(), b.luminance()
	return (math.Max(x, y) + 0.05) / (math.Min(x, y) + 0.05)
}

// lab are the coordinates of Oklab (Björn Ottosson, 2020), in which equal steps
// look equal.
type lab struct{ l, a, b float64 }

func (c Colour) lab() lab {
	r, g, b := linear(c.R), linear(c.G), linear(c.B)
	l := math.Cbrt(0.4122214708*r + 0.5363325363*g + 0.0514459929*b)
	m := math.Cbrt(0.2119034982*r + 0.6806995451*g + 0.1073969566*b)
	s := math.Cbrt(0.0883024619*r + 0.2817188376*g + 0.6299787005*b)
	return lab{
		0.2104542553*l + 0.7936177850*m - 0.0040720468*s,
		1.9779984951*l - 2.4285922050*m + 0.4505937099*s,
		0.0259040371*l + 0.7827717662*m - 0.8086757660*s,
	}
}

func (k lab) colour() Colour {
	cube := func(v float64) float64 { return v * v * v }
	l := cube(k.l + 0.3963377774*k.a + 0.2158037573*k.b)
	m := cube(k.l - 0.1055613458*k.a - 0.0638541728*k.b)
	s := cube(k.l - 0.0894841775*k.a - 1.2914855480*k.b)
	clip := func(v float64) float64 { return gamma(math.Min(1, math.Max(0, v))) }
	return Colour{
		clip(4.0767416621*l - 3.3077115913*m + 0.2309699292*s),
		clip(-1.2684380046*l + 2.6097574011*m - 0.3413193965*s),
		clip(-0.0041960863*l - 0.7034186147*m + 1.7076147010*s),
	}
}

const (
	enough   = 4.5  // contrast of text, WCAG 2.2 level AA
	farthest = 0.28 // change of lightness that still leaves it the same colour to the eye
)

// legible moves a colour's lightness away from the paper's until it can be read
// on both surfaces, and tells how far that was.
func legible(c Colour, surfaces ...Colour) (out Colour, moved float64) {
	readable := func(c Colour) bool {
		for _, s := range surfaces {
			if Contrast(c, s) < enough {
				return false
			}
		}
		return true
	}
	k := c.lab()
	step := -0.005
	if surfaces[0].luminance() < 0.5 {
		step = 0.005
	}
	out = c
	for !readable(out) && moved < 1 {
		k.l = math.Min(1, math.Max(0, k.l+step))
		moved += math.Abs(step)
		out, _ = ParseColour(k.colour().String()) // as it will be written
	}
	return out, moved
}

// The papers and plates of the two schemes, as the style sheet has them.
var (
	lightSurfaces = []Colour{colour("#f5f7f6"), colour("#fbfcfb")}
	darkSurfaces  = []Colour{colour("#181e20"), colour("#13181a")}
)

func colour(text string) Colour {
	c, _ := ParseColour(text)
	return c
}
