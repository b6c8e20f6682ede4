"""What is baked of a formula: its family, body, matter, surroundings and stages, all as numbers."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import exp, pi, sqrt
from typing import Literal

import numpy as np

from substrata.batch.baked import Baked, oven_c
from substrata.batch.weighed import Batch, is_fried
from substrata.dough.handling import HandlingForecast
from substrata.errors import FormulaError, OvenError
from substrata.formula.bake_wish import BakeStage
from substrata.formula.formula import Formula
from substrata.oven.body import Body, brick, rope, short_cylinder, slab
from substrata.oven.boil import boiling_c
from substrata.oven.matter import BakeMatter, bake_matter, psyllium_sorption
from substrata.oven.numbers import Bakeware, OvenFamily, bakeware, oven_families, oven_number
from substrata.oven.profile import OvenProfile
from substrata.oven.simulate import Browning, Heat, Support
from substrata.quantities.tables import constant, read_table
from substrata.shape.piece import Piece

_FRIED = "fried"  # what bake_families.csv calls the kind of whatever is fried
_ANY = "*"


def bake_family(kind: str, formula: Formula) -> OvenFamily:
    """How a formula bakes: by the form, and by what carries the dough (the first row of ``bake_families.csv`` that fits).

    Args:
        kind: of the dough.
        formula: gives the form, and whether it is fried.

    Raises:
        LibraryError: when no row fits.
    """
    kinds = (_FRIED if is_fried(formula) else kind, _ANY)
    rows = read_table("bake_families.csv")
    for row in rows:
        if row.text("form") in (formula.form, _ANY) and row.text("dough_kind") in kinds:
            return oven_families()[row.text("family")]
    raise rows[-1].error("no family fits a dough", got=f"{formula.form}, {kind}")


@dataclass(frozen=True, kw_only=True)
class Topping:
    """What is laid on at the stage ``top``, or lies between two sheets."""

    matter: BakeMatter
    thickness_mm: float


@dataclass(frozen=True, kw_only=True)
class BakeCase:
    """One bake as numbers. ``replace`` makes the same bake with another oven, thickness or dough."""

    family: OvenFamily
    piece: Piece
    body: Body
    matter: BakeMatter
    porosity: float
    dough_c: float
    oven_c: float  # on the dial
    offset_k: float  # of this oven over its dial
    offset_sd: float
    fan: bool
    altitude_m: float
    trays: int
    ware: Bakeware
    fried: bool
    has_egg: bool
    stages: tuple[BakeStage, ...]
    topping: Topping | None
    filling: Topping | None
    wet_percent: float  # water of the dough, with its filling
    loss_wanted: float  # share, of the form's habit or the baker's wish
    moisture_wanted: float  # %, for what is dried
    browning: float  # factor
    h_factor: float = 1.0
    pipe_factor: float = 1.0

    @property
    def light(self) -> float:
        """Lightness of the raw dough."""
        return oven_number("dough_light")

    @property
    def brown(self) -> Browning:
        """How its faces brown; a face on a tray has no blisters."""
        return Browning(factor=self.browning, beta_top=self.family.beta, beta_bottom=0.5 * self.family.beta)

    @property
    def support(self) -> Support:
        """How it lies."""
        contact = 0.0 if self.fried else self.family.contact
        return Support(ware=self.ware, contact=contact, side_per_m=self.body.side_per_m)

    @property
    def safe_for(self) -> Literal["", "egg", "filling"]:
        """What asks for a safe middle."""
        return "filling" if self.filling is not None else "egg" if self.has_egg else ""

    @property
    def safe_c(self) -> float | None:
        """Temperature that the middle has to pass; None when nothing asks for it."""
        return constant(f"{self.safe_for}_safe_c") if self.safe_for else None

    @property
    def pressure_pa(self) -> float:
        """Of the air, by the altitude."""
        return constant("standard_pressure") * exp(-self.altitude_m / oven_number("altitude_scale"))

    @property
    def core_wanted_c(self) -> float:
        """Core temperature that decides: as far below the boil as the family's is at sea level (common practice)."""
        return self.family.core_c - (boiling_c(constant("standard_pressure")) - boiling_c(self.pressure_pa))

    def heat(self, dial_c: float, *, fan: bool, broil: bool = False) -> Heat:
        """The surroundings at a setting of the dial."""
        if self.fried:
            return Heat(
                air_c=dial_c,
                wall_c=dial_c,
                h=oven_number("h_frying") * self.h_factor,
                emissivity=0.0,
                pressure_pa=self.pressure_pa,
                vapour_pa=0.0,
                frying=True,
            )
        air = dial_c + self.offset_k
        crowd = oven_number("second_tray") if self.trays > 1 else 1.0
        h = oven_number("h_broil") if broil else oven_number("h_fan") if fan else oven_number("h_static")
        # Re^1/2 and Gr^1/4 both go with the root of the air's density.
        crowd_h = crowd * sqrt(self.pressure_pa / constant("standard_pressure"))
        return Heat(
            air_c=air,
            wall_c=air + (oven_number("broil_wall") if broil else oven_number("wall_offset")),
            h=h * crowd_h * self.h_factor,
            emissivity=oven_number("emissivity") * crowd,
            pressure_pa=self.pressure_pa,
            vapour_pa=oven_number("oven_vapour"),
        )

    def with_thickness(self, thickness_mm: float) -> BakeCase:
        """The same dough, thicker or thinner."""
        piece = replace(self.piece, thickness_mm=thickness_mm)
        return replace(self, body=body_of(piece), piece=piece)


