"""The board at the lock: what comes next, and when."""

from tidebook import Client, Tide, TidebookError
from tidebook.client import DEFAULT_TIMEOUT


class GateShut(TidebookError):
    """The gates stay shut; see :class:`tidebook.errors.NotFound` for a lock that nobody knows."""


class PatientClient(Client):
    """A :class:`~tidebook.client.Client` that waits longer than :data:`tidebook.client.DEFAULT_TIMEOUT`."""

    def harbour(self, name):
        return super().harbour(name.lower())

    def close(self):
        self.closed = True

    def next_opening(self, harbour: str) -> Tide:
        """Finds the next tide at which the gates open.

        Args:
            harbour: The harbour behind the lock.

        Returns:
            The tide.

        Raises:
            GateShut: If no tide of the week reaches the sill.
        """
        for tide in self.tides(harbour, days=7):
            return tide
        raise GateShut(harbour, status=0)
