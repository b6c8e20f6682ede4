"""Properties of the cells of a dough, compiled.

From temperature and water to vapour pressure, conductivity and mobility, and how these change with both.
"""

from __future__ import annotations

import numpy as np

from substrata.base.compiled_loops import part

# Columns of the cells' array.
X_SIZE, DISTANCE, AREA_OUT, VOLUME, RHO_S, C_S, K_S, V_S, A_0, MATERIAL = range(10)
N_CELL = 10
# Columns of what a cell is like: temperature, water and its activity, vapour pressure, conductivity, mobility of vapour and of
# liquid, Stefan factor; and what depends on temperature alone, with its slope.
T, W, A_W, P_V, K, MOBILE, LIQUID, STEFAN, P_S, D_VA, D_L, P_S_SLOPE, D_VA_SLOPE, D_L_SLOPE = range(14)
N_LIKE = 14
ATMOSPHERE = 101325.0  # Pa, at which diffusivities are told; they go with one over the pressure
R_V = 461.5  # J/(kg K), gas constant of water vapour
H_FG0, C_V = 2.501e6, 1870.0  # J/kg and J/(kg K): enthalpy of vapour, 0 at liquid of 0 degC
H_FG_SLOPE = 2317.0  # J/(kg K), C_W - C_V
C_W = 4187.0  # J/(kg K), liquid water
K_WATER = (0.57109, 1.7625e-3, -6.7036e-6)  # W/(m K) by powers of degC; Choi & Okos (1986)
K_AIR = (0.0242, 7.5e-5)  # likewise
RHO_W = 958.0  # kg/m3, water near the boil
OSWIN_N, OSWIN_T = 0.45, 0.006
D_LIQUID, E_LIQUID = 3e-11, 3608.0  # m2/s at 80 degC, and its activation energy over R, K
LEAST_POROSITY, MOST_POROSITY, MOST_STEFAN, MOST_PIPE = 0.02, 0.98, 50.0, 10.0
FADE_K = 10.0  # above the boil, over which the heat pipe fades
ROUNDED, PIPE_ROUNDED = 0.01, 2.0  # of the share of air; of the Stefan factor
LEAST_WATER, LEAST_MOBILE = 1e-9, 1e-16
HOTTEST = 350  # degC, where the table of what depends on temperature alone ends


@part
def saturation_pressure(t_c: float) -> float:
    """Saturation pressure of water, Pa; IAPWS-IF97, region 4, equation 30. Beyond -1 to 370 degC it is held."""
    t = min(max(t_c, -1.0), 370.0) + 273.15
    v = t - 0.23855557567849 / (t - 650.17534844798)
    a = v * v + 1167.0521452767 * v - 724213.16703206
    b = -17.073846940092 * v * v + 12020.82470247 * v - 3232555.0322333
    c = 14.91510861353 * v * v - 4823.2657361591 * v + 405113.40542057
    root = 2.0 * c / (-b + np.sqrt(b * b - 4.0 * a * c))
    return 1e6 * root * root * root * root


@part
def water_activity(w: float, a_0: float, t_c: float) -> float:
    """Oswin: 1 / (1 + (A/W)^(1/n)), A falling with temperature."""
    if w <= LEAST_WATER:
        return 0.0
    return 1.0 / (1.0 + np.exp((np.log(a_0 / w) - OSWIN_T * (t_c - 25.0)) / OSWIN_N))


@part
def conductivity(k_m: float, porosity: float, t_c: float) -> float:
    """Maxwell-Eucken: air bubbles in a dense matter."""
    k_a = K_AIR[0] + K_AIR[1] * t_c
    return k_m * (2 * k_m + k_a - 2 * porosity * (k_m - k_a)) / (2 * k_m + k_a + porosity * (k_m - k_a))


def _warm_table():
    """Tabulate what depends on temperature alone, by whole degrees.

    Each is a cubic within its degree that meets value and slope of the formula at both ends. The formulas themselves cost five times as much.

    Returns:
        Coefficients, shape (HOTTEST, 3, 4).
    """
    degrees = np.arange(HOTTEST + 1.0)

    def formulas(t):
        kelvin = t + 273.15
        return np.stack(
            (
                np.array([saturation_pressure.py_func(float(ones)) for ones in t]),
                2.6e-5 * (kelvin / 298.0) ** 1.75,
                D_LIQUID * np.exp(-E_LIQUID * (1.0 / kelvin - 1.0 / 353.15)),
            ),
            axis=1,
        )

    at, aside = formulas(degrees), 1e-3
    slope = (formulas(degrees + aside) - formulas(degrees - aside)) / (2 * aside)
    rise = np.diff(at, axis=0)
    return np.stack(
        (at[:-1], slope[:-1], 3 * rise - 2 * slope[:-1] - slope[1:], slope[:-1] + slope[1:] - 2 * rise), axis=2
    )


