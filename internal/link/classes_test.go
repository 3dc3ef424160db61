package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/finding"
	"codrel/internal/model"
)

// Packages of Perl are classes: their bases are packages, at once or through others.
func TestClassesOfPerl(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"lib/Vessel.pm":       "package Vessel;\n\n=head1 NAME\n\nVessel - floats\n\n=head2 moor\n\nMoors.\n\n=head2 sink\n\nSinks.\n\n=cut\n\nsub new { }\nsub moor { my $self = shift; }\nsub sink { my $self = shift; }\nsub _own { }\nuse constant DEPTH => 3;\n1;\n",
		"lib/Vessel/Ferry.pm": "package Vessel::Ferry;\nuse parent -norequire, 'Vessel';\n\n=head1 NAME\n\nVessel::Ferry - carries\n\n=cut\n\nsub moor { my $self = shift; }\nsub load { my $self = shift; }\n1;\n",
		"lib/Cat.pm":          "package Cat;\nour @ISA = ('Vessel::Ferry', 'Gone');\n\n=head1 NAME\n\nCat - is fast\n\n=head2 sink\n\nNever.\n\n=cut\n\nsub sink { my $self = shift; }\n\npackage Cat::Inner;\nuse base 'Cat';\n1;\n",
		"lib/Round.pm":        "package Round;\nuse parent 'Round';\n\n=head1 NAME\n\nRound - is its own\n\n=cut\n\n1;\n",
	}), build.Options{})
	at := map[string]*model.Module{}
	for _, m := range s.Project.Libraries[0].Modules {
		at[m.Path] = m
	}
	paths := func(list []*model.Module) (out []string) {
		for _, m := range list {
			out = append(out, m.Path)
		}
		return out
	}
	assert.Equal(t, []string{"Vessel::Ferry"}, paths(s.Links.BaseModules(at["Cat"])), "what is nowhere is no base")
	assert.Equal(t, []string{"Cat"}, paths(s.Links.BaseModules(at["Cat::Inner"])))
	assert.Empty(t, s.Links.BaseModules(at["Round"]))
	assert.Equal(t, []string{"Cat"}, paths(s.Links.ExtendedModules(at["Vessel::Ferry"])))
	var from []string
	for _, i := range s.Links.InheritedByModule(at["Cat"]) {
		for _, d := range i.Members {
			from = append(from, i.Module.Path+" "+d.Name)
		}
	}
	assert.Equal(t, []string{"Vessel::Ferry moor", "Vessel::Ferry load", "Vessel new", "Vessel DEPTH"}, from, "the nearest of each name, and nothing private")
	moor, sink := at["Vessel::Ferry"].Find("moor"), at["Cat"].Find("sink")
	require.NotNil(t, moor)
	assert.Equal(t, at["Vessel"].Find("moor"), s.Links.TextOf(moor), "it has the text of what it takes the place of")
	assert.Equal(t, sink, s.Links.TextOf(sink))
	assert.Equal(t, []*model.Declaration{at["Vessel"].Find("sink")}, s.Links.Relations(sink).Overrides)
	assert.Equal(t, []*model.Declaration{moor}, s.Links.Relations(at["Vessel"].Find("moor")).OverriddenBy)
	var missing []string
	for _, f := range s.Findings {
		if f.Rule == finding.Undocumented {
			missing = append(missing, f.Subject)
		}
	}
	assert.Equal(t, []string{"project/Vessel#new", "project/Vessel#DEPTH", "project/Vessel::Ferry#load"}, missing)
}
