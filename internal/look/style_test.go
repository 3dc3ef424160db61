package look_test

import (
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"

	"codrel/internal/settings"
)

// CSS is read as browsers read it: what stands in texts and comments is neither a bracket
// nor an address.
func TestStyles(t *testing.T) {
	const (
		open = "a bracket is not closed, or not opened"
		net  = "it asks the network for something, which no page may"
	)
	for text, want := range map[string]string{
		"":                                    "",
		"a { color: red }":                    "",
		"a { color: red } }":                  open,
		"a { color: red ":                     open,
		"a[href { x: y }":                     open,
		"a { b: c(d }":                        open,
		"a::after { content: \"}\" } /* { */": "",
		"/* see https://x.example */":         "",
		"a::after { content: \"https://x.example\" }":                 "",
		"a { background: url(wave.png) }":                             "",
		"a { background: url(\"data:image/png;base64,AA==\") }":       "",
		"a { background: url( https://x.example/a.png ) }":            net,
		"a { background: URL(\"//x.example/a.png\") }":                net,
		"a { background: image-set(\"https://x.example/a.png\" 1x) }": net,
		"a { background: -webkit-image-set('//x.example/a.png' 1x) }": net,
		"a { background: url(file:///etc/passwd) }":                   net,
		"a { background: url(\"\\68ttps://x.example/a.png\") }":       net,
		"@import \"x.css\";":                                          net,
		"@IMPORT url(x.css);":                                         net,
		"@\\69mport \"x.css\";":                                       net,
		"@media (width > 1px) { a { b: c } }":                         "",
		"a { content: \"open\n }":                                     "a text in quotes is not closed",
		"a { background: url(x y) }":                                  "an address is not closed",
	} {
		l, found := problems(t, fstest.MapFS{"x.css": {Data: []byte(text)}}, settings.Look{Style: word("x.css")})
		if want == "" {
			assert.Empty(t, found, text)
			assert.Equal(t, text, string(l.Style))
			continue
		}
		assert.Equal(t, []string{"x.css is left out: " + want}, found, text)
		assert.Empty(t, l.Style, text)
	}
}
