"""What a kitchen may choose: spoons, eggs, conventions, currency, strictness of claims, daily budgets."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal, get_args

from substrata.base.documents.collection_kinds import Listed, Named
from substrata.base.documents.field_kinds import Flag, Number, Text, Where, Word
from substrata.base.documents.format_version import check_version
from substrata.base.documents.records import declared, read_record, record_schema, write_record
from substrata.base.pan_table import Pan
from substrata.base.units import Spoons

EggScheme = Literal["us", "eu"]
Convention = Literal["us", "eu", "total"]
Units = Literal["metric", "us"]
PolyolRule = Literal["half", "energy"]
SETTINGS_VERSION = 1
_VERSION = "substrata_settings"
MOST_EATERS = 6
_CURRENCY = re.compile(r"[A-Z]{3}")


@dataclass(frozen=True, kw_only=True)
class Eater:
    """Somebody's day: how much of each thing at most. No medical advice: the kitchen sets its own."""

    name: Annotated[str, Text(least=1, most=40, required=True)]
    # A day, by budget of ``budgets.csv``.
    budgets: Annotated[Mapping[str, float], Named(item=Number(low=0, high=100_000, above=True))] = field(
        default_factory=dict, hash=False
    )


@dataclass(frozen=True, kw_only=True)
class Lesson:
    """One number that a kitchen's own runs have taught a forecast."""

    block: str  # "hands", "measures", or "palate:" and a score
    part: str  # of it: kitchen, form bun, formula bun:Rolls, scale, weight crust, an ingredient
    value: float
    runs: int  # that taught it
    left: float = 1.0  # of the house's spread, where nothing nearer to a dough was learned


@dataclass(frozen=True, kw_only=True)
class Settings:
    """The kitchen's choices that change a computed figure."""

    # Which cup and spoons a typed volume means.
    spoons: Annotated[Spoons, Word(options=get_args(Spoons))] = "us"
    # Whose size classes "large" belongs to.
    egg_scheme: Annotated[EggScheme, Word(options=get_args(EggScheme))] = "us"
    # What "2 eggs" means when no size is typed.
    egg_size: Annotated[str, Text(most=20, sparse=True)] = "large"
    # Which net-carb convention the brackets use.
    convention: Annotated[Convention, Word(options=get_args(Convention))] = "us"
    polyol_rule: Annotated[
        PolyolRule, Word(options=get_args(PolyolRule), note="half of other polyols, or 1 - kcal/4 of each")
    ] = "half"
    # In which steps dials turn and doughs are rolled.
    units: Annotated[Units, Word(options=get_args(Units))] = "metric"
    currency: Annotated[str, Text(least=3, most=3, note="ISO 4217, of all prices")] = "USD"
    coconut_is_nut: Annotated[bool, Flag(note="a school's nut-free rule may ban coconut")] = False
    xanthan_is_grain: Annotated[bool, Flag(note="some grain-free bakers refuse what grew on grain sugar")] = False
    low_salt: Annotated[bool, Flag(note="bakes for people who have to mind their salt")] = False
    eaters: Annotated[tuple[Eater, ...], Listed(item=Eater, most=MOST_EATERS)] = ()
    pans: Annotated[tuple[Pan, ...], Listed(item=Pan, most=60)] = ()  # the kitchen's own
    lessons: tuple[Lesson, ...] = ()  # what its runs have taught
    extra: Mapping[str, Any] = field(default_factory=dict, hash=False)  # unknown keys of the document


def read_settings(document: Mapping[str, Any]) -> Settings:
    """Read a kitchen's choices of a settings document; what it leaves out is as usual.

    Returns:
        The settings, without lessons.

    Raises:
        FormulaError: naming the field that cannot be read.
    """
    settings = read_record(Settings, check_version(document, _VERSION, SETTINGS_VERSION, "settings"), Where())
    _check_currency(settings.currency, Where().key("currency"))
    return settings


def read_setting(name: str, value: object) -> Any:
    """Read one choice as ``read_settings`` reads it.

    Args:
        name: of the field.
        value: as JSON.

    Returns:
        The value of the field.

    Raises:
        FormulaError: when there is no such setting, or it cannot be that.
    """
    kinds = {f.key: f.kind for f in declared(Settings)}
    if name not in kinds:
        raise Where().key(name).refusal(name, ", ".join(kinds), "is no setting")
    result = kinds[name].read(value, Where().key(name))
    if name == "currency":
        _check_currency(result, Where().key(name))
    return result


def _check_currency(code: str, where: Where) -> None:
    if not _CURRENCY.fullmatch(code):
        raise where.refusal(code, "a three-letter currency code, such as USD", "is no currency")


def setting_options() -> dict[str, tuple[str, ...]]:
    """Return the settings that are one of a few words, with the words."""
    return {f.key: f.kind.choices for f in declared(Settings) if isinstance(f.kind, Word)}


def write_settings(settings: Settings) -> dict[str, Any]:
    """Write a kitchen's choices as a document; lessons are learned, and stay out."""
    return {_VERSION: SETTINGS_VERSION, **write_record(settings)}


def settings_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of the document."""
    whole = record_schema(Settings)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Substrata settings",
        **whole,
        "properties": {_VERSION: {"const": SETTINGS_VERSION, "description": "version of this format"}}
        | whole["properties"],
    }
