package perl_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

// Lists and tags say what is exported; what a package of functions neither exports nor describes is its own.
func TestExports(t *testing.T) {
	const subs = "\n\n=head2 told\n\nTold.\n\n=cut\n\nsub moor { }\nsub berth { }\nsub told { }\nsub quiet { }\nuse constant DEPTH => 3;\n1;\n"
	for lists, want := range map[string]string{
		"":                        "moor berth told quiet DEPTH",
		"our @EXPORT = qw(moor);": "moor(exported) told",
		"our @EXPORT_OK = ('moor', \"berth\"); push @EXPORT_OK, 'DEPTH';":                      "moor(exported on request) berth(exported on request) told DEPTH(exported on request)",
		"@EXPORT = ('&moor'); push(@EXPORT_OK, 'berth');":                                      "moor(exported) berth(exported on request) told",
		"our @EXPORT_OK = qw(moor); our %EXPORT_TAGS = (all => \\@EXPORT_OK);":                 "moor(exported on request,:all) told",
		"our @EXPORT = qw(moor); our %EXPORT_TAGS = ('deep' => ['DEPTH'], ':x' => [@EXPORT]);": "moor(exported,:x) told DEPTH(exported on request,:deep)",
		"our @EXPORT = qw(moor); sub new { }":                                                  "new moor(exported) berth told quiet DEPTH",
		"our @EXPORT = qw(moor); sub up { my $self = shift; }":                                 "up moor(exported) berth told quiet DEPTH",
		"our @EXPORT = qw(moor); use parent 'Quay';":                                           "moor(exported) berth told quiet DEPTH",
	} {
		facts := langtest.Read(end, "lib/A.pm", []byte("package A;\n"+lists+subs))
		var got []string
		for _, o := range facts.Occurrences {
			if o.Kind == model.KindVariable || o.Export == model.NotExported {
				continue
			}
			word := o.Name
			if how := o.Modifiers(); len(how) > 0 {
				word += "(" + strings.Join(how, ",") + ")"
			}
			got = append(got, word)
		}
		assert.Equal(t, want, strings.Join(got, " "), lists)
	}
}
