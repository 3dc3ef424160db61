package cfamily_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
	"codrel/internal/source"
)

func TestMacrosThatDeclare(t *testing.T) {
	langtest.Cases(t, c, "a.h", `
#define HANDLE(name) typedef struct name##_s *name
/** A line. */
HANDLE(line);
=> 1 macro HANDLE(name)
=> 3 type line doc

#define TABLE(type, name, size) extern type name[size]
TABLE(int, depths, 3);
TABLE(struct tide, tides, 4);
int other;
=> 1 macro TABLE(type, name, size)
=> 2 variable depths
=> 3 variable tides
=> 4 variable other

#define PAIR(a, b) struct a { int x; }; enum b { b##_ONE }
PAIR(first, second);
=> 1 macro PAIR(a, b)
=> 2 struct first
=> 2 field first.x
=> 2 enum second
=> 2 enum-member second.second_ONE

#define SAYS(text) do { puts(text); } while (0)
SAYS(hello);
int z;
=> 1 macro SAYS(text)
=> 3 variable z

#define STACK(type) typedef int (*stack_##type##_compare)(const type *a, const type *b); \
	static inline int stack_##type##_size(const struct stack_##type *s) { return 0; }
/** Stacks of tides. */
STACK(tide)
#define STACKS(a, b) STACK(a) STACK(b)
STACKS(berth, quay);
=> 1 macro STACK(type)
=> 4 type stack_tide_compare(a, b) doc
=> 4 function stack_tide_size(s)
=> 5 macro STACKS(a, b)
=> 6 type stack_berth_compare(a, b)
=> 6 function stack_berth_size(s)
=> 6 type stack_quay_compare(a, b)
=> 6 function stack_quay_size(s)

#define HEAD int count; struct tide *next
#define TAIL long at, until;
#define PACKED __attribute__((packed))
#define WORD unsigned int
struct tide {
	/** What all have. */
	HEAD;
	int height;
	TAIL
	PACKED int low;
	WORD high;
};
=> 1 macro HEAD
=> 2 macro TAIL
=> 3 macro PACKED
=> 4 macro WORD
=> 5 struct tide
=> 7 field tide.count doc
=> 7 field tide.next
=> 8 field tide.height
=> 9 field tide.at
=> 9 field tide.until
=> 10 field tide.low
=> 11 field tide.high

#define FIELD(type, name) type name
struct berth {
	FIELD(int, length);
	int depth;
};
=> 1 macro FIELD(type, name)
=> 2 struct berth
=> 3 field berth.length
=> 4 field berth.depth

#define DECLARE(name, args) typedef int (*fn_ ## name) args; int CALLED name args
DECLARE(tide_open, (const char *path, int mode));
DECLARE (tide_shut,
	(int tide));
=> 1 macro DECLARE(name, args)
=> 2 type fn_tide_open(path, mode)
=> 2 function tide_open(path, mode)
=> 3 type fn_tide_shut(tide)
=> 3 function tide_shut(tide)

#define _Xconst const
#define _Xnothing
void convert(_Xconst _XtString, _Xnothing Tide *, _Xother name);
=> 1 macro _Xconst
=> 2 macro _Xnothing
=> 3 function convert(, , name)

#define AGAIN(x) AGAIN(x) struct x;
AGAIN(y);
int z;
=> 1 macro AGAIN(x)
=> 2 struct y
=> 3 variable z`)
	langtest.Cases(t, plus, "a.hpp", `
#define TRAIT(name) namespace detail { struct name##_impl { int value; }; } struct has_##name {};
namespace tide { TRAIT(level); }
=> 1 macro TRAIT(name)
=> 2 struct level_impl
=> 2 field level_impl.value
=> 2 struct has_level

#define UNIT(name, sign) struct name { double value; }
namespace units { UNIT(Knots, "kn"); UNIT(Metres, "m"); }
class A { UNIT(Inner, "i"); int b; };
=> 1 macro UNIT(name, sign)
=> 2 struct Knots
=> 2 field Knots.value
=> 2 struct Metres
=> 2 field Metres.value
=> 3 class A
=> 3 struct A.Inner
=> 3 field A.Inner.value
=> 3 field A.b`)
}

