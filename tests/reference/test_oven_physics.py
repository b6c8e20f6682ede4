"""The oven's equations against series solutions, an independent integrator, steam tables, closure and signs."""

from dataclasses import replace
from itertools import pairwise
from math import cos, exp, log, pi, sin, tan

import numpy as np
import pytest
from iapws import IAPWS97
from scipy.integrate import solve_ivp
from scipy.optimize import brentq
from scipy.special import j0, j1

from substrata.base.errors import OvenError
from substrata.process.baking.simulation import bake_equations as equations
from substrata.process.baking.simulation import cell_properties as properties
from substrata.process.baking.simulation.baked_material import BakeMatter
from substrata.process.baking.simulation.boiling_point import boiling_c
from substrata.process.baking.simulation.dough_column import column, fill, flip, top
from substrata.process.baking.simulation.equivalent_body import (
    ball,
    brick,
    first_eigenvalue,
    rope,
    short_cylinder,
    slab,
)
from substrata.process.baking.simulation.oven_constants import bakeware, oven_number
from substrata.process.baking.simulation.stage_simulation import (
    Browning,
    Steps,
    Support,
    Surroundings,
    _around,
    bake_stage,
)

# A stiff, dry solid that neither boils nor conducts better when warm: pure conduction. k_s stands for the whole.
SOLID = BakeMatter(water=1e-6, fat=0.0, c_s=1800.0, k_s=0.3, v_s=1 / 1200, density=1200.0, sorption=0.12)
DOUGH = BakeMatter(water=0.6, fat=0.35, c_s=1850.0, k_s=0.19, v_s=1 / 1250, density=1150.0, sorption=0.08)
FREE = Support(ware=bakeware()["rack"], contact=0.0)
ON_TRAY = Support(ware=bakeware()["tray"], contact=1.0)
PALE = Browning(factor=4.5, beta_top=0.0, beta_bottom=0.0)
FINE = Steps(tolerance=0.02, most_s=2.0)


def air(celsius, h, *, emissivity=0.0):
    return Surroundings(air_c=celsius, wall_c=celsius, h=h, emissivity=emissivity, pressure_pa=101325.0, vapour_pa=0.0)


def fresh(matter=DOUGH, body=None, **said):
    usual = {"porosity": 0.1, "start_c": 20.0, "ware_c": 20.0, "light": 82.0}
    return column(matter, body or slab(6), **usual | said)


@pytest.mark.parametrize("degrees", [20, 60, 100, 150, 200])
def test_saturation_pressure_is_the_steam_tables(degrees):
    """IAPWS-IF97 by a registry library."""
    assert properties.saturation_pressure(float(degrees)) == pytest.approx(
        IAPWS97(T=degrees + 273.15, x=0).P * 1e6, rel=1e-6
    )


@pytest.mark.parametrize("degrees", [2.5, 37.2, 96.6, 131.4, 218.9])
def test_the_table_of_what_is_warm_is_the_formulas(degrees):
    """Between the whole degrees it was made at; pressure and its slope by a registry library."""
    like = np.zeros((1, properties.N_LIKE))
    properties.warm_properties(degrees, 0, like)

    def pressure(t):
        return IAPWS97(T=t + 273.15, x=0).P * 1e6

    assert like[0, properties.P_S] == pytest.approx(pressure(degrees), rel=1e-6)
    slope = (pressure(degrees + 0.01) - pressure(degrees - 0.01)) / 0.02
    assert like[0, properties.P_S_SLOPE] == pytest.approx(slope, rel=1e-4)
    assert like[0, properties.D_VA] == pytest.approx(2.6e-5 * ((degrees + 273.15) / 298) ** 1.75, rel=1e-7)
    arrhenius = 3e-11 * exp(-3608 * (1 / (degrees + 273.15) - 1 / 353.15))
    assert like[0, properties.D_L] == pytest.approx(arrhenius, rel=1e-6)


