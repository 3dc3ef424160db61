package growth

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// spend does as many small pieces of work as it is told.
func spend(pieces int) (sum int) {
	for i := range pieces {
		sum += i ^ sum
	}
	return sum
}

var kept int

func TestTrouble(t *testing.T) {
	if testing.Short() {
		t.Skip("measures")
	}
	form := Repeat("letters", "abc ")
	assert.Empty(t, Trouble(form, func(text string) { kept += spend(20 * len(text)) }))
	assert.Contains(t, Trouble(form, func(text string) { kept += spend(len(text) * len(text)) }), "letters: ")
	assert.Empty(t, Trouble(form, func(string) {}), "what takes no time takes no more of it")
}

func TestProjectTrouble(t *testing.T) {
	if testing.Short() {
		t.Skip("measures")
	}
	defer func(was time.Duration) { tellingOfProjects = was }(tellingOfProjects)
	tellingOfProjects = telling / 3
	form := Files("files", "f%d.txt", "%d is a file, and %d another\n", map[string]string{"a": "b"})
	size := func(files map[string]string) int { return 50 * len(files) }
	assert.Empty(t, ProjectTrouble(form, func(files map[string]string) { kept += spend(20 * size(files)) }))
	assert.Contains(t, ProjectTrouble(form, func(files map[string]string) { kept += spend(size(files) * len(files) * 2) }), "files: ")
}

func TestForms(t *testing.T) {
	made := map[string]string{}
	for _, form := range Forms([]string{"class Tide: # flood\n  def ebb(self, at=1): pass\nclass Quay: # east\n"}, []string{"class"}) {
		made[form.Name] = form.Make(2)
	}
	for name, want := range map[string]string{
		`class Tide: # flood\n`:               "class Tide: # flood\nclass Tide: # flood\n",
		"class Tide: # flood":                 "class Tide: # flood class Tide: # flood ",
		"class Tide: # flood with many names": "class Tide0: # flood\nclass Tide1: # flood\n",
		"class (Tide: # flood …":              "class Tide: # flood, Tide: # flood, Tide: # flood",
		"class":                               "classclass",
		"a class ":                            "a class a class ",
		"a(…)":                                "a(a(a))",
	} {
		assert.Equal(t, want, made[name], name)
	}
	assert.NotContains(t, made, "class Quay: # east", "lines of one shape are tried once")
	assert.Equal(t, "a {\n a {\n  a { pass\n  a { pass\n", nestedOf(t))
}

func nestedOf(t *testing.T) string {
	for _, form := range Forms([]string{"a {\n"}, nil) {
		if strings.HasSuffix(form.Name, " nested") {
			return form.Make(3)
		}
	}
	t.Error("nothing is nested")
	return ""
}

func TestProjects(t *testing.T) {
	assert.Equal(t, map[string]string{"d0/a": "b", "d1/a": "b"}, Copies("x", map[string]string{"a": "b"}).Make(2))
	assert.Equal(t, map[string]string{"m": "n", "a": "<0 0;1 0;>"}, Lines("x", "a", "<", "%[1]d %[2]d;", ">", map[string]string{"m": "n"}).Make(2))
}
