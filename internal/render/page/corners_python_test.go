package page_test

import "testing"

// Odd corners of Python arrive as well.
func TestPythonCorners(t *testing.T) {
	shows(t, outline, []arrival{
		{"attributes that are set elsewhere", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports."""

class Berth:
    """A berth."""

    kind: "str"
    """What it is."""

    def __init__(self):
        self.a, (self.b, *self.c) = 1, (2, [3])
        for self.d in range(3):
            pass
        with open("x") as self.e:
            self.f: int
            """In a block."""
        self.g = self.h = 0  #: Two at once.
        if True:
            #: On a condition.
            self.i = 1
        self.__kept = 1
        self.j: list[int] = []
        """A list
        over two lines."""

    def reset(self):
        self.k = 1
        """Set later."""

    def __enter__(self): """Enters."""
    def __class_getitem__(cls, item): """Takes an item."""
    def __private(self): """Kept."""

Berth.late = 1
"""Set from outside."""

def _fits(self): """Outside."""
Berth.fits = _fits
`, `
port -- Ports.
  class Berth: class Berth -- A berth.
    constructor __init__: def __init__(self)
    attribute kind: kind: "str" -- What it is.
    attribute a: a
    attribute b: b
    attribute c: c
    attribute f: f: int -- In a block.
    attribute g: g -- Two at once.
    attribute h: h -- Two at once.
    attribute i: i = 1 -- On a condition.
    attribute j: j: list[int] = [] -- A list
over two lines.
    method reset: def reset(self)
    method __enter__: def __enter__(self) -- Enters.
    method __class_getitem__: def __class_getitem__(cls, item) -- Takes an item.
`},
		{"decorators and descriptors", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports."""
import functools, contextlib, abc, enum, typing

def traced(f):
    """Traces."""
    @functools.wraps(f)
    def inner(*args): return f(*args)
    return inner

@traced
def moor(name, *, hours=1):
    """Moors."""

@contextlib.contextmanager
def held(name):
    """Holds."""
    yield name

@functools.singledispatch
def read(a):
    """Reads."""

@read.register
def _(a: int):
    """Reads a number."""

@functools.lru_cache(maxsize=None)
def fast(key): """Fast."""

class Level(enum.IntFlag):
    """Levels."""
    LOW = 1
    HIGH = LOW << 1
    @property
    def wide(self): """Wide."""
    @enum.property
    def deep(self): """Deep."""

class Both(typing.Generic[typing.T], abc.ABC):
    """Both."""
    @property
    @abc.abstractmethod
    def name(self) -> str: """Its name."""
    @name.setter
    def name(self, to: str): ...
    @name.deleter
    def name(self): ...
    @functools.partialmethod
    def part(self): """Part."""
    size = property(lambda self: 1, doc="How large.")
    area = property(fget=None)
    """How wide."""
`, `
port -- Ports.
  enumeration Level: class Level(enum.IntFlag) -- Levels.
    enumeration member LOW: LOW = 1
    enumeration member HIGH: HIGH = LOW << 1
    property wide: @property def wide(self) -- Wide.
    property deep: @enum.property def deep(self) -- Deep.
  class Both: class Both(typing.Generic[typing.T], abc.ABC) -- Both.
    property name: @property @abc.abstractmethod def name(self) -> str -- Its name.
      or @name.setter def name(self, to: str)
      or @name.deleter def name(self)
    attribute size: size = property(lambda self: 1, doc="How large.") -- How large.
    attribute area: area = property(fget=None) -- How wide.
    method part: @functools.partialmethod def part(self) -- Part.
  function traced: def traced(f) -- Traces.
  function moor: @traced def moor(name, *, hours=1) -- Moors.
  function held: @contextlib.contextmanager def held(name) -- Holds.
  function read: @functools.singledispatch def read(a) -- Reads.
  function fast: @functools.lru_cache(maxsize=None) def fast(key) -- Fast.
`},
		{"packages in one another", `
-- pyproject.toml --
[project]
name = "port"
-- src/port/__init__.py --
"""Ports."""
from port.sub import *
from .sub.deep import Deep as Deeper, _inner
from . import sub as below
-- src/port/sub/__init__.py --
"""Below."""
from .deep import *
from .deep import _inner as shown
__all__ = ["shown", "here", "Deep"]

def here(): """Here."""
-- src/port/sub/deep.py --
"""Deep."""
class Deep:
    """Deep down."""
def other(): """Another."""
def _inner(): """Inside."""
-- src/port/_kept/__init__.py --
"""Kept."""
def kept(): """Kept too."""
-- src/port/__main__.py --
"""Runs."""
def main(): """Main."""
-- tests/test_port.py --
def test_it(): pass
-- setup.py --
from setuptools import setup
setup()
`, `
port -- Ports.
  re-exports Deeper of port.sub.deep -- Deep down.
  re-exports below (module port.sub) -- Below.
  re-exports shown of port.sub.deep -- Inside.
  class Deep: class Deep -- Deep down.
  function here: def here() -- Here.
__main__ -- Runs.
  function main: def main() -- Main.
sub -- Below.
  re-exports shown of port.sub.deep -- Inside.
  re-exports Deep of port.sub.deep -- Deep down.
deep -- Deep.
  function other: def other() -- Another.
  function _inner: def _inner() -- Inside.
setup
`},
	})
}
