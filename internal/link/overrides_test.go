package link_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/settings"
)

// families are types with bases on several levels, in three languages.
var families = map[string]string{
	"engine/berth/berth.go": `// Package berth knows berths.
package berth

// Mooring holds vessels.
type Mooring interface {
	// Moor takes a vessel in.
	Moor(name string) error
	Leave(name string)
}

// Quay is a mooring.
type Quay struct{}

func (Quay) Moor(name string) error { return nil }

// Leave lets a vessel go.
func (Quay) Leave(name string) {}
`,
	"engine/metrics/metrics.go": `// Package metrics is nobody's business.
package metrics

// Mover moors by chance.
type Mover interface {
	// Leave exports a number.
	Leave(name string)
}
`,
	"engine/pier/pier.go": `// Package pier knows piers.
package pier

import "tidebook.example/engine/berth"

// Raft is one.
type Raft struct{ berth.Quay }

func (Raft) Moor(name string) error { return nil }

func (Raft) Leave(name string) {}
`,
	"engine/go.mod":                 "module tidebook.example/engine\n",
	"clients/python/pyproject.toml": "[project]\nname = \"tidebook\"\n",
	"clients/python/tidebook.py": `"""Tides."""


class Sunk(Exception):
    """A vessel is gone."""


class Place(Place2 if False else object):
    """A place."""


class Berth:
    """A berth."""

    depth = 3
    """How deep it is."""

    def moor(self, vessel):
        """Takes a vessel in.

        Raises:
            Sunk: It is gone.
        """
        raise Sunk(vessel)

    def leave(self): ...


class Quay(Berth):
    """A quay."""

    def moor(self, vessel):
        pass


class Pier(Quay):
    """A pier."""

    depth = 4

    def moor(self, vessel):
        pass

    def leave(self):
        """Lets a vessel go."""


class Loop(Knot):
    """One of a circle."""

    def tie(self): ...


class Knot(Loop):
    """The other."""

    def tie(self): ...
`,
	"clients/web/package.json": `{"name": "web"}`,
	"clients/web/berth.ts": `/** Holds vessels. */
export interface Mooring {
  /** Takes a vessel in. */
  moor(name: string): void
  leave(): void
}
/** Can be lit. */
export interface Lit extends Mooring {
  /** Turns the lights on. */
  light(): void
}
/** A quay. */
export class Quay implements Lit {
  moor(name: string) {}
  /** {@inheritDoc} */
  light() {}
  leave() {}
}
/** A pier. */
export class Pier<T> extends Quay {
  moor(name: string) {}
  /** Lets go at once. */
  leave() {}
}
`,
}

func declared(t testing.TB, s *build.Snapshot, library, path string) *model.Declaration {
	t.Helper()
	for _, lib := range s.Project.Libraries {
		if lib.Language != library {
			continue
		}
		for _, m := range lib.Modules {
			if d := m.Lookup(path); d != nil {
				return d
			}
		}
	}
	require.Fail(t, "not declared", "%s in %s", path, library)
	return nil
}

func paths(list []*model.Declaration) string {
	var out []string
	for _, d := range list {
		out = append(out, d.Path())
	}
	return strings.Join(out, " ")
}

func TestFamilies(t *testing.T) {
	s := deep(t, families)
	for _, c := range []struct{ language, of, implements, extends, overrides, overridden string }{
		{"python", "Quay", "", "Berth", "", ""},
		{"python", "Pier", "", "Quay", "", ""},
		{"python", "Pier.moor", "", "", "Quay.moor", ""},
		{"python", "Quay.moor", "", "", "Berth.moor", "Pier.moor"},
		{"python", "Pier.leave", "", "", "Berth.leave", ""},
		{"python", "Pier.depth", "", "", "Berth.depth", ""},
		{"python", "Loop.tie", "", "", "Knot.tie", "Knot.tie"},
		{"typescript", "Lit", "", "Mooring", "", ""},
		{"typescript", "Quay", "Lit Mooring", "", "", ""},
		{"typescript", "Pier", "Lit Mooring", "Quay", "", ""},
		{"typescript", "Quay.moor", "", "", "Mooring.moor", "Pier.moor"},
		{"typescript", "Pier.leave", "", "", "Quay.leave", ""},
		{"typescript", "Lit.light", "", "", "", "Quay.light"},
		{"go", "Quay", "Mooring Mover", "", "", ""},
		{"go", "Quay.Moor", "", "", "", ""},
	} {
		r := s.Links.Relations(declared(t, s, c.language, c.of))
		name := c.language + " " + c.of
		assert.Equal(t, c.implements, paths(r.Implements), "%s fulfils", name)
		assert.Equal(t, c.extends, paths(r.Extends), "%s extends", name)
		assert.Equal(t, c.overrides, paths(r.Overrides), "%s overrides", name)
		assert.Equal(t, c.overridden, paths(r.OverriddenBy), "%s is overridden", name)
	}
	assert.Equal(t, "Berth.moor", paths(s.Links.Relations(declared(t, s, "python", "Sunk")).RaisedBy))
	assert.Equal(t, "Pier Quay", paths(s.Links.Relations(declared(t, s, "typescript", "Mooring")).ImplementedBy))
}

