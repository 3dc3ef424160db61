package page_test

import "testing"

// What users can name in Python arrives on its pages, with its words.
func TestPythonArrives(t *testing.T) {
	shows(t, outline, []arrival{
		{"what a list exports", `
-- pyproject.toml --
[project]
name = "port"
-- port/__init__.py --
"""Berths and tides."""
from .berth import Berth, moor as tie
from .tides import *
from . import tides as water
from ._inside import hidden

__all__ = ["Berth", "tie", "water", "hidden"]
__all__ += tides.__all__
__version__ = "1.0"
-- port/berth.py --
class Berth:
    """A place."""

def moor():
    """Moors."""

def unlisted():
    """Is still public in its module."""
-- port/tides.py --
"""Tides."""
__all__ = ("height", "LOW")
LOW = 1
"""Low water."""

def height(at): "How high it is."
def other(): "Not listed."
-- port/_inside.py --
def hidden():
    """Comes out."""
`, `
port -- Berths and tides.
  re-exports tie of port.berth -- Moors.
  re-exports water (module port.tides) -- Tides.
  class Berth: class Berth -- A place.
  function hidden: def hidden() -- Comes out.
  function height: def height(at) -- How high it is.
  constant LOW: LOW = 1 -- Low water.
berth
  function moor: def moor() -- Moors.
  function unlisted: def unlisted() -- Is still public in its module.
tides -- Tides.
`},
		{"classes of data", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
from dataclasses import dataclass, field
from enum import Enum, auto
from typing import NamedTuple, TypedDict, Protocol, NewType, TypeVar, Generic, ClassVar, overload
from collections import namedtuple
import functools

T = TypeVar("T", bound="Berth")
Metres = NewType("Metres", float)
"""How far."""
type Table[K, V = int] = dict[K, list[V]]
Old = namedtuple("Old", "name depth")

@dataclass(frozen=True, kw_only=True)
class Berth(Generic[T]):
    """A place.

    Attributes:
        name: What it is called.
    """
    name: str
    depth: float = 3.0  #: How deep.
    #: Who lies there.
    vessels: list[str] = field(default_factory=list)
    count: ClassVar[int] = 0
    _kept: int = 0

class Level(Enum):
    """Levels."""
    LOW = auto()
    """Low water."""
    HIGH = 2  # not said
    Mid = HIGH

class Point(NamedTuple):
    """A point."""
    x: int
    y: int = 0
    """How far up."""

class Options(TypedDict, total=False):
    """Options."""
    hours: int

class Moors(Protocol[T]):
    """Whatever moors."""
    def moor(self, name: str, /, *, hours: int = ...) -> T:
        """Moors one."""
        ...
`, `
port
  type alias Table: type Table[K, V = int] = dict[K, list[V]]
  class Berth: @dataclass(frozen=True, kw_only=True) class Berth(Generic[T(T)]) -- A place.
    attribute name: name: str
    attribute depth: depth: float = 3.0 -- How deep.
    attribute vessels: vessels: list[str] = field(default_factory=list) -- Who lies there.
    attribute count: count: ClassVar[int] = 0
  enumeration Level: class Level(Enum) -- Levels.
    enumeration member LOW: LOW = auto() -- Low water.
    enumeration member HIGH: HIGH = 2
    enumeration member Mid: Mid = HIGH
  class Point: class Point(NamedTuple) -- A point.
    attribute x: x: int
    attribute y: y: int = 0 -- How far up.
  class Options: class Options(TypedDict, total=False) -- Options.
    attribute hours: hours: int
  class Moors: class Moors(Protocol[T(T)]) -- Whatever moors.
    method moor: def moor(self, name: str, /, *, hours: int = ...) -> T(T) -- Moors one.
  constant T: T = TypeVar("T", bound="Berth")
  variable Metres: Metres = NewType("Metres", float) -- How far.
  variable Old: Old = namedtuple("Old", "name depth")
`},
		{"functions of all kinds", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
import typing as t
from typing import overload

@overload
def read(name: str) -> str: ...
@overload
def read(name: int, *, wide: bool = False) -> int:
    """By number."""
def read(name, **more):
    """Reads.

    :param name: What.
    :returns: It.
    """

async def walk[T: (int, str), *Ts, **P](first: T, /, second=(1, 2), *rest: *Ts, third: "t.Any" = {"a": [1]}, **more: t.Unpack[dict]) -> t.AsyncIterator[T]:
    r"""Walks \d+ steps."""
    yield first

lazy = lambda a, b=1: a
"""Called late."""

def _private(): """Not shown."""
def __getattr__(name): """Finds what is missing."""
`, `
port
  function read: @overload def read(name: str) -> str -- Reads.
    or @overload def read(name: int, *, wide: bool = False) -> int
  function walk: async def walk[T: (int, str), *Ts, **P]( first: T, /, second=(1, 2), *rest: *Ts, third: "t.Any" = {"a": [1]}, **more: t.Unpack[dict], ) -> t.AsyncIterator[T] -- Walks d+ steps.
  variable lazy: lazy = lambda a, b=1: a -- Called late.
`},
		{"members of classes", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
import functools

class Base:
    """A base."""
    def __init__(self, name, *, depth: float = 3):
        """Makes one."""
        self.name = name
        self.depth: float = depth  #: How deep.
        self._kept = 1
        #: Who lies there.
        self.vessels = []
        self.open, self.shut = True, False
        """Whether."""

    @property
    def length(self) -> float:
        """How long."""
    @length.setter
    def length(self, to): ...
    @functools.cached_property
    def slow(self): """Slow."""
    @classmethod
    def made(cls): """Makes."""
    @staticmethod
    def free(a=1, *a2): """Free."""
    def __eq__(self, other): return True
    def __len__(self): """Counts."""
    def _inside(self): """Kept."""
    __slots__ = ("a", "b")
    class Inner:
        """Inside."""
        def deep(self): """Deep."""
    alias = made

class Quay(Base, metaclass=type):
    def length(self): ...
    def fits(self) -> "Quay": """Fits."""
    @abc.abstractmethod
    async def land(self): """Lands."""
`, `
port
  class Base: class Base -- A base.
    class Inner: class Inner -- Inside.
    method deep: def deep(self) -- Deep.
    constructor __init__: def __init__(self, name, *, depth: float = 3) -- Makes one.
    attribute name: name
    attribute depth: depth: float -- How deep.
    attribute vessels: vessels = [] -- Who lies there.
    attribute open: open -- Whether.
    attribute shut: shut -- Whether.
    property length: @property def length(self) -> float -- How long.
      or @length.setter def length(self, to)
    property slow: @functools.cached_property def slow(self) -- Slow.
    class method made: @classmethod def made(cls) -- Makes.
    static method free: @staticmethod def free(a=1, *a2) -- Free.
    method __eq__: def __eq__(self, other)
    method __len__: def __len__(self) -- Counts.
    class method alias: @classmethod def alias(cls) -- Makes.
  class Quay: class Quay(Base(Base), metaclass=type)
    method length: def length(self) -- How long.
    method fits: def fits(self) -> "Quay(Quay)" -- Fits.
    method land: @abc.abstractmethod async def land(self) -- Lands.
    from Base: name, depth, vessels, open, shut, slow, made, free, __eq__, __len__, Inner, alias
`},
		{"conditions and trials", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
import sys
from typing import TYPE_CHECKING
if TYPE_CHECKING:
    from other import Thing
    Alias = int
try:
    from fast import moor
except ImportError:
    def moor():
        """Moors slowly."""
if sys.version_info >= (3, 12):
    def read():
        """Reads the new way."""
else:
    def read():
        """Reads the old way."""
for name in ("a", "b"):
    def looped(): """In a loop."""
with open("x") as f:
    DATA = f.read()
    """What is read."""
match sys.platform:
    case "linux":
        HERE = 1
        """On Linux."""
    case _:
        HERE = 2
a = b = 1
"""Two at once."""
x, (y, *z) = 1, (2, 3)
X: int
"""Only declared."""
Y: "list[int]" = []
if (W := 3): pass
`, `
port
  function moor: def moor() -- Moors slowly.
  function read: def read() -- Reads the new way.
  function looped: def looped() -- In a loop.
  constant DATA: DATA = f.read() -- What is read.
  constant HERE: HERE = 1 -- On Linux.
  constant X: X: int -- Only declared.
  constant Y: Y: "list[int]" = []
  variable Alias: Alias = int
  variable a: a -- Two at once.
  variable b: b -- Two at once.
  variable x: x
  variable y: y
  variable z: z
`},
		{"a stub beside its file", `
-- pyproject.toml --
[project]
name = "port"
-- port/__init__.py --
-- port/berth.py --
class Berth:
    """A place."""
    def fits(self, draught):
        """Whether a vessel fits."""
    def only_code(self): """Only in code."""
def moor(*args):
    """Moors."""
-- port/berth.pyi --
class Berth:
    depth: float
    def fits(self, draught: float) -> bool: ...
def moor(name: str, hours: int = ...) -> Berth: ...
-- port/py.typed --
`, `
port
berth
  class Berth: class Berth -- A place.
    attribute depth: depth: float
    method fits: def fits(self, draught: float) -> bool -- Whether a vessel fits.
    method only_code: def only_code(self) -- Only in code.
  function moor: def moor(name: str, hours: int = ...) -> Berth(Berth) -- Moors.
`},
		{"strings that are no comments, and odd layouts", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
def one(a): return a  # nothing
def two(
    a,  # first
    b=  # second
    3,
):
    f"""No docstring."""
def three(): b"no"
def four():
    "One " "part."
def five():
    # a comment first
    """After a comment."""
def six(): """One line."""; return 1
class A: x = 1; y = 2
class B: """Short."""; z = 3
@(lambda f: f)
# between
def seven():
	"""With a tab."""
LONG = """
text
""".strip()
'''Said in single quotes.'''
if True: INLINE = 1
`, `
port
  class A: class A
    attribute x: x = 1
    attribute y: y = 2
  class B: class B -- Short.
    attribute z: z = 3
  function one: def one(a)
  function two: def two(a, b=3)
  function three: def three()
  function four: def four() -- One
part.
  function five: def five() -- After a comment.
  function six: def six() -- One line.
  function seven: @(lambda f: f) def seven() -- With a tab.
  constant LONG: LONG -- Said in single quotes.
  constant INLINE: INLINE = 1
`},
	})
}
