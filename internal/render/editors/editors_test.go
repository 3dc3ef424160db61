package editors_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/render/editors"
)

func made(t *testing.T, files map[string]string) *editors.Made {
	t.Helper()
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "tide"})
	require.Len(t, s.Project.Libraries, 1)
	return editors.Make(s.Links, s.Project.Libraries[0])
}

// Identifiers are as the standard's clause D.4.2 has them, and as a compiler spells those of
// this source.
func TestIdentifiers(t *testing.T) {
	m := made(t, map[string]string{"a.cs": `using System; using System.Collections.Generic; using W = Tide.Water; using G = System.Guid;
namespace Tide {
public class A<T, U> { public class B { public class C<V> {
 /// <summary>a</summary>
 public void M<X>(T t, U u, V v, X w, B b, C<int> c, A<V, X>.B.C<T> d, int[][,] e, int[,][] f, int?[] g, Dictionary<T, V[]>.KeyCollection h) {}
 /// <summary>a</summary>
 public static C<V> operator +(C<V> a, C<V> b) => a;
 /// <summary>a</summary>
 public static C<V> operator -(C<V> a) => a;
 /// <summary>a</summary>
 public event Action<T> E;
 /// <summary>a</summary>
 public C(int x) {}
 /// <summary>a</summary>
 public static implicit operator C<V>(int x) => null;
 /// <summary>a</summary>
 public static explicit operator checked (int, U)(C<V> x) => default;
 /// <summary>a</summary>
 public delegate void D<X>(X x, out V v);
 /// <summary>a</summary>
 public U this[int row, string column] => default;
 /// <summary>a</summary>
 public int Count { get; }
 /// <summary>a</summary>
 public V One, Two;
} } }
/// <summary>a</summary>
public enum Kind {
 /// <summary>a</summary>
 Low }
/// <summary>a</summary>
public struct Depth { }
/// <summary>a</summary>
public static class Also {
 /// <summary>a</summary>
 public static void F(this Kind? k, ref int a, out string? b, in Depth? c, params object[] d) {}
 /// <summary>a</summary>
 public static unsafe void G(byte* a, dynamic b, nint c, (int a, string b, Kind) d, DateTime? e, G? f, W.Level g, System.Text.StringBuilder? h) {}
 /// <summary>a</summary>
 public static void H<S, R>(S? a, R? b) where S : struct where R : class {}
 /// <summary>a</summary>
 public static void I((int, int, int, int, int, int, int, int) a) {}
 extension<E>(List<E> list) {
  /// <summary>a</summary>
  public void J<Y>(E e, Y y) {}
  /// <summary>a</summary>
  public static void K(E e) {}
 }
 /// <summary>a</summary>
 internal static void Hidden() {}
 public static void Undocumented() {}
} }
namespace Tide.Water {
/// <summary>a</summary>
public class Level { } }
/// <summary>a</summary>
public class Top { /// <summary>a</summary>
 public Top() {} }
`})
	var ids []string
	for _, member := range m.File.Members {
		ids = append(ids, member.ID)
	}
	c := "Tide.A`2.B.C`1."
	same := "Tide.A{`0,`1}.B.C{`2}"
	assert.ElementsMatch(t, []string{
		"M:" + c + "M``1(`0,`1,`2,``0,Tide.A{`0,`1}.B,Tide.A{`0,`1}.B.C{System.Int32},Tide.A{`2,``0}.B.C{`0},System.Int32[0:,0:][],System.Int32[][0:,0:],System.Nullable{System.Int32}[],System.Collections.Generic.Dictionary{`0,`2[]}.KeyCollection)",
		"M:" + c + "op_Addition(" + same + "," + same + ")", "M:" + c + "op_UnaryNegation(" + same + ")", "E:" + c + "E", "M:" + c + "#ctor(System.Int32)",
		"M:" + c + "op_Implicit(System.Int32)~" + same, "M:" + c + "op_CheckedExplicit(" + same + ")~System.ValueTuple{System.Int32,`1}", "T:" + c + "D`1",
		"P:" + c + "Item(System.Int32,System.String)", "P:" + c + "Count", "F:" + c + "One", "F:" + c + "Two",
		"T:Tide.Kind", "F:Tide.Kind.Low", "T:Tide.Depth", "T:Tide.Also",
		"M:Tide.Also.F(System.Nullable{Tide.Kind},System.Int32@,System.String@,System.Nullable{Tide.Depth}@,System.Object[])",
		"M:Tide.Also.G(System.Byte*,System.Object,System.IntPtr,System.ValueTuple{System.Int32,System.String,Tide.Kind},System.Nullable{System.DateTime},System.Nullable{System.Guid},Tide.Water.Level,System.Text.StringBuilder)",
		"M:Tide.Also.H``2(System.Nullable{``0},``1)",
		"M:Tide.Also.I(System.ValueTuple{System.Int32,System.Int32,System.Int32,System.Int32,System.Int32,System.Int32,System.Int32,System.ValueTuple{System.Int32}})",
		"M:Tide.Also.J``2(System.Collections.Generic.List{``0},``0,``1)", "M:Tide.Also.K``1(``0)",
		"T:Tide.Water.Level", "T:Top", "M:Top.#ctor",
	}, ids)
	assert.Empty(t, m.Unnamed)
	assert.Empty(t, m.Broken)
}

