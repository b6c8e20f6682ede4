"""What the pantry has to say: traps of labels and data, and facts of single ingredients (``warning_facts.csv``)."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import get_args

from substrata.base.messages.message import Listing, Message, Wording
from substrata.base.messages.quantity import Quantity, in_grams, in_percent
from substrata.base.tables.table_reader import Row, constant, read_table
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.analysis.warning_inputs import DoughWarning, Severity, WarningInputs
from substrata.formula.batch.batch_lines import WeighedLine
from substrata.formula.batch.weighed_lines import read_from_scale
from substrata.ingredients.pack import Lot
from substrata.nutrition.net_carbs import polyols_percent
from substrata.nutrition.water_activity import solutes

_ROLE = "role:"


def _unlikely_amounts(r: WarningInputs) -> Iterator[DoughWarning]:
    """Warn of a line heavier than a kitchen weighs of its kind, with what was probably meant."""
    most = {row.text("role"): 1000 * row.number_in("most_kg", 0) for row in read_table("roles.csv")}
    for w in r.dough.batch.lines:
        limit = most.get(w.role, float("inf"))
        if w.grams.value <= limit:
            continue
        guess = w.grams.value / 1000 if "k" in w.line.entered.lower() else w.grams.value
        while guess > min(limit, constant("mistyped_of_rest") * max(r.dough.batch.whole_g - w.grams.value, 1.0)):
            guess /= 10
        yield DoughWarning(
            code="amount-unlikely",
            severity="act",
            lines=(w.line.id,),
            text=f"{w.grams.value:,.0f} g of {short_name(w.ingredient.name)} is more than a kitchen weighs: {guess:g} g?",
        )


def _carb_traps(r: WarningInputs) -> Iterator[DoughWarning]:
    for flag, text in (
        ("pulse", Message("ingredient-warnings-grain-free-does-not-mean")),
        ("starch", Message("ingredient-warnings-a-starch-is-nearly-all")),
    ):
        lines = {
            w.line.id: w.ingredient.name for w in r.dough.batch.lines if flag in w.ingredient.flags and _is_starchy(w)
        }
        share = sum(c.share for c in r.net_carbs.contributions if c.line in lines)
        if share >= constant("named_carb_share"):
            yield DoughWarning(
                code=f"{flag}-carbs",
                severity="note",
                lines=tuple(lines),
                text=Message(
                    "ingredient-warnings-of-the-net-carbs-come",
                    share=in_percent(share),
                    next=short_name(next(iter(lines.values()))),
                    text=text,
                ),
            )


def _is_starchy(weighed: WeighedLine) -> bool:
    """Whether much of its dry matter is net carbohydrate: a peanut, an almond or tofu is no such food."""
    per_100g = weighed.ingredient.composition
    net = per_100g["carbohydrate_g"] - per_100g["fibre_g"]
    return net >= constant("starchy_from") * (100 - per_100g["water_g"])


def _not_low_carb(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield a piece that has as much net carbohydrate as a slice of wheat bread, and what most of it comes from."""
    net = r.net_carbs.estimate.value
    top = max(r.net_carbs.contributions, key=lambda c: c.share, default=None)
    if top is not None and net > constant("not_low_carb_g"):
        yield DoughWarning(
            code="not-low-carb",
            severity="note",
            lines=(top.line,),
            text=Message(
                "ingredient-warnings-not-low-carb",
                net=Quantity(net, "g", digits=0),
                share=in_percent(top.share),
                top_name=short_name(top.name),
            ),
        )


def _largest_doubt(r: WarningInputs) -> Iterator[DoughWarning]:
    doubts = sorted(r.net_carbs.contributions, key=lambda c: -c.spread_share)
    wide = r.net_carbs.estimate.high - r.net_carbs.estimate.low > 0.3 * r.net_carbs.estimate.value
    if doubts and wide and doubts[0].spread_share >= constant("named_spread_share"):
        top = doubts[0]
        yield DoughWarning(
            code="largest-doubt",
            severity="note",
            lines=(top.line,),
            text=Message(
                "ingredient-warnings-the-uncertainty-in-net-carbs",
                largest_share=_largest_share(top.spread_share),
                top_name=short_name(top.name),
                to_reduce=_to_reduce(r, top.line),
            ),
        )


def _to_reduce(r: WarningInputs, line: str) -> Wording:
    """Return what would narrow a line's doubt: the scale where it was measured by volume or count, its pack where none is chosen."""
    w = next(w for w in r.dough.batch.lines if w.line.id == line)
    todo = [] if read_from_scale(w.line) else [Message("ingredient-warnings-weigh-it")]
    todo += [] if w.ingredient.pack else [Message("ingredient-warnings-add-your-own-pack-s")]
    return (
        Message("ingredient-warnings-to-reduce-it", todo=Listing(todo))
        if todo
        else Message("ingredient-warnings-this-food-varies-naturally")
    )


def _zeros(r: WarningInputs) -> Iterator[DoughWarning]:
    for result in r.hidden:
        if result.figure == "carbohydrate_g" and result.most_a_piece >= constant("hidden_carbs_told"):
            yield DoughWarning(
                code="hidden-carbs",
                severity="note",
                lines=tuple(zero.line for zero in result.zeros),
                text=result.text,
            )


