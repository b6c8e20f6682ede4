"""What a baker should be told besides the brackets: faults in the making, label traps, cautions.

``act`` asks for a change, ``note`` informs, ``caution`` concerns health and safety and defers to
clinicians and local rules.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

from substrata.analysis.brackets import Bracket
from substrata.analysis.remedies import Remedy
from substrata.analysis.words import grams, percent, short_name
from substrata.batch.baked import Baked
from substrata.batch.kitchen_steps import to_the_scale
from substrata.batch.weighed import Batch
from substrata.dough.binder import Binder
from substrata.dough.handling import HandlingForecast
from substrata.dough.lift import Lift
from substrata.dough.texture import Texture
from substrata.formula.form import form_of
from substrata.formula.formula import Formula
from substrata.nutrition.hidden import Hidden
from substrata.pantry.ingredient import Ingredient
from substrata.pantry.library import Library
from substrata.quantities.tables import constant

Severity = Literal["act", "note", "caution"]
_MUCH_OF_THE_CARBS = 0.25  # share of net carbs from which a pulse or starch is named
_LEAST_CHANGE_G = 0.05
_GUMMY = 5.0  # points from which gumminess is told
_MUCH_OF_THE_SPREAD = 0.5  # share of the variance from which one line is named


@dataclass(frozen=True, kw_only=True)
class DoughWarning:
    """One thing to know, with the lines it is about."""

    code: str
    severity: Severity
    text: str
    lines: tuple[str, ...] = ()
    remedy: Remedy | None = None  # an edit that answers it


@dataclass(frozen=True, kw_only=True)
class Reading:
    """What the warnings are drawn from."""

    formula: Formula
    batch: Batch
    binder: Binder
    lift: Lift
    net_carbs: Bracket
    hidden: tuple[Hidden, ...]
    library: Library
    handling: HandlingForecast | None
    texture: Texture | None
    baked: Baked


def warnings(reading: Reading) -> tuple[DoughWarning, ...]:
    """All warnings, the ones to act on first."""
    found = [warning for rule in _RULES for warning in rule(reading)]
    order = ("act", "note", "caution")
    return tuple(sorted(found, key=lambda w: order.index(w.severity)))


def _no_lines(r: Reading) -> Iterator[DoughWarning]:
    if not r.batch.lines:
        yield DoughWarning(code="empty", severity="note", text="Nothing in the bowl yet: add a line or paste a list.")
    elif r.batch.dry_base_g <= 0:
        yield DoughWarning(
            code="no-base",
            severity="act",
            text="No dry base: baker's percentages and binder load need a flour, a fibre or a binder.",
        )


def _caps(r: Reading) -> Iterator[DoughWarning]:
    for cap in r.binder.caps:
        if cap.percent > cap.hard_percent:
            yield DoughWarning(
                code=f"{cap.name.replace(' ', '-')}-over-cap",
                severity="act",
                lines=cap.lines,
                text=f"More {cap.name} than {cap.hard_percent:g} % of the dough ({cap.percent:.1f} %): {cap.effect}.",
            )
        elif cap.percent > cap.soft_percent:
            yield DoughWarning(
                code=f"{cap.name.replace(' ', '-')}-near-cap",
                severity="note",
                lines=cap.lines,
                text=f"{cap.name.capitalize()} at {cap.percent:.1f} % of the dough; {cap.effect} from about "
                f"{cap.soft_percent:g} to {cap.hard_percent:g} %.",
            )


def _heat_set(r: Reading) -> Iterator[DoughWarning]:
    share, least = r.binder.heat_set.value, r.binder.heat_set_least
    if r.binder.load.value and least and share < least:
        yield DoughWarning(
            code="heat-set-low",
            severity="act",
            text=f"Only {percent(share)} of the binding sets in the oven, {percent(least)} is wanted for a "
            f"{form_of(r.formula.form).name.lower()}: it may rise and sink. Egg, white or whey sets.",
        )


def _acid_balance(r: Reading) -> Iterator[DoughWarning]:
    lift, dough = r.lift, r.batch.dough_g
    if not dough:
        return
    soda = tuple(w.line.id for w in r.batch.lines if w.ingredient.parameter("soda").value)
    acid = tuple(w.line.id for w in r.batch.lines if w.ingredient.parameter("neutralising").value and w.role == "acid")
    if 100 * lift.soda_left_g / dough > constant("soapy_soda"):
        yield DoughWarning(
            code="soda-unneutralised",
            severity="act",
            lines=soda,
            text=f"{grams(lift.soda_left_g)} soda finds no acid: soapy taste, brown crumb. "
            f"About {grams(_vinegar_for(lift.soda_left_g, r.library))} cider vinegar would meet it.",
            remedy=_more(r, "cider-vinegar", _vinegar_for(lift.soda_left_g, r.library)),
        )
    if acid and lift.soda_g and 100 * lift.acid_left_g / dough > constant("sour_acid"):
        yield DoughWarning(
            code="acid-left",
            severity="note",
            lines=acid,
            text=f"More acid than the soda needs (for {grams(lift.acid_left_g)} more soda): it will taste sharp.",
        )


def _more(r: Reading, ingredient: str, change: float) -> Remedy | None:
    """The edit that adds to a line of an ingredient (or takes from it), or brings it in."""
    row = next((w for w in r.batch.lines if w.ingredient.id == ingredient and not w.line.locked), None)
    present = row.grams.value if row else 0.0
    after = to_the_scale(max(present + change, 0.0))
    if abs(after - present) < _LEAST_CHANGE_G:
        return None
    return Remedy(
        text=f"{'+' if after > present else '−'} {grams(abs(after - present))} {short_name(r.library[ingredient].name)}",
        line=row.line.id if row else None,
        ingredient=ingredient,
        grams=after,
    )


def _handles(r: Reading) -> Iterator[DoughWarning]:
    """What keeps the dough from being shaped as its form wants."""
    cause = r.handling.cause if r.handling else None
    if r.handling is None or cause is None:
        return
    what = {
        "crumbly": "It crumbles",
        "stiff": "Too stiff to shape",
        "cold": "Too cool to shape",
        "wet": "Too soft to shape",
    }
    said = what.get(cause.kind, "Not ready yet")
    yield DoughWarning(
        code=f"handling-{cause.kind}",
        severity="note" if cause.kind == "rest" else "act",
        text=f"{said}: {cause.text}.",
        lines=(cause.line,) if cause.line else (),
        remedy=_more(r, cause.ingredient, cause.change_g) if cause.ingredient else None,
    )


def _sinks(r: Reading) -> Iterator[DoughWarning]:
    """Soft: retention of gas is the least known thing here."""
    if r.lift.strain > 1 and r.lift.gas_ml > 0:
        lines = tuple(w.line.id for w in r.batch.lines if w.role == "lift")
        yield DoughWarning(
            code="may-sink",
            severity="note",
            lines=lines,
            text=f"It may rise and sink: the gas asks for {r.lift.strain:.1f} times the void that this binding holds. "
            "Less powder, or egg white.",
            remedy=_less_powder(r),
        )


def _less_powder(r: Reading) -> Remedy | None:
    powder = next((w for w in r.batch.lines if w.ingredient.id == "baking-powder" and not w.line.locked), None)
    return _more(r, "baking-powder", -powder.grams.value * (1 - 1 / r.lift.strain)) if powder else None


def _cold_water(r: Reading) -> Iterator[DoughWarning]:
    """A cool psyllium dough gives less gel (common practice; sign from the model)."""
    gelled = tuple(w.line.id for w in r.batch.lines if "psyllium" in w.ingredient.flags)
    if gelled and r.handling and r.handling.temperature_c < constant("cool_psyllium"):
        yield DoughWarning(
            code="cool-psyllium",
            severity="note",
            lines=gelled,
            text=f"Mixed at {r.handling.temperature_c:.0f} °C the psyllium gives less gel and stays wet: bath-warm liquid.",
        )


def _gummy(r: Reading) -> Iterator[DoughWarning]:
    score = next((s for s in r.texture.scores if s.key == "gummy"), None) if r.texture else None
    if score and score.value >= _GUMMY:
        lines = score.terms[0].lines if score.terms else ()
        yield DoughWarning(
            code="gummy",
            severity="act",
            lines=lines,
            text=f"It will eat gummy ({score.value:.0f} of 10): {score.terms[0].what}. Less of it, or bake it drier.",
        )


def _vinegar_for(soda_g: float, library: Library) -> float:
    """Grams of cider vinegar that neutralise some soda."""
    return 100 * soda_g / library["cider-vinegar"].parameter("neutralising").value


def _yeast(r: Reading) -> Iterator[DoughWarning]:
    if r.lift.yeast_g and r.lift.sugar_for_yeast_g < r.lift.yeast_g * 0.2:
        lines = tuple(w.line.id for w in r.batch.lines if w.ingredient.id == "dry-yeast")
        yield DoughWarning(
            code="yeast-without-sugar",
            severity="note",
            lines=lines,
            text="The yeast finds hardly any sugar: it gives flavour, not lift.",
        )


def _carb_traps(r: Reading) -> Iterator[DoughWarning]:
    for flag, text in (
        ("pulse", "grain-free is not low in carbohydrate: dry pulses are 40 to 52 % net"),
        ("starch", "a starch is nearly all net carbohydrate"),
    ):
        lines = {w.line.id: w.ingredient.name for w in r.batch.lines if flag in w.ingredient.flags}
        share = sum(c.share for c in r.net_carbs.contributions if c.line in lines)
        if share >= _MUCH_OF_THE_CARBS:
            yield DoughWarning(
                code=f"{flag}-carbs",
                severity="note",
                lines=tuple(lines),
                text=f"{percent(share)} of the net carbs come from {short_name(next(iter(lines.values())))}: {text}.",
            )


def _largest_doubt(r: Reading) -> Iterator[DoughWarning]:
    doubts = sorted(r.net_carbs.contributions, key=lambda c: -c.spread_share)
    wide = r.net_carbs.estimate.high - r.net_carbs.estimate.low > 0.3 * r.net_carbs.estimate.value
    if doubts and wide and doubts[0].spread_share >= _MUCH_OF_THE_SPREAD:
        top = doubts[0]
        yield DoughWarning(
            code="largest-doubt",
            severity="note",
            lines=(top.line,),
            text=f"{_most_of(top.spread_share)} the doubt about net carbs is {short_name(top.name)}: {_settle(r, top.line)}.",
        )


def _settle(r: Reading, line: str) -> str:
    """What would narrow a line's doubt: its pack, where none is chosen; else the scale."""
    packed = any(w.line.id == line and w.ingredient.pack for w in r.batch.lines)
    return "weigh it" if packed else "weigh it, and enter its pack"