@pytest.mark.parametrize(
    ("degrees", "held"), [(-40.0, 0.0), (0.0, 0.0), (420.0, 350.0), (float("inf"), 350.0), (float("nan"), 0.0)]
)
def test_beyond_the_table_properties_are_held(degrees, held):
    like = np.zeros((1, properties.N_LIKE))
    properties.warm_properties(degrees, 0, like)
    assert like[0, properties.T] == pytest.approx(degrees, nan_ok=True)
    assert like[0, properties.P_S] == pytest.approx(properties.saturation_pressure(held), rel=1e-9)


def test_a_bake_that_cannot_be_followed_is_refused_and_not_read_from_nowhere():
    dough = fresh()
    dough.state[5] = np.nan
    with pytest.raises(OvenError):
        bake_stage(dough, air(200.0, 15.0), ON_TRAY, PALE, 60.0)


@pytest.mark.parametrize("kilopascals", [55.0, 75.6, 101.325, 104.0])
def test_water_boils_as_in_the_steam_tables(kilopascals):
    assert boiling_c(1000 * kilopascals) == pytest.approx(IAPWS97(P=kilopascals / 1000, x=0).T - 273.15, abs=1e-3)


def test_enthalpy_of_vapour_is_the_steam_tables():
    for degrees in (40, 100, 160):
        steam = IAPWS97(T=degrees + 273.15, x=1).h * 1000
        assert properties.H_FG0 + properties.C_V * degrees == pytest.approx(steam, rel=0.02)


@pytest.mark.parametrize(
    ("degrees", "low", "high"), [(110, 210, 240), (130, 66, 78), (150, 23, 28), (170, 9, 11), (190, 3.7, 5)]
)
def test_browning_of_a_dry_face_at_one_temperature(degrees, low, high):
    """Purlis & Salvadori (2009; from memory): minutes from lightness 85 to 62."""
    assert low <= log(85 / 62) / properties.browning_rate(float(degrees), 0.1) / 60 <= high


def series_slab(biot, fourier):
    def roots(n):
        return brentq(lambda z: z * tan(z) - biot, n * pi + 1e-9, n * pi + pi / 2 - 1e-9)

    total = 0.0
    for n in range(12):
        z = roots(n)
        total += 4 * sin(z) / (2 * z + sin(2 * z)) * exp(-z * z * fourier)
    return total


def series_cylinder(biot, fourier):
    total, edges = 0.0, [0.0, 3.8317, 7.0156, 10.1735, 13.3237, 16.4706]
    for low, high in pairwise(edges):
        z = brentq(lambda z: z * j1(z) - biot * j0(z), low + 1e-9, high - 1e-9)
        total += 2 / z * j1(z) / (j0(z) ** 2 + j1(z) ** 2) * exp(-z * z * fourier)
    return total


def series_sphere(biot, fourier):
    total = 0.0
    for n in range(12):
        z = brentq(lambda z: 1 - z / tan(z) - biot, n * pi + 1e-9, (n + 1) * pi - 1e-9)
        total += 4 * (sin(z) - z * cos(z)) / (2 * z - sin(2 * z)) * exp(-z * z * fourier)
    return total


@pytest.mark.parametrize("biot", [0.1, 1.0, 10.0])
@pytest.mark.parametrize(
    ("body", "series"), [(slab(20), series_slab), (rope(20), series_cylinder), (ball(20), series_sphere)], ids=["slab", "cylinder", "sphere"]
)  # fmt: skip
def test_conduction_is_the_series_solution(biot, body, series, monkeypatch):
    """Carslaw & Jaeger, Heisler's charts: middle of slab, cylinder and sphere, within .1 K of 80 K."""
    monkeypatch.setattr(
        "substrata.process.baking.simulation.stage_simulation.oven_number",
        lambda name: 1.0 if name == "below_tray" else oven_number(name),
    )
    dough = fresh(SOLID, body, porosity=0.0)
    cells = dough.cells
    k = properties.conductivity(cells[0, properties.K_S], 0.02, 60.0)
    rho_c = cells[0, properties.RHO_S] * (1800.0 + 1e-6 * properties.C_W)
    radius = 0.01
    fourier = 0.5 if biot < 5 else 0.3
    seconds = fourier * radius**2 * rho_c / k
    bake_stage(dough, air(100.0, biot * k / radius), FREE, PALE, seconds, steps=FINE, keep_s=seconds)
    middle = dough.temperatures[20]
    assert middle == pytest.approx(100 - 80 * series(biot, fourier), abs=0.35)


