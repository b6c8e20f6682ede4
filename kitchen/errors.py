"""Refusals of the kitchen, beside those of the core.

::

    KitchenError
    ├── NotFound    not there, or not yours to see
    ├── Forbidden   yours to see but not to change
    ├── Refused     a value that cannot be kept
    └── Conflict    somebody saved in between
"""

from typing import Any


class KitchenError(Exception):
    """What, got, allowed and remedy, as in the core."""

    status = 400

    def __init__(
        self, what: str, *, got: str = "", allowed: str = "", remedy: str = "", field: str | None = None
    ) -> None:
        super().__init__(what)
        self.what, self.got, self.allowed, self.remedy, self.field = what, got, allowed, remedy, field


class NotFound(KitchenError):  # noqa: N818
    """Not there, or not yours to see: the two look the same from outside."""

    status = 404


class Forbidden(KitchenError):  # noqa: N818
    """Yours to see but not to change."""

    status = 403


class Refused(KitchenError):  # noqa: N818
    """A value that cannot be kept."""

    status = 422


class Conflict(KitchenError):  # noqa: N818
    """Somebody saved in between; carries what they saved, so that nothing is lost."""

    status = 409

    def __init__(self, what: str, *, current: dict[str, Any], **rest: str) -> None:
        super().__init__(what, **rest)
        self.current = current
