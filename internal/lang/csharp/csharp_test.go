package csharp_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/lang/csharp"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
	"codrel/internal/source"
)

func TestFixtures(t *testing.T) { langtest.Run(t, csharp.FrontEnd{}, "testdata/read") }

func TestGrowth(t *testing.T) { langtest.Growth(t, csharp.FrontEnd{}, "testdata/read") }

func FuzzRead(f *testing.F) {
	fixtures, err := os.ReadDir("testdata/read")
	require.NoError(f, err)
	for _, e := range fixtures {
		data, err := os.ReadFile("testdata/read/" + e.Name())
		require.NoError(f, err)
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		facts := csharp.FrontEnd{}.Read(lang.File{Path: "a.cs", Text: source.Decode(data), Deep: true})
		langtest.Valid(t, facts)
		langtest.Pieces(t, csharp.FrontEnd{}, facts.Text)
	})
}

// Whatever a text nests or leaves open, reading ends soon, and what encloses a declaration
// stands before it.
func TestDepth(t *testing.T) {
	const deep = 20_000
	for name, text := range map[string]string{
		"brackets": "class A { int a = " + strings.Repeat("(", deep), "types": strings.Repeat("class A {", deep), "namespaces": strings.Repeat("namespace A {", deep), "arguments": "class A { " + strings.Repeat("B<", deep),
		"closed arguments": "class A { " + strings.Repeat("B<", deep) + strings.Repeat(">", deep) + " b; }", "less": "class A { bool a = " + strings.Repeat("b < c, ", deep), "tuples": "class A { " + strings.Repeat("(a, ", deep),
		"attributes": "class A { " + strings.Repeat("[B(", deep), "many attributes": "class A { " + strings.Repeat("[B] ", deep) + "int a; }", "dots": "class A { " + strings.Repeat("a.", deep) + "B b; }",
		"comments": strings.Repeat("/** a */", deep), "lines": strings.Repeat("/// a\n", deep), "open comments": strings.Repeat("/** a ", deep), "modifiers": "class A { " + strings.Repeat("static ", deep),
		"parameters": "class A { void f(" + strings.Repeat("int a, ", deep), "ranks": "class A { int" + strings.Repeat("[]", deep) + " a; }", "declarators": "class A { int " + strings.Repeat("a = 1, ", deep),
		"constants": "enum A { " + strings.Repeat("B, ", deep), "bases": "class A : " + strings.Repeat("B, ", deep), "constraints": "class A<T> " + strings.Repeat("where T : B ", deep), "closing": strings.Repeat("}", deep),
		"parts": "record A(" + strings.Repeat("int a, ", deep), "accessors": "class A { int a { " + strings.Repeat("get; ", deep), "usings": strings.Repeat("using A.B;", deep), "strings": strings.Repeat("$\"{", deep),
		"raw strings": strings.Repeat("$$\"\"\"{{", deep), "conditions": strings.Repeat("#if A\n", deep), "branches": "#if A\n" + strings.Repeat("#elif B\nclass C {\n", deep), "conditional members": "class A {\n" + strings.Repeat("#if A\nint a;\n#else\nint b;\n#endif\n", deep) + "}",
		"nested conditions": strings.Repeat("#if A\nclass A {\n", deep) + strings.Repeat("}\n#endif\n", deep), "questions": "class A { int" + strings.Repeat("?", deep) + " a; }", "operators": "class A { " + strings.Repeat("operator ", deep),
		"extensions": "static class A { " + strings.Repeat("extension(B b) { ", deep), "explicit": "class A { void " + strings.Repeat("I<A>.", deep) + "F() {} }",
	} {
		t.Run(name, func(t *testing.T) {
			facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte(text))
			langtest.Valid(t, facts)
			for i := range facts.Occurrences {
				require.Less(t, int(facts.Occurrences[i].Parent), i)
			}
		})
	}
}

func TestTooDeepIsSaid(t *testing.T) {
	facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte(strings.Repeat("class A {\n", 250)+strings.Repeat("}", 250)))
	require.Len(t, facts.Problems, 1)
	assert.Equal(t, "deep", facts.Problems[0].Form)
	assert.Len(t, facts.Occurrences, 201)
}

