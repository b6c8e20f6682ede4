"""The core's answers as JSON."""

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from typing import Any

from substrata import write_document
from substrata.formula import Formula

_FORMULA = ("Formula", "Formula | None")  # annotations, as the core writes them


def answer_json(answer: Any) -> Any:
    """Return an answer of the core as plain values; a formula in it becomes its document, under that name.

    Args:
        answer: a dataclass, or what stands in one.
    """
    if is_dataclass(answer):
        return {
            ("document" if field.type in _FORMULA else field.name): answer_json(getattr(answer, field.name))
            for field in fields(answer)
        } if not isinstance(answer, Formula) else write_document(answer)  # fmt: skip
    if isinstance(answer, list | tuple | frozenset | set):
        return [answer_json(value) for value in answer]
    if isinstance(answer, Mapping):
        return {key: answer_json(value) for key, value in answer.items()}
    return answer