// What a macro declares may be said in a header of the project.
func TestMacrosOfOtherHeaders(t *testing.T) {
	other := func(file string) []byte {
		if file == "include/own.h" {
			return []byte("#define HANDLE(name) \\\n  typedef struct name##_s *name\n")
		}
		return nil
	}
	facts := c.Read(lang.File{Path: "src/a.h", Text: source.Decode([]byte("#include \"own.h\"\n/** A line. */\nHANDLE(line);\nHANDLE(berth); /**< A berth. */\n")), Other: other})
	var got []string
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		got = append(got, o.Kind.String()+" "+o.Name+": "+o.Signature.Text(facts.Text)+": "+textOf(o.Doc))
	}
	assert.Equal(t, []string{"type line: typedef struct line_s *line: A line.", "type berth: typedef struct berth_s *berth: A berth."}, got)
	langtest.Valid(t, facts)
}

// What macros stand for where files ask for the machine first: what a common one takes, else what is
// there at all; and so for files that are included.
func TestMacrosInBranches(t *testing.T) {
	for name, c := range map[string]struct {
		text  string
		other map[string]string
		want  string
	}{
		"the other branch comes first": {"#ifdef _WIN32\n#define FIELDS HANDLE handle; int port;\n#else\n#define FIELDS int descriptor;\n#endif\nstruct line { FIELDS int x; };", nil, "line descriptor x"},
		"it is the only one":           {"#ifdef _WIN32\n#define FIELDS HANDLE handle;\n#endif\nstruct line { FIELDS int x; };", nil, "line handle x"},
		"by what is not":               {"#if !defined(_WIN32)\n#define FIELDS int here;\n#else\n#define FIELDS int there;\n#endif\nstruct line { FIELDS };", nil, "line here"},
		"one after the other":          {"#if defined(_WIN32)\n#define FIELDS int a;\n#elif defined(__APPLE__)\n#define FIELDS int b;\n#elif 1\n#define FIELDS int c;\n#else\n#define FIELDS int d;\n#endif\nstruct line { FIELDS };", nil, "line c"},
		"one in another":               {"#ifdef _WIN32\n#if 1\n#define FIELDS int a;\n#endif\n#else\n#define FIELDS int b;\n#endif\nstruct line { FIELDS };", nil, "line b"},
		"nobody knows":                 {"#ifdef DEEP\n#define FIELDS int a;\n#else\n#define FIELDS int b;\n#endif\nstruct line { FIELDS };", nil, "line a"},
		"included files":               {"#ifdef _WIN32\n#include \"win.h\"\n#else\n#include \"unix.h\"\n#endif\nstruct line { FIELDS };", map[string]string{"win.h": "#define FIELDS int handle;\n", "unix.h": "#define FIELDS int descriptor;\n"}, "line descriptor"},
		"only the other file is there": {"#ifdef _WIN32\n#include \"win.h\"\n#else\n#include \"unix.h\"\n#endif\nstruct line { FIELDS };", map[string]string{"win.h": "#define FIELDS int handle;\n"}, "line handle"},
		"a comment behind":             {"#ifdef _WIN32 /* else */\n#define FIELDS int a;\n#else // here\n#define FIELDS int b;\n#endif\nstruct line { FIELDS };", nil, "line b"},
		"never closed":                 {"#ifdef _WIN32\n#define FIELDS int a;\nstruct line { FIELDS };", nil, "line a"},
		"too many ends":                {"#endif\n#else\n#elif 1\n#define FIELDS int a;\nstruct line { FIELDS };", nil, "line a"},
		"an attribute is no field":     {"#define PACKED __attribute__((packed))\nstruct line { PACKED int x; };", nil, "line x"},
		"a type is none":               {"#define WORD unsigned int\nstruct line { WORD x; WORD; };", nil, "line x"},
		"nor are functions":            {"#define BOTH int f(void); int g;\nstruct line { int x; BOTH };", nil, "line x"},
	} {
		facts := readBeside(c.text, c.other)
		var got []string
		for i := range facts.Occurrences {
			if o := &facts.Occurrences[i]; o.Kind != model.KindMacro {
				got = append(got, o.Name)
			}
		}
		assert.Equal(t, c.want, strings.Join(got, " "), name)
	}
}

// readBeside reads a header of C beside other files.
func readBeside(text string, other map[string]string) *model.Facts {
	return c.Read(lang.File{Path: "a.h", Text: source.Decode([]byte(text + "\n")), Other: func(path string) []byte {
		if text, ok := other[path]; ok {
			return []byte(text)
		}
		return nil
	}})
}
