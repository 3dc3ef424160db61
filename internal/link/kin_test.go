package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/finding"
	"codrel/internal/link"
)

// A package of several libraries is one to what its names mean, with and without an import.
func TestPackageOfSeveralLibraries(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"core/pom.xml":                    "<project><artifactId>core</artifactId></project>",
		"core/src/main/java/t/Tide.java":  "package t;\n/** A tide. */\npublic class Tide { /** Lowest. */ public static final int LOW = 1; }\n",
		"more/pom.xml":                    "<project><artifactId>more</artifactId></project>",
		"more/src/main/java/t/Plan.java":  "package t;\n/** Of a {@link Tide}. */\npublic class Plan extends Tide { }\n",
		"third/pom.xml":                   "<project><artifactId>third</artifactId></project>",
		"third/src/main/java/t/Mine.java": "package t;\n/** Own. */\npublic class Mine { }\n",
		"third/src/main/java/u/Use.java":  "package u;\nimport t.Tide;\nimport t.*;\n/** Of a {@link Tide#LOW}, a {@link Plan} and a {@link Mine}. */\npublic class Use { }\n",
	}), build.Options{Folder: "port"})
	assert.Equal(t, "Tide", paths(s.Links.Relations(declared(t, s, "java", "Plan")).Extends))
	scope := link.ScopeOf(declared(t, s, "java", "Use"))
	for written, library := range map[string]string{"Tide": "core", "Tide.LOW": "core", "Plan": "more", "Mine": "third"} {
		to := s.Links.Resolve(scope, written, link.MayBeExternal).Target.Declaration
		if assert.NotNil(t, to, written) {
			assert.Equal(t, library, to.Module.Library.Name, written)
		}
	}
	assert.Empty(t, leadNowhere(s))
}

// What the language gives types, enumerations and records is declared, and so is what a type
// parameter is called; what is none of that is not.
func TestMembersThatTheLanguageGives(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"a/Kind.java": "package a;\n/** Kinds. */\npublic enum Kind {\n  /** Low: {@link #ordinal()}, {@link Kind#valueOf(String)}, {@link #getClass()}. */\n  LOW\n}\n",
		"a/Part.java": "package a;\n/** A part of {@link T}, by {@link #depth()} and {@link Kind#name()}; see {@link ##how how}.\n * {@value \"%x\" #MOST} */\npublic record Part<T>(int depth) {\n  /** Most. */\n  public static final int MOST = 3;\n}\n",
		"a/Bad.java":  "package a;\n/** {@link #ordinal()} {@link Kind#ordnal()} {@link Part#deep()} */\npublic class Bad { }\n",
	}), build.Options{Folder: "a"})
	var broken []string
	for _, f := range s.Findings {
		if f.Rule == finding.BrokenReference {
			broken = append(broken, f.Place.File+" "+f.Arg("text"))
		}
	}
	assert.Equal(t, []string{"a/Bad.java ordinal()", "a/Bad.java Kind#ordnal()", "a/Bad.java Part#deep()"}, broken)
}
