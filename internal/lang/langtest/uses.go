package langtest

import (
	"strings"
	"testing"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// Uses reads a file and gives what its code uses, in order: "name", "a.b", or
// "Type>member" where what stands before the member has that type, all joined by
// blanks.
func Uses(t testing.TB, end lang.FrontEnd, path, text string) string {
	t.Helper()
	facts := Read(end, path, []byte(text))
	Valid(t, facts)
	var out []string
	for use := range facts.Inside.Uses.All() {
		name := use.Span.In(facts.Text)
		if use.Form >= model.UseMember {
			name = use.Type.In(facts.Text) + ">" + name
		}
		out = append(out, name)
	}
	return strings.Join(out, " ")
}