def _zeros(r: Reading) -> Iterator[DoughWarning]:
    for found in r.hidden:
        if found.figure == "carbohydrate_g" and found.most_a_piece >= constant("hidden_carbs_told"):
            yield DoughWarning(
                code="hidden-carbs",
                severity="note",
                lines=tuple(zero.line for zero in found.zeros),
                text=found.text,
            )


def _strange_packs(r: Reading) -> Iterator[DoughWarning]:
    lines = tuple(w.line.id for w in r.batch.lines if w.line.lot and not w.ingredient.pack)
    if lines:
        yield DoughWarning(
            code="pack-unknown",
            severity="note",
            lines=lines,
            text="A pack of this formula is not in this pantry: the reference stands in for it.",
        )


_SWELLS = "swells: eat it with plenty of liquid; it can choke those who swallow badly. Keep it apart from medicines and ask a clinician when in doubt."


def _most_of(share: float) -> str:
    return "Nearly all of" if share > 0.95 else f"{percent(share)} of"


# Facts of single ingredients: flag or id, code, severity, text (nutrition law and common practice).
_FACTS: tuple[tuple[str, str, Severity, str], ...] = (
    ("grain:wheat", "gluten", "act", "Wheat gluten is gluten itself: never for those who must avoid it."),
    ("grain:barley", "gluten", "act", "Barley holds gluten: take another vinegar or extract."),
    ("grain:oat", "oat", "note", "Oats must be certified gluten-free, and are a grain."),
    (
        "anticaking",
        "anticaking",
        "note",
        "Pre-shredded cheese carries starch or cellulose: some carbohydrate, a worse melt.",
    ),
    ("starch-carrier", "powder-starch", "note", "Baking powder often carries corn or wheat starch: read the pack."),
    ("xylitol", "xylitol", "caution", "Xylitol is poisonous to dogs: label the tin."),
    ("psyllium", "gum-liquid", "caution", f"Psyllium {_SWELLS}"),
    ("konjac", "gum-liquid", "caution", f"Konjac {_SWELLS}"),
    ("raw-pulse", "raw-pulse", "caution", "Raw pulses must be soaked and cooked through."),
    ("lupin", "lupin", "caution", "Lupin can affect people with a peanut allergy."),
)


