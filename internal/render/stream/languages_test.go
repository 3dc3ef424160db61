package stream_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"sort"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/render/stream"
)

// streamed is a file and the lines that the symbol stream has of it, each as its keys and
// values but for those that are the same for all.
type streamed struct{ file, text, want string }

var common = map[string]bool{"file": true, "language": true, "library": true, "span": true, "nameSpan": true, "commentLines": true, "role": true}

func compact(t *testing.T, file, text string) string {
	t.Helper()
	s, err := build.Read(t.Context(), buildtest.Files(map[string]string{file: text}), build.Options{FrontEnds: languages.All, Folder: "port"})
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, stream.Write(&b, s.Project, stream.Want{Reach: model.ReachPrivate}))
	var out strings.Builder
	for line := range strings.Lines(b.String()) {
		var v map[string]any
		require.NoError(t, json.Unmarshal([]byte(line), &v))
		var keys []string
		for k := range v {
			if !common[k] && k != "line" && k != "kind" && k != "name" && k != "scope" && k != "id" {
				keys = append(keys, k)
			}
		}
		sort.Strings(keys)
		name := v["name"].(string)
		if scope := v["scope"].(string); scope != "" {
			name = scope + "." + name
		}
		fmt.Fprintf(&out, "%v %v %s\n", v["line"], v["kind"], name)
		for _, k := range keys {
			value, err := json.Marshal(v[k])
			require.NoError(t, err)
			if string(value) != "null" && string(value) != "[]" {
				fmt.Fprintf(&out, "  %s %s\n", k, value)
			}
		}
	}
	return out.String()
}

func lists(t *testing.T, cases []streamed) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.file, func(t *testing.T) {
			assert.Equal(t, strings.TrimPrefix(c.want, "\n"), compact(t, c.file, c.text))
		})
	}
}