// What has no text of its own is described by what it takes the place of.
func TestTextOf(t *testing.T) {
	s := deep(t, families)
	for _, c := range []struct{ language, of, from string }{
		{"python", "Berth.moor", "Berth.moor"},
		{"python", "Quay.moor", "Berth.moor"},
		{"python", "Pier.moor", "Berth.moor"},
		{"python", "Pier.leave", "Pier.leave"},
		{"python", "Berth.leave", ""},
		{"python", "Pier.depth", "Berth.depth"},
		{"python", "Knot.tie", ""},
		{"typescript", "Quay.moor", "Mooring.moor"},
		{"typescript", "Pier.moor", "Mooring.moor"},
		{"typescript", "Quay.light", "Lit.light"},
		{"typescript", "Quay.leave", ""},
		{"go", "Quay.Moor", "Mooring.Moor"},
		{"go", "Quay.Leave", "Quay.Leave"},
		{"go", "Mooring.Leave", ""},
		{"go", "Raft.Moor", "Mooring.Moor"},
		{"go", "Raft.Leave", ""}, // an interface that nobody there knows of has no say
	} {
		var from []*model.Declaration
		if d := s.Links.TextOf(declared(t, s, c.language, c.of)); d != nil {
			from = append(from, d)
		}
		assert.Equal(t, c.from, paths(from), "%s %s", c.language, c.of)
	}
	assert.False(t, slices.ContainsFunc(s.Findings, func(f finding.Finding) bool { return f.Rule == "undocumented" && f.Arg("name") == "Quay.moor" }),
		"an inherited text is enough")
}

// Types that inherit themselves, and modules that give one another's names on, end.
func TestCircles(t *testing.T) {
	s := deep(t, map[string]string{
		"web/package.json": `{"name": "web"}`,
		"web/a.ts": `export * from './b'
export * from './a'
export { x as y } from './b'
/** Of itself: {@link x}, {@link A.A.f}, {@link A.f}. */
export class A extends A { f() {} }
/** Of the next. */
export class B extends C<B> { f() {} }
/** Of the one before. */
export class C<T> extends B { f() {} }
/** Of itself and the other. */
export interface I extends I, J { g(): void }
/** Of the first. */
export interface J extends I { g(): void }
`,
		"web/b.ts": "export * from './a'\nexport * from './b'\nexport { y as x } from './a'\n",
	})
	assert.Equal(t, "C", paths(s.Links.Relations(declared(t, s, "typescript", "B")).Extends))
	assert.Equal(t, "C.f", paths(s.Links.Relations(declared(t, s, "typescript", "B.f")).Overrides))
	assert.Empty(t, s.Links.Relations(declared(t, s, "typescript", "A")).Extends, "nothing extends itself")
	assert.Nil(t, s.Links.TextOf(declared(t, s, "typescript", "C.f")))
	require.Len(t, s.Links.Cycles(), 1)
	var modules []string
	for _, m := range s.Links.Cycles()[0].Modules {
		modules = append(modules, m.Path)
	}
	assert.Equal(t, []string{"a", "b"}, modules)
}

func TestModuleGraph(t *testing.T) {
	s := deep(t, map[string]string{
		"pyproject.toml": "[project]\nname = \"tides\"\n",
		"a.py":           "import b\nfrom c import x\nimport b as again\n",
		"b.py":           "import c, d\nimport os\n",
		"c.py":           "import a\n",
		"d.py":           "if TYPE_CHECKING:\n    import b\n",
		"e.py":           "if __name__ == '__main__':\n    import f\n",
		"f.py":           "import e\n",
		"test_a.py":      "import a\n",
	})
	var got []string
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for _, e := range s.Links.Imports(m) {
				edge := m.Path + ">" + e.To.Path
				if e.Apart {
					edge += " apart"
				}
				got = append(got, edge)
			}
		}
	}
	assert.Equal(t, []string{"a>b", "a>c", "b>c", "b>d", "c>a", "d>b apart", "e>f apart", "f>e"}, got)
	cycles := s.Links.Cycles()
	require.Len(t, cycles, 1)
	assert.Len(t, cycles[0].Modules, 2, "the shortest: a and c")
	assert.Equal(t, 3, cycles[0].Tangled)
	assert.Equal(t, "a.py", cycles[0].Edge.File.Path)
}

