package link_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/check"
)

// broken are the references in a comment of a header of C that are said to be broken; others are
// the names that it declares besides.
func broken(t *testing.T, comment string, others ...string) (out []string) {
	t.Helper()
	var b strings.Builder
	fmt.Fprintf(&b, "#include <stdlib.h>\n/** %s */\nint tg_open(void);\n", comment)
	for _, name := range others {
		fmt.Fprintf(&b, "/** One. */\nint %s(void);\n", name)
	}
	s := buildtest.Run(t, buildtest.Files(map[string]string{"gauge.h": b.String()}), build.Options{})
	for i := range s.Findings {
		if f := &s.Findings[i]; f.Rule == "broken-reference" {
			out = append(out, check.Text(f))
		}
	}
	return out
}

// A name that begins as those of the library do is the library's; another one may be anybody's.
func TestPrefixes(t *testing.T) {
	own := []string{"tg_close", "tg_read", "tg_watch", "tg_level"}
	assert.Equal(t, []string{`"tg_gone()" is not declared`}, broken(t, "See #tg_gone().", own...))
	assert.Equal(t, []string{`"tg_clsoe()" is not declared; did you mean tg_close?`}, broken(t, "See #tg_clsoe().", own...))
	assert.Empty(t, broken(t, "See #tg_close() and #TG_close and #malloc() and #pthread_create().", own...))
	assert.Empty(t, broken(t, "See #tg_gone().", "tg_close", "other", "more"), "too few begin so")
	var mixed []string
	for i := range 40 {
		mixed = append(mixed, fmt.Sprint("name", i))
	}
	assert.Empty(t, broken(t, "See #tg_gone().", append(mixed, own...)...), "most begin otherwise")
}
