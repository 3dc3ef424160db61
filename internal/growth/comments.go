package growth

import (
	"slices"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
)

// Comments requires that comments are read in time that is in proportion to their length. The
// forms that it tries follow from the texts of a fixture; further ones are the dialect's alone.
func Comments(t *testing.T, path string, read func(text string), more ...Form) {
	if testing.Short() {
		t.Skip("measures for a minute")
	}
	archive, err := txtar.ParseFile(path)
	if err != nil {
		t.Fatal(err)
	}
	var texts []string
	for _, f := range archive.Files {
		if !strings.HasSuffix(f.Name, " becomes") && !strings.HasSuffix(f.Name, " tree") {
			texts = append(texts, string(f.Data))
		}
	}
	for _, form := range slices.Concat(Forms(texts, nil), Markup, more) {
		if trouble := Trouble(form, read); trouble != "" {
			t.Error(trouble)
		}
	}
}
