"""Answers as plain data: records as objects, messages as the current reader's words."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from datetime import datetime
from typing import Any

from substrata.base.messages.message import Message


def plain(answer: Any) -> Any:
    """Return an answer of the core as JSON holds it.

    >>> plain({"text": Message("list-last", most="egg", last="oil"), "rows": (1, 2)})
    {'text': 'egg and oil', 'rows': [1, 2]}

    Args:
        answer: records, collections, messages, and what JSON holds anyway.

    Returns:
        The same with messages rendered for the current reader; what is not of these kinds is left as it is.
    """
    if isinstance(answer, Message):
        return str(answer)
    if isinstance(answer, datetime):
        return answer.isoformat()
    if isinstance(answer, Mapping):
        return {key: plain(value) for key, value in answer.items()}
    if isinstance(answer, (tuple, list)):
        return [plain(value) for value in answer]
    if is_dataclass(answer) and not isinstance(answer, type):
        return {field.name: plain(getattr(answer, field.name)) for field in fields(answer)}
    return answer


def words_of(value: Any) -> str:
    """Return a message as a JSON writer asks for what it does not know.

    Raises:
        TypeError: when it is no message.
    """
    if isinstance(value, Message):
        return str(value)
    raise TypeError(f"JSON does not hold {type(value).__name__}")