# What a pack's certificates settle: code of a fact -> claims that must all be printed on it.
_SETTLED_BY = {"oat": {"gluten-free"}, "powder-starch": {"gluten-free", "grain-free"}}


def _settled(code: str, ingredient: Ingredient) -> bool:
    """Whether a pack answers a doubt that its ingredient raises."""
    needed = _SETTLED_BY.get(code)
    return needed is not None and ingredient.pack is not None and needed <= ingredient.pack.certificates


def _facts(r: Reading) -> Iterator[DoughWarning]:
    said = set()
    for flag, code, severity, text in _FACTS:
        lines = tuple(
            w.line.id for w in r.batch.lines if flag in w.ingredient.flags and not _settled(code, w.ingredient)
        )
        if lines and code not in said:
            said.add(code)
            yield DoughWarning(code=code, severity=severity, text=text, lines=lines)


def _pumpkin_seed(r: Reading) -> Iterator[DoughWarning]:
    lines = tuple(w.line.id for w in r.batch.lines if "seed:pumpkin" in w.ingredient.flags)
    if lines:
        yield DoughWarning(
            code="pumpkin-seed-data",
            severity="note",
            lines=lines,
            text="Data sets disagree on pumpkin seed: 10.7 or 18.7 g carbohydrate per 100 g.",
        )