func TestTexts(t *testing.T) {
	m := made(t, map[string]string{"a.cs": `using System.Collections.Generic;
namespace Tide {
/// <summary>See <see cref="Moor(int?)"/>, <see cref='Moor'>it</see>, <see cref="List{T}"/>, <see cref="string"/>,
/// <see cref="Plan"/>, <see cref="Tide"/>, <see cref="Nowhere"/>, <see cref="T:Else.Where"/> &amp; <see href="cref"/>.</summary>
public class Plan {
 /// <summary>a</summary>
 public void Moor(int? hours) {}
 /// <summary>a</summary>
 public void Moor(out string name, Vessel vessel) {}
 /// <summary>Never <b>closed.</summary>
 public int Broken;
} }
`})
	require.NotEmpty(t, m.File.Members)
	assert.Equal(t, strings.TrimSpace(`
<summary>See <see cref="M:Tide.Plan.Moor(System.Nullable{System.Int32})"/>, <see cref="M:Tide.Plan.Moor(System.Nullable{System.Int32})">it</see>, <see cref="T:System.Collections.Generic.List`+"`1"+`"/>, <see cref="T:System.String"/>,
<see cref="T:Tide.Plan"/>, <see cref="N:Tide"/>, <see cref="!:Nowhere"/>, <see cref="T:Else.Where"/> &amp; <see href="cref"/>.</summary>`), m.File.Members[0].Text)
	assert.Equal(t, []string{"Vessel"}, m.Unnamed)
	require.Len(t, m.Broken, 1)
	assert.Equal(t, "F:Tide.Plan.Broken", m.Broken[0].ID)
	assert.Equal(t, 10, m.Broken[0].Place.At.Line)
}

// A type that nobody knows is taken to be in the only namespace that nobody knows.
func TestNamespacesThatNobodyKnows(t *testing.T) {
	source := "namespace Tide { public class P { /// <summary>a</summary>\n public void M(Vessel v, List<int> l) {} } }"
	m := made(t, map[string]string{"a.cs": "using System.Collections.Generic; using Harbour.Wire; " + source})
	assert.Equal(t, "M:Tide.P.M(Harbour.Wire.Vessel,System.Collections.Generic.List{System.Int32})", m.File.Members[0].ID)
	assert.Empty(t, m.Unnamed)
	m = made(t, map[string]string{"a.cs": "using Harbour.Wire; using Harbour; " + source})
	assert.Equal(t, "M:Tide.P.M(Vessel,List{System.Int32})", m.File.Members[0].ID)
	assert.Equal(t, []string{"List<int>", "Vessel"}, m.Unnamed)
}