func TestPlaces(t *testing.T) {
	end := csharp.FrontEnd{}
	for path, want := range map[string]bool{
		"board.Tests/Board.cs": true, "tests/Board.cs": true, "src/BoardTests.cs": true, "src/Board.cs": false, "src/Contest.cs": false, "Attest/A.cs": false,
	} {
		assert.Equal(t, want, end.IsTest(path), path)
	}
	info := langtest.Read(end, "AssemblyInfo.cs", []byte("[assembly: Title(\"Tide\")]"))
	loose := langtest.Read(end, "Loose.cs", []byte("class Loose {}"))
	berth := langtest.Read(end, "Berth.cs", []byte("namespace Tide . Berths;\nclass Berth {}"))
	two := langtest.Read(end, "Two.cs", []byte("namespace Tide { class A {} namespace Wire { class B { class C {} } } }\nclass D {}"))
	files := []*model.Facts{info, loose, berth, two}
	paths := end.ModulePaths(nil, files)
	assert.Equal(t, []string{"Tide", "global", "Tide.Berths", "Tide"}, paths, "what declares nothing goes with the outermost namespace")
	placed := end.Place(nil, files, paths)
	assert.Equal(t, map[int32]string{1: "Tide.Wire", 3: "global"}, placed[3].Others)
	assert.Nil(t, placed[2].Others)
	assert.False(t, end.InternalModule("Tide.Internal"))
}

func TestGenerated(t *testing.T) {
	for file, texts := range map[string]map[string]bool{
		"A.cs": {
			"// <auto-generated>\nclass A {}": true, "// Generated by quaygen. Do not edit.\nclass A {}": true, "class A { // <auto-generated/>\n int a; }": false, "/// What is generated here.\nclass A {}": false,
		},
		"A.Designer.cs": {"class A {}": true}, "A.g.cs": {"class A {}": true},
	} {
		for text, want := range texts {
			assert.Equal(t, want, langtest.Read(csharp.FrontEnd{}, file, []byte(text)).Generated, text)
		}
	}
}

func TestProjectFiles(t *testing.T) {
	for name, c := range map[string]struct {
		file, data string
		want       lang.Root
		ok         bool
	}{
		"a package":              {"board/Board.csproj", `<Project Sdk="A"><PropertyGroup><PackageId>Tide.Board</PackageId><Version>2.1</Version></PropertyGroup></Project>`, lang.Root{Folder: "board", Name: "Tide.Board", Version: "2.1"}, true},
		"an older form":          {"Board.csproj", `<Project xmlns="http://old.example/2003"><PropertyGroup><A/></PropertyGroup><PropertyGroup><AssemblyName>tide</AssemblyName></PropertyGroup></Project>`, lang.Root{Folder: ".", Name: "tide"}, true},
		"no name":                {"b/Tide.Board.csproj", `<Project><PropertyGroup><VersionPrefix>3</VersionPrefix></PropertyGroup></Project>`, lang.Root{Folder: "b", Name: "Tide.Board", Version: "3"}, true},
		"places to be filled in": {"A.csproj", `<Project><PropertyGroup><PackageId>$(Name)</PackageId><Version>$(V)</Version></PropertyGroup></Project>`, lang.Root{Folder: ".", Name: "A"}, true},
		"cut short":              {"A.csproj", `<Project><PropertyGroup>`, lang.Root{}, false},
		"something else":         {"A.csproj", `<Settings/>`, lang.Root{}, false},
	} {
		got, ok := csharp.FrontEnd{}.Root(c.file, []byte(c.data))
		assert.Equal(t, c.ok, ok, name)
		if ok {
			assert.Equal(t, c.want, got, name)
		}
	}
	assert.True(t, lang.IsMarker(csharp.FrontEnd{}.MarkerNames(), "Tide.csproj"))
	assert.False(t, lang.IsMarker(csharp.FrontEnd{}.MarkerNames(), ".csproj"))
}

