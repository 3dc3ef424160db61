package join_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/join"
	"codrel/internal/lang/langtest"
	"codrel/internal/lang/madeup"
	"codrel/internal/model"
)

// told joins files of the made-up language, whose comments may stand elsewhere.
func told(t *testing.T, files ...string) *model.Contents {
	t.Helper()
	end := madeup.FrontEnd{}
	lib := &model.Contents{Library: &model.Library{Name: "port", Language: "madeup", Habits: end.Habits(), Root: "."}}
	for i := 0; i < len(files); i += 2 {
		lib.Files = append(lib.Files, langtest.Read(end, files[i], []byte(files[i+1])))
	}
	join.Library(lib, end)
	return lib
}

func TestCommentsThatStandElsewhere(t *testing.T) {
	lib := told(t,
		"a.mad", "space Port\nfn moor(vessel: text)\n/ Its own words.\nfn open()\nfn close() text common\nfn shut() text common\nfn lost() text nowhere\n",
		"b.mad", "space Other\n/ Moors.\nabout Port.moor\n/ Not its words.\nabout Port.open\n/ In common.\nabout common\n/ Of nothing.\nabout Port.missing\n")
	words := func(path string) string {
		doc, _ := find(t, lib, path).Doc()
		if doc == nil {
			return ""
		}
		return strings.TrimSpace(doc.Text)
	}
	require.Equal(t, []string{"Other", "Port"}, []string{lib.Modules[0].Path, lib.Modules[1].Path})
	lib.Modules = lib.Modules[1:]
	assert.Equal(t, "Moors.", words("moor"))
	assert.Equal(t, "Its own words.", words("open"), "what stands with the code comes first")
	assert.Equal(t, "In common.", words("close"))
	assert.Equal(t, "In common.", words("shut"))
	assert.Empty(t, words("lost"), "no file has a text of this name")

	moor := find(t, lib, "moor")
	assert.Equal(t, "b.mad", moor.Speaks(model.Words).File.Path, "a finding points where the words are")
	assert.Equal(t, "a.mad", moor.Speaks(model.Signature).File.Path, "callers see the code")
	assert.Equal(t, model.KindFunction, moor.Kind())
	require.NotNil(t, moor.Speaks(model.Words).Callable)
	assert.Equal(t, "vessel", moor.Speaks(model.Words).Callable.Params[0].Name, "so that its parameters can be described there")
	assert.Equal(t, 5, lib.Modules[0].Count(), "a comment declares nothing")
}

func TestNoCommentsElsewhere(t *testing.T) {
	lib := told(t, "a.mad", "space Port\n/ Opens.\nfn open()\n")
	assert.False(t, lib.HasAbout)
	assert.Len(t, find(t, lib, "open").Occurrences, 1)
}
