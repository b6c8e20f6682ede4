"""The version of an open document: another one is left to the program that wrote it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from substrata.base.errors import FormulaError


def check_version(document: Mapping[str, Any], key: str, version: int, what: str) -> dict[str, Any]:
    """Check a document without the key of its version.

    Args:
        document: as it was read.
        key: that tells its version; where it is left out it is this one.
        version: that is read here.
        what: the document is called.

    Returns:
        The document without its version key.

    Raises:
        FormulaError: when it is of another version.
    """
    version_read = document.get(key, version)
    if version_read != version:
        raise FormulaError(
            f"the {what} is of another version",
            got=repr(version_read)[:40],
            field=key,
            allowed=str(version),
            remedy="open it with the program that wrote it",
        )
    return {name: value for name, value in document.items() if name != key}
