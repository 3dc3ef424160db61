"""Harbours, tides and berths, as the service describes them.

The classes are plain data: comparing two of them compares what they hold.

`Heights <insert:heights>`_
"""

from __future__ import annotations

import datetime as dt
import enum
import sys
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import NamedTuple, Protocol

#: How far from the computed height the sea may be without anybody wondering, in metres.
TOLERANCE = 0.15

Metres = float
"""A height or depth, in metres above the harbour's datum."""


class TideKind(enum.Enum):
    """Whether the water stops rising or falling."""

    HIGH = "high"
    """The water stops rising."""
    LOW = "low"
    """The water stops falling."""

    @property
    def opposite(self) -> TideKind:
        """The kind of tide that comes next."""
        return TideKind.LOW if self is TideKind.HIGH else TideKind.HIGH


class Position(NamedTuple):
    """A place on the chart, in degrees."""

    latitude: float
    longitude: float = 0.0


@dataclass(frozen=True)
class Tide:
    """A high or low water.

    Attributes:
        at: When the water turns.
        height: How high it stands then.
        kind: Which way it turns.
    """

    at: dt.datetime
    height: Metres
    kind: TideKind = TideKind.HIGH

    def differs(self, other: Tide, *, by: Metres = TOLERANCE) -> bool:
        """Compares the heights of two tides.

        Args:
            other: The tide to compare with.
            by: How much of a difference is none.

        Returns:
            Whether the heights differ by more.
        """
        return abs(self.height - other.height) > by

    def __str__(self) -> str:
        return f"{self.kind.value} {self.height:.2f} m at {self.at:%H:%M}"


@dataclass
class Berth:
    """A place where a vessel can lie."""

    name: str
    depth: Metres
    length: float
    tags: list[str] = field(default_factory=list)

    def fits(self, length: float, draft: Metres, margin: Metres = 0.5) -> bool:
        """Tells whether a vessel can lie here at any state of the tide.

        Args:
            length: The vessel's length over all.
            draught: How deep the vessel lies.
            margin: Water under the keel that must be left.

        Returns:
            Whether it fits.
        """
        return length <= self.length and draft + margin <= self.depth


@dataclass
class Harbour:
    """A harbour with its berths.

    Whoever needs only its tides asks :meth:`Client.tides` and saves the rest.
    """

    name: str
    position: Position
    berths: dict[str, Berth] = field(default_factory=dict)

    def __iter__(self) -> Iterator[Berth]:
        return iter(self.berths.values())

    def __len__(self) -> int:
        return len(self.berths)

    @classmethod
    def parse(cls, fields: dict) -> Harbour:
        """Makes a harbour of an answer.

        :param fields: what the service sent
        :param fields: the answer, decoded
        :returns: the harbour, without its berths
        :raises KeyError: if a field is missing
        """
        return cls(fields["name"], Position(*fields["position"]))

    def deepest(self, least: Metres = 0.0) -> Berth | None:
        """Finds the deepest berth.

        Parameters
        ----------
        least : Metres, optional
            How deep it must be at least.

        Returns
        -------
        Berth or None
            The berth, or nothing where all are too shallow.

        See Also
        --------
        Berth.fits : Whether a vessel can lie in a berth.
        """
        found = max(self, key=lambda berth: berth.depth, default=None)
        return found if found and found.depth >= least else None


class Plan:
    """Which vessel lies where, on one day.

    :param day: the day
    :param harbour: where
    """

    def __init__(self, day: dt.date, harbour: Harbour) -> None:
        #: The day that is planned.
        self.day = day
        self.harbour = harbour
        self._places: dict[str, str] = {}

    @property
    def free(self) -> list[Berth]:
        """The berths that nobody has."""
        return [berth for berth in self.harbour if berth.name not in self._places]

    @free.setter
    def free(self, berths: list[Berth]) -> None:
        for berth in berths:
            self._places.pop(berth.name, None)

    def assign(self, vessel: str, berth: str) -> None:
        """Gives a berth to a vessel.

        Mirrors ``Plan.Assign`` of the engine; see :func:`Plan.asign` for the service's
        view.

        Args:
            vessel: The name of the vessel.
            berth: The name of the berth.

        Raises:
            KeyError: If the harbour has no such berth.
        """
        if berth not in self.harbour.berths:
            raise KeyError(berth)
        self._places[berth] = vessel

    def vessels(self) -> Iterator[str]:
        yield from self._places.values()


class Display(Protocol):
    """Whatever can show a line of text: a terminal, a dock display, a test."""

    def show(self, line: str) -> None:
        """Shows a line.

        Riases:
            OSError: If the display is off.
        """


if sys.version_info >= (3, 12):

    def batched(tides: list[Tide], n: int) -> list[tuple[Tide, ...]]:
        """Cuts a list of tides into runs of `n."""
        import itertools

        return list(itertools.batched(tides, n))

else:

    def batched(tides: list[Tide], n: int) -> list[tuple[Tide, ...]]:
        return [tuple(tides[i : i + n]) for i in range(0, len(tides), n)]
