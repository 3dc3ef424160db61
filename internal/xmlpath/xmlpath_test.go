package xmlpath_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/xmlpath"
)

func TestFind(t *testing.T) {
	d := xmlpath.Read([]byte(`<doc><summary>A <c>berth</c> &amp; more.</summary><param name="a">One.</param><param name="b">Two.</param></doc>`))
	require.NotNil(t, d)
	for query, want := range map[string]string{
		"/doc/summary":           "<summary>A <c>berth</c> &amp; more.</summary>",
		"/doc/summary/node()":    "A <c>berth</c> &amp; more.",
		"//param[@name='b']":     `<param name="b">Two.</param>`,
		"//param/text()":         "One.Two.",
		"//param[1]/@name":       "a",
		"/doc/remarks":           "",
		"":                       "",
		"///[":                   "",
		"//param[@name=":         "",
		"count(//param)":         "",
		"no-such-function(1, 2)": "",
	} {
		got, ok := d.Find(query)
		assert.Equal(t, want, got, query)
		assert.Equal(t, want != "", ok, query)
	}
	assert.Nil(t, xmlpath.Read([]byte("<a><b></a>")))
}
