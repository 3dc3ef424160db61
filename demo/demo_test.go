package demo_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/demo"
	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/settings"
)

func TestTidebook(t *testing.T) {
	files := fstest.MapFS{}
	for _, f := range demo.Files() {
		assert.False(t, strings.HasSuffix(f.Path, ".demo"), f.Path)
		files[f.Path] = &fstest.MapFile{Data: f.Data}
	}
	require.Contains(t, files, "engine/go.mod")
	set, err := settings.Parse("codrel.yaml", files["codrel.yaml"].Data, settings.Known{Version: "0.1.0", Rules: check.Names(), Languages: languages.Names()})
	require.NoError(t, err)
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All, Folder: "tidebook"})
	require.NoError(t, err)

	declarations, generic, deprecated, variants, interfaces, programs := 0, 0, 0, 0, 0, 0
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Name == "main" {
				programs++
			}
			for d := range m.Declarations {
				declarations++
				if len(d.Speaks(model.Words).TypeParams()) > 0 {
					generic++
				}
				if d.Deprecated() {
					deprecated++
				}
				if len(d.Occurrences) > 1 {
					variants++
				}
				if d.Kind() == model.KindInterface && len(s.Links.Relations(d).ImplementedBy) > 1 {
					interfaces++
				}
			}
		}
	}
	assert.GreaterOrEqual(t, declarations, 60)
	for what, n := range map[string]int{"generics": generic, "deprecated items": deprecated, "build variants": variants, "interfaces with implementers": interfaces, "programs": programs} {
		assert.Positive(t, n, what)
	}
	found := map[string]bool{}
	for _, f := range s.Findings {
		found[f.Rule] = true
	}
	for _, r := range check.Rules {
		assert.True(t, found[r.Name], "no planted flaw for %s", r.Name)
	}
}
