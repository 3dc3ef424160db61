package langtest

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
)

// Cases reads cases that empty lines part, each a text and lines "=> ..." with what it declares, see
// [Brief].
func Cases(t *testing.T, end lang.FrontEnd, path, cases string) {
	t.Helper()
	for _, c := range strings.Split(strings.TrimSpace(cases), "\n\n") {
		text, want, ok := strings.Cut(c, "\n=>")
		assert.True(t, ok, c)
		want = strings.ReplaceAll(strings.TrimSpace(strings.ReplaceAll(want, "\n=>", "\n")), "\n ", "\n")
		assert.Equal(t, strings.TrimSpace(want), Brief(t, end, path, text+"\n"), text)
	}
}

// Brief reads a file and gives what it declares in short, one a line:
// "LINE kind Scope.name(params) doc", the last where a comment is attached.
func Brief(t testing.TB, end lang.FrontEnd, path, text string) string {
	t.Helper()
	facts := Read(end, path, []byte(text))
	Valid(t, facts)
	var b strings.Builder
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		name := o.Name
		if o.Scope != "" {
			name = o.Scope + "." + name
		}
		fmt.Fprintf(&b, "%d %s %s", o.Line, o.Kind, name)
		if o.Callable != nil {
			var params []string
			for _, p := range o.Callable.Params {
				params = append(params, p.Name)
			}
			fmt.Fprintf(&b, "(%s)", strings.Join(params, ", "))
		}
		if o.Doc != nil {
			b.WriteString(" doc")
		}
		b.WriteByte('\n')
	}
	return strings.TrimSuffix(b.String(), "\n")
}
