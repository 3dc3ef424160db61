package page_test

import "testing"

// What declarations in Python are to one another stands beside them.
func TestPythonRelated(t *testing.T) {
	shows(t, related, []arrival{
		{"bases, overriding and users", `
-- pyproject.toml --
[project]
name = "port"
-- port/__init__.py --
"""Ports."""
from .berth import Berth, Quay
-- port/berth.py --
"""Berths."""
from abc import ABC, abstractmethod
from typing import Protocol
from . import tide

class Moors(Protocol):
    """Moors."""
    def moor(self, name): ...

class Place(ABC):
    """A place."""
    depth = 1.0
    @abstractmethod
    def fits(self, draught: "tide.Level") -> bool:
        """Whether it fits."""
    def area(self):
        """How large."""

class Berth(Place, Moors):
    """A berth."""
    def fits(self, draught): return True
    def moor(self, name): """Moors it."""
    @classmethod
    def made(cls) -> "Berth": """Makes one."""

class Quay(Berth):
    """A quay."""
    def area(self): return super().area()

class Both(Quay, Place): """Both."""

def find(name) -> Berth:
    """Finds one."""

def all() -> list[Berth]: """All."""

class Lost(Exception): """It is lost."""

def seek():
    """Seeks.

    Raises:
        Lost: Where it is.
    """
    raise Lost
-- port/tide.py --
"""Tides."""
class Level(float):
    """How high."""

LOW: Level = Level(1)
"""Low water."""
-- use.py --
"""Uses."""
from port import Berth, tide
from port.berth import find as seek

def run():
    """Runs."""
    b = seek("x")
    Berth.made()
    return tide.LOW
`, `
== port
  1 file: __init__.py(port/__init__.py:1).
  Imports port.berth(page reference/port/port.berth/index.html).
  Imported by use(page reference/port/use/index.html).
  All uses, by name(page reference/port/port/~users.html).
== berth
  1 file: berth.py(port/berth.py:1).
  Imports port.tide(page reference/port/port.tide/index.html).
  Imported by port(page reference/port/port/index.html) and use(page reference/port/use/index.html).
Moors
  Used in berth.py, line 19(port/berth.py:19).
  Extended by port.Berth(Berth).
Moors.moor
  Overridden by port.Berth.moor(Berth.moor).
Place
  Used in berth.py, lines 19(port/berth.py:19) and 30(port/berth.py:30).
  Extended by port.Berth(Berth) and Both(Both).
Place.depth
Place.fits
  Overridden by port.Berth.fits(Berth.fits).
Place.area
  Overridden by port.Quay.area(Quay.area).
Berth
  Used on 5 lines of 3 files(page reference/port/port/~users.html#Berth).
  Extends Moors(Moors) and Place(Place).
  Extended by port.Quay(Quay).
  Returned by all(all) and find(find).
Berth.fits
  Overrides Place.fits(Place.fits).
  Text inherited from Place.fits(Place.fits).
Berth.moor
  Overrides Moors.moor(Moors.moor).
Berth.made
  Used in use.py, line 8(use.py:8).
Quay
  Used in berth.py, line 30(port/berth.py:30) and __init__.py, line 2(port/__init__.py:2).
  Extends port.Berth(Berth).
  Extended by Both(Both).
Quay.area
  Overrides Place.area(Place.area).
  Text inherited from Place.area(Place.area).
Both
  Extends Place(Place) and port.Quay(Quay).
find
  Used in use.py, lines 3(use.py:3) and 7(use.py:7).
all
Lost
  Used in berth.py, line 45(port/berth.py:45).
  Raised by seek(seek).
seek
== tide
  1 file: tide.py(port/tide.py:1).
  Imported by port.berth(page reference/port/port.berth/index.html) and use(page reference/port/use/index.html).
Level
  Used in tide.py, line 5(port/tide.py:5).
  Parameter of berth.Place.fits(Place.fits).
  constant LOW
LOW
  Used in use.py, line 9(use.py:9).
== use
  1 file: use.py(use.py:1).
  Imports port(page reference/port/port/index.html), port.berth(page reference/port/port.berth/index.html) and port.tide(page reference/port/port.tide/index.html).
run
`},
	})
}
