"""What is baked of a formula: its family, body, matter, surroundings and stages, all as numbers."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import exp, pi, sqrt
from typing import Literal

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.formula.bake_settings import BakeStage, Heat
from substrata.ingredients.library import Floats
from substrata.process.baking.simulation.baked_material import (
    BakeMatter,
)
from substrata.process.baking.simulation.boiling_point import boiling_c
from substrata.process.baking.simulation.equivalent_body import Body, brick, rope, short_cylinder, slab
from substrata.process.baking.simulation.oven_constants import BakeForm, Bakeware, oven_number
from substrata.process.baking.simulation.stage_simulation import Browning, Support, Surroundings
from substrata.process.shaping.piece import Piece

SafeFor = Literal["", "egg", "filling", "poultry", "meat", "fish"]


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
    safe_for: SafeFor  # what asks for a safe middle: of several, what asks for the hottest
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


Ware = Literal["tray", "steel-tray", "tin", "stone", "cold-stone", "rack"]
