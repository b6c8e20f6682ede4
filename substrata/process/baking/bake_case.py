"""What is baked of a formula: its family, body, matter, surroundings and stages, all as numbers."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import exp, pi, sqrt
from typing import Literal

import numpy as np

from substrata.base.errors import FormulaError, OvenError
from substrata.base.tables.table_reader import constant
from substrata.formula.bake_settings import BakeStage, Heat
from substrata.formula.batch.baked_weight import Baked, oven_c
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.weighed_lines import is_fried
from substrata.formula.formula import Formula
from substrata.ingredients.library import Floats
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.baking.simulation.baked_material import (
    BakeMatter,
    bake_matter,
    dough_sorption,
    gel_water,
    gum_browning,
    held_water,
)
from substrata.process.baking.simulation.boiling_point import boiling_c
from substrata.process.baking.simulation.equivalent_body import Body, brick, rope, short_cylinder, slab
from substrata.process.baking.simulation.oven_constants import BakeForm, Bakeware, bake_forms, bakeware, oven_number
from substrata.process.baking.simulation.stage_simulation import Browning, Support, Surroundings
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.shaping.piece import Piece, shape_forms


@dataclass(frozen=True, kw_only=True)
class Topping:
    """What is laid on at the stage ``top``, or lies between two sheets."""

    matter: BakeMatter
    thickness_mm: float


@dataclass(frozen=True, kw_only=True)
class BakeCase:
    """One bake as numbers. ``replace`` makes the same bake with another oven, thickness or dough."""

    form: BakeForm
    piece: Piece
    body: Body
    matter: BakeMatter
    porosity: float
    dough_c: float
    heat: Heat
    offset_k: float  # of this oven over its dial
    offset_sd: float
    altitude_m: float
    trays: int
    ware: Bakeware
    fried: bool
    has_egg: bool
    stages: tuple[BakeStage, ...]
    topping: Topping | None
    filling: Topping | None
    wet_percent: float  # water of the dough, with its filling
    target_loss: float | None  # share, where the baker bakes to a dryness of their own
    loss_usual: float  # share, of the form's habit: until an early stage is turned
    wish: str  # soft, crisp, or "" for as usual
    vegetable: float  # share of the dough
    underside: float  # how much the underside's colour counts beside the top's, 0..1
    held: float  # share of water that flours, gels and egg hold: a wrap bends with it
    gel_water: float | None  # share of water at most in a psyllium crumb that is not gummy; None without psyllium
    gel_loss: float  # loss from which it counts as dry enough all the same
    browning: float  # factor
    pieces_m2: float  # of all pieces, seen from above
    h_factor: float = 1.0
    pipe_factor: float = 1.0

    @property
    def light(self) -> float:
        """Lightness of the raw dough."""
        return oven_number("dough_light")

    @property
    def load_m2(self) -> float:
        """What lies in the oven at once, seen from above: all pieces, as far as the trays hold them."""
        return min(self.pieces_m2, self.trays * oven_number("tray_area"))

    @property
    def brown(self) -> Browning:
        """How its faces brown; a face on a tray has no blisters."""
        beta = 0.0 if self.fried else oven_number("blister")
        return Browning(factor=self.browning, beta_top=beta, beta_bottom=0.5 * beta)

    @property
    def support(self) -> Support:
        """How it lies."""
        contact = 0.0 if self.fried else self.form.contact
        return Support(ware=self.ware, contact=contact, side_per_m=self.body.side_per_m)

    @property
    def gold_dose(self) -> float:
        """Loss of lightness, as a logarithm, at gold."""
        return oven_number("gold_dose")

    @property
    def wish_factor(self) -> float:
        """How much more or less than gold is wished for."""
        return oven_number(f"wish_{self.wish}") if self.wish else 1.0

    @property
    def topped(self) -> bool:
        """Whether something is laid on during the bake: then that decides."""
        return self.topping is not None and any(stage.kind == "top" for stage in self.stages)

    def moisture(self, loss: Floats) -> Floats:
        """Mean water after some losses, share of what is left; any shape."""
        wet = self.wet_percent / 100
        result: Floats = np.maximum((wet - loss) / np.maximum(1 - loss, 1e-6), 0.0)
        return result

    def lean_moisture(self, loss: Floats) -> Floats:
        """Mean water of what is not fat, share of it: crispness goes by the activity of the water, and fat takes none up."""
        moisture = self.moisture(loss)
        lean = (1 - moisture) * (1 - self.matter.fat)
        result: Floats = moisture / np.maximum(moisture + lean, 1e-9)
        return result

    def rim(self) -> BakeCase:
        """Its rim: thinner, and it gets more heat."""
        thin = self.with_thickness(self.piece.thickness_mm * oven_number("edge_thin"))
        return replace(thin, h_factor=self.h_factor * oven_number("edge_heat"))

    @property
    def pliable_water(self) -> float:
        """Mean water of a wrap that bends, share: a vegetable keeps more of it in its cells, and what is held beside it is not wet."""
        free = (oven_number("pliable_water") + oven_number("pliable_vegetable") * self.vegetable) / 100
        return max(free, self.held)

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
    def target_core_c(self) -> float:
        """Core temperature of a baked crumb: as far below the boil as at sea level (common practice)."""
        return oven_number("core_done") - (boiling_c(constant("standard_pressure")) - boiling_c(self.pressure_pa))

    @property
    def oven_c(self) -> float:
        """What stands on the dial, °C."""
        return self.heat.oven_c

    def surroundings(self, heat: Heat) -> Surroundings:
        """Return the surroundings at a setting of the dial."""
        if self.fried:
            return Surroundings(
                air_c=heat.oven_c,
                wall_c=heat.oven_c,
                h=oven_number("h_frying") * self.h_factor,
                emissivity=0.0,
                pressure_pa=self.pressure_pa,
                vapour_pa=0.0,
                frying=True,
            )
        air = heat.oven_c + self.offset_k
        crowd = oven_number("second_tray") if self.trays > 1 else 1.0
        h = oven_number("h_broil") if heat.broil else oven_number("h_fan") if heat.fan else oven_number("h_static")
        # Air that warms the load from above and below has to take the same heat up at the walls: two films in series.
        shared = 1 / (1 + 2 * self.load_m2 / oven_number("oven_walls"))
        # Re^1/2 and Gr^1/4 both go with the root of the air's density.
        crowd_h = shared * sqrt(self.pressure_pa / constant("standard_pressure"))
        return Surroundings(
            air_c=air,
            wall_c=air + (oven_number("broil_wall") if heat.broil else oven_number("wall_offset")),
            h=h * crowd_h * self.h_factor,
            emissivity=oven_number("emissivity") * crowd,
            pressure_pa=self.pressure_pa,
            vapour_pa=oven_number("oven_vapour"),
        )

    def with_thickness(self, thickness_mm: float) -> BakeCase:
        """Return the same dough, thicker or thinner."""
        piece = replace(self.piece, thickness_mm=thickness_mm)
        return replace(self, body=body_of(piece), piece=piece)


def body_of(piece: Piece) -> Body:
    """Return the body that a piece bakes as."""
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
    # The rim counts where a piece is hardly wider than it is thick, and less by degrees where it is wider.
    counts = min(
        max(
            (constant("rim_lost_from") - piece.length_mm / high)
            / (constant("rim_lost_from") - constant("rim_counts_up_to")),
            0.0,
        ),
        1.0,
    )
    return slab(high, rim * counts)


def stages_of(formula: Formula) -> tuple[BakeStage, ...]:
    """Return the stages of a document, else the usual ones of its form or of frying."""
    if formula.bake.stages:
        return formula.bake.stages
    kinds = _FRYING_STAGES if is_fried(formula) else bake_forms()[formula.form].stages
    return tuple(BakeStage(kind=kind) for kind in kinds)


_FRYING_STAGES = ("bake", "flip", "finish")


Ware = Literal["tray", "steel-tray", "tin", "stone", "cold-stone", "rack"]


def ware_of(formula: Formula, piece: Piece) -> Bakeware:
    """Return what it lies on: as told, else a tin for a tin loaf and a tray for all else.

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


