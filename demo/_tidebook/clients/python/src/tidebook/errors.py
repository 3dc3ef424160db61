"""What can go wrong between a client and the service."""


class TidebookError(Exception):
    """The base of everything that this package raises.

    Attributes:
        status: What the service answered, or 0 where it did not answer.
    """

    def __init__(self, message: str, status: int = 0) -> None:
        super().__init__(message)
        self.status = status


class ServiceDown(TidebookError):
    """The service could not be reached, or gave up."""


class NotFound(TidebookError):
    """The service knows no harbour or berth of this name."""


class BerthTaken(TidebookError):
    """Somebody else has the berth at that time.

    :ivar berth: the name of the berth
    """

    def __init__(self, berth: str) -> None:
        super().__init__(f"berth {berth} is taken", status=409)
        self.berth = berth
