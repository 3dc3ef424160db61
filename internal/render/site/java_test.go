package site_test

import (
	"fmt"
	"html"
	"io/fs"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/settings"
)

// javaClient books berths for agents: what natives write, in one package and one beside it.
const javaClient = `
-- pom.xml --
<project><artifactId>tide-client</artifactId><version>1.2</version></project>
-- src/main/java/tide/client/package-info.java --
/**
 * Books berths for agents, see {@link Booking#moor(Vessel, int)}.
 */
package tide.client;
-- src/main/java/tide/client/Booking.java --
package tide.client;

import java.util.List;
import tide.client.wire.Reply;

/**
 * A booking of one berth.
 * <p>It is made by {@link Agent#book}, and holds a {@link Reply} or {@linkplain Reply#none() none};
 * texts are {@link String}s in {@link List lists}.
 * <pre>{@code
 * Booking b = agent.book(vessel);
 * if (b.depth() < 3) { }
 * }</pre>
 *
 * @param <V> what is moored
 * @see #moor(Vessel)
 * @since 1.0
 */
public abstract class Booking<V extends Vessel> implements Comparable<Booking<V>> {
  /** The most hours, {@value}. */
  public static final int HOURS = 12;

  /**
   * Moors a vessel.
   *
   * @param vessel who comes
   * @return the reply
   * @throws Full when there is no room
   */
  public abstract Reply moor(V vessel) throws Full;

  /**
   * Moors a vessel for some hours.
   *
   * @param vessel who comes
   * @param hours how long, at most {@link #HOURS}
   * @return the reply
   */
  public Reply moor(Vessel vessel, int hours) { return null; }

  /** {@return how deep the berth is, in metres} */
  protected double depth() { return 3; }

  @Override
  public int compareTo(Booking<V> other) { return 0; }

  int hidden() { return 0; }

  /** Thrown where there is no room. */
  public static class Full extends Exception {
    private static final long serialVersionUID = 1;
  }
}
-- src/main/java/tide/client/Agent.java --
package tide.client;

/** Who books. */
public interface Agent {
  /**
   * Books a berth.
   * @param vessel for whom
   * @return the booking
   */
  Booking<Vessel> book(Vessel vessel);

  /** How sure it is. */
  enum Certainty {
    /** None at all. */
    NONE,
    /** Quite. @deprecated */
    @Deprecated SOME
  }
}
-- src/main/java/tide/client/Vessel.java --
package tide.client;

/// What comes, *as its papers say*.
///
/// @param name what it is called
/// @param draught how deep it lies, in metres
public record Vessel(String name, double draught) {
  /** Lies as deep as the papers say. */
  public Vessel { }
}
-- src/main/java/tide/client/LocalAgent.java --
package tide.client;

/** An agent at the harbour. */
public final class LocalAgent implements Agent {
  /**
   * {@inheritDoc}
   * It is quick.
   */
  @Override
  public Booking<Vessel> book(Vessel vessel) { return null; }
}
-- src/main/java/tide/client/wire/Reply.java --
package tide.client.wire;

/** What the harbour says. */
public class Reply {
  /** Nothing. */
  public static Reply none() { return null; }
}
-- src/test/java/tide/client/BookingTest.java --
package tide.client;
class BookingTest { void undocumented() {} }
`

// javaSite is the site of the client and what else is given.
func javaSite(t *testing.T, more string) (files, site fstest.MapFS) {
	t.Helper()
	files = archived(javaClient + more)
	return files, asFS(rendered(t, files, settings.Default(), 2))
}

