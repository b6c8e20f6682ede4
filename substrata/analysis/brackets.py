"""Each quantity against its wanted window: the brackets of the balance."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Literal

from substrata.analysis.remedies import RatioOf, Remedy, remedy_for
from substrata.analysis.words import grams, percent, short_name
from substrata.batch.cost import cost_ratio
from substrata.batch.propagate import Contribution, Estimate, Figure, Sheet
from substrata.batch.weighed import Batch
from substrata.dough.binder import Binder, heat_set_ratio, load_ratio
from substrata.dough.lift import gas_ratio
from substrata.dough.taste import salt_ratio, sweetness_ratio
from substrata.dough.water import fill_ratio
from substrata.formula.form import Window, form_of
from substrata.formula.formula import Formula
from substrata.nutrition.facts import piece_ratio
from substrata.pantry.library import Library
from substrata.quantities.tables import read_table
from substrata.settings import Settings

State = Literal["in", "low", "high", "open", "undefined"]
Source = Literal["target", "form", "matrix", "none"]


@dataclass(frozen=True, kw_only=True)
class Ruler:
    """What the bracket's ruler shows. It depends on the window only, so it rests while a value moves."""

    low: float
    high: float
    ticks: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class Bracket:
    """One quantity, its window and what carries or mends it."""

    key: str
    label: str
    unit: str
    decimals: int
    primary: bool
    confidence: str  # computed, house scale or rule of thumb
    estimate: Estimate
    window: Window
    window_source: Source
    ruler: Ruler
    state: State
    note: str  # one line: what carries it, or what is wrong
    remedy: Remedy | None
    word_share: str  # what a contribution's share does: "brings", "binds"
    word_against: str  # what its share of the denominator does: "drinks"; "" when there is none to show
    contributions: tuple[Contribution, ...]


@dataclass(frozen=True, kw_only=True)
class _Kind:
    label: str
    unit: str
    decimals: int
    primary: bool
    confidence: str
    word_low: str
    word_high: str
    word_share: str
    word_against: str


@cache
def bracket_kinds() -> Mapping[str, _Kind]:
    """The bracketed quantities in the order in which they are shown."""
    return {
        row.text("key"): _Kind(
            label=row.text("label"),
            unit=row.text("unit"),
            decimals=int(row.number_in("decimals", 0, 3)),
            primary=row.text("primary") == "1",
            confidence=row.text("confidence"),
            word_low=row.text("word_low"),
            word_high=row.text("word_high"),
            word_share=row.text("word_share"),
            word_against=row.text("word_against"),
        )
        for row in read_table("brackets.csv")
    }


def quantities(formula: Formula, settings: Settings) -> dict[str, RatioOf]:
    """How to read every bracketed quantity off a batch."""

    def per_piece(key: str) -> RatioOf:
        return lambda batch: piece_ratio(key, batch, formula, settings)

    return {
        "net_carbs": per_piece("net_carbs"),
        "protein": per_piece("protein"),
        "binder_load": load_ratio,
        "water_fill": fill_ratio,
        "lift": gas_ratio,
        "salt": salt_ratio,
        "heat_set": heat_set_ratio,
        "energy": per_piece("energy"),
        "fibre": per_piece("fibre"),
        "fat": per_piece("fat"),
        "sweetness": sweetness_ratio,
        "cost": lambda batch: cost_ratio(batch, formula.pieces),
    }


def house_windows(formula: Formula, binder: Binder) -> dict[str, tuple[Window, Source]]:
    """The windows that hold when the baker has set no target."""
    form = form_of(formula.form)
    matrix = binder.matrix
    return {
        "net_carbs": (form.net_carbs, "form"),
        "protein": (form.protein, "form"),
        "binder_load": (matrix.window, "matrix" if matrix.name else "form"),
        # A cheese-matrix dough is judged by cheese and temperature first: its water is shown, not judged.
        "water_fill": (form.water_fill, "form") if matrix.judges_water else (Window(), "matrix"),
        "lift": (form.gas, "form"),
        "salt": (form.salt, "form"),
        "heat_set": (Window(low=binder.heat_set_least or None), "form" if binder.heat_set_least else "none"),
    }


@dataclass(frozen=True, kw_only=True)
class Case:
    """What a bracket is judged by."""

    formula: Formula
    sheet: Sheet
    binder: Binder
    library: Library
    ratios_of: Mapping[str, RatioOf]  # as of ``quantities``
    currency: str = ""


def brackets(case: Case) -> tuple[Bracket, ...]:
    """All brackets of a formula, in the order of the table."""
    houses = house_windows(case.formula, case.binder)
    priced = case.sheet.value("cost") > 0 or "cost" in case.formula.targets
    kinds = {key: kind for key, kind in bracket_kinds().items() if key != "cost" or priced}
    return tuple(_bracket(key, kind, case, houses) for key, kind in kinds.items())


