"""The client itself: one object a service."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator
from typing import overload
from urllib.request import urlopen
import warnings

from . import _wire
from .errors import BerthTaken, NotFound, ServiceDown
from .model import Berth, Harbour, Plan, Tide, TideKind

#: Seconds until a request is given up.
DEFAULT_TIMEOUT = 10.0


class Client:
    """A connection to one service.

    A client may be used by several threads. It is a context manager; leaving
    the block closes it.

    Args:
        address: Where the service is, without a slash at the end.
        timeout: Seconds until a request is given up.

    Example:
        >>> client = Client("https://tidebook.example/api")
        >>> client.harbour("norhaven").name
        'Norhaven'
    """

    def __init__(self, address: str, *, timeout: float = DEFAULT_TIMEOUT) -> None:
        self.address = address
        self.timeout = timeout
        #: Whether :meth:`close` was called.
        self.closed = False

    def __enter__(self) -> Client:
        return self

    def __exit__(self, *exc: object) -> None:
        self.close()

    def harbour(self, name: str) -> Harbour:
        """Asks for one harbour.

        Args:
            name: The harbour's short name, as in its address.

        Raises:
            NotFound: If there is no such harbour.
        """
        fields = self._get(f"/harbours/{name}")
        if not fields:
            raise NotFound(f"no harbour {name}", status=404)
        return Harbour.parse(fields)

    def tides(self, harbour: str | Harbour, days: int = 1, *, kind: TideKind | None = None) -> Iterator[Tide]:
        """Yields the tides of the coming days, in order.

        The heights are those of the engine's `almanac`; they are exact to
        :data:`tidebook.model.TOLERANCE`.

        Args:
            harbour: The harbour or its short name.
            days: How many days, today included.

        Yields:
            One tide after the other.
        """
        name = harbour if isinstance(harbour, str) else harbour.name
        for fields in self._get(f"/harbours/{name}/tides?days={days}")["tides"]:
            tide = Tide(dt.datetime.fromisoformat(fields["at"]), fields["height"], TideKind(fields["kind"]))
            if kind in (None, tide.kind):
                yield tide

    @overload
    def berths(self, harbour: str, names: None = None) -> dict[str, Berth]: ...
    @overload
    def berths(self, harbour: str, names: list[str]) -> list[Berth]: ...
    def berths(self, harbour, names=None):
        """Asks for the berths of a harbour: all of them by name, or some in order.

        Args:
            harbour: The harbour's short name.
            names: The berths that are wanted, all where it is left out.

        Returns:
            The berths.
        """
        berths = self.harbour(harbour).berths
        return berths if names is None else [berths[name] for name in names]

    def reserve(self, harbour: str, berth: str, plan: Plan) -> None:
        """Takes a berth for the day of a plan.

        Args:
            harbour: The harbour's short name.
            berth: The name of the berth.
            plan: The plan that the berth goes into.
        """
        if berth not in {b.name for b in plan.free}:
            raise BerthTaken(berth)
        self._get(f"/harbours/{harbour}/berths/{berth}?day={plan.day}")

    async def watch(self, harbour: str, *, until: dt.datetime | None = None):
        """Watches the gauge of a harbour.

        :param harbour: the harbour's short name
        :param until: when to stop; never where it is left out
        :returns: heights in metres, one a minute
        """
        yield 0.0

    def close(self) -> None:
        """Closes the connection. Closing twice does nothing."""
        self.closed = True

    def shut(self) -> None:
        """Closes the connection.

        .. deprecated:: 2.0
           Use :meth:`close`, which may be called twice.
        """
        warnings.warn("use close", DeprecationWarning, stacklevel=2)
        self.close()

    @staticmethod
    def is_address(text: str) -> bool:
        """Tells whether a text could be the address of a service."""
        return text.startswith(("http://", "https://"))

    def _get(self, path: str) -> dict:
        try:
            with urlopen(self.address + path, timeout=self.timeout) as answer:
                return _wire.decode(answer.read())
        except OSError as error:
            raise ServiceDown(str(error)) from error


def connect(address: str = "https://tidebook.example/api", **options: float) -> Client:
    """Makes a :class:`Client`, or fails at once where the service is down.

    Args:
        address: Where the service is.
        **options: What :class:`Client` takes besides.

    Returns:
        A client that has answered once.

    Raises:
        ServiceDown: If the service does not answer.
    """
    client = Client(address, **options)
    client.harbour("norhaven")
    return client
