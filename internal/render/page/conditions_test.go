package page_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
	"codrel/internal/lang/golang"
	"codrel/internal/lang/rust"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/render/page"
)

// Conditions are said in words where the language's can be taken apart, else as they are written.
func TestConditions(t *testing.T) {
	m := &page.Maker{FrontEnds: map[string]lang.FrontEnd{"rust": rust.FrontEnd{}, "go": golang.FrontEnd{}}, Texts: look.Plain().Texts}
	at := func(language string, conditions ...string) model.At {
		return model.At{Occurrence: &model.Occurrence{Extra: &model.Extra{Conditions: conditions}}, File: &model.Facts{Language: language}}
	}
	for condition, want := range map[string]string{
		`feature = "tides"`:                 "only with the feature tides",
		`not(feature = "tides")`:            "only without the feature tides",
		`unix`:                              "only on Unix",
		`not(target_os = "macos")`:          "not on macOS",
		`any(feature = "a", feature = "b")`: "only with the feature a or b",
		`all(unix, any(feature = "a", target_arch = "arm"))`: "only on Unix and (with the feature a or on arm processors)",
		`not(any(unix, windows))`:                            "not on Unix or Windows",
		`any(doc, feature = "a")`:                            "",
		`all(docs, feature = "a")`:                           "only with the feature a",
		`debug_assertions`:                                   "only where debug_assertions is set",
		`target_pointer_width = "64"`:                        "only where pointers have 64 bits",
		`panic = "unwind"`:                                   "only where panic = unwind",
		`target_feature = "sse2"`:                            "only on processors with sse2",
		``:                                                   "",
		`any(not(unix), not(windows))`:                       "not on Unix or not on Windows",
		`all(not(unix), not(windows))`:                       "not on Unix or Windows",
		`not(all(unix, windows))`:                            "not on Unix or not on Windows",
		`not(doc)`:                                           "only where doc is not set",
		`all()`:                                              "",
		`feature = `:                                         "only where feature = is set",
	} {
		when, got := m.Conditions(at("rust", condition)), ""
		if !when.None() {
			got = when.Words(m.Texts)
		}
		assert.Equal(t, want, got, condition)
	}
	assert.Equal(t, "only on Unix and with the feature a", m.Conditions(at("rust", "unix", `feature = "a"`)).Words(m.Texts))
	assert.Equal(t, "for linux and amd64", m.Conditions(at("go", "linux", "amd64")).Words(m.Texts))
	assert.True(t, m.Conditions(at("go")).None())
}