func TestJavaPages(t *testing.T) {
	page := surfaceOf(t, javaClient)
	_, site := javaSite(t, "")
	raw := func(path string) string { return string(site[path].Data) }

	says := func(path, want string) {
		t.Helper()
		dense := func(text string) string { return strings.ReplaceAll(html.UnescapeString(text), " ", "") }
		assert.True(t, strings.Contains(dense(page(path)), dense(want)), "%s does not say %q", path, want)
	}
	const pack, booking = "reference/tide-client/tide.client/index.html", "reference/tide-client/tide.client/Booking.html"
	says(pack, "tide.client package")
	says(pack, "Books berths for agents, see Booking.moor(Vessel, int).")
	for _, want := range []string{
		"public abstract class Booking<V extends Vessel> implements Comparable<Booking<V>>",
		"import tide.client.Booking;",
		"It is made by Agent.book, and holds a Reply or none; texts are Strings in lists.",
		"Booking b = agent.book(vessel); if (b.depth() < 3) { }",
		"Type parameters V what is moored",
		"See also moor(Vessel)",
		"HOURS int = 12 The most hours, 12.",
		"Overload 1 public abstract Reply moor(V vessel) throws Full Overload 2 public Reply moor(Vessel vessel, int hours)",
	} {
		says(booking, want)
	}
	assert.NotContains(t, page(booking), "hidden", "it is for the package alone")
	assert.Contains(t, raw(booking), `throws </span><a href="Booking.Full.html">`, "a type in the type needs no more than its name")
	says(booking, "protected double depth()")

	says("reference/tide-client/tide.client/LocalAgent.html", "Books a berth. It is quick.")
	says("reference/tide-client/tide.client/Vessel.html", "public record Vessel(String name, double draught)")
	says("reference/tide-client/tide.client/Vessel.html", "What comes, as its papers say.")
	says("reference/tide-client/tide.client/Booking.Full.html", "public static class Full extends Exception")
	says("reference/tide-client/tide.client/Agent.Certainty.html", "SOME")
}

// The members of an enum stand in their order, however much there is to say of one.
func TestEnumMembersKeepTheirOrder(t *testing.T) {
	_, site := javaSite(t, `
-- src/main/java/tide/client/Tide.java --
package tide.client;
/** What the water does. */
public enum Tide {
  /** Runs out. `+strings.Repeat("It takes its time. ", 40)+`
   * <pre>{@code tide.ebb();}</pre> */
  EBB,
  /** Stands. */
  SLACK,
  /** Comes in.
   * <table><tr><td>1</td><td>2</td></tr></table> */
  FLOOD,
  /** Gone.
   * @deprecated use {@link #EBB} */
  @Deprecated FALL,
  /** Is high. */
  HIGH
}
`)
	page := string(site["reference/tide-client/tide.client/Tide.html"].Data)
	at := -1
	for _, name := range []string{"EBB", "SLACK", "FLOOD", "HIGH", "FALL"} {
		next := strings.Index(page, `<dt id="`+name+`"`)
		assert.Greater(t, next, at, "%s, and what is deprecated is the last", name)
		at = next
	}
	assert.Contains(t, page, "ebb", "and code stands in the list too")
	assert.Contains(t, page, "<table")
}

// A link with a list of parameters leads to that overload.
func TestJavaOverloads(t *testing.T) {
	_, m := javaSite(t, "")
	pack, err := fs.ReadFile(m, "reference/tide-client/tide.client/index.html")
	require.NoError(t, err)
	booking, err := fs.ReadFile(m, "reference/tide-client/tide.client/Booking.html")
	require.NoError(t, err)
	link := func(text, label string) string {
		i := strings.Index(text, label)
		require.Positive(t, i, label)
		from := strings.LastIndex(text[:i], `href="`) + len(`href="`)
		return text[from : from+strings.IndexByte(text[from:], '"')]
	}
	two := link(string(pack), "Booking.<wbr>moor(Vessel, int)")
	assert.Contains(t, two, "Booking.html#moor")
	one := link(string(booking), "moor(Vessel)</code>")
	assert.NotEqual(t, strings.TrimPrefix(two, "Booking.html"), one, "each has its own")
	for _, anchor := range []string{strings.TrimPrefix(two, "Booking.html#"), strings.TrimPrefix(one, "#")} {
		assert.Contains(t, string(booking), `id="`+anchor+`"`)
	}
}

