"""The mark of the science: which tables, and which code that reads them, a figure was made by."""

from __future__ import annotations

from functools import cache
from hashlib import sha256
from importlib.resources import files
from importlib.resources.abc import Traversable


@cache
def science_mark() -> str:
    """Return a short hash of the package's tables and code: another release of either is another mark."""
    result = sha256()
    for path, content in sorted(_contents(files("substrata"), "")):
        result.update(path.encode() + content)
    return result.hexdigest()[:12]


def _contents(folder: Traversable, place: str) -> list[tuple[str, bytes]]:
    pairs: list[tuple[str, bytes]] = []
    for entry in folder.iterdir():
        path = f"{place}/{entry.name}"
        if entry.is_dir():
            pairs += _contents(entry, path)
        elif entry.name.endswith((".py", ".csv")):
            pairs.append((path, entry.read_bytes()))
    return pairs
