package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
)

// usesIn are the names in the code of a source file that lead somewhere, each with what it means.
func usesIn(t *testing.T, source string, files map[string]string) (out []string) {
	t.Helper()
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Inside: true})
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				if f.Path != source {
					continue
				}
				uses := s.Links.Uses(m, f)
				for span, i := range uses.All() {
					d := uses.Targets[i].Declaration
					if m := uses.Targets[i].Module; m != nil {
						out = append(out, span.In(f.Text)+" is module "+m.Path)
						continue
					}
					require.NotNil(t, d, span.In(f.Text))
					out = append(out, span.In(f.Text)+" is "+d.Module.Path+" "+d.Path())
				}
			}
		}
	}
	return out
}

// Constants of an enumeration are names of what that stands in, unless it has a scope of its own.
func TestConstantsOfEnumerations(t *testing.T) {
	files := map[string]string{
		"tide.h": "enum state { DRY, WET };\nenum { MOST = 3 };\nint depth(enum state s);\n",
		"a.c":    "#include \"tide.h\"\nstatic int own(int DRY) { return DRY + WET + MOST; }\nint depth(enum state s) { return s == DRY ? own(1) : 0; }\n",
	}
	assert.Equal(t, []string{"WET is tide.h state.WET", "MOST is tide.h MOST", "state is tide.h state", "DRY is tide.h state.DRY", "own is a.c own"}, usesIn(t, "a.c", files))
	scoped := map[string]string{
		"tide.hpp": "namespace tide {\nenum class State { dry };\nclass Basin { public: enum Kind { open, locked }; Kind kind(); };\n}\n",
		"a.cpp":    "#include \"tide.hpp\"\nnamespace tide {\nBasin::Kind Basin::kind() { if (dry) return open; return Basin::locked; }\nState now() { return State::dry; }\n}\n",
	}
	assert.Subset(t, usesIn(t, "a.cpp", scoped), []string{"open is tide Basin.Kind.open", "Basin::locked is tide Basin.Kind.locked", "State::dry is tide State.dry"})
	assert.NotContains(t, usesIn(t, "a.cpp", scoped), "dry is tide State.dry", "it has a scope of its own")
}

// Members through a pointer, by the struct that a typedef names, and through the object in the
// definition of a member; a chain of which only the beginning is known links that far.
func TestMembersThroughNames(t *testing.T) {
	assert.Subset(t, usesIn(t, "a.c", map[string]string{
		"tide.h": "typedef struct gauge_s { int depth; struct gauge_s *next; } gauge;\n",
		"a.c":    "#include \"tide.h\"\nint read(gauge *g) { return g->depth + g->gone + g->next->depth; }\n",
	}), []string{"gauge is tide.h gauge", "depth is tide.h gauge_s.depth", "next is tide.h gauge_s.next"})
	plus := usesIn(t, "a.cpp", map[string]string{
		"tide.hpp": "class Basin { public: int level(); private: Basin *other_; int level_; };\n",
		"a.cpp":    "#include \"tide.hpp\"\nint Basin::level() { if (other_->gone()) return this->level_; return other_->level(); }\n",
	})
	assert.Contains(t, plus, "this->level_ is tide.hpp Basin.level_")
	assert.Contains(t, plus, "other_->level is tide.hpp Basin.level")
	assert.Contains(t, plus, "other_ is tide.hpp Basin.other_", "what it gives is not known")
}
