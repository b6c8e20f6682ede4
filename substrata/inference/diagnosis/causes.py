"""The causes of the making: what each changes, when it can be, how the run's own log shows it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.evaluation.dough import Dough
from substrata.inference.making import Making, dough_temperature, selected_lines

SIZE_WEIGHTS = (0.3, 0.45, 0.25)  # small, middling and large slips
_HOT_LIGHT = 1.0


@dataclass(frozen=True, kw_only=True)
class Cause:
    """Something that may have gone otherwise than written."""

    id: str
    words: str
    scope: str  # run, habit, lot, oven: whether it comes again
    prior: float
    sizes: tuple[float, ...]
    plant: str
    needs: frozenset[str]
    log: str  # where the log of a run shows it
    check: str  # a check that needs no bake: probe, fizz, bag
    group: str
    asks: str


@cache
def causes() -> dict[str, Cause]:
    """All causes of the making, by id, in the order of ``causes.csv``."""
    return {row.text("cause"): _cause(row) for row in read_table("causes.csv")}


def _cause(row: Row) -> Cause:
    return Cause(
        id=row.text("cause"),
        words=row.text("words"),
        scope=row.text("scope"),
        prior=row.number_in("prior", 0, 10),
        sizes=tuple(float(size) for size in row.text("sizes").split()),
        plant=row.text("plant"),
        needs=frozenset(row.text("needs").split()),
        log=row.text("log"),
        check=row.text("check"),
        group=row.text("group"),
        asks=row.text("asks"),
    )


@cache
def strengths() -> dict[tuple[str, str], int]:
    """How strongly practice holds a cause for a fault, 1 to 3, by (fault, cause)."""
    return {
        (row.text("fault"), row.text("cause")): int(row.number_in("strength", 1, 3))
        for row in read_table("fault_causes.csv")
    }


def possible(kinds: frozenset[str]) -> tuple[Cause, ...]:
    """Return the causes that a dough of such kinds can have."""
    return tuple(cause for cause in causes().values() if cause.needs <= kinds)


def plantings(cause: Cause) -> Iterator[tuple[float, float]]:
    """Yield the sizes of a cause with their weights; one where there is only one."""
    distinct = tuple(dict.fromkeys(cause.sizes))
    if len(distinct) == 1:
        yield distinct[0], 1.0
        return
    yield from zip(cause.sizes, SIZE_WEIGHTS, strict=True)


def planted(dough: Dough, cause: Cause, size: float) -> Making | None:
    """How a formula was made if that was the cause; None where that changes nothing.

    Args:
        dough: as it is written.
        cause: what went otherwise.
        size: how much: a factor, degrees, or kelvin, as its row of ``causes.csv`` says.

    Returns:
        The making; None where nothing changes.
    """
    what, _, target = cause.plant.partition(":")
    if what in ("grams", "capacity"):
        lines = selected_lines(dough, target)
        if not lines:
            return None
        factors = dict.fromkeys(lines, size)
        return Making(grams=factors) if what == "grams" else Making(capacity=factors)
    if what == "dough_c":
        return None if size >= dough_temperature(dough) - 1 else Making(dough_c=size)
    if what == "vegetable":
        grams = sum(w.grams.value for w in dough.batch.lines if w.role == "vegetable")
        return Making(water_g=size * grams) if grams else None
    return _rest_making(what, target, size)


def _rest_making(what: str, kind: str, size: float) -> Making:
    if what == "flag":
        return Making(flags=frozenset((kind,)))
    if what == "oil":
        flags = frozenset(("oil_cool",)) if size < -constant("cool_oil_k") else frozenset()
        return Making(oven_k=size, flags=flags)
    simple: dict[str, Making] = {
        "gas": Making(gas=size),
        "rest": Making(rest=size),
        "warmer": Making(warmer_k=size),
        "unpressed": Making(pressed=False),
        "thickness": Making(thickness=size),
        "rim": Making(rim=size, flags=frozenset()),
        "hot": Making(hot=size),
        "oven": Making(oven_k=size),
        "minutes": Making(minutes=size),
        "trays": Making(two_trays=True),
        "browning": Making(browning=size),
        "topping": Making(amounts={"topping": size}),
        "filling": Making(amounts={"filling": size}),
        "flip": Making(unflipped=True),
    }
    return simple[what]