WARM = _warm_table()


@part
def warm_properties(t, i, like):
    """Return what depends on temperature alone: saturation pressure, diffusivity of vapour and of liquid. Below 0 degC it is held."""
    # What is no number, from a step that will be refused, must find a row too: compiled code reads wherever it is sent.
    held = t if t > 0.0 else 0.0  # noqa: FURB136  max keeps what is no number
    held = held if held < HOTTEST else HOTTEST - 1e-9
    row = int(held)
    x = held - row
    like[i, T] = t
    for j in range(3):
        c_0, c_1, c_2, c_3 = WARM[row, j, 0], WARM[row, j, 1], WARM[row, j, 2], WARM[row, j, 3]
        like[i, P_S + j] = c_0 + x * (c_1 + x * (c_2 + x * c_3))
        like[i, P_S_SLOPE + j] = c_1 + x * (2.0 * c_2 + x * 3.0 * c_3)


@part
def properties(h, w, cells, i, c_v, c_hp, p_out, boil, like):
    """Write the properties of cell i at an enthalpy and a water content to ``like[i]``, where water boils at ``boil`` degC."""
    w = max(w, 0.0)
    t = h / (cells[i, C_S] + w * C_W)
    warm_properties(t, i, like)
    p_s, d_va = like[i, P_S], like[i, D_VA] * ATMOSPHERE / p_out
    rho = cells[i, RHO_S]
    v_w = rho * w / RHO_W
    v_s = cells[i, V_S]
    eps = min(max(1.0 - v_s - v_w, LEAST_POROSITY), MOST_POROSITY)
    k_m = dense_conductivity(v_s, cells[i, K_S], v_w, t)
    a_w = water_activity(w, cells[i, A_0], t)
    p_v = a_w * p_s
    gas = 1.0 / (R_V * (t + 273.15))
    stefan = stefan_factor(p_v, p_out)
    like[i, W], like[i, A_W], like[i, P_V], like[i, STEFAN] = w, a_w, p_v, stefan
    like[i, K] = conductivity(k_m, eps, t) + heat_pipe(t, boil, w, a_w, eps, stefan, gas, d_va, p_s, c_hp)
    like[i, MOBILE] = max(c_v * eps * d_va * stefan * gas, LEAST_MOBILE)
    like[i, LIQUID] = like[i, D_L] * rho / (w + 0.1)


@part
def stefan_factor(p_v, p_out):
    """How much faster vapour goes where little air is left to cross: 1 / (1 - its share), rounded off towards MOST_STEFAN.

    With a sharp end the steps would chatter where a boiling cell stays at it.

    Returns:
        A factor of 1 or more.
    """
    air = 1.0 - p_v / p_out - 1.0 / MOST_STEFAN
    return 1.0 / (1.0 / MOST_STEFAN + 0.5 * (air + np.sqrt(air * air + ROUNDED * ROUNDED)))


@part
def water_conductivity(t):
    """Of water, W/(m K)."""
    return K_WATER[0] + t * (K_WATER[1] + t * K_WATER[2])


@part
def dense_conductivity(v_s, k_s, v_w, t):
    """Of solids and water without air, W/(m K): by their volumes."""
    return (v_s * k_s + v_w * water_conductivity(t)) / max(v_s + v_w, 1e-6)


@part
def heat_pipe(t, boil, w, a_w, eps, stefan, gas, d_va, p_s, c_hp):
    """Return what vapour adds to the conductivity by crossing the pores from a warm wall to a cool one, W/(m K). It fades at the boil."""
    fade = min(max((boil + FADE_K - t) / FADE_K, 0.0), 1.0)
    if fade <= 0.0:
        return 0.0
    h_fg = H_FG0 - H_FG_SLOPE * t
    dp = p_s * h_fg * gas / (t + 273.15)
    hastened = 0.5 * (stefan + MOST_PIPE - np.sqrt((stefan - MOST_PIPE) ** 2 + PIPE_ROUNDED**2))
    return fade * c_hp * eps * h_fg * d_va * hastened * gas * a_w * a_w * w / (w + 0.02) * dp


