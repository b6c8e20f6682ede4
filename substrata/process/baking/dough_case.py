"""The bake case of a dough: what its lines, its piece and its wish come to in the oven."""

from __future__ import annotations

from math import exp

import numpy as np

from substrata.base.errors import FormulaError, OvenError
from substrata.base.tables.table_reader import constant
from substrata.formula.bake_settings import BakeStage, Heat
from substrata.formula.batch.baked_weight import Baked, oven_c
from substrata.formula.batch.batch_lines import Batch
from substrata.formula.batch.weighed_lines import is_fried
from substrata.formula.formula import Formula
from substrata.process.baking.bake_case import BakeCase, SafeFor, Topping, body_of
from substrata.process.baking.oven_profile import OvenProfile
from substrata.process.baking.simulation.baked_material import (
    BakeMatter,
    alkali_browning,
    bake_matter,
    dough_sorption,
    gel_water,
    gum_browning,
    held_water,
    sugar_browning,
)
from substrata.process.baking.simulation.oven_constants import Bakeware, bake_forms, bakeware, oven_number
from substrata.process.rheology.handling.handling_forecast import HandlingForecast
from substrata.process.shaping.piece import Piece, shape_forms


def stages_of(formula: Formula) -> tuple[BakeStage, ...]:
    """Return the stages of a document, else the usual ones of its form or of frying."""
    if formula.bake.stages:
        return formula.bake.stages
    kinds = _FRYING_STAGES if is_fried(formula) else bake_forms()[formula.form].stages
    return tuple(BakeStage(kind=kind) for kind in kinds)


_FRYING_STAGES = ("bake", "flip", "finish")


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
            "the bake is too long to simulate",
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
            "this mixture cannot be baked as a dough",
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
        safe_for=_safe_for(batch, piece),
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
        * sugar_browning(batch)
        * alkali_browning(batch)
        * oven.browning
        * (oven_number("oil_browning") if is_fried(formula) else 1.0),
    )
    return case if oven.thickness == 1.0 else case.with_thickness(piece.thickness_mm * oven.thickness)


_RAW: dict[str, SafeFor] = {"raw-poultry": "poultry", "raw-meat": "meat", "raw-fish": "fish"}


def _safe_for(batch: Batch, piece: Piece) -> SafeFor:
    """Return what asks for the hottest middle: a filling, raw meat or fish, an egg; "" when nothing does."""
    inside = [w for w in batch.lines if w.in_dough]
    asking: list[SafeFor] = ["filling"] if piece.filling_mm else []
    asking += [kind for flag, kind in _RAW.items() if any(flag in w.ingredient.flags for w in inside)]
    asking += ["egg"] if any(w.role == "egg" for w in inside) else []
    return max(asking, key=lambda kind: constant(f"{kind}_safe_c"), default="")


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
            "no forecast: nothing to bake",
            got="no water",
            allowed="a dough with some water in it",
            remedy="add an egg, water or cheese",
        )
    least, most = oven_number("smallest_piece"), oven_number("largest_piece")
    if not least <= piece.dough_g <= most:
        raise OvenError(
            f"no forecast: the piece is too {'small' if piece.dough_g < least else 'large'}",
            got=f"{piece.dough_g:.3g} g",
            allowed=f"{least:g} g to {most / 1000:g} kg a piece",
            remedy="check weights and pieces",
            field="form.pieces",
        )
    thinnest, wide = oven_number("thinnest_piece"), min(piece.length_mm, piece.width_mm)
    high = piece.high_mm if piece.kind not in ("rope", "ring") else wide
    if piece.thickness_mm < thinnest or high > oven_number("slenderest") * wide:
        raise OvenError(
            "no forecast: this shape does not fit in an oven",
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
