"""Pieces and trays: volume is conserved, one measure is held, and packing is known for small cases."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata import Dough, Settings, load_library, read_document, shape
from substrata.base.errors import FormulaError
from substrata.base.pan_table import Pan, pans
from substrata.base.tables.table_reader import constant
from substrata.formula.batch.weighed_lines import weigh_formula
from substrata.formula.form_table import forms
from substrata.process.shaping.piece import piece_of, shape_forms
from substrata.process.shaping.tray_layout import lay_circles, lay_rectangles
from tests.support.doughs import document

LIBRARY = load_library()
DOUGH = {"almond_flour": 200, "egg": 100, "mozzarella": 100, "psyllium_powder": 10, "water": 60}


def formula(form="thin-crust", pieces=6, size=None):
    made = document(form, pieces, **DOUGH)
    made["form"]["size"] = size or {}
    return read_document(made)


def piece(form="thin-crust", pieces=6, size=None):
    made = formula(form, pieces, size)
    return piece_of(weigh_formula(made, LIBRARY, Settings())[0], made)


def volume_mm3(form, p):
    """Volume of the drawn body by the geometry of a school book."""
    t, a, b = p.thickness_mm, p.length_mm, p.width_mm
    if p.kind in ("rope", "fold"):
        return pi / 4 * t * a * (t if p.kind == "rope" else a)  # a fold was a disc
    if p.kind == "dome":
        return constant("dome_volume") * a * a * t
    if p.kind == "loaf":
        return constant("loaf_volume") * a * b * t
    if p.kind == "tin":
        pan = pans()[shape_forms()[form].usual_pan]
        return pan.area_cm2 * 100 * pan.taper * t
    if p.kind == "round":
        lip = shape_forms()[form].lip_mm
        rim = pi / 4 * (a * a - max(a - 2 * lip, 0) ** 2)
        return p.layers * t * (pi / 4 * a * a + (constant("rim_factor") - 1) * rim)
    return p.layers * t * a * b


@pytest.mark.parametrize("form", list(forms()))
@pytest.mark.parametrize("size", [{}, {"held": "thickness", "thickness_mm": 9.0}, {"held": "size", "length_mm": 90.0}])
def test_the_piece_holds_its_dough_whatever_is_held(form, size):
    found = piece(form, 5, size)
    assert volume_mm3(form, found) == pytest.approx(1000 * found.volume_ml, rel=1e-6)
    assert found.volume_ml * found.g_per_ml == pytest.approx(found.dough_g)
    if size and found.kind != "tin":
        held = found.thickness_mm if size["held"] == "thickness" else found.length_mm
        assert held == pytest.approx(size.get("thickness_mm") or size["length_mm"])


@pytest.mark.parametrize("form", ["thin-crust", "cracker", "rope", "cookie", "doughnut", "wrap", "pocket"])
def test_thicker_is_smaller_and_more_pieces_are_smaller(form):
    thin, thick = (piece(form, 6, {"held": "thickness", "thickness_mm": mm}) for mm in (4.0, 8.0))
    assert thick.length_mm < thin.length_mm
    assert piece(form, 12).dough_g == pytest.approx(piece(form, 6).dough_g / 2)


def test_the_density_of_a_dough_is_between_its_parts():
    """Choi & Okos: fat .92, water 1.0, solids 1.3 to 1.6 g/mL; a twelfth of it is pores."""
    assert 0.85 < piece().g_per_ml < 1.15


@pytest.mark.parametrize(
    ("width", "height", "d", "count"),
    [(100, 100, 100, 1), (200, 100, 100, 2), (200, 200, 100, 4), (100, 99, 100, 0), (300, 273.3, 100, 8), (400, 100, 100, 4), (250, 186.7, 100, 4)],
)  # fmt: skip
def test_circles_pack_as_is_known(width, height, d, count):
    """Rows or hexagons: two rows of three take 1 + √3/2 diameters of height; three staggered rows hold 3 + 2 + 3."""
    assert lay_circles(width, height, d, 0).count == count


@given(st.floats(50, 600), st.floats(50, 600), st.floats(10, 200), st.floats(0, 30))
def test_laid_circles_neither_overlap_nor_leave_the_tray(width, height, d, gap):
    places = lay_circles(width, height, d, gap).places
    for n, a in enumerate(places):
        assert d / 2 - 1e-6 <= a.x_mm <= width - d / 2 + 1e-6
        assert d / 2 - 1e-6 <= a.y_mm <= height - d / 2 + 1e-6
        for b in places[n + 1 :]:
            assert (a.x_mm - b.x_mm) ** 2 + (a.y_mm - b.y_mm) ** 2 >= (d + gap - 1e-6) ** 2


@given(st.floats(50, 600), st.floats(50, 600), st.floats(10, 200), st.floats(10, 200), st.floats(0, 30))
def test_laid_rectangles_neither_overlap_nor_leave_the_tray(width, height, a, b, gap):
    places = lay_rectangles(width, height, a, b, gap).places
    for n, p in enumerate(places):
        assert p.x_mm - p.width_mm / 2 >= -1e-6 <= p.y_mm - p.height_mm / 2
        assert p.x_mm + p.width_mm / 2 <= width + 1e-6
        assert p.y_mm + p.height_mm / 2 <= height + 1e-6
        for q in places[n + 1 :]:
            apart = abs(p.x_mm - q.x_mm) >= (p.width_mm + q.width_mm) / 2 - 1e-6
            assert apart or abs(p.y_mm - q.y_mm) >= (p.height_mm + q.height_mm) / 2 - 1e-6


def test_turned_rectangles_fill_what_upright_ones_leave():
    """5 × 3 in 8 × 11: three of one way, and two turned beside them, where either way alone holds four at most."""
    assert lay_rectangles(80, 110, 50, 30, 0).count == 5
    assert lay_rectangles(100, 30, 50, 30, 0).count == 2


def test_the_plan_counts_trays_and_loads_and_names_other_pans():
    plan = shape(Dough(formula("thin-crust", 7, {"held": "size", "length_mm": 130}), LIBRARY))
    assert plan.trays * plan.layout.count >= 7 > (plan.trays - 1) * plan.layout.count
    assert plan.on_last == 7 - (plan.trays - 1) * plan.layout.count
    nine = next(o for o in plan.others if o.pan == "round-9in")
    assert nine.factor == pytest.approx(nine.dough_g / weigh_formula(formula(), LIBRARY, Settings())[0].dough_g)
    assert nine.thickness_mm * nine.factor == pytest.approx(plan.piece.thickness_mm)


def test_a_tin_says_when_it_is_too_full_and_an_own_pan_counts():
    assert (
        any("overflow" in note for note in shape(Dough(formula("tin-loaf", 10, {"pan": "tin-900"}), LIBRARY)).notes)
        is False
    )
    own = Pan(
        id="own-small",
        name="Small",
        kind="tin",
        region="",
        length_mm=120,
        width_mm=70,
        height_mm=50,
        taper=0.93,
        source="own",
    )
    plan = shape(Dough(formula("tin-loaf", 10, {"pan": "own-small"}), LIBRARY, Settings(pans=(own,))))
    assert plan.piece.fill_share > 0.72
    assert any("overflow" in note for note in plan.notes)
    with pytest.raises(FormulaError) as refusal:
        shape(Dough(formula("tin-loaf", 10, {"pan": "bucket"}), LIBRARY))
    assert refusal.value.field == "size.pan"


def test_a_bun_in_a_ring_takes_the_rings_size_and_does_not_spread():
    free, ringed = piece("bun", 6), piece("bun", 6, {"pan": "ring-90"})
    assert (ringed.length_mm, ringed.kind) == (90, "round")
    assert ringed.thickness_mm * pi / 4 * 90**2 == pytest.approx(1000 * ringed.volume_ml)
    assert ringed.grown_length_mm == ringed.length_mm
    assert free.grown_length_mm > free.length_mm
    assert ringed.fill_share == pytest.approx(ringed.thickness_mm / 35)


def test_a_yeasted_rope_is_told_thicker_after_proofing():
    made = document("rope", 6, **DOUGH, dry_yeast=4)
    notes = shape(Dough(read_document(made), LIBRARY)).notes
    assert any("About 22 mm thick after proofing" in note for note in notes)  # 20 mm and a quarter more volume
    assert not any("proofing" in note for note in shape(Dough(formula("rope"), LIBRARY)).notes)


def test_trade_sizes_hold_what_they_say():
    """A tin of 900 mL, and 9 × 13 in being close to two 8 in squares."""
    assert pans()["tin-900"].volume_ml == pytest.approx(900, rel=0.06)
    assert pans()["pan-9x13"].area_cm2 == pytest.approx(2 * pans()["square-8in"].area_cm2, rel=0.12)


@pytest.mark.parametrize("form", ["pocket", "filled-bread"])
def test_a_filling_lies_inside_the_seal_and_too_much_of_it_is_told(form):
    """The volume of the filling is the area inside the free edge by its height: a half disc, or a rectangle."""

    def filled(grams):
        made = document(form, 4, **DOUGH)
        made["lines"].append({"id": "f", "ingredient": "cream-cheese", "grams": grams, "role": "filling"})
        read = read_document(made)
        return piece_of(weigh_formula(read, LIBRARY, Settings())[0], read), shape(Dough(read, LIBRARY)).notes

    little, notes = filled(40)
    seal, a, b = little.seal_mm, little.length_mm, little.width_mm
    room = pi / 2 * (a / 2 - seal) ** 2 if form == "pocket" else (a - 2 * seal) * (b - 2 * seal)
    assert little.filling_g / (room * little.filling_mm / 1000) == pytest.approx(1.0, abs=0.08)  # g/mL of cream cheese
    assert not any("tears" in note for note in notes)
    much, notes = filled(1500)
    assert (much.length_mm, much.dough_g) == pytest.approx((little.length_mm, little.dough_g))
    assert any("tears" in note for note in notes)


@pytest.mark.parametrize("form", ["bun", "doughnut"])
@pytest.mark.parametrize(
    "size",
    [
        {"hole_mm": 30.0},
        {"hole_mm": 30.0, "held": "thickness", "thickness_mm": 22.0},
        {"hole_mm": 30.0, "held": "size", "length_mm": 110.0},
    ],
    ids=["hole", "girth", "size"],
)
def test_a_ring_is_a_torus_that_holds_its_dough(form, size):
    """Pappus: the area of the girth's section by the way of its centre."""
    found = piece(form, 6, size)
    assert found.kind == "ring"
    d, across = found.thickness_mm, found.length_mm
    assert pi / 4 * d * d * pi * (across - d) == pytest.approx(1000 * found.volume_ml, rel=1e-6)
    assert found.hole_mm == pytest.approx(across - 2 * d)
    held = {"hole": found.hole_mm, "thickness": d, "size": across}[found.held]
    assert held == pytest.approx(size.get("length_mm") or size.get("thickness_mm") or size["hole_mm"])
    assert found.area_cm2 == pytest.approx(pi / 400 * (across**2 - found.hole_mm**2))
    assert found.grown_hole_mm < found.hole_mm
    assert found.grown_length_mm > across