def _bracket(key: str, kind: _Kind, case: Case, houses: Mapping[str, tuple[Window, Source]]) -> Bracket:
    window, source = houses.get(key, (Window(), "none"))
    if key in case.formula.targets:
        window, source = case.formula.targets[key].window, "target"
    figure = case.sheet.figure(key)
    state = _state(figure, window, case.sheet.batch)
    ratio_of = case.ratios_of[key]
    return Bracket(
        key=key,
        label=kind.label,
        unit=f"{case.currency} {kind.unit}" if key == "cost" else kind.unit,
        decimals=kind.decimals,
        primary=kind.primary,
        confidence=kind.confidence,
        estimate=figure.estimate,
        window=window,
        window_source=source,
        ruler=ruler(window, _open_end(figure.estimate.value) if state == "open" else 0.0),
        state=state,
        note=_note(key, kind, figure, window, state, case),
        remedy=remedy_for(
            key, ratio_of, window, state, formula=case.formula, batch=case.sheet.batch, library=case.library
        ),
        word_share=kind.word_share,
        word_against=kind.word_against,
        contributions=figure.contributions,
    )


def _state(figure: Figure, window: Window, batch: Batch) -> State:
    if not figure.contributions and not batch.dry_base_g:
        return "undefined"
    if window.low is None and window.high is None:
        return "open"
    value = figure.estimate.value
    # A hair outside is inside: the figure is not known that well.
    if window.low is not None and value < window.low * (1 - 1e-9):
        return "low"
    return "high" if window.high is not None and value > window.high * (1 + 1e-9) else "in"


@lru_cache(maxsize=1024)
def ruler(window: Window, open_end: float) -> Ruler:
    """A ruler with room on both sides of the window; ``open_end`` is its end when there is none.

    >>> ruler(Window(low=0.3, high=0.6), 0.5).low.__round__(2), ruler(Window(high=4.0), 9.0).high
    (0.0, 8.0)
    """
    low, high = window.low, window.high
    if low is not None and high is not None:
        room = (high - low) or abs(high) or 1.0
        start, end = max(low - room, 0.0), high + room
    elif high is not None:
        start, end = 0.0, 2 * high or 1.0
    elif low is not None:
        start, end = 0.0, 2.5 * low or 1.0
    else:
        start, end = 0.0, open_end or 1.0
    step = _tick_step(end - start)
    first = int(start / step) + (start % step > step * 1e-6)
    ticks = []
    while (tick := first * step) <= end + step * 1e-6:
        ticks.append(round(tick, 6))
        first += 1
    return Ruler(low=start, high=end, ticks=tuple(ticks))


def _open_end(value: float) -> float:
    """The next 1, 2 or 5 times a power of ten above one and a half times the value."""
    value *= 1.5
    if value <= 0:
        return 1.0
    power = 10.0 ** (len(str(int(value))) - 1) if value >= 1 else 0.1
    return next((m * power for m in (1, 2, 5, 10) if m * power >= value), 10 * power)


def _tick_step(length: float) -> float:
    power = 1e-4
    while True:
        for nice in (1, 2, 5):
            if length / (nice * power) <= 10:
                return nice * power
        power *= 10


def _water_off(sheet: Sheet, window: Window) -> float:
    """Grams of water beyond the nearer bound of a water-fill window; 0 inside it."""
    fill, grams = sheet.ratios["water_fill"], sheet.batch.grams
    available, demand = float(grams @ fill.top[0]), float(grams @ fill.bottom[0])
    if window.low is not None and available < window.low * demand:
        return window.low * demand - available
    return max(available - window.high * demand, 0.0) if window.high is not None else 0.0


def _note(key: str, kind: _Kind, figure: Figure, window: Window, state: State, case: Case) -> str:
    if state == "undefined":
        return "no dry base yet: add a flour, a fibre or a binder" if key == "binder_load" else ""
    if state in ("low", "high"):
        if key == "water_fill":
            return f"{grams(_water_off(case.sheet, window))} water {'short' if state == 'low' else 'too much'}"
        bound = window.low if state == "low" else window.high
        return _outside(kind, state, abs(figure.estimate.value - (bound or 0.0)))
    matrix = case.binder.matrix.name
    if key == "water_fill" and state == "open" and matrix:
        return f"{matrix}: cheese and warmth come first"
    carried = [f"{short_name(c.name)} {percent(c.share)}" for c in figure.contributions[:2] if c.share > 0]
    if key == "binder_load" and matrix:
        carried = [*carried[:1], matrix]
    return " · ".join(carried) or "nothing brings any"


def _outside(kind: _Kind, state: State, off: float) -> str:
    amount = f"{off:.{kind.decimals}f}"
    if float(amount) == 0:
        return f"just {'under' if state == 'low' else 'over'} its window"
    return f"{amount} {kind.word_low if state == 'low' else kind.word_high}"
