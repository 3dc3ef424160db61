package page_test

import "testing"

// What users can name in Java arrives on its pages, with its words.
func TestJavaArrives(t *testing.T) {
	shows(t, outline, []arrival{
		{"fields and methods of one name", `
-- src/main/java/port/Berth.java --
package port;
/** A place. */
public class Berth {
  private final double depth;
  int length;
  /** The width. */
  public double width;
  /** Makes one. */
  public Berth(double depth) { this.depth = depth; }
  /** {@return how deep it is} */
  public double depth() { return depth; }
  /** How long it is. */
  public int length() { return length; }
  /** How wide it may become. */
  protected double width(double at) { return width; }
}
`, `
port
  class Berth: public class Berth -- A place.
    constructor Berth: public Berth(double depth) -- Makes one.
    field width: public double width -- The width.
    method depth: public double depth() -- Returns how deep it is.
    method length: public int length() -- How long it is.
    method width: protected double width(double at) -- How wide it may become.
`},
		{"overloads by reach", `
-- src/main/java/port/Berth.java --
package port;
/** A place. */
public abstract class Berth {
  /** Moors. */
  public void moor(String vessel) {}
  /** Moors for hours. */
  protected abstract void moor(String vessel, int hours);
  /** Moors for ever. */
  void moor() {}
  private void moor(int hours) {}
  /** Opens. */
  public static Berth open(String... names) { return null; }
}
`, `
port
  class Berth: public abstract class Berth -- A place.
    method moor: public void moor(String vessel) -- Moors.
      or protected abstract void moor(String vessel, int hours)
    method open: public static Berth(Berth) open(String... names) -- Opens.
`},
		{"records, enums and annotations", `
-- src/main/java/port/Vessel.java --
package port;
/**
 * What comes.
 * @param name what it is called
 */
public record Vessel<T extends Comparable<T>>(String name, double... draughts) implements Runnable {
  /** The most. */
  public static final int MOST = 3;
  /** Leaves. */
  public Vessel {}
  /** Another one. */
  public Vessel(String name) { this(name, 1); }
  @Override public void run() {}
}
-- src/main/java/port/Kind.java --
package port;
/** Kinds. */
@Tidal(minutes = 5)
public enum Kind implements Runnable {
  /** Sails. */ SAIL("s") { @Override public void run() {} },
  /** Steams. */ @Deprecated STEAM;
  /** Its letter. */
  public final String letter;
  Kind(String letter) { this.letter = letter; }
  /** Runs. */
  public void run() {}
}
-- src/main/java/port/Tidal.java --
package port;
/** Of the tide. */
public @interface Tidal {
  /** How long. */
  int minutes() default 10;
  /** Who says so. */
  String[] by() default {};
}
`, `
port
  enum Kind: public enum Kind implements Runnable -- Kinds.
    enum constant SAIL: SAIL -- Sails.
    enum constant, deprecated STEAM: STEAM -- Steams.
    field letter: public final String letter -- Its letter.
    method run: public void run() -- Runs.
  annotation interface Tidal: public @interface Tidal -- Of the tide.
    method minutes: int minutes() default 10 -- How long.
    method by: String[] by() default {} -- Who says so.
  record Vessel: public record Vessel<T extends Comparable<T>>(String name, double... draughts) implements Runnable -- What comes.
    constant MOST: public static final int MOST = 3 -- The most.
    constructor Vessel: public Vessel -- Leaves.
      or public Vessel(String name)
    field name: String name
    field draughts: double... draughts
    method run: public void run()
`},
		{"types in types, and members of bases", `
-- src/main/java/port/Quay.java --
package port;
/** A quay. */
public class Quay extends Hidden implements Moors<String> {
  /** A part. */
  public static class Part {
    /** Its number. */
    public int number;
    /** Deeper. */
    public interface Inner { /** Turns. */ void turn(); }
  }
  static class Unseen {}
  /** The first part. */
  public Part first() { return null; }
}
-- src/main/java/port/Hidden.java --
package port;
class Hidden {
  /** Cleans. */
  public void clean() {}
  void scrub() {}
}
-- src/main/java/port/Moors.java --
package port;
/** What moors. */
public interface Moors<T> {
  /** Moors one. */
  default void moor(T what) {}
  /** How many. */
  int MANY = 4;
  private void own() {}
}
`, `
port
  interface Moors: public interface Moors<T> -- What moors.
    constant MANY: int MANY = 4 -- How many.
    method moor: default void moor(T what) -- Moors one.
  class Quay: public class Quay extends Hidden(Hidden) implements Moors(Moors)<String> -- A quay.
    method first: public Part(Quay.Part) first() -- The first part.
    method clean: public void clean() -- Cleans.
    class Part: public static class Part -- A part.
      field number: public int number -- Its number.
      interface Inner: public interface Inner -- Deeper.
        method turn: void turn() -- Turns.
    from Moors: moor, MANY
`},
		{"what a module exports", `
-- src/main/java/module-info.java --
module port {
  exports port;
  exports port.wire to desk;
}
-- src/main/java/port/package-info.java --
/** Ports. */
package port;
-- src/main/java/port/Port.java --
package port;
/** A port. */
public sealed interface Port permits Port.Small {
  /** A small one. */
  non-sealed interface Small extends Port {}
}
-- src/main/java/port/wire/Wire.java --
package port.wire;
/** A wire. */
public class Wire {}
-- src/main/java/port/inside/Inside.java --
package port.inside;
/** Inside. */
public class Inside {}
`, `
port -- Ports.
  interface Port: public sealed interface Port permits Port.Small(Port.Small) -- A port.
    interface Small: non-sealed interface Small extends Port(Port) -- A small one.
`},
	})
}