// What a module exports is what users see; a type that a class inherits needs no more than its
// name; what a tag hides is not shown, and index terms are words to search for.
func TestJavaSurface(t *testing.T) {
	page := surfaceOf(t, javaClient+`
-- src/main/java/module-info.java --
/** Tide. */
module tide.client {
  requires transitive java.base;
  exports tide.client;
  exports tide.client.wire to tide.board, tide.desk;
  opens tide.client.wire;
}
-- src/main/java/tide/client/Night.java --
package tide.client;
/**
 * A booking at night, {@index "tide table" for search}, up to {@value Booking#HOURS} hours.
 * {@snippet file="Wake.java" region=wake}
 * {@snippet class="tide.Wake" lang=java}
 */
public abstract class Night extends Booking<Vessel> {
  /**
   * Wakes.
   * @throws Full when all are up
   */
  public void wake() throws Full {}
  /** Not here. @hidden no block */
  public void kept() {}
  /**
   * Nowhere.
   * @hidden
   */
  public void gone() {}
  /** Escaped. */
  public int d\u0065pth;
}
-- src/main/java/tide/client/snippet-files/Wake.java --
// @start region="wake"
if (night) { // @highlight substring="night"
  wake(); }
  // @end
-- src/main/snippets/tide/Wake.java --
class Wake { @Override void all() {} }
`)
	const night = "reference/tide-client/tide.client/Night.html"
	text := page(night)
	assert.Contains(t, text, "tide table, up to 12 hours.")
	assert.Contains(t, text, "if ( night ) { wake(); } class Wake { @Override void all() {} }")
	assert.Contains(t, text, "kept")
	assert.NotContains(t, text, "gone")
	assert.Contains(t, text, "depth")
	files, m := javaSite(t, `
-- src/main/java/module-info.java --
module tide.client { exports tide.client; exports tide.client.wire to tide.board; }
-- src/main/java/tide/client/Night.java --
package tide.client;
/** A booking at night. */
public abstract class Night extends Booking<Vessel> {
  /** Wakes. */
  public void wake() throws Full {}
}
`)
	require.NotNil(t, files)
	assert.Contains(t, string(m[night].Data), `throws </span><a href="Booking.Full.html">`)
	assert.NotContains(t, m, "reference/tide-client/tide.client.wire/index.html", "it is exported to one module alone")

	page = surfaceOf(t, javaClient+`
-- src/main/java/tide/client/wire/package.html --
<html><head><title>No</title></head><body>
What comes over the wire, see {@link Reply#none}.
</body></html>
-- docs/package.html --
<html><body>Something else.</body></html>
`)
	assert.Contains(t, page("reference/tide-client/tide.client.wire/index.html"), "What comes over the wire, see Reply.none .")
}

// Who wrote something stands in the margin, unless the settings leave that out.
func TestJavaCredits(t *testing.T) {
	files, m := javaSite(t, `
-- src/main/java/tide/client/Night.java --
package tide.client;
/**
 * A booking at night.
 * @author Ann of the harbour
 * @author Bob
 * @version 2.1
 * @serial all of it
 */
public abstract class Night extends Booking<Vessel> { }
`)
	const night = "reference/tide-client/tide.client/Night.html"
	text := plainText(string(m[night].Data))
	assert.Contains(t, text, "By Ann of the harbour and Bob.")
	assert.Contains(t, text, "Version 2.1.")
	assert.Contains(t, text, "Serial form all of it")
	set := settings.Default()
	set.Write.Hide = []string{"author"}
	text = plainText(string(asFS(rendered(t, files, set, 2))[night].Data))
	assert.NotContains(t, text, "Ann")
	assert.Contains(t, text, "Version 2.1.")
}

// The findings are those that a sensible maintainer would mend, at their places.
func TestJavaFindings(t *testing.T) {
	files, _ := javaSite(t, `
-- src/main/java/tide/client/Flawed.java --
package tide.client;

/** Flawed, see {@link Bookings} and {@link java.util.Map}, a List<Vessel>. */
public class Flawed {
  /**
   * Moors.
   * @param vesel who comes
   * @param <T> what lies there
   * @retrun nothing
   */
  public <T> void moor(Vessel vessel, int hours) {}
  public void bare() {}
  public Flawed() {}
  /** @since 2 */
  public int since;
  /** {@inheritDoc} */
  public boolean equals(Object other) { return false; }
  /** {@inheritDoc} */
  public void unlike() {}
}
`)
	s, err := build.Run(t.Context(), files, build.Options{Settings: settings.Default(), FrontEnds: languages.All, Folder: "client"})
	require.NoError(t, err)
	var got []string
	for i := range s.Findings {
		f := &s.Findings[i]
		got = append(got, strings.TrimPrefix(f.Place.File, "src/main/java/tide/client/")+fmt.Sprintf(":%d:%d ", f.Place.At.Line, f.Place.At.Column)+f.Rule+" "+finding.OneLine(check.Text(f)))
	}
	assert.Equal(t, []string{
		"Agent.java:17:17 deprecated-without-advice enum constant Agent.Certainty.SOME is deprecated, but its comment does not say what to use instead",
		`Flawed.java:3:24 broken-reference "Bookings" is not declared; did you mean Booking?`,
		"Flawed.java:3:67 malformed-comment <Vessel> is not an HTML element, so it is shown as text; put code into {@code ...}, or write &lt; for the sign",
		"Flawed.java:7:13 phantom-parameter Flawed.moor has no parameter vesel; did you mean vessel?",
		`Flawed.java:9:6 unknown-tag "@retrun" is not a known word here; did you mean @return?`,
		"Flawed.java:11:19 undescribed-parameter parameter hours of Flawed.moor is not described",
		"Flawed.java:11:19 undescribed-parameter parameter vessel of Flawed.moor is not described",
		"Flawed.java:12:15 undocumented method Flawed.bare has no doc comment",
		"Flawed.java:15:14 undocumented the comment on field Flawed.since consists of tags alone",
		`Flawed.java:18:7 broken-reference "{@inheritDoc}" inherits nothing: nothing that method Flawed.unlike overrides or implements has a comment`,
		"wire/Reply.java:1:1 missing-module-comment package tide.client.wire has no doc comment",
	}, got)
}