def _not_endless(formula: Formula) -> None:
    total = sum(stage.minutes or 0.0 for stage in formula.bake.stages)
    if total > constant("longest_bake_min"):
        raise OvenError(
            "the bake is too long to be followed",
            got=f"{total:.0f} min in {len(formula.bake.stages)} stages",
            allowed=f"up to {constant('longest_bake_min'):.0f} min together",
            remedy="shorten its stages",
        )


def bake_case(
    formula: Formula,
    batch: Batch,
    profile: OvenProfile,
    *,
    piece: Piece,
    after: Baked,
    handling: HandlingForecast | None,
) -> BakeCase:
    """Everything a bake of this formula needs.

    Args:
        formula: the formula.
        batch: its weighed lines.
        profile: the oven.
        piece: one piece before the oven.
        after: what the oven leaves by the form's habit or the baker's wish.
        handling: gives the dough's temperature; None takes the room's.

    Returns:
        The case.

    Raises:
        FormulaError: when its ware is unknown.
        OvenError: when it is nearly all water or holds none, or its pieces are beyond anything that was tried.
    """
    _not_endless(formula)
    sorption = dough_sorption(batch)
    matter = bake_matter(batch, batch.inside, sorption)
    wet = 100 * matter.water / (1 + matter.water)
    if wet > oven_number("wettest"):
        raise OvenError(
            "this is no dough to bake",
            got=f"{wet:.0f} % water",
            allowed=f"up to {oven_number('wettest'):g} %",
            remedy="check the weights of water and flours",
        )
    _within_what_is_known(matter, piece)
    warm = handling.shaped_c if handling else constant("room_temperature")
    wish = formula.bake
    oven = OvenProfile(altitude_m=profile.altitude_m) if is_fried(formula) else profile
    case = BakeCase(
        form=bake_forms()[formula.form],
        piece=piece,
        body=body_of(piece),
        matter=matter,
        porosity=shape_forms()[formula.form].porosity,
        dough_c=warm if wish.dough_c is None else wish.dough_c,
        heat=Heat(oven_c=oven_c(formula), fan=wish.fan),
        offset_k=oven.offset_k,
        offset_sd=oven.offset_sd,
        h_factor=oven.convection,
        altitude_m=wish.altitude_m or profile.altitude_m,
        trays=wish.trays,
        ware=bakeware()["rack"] if is_fried(formula) else ware_of(formula, piece),
        fried=is_fried(formula),
        has_egg=any(w.role == "egg" and w.in_dough for w in batch.lines),
        stages=stages_of(formula),
        topping=_toppings(batch, piece, sorption, ("topping",) if piece.layers > 1 else ("topping", "filling")),
        filling=_filling(batch, piece, sorption),
        wet_percent=_wet(batch) if piece.filling_mm else wet,
        target_loss=after.loss.value if after.source == "set" else None,
        loss_usual=after.loss.value,
        wish=wish.doneness,
        vegetable=_vegetable(batch),
        underside=_underside(_vegetable(batch)),
        held=held_water(batch),
        gel_water=_gel_water(batch, piece, wet / 100),
        gel_loss=oven_number("gel_crust")
        * piece.area_cm2
        / 1e4
        / (max(piece.dough_g, oven_number("smallest_piece")) / 1000),
        pieces_m2=piece.area_cm2 / 1e4 * (batch.dough_g / piece.dough_g if piece.dough_g else 1.0),
        browning=oven_number("browning")
        * gum_browning(batch)
        * oven.browning
        * (oven_number("oil_browning") if is_fried(formula) else 1.0),
    )
    return case if oven.thickness == 1.0 else case.with_thickness(piece.thickness_mm * oven.thickness)