def _polyols(r: Reading) -> Iterator[DoughWarning]:
    amount = sum(r.batch.nutrient(n)[0] for n in ("erythritol_g", "polyols_g"))
    after = r.baked.bake_to_g
    share = 100 * float(r.batch.grams @ amount) / after if after else 0.0
    if share > constant("laxative_polyols"):
        yield DoughWarning(
            code="polyols",
            severity="caution",
            text=f"{share:.0f} % polyols: excessive consumption may produce laxative effects.",
        )


def _raw_egg(r: Reading) -> Iterator[DoughWarning]:
    lines = tuple(w.line.id for w in r.batch.lines if w.role == "egg")
    if lines:
        yield DoughWarning(
            code="raw-egg",
            severity="caution",
            lines=lines,
            text="Raw egg: do not taste the dough; bake the middle to 71 °C (160 °F).",
        )


_RULES: tuple[Callable[[Reading], Iterator[DoughWarning]], ...] = (
    _no_lines,
    _caps,
    _handles,
    _heat_set,
    _sinks,
    _gummy,
    _cold_water,
    _acid_balance,
    _yeast,
    _carb_traps,
    _largest_doubt,
    _zeros,
    _strange_packs,
    _facts,
    _pumpkin_seed,
    _polyols,
    _raw_egg,
)
