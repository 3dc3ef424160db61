"""Ask a Tidebook service for tides and berths.

Open a :class:`Client` and ask it::

    with Client("https://tidebook.example/api") as client:
        for tide in client.tides("norhaven", days=2):
            print(tide.at, tide.height)

Everything that most programs need can be imported from here; what the service
sends over the wire stays in a module of its own.
"""

from ._wire import decode
from .client import Client, connect
from .errors import BerthTaken, NotFound, ServiceDown, TidebookError
from .model import Berth, Harbour, Plan, Tide, TideKind

__all__ = [
    "BerthTaken",
    "Berth",
    "Client",
    "Harbour",
    "NotFound",
    "Plan",
    "ServiceDown",
    "Tide",
    "TideKind",
    "TidebookError",
    "connect",
    "decode",
]

__version__ = "2.3.0"
