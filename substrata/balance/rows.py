"""The rows of the linear problem at one point: what is wanted, and the guard rails that keep a settle honest.

Every row reads ``coefficients · grams ≤ bound``, scaled so that one unit of missing it is as much as the bound itself
(of a ratio), a whole class of handling (of consistency) or a point (of texture).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import inf
from typing import Literal

import numpy as np

from substrata.balance.bench import Bench
from substrata.balance.measures import ratio_of
from substrata.balance.rails import Rail, rails
from substrata.balance.slopes import Slopes
from substrata.batch.propagate import Ratio
from substrata.context.dough import Dough
from substrata.context.windows import Wanted, is_outside
from substrata.dough.binder import caps_of
from substrata.dough.phases import is_solid_fat
from substrata.formula.form import Window
from substrata.pantry.library import Floats
from substrata.quantities.tables import constant

# What a row stands for, in the order in which a clash lets go of it.
Kind = Literal["rail", "mass", "cap", "window", "handling", "wish", "soft"]
_MAIN = 0.1  # share of the flours (of the cheeses, …) from which a line is one that makes the bread what it is
_MAKES_IT = ("base", "binder", "egg", "cheese", "vegetable", "fat", "sweetener", "lift")
_TINY = 1e-9


@dataclass(frozen=True, kw_only=True)
class Row:
    """One limit."""

    key: str
    kind: Kind
    side: Literal["low", "high"]
    coefficients: Floats  # shape (n,)
    bound: float
    limit: float  # in the quantity's own unit
    price: float = 0.0  # of a unit beyond it, for what is soft; 0 where it must hold

    def over(self, grams: Floats) -> float:
        """By how much it is missed, 0 inside."""
        return max(float(self.coefficients @ grams) - self.bound, 0.0)


def rows_at(bench: Bench, grams: Floats, slopes: Slopes | None) -> list[Row]:
    """All rows at a point.

    Args:
        bench: the dough and the wish.
        grams: where it is linear, shape (n,).
        slopes: of handling, texture and bake there; None leaves those rows out.
    """
    dough = bench.at(grams)
    rows = [*_windows(bench, dough, grams), *_caps(bench, dough), *_lift_rows(bench, dough), *_rails(bench, dough)]
    return rows + (list(_sloped(bench, grams, slopes)) if slopes else [])


def judged_keys(bench: Bench, dough: Dough) -> dict[str, Wanted]:
    """Every quantity with a window, the brackets first."""
    return {key: w for key, w in dough.windows.items() if w.window.low is not None or w.window.high is not None}


def _windows(bench: Bench, dough: Dough, grams: Floats) -> Iterator[Row]:
    batch = bench.batch_at(grams)
    for key, wanted in judged_keys(bench, dough).items():
        ratio = ratio_of(key, bench.base, batch)
        if ratio.offset == 0 and float(batch.grams @ ratio.bottom[0]) <= 0:
            continue  # nothing to weigh it against
        kind: Kind = "wish" if wanted.source == "target" else "window"
        margin = bench.wish.margin * _relative_sd(bench, dough, key) if wanted.source == "target" else 0.0
        yield from ratio_rows(bench, ratio, key, kind, wanted.window, grams, margin=margin)


def _relative_sd(bench: Bench, dough: Dough, key: str) -> float:
    """Standard deviation of a quantity, as a share of it."""
    if key not in dough.ratios_of:
        return 0.0
    estimate = dough.bracketed.one_estimate(key)
    return (estimate.high - estimate.value) / 1.6449 / estimate.value if estimate.value > 0 else 0.0


def ratio_rows(
    bench: Bench,
    ratio: Ratio,
    key: str,
    kind: Kind,
    window: Window,
    grams: Floats,
    *,
    price: float = 0.0,
    margin: float = 0.0,
) -> Iterator[Row]:
    """The rows of a window on a ratio."""
    top, bottom = bench.per_line(ratio.top[0]) * ratio.scale, bench.per_line(ratio.bottom[0])
    below = ratio.offset + float(grams @ bottom)
    for side, limit in (("high", window.high), ("low", window.low)):
        if limit is None:
            continue
        aim = limit * (1 - margin) if side == "high" else limit * (1 + margin)
        size = max(abs(limit) * below, _TINY) if limit else max(float(grams @ top), 1.0)
        sign = 1.0 if side == "high" else -1.0
        yield Row(
            key=key,
            kind=kind,
            side=side,  # type: ignore[arg-type]  # one of the two
            coefficients=sign * (top - aim * bottom) / size,
            bound=sign * aim * ratio.offset / size,
            limit=limit,
            price=price,
        )


def _share_row(  # noqa: PLR0913 - a row has its parts
    key: str, kind: Kind, side: Literal["low", "high"], counted: Floats, of: Floats, share: float, size: float
) -> Row:
    """``counted · g`` at most (at least) a share of ``of · g``."""
    sign = 1.0 if side == "high" else -1.0
    return Row(key=key, kind=kind, side=side, coefficients=sign * (counted - share * of) / size, bound=0.0, limit=share)


def _total_row(  # noqa: PLR0913 - a row has its parts
    key: str, kind: Kind, side: Literal["low", "high"], counted: Floats, limit: float, *, size: float, price: float = 0.0
) -> Row:
    """``counted · g`` at most (at least) a limit."""
    sign = 1.0 if side == "high" else -1.0
    return Row(
        key=key, kind=kind, side=side, coefficients=sign * counted / size, bound=sign * limit / size, limit=limit, price=price
    )


def _caps(bench: Bench, dough: Dough) -> Iterator[Row]:
    size = max(dough.batch.dough_g, 1.0) / 100
    for cap in caps_of(bench.base.formula.form):
        counted = np.array([float(slot.ingredient in cap.ingredients) for slot in bench.slots])
        if counted.any():
            yield _share_row(
                f"cap:{cap.name}", "cap", "high", counted, bench.inside, cap.hard / 100, max(cap.hard, 0.5) * size
            )


def _lift_rows(bench: Bench, dough: Dough) -> Iterator[Row]:
    """No more bare soda than the acid meets, no more than a little acid beyond it; no more fat than the dough holds."""
    batch, whole = bench.base.batch, max(dough.batch.dough_g, 1.0)
    soda = bench.per_line(batch.behaviour("soda")[0])
    acid = bench.per_line(batch.behaviour("neutralising")[0]) / 100
    if soda.any():
        yield _share_row(
            "rail:soda", "cap", "high", soda - acid, bench.inside, constant("soapy_soda") / 100, 0.01 * whole
        )
    fat = np.array([float(slot.role == "fat") for slot in bench.slots]) * bench.inside
    if fat.any() and dough.batch.dry_base_g:
        yield _share_row("rail:greasy", "cap", "high", fat, bench.inside, constant("greasy_fat"), 0.3 * whole)


def _rails(bench: Bench, dough: Dough) -> Iterator[Row]:
    for rail in rails().values():
        if rail.id not in bench.wish.released:
            yield from _rows_of_rail(bench, rail)


def _rows_of_rail(bench: Bench, rail: Rail) -> Iterator[Row]:
    """The rows of one rail, against the dough that is kept to."""
    if rail.id == "mass":
        if not bench.wish.may_change_mass:
            whole = bench.kept.batch.dough_g
            yield _total_row("mass", "mass", "high", bench.inside, rail.high * whole, size=whole)
            yield _total_row("mass", "mass", "low", bench.inside, rail.low * whole, size=whole)
    elif rail.id.removeprefix("soft:") in bench.base.ratios_of and rail.id.startswith("soft:"):
        yield from _soft(bench, rail, rail.id.removeprefix("soft:"))
    elif rail.id in ("protein", "fat", "sweetness", "heat_set"):
        yield from _kept_near(bench, rail)
    elif rail.id == "soft:added_fat":
        yield from _added_fat(bench, rail)
    elif rail.id == "identity":
        yield from _identity(bench, rail)
    elif rail.id in ("egg", "cheese", "solid_fat"):
        yield from _kept_sum(bench, rail)
    elif rail.id == "fat_follows" and _gone(bench, "fat"):
        # Butter that goes is replaced by fat: nothing else makes it short.
        batch = bench.base.batch
        fat = bench.per_line(batch.nutrient("fat_g")[0] * batch.is_role("fat"))
        now = float(fat @ bench.start)
        yield _total_row("rail:fat_follows", "rail", "low", fat, rail.low * now, size=max(now, 1.0))


def _kept_near(bench: Bench, rail: Rail) -> Iterator[Row]:
    """A quantity within its share of what it was, unless a target asks for something else, or an exclusion takes it."""
    wanted = bench.given.windows.get(rail.id)
    target = wanted.window if wanted and wanted.source == "target" else Window()
    now = _held(bench, rail.id)
    if now <= _TINY:
        return
    low = now * rail.low if rail.low and not _asked_below(target, now * rail.low) else None
    high = now * rail.high if rail.high < inf and not _asked_above(target, now * rail.high) else None
    ratio = ratio_of(rail.id, bench.base)
    price = 0.0 if rail.id == "sweetness" and not _gone(bench, "sweetener") else _soft_when_excluded(bench)
    yield from ratio_rows(
        bench, ratio, f"rail:{rail.id}", "rail", Window(low=low, high=high), bench.start, price=price
    )


def _held(bench: Bench, key: str) -> float:
    """The quantity in the dough that is kept to."""
    return bench.kept.bracketed.value(key) if bench.kept.batch.dough_g > 0 else 0.0


def _asked_below(target: Window, low: float) -> bool:
    return target.high is not None and target.high < low


def _asked_above(target: Window, high: float) -> bool:
    return target.low is not None and target.low > high


def _gone(bench: Bench, role: str) -> bool:
    """Whether something of a role has to go."""
    return any(slot.gone and slot.start > 0 and slot.role == role for slot in bench.slots)


def _soft_when_excluded(bench: Bench) -> float:
    """Where something has to go, what it held gives a little, at a price."""
    return 200.0 if any(slot.gone and slot.start > 0 for slot in bench.slots) else 0.0


def _soft(bench: Bench, rail: Rail, key: str) -> Iterator[Row]:
    now = _held(bench, key)
    wanted = bench.given.windows.get(key)
    if wanted is not None:
        now = max(now, wanted.window.low or 0.0)
        now = min(now, wanted.window.high) if wanted.window.high is not None else now
    if now > _TINY:
        window = Window(low=now * rail.low, high=now * rail.high)
        batch = bench.batch_at(bench.start)
        yield from ratio_rows(
            bench, ratio_of(key, bench.base, batch), rail.id, "soft", window, bench.start, price=rail.price
        )


def _identity(bench: Bench, rail: Rail) -> Iterator[Row]:
    """At least half of each flour, binder, egg, cheese and fat that makes the bread what it is."""
    for role in _MAKES_IT:
        if role == "lift" and is_outside(bench.lift_state):
            continue  # what is to be mended may go
        own = [s for s, i in zip(bench.slots, bench.inside, strict=True) if s.role == role and i and not s.new]
        whole = sum(s.wanted for s in own)
        for slot in own:
            if slot.free and not slot.gone and whole and slot.wanted >= _MAIN * whole:
                counted = np.array([float(other is slot) for other in bench.slots])
                least = rail.low * min(slot.wanted, slot.start)
                yield _total_row(f"rail:identity:{slot.id}", "rail", "low", counted, least, size=max(slot.wanted, 1.0))


def _kept_sum(bench: Bench, rail: Rail) -> Iterator[Row]:
    """Egg, cheese or solid fat near what it was."""
    counted = np.array([float(_counts(bench, rail.id, i)) for i in range(bench.count)]) * bench.inside
    now = float(counted @ np.array([s.wanted for s in bench.slots]))
    here = float(counted @ bench.start)
    if now <= 0 or any(slot.gone and c for slot, c in zip(bench.slots, counted, strict=True)):
        return
    if rail.high < inf:
        # One egg more is always allowed: on a small dough half an egg is not to be had.
        most = max(now * rail.high, now + 50.0 if rail.id == "egg" else 0.0, here)
        yield _total_row(f"rail:{rail.id}", "rail", "high", counted, most, size=now)
    if rail.low:
        yield _total_row(f"rail:{rail.id}", "rail", "low", counted, min(now * rail.low, here), size=now)


def _added_fat(bench: Bench, rail: Rail) -> Iterator[Row]:
    """Butter and oil near what they were, at a price: fat is no flour."""
    counted = np.array([float(slot.role == "fat") for slot in bench.slots]) * bench.inside
    now = float(counted @ np.array([s.wanted for s in bench.slots]))
    if now > 0:
        yield _total_row(rail.id, "soft", "high", counted, now * rail.high, size=now, price=rail.price)
        yield _total_row(rail.id, "soft", "low", counted, now * rail.low, size=now, price=rail.price)


def _counts(bench: Bench, rail: str, place: int) -> bool:
    slot = bench.slots[place]
    if rail == "solid_fat":
        return slot.role == "fat" and is_solid_fat(slot.ingredient, slot.role)
    return slot.role == rail


def _sloped(bench: Bench, grams: Floats, slopes: Slopes) -> Iterator[Row]:
    """Handling, texture and minutes, as they run at the point."""
    for slope in slopes.every():
        value, run = slope.value, slope.per_gram
        at = float(run @ grams)
        for side, limit in (("high", slope.high), ("low", slope.low)):
            if limit is not None:
                sign = 1.0 if side == "high" else -1.0
                yield Row(
                    key=slope.key,
                    kind=slope.kind,  # type: ignore[arg-type]  # one of them
                    side=side,  # type: ignore[arg-type]
                    coefficients=sign * run / slope.unit,
                    bound=sign * (limit - value + at) / slope.unit,
                    limit=limit,
                    price=slope.price,
                )