// What needs a comment, and what has its words from elsewhere.
func TestAsked(t *testing.T) {
	end := csharp.FrontEnd{}
	facts := langtest.Read(end, "A.cs", []byte(`namespace Tide;
class Berth : IPlace {
  public override string ToString() => "";
  Berth() {} ~Berth() {}
  Berth(int depth) {}
  void IPlace.Moor() {}
  void Leave() {}
  record Part(int Depth) { int Other { get; } }
}`))
	m := model.NewModule(&model.Library{Habits: end.Habits()}, "Tide")
	asked := map[string]bool{}
	made := map[int32]*model.Declaration{-1: nil}
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		d := m.Declare(made[o.Parent], o.Scope, o.Named(end.Habits()))
		d.Occurrences = []model.At{{Occurrence: o, File: facts}}
		d.Settle()
		made[int32(i)] = d
		asked[d.Path()] = end.AsksComment(d)
	}
	assert.Equal(t, map[string]bool{
		"Berth": true, "Berth.ToString": false, "Berth.~Berth": false, "Berth.Berth": true, "Berth.Moor": false, "Berth.Leave": true, "Berth.Part": true, "Berth.Part.Depth": false, "Berth.Part.Other": true,
	}, asked)
	assert.Equal(t, "using Tide;", end.BringNameIn(m, made[0], "Berth"))
	assert.Empty(t, end.BringIn(model.NewModule(nil, "global"), false))
	assert.Equal(t, "namespace", end.ModuleWord(m))
	assert.True(t, end.IsNative("string"))
	assert.False(t, end.IsNative("String"))
	assert.True(t, end.IsNativeModule("System.Linq"))
	assert.False(t, end.IsNativeModule("SystemTide"))
}

// What single declarations say, in all the forms that they are written in.
func TestHeads(t *testing.T) {
	for code, want := range map[string]string{
		"void F(int a, in string b) {}":                                              "void F(int a, in string b)",
		"void F([A(\"(,)\")] int a, [B] out List<string> b) {}":                      "void F(int a, out List<string> b)",
		"void F(params string[] all) {}":                                             "void F(params string[] all)",
		"static void F(this Berth b, ref int c, ref readonly int d) {}":              "static void F(this Berth b, ref int c, ref readonly int d)",
		"void F(int? a, string?[]? b, int[,,] c, int[][] d, int* e, void** f) {}":    "void F(int? a, string?[]? b, int[,,] c, int[][] d, int* e, void** f)",
		"(int a, List<(string, int)> b) F() => default;":                             "(int a, List<(string, int)> b) F()",
		"Dictionary<string, (int x, int y)>.Enumerator F() {}":                       "Dictionary<string, (int x, int y)>.Enumerator F()",
		"ref readonly int F() => ref a;":                                             "ref readonly int F()",
		"delegate* unmanaged<int, void> F() {}":                                      "delegate* unmanaged<int, void> F()",
		"T F<T, U>(T a) where T : class, IBerth<U>, new() where U : struct {}":       "T F<T, U>(T a) where T : class, IBerth<U>, new() where U : struct",
		"global::Tide.Berth F() {}":                                                  "Tide.Berth F()",
		"void F(int a = 1, string b = \"x,y\", Level c = Level.Low | Level.High) {}": "void F(int a = 1, string b = \"x,y\", Level c = Level.Low | Level.High)",
		"async Task<int> F() { }":                                                    "Task<int> F()",
		"public virtual int P { get; protected set; } = 3;":                          "public virtual int P { get; protected set; }",
		"public required string P { get; init; }":                                    "public required string P { get; init; }",
		"int P => a < b ? c : d;":                                                    "int P { get; }",
		"int P { get => 1; [A] private set { a = value; } }":                         "int P { get; private set; }",
		"int this[int row, string name = \"a\"] { get => 1; }":                       "int this[int row, string name = \"a\"] { get; }",
		"int IList<T>.this[int row] => 1;":                                           "int IList<T>.this[int row] { get; }",
		"event EventHandler<Changed>? Moored { add { } remove { } }":                 "event EventHandler<Changed>? Moored",
		"public static A operator +(A a, B b) => a;":                                 "public static A operator +(A a, B b)",
		"public static A operator checked -(A a) => a;":                              "public static A operator checked -(A a)",
		"public static bool operator true(A a) => true;":                             "public static bool operator true(A a)",
		"public static A operator >>>(A a, int b) => a;":                             "public static A operator >>>(A a, int b)",
		"public static implicit operator int(A a) => 1;":                             "public static implicit operator int(A a)",
		"public static explicit operator checked List<B>?(A a) => null;":             "public static explicit operator checked List<B>?(A a)",
		"const int C = 3;":                    "const int C = 3",
		"static readonly int[] R = { 1, 2 };": "static readonly int[] R",
		"fixed byte Room[16];":                "byte Room[16]",
		"~A() {}":                             "~A()",
		"A(int b) : base(b) { }":              "A(int b)",
		"static A() { }":                      "static A()",
		"void IPlace.Moor() {}":               "void IPlace.Moor()",
		"delegate T D<in T, out U>(ref T a) where T : class;":          "delegate T D<in T, out U>(ref T a) where T : class",
		"readonly record struct P<T>(int X = 1, T? Y = default) : IA;": "readonly record struct P<T>(int X = 1, T? Y = default) : IA",
		"class B<[A] T>(int a) : C<T>(a, 1), IA where T : notnull { }": "class B<T>(int a) : C<T>, IA where T : notnull",
		"enum E : byte { }":     "enum E : byte",
		"ref struct S : IA { }": "ref struct S : IA",
		"void F(\n    int a, // one, two\n    /* ( */ int b\n  ) {}": "void F(int a, int b)",
		"void @event(int @class) {}":                                 "void event(int class)",
	} {
		facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte("class A {\n  "+code+"\n}\n"))
		require.GreaterOrEqual(t, len(facts.Occurrences), 2, code)
		assert.Equal(t, want, facts.Occurrences[1].Signature.Text(facts.Text), code)
		assert.Empty(t, facts.Problems, code)
	}
}