def test_a_wider_hole_makes_a_thinner_and_larger_ring():
    narrow, wide = (piece("bun", 6, {"hole_mm": mm}) for mm in (20.0, 50.0))
    assert wide.thickness_mm < narrow.thickness_mm
    assert wide.length_mm > narrow.length_mm
    assert wide.dough_g == narrow.dough_g


@pytest.mark.parametrize("size", [{"held": "thickness", "thickness_mm": 150.0}, {"held": "size", "length_mm": 20.0}])
def test_a_ring_that_cannot_be_is_closed(size):
    """Where the girth fills the width: the volume still is the dough's."""
    found = piece("bun", 6, {"hole_mm": 30.0} | size)
    assert found.hole_mm == pytest.approx(0, abs=1e-6)
    assert found.length_mm == pytest.approx(2 * found.thickness_mm)
    assert pi**2 / 4 * found.thickness_mm**3 == pytest.approx(1000 * found.volume_ml)


def test_rings_lie_as_circles_and_a_hole_that_closes_is_told():
    plan = shape(Dough(formula("bun", 6, {"hole_mm": 30.0}), LIBRARY))
    assert all(p.width_mm == p.height_mm == plan.piece.grown_length_mm for p in plan.layout.places)
    assert "with a hole of 30 mm" in plan.text
    assert any(f"a rope of {pi * (plan.piece.length_mm - plan.piece.thickness_mm):.0f} mm" in n for n in plan.notes)
    assert not any("and closes" in note for note in plan.notes)
    closing = shape(Dough(formula("bun", 6, {"hole_mm": 8.0}), LIBRARY))
    assert any("and closes" in note for note in closing.notes)
    assert not closing.others


