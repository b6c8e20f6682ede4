"""The piece: mass and density on one side, thickness and size on the other. Pull one, the rest answers.

``V = m / (ρ·(1 − porosity))`` with the true density of the parts (Choi & Okos 1986). One measure is held; the others follow:
a size is never typed freely.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from math import cbrt, pi, sqrt
from typing import Literal

from substrata.base.pan_table import Pan, pan_of
from substrata.base.roots import root
from substrata.base.tables.table_reader import constant, read_table
from substrata.formula.batch.batch_lines import FLESH, FRYING, Batch
from substrata.formula.form_table import form_of
from substrata.formula.formula import Formula
from substrata.process.rheology.cheese import runny_cheese_share
from substrata.process.rheology.leavening import dough_volume_per_gram
from substrata.process.rheology.phases import volumes_ml, whole_seeds

Kind = Literal["round", "cut", "rope", "dome", "tin", "loaf", "rect", "fold", "ring"]


@dataclass(frozen=True, kw_only=True)
class ShapeForm:
    """How one form is shaped, usually (common practice)."""

    kind: Kind
    porosity: float
    aspect: float  # length over width, or height over diameter
    size_mm: float  # usual size where the size is what a baker holds; 0 where it is the thickness
    growth_mm: float  # how much wider it gets in the oven
    growth_share: float
    trim: float  # of a rolled sheet that is cut off at first
    gap_mm: float  # between pieces on a tray
    lip_mm: float  # width of a raised rim
    layers: int  # sheets of dough in a piece
    seal_mm: float  # edge that stays free of filling
    usual_pan: str
    hole_mm: float  # of one that is shaped as a ring; 0 where none is made so
    thickness_tolerance: float  # 90 % half-range of rolling or pressing, as a share
    source: str


@cache
def shape_forms() -> dict[str, ShapeForm]:
    """All forms by id."""
    return {
        row.text("form"): ShapeForm(
            kind=row.text("kind"),  # type: ignore[arg-type]  # a test holds the table to the seven
            porosity=row.number_in("porosity", 0, 0.6),
            aspect=row.number_in("aspect", 0, 10),
            size_mm=row.number_in("size_mm", 0, 1000),
            growth_mm=row.number_in("growth_mm", -20, 100),
            growth_share=row.number_in("growth_share", -0.3, 1),
            trim=row.number_in("trim", 0, 0.5),
            gap_mm=row.number_in("gap_mm", 0, 100),
            lip_mm=row.number_in("lip_mm", 0, 50),
            layers=int(row.number_in("layers", 1, 4)),
            seal_mm=row.number_in("seal_mm", 0, 50),
            usual_pan=row.text("usual_pan"),
            hole_mm=row.number_in("hole_mm", 0, 100),
            thickness_tolerance=row.number_in("thickness_tolerance", 0, 1),
            source=row.text("source"),
        )
        for row in read_table("shapes.csv")
    }


@dataclass(frozen=True, kw_only=True)
class Piece:
    """One piece before the oven, and what it becomes."""

    kind: Kind
    held: str  # thickness, size or hole: what the baker holds
    dough_g: float  # of dough, a piece
    whole_g: float  # with what lies in and on it
    g_per_ml: float  # of the dough, with its pores
    volume_ml: float  # of the dough
    thickness_mm: (
        float  # of a sheet, diameter of a rope or of a ring's girth, height of a bun or loaf, fill height in a tin
    )
    length_mm: float  # diameter of a round one or a ring, length of a rope, side of a cut piece
    width_mm: float
    area_cm2: float  # seen from above
    perimeter_mm: float
    grown_length_mm: float
    grown_width_mm: float
    hole_mm: float  # of a ring; 0 for what has none
    grown_hole_mm: float
    fill_share: float  # of the height of its tin or ring; 0 outside one
    tolerance_g: float  # portions by hand: nine in ten within
    layers: int
    seal_mm: float
    filling_g: float  # between its sheets
    filling_mm: float  # how thick that lies inside the seal
    filling_most_g: float  # beyond it the upper sheet would have to stretch too far; 0 for a piece of one sheet

    @property
    def high_mm(self) -> float:
        """How high it lies: its sheets and what is between them."""
        return self.thickness_mm * self.layers + self.filling_mm

    @property
    def heats_as_mm(self) -> float:
        """Thickness of the sheet that heats through as late; a girth is reached from all around (first roots of cosine and J0)."""
        return self.high_mm * (pi / 2 / 2.4048 if self.kind in ("rope", "ring") else 1.0)

    @property
    def too_thick_to_fry(self) -> bool:
        """Whether it darkens in oil before its middle is done."""
        return self.heats_as_mm > constant("fried_most_mm")


def piece_of(batch: Batch, formula: Formula, kitchen_pans: tuple[Pan, ...] = ()) -> Piece:
    """Return the piece of a formula.

    Args:
        batch: the weighed lines.
        formula: gives form, pieces and what is held.
        kitchen_pans: the kitchen's own pans.

    Raises:
        FormulaError: when its pan is unknown.
    """
    form = shape_forms()[formula.form]
    # A loaf is baked whole and sliced: its pieces share one body.
    bodies = 1 if form.kind in ("tin", "loaf", "rect") else max(formula.pieces, 1)
    dough = batch.dough_g / bodies
    true_ml = float(batch.grams @ dough_volume_per_gram(batch)[0])
    density = batch.dough_g / true_ml * (1 - form.porosity) if true_ml else 1.0
    volume = max(dough / density * 1000, 1.0)  # mm3; a crumb where there is no dough yet
    outline = _outline(form, batch, formula, volume, kitchen_pans)
    return Piece(
        kind=outline.kind,
        held=outline.held,
        dough_g=dough,
        whole_g=sum(w.grams.value for w in batch.lines if w.role != FRYING) / bodies,
        g_per_ml=density,
        volume_ml=volume / 1000,
        thickness_mm=outline.thickness_mm,
        length_mm=outline.length_mm,
        width_mm=outline.width_mm,
        area_cm2=outline.area_mm2 / 100,
        perimeter_mm=outline.perimeter_mm,
        hole_mm=outline.hole_mm,
        fill_share=outline.fill_share,
        tolerance_g=max(0.03 * dough, 1.0),
        layers=form.layers,
        seal_mm=form.seal_mm,
        **_grown(outline, form),
        **_filling(form, batch, outline.length_mm, outline.width_mm, bodies),
    )


@dataclass(frozen=True, kw_only=True)
class _Outline:
    """Which shape a piece takes, and its measures, mm."""

    kind: Kind
    held: str
    thickness_mm: float
    length_mm: float
    width_mm: float
    hole_mm: float = 0.0
    fill_share: float = 0.0  # of the height of its pan

    @property
    def is_round(self) -> bool:
        return self.kind in ("round", "dome", "ring")

    @property
    def area_mm2(self) -> float:
        """What it covers."""
        if self.is_round:
            return pi / 4 * (self.length_mm**2 - self.hole_mm**2)
        return pi / 2 * self.width_mm**2 if self.kind == "fold" else self.length_mm * self.width_mm

    @property
    def perimeter_mm(self) -> float:
        """All around, with the edge of its hole."""
        if self.is_round:
            return pi * (self.length_mm + self.hole_mm)
        return (1 + pi / 2) * self.length_mm if self.kind == "fold" else 2 * (self.length_mm + self.width_mm)


def _outline(form: ShapeForm, batch: Batch, formula: Formula, volume: float, kitchen_pans: tuple[Pan, ...]) -> _Outline:
    """Return the outline of a piece of a volume in mm³: by its pan, as a ring, or by the measure that is held."""
    size = formula.size
    thick = size.thickness_mm or usual_thickness(batch, formula)
    held: str = size.held or ("size" if form.size_mm and form.kind != "cut" else "thickness")
    wide = size.length_mm or form.size_mm
    if form.kind == "tin" or (form.kind == "dome" and size.pan):
        # In a tin, or a bun in a ring: the pan gives the size and the dough its height.
        pan = pan_of(size.pan or form.usual_pan, kitchen_pans)
        high = volume / (pan.area_cm2 * 100 * pan.taper)
        return _Outline(
            kind="round" if pan.kind == "round" else "tin",
            held=held,
            thickness_mm=high,
            length_mm=pan.length_mm,
            width_mm=pan.width_mm,
            fill_share=high / pan.height_mm,
        )
    if form.hole_mm and size.hole_mm:
        held = size.held or "hole"
        girth, across, hole = _ring(volume, thick, wide, size.hole_mm, held)
        return _Outline(kind="ring", held=held, thickness_mm=girth, length_mm=across, width_mm=across, hole_mm=hole)
    # A bun keeps its habit of height over width unless one of them is held.
    free = 0.0 if form.kind == "dome" and not size.thickness_mm else thick
    high, length, width = _measures(form, volume, free, wide, held)
    return _Outline(kind=form.kind, held=held, thickness_mm=high, length_mm=length, width_mm=width)


def pressed_share(batch: Batch) -> float:
    """Return how much of a dough is squeezed vegetable, meat or fish, 0..1."""
    if not batch.dough_g:
        return 0.0
    return float((batch.grams * batch.inside) @ batch.is_role("vegetable", FLESH)) / batch.dough_g


def usual_thickness(batch: Batch, formula: Formula) -> float:
    """Return how thick a form is usually rolled, mm: thicker where seeds lie in it, thinner where sheets lie on one another."""
    form = shape_forms()[formula.form]
    usual = form_of(formula.form).thickness_mm
    if form.kind == "cut":
        usual += max(constant("seed_sheet_mm") - usual, 0.0) * min(whole_seeds(batch) / constant("all_seeds"), 1.0)
    if "crisp-sheet" in form_of(formula.form).traits:
        # A melt that no flour holds runs until its own surface tension stops it.
        runs = (runny_cheese_share(batch) - constant("lace_from")) / (constant("lace_full") - constant("lace_from"))
        usual += (constant("puddle_mm") - usual) * min(max(runs, 0.0), 1.0)
    if "pressed" in form_of(formula.form).traits:
        # What is wet and in pieces is pressed out by hand, not rolled.
        by_hand = min(pressed_share(batch) / constant("vegetable_dough"), 1.0)
        usual += max(constant("pressed_mm") - usual, 0.0) * by_hand
    # Its sheets and its filling are about equally thick.
    return usual / (form.layers + 1) if form.layers > 1 else usual


def _grown(outline: _Outline, form: ShapeForm) -> dict[str, float]:
    """Return what it measures when it is baked, mm: in a pan it does not spread, a ring grows by its girth, outwards and into its hole."""
    free = 0.0 if outline.fill_share else 1.0
    ring = outline.thickness_mm if outline.kind == "ring" else None
    long, wide = (free * side if ring is None else ring for side in (outline.length_mm, outline.width_mm))
    return {
        "grown_length_mm": outline.length_mm + long * form.growth_share + free * form.growth_mm,
        "grown_width_mm": outline.width_mm + wide * form.growth_share + free * form.growth_mm,
        "grown_hole_mm": max(outline.hole_mm - long * form.growth_share, 0.0) if outline.hole_mm else 0.0,
    }


def _ring(volume: float, thick: float, wide: float, hole: float, held: str) -> tuple[float, float, float]:
    """Girth's diameter, width and hole, mm, of a closed rope of a volume in mm³: ``π²/4·d²·(D - d)``, its centre a circle of D - d.

    Without a hole the girth can be no thicker than half the width: more than that is not held.

    Returns:
        Diameter, width and hole, mm.
    """
    v = 4 * volume / pi**2
    most = cbrt(v)  # the hole is closed
    if held == "size" and wide > 2 * most:
        d, across = root(lambda x: x * x * (wide - x) - v, 0.0, wide / 2), wide
    else:
        girths = {"thickness": min(thick, most), "size": most}
        d = girths[held] if held in girths else root(lambda x: x * x * (hole + x) - v, 0.0, most)
        across = v / (d * d) + d
    return d, across, max(across - 2 * d, 0.0)


def _filling(form: ShapeForm, batch: Batch, length: float, width: float, bodies: int) -> dict[str, float]:
    """Return what lies between the sheets of a piece, how thick, and how much of it they would cover.

    A sheet over a filling is an arc: w across and h high it is longer by 8/3·(h/w)².
    """
    if form.layers < 2:
        return {"filling_g": 0.0, "filling_mm": 0.0, "filling_most_g": 0.0}
    rows = batch.apart("filling")
    grams, ml = float(batch.grams @ rows) / bodies, float(sum(volumes_ml(batch)) @ rows) / bodies
    # A fold needs no seal along its back.
    across = max(width - form.seal_mm, 1.0) if form.kind == "fold" else max(width - 2 * form.seal_mm, 1.0)
    room = pi / 2 * across * across if form.kind == "fold" else max(length - 2 * form.seal_mm, 1.0) * across
    highest = across * sqrt(3 / 8 * constant("fold_stretch"))
    density = grams / ml if ml > 0 else 1.0
    return {"filling_g": grams, "filling_mm": ml * 1000 / room, "filling_most_g": room * highest / 1000 * density}


def _measures(form: ShapeForm, volume: float, thick: float, wide: float, held: str) -> tuple[float, float, float]:
    """Thickness, length and width, mm, of a volume in mm³: one is held, the others follow."""
    by_size = held == "size" and wide > 0
    if form.kind == "rope":
        d = sqrt(4 * volume / (pi * wide)) if by_size else thick
        return d, 4 * volume / (pi * d * d), d
    if form.kind == "dome":
        d = float((volume / (constant("dome_volume") * form.aspect)) ** (1 / 3))
        if by_size:
            d = wide
        elif thick:
            d = sqrt(volume / (constant("dome_volume") * thick))
        return volume / (constant("dome_volume") * d * d), d, d
    if form.kind == "fold":
        # One disc, folded in half.
        across = wide if by_size else sqrt(4 * volume / (pi * thick))
        return 4 * volume / (pi * across * across), across, across / 2
    flat = volume / form.layers
    if form.kind == "round":
        across = wide if by_size else _diameter(flat / thick, form.lip_mm)
        return (flat / _round_volume(wide, form.lip_mm) if by_size else thick), across, across
    # Cut pieces, loaves and filled breads: length over width by the form's habit.
    flat /= constant("loaf_volume") if form.kind == "loaf" else 1.0
    length = wide if by_size else sqrt(flat / thick * form.aspect)
    return flat * form.aspect / length**2, length, length / form.aspect


def _round_volume(diameter: float, lip: float) -> float:
    """Volume of a disc of 1 mm with a raised rim, mm³ per mm of thickness."""
    inner = max(diameter - 2 * lip, 0.0)
    floor_area, whole = pi / 4 * inner * inner, pi / 4 * diameter * diameter
    return floor_area + constant("rim_factor") * (whole - floor_area)


def _diameter(per_mm: float, lip: float) -> float:
    """Diameter whose disc with a rim has this volume per mm of thickness; by Newton."""
    d = sqrt(4 * per_mm / pi)
    for _ in range(30):
        off = _round_volume(d, lip) - per_mm
        slope = (_round_volume(d + 1e-3, lip) - _round_volume(d - 1e-3, lip)) / 2e-3
        step = off / slope
        d = max(d - step, 1e-6)
        if abs(step) < 1e-9 * d:
            break
    return d
