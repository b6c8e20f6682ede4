"""Models of the core's answers: its own dataclasses as they are, and where a formula stands in one, its document."""

from collections.abc import Callable
from dataclasses import MISSING, fields, is_dataclass
from functools import cache
from types import GenericAlias
from typing import Any, get_args, get_origin, get_type_hints

from pydantic import BaseModel, create_model

from api.document_schemas import FormulaDocument
from substrata.formula import Formula


def _holds_formula(kind: Any) -> bool:
    """Whether a formula stands somewhere in a type of an answer."""
    if kind is Formula:
        return True
    if is_dataclass(kind):
        return any(holds_formula(hint) for hint in get_type_hints(kind).values())
    return any(holds_formula(part) for part in get_args(kind))


holds_formula: Callable[[Any], bool] = cache(_holds_formula)


def _answered(kind: Any) -> Any:
    """Return the type of a field as it is answered."""
    if kind is Formula:
        return FormulaDocument
    if kind == Formula | None:
        return FormulaDocument | None
    if is_dataclass(kind) and holds_formula(kind):
        return answer_model(kind)  # type: ignore[arg-type]  # it is a type
    if get_origin(kind) is tuple and holds_formula(kind):
        return GenericAlias(list, (_answered(get_args(kind)[0]),))
    return kind


@cache
def answer_model(record: type) -> type[BaseModel]:
    """Return the model of an answer of the core in which formulas stand; they are answered as documents.

    Args:
        record: the core's dataclass.
    """
    columns: dict[str, Any] = {}
    hints = get_type_hints(record)
    for field in fields(record):
        name = "document" if hints[field.name] in (Formula, Formula | None) else field.name
        default = ... if field.default is MISSING else field.default
        columns[name] = (_answered(hints[field.name]), default)
    doc = (record.__doc__ or "").partition("\n")[0]
    created: type[BaseModel] = create_model(record.__name__, __doc__=doc, **columns)
    return created
