package check_test

import (
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"

	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/settings"
)

// messages are one project for each message of a rule, and what is said of it there.
var messages = []struct {
	rule, form string
	files      string
	says       string
}{
	{finding.UnreadableSource, "deep", "\n-- a.go --\n// Package a is one.\npackage a\n\n// Quay is one.\ntype Quay " +
		strings.Repeat("struct { // A berth.\nA ", 40) + "int " + strings.Repeat("}", 40) + "\n",
		"a.go:37:3 error what is nested deeper than 32 levels, from here on, is not read"},
	{finding.UnreadableSource, "deep", "\n-- package.json --\n{\"name\": \"port\"}\n-- a.ts --\n/** A port. @module */\n" +
		strings.Repeat("/** One. */ export namespace N {\n", 250) + strings.Repeat("}", 250) + "\n",
		"a.ts:203:13 error what is nested deeper than 200 levels, from here on, is not read"},
	{finding.Undocumented, "", `
-- a.go --
// Package a is one.
package a

func Moor() {}
`, "a.go:4:6 warning function Moor has no doc comment"},
	{finding.Undocumented, "tags", `
-- package.json --
{"name": "port"}
-- a.ts --
/** A port. @module */

/** @since 1.0 */
export function moor(): void {}
`, "a.ts:4:17 warning the comment on function moor consists of tags alone"},
	{finding.Undocumented, "taken", `
-- codrel.yaml --
checks: {inherited-text: asked}
-- a.py --
"""Berths."""


class Base:
    """A base."""

    def moor(self):
        """Moors."""


class Quay(Base):
    """A quay."""

    def moor(self):
        pass
`, "a.py:14:9 warning method Quay.moor has no doc comment of its own; it inherits the text of a.Base.moor"},
	{finding.MissingModuleComment, "", `
-- a.go --
package a
`, "a.go:1:9 warning package project has no doc comment"},
	{finding.EmptyComment, "", `
-- a.go --
// Package a is one.
package a

//
func Moor() {}
`, "a.go:4:1 warning the comment on Moor is empty"},
	{finding.StrayComment, "", `
-- a.go --
// Package a is one.
package a

// Moor moors.

func Moor() {}
`, "a.go:4:1 warning this comment seems to describe Moor, but a blank line separates the two"},
	{finding.DeprecatedWithoutAdvice, "", `
-- a.go --
// Package a is one.
package a

// Moor moors.
//
// Deprecated:
func Moor() {}
`, "a.go:7:6 note function Moor is deprecated, but its comment does not say what to use instead"},
	{finding.PhantomParameter, "", `
-- a.py --
"""Berths."""


def moor(vessel):
    """Moors.

    :param vessel: who
    :param captain: whom
    """
`, "a.py:8:12 error moor has no parameter captain"},
	{finding.PhantomParameter, "near", `
-- a.py --
"""Berths."""


def moor(vessel):
    """Moors.

    :param vesel: who
    """
`, "a.py:7:12 error moor has no parameter vesel; did you mean vessel?"},
	{finding.UndescribedParameter, "", `
-- a.py --
"""Berths."""


def moor(vessel, depth):
    """Moors.

    :param vessel: who
    """
`, "a.py:4:5 warning parameter depth of moor is not described"},
	{finding.UndescribedResult, "", `
-- a.py --
"""Berths."""


def moor(vessel):
    """Moors.

    :param vessel: who
    """
    return vessel.depth + 1
`, "a.py:4:5 note the comment on moor does not say what it returns"},
	{finding.UndescribedResult, "series", `
-- a.py --
"""Berths."""


def moor(vessels):
    """Moors.

    :param vessels: who
    """
    for v in vessels:
        yield v
`, "a.py:4:5 note the comment on moor does not say what it yields"},
	{finding.UndescribedFailure, "", `
-- a.py --
"""Berths."""


def moor(vessel):
    """Moors.

    :param vessel: who
    """
    raise ValueError(vessel)
`, "a.py:9:11 note the comment on moor does not mention that it raises ValueError"},
	{finding.RepeatedSection, "", `
-- a.py --
"""Berths."""


def moor(vessel):
    """Moors.

    :param vessel: who
    :param vessel: again
    """
`, "a.py:8:12 warning vessel is described twice"},
	{finding.UnknownTag, "", `
-- package.json --
{"name": "port"}
-- a.ts --
/** A port. @module */

/**
 * Moors.
 *
 * @xyzzyx what
 */
export const A = 1;
`, `a.ts:6:5 warning "@xyzzyx" is not a known word here; if it is your own, add to codrel.yaml: vocabulary: {typescript: {xyzzyx: label}}`},
	{finding.UnknownTag, "near", `
-- a.py --
"""Berths."""


def moor():
    """Moors.

    :retruns: what
    """
`, `a.py:7:6 warning "retruns" is not a known word here; did you mean returns?`},
	{finding.BrokenReference, "", `
-- a.go --
// Package a is one.
package a

// Moor moors, see [Nowhere.AtAll].
func Moor() {}
`, `a.go:4:21 error "Nowhere.AtAll" is not declared`},
	{finding.BrokenReference, "near", `
-- a.go --
// Package a is one.
package a

// Moor moors, see [Vesel].
func Moor(v Vessel) {}

// Vessel is one.
type Vessel int
`, `a.go:4:21 error "Vesel" is not declared; did you mean Vessel?`},
	{finding.BrokenReference, "fits no form", `
-- package.json --
{"name": "port"}
-- a.ts --
/** A port. @module */

/** Moors. */
export function moor(vessel: string): void;
/** Moors. */
export function moor(vessel: number): void;
export function moor(vessel: any): void {}

/** See [it](<ref:moor(Date)>). */
export const A = 1;
`, `error no overload has the parameters of "moor(Date)"; there is moor(string) or moor(number)`},
	{finding.BrokenReference, "nothing to take", `
-- package.json --
{"name": "port"}
-- a.ts --
/** A port. @module */

/** A base. */
export class Base {
  moor(): void {}
}

/** A quay. */
export class Quay extends Base {
  /** {@inheritDoc} */
  moor(): void {}
}
`, `inherits nothing: nothing that method Quay.moor overrides or implements has a comment`},
	{finding.BrokenReference, "out of reach", `
-- a.go --
// Package a is one.
package a

// Moor moors, see [text](ref:vessel).
//
// [vessel]: ref:vessel
func Moor() {}

// vessel is one.
type vessel int
-- README.md --
# Port

A [vessel](ref:vessel).
`, `README.md:3:4 note "vessel" has no page to link to: it is not visible to users`},
	{finding.AmbiguousReference, "", `
-- go.mod --
module port
-- one/a.go --
// Package one is one.
package one

// Depth is one.
type Depth int
-- two/a.go --
// Package two is one.
package two

// Depth is another.
type Depth int
-- README.md --
# Port

A [depth](ref:Depth).
`, `README.md:3:4 warning "Depth" could mean port/one.Depth or port/two.Depth; write more of the name`},
	{finding.LeakedType, "", `
-- a.go --
// Package a is one.
package a

type table struct{}

// Load loads.
func Load() *table { return nil }
`, "a.go:7:6 note the signature of function Load has the type table, which users cannot name"},
	{finding.BrokenExport, "", `
-- package.json --
{"name": "port"}
-- index.ts --
/** A port. @module */
export { quay } from "./berth";
-- berth.ts --
/** Berths. @module */

/** A berth. */
export const berth = 1;
`, "index.ts:2:10 warning quay is exported, but berth declares no such name"},
	{finding.BrokenExport, "listed", `
-- a.py --
"""Berths."""
__all__ = ["quay", "berth"]

berth = 1
"""A berth."""
`, "quay is listed as exported, but the module declares no such name"},
	{finding.BrokenExport, "file", `
-- package.json --
{"name": "port"}
-- index.ts --
/** A port. @module */
export { quay } from "./berth";
`, `quay is exported from ./berth, but there is no such file`},
	{finding.BrokenExport, "module", `
-- package.json --
{"name": "port"}
-- index.ts --
/** A port. @module */
export * from "./berth";
`, `all of ./berth is exported, but there is no such file`},
	{finding.ImportCycle, "", `
-- port/__init__.py --
"""A port."""
-- port/a.py --
"""A."""
import port.b
-- port/b.py --
"""B."""
import port.a
`, "import cycle: port.a → port.b → port.a"},
	{finding.MalformedComment, "", `
-- a.go --
// Package a is one.
package a

// Moor moors.
//codrel:xyzzy
func Moor() {}
`, `"codrel: xyzzy" is not a known instruction; use let, hide, part or words`},
	{finding.MalformedComment, "near", `
-- a.go --
// Package a is one.
package a

// Moor moors.
//codrel:hied
func Moor() {}
`, `"codrel: hied" is not a known instruction; did you mean hide?`},
	{finding.MalformedComment, "reason", `
-- a.go --
// Package a is one.
package a

// Moor moors.
//codrel:let undocumented pass
func Moor() {}
`, `a reason is missing, so this has no effect; write "//codrel:let undocumented pass, REASON"`},
	{finding.MalformedComment, "rule", `
-- a.go --
// Package a is one.
package a

// Moor moors.
//codrel:let undocumentd pass, so it is
func Moor() {}
`, `there is no rule undocumentd; "codrel explain" lists the rules`},
	{finding.MalformedComment, "unclosed", `
-- package.json --
{"name": "port"}
-- a.ts --
/** A port. @module */

/** See {@link moor for it. */
export const A = 1;
`, `is opened here and never closed`},
	{finding.MalformedComment, "no element", `
-- A.java --
package port;
/** A List<String> of berths. */
public class A { }
`, `<String> is not an HTML element, so it is shown as text; put code into {@code ...}`},
	{finding.BrokenReference, "no file", `
-- a.cs --
namespace Port;
/// <summary>A berth.</summary>
/// <include file='berths.xml' path='berths/berth'/>
public class Berth { }
`, `a.cs:3:5 error berths.xml is not there, or cannot be read, to take text from`},
	{finding.BrokenReference, "no part", `
-- a.cs --
namespace Port;
/// <summary>A berth.</summary>
/// <include file='berths.xml' path='berths/berth'/>
public class Berth { }
-- berths.xml --
<berths/>
`, `a.cs:3:5 error "berths/berth" finds nothing in berths.xml`},
	{finding.MalformedComment, "unopened", `
-- a.cs --
namespace Port;
/// <summary>A berth.</b></summary>
public class Berth { }
`, `a.cs:2:22 warning </b> closes nothing that is open here`},
	{finding.MalformedComment, "unescaped", `
-- a.cs --
namespace Port;
/// <summary>Ships & berths.</summary>
public class Berth { }
`, `a.cs:2:20 warning "&" begins markup here; write &amp; for the sign itself`},
	{finding.MalformedComment, "plain", `
-- package.json --
{"name": "port"}
-- a.ts --
/** A port. @module */

/** See
 * ` + strings.Repeat("> ", 200) + `the pier.
 */
export const A = 1;
`, `this text is shown as it is written`},
	{finding.UnreadableSource, "", `
-- a.go --
// Package a is one.
package a

func Moor( {}
`, "error not valid Go: "},
	{finding.UnreadableSource, "more", `
-- a.go --
// Package a is one.
package a

func Moor( {}

func ) {
`, "(more errors follow)"},
	{finding.BrokenFragment, "", `
-- fragments/tides.md --
Tides.
-- README.md --
# Port

<insert:berths>

<insert:tides>
-- a.go --
// Package a is one.
package a
`, `README.md:3:2 error there is no fragment "berths"`},
	{finding.BrokenFragment, "near", `
-- fragments/tides.md --
Tides.
-- README.md --
# Port

<insert:tdes>

<insert:tides>
-- a.go --
// Package a is one.
package a
`, `there is no fragment "tdes"; did you mean tides?`},
	{finding.BrokenFragment, "circle", `
-- fragments/a.md --
<insert:b>
-- fragments/b.md --
<insert:a>
-- README.md --
# Port

<insert:a>
-- a.go --
// Package a is one.
package a
`, "fragments/a.md:1:1 error the fragment inserts itself: a → b → a"},
	{finding.BrokenFragment, "in a line", `
-- fragments/tides.md --
Tides.
-- README.md --
# Port

Of <insert:tides> here.

<insert:tides>
-- a.go --
// Package a is one.
package a
`, `the fragment "tides" is inserted only where the link is alone in its paragraph`},
	{finding.BrokenFragment, "unused", `
-- fragments/tides.md --
Tides.
-- a.go --
// Package a is one.
package a
`, `nothing inserts the fragment "tides"`},
}