def body_of(piece: Piece) -> Body:
    """The body that a piece bakes as."""
    high = piece.high_mm
    if piece.kind in ("rope", "ring"):
        return rope(piece.thickness_mm)
    if piece.kind == "dome":
        # A dome bakes like a drum of the same height that holds as much.
        return short_cylinder(piece.length_mm * np.sqrt(0.60 / (pi / 4)), high)
    if piece.kind in ("loaf", "tin"):
        rounding = 0.58 if piece.kind == "loaf" else 1.0
        side = np.sqrt(rounding)
        return brick(piece.length_mm * side, piece.width_mm * side, high)
    rim = piece.perimeter_mm / max(piece.area_cm2 * 100, 1e-9) * 1000
    # The rim counts where a piece is hardly wider than it is thick.
    counts = piece.length_mm < 8 * high
    return slab(high, rim if counts else 0.0)


def stages_of(formula: Formula, family: OvenFamily) -> tuple[BakeStage, ...]:
    """The stages of a document, else those that are usual."""
    if formula.bake.stages:
        return formula.bake.stages
    text = next(row.text("stages") for row in read_table("bake_plans.csv") if row.text("family") == family.id)
    return tuple(_usual(word) for word in text.split())


def _usual(word: str) -> BakeStage:
    kind, _, minutes = word.partition("=")
    return BakeStage(kind=kind, minutes=float(minutes) if minutes else None)


Ware = Literal["tray", "steel-tray", "tin", "stone", "cold-stone", "rack"]


def ware_of(formula: Formula, piece: Piece) -> Bakeware:
    """What it lies on: as told, else a tin for a tin loaf and a tray for all else.

    Raises:
        FormulaError: when there is no such ware.
    """
    key = formula.bake.ware or ("tin" if piece.kind == "tin" else "tray")
    if key not in bakeware():
        raise FormulaError(
            "unknown bakeware",
            got=key[:60],
            allowed=", ".join(bakeware()),
            remedy="choose one of these",
            field="bake.ware",
        )
    return bakeware()[key]


def bake_case(
    formula: Formula,
    batch: Batch,
    profile: OvenProfile,
    *,
    kind: str,
    piece: Piece,
    after: Baked,
    handling: HandlingForecast | None,
) -> BakeCase:
    """Everything a bake of this formula needs.

    Args:
        formula: the formula.
        batch: its weighed lines.
        profile: the oven.
        kind: of the dough.
        piece: one piece before the oven.
        after: what the oven leaves by the form's habit or the baker's wish.
        handling: gives the dough's temperature; None takes the room's.

    Raises:
        FormulaError: when its ware is unknown.
        OvenError: when it is nearly all water.
    """
    family = bake_family(kind, formula)
    matter = bake_matter(batch, batch.inside, psyllium_sorption(batch, family.sorption))
    wet = 100 * matter.water / (1 + matter.water)
    if wet > oven_number("wettest"):
        raise OvenError(
            "this is no dough to bake",
            got=f"{wet:.0f} % water",
            allowed=f"up to {oven_number('wettest'):g} %",
            remedy="check the weights of water and flours",
        )
    warm = handling.temperature_c if handling else constant("room_temperature")
    wish = formula.bake
    return BakeCase(
        family=family,
        piece=piece,
        body=body_of(piece),
        matter=matter,
        porosity=family.porosity,
        dough_c=warm if wish.dough_c is None else wish.dough_c,
        oven_c=oven_c(formula),
        offset_k=profile.offset_k,
        offset_sd=profile.offset_sd,
        fan=wish.fan,
        altitude_m=wish.altitude_m or profile.altitude_m,
        trays=wish.trays,
        ware=bakeware()["rack"] if is_fried(formula) else ware_of(formula, piece),
        fried=is_fried(formula),
        has_egg=any(w.role == "egg" and w.in_dough for w in batch.lines),
        stages=stages_of(formula, family),
        topping=_laid(batch, piece, family, ("topping",) if piece.layers > 1 else ("topping", "filling")),
        filling=_filling(batch, piece, family),
        wet_percent=_wet(batch) if piece.filling_mm else wet,
        loss_wanted=after.loss.value,
        moisture_wanted=after.moisture_percent if after.source != "habit" else loss_moisture(wet, after.loss.value),
        browning=family.browning.value * profile.browning,
    )


def loss_moisture(wet: float, loss: float) -> float:
    """Moisture after a loss, %; the inverse of ``loss_to``.

    >>> from substrata.batch.baked import loss_to
    >>> round(loss_to(46.0, loss_moisture(46.0, 0.28)), 3)
    0.28
    """
    return max(100 * (wet / 100 - loss) / (1 - loss), 0.0)


def _filling(batch: Batch, piece: Piece, family: OvenFamily) -> Topping | None:
    """What lies between the sheets of a pocket."""
    if not piece.filling_mm:
        return None
    rows = batch.apart("filling")
    return Topping(matter=bake_matter(batch, rows, family.sorption), thickness_mm=piece.filling_mm)


def _wet(batch: Batch) -> float:
    """Water of a filled piece, %: what the loss of its weight is counted from."""
    rows = np.maximum(batch.inside, batch.is_role("filling"))
    return 100 * float((batch.grams * batch.nutrient("water_g")[0]) @ rows) / float(batch.grams @ rows)


def _laid(batch: Batch, piece: Piece, family: OvenFamily, roles: tuple[str, ...]) -> Topping | None:
    rows = batch.apart(*roles)
    grams = float(batch.grams @ rows)
    if grams <= 0 or piece.area_cm2 <= 0:
        return None
    matter = bake_matter(batch, rows, family.sorption)
    bodies = max(batch.dough_g / piece.dough_g, 1e-9) if piece.dough_g else 1.0
    thickness = grams / bodies / (matter.density / 1000) / piece.area_cm2 * 10
    return Topping(matter=matter, thickness_mm=min(max(thickness, 0.3), 30.0))
