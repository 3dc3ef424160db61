package python_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
	"codrel/internal/lang/python"
)

func TestUses(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"names of the module": {"def f(a):\n    return g(a, H.x.y)\n", "g H.x.y"},
		"a parameter shadows": {"def f(g, *h, **i):\n    g(h, i, j)\n", "j"},
		"what is bound later shadows from the start": {
			"def f():\n    print(tide)\n    tide = 1\n", "print"},
		"each way to bind": {
			"def f():\n    for a, (b, c) in x:\n        pass\n    with y as d, z as (e, g):\n        pass\n    try:\n        pass\n    except E as h:\n        pass\n" +
				"    import i, j.k\n    from l import m as n\n    o += 1\n    (p := 2)\n    q: int = 3\n    r = s = 4\n    del t\n    class u: pass\n    def v(): pass\n" +
				"    return a, b, c, d, e, g, h, i, j, n, o, p, q, r, s, t, u, v, w\n", "x y z E int w"},
		"patterns bind": {
			"def f(a):\n    match a:\n        case [b, *c] if d:\n            return b, c\n        case K(x=e) | M.N:\n            return e\n", "d K M.N"},
		"match and case may be names": {"def f():\n    return match(case)\n", "match case"},
		"global is the module's":      {"def f():\n    global tide\n    tide = 1\n    return tide\n", "tide tide"},
		"nonlocal is a function's":    {"def f():\n    a = 1\n    def g():\n        nonlocal a\n        a = b\n", "b"},
		"a comprehension binds in its line": {
			"x = [a for a in b if a]\ny = a\n", "x b y a"},
		"a lambda binds in its line": {"x = lambda a, b=c: a + b + d\ny = a\n", "x c d y a"},
		"a class is no scope for its methods": {
			"class C:\n    size = 1\n    other = size\n    def f(self):\n        return size\n", "size"},
		"members of the object": {
			"class C(B):\n    def f(self, x):\n        self.y.z = x\n    @staticmethod\n    def g(self):\n        self.y\n    @classmethod\n    def h(cls):\n        cls.w\n",
			"B C>y staticmethod classmethod C>w"},
		"members of what has a written type": {
			"def f(a: Tide, b: m.Tide, c: Tide | None):\n    a.x; b.x; c.x\n    d = Tide(1)\n    d.x\n    e = Tide()\n    e = 2\n    e.x\n", "Tide m.Tide Tide Tide>x m.Tide>x Tide Tide>x Tide"},
		"a type that is changed is none": {"def f():\n    a = T()\n    a.x\n    for a in b:\n        pass\n", "T b"},
		"names of arguments":             {"def f():\n    g(a=b, **{c: d})\n", "g b c d"},
		"annotations, defaults, decorators": {
			"@d.e\ndef f(a: b = c) -> g:\n    pass\n", "d.e b c g"},
		"type parameters":                   {"def f[T: B](a: T) -> T:\n    return a\nclass C[U](B[U]):\n    x: U\n", "B B"},
		"imports at the top":                {"from a import b, c as d\nimport e.f, g as h\nb.x\n", "b d e.f h b.x"},
		"strings hold nothing":              {"def f():\n    return 'a' + f\"b\" + rb'c'\n", ""},
		"a body on the line of its head":    {"def f(): a = 1; return a, b\nx = a\n", "b x a"},
		"blocks":                            {"if a: b\nelse: c\nwhile d: e = 1; f\n", "a b c d e f"},
		"members of calls are nobody's":     {"def f():\n    g().h.i\n", "g"},
		"chains are read through backslash": {"a = b \\\n    .c\n", "a b"},
		"several with and except at once": {
			"def f():\n    with (a() as b, c() as (d, e)), g as h.i, j as k[l]:\n        return b, d, e, h, k\n    try: pass\n    except* (M, N) as o: p(o)\n", "a c g h.i j k l h k M N p"},
		"statements in one another on a line": {
			"def f(a):\n    if a: b = c; d(b)\n    if a: if b: while c: for d in e: if g: h(i)\n", "c c e g h i"},
		"broken": {
			"def (\nclass :\nclass\ndef f\nfor in\ncase\ntype\nlambda\nwith as as\nimport from\nfrom\n)]}", ""},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Uses(t, python.FrontEnd{}, "tide.py", c.text))
		})
	}
}
