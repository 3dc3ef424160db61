package python_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/lang/python"
	"codrel/internal/source"
)

// Each case is a form of real code that a reader line by line would get wrong.
func TestTraps(t *testing.T) {
	for _, c := range []struct{ name, text, want string }{
		{"code in a docstring", "def f():\n    \"\"\"Text.\ndef g(): pass\nclass H: pass\n\"\"\"\n    x = 1\ndef i(): pass\n", "1 function f() doc\n7 function i()"},
		{"code in a string at the margin", "a = '''\ndef f(): pass\n'''\nb = 1\n", "1 variable a\n4 variable b"},
		{"a string that ends escaped", "a = 'it\\'s'\nb = \"\"\"x\\\"\"\"\"\nc = r'\\'\nd = 1\n", "1 variable a\n2 variable b\n3 variable c\n4 variable d"},
		{"quotes in formatted strings", "a = f'{b[\"c\"]!r:>{d}}'\ne = f\"{f'{g}'}\"\nh = 1\n", "1 variable a\n2 variable e\n3 variable h"},
		{"the same quotes in formatted strings", "a = f'{b['c']}'\nd = 1\n", "1 variable a\n2 variable d"},
		{"a lambda as default", "def f(a=lambda b, c=1: {b: c}, *, d=(1, 2)): pass\n", "1 function f(a, d)"},
		{"a table as default", "def f(a={'b': 1, 'c': [2, 3]}, **d): pass\n", "1 function f(a, **d)"},
		{"every kind of parameter", "def f(a, b: int = 1, /, c=2, *d: str, e, f=3, **g): pass\n", "1 function f(a, b, c, *d, e, f, **g)"},
		{"parameters over lines", "def f(\n    a,  # one, two\n    b=(\n        1,\n    ),\n    *,\n    c: 'x' = \")\",\n): pass\n", "1 function f(a, b, c)"},
		{"a result over lines", "def f(a) -> dict[\n    str, int\n]:\n    '''Text.'''\n", "1 function f(a) doc"},
		{"a body on the line of its head", "def f(): return 1\nclass A: b = 1\nclass C: 'Text.'; d = 2\n", "1 function f()\n2 class A\n2 field A.b\n3 class C doc\n3 field C.d"},
		{"a docstring on the line of its head", "def f(): 'Text.'\n", "1 function f() doc"},
		{"lines joined by a backslash", "a = \\\n    1\ndef f(b, \\\n      c): pass\nfrom x import y, \\\n    z\nd = 2\n", "1 variable a\n3 function f(b, c)\n7 variable d"},
		{"several statements on a line", "a = 1; b = 2; def_ = 3\n", "1 variable a\n1 variable b\n1 variable def_"},
		{"chained assignment", "a = b = c.d = e[0] = 1\n", "1 variable a\n1 variable b"},
		{"repeated assignment", "a = 1\na = 2\n", "1 variable a\n2 variable a"},
		{"tuples", "a, (b, *c) = x\n[d, e] = y\n", "1 variable a\n1 variable b\n1 variable c\n2 variable d\n2 variable e"},
		{"no assignment", "a == 1\na += 1\na.b = 2\na[1] = 3\nf(a=1)\n(b := 1)\n", ""},
		{"annotations", "a: int\nb: 'C' = 1\nc.d: int = 2\n", "1 variable a\n2 variable b"},
		{"type statements", "type A = int\ntype B[T] = list[T]\ntype = 1\ntype(a)\n", "1 type A\n2 type B\n3 variable type"},
		{"generics", "def f[T: (int, str) = int, *U, **V](a: T) -> T: pass\nclass A[T](B[T]): pass\n", "1 function f(a)\n2 class A"},
		{"within a condition", "if a:\n    def f(): pass\nelif b:\n    c = 1\nelse:\n    class D:\n        def e(self): pass\n", "2 function f()\n4 variable c\n6 class D\n7 method D.e(self)"},
		{"within try and with", "try:\n    import a\nexcept E as e:\n    a = None\nelse:\n    b = 1\nfinally:\n    c = 2\nwith d as e:\n    f = 3\n", "4 variable a\n6 variable b\n8 variable c\n10 variable f"},
		{"loops and matches", "for i in x:\n    a = 1\nwhile b:\n    c = 2\nmatch d:\n    case 1:\n        e = 3\n", "2 variable a\n4 variable c\n7 variable e"},
		{"in a function, nothing", "def f():\n    class A: pass\n    def g(): pass\n    b = 1\n    if c:\n        def h(): pass\nd = 1\n", "1 function f()\n7 variable d"},
		{"nested classes", "class A:\n    class B:\n        class C:\n            d = 1\n    e = 2\n", "1 class A\n2 class A.B\n3 class A.B.C\n4 field A.B.C.d\n5 field A.e"},
		{"objects of a constructor", "class A:\n    def __init__(self, a):\n        self.b = a\n        #: Said.\n        self.c = 1\n        if a:\n            self.d, self.e = 2, 3\n        self.f.g = 4\n        self.b = 5\n        def x(self):\n            self.h = 6\n", "1 class A\n2 constructor A.__init__(self, a)\n3 field A.b\n5 field A.c doc\n7 field A.d\n7 field A.e"},
		{"an object under another name", "class A:\n    def __init__(this):\n        this.b = 1\n        self.c = 2\n", "1 class A\n2 constructor A.__init__(this)\n3 field A.b"},
		{"properties", "class A:\n    @property\n    def b(self):\n        'Text.'\n    @b.setter\n    def b(self, c): pass\n    @b.deleter\n    def b(self): pass\n    d = property(b)\n", "1 class A\n3 property A.b(self) doc\n6 property A.b(self, c)\n8 property A.b(self)\n9 field A.d"},
		{"kinds of methods", "class A:\n    @staticmethod\n    def b(c): pass\n    @classmethod\n    def d(cls): pass\n    async def e(self): pass\n", "1 class A\n3 method A.b(c)\n5 method A.d(cls)\n6 method A.e(self)"},
		{"members of an enumeration", "class A(enum.Enum):\n    B = 1\n    C = D = 2\n    _ignore_ = []\n    def e(self): pass\n", "1 enum A\n2 enum-member A.B\n3 enum-member A.C\n3 enum-member A.D\n4 field A._ignore_\n5 method A.e(self)"},
		{"strings behind an assignment", "a = 1\n'''Said.'''\nb = 2\n\n'Said too.'\nc = 3\n#: Not said.\n", "1 variable a doc\n3 variable b doc\n6 variable c"},
		{"comments of a variable", "#: Said.\na = 1\nb = 2  #: Said.\n# Not said.\nc = 3\n#: Cut off.\n\nd = 4\n", "2 variable a doc\n3 variable b doc\n5 variable c\n8 variable d"},
		{"prefixes of docstrings", "def a():\n    r'Said.'\ndef b():\n    u'Said.'\ndef c():\n    b'Not said.'\ndef d():\n    f'Not said.'\ndef e():\n    'Said, ' 'in parts.'\ndef f():\n    ''\n", "1 function a() doc\n3 function b() doc\n5 function c()\n7 function d()\n9 function e() doc\n11 function f()"},
		{"a docstring in parentheses", "def a():\n    ('Said.')\ndef b():\n    'Not ' + 'said.'\n", "1 function a() doc\n3 function b()"},
		{"tabs and blanks", "class A:\n\tdef b(self):\n\t\tpass\n        \n\tc = 1\n", "1 class A\n2 method A.b(self)\n5 field A.c"},
		{"comments at the margin", "class A:\n    def b(self):\n        c = 1\n# not the end\n        d = 2\n    def e(self): pass\n", "1 class A\n2 method A.b(self)\n6 method A.e(self)"},
		{"Python 2", "print 'a'\nexec 'b' in c\ndef f((a, b), c): pass\nexcept E, e: pass\nd = 0777\ne = `f`\ng = ur'x'\n", "3 function f((a, b), c)\n5 variable d\n6 variable e\n7 variable g"},
		{"names of all scripts", "höhe = 1\ndef ναῦς(ὅρμος): pass\nclass 船: pass\n", "1 variable höhe\n2 function ναῦς(ὅρμος)\n3 class 船"},
		{"other line ends", "def f():\r\n    'Said.'\r\n\r\na = 1\r\n", "1 function f() doc\n4 variable a"},
		{"no line end", "def f(): pass", "1 function f()"},
		{"a form feed", "a = 1\n\fb = 2\n", "1 variable a\n2 variable b"},
		{"decorators over lines", "@a(\n    b,\n    c='@d',\n)\n@e.f\ndef g(): pass\n", "6 function g()"},
		{"soft keywords as names", "match = 1\ncase = 2\n_ = 3\ndef match(case): pass\n", "1 variable match\n2 variable case\n3 variable _\n4 function match(case)"},
	} {
		t.Run(c.name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Brief(t, python.FrontEnd{}, "tide.py", c.text))
			again := langtest.Brief(t, python.FrontEnd{}, "tide.py", c.text+"\n\ndef last(): pass\n")
			if want := strings.Split(again, "\n"); assert.NotEmpty(t, want) {
				assert.Contains(t, want[len(want)-1], "function last()", "what follows is read as well")
			}
		})
	}
}

// What marks a definition as deprecated may say what to use instead.
func TestAdviceOfDecorators(t *testing.T) {
	for decorator, want := range map[string]string{
		`@deprecated("1.4", "Use :func:` + "`other`" + ` instead.")`:   "Use :func:`other` instead.",
		`@util.deprecated("1.4", "Use the " "other " 'one.')`:          "Use the\nother\none.",
		`@warnings.deprecated(r"Use C:\other one")`:                    `Use C:\other one`,
		`@deprecated(Version("Tide", 2, 0), replacement="tide.other")`: "tide.other",
		`@deprecated`:        "",
		`@deprecated("1.4")`: "",
		`@deprecated(f"no {text} here", b"nor here either")`: "",
		`@other("says a thing or two")`:                      "",
		"@deprecated('''Use the\n    other one.''')":         "Use the\nother one.",
	} {
		facts := python.FrontEnd{}.Read(lang.File{Path: "a.py", Text: source.Decode([]byte(decorator + "\ndef f(): pass\n"))})
		require.NotEmpty(t, facts.Occurrences, decorator)
		got := ""
		if advice := facts.Occurrences[0].Advice(); advice != nil {
			got = advice.Text
		}
		assert.Equal(t, want, got, decorator)
	}
}