@pytest.mark.parametrize("form", ["cookie", "thin-crust", "rope"])
def test_only_buns_and_doughnuts_have_holes(form):
    assert piece(form, 6, {"hole_mm": 30.0}) == piece(form, 6)


def test_a_girth_may_be_thicker_in_the_oil_than_a_sheet():
    """First roots: half pi of a sheet's half, 2.405 of a girth's half (any text on conduction): a girth may be half as thick again."""
    thick = {"held": "thickness", "thickness_mm": 20.0}
    disc, ring, fat = (
        piece("doughnut", 6, size)
        for size in (thick, {"hole_mm": 25.0} | thick, {"hole_mm": 25.0, "held": "thickness", "thickness_mm": 26.0})
    )
    assert (disc.too_thick_to_fry, ring.too_thick_to_fry, fat.too_thick_to_fry) == (True, False, True)
    assert ring.heats_as_mm * 2.4048 == pytest.approx(20.0 * pi / 2)
    plan = shape(Dough(formula("doughnut", 6, thick), LIBRARY))
    assert any("darkens in the oil" in note for note in plan.notes)
    assert any(str(note).startswith("In the oil, each piece spreads to about") for note in plan.notes)
    assert (plan.fried, plan.loads) == (True, 0)
    assert shape(Dough(formula("bun", 6), LIBRARY)).loads == 1
