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

// Groups that one file names stand in the order in which it names them, not in that of the code.
func TestGroupsInTheirOrder(t *testing.T) {
	p := planned(t, map[string]string{
		"lib/Quay.pm": "package Quay;\nsub late { }\nsub moor { }\nsub new { }\nsub bare { }\n\n=head1 MAKING\n\n=head2 new\n\nMakes.\n\n=head1 MOORING\n\n=head2 moor\n\nMoors.\n\n=head2 late\n\nMoors late.\n\n=cut\n\n1;\n",
	})
	var got []string
	for _, g := range p.GroupsOf(p.Modules(p.Libraries()[0])[0]) {
		for _, d := range g.All() {
			got = append(got, g.Title+" "+d.Name)
		}
	}
	assert.Equal(t, []string{"MAKING new", "MOORING late", "MOORING moor", "Functions bare"}, got)
}