def test_equivalent_bodies_keep_the_eigenvalue_and_the_surface():
    """First zeros: π/2, 2.4048, π. A cube is as slow at last as its own product of three slabs."""
    assert [first_eigenvalue(d) for d in (1.0, 2.0, 3.0)] == pytest.approx([pi / 2, 2.4048, pi], abs=1e-4)
    cube = brick(60, 60, 60)
    assert first_eigenvalue(cube.dimension) / cube.radius_m == pytest.approx(pi * 3**0.5 / 0.06, rel=1e-4)
    assert cube.dimension / cube.radius_m == pytest.approx(6 / 0.06)
    assert brick(1000, 1000, 10).dimension == pytest.approx(1, abs=0.05)
    assert short_cylinder(10, 1000).dimension == pytest.approx(2, abs=0.05)
    assert first_eigenvalue(ball(50).dimension) == pytest.approx(pi)


def test_a_brick_bakes_like_the_product_of_three_slabs(monkeypatch):
    """The middle of a brick is the product of three slabs' middles. The equivalent body keeps the late rate, and comes late, never early."""
    monkeypatch.setattr(
        "substrata.process.baking.simulation.stage_simulation.oven_number",
        lambda name: 1.0 if name == "below_tray" else oven_number(name),
    )
    body = brick(60, 45, 40)
    dough = fresh(SOLID, body, porosity=0.0)
    k = properties.conductivity(dough.cells[0, properties.K_S], 0.02, 60.0)
    alpha = k / (dough.cells[0, properties.RHO_S] * (1800.0 + 1e-6 * properties.C_W))
    h, found, exact = 400.0, [], []
    for seconds in (900.0, 1500.0, 2100.0):
        bake_stage(dough, air(100.0, h), FREE, PALE, seconds - dough.seconds, keep_s=600.0, steps=FINE)
        found.append(100 - dough.temperatures[20])
        sides = (0.030, 0.0225, 0.020)
        exact.append(80 * np.prod([series_slab(h * half / k, alpha * seconds / half**2) for half in sides]))
    assert log(found[1] / found[2]) == pytest.approx(log(exact[1] / exact[2]), rel=0.03)
    lag_s = log(found[2] / exact[2]) / log(found[1] / found[2]) * 600
    assert 0 <= lag_s < 240


def test_an_independent_integrator_finds_the_same_bake():
    """The same equations by scipy's BDF at a hundredth of the tolerance."""
    dough = fresh(DOUGH, slab(6), cells=21)
    heat = air(180.0, 12.0, emissivity=0.9)
    start, cells, around = dough.state.copy(), dough.cells, _around(heat, ON_TRAY)
    n = len(cells)
    out, work = np.zeros((n + 1, 2)), np.zeros((n, properties.N_LIKE))

    def rates(_, y):
        equations.rates(
            y.reshape(n + 1, 2), cells, around, oven_number("vapour_factor"), oven_number("heat_pipe"), out, work
        )
        return out.ravel().copy()

    moments = np.arange(0.0, 361.0, 15.0)
    other = solve_ivp(
        rates, (0, 360), start.ravel(), method="BDF", rtol=1e-6, atol=np.tile([1.0, 1e-7], n + 1), t_eval=moments
    )
    assert other.success
    told = bake_stage(dough, heat, ON_TRAY, PALE, 360.0)
    found = other.y.T.reshape(-1, n + 1, 2)[:, 1:]
    t = found[:, :, 0] / (cells[:, properties.C_S] + found[:, :, 1] * properties.C_W)
    assert told.seconds == pytest.approx(moments)
    # Kept moments lie within steps: the pair's own extension is held to the same.
    assert told.temperatures == pytest.approx(t, abs=0.25)
    assert told.waters == pytest.approx(found[:, :, 1], abs=0.005)