def _gel_water(batch: Batch, piece: Piece, wet: float) -> float | None:
    """Return the most water of the whole piece at which its crumb is not gummy: a filling keeps its own."""
    crumb = gel_water(batch, wet)
    if crumb is None or not piece.filling_mm:
        return crumb
    inside = batch.grams * batch.inside
    filling = batch.grams * batch.apart("filling")
    water = batch.nutrient("water_g")[0]
    dry = float(inside.sum()) * (1 - wet)
    retained = dry * crumb / (1 - crumb) + float(filling @ water)
    return retained / (retained + dry + float(filling @ (1 - water)))


def _within_what_is_known(matter: BakeMatter, piece: Piece) -> None:
    """Refuse what no forecast stands for: a crumb of a milligram, a column that would fall over, a mass that no oven holds."""
    if matter.water < oven_number("driest_dough"):
        raise OvenError(
            "cannot be said: nothing here bakes",
            got="no water",
            allowed="a dough with some water in it",
            remedy="add an egg, water or cheese",
        )
    least, most = oven_number("smallest_piece"), oven_number("largest_piece")
    if not least <= piece.dough_g <= most:
        raise OvenError(
            f"cannot be said: no bake of so {'small' if piece.dough_g < least else 'large'} a piece is known",
            got=f"{piece.dough_g:.3g} g",
            allowed=f"{least:g} g to {most / 1000:g} kg a piece",
            remedy="check weights and pieces",
            field="form.pieces",
        )
    thinnest, wide = oven_number("thinnest_piece"), min(piece.length_mm, piece.width_mm)
    high = piece.high_mm if piece.kind not in ("rope", "ring") else wide
    if piece.thickness_mm < thinnest or high > oven_number("slenderest") * wide:
        raise OvenError(
            "cannot be said: no piece of this shape stands in an oven",
            got=f"{piece.thickness_mm:.3g} mm high, {wide:.3g} mm wide",
            allowed=f"from {thinnest:g} mm, and no more than {oven_number('slenderest'):g} times as high as wide",
            remedy="change thickness or pieces on the Shape station",
            field="form.size",
        )