def _strange_packs(r: WarningInputs) -> Iterator[DoughWarning]:
    lines = tuple(w.line.id for w in r.dough.batch.lines if w.line.lot and not w.ingredient.pack)
    if lines:
        yield DoughWarning(
            code="pack-unknown",
            severity="note",
            lines=lines,
            text=Message("ingredient-warnings-a-pack-used-in-this"),
        )


def _largest_share(share: float) -> Wording:
    return (
        Message("ingredient-warnings-nearly-all-of")
        if share > 0.95
        else Message("ingredient-warnings-of", share=in_percent(share))
    )


def _polyols(r: WarningInputs) -> Iterator[DoughWarning]:
    share = polyols_percent(r.dough.batch, r.dough.baked.bake_to_g)
    if share > constant("laxative_polyols"):
        yield DoughWarning(
            code="polyols",
            severity="caution",
            text=Message(
                "ingredient-warnings-polyols-excessive-consumption-may-produce", share=Quantity(share, "%", digits=0)
            ),
        )


@dataclass(frozen=True, kw_only=True)
class _Fact:
    """One row of the table."""

    code: str
    flag: str  # of an ingredient; "" for a fact about a role
    role: str
    ids: frozenset[str]  # of ingredients that it is about
    severity: Severity
    text: Wording
    settled_by: frozenset[str]  # claims that must all be printed on its pack to settle it

    def is_settled(self, pack: Lot | None) -> bool:
        """Whether a certificate of a pack settles it."""
        return bool(self.settled_by) and pack is not None and self.settled_by <= pack.certificates


@lru_cache(maxsize=4096)
def _about(ingredient: str, role: str, flags: frozenset[str]) -> tuple[int, ...]:
    """Return the facts that are about an ingredient in a role, as rows of the table."""
    return tuple(
        row for row, fact in enumerate(_table()) if fact.role == role or fact.flag in flags or ingredient in fact.ids
    )


@cache
def _table() -> tuple[_Fact, ...]:
    return tuple(_fact(row) for row in read_table("warning_facts.csv"))


def _fact(row: Row) -> _Fact:
    flag, severity = row.text("flag"), row.text("severity")
    if severity not in get_args(Severity):
        raise row.error("unknown severity", got=severity, allowed=", ".join(get_args(Severity)))
    return _Fact(
        code=row.text("code"),
        flag="" if flag.startswith(_ROLE) else flag,
        role=flag.removeprefix(_ROLE) if flag.startswith(_ROLE) else "",
        ids=frozenset(row.text("ids").split()),
        severity=severity,  # type: ignore[arg-type]  # looked at above
        text=table_text(row.text("text")),
        settled_by=frozenset(row.text("settled_by").split()),
    )


def _facts(*, by_role: bool) -> Callable[[WarningInputs], Iterator[DoughWarning]]:
    """Return the rule that tells the table's facts about roles, or about flags; each once."""

    def rule(r: WarningInputs) -> Iterator[DoughWarning]:
        table, codes = _table(), set()
        lines: dict[int, list[str]] = {}
        for weighed in r.dough.batch.lines:
            ingredient = weighed.ingredient
            for row in _about(ingredient.id, weighed.role, ingredient.flags):
                if bool(table[row].role) == by_role and not table[row].is_settled(ingredient.pack):
                    lines.setdefault(row, []).append(weighed.line.id)
        for row in sorted(lines):
            fact = table[row]
            if fact.code not in codes:
                codes.add(fact.code)
                yield DoughWarning(code=fact.code, severity=fact.severity, text=fact.text, lines=tuple(lines[row]))

    return rule


def _crystals(r: WarningInputs) -> Iterator[DoughWarning]:
    """Yield the sugar alcohols that the water of the baked piece cannot hold: they come out as crystals, gritty and cooling."""
    batch, after = r.dough.batch, r.dough.baked
    water = after.bake_to_g * after.moisture_percent / 100
    for solute in solutes():
        if solute.nutrient not in _CRYSTALLISE:
            continue
        each = batch.grams * batch.inside * batch.nutrient(solute.nutrient)[0]
        excess = float(each.sum()) - solute.solubility * water
        if excess > constant("crystals_named") * after.bake_to_g:
            lines = tuple(w.line.id for w, grams in zip(batch.lines, each.tolist(), strict=True) if grams > 0)
            yield DoughWarning(
                code=f"{_CRYSTALLISE[solute.nutrient]}-crystals",
                severity="act" if excess > constant("crystals_spoil") * after.bake_to_g else "note",
                lines=lines,
                text=Message(
                    "ingredient-warnings-crystals",
                    kind=_CRYSTALLISE[solute.nutrient],
                    excess=in_grams(excess),
                    all=in_grams(float(each.sum())),
                    water=in_grams(water),
                ),
            )


_CRYSTALLISE = {"erythritol_g": "erythritol", "polyols_g": "polyols"}

PANTRY_RULES = (
    _unlikely_amounts,
    _not_low_carb,
    _carb_traps,
    _largest_doubt,
    _zeros,
    _strange_packs,
    _facts(by_role=False),
    _polyols,
    _crystals,
    _facts(by_role=True),
)
