"""The formula document as it goes in and out: models made of the core's own declaration, which reads and refuses the values."""

from dataclasses import MISSING
from functools import cache
from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, create_model

from kitchen.models import Kitchen
from substrata.base import Declared, Kind, Listed, Named, Nested, Number, Settings, Word, declared
from substrata.formula import Formula

Text = Annotated[str, StringConstraints(max_length=2_000)]
_MOST_TIMES = 5  # a list so many times as long as the reader takes is not even looked at


class _Document(BaseModel):
    """A declared object; keys that are not known are kept (the framework's own schema would lose them)."""

    model_config = ConfigDict(extra="allow")


def _default(field: Declared) -> Any:
    """Return what a document that leaves a field out says; null where null is as good."""
    if field.default is MISSING:
        return ...
    if isinstance(field.kind, Nested):
        return None if field.kind.optional else Field(default_factory=model_of(field.kind.record))
    if isinstance(field.kind, Number) and field.kind.optional:
        return None
    usual = field.usual
    return (
        Field(default_factory=dict if isinstance(usual, dict) else list)
        if isinstance(usual, dict | tuple | frozenset)
        else usual
    )


def _annotation(kind: Kind) -> Any:
    if isinstance(kind, Listed):
        return Annotated[list[model_of(kind.item)], Field(max_length=_MOST_TIMES * kind.most)]  # type: ignore[misc]  # made here
    if isinstance(kind, Nested):
        return model_of(kind.record) | None if kind.optional else model_of(kind.record)
    if isinstance(kind, Named) and isinstance(kind.item, Nested):
        return dict[str, model_of(kind.item.record)]  # type: ignore[misc]  # made here
    return kind.plain()


@cache
def model_of(record: type, group: str = "", *, leave: tuple[str, ...] = (), **otherwise: Any) -> type[BaseModel]:
    """Return the model of a declared record, or of one of the objects that a flat record's fields stand in.

    Args:
        record: a declared dataclass.
        group: name of one of its objects; "" is the record itself.
        leave: keys of fields that the page has none of.
        otherwise: types of fields that the page holds as another one, by key.
    """
    fields: dict[str, Any] = {}
    for field in declared(record):
        if field.key in leave:
            continue
        if field.kind.group == group:
            fields[field.key] = (otherwise.get(field.key) or _annotation(field.kind), _default(field))
        elif not group:
            fields[field.kind.group] = (model_of(record, field.kind.group), ...)
    name = (group.title() if group else record.__name__.removesuffix("Wish") or "Wish") + "Document"
    doc = (record.__doc__ or "").partition("\n")[0]
    created: type[BaseModel] = create_model(name, __base__=_Document, __doc__=doc, **fields)
    return created


def settings_fields(*, patch: bool) -> dict[str, Any]:
    """Return the kitchen's choices as fields of a model: as they are, or of a change that leaves most of them out."""
    kinds = {field.key: field.kind for field in declared(Settings) if field.key in Kitchen.SETTINGS}
    types: dict[str, Any] = {
        key: Literal[kind.choices] if isinstance(kind, Word) else kind.plain() for key, kind in kinds.items()
    }
    return {key: (choice | None, None) if patch else (choice, ...) for key, choice in types.items()}


class FormulaDocument(model_of(Formula)):  # type: ignore[misc]  # made of the declaration
    """A formula document (docs/formats/formula.schema.json)."""

    substrata: int = 1


class PrepIn(Schema):
    """A document to prepare, and the one it came from when a change is to be told."""

    document: FormulaDocument
    before: FormulaDocument | None = None
