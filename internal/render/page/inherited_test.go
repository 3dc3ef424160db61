package page_test

import "testing"

// The texts of bases stand where a comment asks for them, or has none.
func TestInheritedTexts(t *testing.T) {
	shows(t, spoken, []arrival{
		{"text of bases in Python", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports."""

class Place:
    """A place."""

    def fits(self, draught):
        """Whether it fits, see ` + "`" + `Place.area` + "`" + `.

        :param draught: what it needs
        :returns: whether
        """

    def area(self):
        """How large."""

class Berth(Place):
    def fits(self, draught): return True

    def area(self):
        """How large.

        :returns: in square metres
        """

class Quay(Berth):
    """A quay."""
    def fits(self, draught): return False
`, `
== port
Ports.
= Place
A place.
= Place.fits
Whether it fits, see ` + "`" + `Place.area` + "`" + `(Place.area).
part 1 
  draught: what it needs
part 2 
  whether
= Place.area
How large.
= Berth.fits
Whether it fits, see ` + "`" + `Place.area` + "`" + `(Place.area).
part 1 
  draught: what it needs
part 2 
  whether
= Berth.area
How large.
part 2 
  in square metres
= Quay
A quay.
= Quay.fits
Whether it fits, see ` + "`" + `Place.area` + "`" + `(Place.area).
part 1 
  draught: what it needs
part 2 
  whether
`},
		{"text of bases in TypeScript", `
-- package.json --
{"name": "port", "main": "index.ts"}
-- index.ts --
/** A place. */
export interface Place {
  /**
   * Whether it fits, see {@link Place.area}.
   * @param draught - What it needs.
   * @returns Whether.
   */
  fits(draught: number): boolean;
  /** How large. */
  area(): number;
}
/**
 * A berth. {@inheritDoc Place}
 */
export class Berth implements Place {
  /**
   * {@inheritDoc Place.fits}
   * @param draught - In metres.
   */
  fits(draught: number): boolean { return true }
  area() { return 1 }
}
/** {@inheritDoc Berth.fits} */
export function fits(draught: number): boolean { return true }
/** {@inheritDoc fits} */
export function again(draught: number): boolean { return true }
/** {@inheritDoc round} */
export function circle(): void {}
/** {@inheritDoc circle} */
export function round(): void {}
`, `
= Place
A place.
= Place.fits
Whether it fits, see [` + "`" + `Place.area` + "`" + `](Place.area).
part 1 
  draught: What it needs.
part 2 
  Whether.
= Place.area
How large.
= Berth
A berth. A place.
= Berth.fits
Whether it fits, see [` + "`" + `Place.area` + "`" + `](Place.area).
part 1 
  draught: In metres.
part 2 
  Whether.
= Berth.area
How large.
= fits
Whether it fits, see [` + "`" + `Place.area` + "`" + `](Place.area).
part 1 
  draught: In metres.
part 2 
  Whether.
= again
Whether it fits, see [` + "`" + `Place.area` + "`" + `](Place.area).
part 1 
  draught: In metres.
part 2 
  Whether.
`},
		{"text of bases in JavaScript", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
/** A place. */
export class Place {
  /**
   * Whether it fits.
   * @param {number} draught - What it needs.
   */
  fits(draught) {}
}
/** A berth. */
export class Berth extends Place {
  /** @inheritdoc */
  fits(draught) {}
  /** @override */
  other() {}
}
/** A quay. */
export class Quay extends Berth {
  /**
   * More exactly.
   * @inheritdoc
   */
  fits(draught) {}
}
`, `
= Place
A place.
= Place.fits
Whether it fits.
part 1 
  draught (` + "`" + `number` + "`" + `): What it needs.
= Berth
A berth.
= Berth.fits
Whether it fits.
part 1 
  draught (` + "`" + `number` + "`" + `): What it needs.
= Quay
A quay.
= Quay.fits
More exactly.
Whether it fits.
part 1 
  draught (` + "`" + `number` + "`" + `): What it needs.
`},
	})
}
