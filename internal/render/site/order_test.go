package site_test

import (
	"regexp"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"

	"codrel/internal/settings"
)

// The list at the side has a type's members in the order of its page: fields, its own methods, what traits ask for.
func TestMembersAtTheSide(t *testing.T) {
	m := rendered(t, fstest.MapFS{
		"Cargo.toml": {Data: []byte("[package]\nname = \"quay\"\n")},
		"src/lib.rs": {Data: []byte("impl Drop for Port { fn drop(&mut self) {} }\nimpl Port { pub const MOST: u8 = 1;\npub fn close(self) {} }\npub struct Port { pub depth: u32 }\n")},
	}, &settings.Settings{}, 1)
	page := ""
	for _, p := range m.Paths() {
		if strings.HasSuffix(p, "/Port.html") {
			page = string(m.Get(p))
		}
	}
	var side, headings []string
	for _, found := range regexp.MustCompile(`<li><a href="#([^"]+)" translate="no">`).FindAllStringSubmatch(page, -1) {
		side = append(side, found[1])
	}
	for _, found := range regexp.MustCompile(`<h2[^>]*>([^<]+)`).FindAllStringSubmatch(page, -1) {
		headings = append(headings, found[1])
	}
	assert.Equal(t, []string{"MOST", "field:depth", "close", "drop"}, side)
	assert.Equal(t, []string{"Constants", "Fields", "Methods", "Implements Drop", "Relationships"}, headings)
}