// Who may use a declaration, said or not, and what else its modifiers say.
func TestModifiers(t *testing.T) {
	for code, want := range map[string]string{
		"public static int A;":             "public static",
		"int A;":                           "private ",
		"internal int A;":                  "internal ",
		"protected internal int A;":        "protected ",
		"private protected int A;":         "internal ",
		"class B {}":                       "private ",
		"public abstract partial int F();": "public abstract",
		"public override sealed int F();":  "public override sealed",
		"public required int F;":           "public required",
		"void I.F() {}":                    "private ",
	} {
		facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte("class A { "+code+" }"))
		require.Len(t, facts.Occurrences, 2, code)
		o := facts.Occurrences[1]
		assert.Equal(t, want, o.Visibility.String()+" "+strings.Join(o.Modifiers(), " "), code)
	}
	facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte("interface I { void F(); class B {} }\nfile class C {}\nenum E { X }"))
	var seen []string
	for i := range facts.Occurrences {
		seen = append(seen, facts.Occurrences[i].Name+" "+facts.Occurrences[i].Visibility.String())
	}
	assert.Equal(t, []string{"I internal", "F public", "B public", "C private", "E internal", "X public"}, seen)
}

// Attributes say that something should not be used any more, or not be seen.
func TestAttributes(t *testing.T) {
	for code, want := range map[string]string{
		`[Obsolete] int a;`: "true - 0",
		`[System.ObsoleteAttribute("Use b.", true)] int a;`:     "true Use b. 0",
		`[A, Obsolete("Use b.")] int a;`:                        "true Use b. 0",
		`[Obsolete(Texts.Old)] int a;`:                          "true - 0",
		`[field: NonSerialized] int a;`:                         "false - 0",
		`[EditorBrowsable(EditorBrowsableState.Never)] int a;`:  "false - 1",
		`[EditorBrowsable(EditorBrowsableState.Always)] int a;`: "false - 0",
	} {
		facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte("class A { "+code+" }"))
		require.Len(t, facts.Occurrences, 2, code)
		o := &facts.Occurrences[1]
		got := map[bool]string{true: "true", false: "false"}[o.Deprecated] + " -"
		if advice := o.Advice(); advice != nil {
			got = strings.TrimSuffix(got, "-") + advice.Text
		}
		assert.Equal(t, want, got+" "+string(rune('0'+len(o.Directives()))), code)
	}
}

