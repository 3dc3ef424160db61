package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What a trait asks for stands aside, behind what a type has of its own; a group of nothing else
// comes last.
func TestAsideComesLast(t *testing.T) {
	p := planned(t, map[string]string{
		"Cargo.toml": "[package]\nname = \"tide\"\n",
		"src/lib.rs": "//! Tides.\n/// One.\npub struct Tide { /// How high.\n pub height: f64 }\nimpl Iterator for Tide { type Item = u8; fn next(&mut self) -> Option<u8> { None } }\nimpl Tide { /// Is it?\n pub fn high(&self) -> bool { true } }\n",
	})
	m := p.Modules(p.Libraries()[0])[0]
	var groups []string
	for _, g := range p.MembersOf(m.Lookup("Tide")) {
		text := g.Title
		for _, d := range g.All() {
			text += " " + d.Name
		}
		groups = append(groups, text)
	}
	assert.Equal(t, []string{"Fields height", "Methods high", "Iterator Item next"}, groups)
}