def test_what_is_kept_does_not_change_the_bake():
    often, seldom = fresh(), fresh()
    heat = air(190.0, 14.0, emissivity=0.9)
    fine, coarse = (
        bake_stage(dough, heat, ON_TRAY, PALE, 300.0, keep_s=every) for dough, every in ((often, 5.0), (seldom, 60.0))
    )
    assert often.state.tolist() == seldom.state.tolist()
    assert fine.steps == coarse.steps
    assert fine.light_top[::12] == pytest.approx(coarse.light_top)
    assert (np.diff(fine.vapour) > 0).all()
    assert (np.diff(fine.light_top) <= 0).all()


def test_a_filling_of_the_same_matter_is_a_thicker_slab():
    plain, filled = (fresh(SOLID, slab(20), porosity=0.0) for _ in range(2))
    fill(filled, SOLID, 7.0, start_c=20.0)
    assert (filled.dry, filled.enthalpy) == pytest.approx((plain.dry, plain.enthalpy))
    for dough in (plain, filled):
        bake_stage(dough, air(180.0, 15.0), FREE, PALE, 600.0, steps=FINE)
    assert filled.temperatures[20] == pytest.approx(plain.temperatures[20], abs=0.5)
    assert filled.enthalpy == pytest.approx(plain.enthalpy, rel=2e-3)


@pytest.mark.parametrize("support", [ON_TRAY, FREE, replace(FREE, side_per_m=40.0)], ids=["tray", "rack", "rim"])
@pytest.mark.parametrize("body", [slab(6), rope(18)], ids=["slab", "rope"])
@pytest.mark.parametrize("topped", [False, True], ids=["bare", "topped"])
@pytest.mark.parametrize("frying", [False, True], ids=["air", "oil"])
def test_the_jacobian_is_the_derivative_of_the_rates(support, body, topped, frying):
    """By central differences, from damp dough to dry crust; each column to two thousandths of its largest entry."""
    dough = fresh(DOUGH, body, cells=15)
    heat = replace(air(190.0, 15.0, emissivity=0.0 if frying else 0.9), frying=frying)
    bake_stage(dough, heat, support, PALE, 150.0)
    if topped:
        top(dough, SOLID, 2.0, start_c=10.0, light=80.0, cells=3)
    n = len(dough.cells)
    around, state = _around(heat, support), dough.state
    like, change = np.zeros((n, properties.N_LIKE)), np.zeros((n, 2, properties.N_LIKE))
    lower, diag, upper = (np.zeros((n + 1, 2, 2)) for _ in range(3))

    def rates(y):
        out = np.zeros((n + 1, 2))
        equations.rates(y.reshape(n + 1, 2), dough.cells, around, 1.2, 1.0, out, np.zeros_like(like))
        return out.ravel()

    equations.rates(state, dough.cells, around, 1.2, 1.0, np.zeros((n + 1, 2)), like)
    equations.jacobian(state, dough.cells, around, 1.0, like, change, lower, diag, upper)
    found = np.zeros((2 * n + 2, 2 * n + 2))
    for b in range(n + 1):
        for blocks, column_ in ((lower, b - 1), (diag, b), (upper, b + 1)):
            if 0 <= column_ <= n:
                found[2 * b : 2 * b + 2, 2 * column_ : 2 * column_ + 2] = blocks[b]
    steps = np.diag(np.tile([1e-2, 1e-6], n + 1))
    true = np.array([(rates(state.ravel() + s) - rates(state.ravel() - s)) / (2 * s.max()) for s in steps]).T
    true[:, 1], found[:, 1] = 0.0, 0.0  # the tray has no water
    sizes = np.tile([2000.0, 0.01], n + 1)  # of an enthalpy and of a water, to compare like with like
    true, found = (matrix * sizes / sizes[:, None] for matrix in (true, found))
    assert (np.abs(found - true).max(axis=0) <= 2e-3 * np.abs(true).max(axis=0) + 1e-7).all()


