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

// guideOf is a project with something to show, and a guide.
func guideOf(text string) string {
	return `
-- go.mod --
module port.example
-- a.go --
// Package a is one.
package a

// Quay is one.
type Quay struct {
	Length int
}

// Moor ties up.
func Moor(berth string) (ok bool) {
	ok = berth != ""
	return ok
}

// Most is a number.
const Most = 3
-- README.md --
# Top
-- docs/guides/a.md --
` + text
}

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
	{finding.ConflictingComments, "", `
-- include/a.h --
/** Opens. */
int open_gauge(void);
-- src/a.c --
/** Shuts. */
int open_gauge(void) { return 0; }
`, "src/a.c:1:1 warning the comment on the definition of open_gauge differs from that at its declaration (include/a.h, line 2)"},
	{finding.MalformedComment, "command", "-- lib/Tide.pm --\npackage Tide;\n=hedd1 A\n\n=cut\n1;\n", "lib/Tide.pm:2:1 warning \"=hedd1\" is no command of POD, so it is shown as text; the manual (perlpod) lists them"},
	{finding.MalformedComment, "line before", "-- lib/Tide.pm --\npackage Tide;\n=head1 A\n\nText.\n=head1 B\n\n=cut\n1;\n", "lib/Tide.pm:5:1 warning an empty line must stand before \"=head1\""},
	{finding.MalformedComment, "line behind", "-- lib/Tide.pm --\npackage Tide;\n=head1 A\nText.\n\n=cut\n1;\n", "lib/Tide.pm:2:1 warning an empty line must stand behind \"=head1\": what follows is a part of the command"},
	{finding.MalformedComment, "item", "-- lib/Tide.pm --\npackage Tide;\n=item a\n\n=cut\n1;\n", "lib/Tide.pm:2:1 warning \"=item\" stands in no list: write \"=over\" before the first one"},
	{finding.MalformedComment, "mixed", "-- lib/Tide.pm --\npackage Tide;\n=over\n\n=item * a\n\n=item b\n\n=back\n\n=cut\n1;\n", "lib/Tide.pm:6:1 warning this entry is of another kind than the first one of its list: stars, numbers and terms do not mix"},
	{finding.MalformedComment, "over", "-- lib/Tide.pm --\npackage Tide;\n=over\n\n=item a\n\n=cut\n1;\n", "lib/Tide.pm:2:1 warning \"=over\" is never closed: write \"=back\" behind its last entry"},
	{finding.MalformedComment, "back", "-- lib/Tide.pm --\npackage Tide;\n=back\n\n=cut\n1;\n", "lib/Tide.pm:2:1 warning \"=back\" closes nothing: no \"=over\" is open"},
	{finding.MalformedComment, "encoding", "-- lib/Tide.pm --\npackage Tide;\n=pod\n\né\n\n=cut\n1;\n", "lib/Tide.pm:4:1 warning there are characters beyond ASCII here: write \"=encoding UTF-8\" before the first text"},
	{finding.UndescribedUnsafety, "", `
-- Cargo.toml --
[package]
name = "tide"
-- src/lib.rs --
//! Tides.

/// Reads a gauge.
///
/// **Safety**: it must be on.
pub unsafe fn read() {}

/// A gauge.
pub unsafe trait Gauge {
    /// Opens it.
    unsafe fn open();
}

pub unsafe fn bare() {}
`, "src/lib.rs:9:18 note trait Gauge is unsafe, but its comment has no section \"Safety\" on what users must make sure of"},
	{finding.MissingFileComment, "", `
-- codrel.yaml --
checks: {rules: {missing-file-comment: note}}
-- a.h --
/* Licensed to all. */

/** Opens. */
int open_gauge(void);
`, "a.h:1:1 note a.h has no comment at its head"},
	{finding.MissingFileComment, "", `
-- codrel.yaml --
checks: {rules: {missing-file-comment: note}}
-- a.py --
import os
"""Not a module's."""
`, "a.py:1:1 note a.py has no comment at its head"},
	{finding.MissingFileComment, "fields", `
-- codrel.yaml --
checks: {rules: {missing-file-comment: note}, file-fields: [author, license, copyright, SPDX-License-Identifier]}
-- a.h --
// SPDX-License-Identifier: CC0-1.0
/** @file
 * Gauges.
 * @license free
 * Copyrighted by nobody.
 */

/** Opens. */
int open_gauge(void);
`, "a.h:1:1 note the comment at the head of a.h does not say author, copyright"},
	{finding.HeaderlessFunction, "", `
-- codrel.yaml --
checks: {rules: {headerless-function: warning}}
-- include/a.h --
/** @file Gauges. */
/** Opens. */
int open_gauge(void);
-- src/a.c --
int open_gauge(void) { return shut_gauge(); }
static int own(void) { return 0; }
int shut_gauge(void) { return own(); }
int main(void) { return open_gauge(); }
`, "src/a.c:3:5 warning no header declares shut_gauge, which other files can link to: declare it, or make it static"},
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
	{finding.BrokenReference, "no heading", `
-- lib/Quay.pm --
package Quay;

=head1 NAME

Quay - berths, see L</MOORING>

=head1 LICENCE

=cut

1;
`, `lib/Quay.pm:5:20 warning no heading of Quay is "MOORING"`},
	{finding.BrokenReference, "near a heading", `
-- lib/Quay.pm --
package Quay;

=head1 NAME

Quay - berths, see L</MOORNG A SHIP>

=head1 MOORING A SHIP

=cut

1;
`, `lib/Quay.pm:5:20 warning no heading of Quay is "MOORNG A SHIP"; did you mean "MOORING A SHIP"?`},
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
	{finding.BrokenGuideLink, "", guideOf("# A\n\n[x](sub/none.md)\n"), "docs/guides/a.md:3:2 error the link leads to docs/guides/sub/none.md, which does not exist"},
	{finding.BrokenGuideLink, "near", guideOf("# A\n\n[x](../../a.g)\n"), "the link leads to a.g, which does not exist; did you mean a.go?"},
	{finding.BrokenGuideLink, "heading", guideOf("# A\n\n[x](#elsewhere)\n"), `docs/guides/a.md has no heading that "#elsewhere" could mean`},
	{finding.BrokenGuideLink, "near heading", guideOf("# A\n\n## Heights\n\n[x](../../README.md#top) [y](#hights)\n"), `docs/guides/a.md:5:27 error docs/guides/a.md has no heading that "#hights" could mean; did you mean #heights?`},
	{finding.BrokenGuideLink, "picture", guideOf("# A\n\nA ![](tide.png)\n"), "docs/guides/a.md:3:3 error docs/guides/tide.png is to be shown and does not exist"},
	{finding.BrokenGuideLink, "near picture", guideOf("# A\n\n<p><img src=\"tid.png\" alt=\"\"></p>\n\n-- docs/guides/tide.png --\n"), "docs/guides/a.md:3:14 error docs/guides/tid.png is to be shown and does not exist; did you mean docs/guides/tide.png?"},
	{finding.BrokenGuideLink, "kind", guideOf("# A\n\n![A](../../a.go)\n"), "a.go is to be shown, and is neither a picture nor a film that pages show"},
	{finding.BrokenGuideLink, "address", guideOf("# A\n\n[x](htps://tide.example) and [y]()\n"), `docs/guides/a.md:3:2 error "htps://tide.example" is no address that a page may lead to`},
	{finding.BrokenGuideLink, "address", guideOf("# A\n\n![](javascript:x)\n"), `docs/guides/a.md:3:1 error "javascript:x" is no address that a page may lead to`},
	{finding.BrokenGuideLink, "large", guideOf("# A\n\n![A](a.png)\n-- docs/guides/a.png --\n" + strings.Repeat("x", 9_000_000) + "\n"), "docs/guides/a.png has 9 MB and is not shown; a picture may have 8 MB"},
	{finding.MalformedComment, "long", guideOf("# A\n" + strings.Repeat("\n`Moor` again.\n", 1_300_000)), "docs/guides/a.md:1:1 warning this text has 19.6 MB and is shown as it is written; up to 1 MB is read as Markdown: divide it"},
	{finding.BrokenGuide, "front", guideOf("---\ntitle: [a, b]\n---\n# A\n"), `docs/guides/a.md:2:8 warning the front matter cannot be read: "title" must be text`},
	{finding.BrokenGuide, "front", guideOf("---\ntitle: 'a\n---\n# A\n"), `warning the front matter cannot be read: `},
	{finding.BrokenGuide, "front", guideOf("---\n- a\n---\n# A\n"), `docs/guides/a.md:2:1 warning the front matter cannot be read: it has no keys with values`},
	{finding.BrokenGuide, "open", guideOf("---\ntitle: a\n\n# A\n"), `docs/guides/a.md:1:1 warning the front matter has no end; close it with a line of "---"`},
	{finding.BrokenGuide, "near key", guideOf("---\nlayout: wide\ntitel: a\n---\n# A\n"), `docs/guides/a.md:3:1 warning the front matter has the key "titel"; did you mean title?`},
	{finding.BrokenGuide, "after none", guideOf("---\nafter: tides\n---\n# A\n"), `docs/guides/a.md:2:8 warning there is no guide "tides" that this one could come after`},
	{finding.BrokenGuide, "after several", guideOf("---\nafter: b\n---\n# A\n-- docs/guides/x/b.md --\n# X\n-- docs/guides/y/b.md --\n# Y\n"), `"after: b" may mean docs/guides/x/b.md or docs/guides/y/b.md`},
	{finding.BrokenGuide, "circle", guideOf("---\nafter: b\n---\n# A\n-- docs/guides/b.md --\n---\nafter: a.md\n---\n# B\n"), `docs/guides/a.md:2:8 warning this guide and "b", which it is to come after, come after each other`},
	{finding.BrokenGuide, "unreached", guideOf("# A\n-- docs/guides/b.md --\n# B\n-- codrel.yaml --\nguides: {order: [b.md]}\n"), "docs/guides/a.md:1:1 warning no order reaches this guide"},
	{finding.BrokenGuide, "order", guideOf("# A\n-- codrel.yaml --\nguides:\n  order: [a.md, b.md]\n"), `codrel.yaml:2:17 warning there is no guide "b.md"`},
	{finding.BrokenGuide, "same name", guideOf("# A\n-- docs/guides/A.markdown --\n# B\n"), "this guide would have the same address as docs/guides/A.markdown"},
	{finding.BrokenGuide, "same title", guideOf("# A\n-- docs/guides/b.md --\n# a\n"), "docs/guides/b.md:1:3 warning this guide has the same title as docs/guides/a.md"},
	{finding.BrokenExcerpt, "", guideOf("```go excerpt=Zeppelin\nx\n```\n"), `docs/guides/a.md:1:4 error the excerpt "Zeppelin" is not declared`},
	{finding.BrokenExcerpt, "near", guideOf("```go excerpt=Quai\nx\n```\n"), `the excerpt "Quai" is not declared; did you mean Quay?`},
	{finding.BrokenExcerpt, "renamed", guideOf("```go excerpt=Tie\nfunc Tie(berth string) (ok bool) {\n\tok = berth != \"\"\n\treturn ok\n}\n```\n"), `the excerpt "Tie" is not declared; it is most like Moor now`},
	{finding.BrokenExcerpt, "renamed", guideOf("```go excerpt=a.Tie part=body\nok = berth != \"\"\nreturn ok\n```\n"), `the excerpt "a.Tie" is not declared; it is most like a.Moor now`},
	{finding.BrokenExcerpt, "several", guideOf("```go excerpt=Moor\n```\n-- b/b.go --\n// Package b is one.\npackage b\n\n// Moor is one.\nfunc Moor() {}\n"), `the excerpt "Moor" may be `},
	{finding.BrokenExcerpt, "module", guideOf("```go excerpt=port.example/a\n```\n-- a/a.go --\n// Package a is one.\npackage a\n"), `the excerpt "port.example/a" is a module`},
	{finding.BrokenExcerpt, "file", guideOf("```yaml excerpt=file:none/x.yaml\n```\n"), "there is no file none/x.yaml to show"},
	{finding.BrokenExcerpt, "near file", guideOf("```go excerpt=file:a.goo\n```\n"), "there is no file a.goo to show; did you mean a.go?"},
	{finding.BrokenExcerpt, "outside", guideOf("```go excerpt=file:../x.go\n```\n"), "../x.go lies outside the project"},
	{finding.BrokenExcerpt, "no text", guideOf("```go excerpt=file:docs\n```\n"), "docs is no text that an excerpt can be taken from"},
	{finding.BrokenExcerpt, "no body", guideOf("```go excerpt=Most part=body\n```\n"), "Most has no body to show"},
	{finding.BrokenExcerpt, "no start", guideOf("```go excerpt=Moor from=\"for \"\n```\n"), `no line of Moor has "for " in it`},
	{finding.BrokenExcerpt, "starts", guideOf("```go excerpt=Moor from=ok\n```\n"), `the excerpt of Moor begins with "ok", which is in the lines 10 and 11`},
	{finding.BrokenExcerpt, "no end", guideOf("```go excerpt=Moor to=for\n```\n"), `no line of Moor behind the first has "for" in it`},
	{finding.BrokenExcerpt, "no line", guideOf("```go excerpt=Moor lines=2-9\n```\n"), "Moor has 4 lines, and no line 9"},
	{finding.BrokenExcerpt, "nested", guideOf("```md excerpt=file:docs/guides/b.md\n```\n-- docs/guides/b.md --\n# B\n\n```go excerpt=Most\nconst Most = 3\n```\n"), "docs/guides/b.md has an excerpt in it, in line 3"},
	{finding.BrokenExcerpt, "empty", guideOf("```md excerpt=file:x.txt\n```\n-- x.txt --\n\n"), "the excerpt of x.txt has no text"},
	{finding.BrokenExcerpt, "words", guideOf("```go excerpt=Moor part=foot\n```\n"), "the words of the fence cannot be read: part=foot is unknown; there are head, body and commented"},
	{finding.BrokenExcerpt, "unclosed", guideOf("```go excerpt=Moor\nold\n"), "docs/guides/a.md:1:4 error the fence of Moor has no end"},
	{finding.BrokenExcerpt, "fence", guideOf("```md excerpt=file:x.txt\n```\n-- x.txt --\na\n```\n"), "the fence cannot hold x.txt, which has such marks in it"},
	{finding.StaleExcerpt, "", guideOf("```go excerpt=Most\nconst Most = 4\n```\n"), `docs/guides/a.md:1:4 error the copy of Most differs from a.go:16 in one line: line 1 is "const Most = 4", the source has "const Most = 3"`},
	{finding.StaleExcerpt, "more", guideOf("```go excerpt=Most\nconst Most = 3\n// and no more\n```\n"), `the copy of Most differs from a.go:16 in one line: line 2 "// and no more" is gone`},
	{finding.StaleExcerpt, "less", guideOf("```go excerpt=Moor\nfunc Moor(berth string) (ok bool) {\n\treturn ok\n}\n```\n"), `before line 2, "ok = berth != """ is new`},
	{finding.StaleExcerpt, "blank", guideOf("> 1. ```go excerpt=Most\n>    ```\n"), "the fence has no copy of Most yet"},
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
