"""The piece of a dough, how pieces lie on trays, loads of the oven, and the same dough in other pans."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, pi

from substrata.base.messages.message import Capitalized, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.pan_table import Pan, pan_of, pans
from substrata.base.tables.table_reader import constant, whole_constant
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import Batch, LineProblem
from substrata.formula.batch.weighed_lines import is_fried
from substrata.formula.formula import Formula
from substrata.process.shaping.piece import Piece, ShapeForm, shape_forms
from substrata.process.shaping.tray_layout import TrayLayout, lay_circles, lay_rectangles

USUAL_TRAY = "half-sheet"


@dataclass(frozen=True, kw_only=True)
class OtherPan:
    """The same dough in another pan at the same thickness."""

    pan: str
    name: str
    factor: float  # of the whole formula
    dough_g: float  # that fills it to the same thickness
    thickness_mm: float  # that all of the present dough would have in it


@dataclass(frozen=True, kw_only=True)
class ShapePlan:
    """Everything the Shape station shows."""

    piece: Piece
    pieces: int
    bodies: int  # lumps of dough: a loaf is one and is sliced
    tray: Pan | None  # None for what is baked in a tin
    layout: TrayLayout | None
    on_last: int  # pieces on the last tray
    trays: int
    loads: int  # of an oven that takes two trays; 0 for what is fried
    fried: bool
    sheet_cm2: float  # rolled sheet that the pieces are cut from; 0 for what is not cut
    scraps_g: float  # of it that are rolled again
    rerolls: int
    docking_mm: float  # distance between dock holes; 0 where none are wanted
    gap_mm: float  # between pieces on a tray, as told or as is usual
    usual_hole_mm: float  # of one that is shaped as a ring; 0 where none is made so
    pan: str  # tin or ring it is baked in; "" for none
    rings: tuple[Pan, ...]  # round pans small enough for one piece; none for what is not baked in one
    size_word: Wording  # what its length is called: across, long
    thick_word: str  # and its thickness: thick, high
    pans: tuple[Pan, ...]
    others: tuple[OtherPan, ...]
    text: Wording
    notes: tuple[Wording, ...]
    problems: tuple[LineProblem, ...]


def plan_shape(dough: Dough) -> ShapePlan | None:
    """Return the piece, its trays and its loads. A pure function; None while there is no dough."""
    formula, batch, piece = dough.formula, dough.batch, dough.piece
    if batch.dough_g <= 0:
        return None
    kitchen_pans, fried = dough.settings.pans, is_fried(formula)
    form = shape_forms()[formula.form]
    bodies = 1 if form.kind in ("tin", "loaf", "rect") else formula.pieces
    tray = None if form.kind == "tin" else pan_of(formula.size.tray or USUAL_TRAY, kitchen_pans)
    gap = form.gap_mm if formula.size.gap_mm is None else formula.size.gap_mm
    layout = None if tray is None else lay_on(piece, tray, gap)
    a_tray = layout.count if layout else 1
    trays = ceil(bodies / a_tray) if a_tray else 0
    sheet, scraps, rerolls = _sheet(form, piece, batch, formula.pieces)
    return ShapePlan(
        piece=piece,
        pieces=formula.pieces,
        bodies=bodies,
        tray=tray,
        layout=layout,
        on_last=bodies - a_tray * (trays - 1) if trays else 0,
        trays=trays,
        loads=0 if fried else ceil(trays / 2),
        fried=fried,
        sheet_cm2=sheet,
        scraps_g=scraps,
        rerolls=rerolls,
        docking_mm=min(15.0, piece.length_mm / 3) if form.kind == "cut" else 0.0,
        gap_mm=gap,
        usual_hole_mm=form.hole_mm,
        pan=formula.size.pan or form.usual_pan,
        rings=_rings(form, kitchen_pans),
        size_word=_SIZE_WORDS.get(piece.kind, "long"),
        thick_word="high" if piece.kind in _STANDING else "thick",
        pans=(*kitchen_pans, *pans().values()),
        others=_others(form, piece, batch, kitchen_pans),
        text=_text(piece, formula, tray, trays, a_tray, bodies),
        notes=tuple(
            _notes(form, piece, formula, yeast=any(w.ingredient.parameter("yeast_rate").value for w in batch.lines))
        ),
        problems=dough.problems,
    )


def lay_on(piece: Piece, tray: Pan, gap_mm: float) -> TrayLayout:
    """How pieces lie on a tray, grown as they will be."""
    if piece.kind in ("round", "dome", "ring"):
        return lay_circles(tray.length_mm, tray.width_mm, piece.grown_length_mm, gap_mm)
    return lay_rectangles(tray.length_mm, tray.width_mm, piece.grown_length_mm, piece.grown_width_mm, gap_mm)


_SIZE_WORDS: dict[str, Wording] = {
    "round": "across",
    "dome": "across",
    "ring": "across",
    "cut": "side",
    "fold": Message("shape-forecast-along-the-fold"),
}
_STANDING = ("dome", "loaf", "tin")


def _rings(form: ShapeForm, kitchen_pans: tuple[Pan, ...]) -> tuple[Pan, ...]:
    if form.kind != "dome":
        return ()
    return tuple(
        p for p in (*kitchen_pans, *pans().values()) if p.kind == "round" and p.length_mm <= constant("largest_ring_mm")
    )


def _sheet(form: ShapeForm, piece: Piece, batch: Batch, pieces: int) -> tuple[float, float, int]:
    """Return the rolled area, the scraps after the first cutting, and how often they are rolled again."""
    if form.kind != "cut":
        return 0.0, 0.0, 0
    scraps = batch.dough_g * form.trim
    rerolls, remaining = 0, scraps
    while remaining > 0.5 * piece.dough_g and rerolls < whole_constant("most_rerolls"):
        remaining *= form.trim
        rerolls += 1
    return piece.area_cm2 * pieces, scraps, rerolls


def _others(form: ShapeForm, piece: Piece, batch: Batch, kitchen_pans: tuple[Pan, ...]) -> tuple[OtherPan, ...]:
    """Other pans for what is baked in a tin, or is one sheet as large as its pan."""
    if form.kind not in ("tin", "round", "rect") or piece.kind == "ring":
        return ()
    rows = []
    for pan in (*kitchen_pans, *pans().values()):
        fits = pan.kind == "tin" if form.kind == "tin" else pan.kind in ("round", "square", "tray")
        if not fits:
            continue
        area = pan.area_cm2 * pan.taper
        dough = area * piece.thickness_mm / 10 * piece.g_per_ml * piece.layers
        rows.append(
            OtherPan(
                pan=pan.id,
                name=pan.name,
                factor=dough / batch.dough_g,
                dough_g=dough,
                thickness_mm=piece.thickness_mm * batch.dough_g / dough,
            )
        )
    return tuple(rows)


def _text(piece: Piece, formula: Formula, tray: Pan | None, trays: int, a_tray: int, bodies: int) -> Wording:
    size = _size(piece)
    if tray is None:
        fill = Message("shape-forecast-fills-of-the-pan-s", fill_share=Quantity(100 * piece.fill_share, "%", digits=0))
        return Message(
            "shape-forecast-g-of-dough-mm-high",
            dough=Quantity(piece.dough_g, "g", digits=0),
            thickness=Quantity(piece.thickness_mm, "mm", digits=0),
            fill=fill,
            pieces=formula.pieces,
        )
    weight = (
        Message("shape-forecast-g", dough=Quantity(piece.dough_g, "g", digits=0))
        if piece.dough_g >= 20
        else Message("shape-forecast-g", dough=Quantity(piece.dough_g, "g", digits=1))
    )
    lying = (
        Message("shape-forecast-tray-of", trays=trays, a_tray=min(a_tray, bodies))
        if a_tray
        else Message("shape-forecast-too-large-for-the", tray_name=tray.name.lower())
    )
    return Message("shape-forecast-parts", bodies=bodies, weight=weight, size=size, lying=Capitalized(lying))


def _size(piece: Piece) -> Wording:
    if piece.kind == "rope":
        return Message(
            "shape-forecast-ropes-of-mm-mm-thick",
            length=Quantity(piece.length_mm, "mm", digits=0),
            thickness=Quantity(piece.thickness_mm, "mm", digits=0),
        )
    if piece.kind == "ring":
        return Message(
            "shape-forecast-mm-across-mm-thick-with",
            length=Quantity(piece.length_mm, "mm", digits=0),
            thickness=Quantity(piece.thickness_mm, "mm", digits=0),
            hole=Quantity(piece.hole_mm, "mm", digits=0),
        )
    if piece.kind == "fold":
        return Message(
            "shape-forecast-half-moons-of-mm-from",
            length=Quantity(piece.length_mm, "mm", digits=0, bare=True),
            width=Quantity(piece.width_mm, "mm", digits=0),
            thickness=Quantity(piece.thickness_mm, "mm"),
        )
    if piece.kind in ("round", "dome"):
        word = "high" if piece.kind == "dome" else "thick"
        return Message(
            "shape-forecast-mm-across-mm",
            length=Quantity(piece.length_mm, "mm", digits=0),
            thickness=Quantity(piece.thickness_mm, "mm"),
            word=word,
        )
    return Message(
        "shape-forecast-mm-mm-thick",
        length=Quantity(piece.length_mm, "mm", digits=0, bare=True),
        width=Quantity(piece.width_mm, "mm", digits=0),
        thickness=Quantity(piece.thickness_mm, "mm"),
    )


def _notes(form: ShapeForm, piece: Piece, formula: Formula, *, yeast: bool) -> list[Wording]:
    rows: list[Wording] = []
    if piece.fill_share > constant("fullest_tin"):
        rows.append(
            Message(
                "shape-forecast-use-a-larger-pan-above", constant=Quantity(100 * constant("fullest_tin"), "%", digits=0)
            )
        )
    if form.kind == "cut":
        rows.append(Message("shape-forecast-square-the-edges-with-the"))
    fried = is_fried(formula)
    heat = "oil" if fried else "oven"
    rows += _filling_notes(form, piece) + _ring_notes(piece, heat)
    if fried and piece.too_thick_to_fry:
        rows.append(Message("shape-forecast-make-it-thinner-at-this"))
    if piece.grown_length_mm != piece.length_mm:
        rows.append(
            Message(
                "shape-forecast-in-the-each-piece-to",
                heat=heat,
                grows="yes" if piece.grown_length_mm > piece.length_mm else "no",
                grown_length=Quantity(piece.grown_length_mm, "mm", digits=0),
            )
        )
    if form.kind == "rope":
        rows.append(Message("shape-forecast-a-rope-s-girth-is", pi=Quantity(pi * piece.thickness_mm, "mm", digits=0)))
        if yeast:
            proofed = piece.thickness_mm * (1 + constant("proof_growth")) ** 0.5
            rows.append(
                Message("shape-forecast-about-mm-thick-after-proofing", proofed=Quantity(proofed, "mm", digits=0))
            )
    return rows


def _filling_notes(form: ShapeForm, piece: Piece) -> list[Wording]:
    if form.layers < 2:
        return []
    lies = (
        Message(
            "shape-forecast-g-of-filling-makes-a",
            filling=Quantity(piece.filling_g, "g", digits=0),
            filling_2=Quantity(piece.filling_mm, "mm", digits=0),
        )
        if piece.filling_g
        else Message("shape-forecast-up-to-g-of-filling", filling_most=Quantity(piece.filling_most_g, "g", digits=0))
    )
    rows: list[Wording] = [
        Message("shape-forecast-leave-a-free-edge-of", lies=lies, seal=Quantity(form.seal_mm, "mm", digits=0))
    ]
    if piece.filling_g > piece.filling_most_g:
        rows.append(
            Message("shape-forecast-use-up-to-g-of", filling_most=Quantity(piece.filling_most_g, "g", digits=0))
        )
    return rows


def _ring_notes(piece: Piece, heat: str) -> list[Wording]:
    if piece.kind != "ring":
        return []
    rope = pi * (piece.length_mm - piece.thickness_mm)
    rows: list[Wording] = [Message("shape-forecast-roll-a-rope-of-mm", rope=Quantity(rope, "mm", digits=0))]
    if piece.grown_hole_mm < constant("least_hole_mm"):
        rows.append(
            Message(
                "shape-forecast-shape-a-wider-hole-in",
                heat=heat,
                grown_hole=Quantity(piece.grown_hole_mm, "mm", digits=0),
            )
        )
    return rows
