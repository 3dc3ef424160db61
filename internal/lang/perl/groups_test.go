package perl_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
)

// The heading above what is described is its group, and what stands between them the group's text.
func TestGroups(t *testing.T) {
	for text, want := range map[string]string{
		"=head1 METHODS\n\n=head2 read\n\nReads.\n":                                                       "METHODS: read",
		"=head1 METHODS\n\nThey die.\n\n=head2 read\n\nReads.\n\n=head2 write\n\nWrites.\n":               "METHODS (They die.): read write",
		"=head1 METHODS\n\n=head2 B<Reading>\n\n=head3 read\n\nReads.\n":                                  "Reading: read, METHODS:",
		"=head1 FUNCTIONS\n\nSome.\n\n=over\n\n=item read\n\nReads.\n\n=item write\n\nWrites.\n\n=back\n": "FUNCTIONS (Some.): read write",
		"=head1 DESCRIPTION\n\nWhat it is.\n\n=over\n\n=item read\n\nReads.\n\n=back\n":                   "",
		"=head1 read\n\nReads.\n": "",
		"=head1 METHODS\n\nA.\n\n=head2 Old ones\n\nNone.\n\n=head1 OTHERS\n\n=head2 write\n\nWrites.\n": "OTHERS: write",
	} {
		facts := langtest.Read(end, "lib/Tide/Log.pm", []byte("package Tide::Log;\n\n"+text+"\n=cut\n\nsub read { }\nsub write { }\n1;\n"))
		var got []string
		for _, g := range facts.Groups {
			line := g.Title
			if g.Doc != nil {
				line += " (" + g.Doc.Text + ")"
			}
			line += ":"
			for _, o := range facts.Occurrences {
				for _, d := range o.Directives() {
					if d.Verb == "part" && d.Object == g.Name {
						line += " " + o.Name
					}
				}
			}
			got = append(got, line)
		}
		assert.Equal(t, want, strings.Join(got, ", "), text)
	}
	of := func(text string) string {
		facts := langtest.Read(end, "lib/Tide/Log.pm", []byte(text))
		return facts.ModuleDoc.Text
	}
	assert.Equal(t, "=head1 NAME\n\nx", of("=head1 NAME\n\nx\n\n=head1 METHODS\n\nSome.\n\n=head2 read\n\nReads.\n\n=cut\n\nsub read { }\n"), "the text goes where its group is")
	assert.Equal(t, "=head1 METHODS\n\nMore.", of("=head1 METHODS\n\nSome.\n\n=over\n\n=item read\n\nReads.\n\n=back\n\nMore.\n\n=cut\n\nsub read { }\n"), "what follows is the module's")
}
