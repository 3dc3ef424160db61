package demo_test

import (
	"fmt"
	"path"
	"slices"
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
	var planted []string // in the parts of Java, C#, C, C++, Rust and Perl
	for _, f := range s.Findings {
		found[f.Rule] = true
		if part, _, _ := strings.Cut(strings.TrimPrefix(f.Place.File, "clients/"), "/"); slices.Contains([]string{"java", "board", "driver", "simulation", "solver", "importer"}, part) {
			planted = append(planted, fmt.Sprintf("%s:%d %s", path.Base(f.Place.File), f.Place.At.Line, f.Rule))
		}
	}
	assert.Equal(t, []string{
		"HarbourBoard.Rows.cs:17 broken-reference",
		"HarbourBoard.Rows.cs:20 broken-reference",
		"HarbourBoard.Rows.cs:21 phantom-parameter",
		"HarbourBoard.Rows.cs:23 undescribed-parameter",
		"Rows.cs:25 undocumented",
		"Rows.cs:58 deprecated-without-advice",
		"Reply.cs:11 malformed-comment",
		"Reply.cs:14 malformed-comment",
		"Reply.cs:20 unknown-tag",
		"Reply.cs:25 undescribed-result",
		"Reply.cs:34 repeated-section",
		"Booking.java:5 import-cycle",
		"Booking.java:53 undescribed-parameter",
		"Booking.java:53 undescribed-failure",
		"Booking.java:56 broken-reference",
		"Booking.java:58 unknown-tag",
		"Booking.java:64 undocumented",
		"Booking.java:72 deprecated-without-advice",
		"Booking.java:72 undocumented",
		"HarbourAgent.java:12 malformed-comment",
		"HarbourAgent.java:24 phantom-parameter",
		"HarbourAgent.java:58 leaked-type",
		"Request.java:35 repeated-section",
		"Tidal.java:11 empty-comment",
		"Tidal.java:12 undocumented",
		"Quote.java:1 missing-module-comment",
		"Tariff.java:27 undescribed-result",
		"errors.h:1 missing-file-comment",
		"errors.h:4 import-cycle",
		"errors.h:22 empty-comment",
		"errors.h:23 undocumented",
		"errors.h:28 malformed-comment",
		"gauge.h:135 phantom-parameter",
		"gauge.h:149 undescribed-result",
		"gauge.h:158 undescribed-parameter",
		"gauge.h:171 broken-reference",
		"gauge.h:188 deprecated-without-advice",
		"gauge.h:190 undocumented",
		"gauge.h:197 unknown-tag",
		"gauge.h:199 repeated-section",
		"gauge.c:32 conflicting-comments",
		"gauge.c:47 headerless-function",
		"logbook-import:53 undocumented",
		"Logbook.pm:121 deprecated-without-advice",
		"Logbook.pm:123 undocumented",
		"Logbook.pm:127 broken-reference",
		"Logbook.pm:190 malformed-comment",
		"Line.pm:30 undocumented",
		"Line.pm:33 malformed-comment",
		"Line.pm:37 malformed-comment",
		"Line.pm:71 undocumented",
		"Line.pm:73 undocumented",
		"Line.pm:79 undocumented",
		"basin.hpp:14 undocumented",
		"basin.hpp:139 broken-reference",
		"basin.hpp:140 undescribed-result",
		"basin.hpp:152 phantom-parameter",
		"basin.hpp:153 undescribed-parameter",
		"harbour.hpp:69 leaked-type",
		"basin.cpp:34 conflicting-comments",
		"constituent.rs:55 undocumented",
		"constituent.rs:65 deprecated-without-advice",
		"curve.rs:63 broken-reference",
		"curve.rs:64 leaked-type",
		"curve.rs:117 empty-comment",
		"curve.rs:118 undocumented",
		"raw.rs:23 undescribed-unsafety",
		"solve.rs:75 broken-reference",
		"solve.rs:84 leaked-type",
		"lib.rs:65 missing-module-comment",
	}, planted)
	for _, r := range check.Rules {
		assert.True(t, found[r.Name], "no planted flaw for %s", r.Name)
	}
}
