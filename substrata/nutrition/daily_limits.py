"""How many pieces fit into somebody's day."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import floor

import numpy as np

from substrata.base.messages.message import Message, Wording
from substrata.base.settings import Eater, Settings
from substrata.base.tables.table_reader import read_table
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.propagation import Estimate, Ratio, Sheet, total_ratio
from substrata.formula.formula import Formula
from substrata.ingredients.groups import is_in_group

_MOST_PIECES = 99  # beyond this a budget says nothing


@dataclass(frozen=True, kw_only=True)
class BudgetKind:
    """A thing that people keep a daily budget of."""

    key: str
    name: str
    unit: str
    usual: float
    source: str


@dataclass(frozen=True, kw_only=True)
class DailyLimitFit:
    """One budget against one piece."""

    key: str
    name: str
    unit: str
    a_day: float
    a_piece: Estimate
    pieces: int  # whole pieces that fit
    pieces_for_sure: int  # even at the top of the range
    share_of_piece: float  # of the day that one piece takes, 0..


@dataclass(frozen=True, kw_only=True)
class EaterFit:
    """How many pieces fit into an eater's day, and what stops the next one."""

    eater: str
    pieces: int
    pieces_for_sure: int
    limit: str  # name of the tightest budget
    text: Wording
    budgets: tuple[DailyLimitFit, ...]


@cache
def budget_kinds() -> dict[str, BudgetKind]:
    """All budgets by key."""
    return {
        row.text("budget"): BudgetKind(
            key=row.text("budget"),
            name=row.text("name"),
            unit=row.text("unit"),
            usual=row.number_in("usual", 0),
            source=row.text("source"),
        )
        for row in read_table("budgets.csv")
    }


def weight_ratios(batch: Batch, formula: Formula) -> dict[str, Ratio]:
    """Grams of cheese and of cream a piece, as ratios over the lines."""
    ones = np.ones(len(batch.lines))
    cheese = batch.is_role("cheese")
    cream = np.array([float(is_in_group(w.ingredient, "cream")) for w in batch.lines])
    return {
        key: total_ratio(batch, (mask * ones, batch.nothing), "g", 1 / formula.pieces)
        for key, mask in (("cheese", cheese), ("cream", cream))
    }


def eater_fits(sheet: Sheet, settings: Settings) -> tuple[EaterFit, ...]:
    """Every eater of the kitchen against one piece; the sheet holds ``nutrition_ratios`` and ``weight_ratios``."""
    return tuple(_eater(eater, sheet) for eater in settings.eaters) if sheet.batch.lines else ()


def _eater(eater: Eater, sheet: Sheet) -> EaterFit:
    fits = tuple(_fit(key, a_day, sheet) for key, a_day in eater.budgets.items())
    tightest = min(fits, key=lambda f: (f.pieces, -f.share_of_piece), default=None)
    if tightest is None:
        return EaterFit(
            eater=eater.name,
            pieces=0,
            pieces_for_sure=0,
            limit="",
            text=Message("daily-limits-has-no-daily-limits", eater_name=eater.name),
            budgets=(),
        )
    sure = min(f.pieces_for_sure for f in fits)
    return EaterFit(
        eater=eater.name,
        pieces=tightest.pieces,
        pieces_for_sure=sure,
        limit=tightest.name,
        text=_text(eater.name, tightest, sure),
        budgets=fits,
    )


def _fit(key: str, a_day: float, sheet: Sheet) -> DailyLimitFit:
    kind, piece = budget_kinds()[key], sheet.estimate(key)
    return DailyLimitFit(
        key=key,
        name=kind.name,
        unit=kind.unit,
        a_day=a_day,
        a_piece=piece,
        pieces=_whole(a_day, piece.value),
        pieces_for_sure=_whole(a_day, piece.high),
        share_of_piece=piece.value / a_day if a_day else 0.0,
    )


def _whole(a_day: float, a_piece: float) -> int:
    return min(floor(a_day / a_piece + 1e-9), _MOST_PIECES) if a_piece > 0 else _MOST_PIECES


def _text(name: str, tightest: DailyLimitFit, sure: int) -> Wording:
    if tightest.pieces >= _MOST_PIECES:
        return Message("daily-limits-no-limit-applies", name=name)
    words = (
        Message("daily-limits-less-than-one-piece-fits")
        if not tightest.pieces
        else Message("daily-limits-a-day", pieces=tightest.pieces)
    )
    doubt = Message("daily-limits-even-in-the-worst-case", sure=sure) if sure < tightest.pieces else ""
    return Message("daily-limits-limited-by", name=name, words=words, doubt=doubt, tightest_name=tightest.name.lower())