def test_halving_the_step_quarters_the_error():
    """The pair steps with second order in time."""

    def core(step):
        dough = fresh(SOLID, slab(20), porosity=0.0)
        bake_stage(dough, air(150.0, 20.0), FREE, PALE, 320.0, steps=Steps(tolerance=1e9, most_s=step), keep_s=320.0)
        return dough.temperatures[20]

    true = core(0.5)
    errors = [abs(core(step) - true) for step in (16.0, 8.0)]
    assert 2.8 < errors[0] / errors[1] < 6


@pytest.mark.parametrize("body", [slab(4), rope(18), ball(40)], ids=["slab", "rope", "ball"])
def test_mass_and_energy_close_through_every_stage(body):
    dough = fresh(DOUGH, body)
    total_water, total_heat = dough.water, dough.enthalpy
    for seconds, heat in (
        (240.0, air(177.0, 10.0, emissivity=0.9)),
        (180.0, air(200.0, 20.0)),
        (200.0, air(21.0, 6.0)),
    ):
        before_w, before_h = dough.water, dough.enthalpy
        told = bake_stage(dough, heat, FREE, PALE, seconds, steps=Steps(tolerance=0.1, most_s=2.0))
        lost = before_w - dough.water
        assert told.vapour[-1] == pytest.approx(lost, rel=0.01, abs=1e-5)
        # Vapour takes its enthalpy with it, at the face's temperature.
        carried = np.trapezoid(
            np.interp(
                told.seconds, told.seconds, properties.H_FG0 + properties.C_V * 0.5 * (told.top_c + told.bottom_c)
            ),
            told.vapour,
        )
        gained = told.heat[-1] - carried
        assert dough.enthalpy - before_h == pytest.approx(gained, abs=0.012 * max(abs(told.heat).max(), 1e3))
    assert dough.water < total_water
    assert dough.enthalpy != total_heat


def test_turning_over_and_topping_keep_what_is_there():
    dough = fresh(DOUGH, slab(8))
    bake_stage(dough, air(190.0, 12.0, emissivity=0.9), ON_TRAY, PALE, 240.0)
    water, enthalpy, light = dough.water, dough.enthalpy, dough.light.copy()
    flip(dough)
    assert (dough.water, dough.enthalpy) == pytest.approx((water, enthalpy))
    assert dough.light.tolist() == light[::-1].tolist()
    flip(dough)
    again = dough.copy()
    top(again, DOUGH, 3.0, start_c=10.0, light=86.0)
    assert again.light[0] == 86.0
    assert again.water > water
    bake_stage(again, air(190.0, 12.0, emissivity=0.9), ON_TRAY, PALE, 120.0)
    assert np.isfinite(again.state).all()


def test_a_wet_middle_rests_at_the_boil_and_a_dry_one_passes_it():
    """The plateau of every baking curve: 99 to 103 °C while there is water."""
    dough = fresh(replace(DOUGH, water=1.2), slab(10))
    told = bake_stage(dough, air(200.0, 15.0, emissivity=0.9), ON_TRAY, PALE, 1500.0)
    wet = told.waters[:, 20] > 0.4
    late = told.seconds > told.seconds[np.argmax(told.core_c > 98.0)]
    assert (wet & late).sum() > 5
    assert told.core_c[wet & late].min() > 98.0
    assert told.core_c[wet & late].max() < 103.5
    assert told.core_c[-1] > 105 or wet[-1]


def test_without_evaporation_nothing_is_lost_and_a_higher_kitchen_boils_cooler():
    sealed = fresh(DOUGH, slab(6))
    closed = Support(ware=replace(bakeware()["tray"], leak=0.0, top_vent=0.0), contact=1.0)
    before = sealed.water
    bake_stage(sealed, air(120.0, 12.0), closed, PALE, 300.0)
    assert sealed.water == pytest.approx(before, rel=1e-6)

    def plateau(pressure):
        dough = fresh(replace(DOUGH, water=1.2), slab(10))
        heat = replace(air(200.0, 15.0, emissivity=0.9), pressure_pa=pressure)
        return bake_stage(dough, heat, ON_TRAY, PALE, 700.0).core_c[-1]

    assert plateau(84000.0) == pytest.approx(plateau(101325.0) - 5.0, abs=1.5)  # steam tables: 94.9 against 100.0 °C