// Each form inherits from the form whose place it takes, whichever base has that, and says it
// of its own parameters.
func TestTextOfForms(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{"a/A.java": `package a;
/** Solves. */
interface Solver<F> {
  /** Between two.
   * @param from Where it begins.
   * @param to Where it ends. */
  double solve(F f, double from, double to);
  /** Near one.
   * @param near Where about.
   * @return A root. */
  double solve(F f, double near);
}
/** Solves between. */
interface Bracketed<F> extends Solver<F> {
  /** Between, and which.
   * @param kind Which.
   * @param from Where it begins.
   * @param to Where it ends. */
  double solve(F f, double from, double to, String kind);
}
/** A base. */
abstract class Base implements Solver<String> {
  /** {@inheritDoc} */
  public double solve(String f, double min, double max) { return 0; }
  /** {@inheritDoc} */
  public double solve(String f, double near) { return 0; }
}
/** All. */
public class All extends Base implements Bracketed<String> {
  /** {@inheritDoc} */
  @Override public double solve(String f, double near) { return 0; }
  /** {@inheritDoc} */
  @Override public double solve(String f, double min, double max, String which) { return 0; }
  /** {@inheritDoc} Twice. */
  @Override public double solve(String f, double min, double max) { return 0; }
  /** All but {@link #solve(String, double)} and {@link All}; the constructor is {@link #All()}. */
  private All() {}
}
`}), build.Options{Folder: "a", Settings: &settings.Settings{Reach: model.ReachPrivate}})
	solve := declared(t, s, "java", "All.solve")
	assert.Equal(t, "Base.solve Bracketed.solve", paths(s.Links.Relations(solve).Overrides))
	var said []string
	for _, form := range s.Links.FormsInReach(solve) {
		text := s.Links.TextOfForm(solve, &form)
		require.NotNil(t, text.Doc)
		sections := link.AsCalled(s.Links.Comments.Of(solve.Module.Library.Habits, text.File, text.Doc), text.Form, &form)
		line := text.Of.Path() + ": " + strings.TrimSpace(prose.Plain(sections.Body[0].Children))
		for _, p := range sections.Of(prose.Parameters) {
			for _, e := range p.Entries {
				line += " " + e.Name
			}
		}
		said = append(said, line)
	}
	assert.Equal(t, []string{"Solver.solve: Near one. near", "Bracketed.solve: Between, and which. which min max", "All.solve: {@inheritDoc} Twice."}, said)
	base := declared(t, s, "java", "Base").Speaks(model.Words).Line
	for _, f := range s.Findings {
		if f.Place.At.Line > int(base) {
			assert.NotContains(t, []string{"undescribed-parameter", "undescribed-result", "broken-reference"}, f.Rule, f.Place.At)
		}
	}
}

// A comment of Java has what it does not say from the comments above it, the nearest first.
func TestPartsAbove(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{"a/A.java": `package a;
/** A base. */
class A {
  /**
   * Moors.
   * @param name Which.
   * @param hours How long.
   * @return Whether.
   */
  boolean moor(String name, int hours) { return true; }
}
/** Between. */
class B extends A {
  /** Moors well. @param x No tag.
   * @throws IllegalStateException where full. */
  @Override boolean moor(String name, int hours) { return true; }
}
/** Below. */
class C extends B implements Runnable {
  /** Moors best.
   * @param ship Which ship. */
  @Override boolean moor(String ship, int many) { return true; }
  /** Runs.
   * @param pace How fast. */
  @Override public void run() { }
  /** Compares.
   * @param o What. */
  @Override public int compareTo(Object o, int how) { return 0; }
}
`}), build.Options{Folder: "a", Settings: &settings.Settings{Reach: model.ReachPrivate}})
	moor := declared(t, s, "java", "C.moor")
	var said []string
	for _, above := range s.Links.PartsAbove(moor, s.Links.MainForm(moor)) {
		line := above.Of.Path()
		for _, p := range above.Parts {
			line += " " + prose.PartNames[p.Kind]
			for _, e := range p.Entries {
				line += " " + e.Name
			}
		}
		said = append(said, line)
	}
	assert.Equal(t, []string{"B.moor failures IllegalStateException", "A.moor parameters ship many results "}, said)
	for name, want := range map[string][]string{"C.moor": {"B.moor", "A.moor"}, "B.moor": {"A.moor"}, "A.moor": nil, "C.run": nil} {
		var from []string
		for _, of := range s.Links.TextsFrom(declared(t, s, "java", name)) {
			from = append(from, of.Path())
		}
		assert.Equal(t, want, from, "whose words stand in the text of %s", name)
	}
	var found []string
	for _, f := range s.Findings {
		if f.Rule != finding.MissingModuleComment {
			found = append(found, fmt.Sprint(f.Place.At.Line, " ", f.Rule))
		}
	}
	assert.Equal(t, []string{"24 phantom-parameter"}, found, "what may be inherited from outside is not missing")
}