// What declarations in Java are to one another stands beside them.
func TestJavaRelated(t *testing.T) {
	shows(t, related, []arrival{
		{"bases, overriding and users", `
-- src/main/java/port/Moors.java --
package port;
/** What moors. */
public interface Moors {
  /** Moors a vessel. */
  void moor(Vessel vessel) throws Full;
  /** Moors for hours. */
  void moor(Vessel vessel, int hours);
}
-- src/main/java/port/Place.java --
package port;
/** A place. */
public abstract class Place {
  /** Whether it fits. */
  public abstract boolean fits(Vessel vessel);
  /** Makes one. */
  public static Place made() { return null; }
}
-- src/main/java/port/Berth.java --
package port;
import java.util.List;
/** A berth. */
public class Berth extends Place implements Moors {
  @Override public boolean fits(Vessel vessel) { return true; }
  @Override public void moor(Vessel vessel) { moor(vessel, 3); }
  @Override public void moor(Vessel vessel, int hours) {}
  /** Makes one. */
  public static Berth made() { return null; }
  /** All of them. */
  public List<Berth> all() { return null; }
}
-- src/main/java/port/Vessel.java --
package port;
/** What comes. */
public class Vessel {}
-- src/main/java/port/Full.java --
package port;
/** No room. */
public class Full extends Exception {}
`, `
== port
  5 files: Berth.java(src/main/java/port/Berth.java:1), Full.java(src/main/java/port/Full.java:1), Moors.java(src/main/java/port/Moors.java:1), Place.java(src/main/java/port/Place.java:1), Vessel.java(src/main/java/port/Vessel.java:1).
  All uses, by name(page reference/port/port/~users.html).
Berth
  Used in Berth.java, lines 9(src/main/java/port/Berth.java:9) and 11(src/main/java/port/Berth.java:11).
  Implements Moors(Moors).
  Extends Place(Place).
Berth.fits
  Overrides Place.fits(Place.fits).
  Text inherited from Place.fits(Place.fits).
Berth.moor
  Implements Moors.moor(Moors.moor).
  Text inherited from Moors.moor(Moors.moor).
  Used in Berth.java, line 6(src/main/java/port/Berth.java:6).
Berth.made
Berth.all
Full
  Used in Moors.java, line 5(src/main/java/port/Moors.java:5).
  Thrown by Moors.moor(Moors.moor).
Moors
  Used in Berth.java, line 4(src/main/java/port/Berth.java:4).
  Implemented by Berth(Berth).
Moors.moor
  Implemented by Berth.moor(Berth.moor).
Place
  Used in Berth.java, line 4(src/main/java/port/Berth.java:4) and Place.java, line 7(src/main/java/port/Place.java:7).
  Extended by Berth(Berth).
Place.fits
  Overridden by Berth.fits(Berth.fits).
Place.made
Vessel
  Used on 6 lines of 3 files(page reference/port/port/~users.html#Vessel).
  Parameter of Berth.fits(Berth.fits), Berth.moor(Berth.moor), Moors.moor(Moors.moor) and Place.fits(Place.fits).
`},
	})
}
