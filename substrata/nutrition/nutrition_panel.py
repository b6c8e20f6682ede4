"""Nutrition panels: United States (21 CFR 101.9) a serving, European Union (1169/2011) per 100 g and a portion.

What is printed is rounded by law; beside it stands what the figure's own range could print.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import floor, hypot

from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.batch.baked_weight import Baked
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Coefficient, Estimate, Ratio, Sheet, total_ratio
from substrata.formula.formula import Formula
from substrata.ingredients.labels.label_rounding import LabelStyle, printed
from substrata.ingredients.printed_label import UNITS_WRITTEN
from substrata.nutrition.energy import energy_per_gram
from substrata.nutrition.net_carbs import available_per_gram
from substrata.nutrition.nutrition_facts import Nutrition, scaled

_US_ROWS = (
    ("energy_kcal", "Calories", 0),
    ("fat_g", "Total Fat", 0),
    ("saturates_g", "Saturated Fat", 1),
    ("trans_g", "Trans Fat", 1),
    ("cholesterol_mg", "Cholesterol", 0),
    ("sodium_mg", "Sodium", 0),
    ("carbohydrate_g", "Total Carbohydrate", 0),
    ("fibre_g", "Dietary Fiber", 1),
    ("sugars_g", "Total Sugars", 1),
    ("added_sugars_g", "Includes Added Sugars", 2),
    ("polyols_g", "Sugar Alcohol", 1),
    ("protein_g", "Protein", 0),
    ("vitamin_d_ug", "Vitamin D", 0),
    ("calcium_mg", "Calcium", 0),
    ("iron_mg", "Iron", 0),
    ("potassium_mg", "Potassium", 0),
)
_EU_ROWS = (
    ("energy_kj", "Energy", 0),
    ("fat_g", "Fat", 0),
    ("saturates_g", "of which saturates", 1),
    ("carbohydrate_g", "Carbohydrate", 0),
    ("sugars_g", "of which sugars", 1),
    ("polyols_g", "of which polyols", 1),
    ("fibre_g", "Fiber", 0),
    ("protein_g", "Protein", 0),
    ("salt_g", "Salt", 0),
)
_ONLY_WHEN_PRESENT = {"polyols_g": 0.05}  # g a piece


@dataclass(frozen=True, kw_only=True)
class PanelCell:
    """One printed figure."""

    text: str  # as the law rounds it, with its unit
    range_text: str  # what its 90 % range could print; "" when that is the same
    estimate: Estimate  # before rounding


@dataclass(frozen=True, kw_only=True)
class PanelRow:
    """One line of a panel."""

    key: str
    name: str
    indent: int  # 0, 1 or 2: how far it is set in
    cells: tuple[PanelCell, ...]  # one a column
    daily_percent: str  # "" where none is printed


@dataclass(frozen=True, kw_only=True)
class Panel:
    """A nutrition panel."""

    style: LabelStyle
    title: str
    serving: str  # "3 pieces (34 g)"
    servings: str  # "about 12 servings"
    columns: tuple[str, ...]
    rows: tuple[PanelRow, ...]
    notes: tuple[str, ...]


def panel_ratios(batch: Batch, formula: Formula) -> dict[str, Ratio]:
    """All that a panel reads from a sheet, a piece each, under ``panel:<figure>``."""

    def piece(per_gram: Coefficient, unit: str) -> Ratio:
        return total_ratio(batch, per_gram, unit, 1 / formula.pieces)

    plain = (
        "fat_g", "saturates_g", "trans_g", "cholesterol_mg", "sodium_mg", "carbohydrate_g", "fibre_g", "sugars_g",
        "added_sugars_g", "protein_g", "vitamin_d_ug", "calcium_mg", "iron_mg", "potassium_mg",
    )  # fmt: skip
    table = {key: piece(batch.nutrient(key), key.rpartition("_")[2]) for key in plain}
    sodium, sodium_sd = batch.nutrient("sodium_mg")
    to_salt = constant("salt_per_sodium") / 1000
    table |= {
        "salt_g": piece((sodium * to_salt, sodium_sd * to_salt), "g"),
        "polyols_g": piece((batch.nutrient("polyols_g")[0] + batch.nutrient("erythritol_g")[0], batch.nothing), "g"),
        "eu_carbohydrate_g": piece(available_per_gram(batch), "g"),
        "us_energy_kcal": piece(energy_per_gram(batch, "us_kcal"), "kcal"),
        "eu_energy_kcal": piece(energy_per_gram(batch, "eu_kcal"), "kcal"),
        "eu_energy_kj": piece(energy_per_gram(batch, "eu_kj"), "kJ"),
    }
    return {f"panel:{key}": ratio for key, ratio in table.items()}


def panel(style: LabelStyle, formula: Formula, sheet: Sheet, facts: Nutrition, after: Baked) -> Panel:
    """Return the panel of a style.

    Args:
        style: ``us`` or ``eu``.
        formula: gives pieces, serving and form.
        sheet: holds ``panel_ratios``.
        facts: weights of piece and serving after baking.
        after: what the oven leaves.
    """
    pieces = formula.serving_pieces
    serving = scaled(facts.piece.grams, pieces)
    noun = "piece" if pieces == 1 else "pieces"
    count = formula.pieces / pieces
    about = "" if count == int(count) else "about "
    common = {
        "serving": f"{pieces} {noun} ({serving.value:.0f} g)",
        "servings": f"{about}{count:.0f} {'serving' if round(count) == 1 else 'servings'}",
    }
    if style == "us":
        return Panel(
            style="us",
            title="Nutrition Facts",
            columns=("a serving",),
            rows=_us_rows(formula, sheet),
            notes=(*_racc_note(formula, facts), *_NOTES_US),
            **common,
        )
    return Panel(
        style="eu",
        title="Nutrition declaration",
        columns=("per 100 g", f"a portion of {serving.value:.0f} g"),
        rows=_eu_rows(formula, sheet, after),
        notes=_NOTES_EU,
        **common,
    )


_COMPUTED = "Calculated from reference data and pack labels, not lab-tested. If you sell this, follow local rules."
_NOTES_US = (
    "Energy by 4/4/9 with soluble fiber 2, sugar alcohols by their own factors, allulose .4 kcal/g (21 CFR 101.9(c)(1)(i)(C)).",
    "“Net carbs” has no legal definition in the United States.",
    _COMPUTED,
)
_NOTES_EU = (
    "Energy by EU 1169/2011 Annex XIV; salt is sodium × 2.5. “Low carb” is no authorised claim in the EU.",
    _COMPUTED,
)


def _us_rows(formula: Formula, sheet: Sheet) -> tuple[PanelRow, ...]:
    rows = []
    for key, name, indent in _US_ROWS:
        source = "us_energy_kcal" if key == "energy_kcal" else key
        amount = scaled(sheet.estimate(f"panel:{source}"), formula.serving_pieces)
        if sheet.value(f"panel:{source}") >= _ONLY_WHEN_PRESENT.get(key, 0.0):
            cell = _cell("us", key, amount)
            rows.append(
                PanelRow(
                    key=key, name=name, indent=indent, cells=(cell,), daily_percent=daily_percent(key, amount.value)
                )
            )
    return tuple(rows)


def _eu_rows(formula: Formula, sheet: Sheet, after: Baked) -> tuple[PanelRow, ...]:
    per_100 = 100 / after.bake_to_piece_g if after.bake_to_g else 0.0
    relative = after.relative
    rows = []
    for key, name, indent in _EU_ROWS:
        source = {"carbohydrate_g": "eu_carbohydrate_g", "energy_kj": "eu_energy_kj"}.get(key, key)
        if sheet.value(f"panel:{source}") < _ONLY_WHEN_PRESENT.get(key, 0.0):
            continue
        cells = []
        for factor, also in ((per_100, relative), (float(formula.serving_pieces), 0.0)):
            cell = _cell("eu", key, _wider(scaled(sheet.estimate(f"panel:{source}"), factor), also))
            if key == "energy_kj":
                kcal = _cell("eu", "energy_kcal", _wider(scaled(sheet.estimate("panel:eu_energy_kcal"), factor), also))
                cell = PanelCell(text=f"{cell.text} / {kcal.text}", range_text=kcal.range_text, estimate=kcal.estimate)
            cells.append(cell)
        rows.append(PanelRow(key=key, name=name, indent=indent, cells=tuple(cells), daily_percent=""))
    return tuple(rows)


def _wider(estimate: Estimate, relative: float) -> Estimate:
    """Per 100 g baked, how much the oven takes is a doubt too."""
    also = estimate.value * relative
    low = max(estimate.value - hypot(estimate.value - estimate.low, also), 0.0)
    return Estimate(
        value=estimate.value,
        low=low,
        high=estimate.value + hypot(estimate.high - estimate.value, also),
        unit=estimate.unit,
    )


def _cell(style: LabelStyle, key: str, amount: Estimate) -> PanelCell:
    unit = UNITS_WRITTEN[key.rpartition("_")[2]]
    text, low, high = (printed(style, key, side) for side in (amount.value, amount.low, amount.high))
    shown = "" if style == "us" and key == "energy_kcal" else f" {unit}"
    return PanelCell(text=f"{text}{shown}", range_text="" if low == high else f"{low}–{high}{shown}", estimate=amount)


@cache
def _daily_values() -> dict[str, tuple[float, bool]]:
    return {
        row.text("figure"): (row.number_in("daily_value", 0), row.text("mineral") == "1")
        for row in read_table("daily_values.csv")
    }


def daily_percent(figure: str, amount: float) -> str:
    """Per cent of the daily value as 21 CFR 101.9 rounds it: minerals by 2, 5 or 10, all else by 1.

    >>> daily_percent("fat_g", 13.0), daily_percent("iron_mg", 2.6), daily_percent("sugars_g", 3.0)
    ('17 %', '15 %', '')

    Returns:
        Text without the per cent sign.
    """
    if figure not in _daily_values():
        return ""
    value, mineral = _daily_values()[figure]
    percent = 100 * amount / value
    step = 1 if not mineral else 2 if percent <= 10 else 5 if percent <= 50 else 10
    return f"{floor(percent / step + 0.5 + 1e-9) * step:.0f} %"


def reference_amount_g(form: str) -> float | None:
    """Return the reference amount customarily eaten of a form, g; None where the rule names none."""
    return next((row.number_in("racc_g", 0) for row in read_table("racc.csv") if row.text("form") == form), None)


def _racc_note(formula: Formula, facts: Nutrition) -> tuple[str, ...]:
    """How many pieces make the serving that 21 CFR 101.9(b) asks for."""
    reference_g, each = reference_amount_g(formula.form), facts.piece.grams.value
    if reference_g is None or each <= 0:
        return ()
    pieces = max(round(reference_g / each), 1)
    if pieces == formula.serving_pieces:
        return ()
    noun = "piece" if pieces == 1 else "pieces"
    return (f"The reference amount is {reference_g:g} g. A serving of {pieces} {noun} comes closest.",)
