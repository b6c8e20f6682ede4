"""Files of the command line."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

from substrata.base import FormulaError


def read_text(file: str) -> str:
    """Read a file's text, or standard input's for "-".

    Returns:
        The text, UTF-8.

    Raises:
        FormulaError: when it cannot be read.
    """
    try:
        return sys.stdin.read() if file == "-" else Path(file).read_text(encoding="utf8")
    except (OSError, UnicodeDecodeError) as error:
        raise FormulaError("the file cannot be read", got=str(error), remedy="name a UTF-8 text file") from error


def read_bytes(file: str) -> bytes:
    """Read a file's bytes, or standard input's for "-".

    Returns:
        The bytes.

    Raises:
        FormulaError: when it cannot be read.
    """
    try:
        if file == "-":
            return sys.stdin.buffer.read() if hasattr(sys.stdin, "buffer") else sys.stdin.read().encode("utf8")
        return Path(file).read_bytes()
    except OSError as error:
        raise FormulaError("the file cannot be read", got=str(error), remedy="name a file") from error


def document_of(file: str, what: str) -> dict[str, Any]:
    """Return a JSON document of a file.

    Raises:
        FormulaError: when it is none.
    """
    try:
        document = json.loads(read_text(file))
    except RecursionError as error:
        raise FormulaError(
            "the file is nested too deeply", got="brackets in brackets", allowed=f"a {what} document"
        ) from error
    except ValueError as error:
        raise FormulaError("the file is not JSON", got=str(error), allowed=f"a {what} document") from error
    if not isinstance(document, dict):
        raise FormulaError(f"the file is not a {what} document", got=type(document).__name__, allowed="an object")
    return document
