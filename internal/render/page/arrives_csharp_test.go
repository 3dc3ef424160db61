package page_test

import "testing"

// What users can name in C# arrives on its pages, with its words.
func TestCSharpArrives(t *testing.T) {
	shows(t, outline, []arrival{
		{"partial types in several files and branches", `
-- Port.csproj --
<Project/>
-- Berth.cs --
namespace Port;
/// <summary>A place.</summary>
public partial class Berth<T> : IPlace
{
    /// <summary>How deep.</summary>
    public double Depth { get; private set; }
    partial void Cleaned();
#if LINUX
    /// <summary>Opens it on Linux.</summary>
    public void Open() { }
#else
    /// <summary>Opens it.</summary>
    public void Open(int times) { }
    public T Open<T>(int times) => default;
#endif
}
-- Berth.Part.cs --
namespace Port;
partial class Berth<T>
{
    partial void Cleaned() { }
    /// <summary>How wide.</summary>
    public double Width;
}
-- IPlace.cs --
namespace Port;
/// <summary>What is a place.</summary>
public interface IPlace
{
    /// <summary>How deep.</summary>
    double Depth { get; }
    internal void Hidden();
    static abstract IPlace Made();
}
`, `
Port
  class Berth: public class Berth<T> : IPlace(IPlace) -- A place.
    field Width: public double Width -- How wide.
    property Depth: public double Depth { get; private set; } -- How deep.
    method Open: public void Open() -- Opens it on Linux.
      or public void Open(int times)
      or public T Open<T>(int times)
  interface IPlace: public interface IPlace -- What is a place.
    property Depth: double Depth { get; } -- How deep.
    method Made: static abstract IPlace(IPlace) Made()
`},
		{"members of every kind", `
-- All.cs --
namespace Port
{
    /// <summary>All.</summary>
    public abstract class All<T> where T : struct
    {
        /// <summary>The most.</summary>
        public const int Most = 3;
        /// <summary>Told.</summary>
        public event System.Action Told, Gone;
        /// <summary>A row.</summary>
        public T this[int row, string name = "a"] { get => default; protected set { } }
        /// <summary>Adds.</summary>
        public static All<T> operator +(All<T> a, int b) => a;
        /// <summary>As a number.</summary>
        public static explicit operator int(All<T> a) => 1;
        /// <summary>Makes.</summary>
        protected All(ref int a, out int b, in int c, params string[] rest) { b = 1; }
        static All() { }
        ~All() { }
        /// <summary>Told so.</summary>
        public delegate void Teller<in U>(U what);
        /// <summary>Waits.</summary>
        public abstract System.Threading.Tasks.Task<(int at, T what)> WaitAsync<U>(U? other = null) where U : class, new();
        protected private int kept;
        protected internal int shown;
        private protected void Kept() { }
    }
}
`, `
Port
  class All: public abstract class All<T> where T : struct -- All.
    constant Most: public const int Most = 3 -- The most.
    constructor All: protected All(ref int a, out int b, in int c, params string[] rest) -- Makes.
    field shown: protected internal int shown
    indexer this[]: public T this[int row, string name = "a"] { get; protected set; } -- A row.
    method WaitAsync: public abstract System.Threading.Tasks.Task<(int at, T what)> WaitAsync<U>( U? other = null ) where U : class, new() -- Waits.
    method operator +: public static All(All)<T> operator +(All(All)<T> a, int b) -- Adds.
    method explicit operator: public static explicit operator int(All(All)<T> a) -- As a number.
    event Told: public event System.Action Told -- Told.
    event Gone: public event System.Action Gone -- Told.
    delegate Teller: public delegate void Teller<in U>(U what) -- Told so.
`},
		{"records, structs and enums", `
-- Data.cs --
namespace Port.Data;
/// <summary>What comes.</summary>
/// <param name="Name">What it is called.</param>
public record Vessel(string Name, double Draught = 1.5)
{
    /// <summary>Twice.</summary>
    public double Twice => 2 * Draught;
}
/// <summary>A point.</summary>
public readonly record struct Point(int X, int Y);
/// <summary>A span.</summary>
public ref struct Span { /// <summary>How long.</summary>
    public int Length; }
/// <summary>Kinds.</summary>
[System.Flags]
public enum Kind : byte
{
    /// <summary>Sails.</summary>
    Sail = 1,
    /// <summary>Steams.</summary>
    [System.Obsolete("Use Sail.")] Steam,
}
`, `
Data
  record Vessel: public record Vessel(string Name, double Draught = 1.5) -- What comes.
    property Name: public string Name { get; init; }
    property Draught: public double Draught { get; init; }
    property Twice: public double Twice { get; } -- Twice.
  record Point: public readonly record struct Point(int X, int Y) -- A point.
    property X: public int X { get; init; }
    property Y: public int Y { get; init; }
  struct Span: public ref struct Span -- A span.
    field Length: public int Length -- How long.
  enum Kind: public enum Kind : byte -- Kinds.
    enum member Sail: Sail = 1 -- Sails.
    enum member, deprecated Steam: Steam -- Steams.
`},
		{"names by how many type parameters they have", `
-- Plan.cs --
namespace Port;
/// <summary>A plan.</summary>
public class Plan { /// <summary>Other.</summary>
    public Plan<int> Other() => null; }
/// <summary>A plan of things, see <see cref="Plan"/> and <see cref="Plan{T}"/>.</summary>
public class Plan<T> : Plan { /// <summary>One.</summary>
    public T One; }
/// <summary>A plan of pairs.</summary>
public class Plan<TKey, TValue> : Plan<TKey> { }
`, `
Port
  class Plan: public class Plan -- A plan.
    method Other: public Plan(Plan)<int> Other() -- Other.
  class Plan: public class Plan<T> : Plan(Plan) -- A plan of things, see [` + "`" + `Plan` + "`" + `](Plan) and [` + "`" + `Plan<T>` + "`" + `](Plan).
    field One: public T One -- One.
    from Plan: Other
  class Plan: public class Plan<TKey, TValue> : Plan(Plan)<TKey> -- A plan of pairs.
    from Plan: One
    from Plan: Other
`},
		{"extensions", `
-- Ext.cs --
namespace Port;
/// <summary>More.</summary>
public static class More
{
    /// <summary>Twice.</summary>
    public static int Twice(this int a) => a;
    extension(string text)
    {
        /// <summary>Whether it is one word.</summary>
        public bool IsWord => true;
        /// <summary>Says it.</summary>
        public void Say(int times) { }
    }
}
`, `
Port
  class More: public static class More -- More.
    property IsWord: extension(string text) public bool IsWord { get; } -- Whether it is one word.
    method Twice: public static int Twice(this int a) -- Twice.
    method Say: extension(string text) public void Say(int times) -- Says it.
`},
		{"one namespace in two files and two in one", `
-- A.cs --
namespace Port { /** <summary>A.</summary> */ public class A { } namespace Wire { /** <summary>B.</summary> */ public class B { } } }
namespace Tide { /** <summary>C.</summary> */ public class C { } }
-- B.cs --
/** <summary>Alone.</summary> */ public class Alone { }
namespace Port.Wire { /** <summary>D.</summary> */ public class D { } class E { } }
`, `
Port
  class A: public class A -- A.
Wire
  class B: public class B -- B.
  class D: public class D -- D.
Tide
  class C: public class C -- C.
global
  class Alone: public class Alone -- Alone.
`},
	})
}