// Words to Codrel stand in comments of their own before a declaration, and detach nothing.
func TestDirectives(t *testing.T) {
	facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte("// codrel: let undocumented pass, of a time before\nnamespace A;\n/// <summary>B.</summary>\n// codrel: part Berths\n[C]\npublic class B {\n// codrel: hide\nint a, b; }"))
	require.Len(t, facts.Directives, 1)
	assert.Equal(t, "of a time before", facts.Directives[0].Reason)
	assert.Equal(t, "<summary>B.</summary>", facts.Occurrences[0].Doc.Text)
	assert.Equal(t, "Berths", facts.Occurrences[0].Directives()[0].Object)
	assert.Equal(t, "hide", facts.Occurrences[1].Directives()[0].Verb)
	assert.Equal(t, "hide", facts.Occurrences[2].Directives()[0].Verb)
}

// Values never hide the declarations behind them.
func TestValues(t *testing.T) {
	for _, value := range []string{
		"1", "-1", "a < b", "a < b ? c : d", "(a < b) == (c > d)", "new A<B, C>()", "new A<B, C> { D = 1, E = { 2 } }", "a.M<B, C>(1, 2)", "new int[] { 1, 2 }", "{ 1, 2 }", "[1, 2, ..a]",
		"x => x", "(x, y) => { int no; return x; }", "a switch { 1 => 2, _ => throw new E() }", "\"a, b; c\"", "';'", "@\"a \"\" ; } \\\"", "$\"{a, 3} }} {{ {(b ? \"c\" : \"d\")} ;\"", "$@\"{a};\\\"",
		"\"\"\"\n  a; } , \"\"b\"\n  \"\"\"", "$$\"\"\"{a;} {{b}} ;\"\"\"", "a >> 2 >>> 1 << 3", "b is C<D> && e.f > 1", "i++ + --j", "default(A<B>)", "typeof(A<,>)", "nameof(A.B)", "f(a < b, c > d)", "0x1_F + 1_000L",
		"a ?? b", "a?.b?[c]", "stackalloc[] { 1 }", "await f()", "from x in y where x < 3 select x", "delegate (int x) { int no; }", "a is { B: > 3 and < 5, C: var d }", "'\\''", "checked(a + b)",
	} {
		code := "class A {\n  int before = " + value + ", and;\n  int behind;\n}\n"
		facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte(code))
		var names []string
		for i := range facts.Occurrences {
			names = append(names, facts.Occurrences[i].Name)
		}
		assert.Equal(t, []string{"A", "before", "and", "behind"}, names, value)
	}
}

// What is before the damage stays, and most of what is behind it.
func TestDamage(t *testing.T) {
	for code, want := range map[string]string{
		"int a; int ; int b;":                  "a b",
		"int a; void (int x) {} int b;":        "a b",
		"int a; void F(int x {} int b;":        "a F b",
		"int a; class { int no; } int b;":      "a b",
		"int a; List<string b; int c;":         "a c",
		"int a; [ int b; int c;":               "a",
		"int a = ; int b;":                     "a b",
		"int a, , b; int c;":                   "a c",
		"int a; } int b;":                      "a",
		"int a; enum { X } int b;":             "a b",
		"int a; record R(int x { } int b;":     "a R x b",
		"int a; record R(int) { } int b;":      "a R b",
		"int a; operator; int b;":              "a b",
		"int a; implicit operator; int b;":     "a b",
		"int a; event; int b;":                 "a b",
		"int a; int P { get int b; } int c;":   "a P c",
		"int a; <<<<<<< ours\nint b;\n>>>>>>>": "a",
	} {
		facts := langtest.Read(csharp.FrontEnd{}, "A.cs", []byte("class A { "+code+" }"))
		var names []string
		for i := range facts.Occurrences {
			if o := &facts.Occurrences[i]; o.Name != "A" {
				names = append(names, o.Name)
			}
		}
		assert.Equal(t, want, strings.Join(names, " "), code)
		langtest.Valid(t, facts)
	}
}