func TestMessages(t *testing.T) {
	for _, m := range messages {
		t.Run(m.rule+" "+m.form, func(t *testing.T) {
			files := map[string]string{}
			for _, f := range txtar.Parse([]byte(m.files)).Files {
				files[f.Name] = string(f.Data)
			}
			s := run(t, files, func(set *settings.Settings) {
				for _, r := range check.Rules {
					if _, said := set.Checks.Rules[r.Name]; !said {
						set.Checks.Rules[r.Name] = r.Default
					}
				}
			})
			var forms, all []string
			for i, f := range s.Findings {
				if f.Rule == m.rule {
					forms = append(forms, f.Form)
				}
				all = append(all, texts(s.Findings[i:i+1])...)
			}
			assert.Contains(t, forms, m.form)
			assert.Contains(t, strings.Join(all, "\n"), m.says)
		})
	}
}

// Every message of a rule about source, comments and fragments is tried here; those on the
// look and on other projects have tests of their own.
func TestEveryMessageIsTried(t *testing.T) {
	tried := map[string]bool{}
	for _, m := range messages {
		tried[m.rule+"/"+m.form] = true
	}
	elsewhere := map[string]bool{
		finding.UnreadableSource + "/encoding": true, finding.UnreadableSource + "/file": true, finding.UnreadableSource + "/symbols": true, finding.UnreadableSource + "/page": true, finding.UnreadableSource + "/fault": true,
		finding.BrokenReference + "/no text": true, finding.Undocumented + "/form": true,
	}
	for _, r := range check.Rules {
		if r.Name == finding.BrokenLook || r.Name == finding.FaintAccent {
			continue
		}
		for form := range r.Messages {
			if key := r.Name + "/" + form; !elsewhere[key] {
				assert.True(t, tried[key], key)
			}
		}
	}
}