// What declarations in C# are to one another stands beside them.
func TestCSharpRelated(t *testing.T) {
	shows(t, related, []arrival{
		{"bases, overriding and users", `
-- Port.cs --
namespace Port
{
    /// <summary>What moors.</summary>
    public interface IMoors
    {
        /// <summary>Moors a vessel.</summary>
        void Moor(Vessel vessel);
        /// <summary>How many.</summary>
        int Count { get; }
    }
    /// <summary>A place.</summary>
    public abstract class Place
    {
        /// <summary>Whether it fits.</summary>
        public abstract bool Fits(Vessel vessel);
        /// <summary>Makes one.</summary>
        public static Place Made() => null;
    }
    /// <summary>What comes.</summary>
    public class Vessel { }
}
namespace Port.Berths
{
    /// <summary>A berth.</summary>
    public class Berth : Place, IMoors
    {
        /// <inheritdoc/>
        public override bool Fits(Vessel vessel) => true;
        /// <inheritdoc cref="IMoors.Moor"/>
        public void Moor(Vessel vessel) { }
        int IMoors.Count => 0;
        public static Berth Made() => null;
    }
}
`, `
== Port
  1 file: Port.cs(Port.cs:1).
  All uses, by name(page reference/port/Port/~users.html).
IMoors
  Used in Port.cs, line 25(Port.cs:25).
  Implemented by Berth(Berth).
IMoors.Moor
  Implemented by Berth.Moor(Berth.Moor).
IMoors.Count
  Used in Port.cs, line 31(Port.cs:31).
Place
  Used in Port.cs, lines 17(Port.cs:17) and 25(Port.cs:25).
  Extended by Berth(Berth).
Place.Fits
  Overridden by Berth.Fits(Berth.Fits).
Place.Made
Vessel
  Used on 4 lines of 1 file(page reference/port/Port/~users.html#Vessel).
  Parameter of IMoors.Moor(IMoors.Moor), Place.Fits(Place.Fits), Berth.Fits(Berth.Fits) and Berth.Moor(Berth.Moor).
== Berths
  1 file: Port.cs(Port.cs:1).
Berth
  Used in Port.cs, line 32(Port.cs:32).
  Implements IMoors(IMoors).
  Extends Place(Place).
Berth.Fits
  Overrides Place.Fits(Place.Fits).
  Text inherited from Place.Fits(Place.Fits).
Berth.Moor
  Implements IMoors.Moor(IMoors.Moor).
  Text inherited from IMoors.Moor(IMoors.Moor).
Berth.Made
`},
	})
}