@part
def conductivity_changes(v_s, k_s, v_w, t, eps, v_by_w, eps_by_w):
    """How ``conductivity`` of the dense matter with its pores changes with temperature and with water.

    v_by_w, eps_by_w: how the volume of water and the porosity change with the water.

    Returns:
        Derivatives by temperature and by water.
    """
    v = max(v_s + v_w, 1e-6)
    k_w = water_conductivity(t)
    k_m, k_a = dense_conductivity(v_s, k_s, v_w, t), K_AIR[0] + K_AIR[1] * t
    over, under = 2 * k_m + k_a - 2 * eps * (k_m - k_a), 2 * k_m + k_a + eps * (k_m - k_a)
    per = k_m / (under * under)
    by_m = over / under + per * ((2 - 2 * eps) * under - (2 + eps) * over)
    by_a = per * ((1 + 2 * eps) * under - (1 - eps) * over)
    by_eps = -per * (k_m - k_a) * (2 * under + over)
    by_t = by_m * v_w * (K_WATER[1] + 2 * K_WATER[2] * t) / v + by_a * K_AIR[1]
    return by_t, by_m * v_by_w * (k_w - k_m) / v + by_eps * eps_by_w


@part
def changes(cells, i, c_hp, p_out, boil, like, change):
    """How what cell i is like changes with its temperature (row 0) and its water (row 1): the derivatives of ``properties``."""
    t, w, a_w, p_v, stefan, mobile = (
        like[i, T],
        like[i, W],
        like[i, A_W],
        like[i, P_V],
        like[i, STEFAN],
        like[i, MOBILE],
    )
    p_s, d_va = like[i, P_S], like[i, D_VA] * ATMOSPHERE / p_out
    kelvin = t + 273.15
    rho, v_s = cells[i, RHO_S], cells[i, V_S]
    v_w = rho * w / RHO_W
    free = 1.0 - v_s - v_w
    eps = min(max(free, LEAST_POROSITY), MOST_POROSITY)
    eps_w = -rho / RHO_W if LEAST_POROSITY < free < MOST_POROSITY else 0.0
    some = w > LEAST_WATER
    a_t = a_w * (1.0 - a_w) * OSWIN_T / OSWIN_N
    a_by_w = (1.0 - a_w) / (OSWIN_N * w) if some else 0.0  # its relative change
    p_t, p_w = a_t * p_s + a_w * like[i, P_S_SLOPE], p_v * a_by_w
    air = 1.0 - p_v / p_out - 1.0 / MOST_STEFAN
    stefan_p = (
        0.5 * stefan / p_out * (1.0 + air / np.sqrt(air * air + ROUNDED * ROUNDED))
    )  # relative, by the vapour pressure
    d_by_t, eps_by_w = like[i, D_VA_SLOPE] / like[i, D_VA], eps_w / eps
    by_t, by_w = conductivity_changes(v_s, cells[i, K_S], v_w, t, eps, rho / RHO_W, eps_w)
    gas = 1.0 / (R_V * kelvin)
    pipe = heat_pipe(t, boil, w, a_w, eps, stefan, gas, d_va, p_s, c_hp)
    if pipe > 0.0 and some:
        root = np.sqrt((stefan - MOST_PIPE) ** 2 + PIPE_ROUNDED**2)
        pipe_p = stefan_p * stefan * (1.0 - (stefan - MOST_PIPE) / root) / (stefan + MOST_PIPE - root)
        fading = -1.0 / (boil + FADE_K - t) if t > boil else 0.0
        warming = -2.0 * H_FG_SLOPE / (H_FG0 - H_FG_SLOPE * t) + d_by_t - 3.0 / kelvin + like[i, P_S_SLOPE] / p_s
        by_t += pipe * (fading + warming + 2.0 * a_t / a_w + pipe_p * p_t)
        by_w += pipe * (eps_by_w + 2.0 * a_by_w + 0.02 / (w * (w + 0.02)) + pipe_p * p_w)
    change[i, 0, P_V], change[i, 1, P_V] = p_t, p_w
    change[i, 0, K], change[i, 1, K] = by_t, by_w
    change[i, 0, STEFAN], change[i, 1, STEFAN] = stefan * stefan_p * p_t, stefan * stefan_p * p_w
    change[i, 0, MOBILE] = mobile * (d_by_t + stefan_p * p_t - 1.0 / kelvin)
    change[i, 1, MOBILE] = mobile * (eps_by_w + stefan_p * p_w)
    change[i, 0, LIQUID] = like[i, LIQUID] * like[i, D_L_SLOPE] / like[i, D_L]
    change[i, 1, LIQUID] = -like[i, LIQUID] / (w + 0.1)


@part
def browning_rate(t_c: float, a_w: float) -> float:
    """Rate of lightness loss, 1/s; Purlis & Salvadori (2009): k = (k1 + k2/a_w)·exp(-(k3 + k4/a_w)/T) a minute."""
    a = max(a_w, 0.1)
    kelvin = t_c + 273.15
    return (7.9233e6 + 2.7397e6 / a) * np.exp(-(8.7015e3 + 49.4738 / a) / kelvin) / 60.0
