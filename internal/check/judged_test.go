package check_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build/buildtest"
)

// judged is a project and all that is said of it.
type judged struct{ name, files, want string }

func judge(t *testing.T, cases []judged) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			assert.Equal(t, strings.TrimSpace(c.want), strings.Join(texts(run(t, buildtest.Texts(c.files), nil).Findings), "\n"))
		})
	}
}

// Texts of a declaration and of its definition: the same words, one of two, different ones.
func TestConflictingComments(t *testing.T) {
	judge(t, []judged{
		{"the same words, set otherwise", `
-- include/a.h --
/** Opens a gauge,
 *  and reads it. */
int open_gauge(void);
-- src/a.c --
/// Opens a gauge, and reads it.
int open_gauge(void) { return 0; }
`, ""},
		{"one text serves both", `
-- include/a.h --
int open_gauge(void);
-- src/a.c --
/** Opens a gauge. */
int open_gauge(void) { return 0; }
`, ""},
		{"overloads, each with its own", `
-- include/a.hpp --
namespace tide {
/** By its port. */
int open_gauge(int port);
/** By its name. */
int open_gauge(const char *name);
}
-- src/a.cpp --
namespace tide {
/** By its port. */
int open_gauge(int port) { return 0; }
/** By a name. */
int open_gauge(const char *name) { return 1; }
}
`, "src/a.cpp:4:1 warning the comment on the definition of open_gauge differs from that at its declaration (include/a.hpp, line 5) [conflicting-comments]"},
		{"a member of a class", `
-- include/a.hpp --
/** A gauge. */
class Gauge {
public:
  /** Reads it. */
  int read();
};
-- src/a.cpp --
/** Reads the level. */
int Gauge::read() { return 0; }
`, "src/a.cpp:1:1 warning the comment on the definition of Gauge.read differs from that at its declaration (include/a.hpp, line 5) [conflicting-comments]"},
	})
}

// Functions that no header declares are asked for only where the rule is on, and only where
// others can link to them.
func TestHeaderlessFunctions(t *testing.T) {
	const on = "\n-- codrel.yaml --\nchecks: {rules: {headerless-function: note, undocumented: off}}\n"
	judge(t, []judged{
		{"in a namespace", on + `
-- include/a.hpp --
namespace tide { int open(); }
-- src/a.cpp --
namespace tide {
int open() { return shut(); }
int shut() { return 0; }
static int own() { return 0; }
namespace { int hidden() { return 0; } }
}
`, "src/a.cpp:3:5 note no header declares shut, which other files can link to: declare it, or make it static [headerless-function]"},
		{"a declaration of the source's own", on + `
-- include/a.h --
int open_gauge(void);
-- src/a.c --
int own(void);
int open_gauge(void) { return own(); }
int own(void) { return 0; }
int main(void) { return 0; }
`, "src/a.c:1:5 note no header declares own, which other files can link to: declare it, or make it static [headerless-function]"},
		{"an internal header", on + `
-- include/a.h --
int open_gauge(void);
-- src/own.h --
int own(void);
-- src/a.c --
int own(void) { return 0; }
int open_gauge(void) { return own(); }
`, ""},
	})
}

// What operators give need be said only where it is not what every operator of the kind gives.
func TestResultsOfOperators(t *testing.T) {
	judge(t, []judged{{"of C++", `
-- include/a.hpp --
/** A gauge. */
class Gauge {
public:
  /** Takes another one's place. @param other the one */
  Gauge &operator=(const Gauge &other);
  /** For tests of a gauge. @throws Fault where it is shut */
  explicit operator bool() const;
  /** Calls the gauge. @param n how often */
  int operator()(int n) const;
};
/** Writes a gauge. @param out where @param gauge what */
std::ostream &operator<<(std::ostream &out, const Gauge &gauge);
/** Weighs both. @param one the first @param other the second */
Gauge operator+(const Gauge &one, const Gauge &other);
`, `
include/a.hpp:9:7 note the comment on Gauge.operator() does not say what it returns [undescribed-result]
include/a.hpp:14:7 note the comment on operator+ does not say what it returns [undescribed-result]`}})
}
