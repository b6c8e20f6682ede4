"""The catalog of all messages: Project Fluent files, one folder a language."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import Any

from fluent.runtime import FluentBundle, FluentResource
from fluent.runtime.types import FluentNone

from substrata.base.messages.quantity import quantity
from substrata.base.messages.reader import SOURCE_LANGUAGE

FOLDER = Path(__file__).parents[3] / "messages"


class CatalogError(Exception):
    """A message that the catalog does not have, or that lacks a value: shown as its key, and an error in tests."""


strict: list[bool] = []  # tests put a True here


@cache
def bundle(language: str) -> FluentBundle:
    """Return the messages of a language, those of the source language behind them.

    Args:
        language: as ``de`` or ``en-GB``; an unknown one is read as the source language.
    """
    messages = FluentBundle([language], use_isolating=False, functions={"QUANTITY": _quantity, "LIST": _list})
    for name in dict.fromkeys((SOURCE_LANGUAGE, language)):
        for file in sorted((FOLDER / name).glob("*.ftl")):
            messages.add_resource(FluentResource(file.read_text(encoding="utf-8")), allow_overrides=True)
    return messages


def languages() -> tuple[str, ...]:
    """Return the languages that have a folder, the source language first."""
    names = sorted(folder.name for folder in FOLDER.iterdir() if folder.is_dir())
    return (SOURCE_LANGUAGE, *(name for name in names if name != SOURCE_LANGUAGE))


def rendered(key: str, values: dict[str, Any], language: str) -> str:
    """Return a message in a language; its key, if it cannot be rendered.

    Raises:
        CatalogError: in tests only, when the key or a value is missing.
    """
    known = bundle(language if language in languages() else SOURCE_LANGUAGE)
    if not known.has_message(key) or (pattern := known.get_message(key).value) is None:
        if strict:
            raise CatalogError(f"no message {key}")
        return key
    text, errors = known.format_pattern(pattern, values)
    if errors and strict:
        raise CatalogError(f"{key}: {errors}")
    return str(text)


def _quantity(value: Any, unit: Any = "number", high: Any = None) -> Any:
    """Return a quantity as it is written; a missing value stays what Fluent says of it."""
    return value if isinstance(value, FluentNone) else quantity(value, str(unit), high)  # type: ignore[arg-type]


def _list(names: Any) -> Any:
    """Return names as a sentence lists them; the word between the last two is the language's."""
    return names if isinstance(names, FluentNone) else str(names)