def _vegetable(batch: Batch) -> float:
    return float(batch.grams @ (batch.is_role("vegetable") * batch.inside)) / batch.dough_g


def _underside(vegetable: float) -> float:
    """How much the underside's colour counts: not without vegetable, half where the dough is vegetable."""
    return 0.5 * (1 - exp(-((vegetable / oven_number("vegetable_share")) ** 2)))


def _filling(batch: Batch, piece: Piece, sorption: float) -> Topping | None:
    """Return what lies between the sheets of a pocket."""
    if not piece.filling_mm:
        return None
    rows = batch.apart("filling")
    return Topping(matter=bake_matter(batch, rows, sorption), thickness_mm=piece.filling_mm)


def _wet(batch: Batch) -> float:
    """Water of a filled piece, %: what the loss of its weight is counted from."""
    rows = np.maximum(batch.inside, batch.is_role("filling"))
    return 100 * float((batch.grams * batch.nutrient("water_g")[0]) @ rows) / float(batch.grams @ rows)


def _toppings(batch: Batch, piece: Piece, sorption: float, roles: tuple[str, ...]) -> Topping | None:
    rows = batch.apart(*roles)
    grams = float(batch.grams @ rows)
    if grams <= 0 or piece.area_cm2 <= 0:
        return None
    matter = bake_matter(batch, rows, sorption)
    bodies = max(batch.dough_g / piece.dough_g, 1e-9) if piece.dough_g else 1.0
    thickness = grams / bodies / (matter.density / 1000) / piece.area_cm2 * 10
    return Topping(matter=matter, thickness_mm=min(max(thickness, 0.3), 30.0))