// Of packages of which the build makes a part, nothing is said that the code itself disproves.
func TestJavaMadeByTheBuild(t *testing.T) {
	files, _ := javaSite(t, `
-- src/main/java/tide/made/Reader.java --
package tide.made;

import tide.client.MadeBooking;
import tide.client.*;

/** Reads {@link Grammar}s, {@link tide.made.Tokens}, {@link MadeBooking}, {@link Bookings} and {@link Reader#nothing}. */
public class Reader {
  /** Takes one, and no {@link StringBuffer}. @param grammar which */
  public void take(Grammar grammar) {}
}
-- src/main/java/tide/whole/Reader.java --
package tide.whole;

/** Reads {@link Grammar}s. */
public class Reader {
  /** Fills one. @param text which */
  public void fill(StringBuffer text) {}
}
`)
	s, err := build.Run(t.Context(), files, build.Options{Settings: settings.Default(), FrontEnds: languages.All, Folder: "client"})
	require.NoError(t, err)
	var got []string
	for i := range s.Findings {
		if f := &s.Findings[i]; f.Rule == finding.BrokenReference {
			got = append(got, fmt.Sprintf("%s:%d %s", f.Place.File, f.Place.At.Line, finding.OneLine(check.Text(f))))
		}
	}
	assert.Equal(t, []string{
		`src/main/java/tide/made/Reader.java:6 "Reader#nothing" is not declared`,
		`src/main/java/tide/whole/Reader.java:3 "Grammar" is not declared`,
	}, got)
}

// What a sensible maintainer would not mend is no finding.
func TestJavaNoFindings(t *testing.T) {
	files, _ := javaSite(t, `
-- src/main/java/tide/quiet/package-info.java --
/** Quiet. */
package tide.quiet;
-- src/main/java/tide/quiet/Quiet.java --
package tide.quiet;

/** Quiet, as <berth>3</berth>. */
public class Quiet implements Later<String> {
  /**
   * Moors, with {@code a}.
   * @param hours how long
   */
  private int moor(int hours) { return 1; }
  /**
   * Moors.
   * @param name of whom
   */
  public void moor(String name) {}
  /**
   * {@inheritDoc}
   * @param now whether at once
   */
  @Override
  public boolean cancel(boolean now) throws InterruptedException { return true; }
  /**
   * See {@link #MOST_HOURS}.
   * @return null
   */
  @Override
  public String get() throws InterruptedException { return null; }
  /**
   * Opens one.
   * @param name which
   * @see Later#open(String)
   */
  public Object open(String name) { return name; }
  /**
   * Old.
   * @deprecated use {@link Quiet}
   */
  @Deprecated
  public static class Old {
    /**
     * Starts.
     * @param arguments none
     * @deprecated with its type
     */
    public static void main(String[] arguments) throws Exception {}
    /** Makes one. */
    @Deprecated public Old() {}
  }
}
-- src/main/java/tide/quiet/Later.java --
package tide.quiet;

/**
   * Comes later.
   * @param <T> what
   */
public interface Later<T> extends java.util.concurrent.Future<T> {
  /**
   * {@inheritDoc}
   * @param now whether at once
   */
  @Override
  boolean cancel(boolean now);
  /**
   * Opens one.
   * @param name which
   * @return it
   */
  Object open(String name);
}
`)
	s, err := build.Run(t.Context(), files, build.Options{Settings: settings.Default(), FrontEnds: languages.All, Folder: "client"})
	require.NoError(t, err)
	var got []string
	for i := range s.Findings {
		if f := &s.Findings[i]; strings.Contains(f.Place.File, "quiet") {
			got = append(got, fmt.Sprintf("%d %s", f.Place.At.Line, finding.OneLine(check.Text(f))))
		}
	}
	assert.Equal(t, []string{
		"3 <berth> is not an HTML element, so it is shown as text; put code into {@code ...}, or write &lt; for the sign",
	}, got)
}
