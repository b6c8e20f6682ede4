"""What a baker wants of a formula besides what its windows say."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from math import inf
from typing import Annotated, Any, Literal, get_args

from substrata.base.documents.collection_kinds import Named, Nested, Texts
from substrata.base.documents.field_kinds import Flag, Number, Text, Where, Word
from substrata.base.documents.records import read_record
from substrata.base.errors import FormulaError
from substrata.evaluation.analysis.target_states import bracket_kinds
from substrata.formula.form_table import Window
from substrata.nutrition.nutrition_facts import FIGURES
from substrata.process.rheology.handling_classes import classes
from substrata.process.rheology.texture import texture_keys
from substrata.reformulation.request.exclusions import exclusions

Steps = Literal["kitchen", "grams"]
PER_100_G = "_100g"
MOST_LINES = 60
_WINDOWS = Named(item=Nested(record=Window))


@dataclass(frozen=True, kw_only=True)
class Wish:
    """Targets, limits and freedoms of a settle."""

    # By bracket, or "sodium" or "cheese"; with "_100g" behind it, per 100 g baked.
    targets: Annotated[Mapping[str, Window], _WINDOWS] = field(default_factory=dict)
    # Class at shaping; "" takes what the form is shaped at.
    handling: Annotated[str, Text()] = ""
    texture: Annotated[Mapping[str, Window], _WINDOWS] = field(default_factory=dict)  # scores 0..10
    minutes_most: Annotated[float | None, Number(low=0, high=300, above=True, unit="min")] = None  # baked within
    thickness_most: Annotated[float | None, Number(low=0, high=200, above=True, unit="mm")] = None
    without: Annotated[tuple[str, ...], Texts(most=30, ordered=True, note="exclusions, by id")] = ()
    without_lines: Annotated[tuple[str, ...], Texts(most=60, ordered=True, note="ingredients to exclude")] = ()
    # Lines to leave alone, besides those locked in the formula.
    locked: Annotated[tuple[str, ...], Texts(most=200, ordered=True)] = ()
    stock: Mapping[str, float] = field(default_factory=dict)  # grams at hand, by ingredient; no document holds them
    # Only what the kitchen has: who asks fills ``stock``.
    only_stock: Annotated[bool, Flag()] = False
    steps: Annotated[Steps, Word(options=get_args(Steps))] = "kitchen"
    may_bring: Annotated[bool, Flag(note="a new ingredient")] = True
    may_change_mass: Annotated[bool, Flag(note="of the whole dough, and so of a piece")] = False
    may_change_pieces: Annotated[bool, Flag(note="how many the dough is made into")] = False
    may_change_thickness: Annotated[bool, Flag(note="of a piece")] = False
    released: Annotated[frozenset[str], Texts(most=60, note="limits that the baker has switched off")] = frozenset()
    margin: Annotated[
        float, Number(low=0, high=1.3, optional=False, note="standard deviations by which a target is met")
    ] = 0.0

    def with_changes(self, **changes: object) -> Wish:
        """Return the same request with some values replaced."""
        return replace(self, **changes)  # type: ignore[arg-type]  # by name


def target_keys() -> tuple[str, ...]:
    """Return what can be wished for, a piece and per 100 g."""
    pieces = dict.fromkeys((*bracket_kinds(), "sodium", "cheese", *FIGURES))
    return (*pieces, *(f"{key}{PER_100_G}" for key in ("cheese", *FIGURES)))


def check_wish(wish: Wish, lines: Sequence[str]) -> None:
    """Refuse what cannot be meant.

    Args:
        wish: what is wanted.
        lines: ids of the formula's lines.

    Raises:
        FormulaError: naming the field.
    """
    known_only(wish.targets, target_keys(), "targets")
    known_only(wish.texture, texture_keys(), "texture")
    known_only(wish.without, tuple(exclusions()), "without")
    known_only([wish.handling] if wish.handling else [], tuple(band.class_name for band in classes()), "handling")
    known_only((*wish.without_lines,), tuple(lines), "without_lines")
    for key, window in {**wish.targets, **wish.texture}.items():
        _ordered(key, window)
    _above_nothing("minutes_most", wish.minutes_most, "min")
    _above_nothing("thickness_most", wish.thickness_most, "mm")
    if len(lines) > MOST_LINES:
        raise FormulaError(
            "the formula has too many ingredients to balance",
            got=f"{len(lines)} lines",
            allowed=f"{MOST_LINES} lines",
            remedy="merge similar ingredients, or move some into a sub-recipe",
            field="lines",
        )


def known_only(values: object, allowed: tuple[str, ...], where: str) -> None:
    """Refuse what is not among the things that can be wished for.

    Raises:
        FormulaError: naming the field.
    """
    strange = [str(key) for key in values if key not in allowed]  # type: ignore[attr-defined]  # a mapping or a sequence
    if strange:
        raise FormulaError(
            "this target cannot be set",
            got=", ".join(strange)[:80],
            allowed=", ".join(allowed),
            remedy="choose one of these",
            field=where,
        )


def _above_nothing(field: str, value: float | None, unit: str) -> None:
    if value is not None and not 0 < value < inf:
        raise FormulaError(
            "the limit cannot be met by anything",
            got=f"{value:g} {unit}",
            allowed=f"more than 0 {unit}",
            remedy="give a limit that a bake can keep",
            field=field,
        )


def _ordered(key: str, window: Window) -> None:
    if window.low is not None and window.high is not None and window.low > window.high:
        raise FormulaError(
            "the minimum is above the maximum",
            got=f"{window.low:g} to {window.high:g}",
            allowed="low up to high",
            remedy="swap the two values",
            field=f"targets.{key}",
        )


def read_wish(document: Mapping[str, Any]) -> Wish:
    """Read a wish of plain JSON values; what is left out is as usual.

    Returns:
        The wish, without anything at hand.

    Raises:
        FormulaError: naming the field that cannot be read.
    """
    return read_record(Wish, document, Where())
