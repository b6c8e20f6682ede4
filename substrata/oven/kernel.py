"""The compiled part of a bake: fluxes between cells, and the time integrator.

State of each cell: enthalpy ``h`` (J per kg dry solids, 0 at 0 °C) and water ``w`` (kg per kg dry solids). Block 0 is the
tray: its "enthalpy" is its temperature in °C, its water stays 0. The equations stand in ``docs/science.md``.

Everything here is plain arrays for speed; ``simulate.py`` gives them names.
"""

from __future__ import annotations

import numpy as np
from numba import njit

# Columns of the cells' array (see ``simulate.Cells``).
X_SIZE, DISTANCE, AREA_OUT, VOLUME, RHO_S, C_S, K_S, V_S, A_0, MATERIAL = range(10)
# Entries of the surroundings' array (see ``simulate.Surroundings``).
(
    AIR_C, WALL_C, H_TOP, EPS_TOP, VENT_TOP, H_BOTTOM, EPS_BOTTOM, CONTACT, H_CONTACT, LEAK, TRAY_J, TRAY_FIN, TRAY_EPS, FRYING, PRESSURE,
    VAPOUR, SIDE, TOP_AIR_C,
) = range(18)  # fmt: skip
N_CELL, N_AROUND = 10, 18
GAMMA = 1.0 - 1.0 / np.sqrt(2.0)  # makes ROS2 L-stable (Verwer, Spee, Blom & Hundsdorfer 1999)
R_V = 461.5  # J/(kg K), gas constant of water vapour
SIGMA = 5.670374419e-8  # W/(m2 K4), Stefan-Boltzmann
C_W = 4187.0  # J/(kg K), liquid water
H_FG0, C_V = 2.501e6, 1870.0  # J/kg and J/(kg K): enthalpy of vapour, 0 at liquid of 0 degC
C_P_AIR = 1006.0
RHO_W = 958.0  # kg/m3, water near the boil
OSWIN_N = 0.45
D_LIQUID, E_LIQUID = 3e-11, 3608.0  # m2/s at 80 degC, and its activation energy over R, K
MOST_STEPS = 6000  # of a stage; an ordinary one takes some hundreds
LEAST_POROSITY, MOST_STEFAN, MOST_PIPE = 0.02, 50.0, 10.0


@njit(cache=True)
def saturation_pressure(t_c: float) -> float:
    """Saturation pressure of water, Pa; IAPWS-IF97, region 4, equation 30. Beyond 0 to 350 degC it is held."""
    t = min(max(t_c, 0.01), 350.0) + 273.15
    v = t - 0.23855557567849 / (t - 650.17534844798)
    a = v * v + 1167.0521452767 * v - 724213.16703206
    b = -17.073846940092 * v * v + 12020.82470247 * v - 3232555.0322333
    c = 14.91510861353 * v * v - 4823.2657361591 * v + 405113.40542057
    root = 2.0 * c / (-b + np.sqrt(b * b - 4.0 * a * c))
    return 1e6 * root * root * root * root


@njit(cache=True)
def water_activity(w: float, a_0: float, t_c: float) -> float:
    """Oswin: 1 / (1 + (A/W)^(1/n)), A falling with temperature."""
    if w <= 1e-9:
        return 0.0
    a = a_0 * np.exp(-0.006 * (t_c - 25.0))
    return 1.0 / (1.0 + (a / w) ** (1.0 / OSWIN_N))


@njit(cache=True)
def conductivity(k_m: float, porosity: float, t_c: float) -> float:
    """Maxwell-Eucken: air bubbles in a dense matter."""
    k_a = 0.0242 + 7.5e-5 * t_c
    return k_m * (2 * k_m + k_a - 2 * porosity * (k_m - k_a)) / (2 * k_m + k_a + porosity * (k_m - k_a))


@njit(cache=True)
def rates(y, cells, around, c_v, c_hp, out, work):
    """Time derivatives of all blocks.

    y, out: (n + 1, 2); cells: (n, N_CELL); around: (N_AROUND,); work: (n, 8).
    Returns heat and vapour through both faces and the surface temperatures: q_top, q_bottom, j_top, j_bottom, t_top, t_bottom.
    """
    n = cells.shape[0]
    p_out = around[PRESSURE]
    for i in range(n):
        w = max(y[i + 1, 1], 0.0)
        t = y[i + 1, 0] / (cells[i, C_S] + w * C_W)
        rho = cells[i, RHO_S]
        v_w = rho * w / RHO_W
        v_s = cells[i, V_S]
        eps = min(max(1.0 - v_s - v_w, LEAST_POROSITY), 0.98)
        k_w = 0.57109 + 1.7625e-3 * t - 6.7036e-6 * t * t
        k_m = (v_s * cells[i, K_S] + v_w * k_w) / max(v_s + v_w, 1e-6)
        a_w = water_activity(w, cells[i, A_0], t)
        p_s = saturation_pressure(t)
        p_v = a_w * p_s
        kelvin = t + 273.15
        ratio = max(kelvin, 200.0) / 298.0
        d_va = 2.6e-5 * ratio * np.sqrt(ratio) * np.sqrt(np.sqrt(ratio))
        gap = max(1.0 - p_v / p_out, 1.0 / MOST_STEFAN)
        stefan = 1.0 / gap
        pipe = min(stefan, MOST_PIPE)
        fade = min(max((110.0 - t) / 10.0, 0.0), 1.0)
        h_fg = H_FG0 - 2317.0 * t
        dp = p_s * h_fg / (R_V * kelvin * kelvin)
        k = conductivity(k_m, eps, t)
        k += fade * c_hp * eps * h_fg * d_va * pipe / (R_V * kelvin) * a_w * a_w * w / (w + 0.02) * dp
        work[i, 0] = t
        work[i, 1] = w
        work[i, 2] = p_v
        work[i, 3] = k
        work[i, 4] = c_v * eps * d_va * stefan / (R_V * kelvin)
        work[i, 5] = D_LIQUID * np.exp(-E_LIQUID * (1.0 / kelvin - 1.0 / 353.15)) * rho / (w + 0.1)
        work[i, 6] = stefan
    t_tray = y[0, 0]
    # The bottom face: cell 0. Its heat comes from the tray where it touches, and from the air elsewhere.
    t_0 = work[0, 0]
    half = 0.5 * cells[0, X_SIZE]
    touch = around[CONTACT]
    inner = half / work[0, 3]
    q_touch = touch * (t_tray - t_0) / (1.0 / around[H_CONTACT] + inner) if touch > 0 else 0.0
    t_s = t_0
    h_r = radiant(around[EPS_BOTTOM], around[WALL_C], t_s)
    h_b = around[H_BOTTOM]
    q_bare = (1 - touch) * (h_b * (around[AIR_C] - t_0) + h_r * (around[WALL_C] - t_0)) / (1.0 + (h_b + h_r) * inner)
    q_bottom = q_touch + q_bare
    open_share = (1 - touch) + touch * around[LEAK]
    j_bottom = open_share * vapour_out(
        work[0, 2], work[0, 4], work[0, 6], half, h_b, around, t_0, around[AIR_C], around[FRYING] > 0
    )
    t_bottom = t_0 + q_bottom * inner
    # The top face: the last cell.
    m = n - 1
    t_m = work[m, 0]
    half = 0.5 * cells[m, X_SIZE]
    inner = half / work[m, 3]
    h_t = around[H_TOP]
    h_r = radiant(around[EPS_TOP], around[WALL_C], t_m)
    q_top = (h_t * (around[TOP_AIR_C] - t_m) + h_r * (around[WALL_C] - t_m)) / (1.0 + (h_t + h_r) * inner)
    j_top = around[VENT_TOP] * vapour_out(
        work[m, 2], work[m, 4], work[m, 6], half, h_t, around, t_m, around[TOP_AIR_C], False
    )
    t_top = t_m + q_top * inner
    # Between cells, and the balance of each.
    q_in = q_bottom - j_bottom * (H_FG0 + C_V * t_0)
    j_in = -j_bottom
    a_in = cells[0, AREA_OUT]  # area of the bottom face, of the surface's
    for i in range(n):
        if i < n - 1:
            d = cells[i, DISTANCE]
            # In series: half of this cell, half of the next.
            s_i, s_k = 0.5 * cells[i, X_SIZE], 0.5 * cells[i + 1, X_SIZE]
            q = (work[i, 0] - work[i + 1, 0]) / (s_i / work[i, 3] + s_k / work[i + 1, 3])
            g = 1.0 / (s_i / max(work[i, 4], 1e-16) + s_k / max(work[i + 1, 4], 1e-16))
            j_v = g * (work[i, 2] - work[i + 1, 2])
            up = i if j_v > 0 else i + 1
            q += j_v * (H_FG0 + C_V * work[up, 0])
            j = j_v
            if cells[i, MATERIAL] == cells[i + 1, MATERIAL]:
                j_l = (
                    0.5
                    * (work[i, 5] * work[i, 1] + work[i + 1, 5] * work[i + 1, 1])
                    * (work[i, 1] - work[i + 1, 1])
                    / d
                )
                up = i if j_l > 0 else i + 1
                q += j_l * C_W * work[up, 0]
                j += j_l
            a_out = cells[i + 1, AREA_OUT]
        else:
            q = -(q_top - j_top * (H_FG0 + C_V * t_m))
            j = j_top
            a_out = 1.0
        mass = cells[i, RHO_S] * cells[i, VOLUME]
        side = around[SIDE] * cells[i, VOLUME] * (around[AIR_C] - work[i, 0])
        out[i + 1, 0] = (a_in * q_in - a_out * q + side) / mass
        out[i + 1, 1] = (a_in * j_in - a_out * j) / mass
        q_in, j_in, a_in = q, j, a_out
    out[0, 1] = 0.0
    if around[TRAY_J] > 0:
        h_r = radiant(around[TRAY_EPS], around[WALL_C], t_tray)
        gain = around[TRAY_FIN] * (h_b * (around[AIR_C] - t_tray) + h_r * (around[WALL_C] - t_tray))
        out[0, 0] = (gain - q_touch) / around[TRAY_J]
    else:
        out[0, 0] = 0.0
    return q_top, q_bottom, j_top, j_bottom, t_top, t_bottom


@njit(cache=True)
def radiant(eps: float, wall_c: float, t_c: float) -> float:
    """Radiation as a coefficient, W/(m2 K)."""
    a, b = wall_c + 273.15, t_c + 273.15
    return eps * SIGMA * (a * a + b * b) * (a + b)


@njit(cache=True)
def vapour_out(p_v, gamma, stefan, half, h, around, t_c, air_c, in_oil):
    """Vapour through an open face, kg/(m2 s): the half cell and the air in series; Lewis. In oil only what boils leaves."""
    p_out = around[PRESSURE]
    kelvin = t_c + 273.15
    if in_oil:
        over = (p_v - p_out) / 2000.0
        driving = 2000.0 * (over if over > 30 else np.log1p(np.exp(over)))
        return driving * max(gamma, 1e-16) / half
    rho = 1.2 * 293.15 / (0.5 * (kelvin + air_c + 273.15)) * p_out / 101325.0
    k_m = 1.1 * h / (rho * C_P_AIR) * stefan / (R_V * kelvin)
    return (p_v - around[VAPOUR]) / (1.0 / max(k_m, 1e-16) + half / max(gamma, 1e-16))


@njit(cache=True)
def jacobian(y, f_0, cells, around, c_v, c_hp, lower, diag, upper, work, bumped, f_1):
    """Block-tridiagonal Jacobian by differences: every third block is bumped at once."""
    blocks = y.shape[0]
    for colour in range(3):
        for var in range(2):
            bumped[:, :] = y
            for b in range(colour, blocks, 3):
                bumped[b, var] += step_of(y, cells, b, var)
            rates(bumped, cells, around, c_v, c_hp, f_1, work)
            for b in range(colour, blocks, 3):
                step = step_of(y, cells, b, var)
                for row in range(2):
                    diag[b, row, var] = (f_1[b, row] - f_0[b, row]) / step
                    if b > 0:
                        upper[b - 1, row, var] = (f_1[b - 1, row] - f_0[b - 1, row]) / step
                    if b < blocks - 1:
                        lower[b + 1, row, var] = (f_1[b + 1, row] - f_0[b + 1, row]) / step


@njit(cache=True)
def step_of(y, cells, b, var):
    """How far a variable is bumped."""
    if b == 0:
        return 1e-4
    if var == 0:
        return 1e-5 * (cells[b - 1, C_S] + y[b, 1] * C_W) * 100.0
    return 1e-7 + 1e-6 * y[b, 1]


@njit(cache=True)
def factor(lower, diag, upper, scale, inverse, product):
    """Block Thomas elimination of I - scale·J; keeps the inverse pivots and the products for both stages."""
    blocks = diag.shape[0]
    for b in range(blocks):
        a00 = 1.0 - scale * diag[b, 0, 0]
        a01 = -scale * diag[b, 0, 1]
        a10 = -scale * diag[b, 1, 0]
        a11 = 1.0 - scale * diag[b, 1, 1]
        if b > 0:
            for row in range(2):
                l0, l1 = -scale * lower[b, row, 0], -scale * lower[b, row, 1]
                m0 = l0 * product[b - 1, 0, 0] + l1 * product[b - 1, 1, 0]
                m1 = l0 * product[b - 1, 0, 1] + l1 * product[b - 1, 1, 1]
                if row == 0:
                    a00 -= m0
                    a01 -= m1
                else:
                    a10 -= m0
                    a11 -= m1
        det = a00 * a11 - a01 * a10
        inverse[b, 0, 0], inverse[b, 0, 1] = a11 / det, -a01 / det
        inverse[b, 1, 0], inverse[b, 1, 1] = -a10 / det, a00 / det
        if b < blocks - 1:
            for row in range(2):
                for col in range(2):
                    product[b, row, col] = -scale * (
                        inverse[b, row, 0] * upper[b, 0, col] + inverse[b, row, 1] * upper[b, 1, col]
                    )


@njit(cache=True)
def solve(lower, inverse, product, scale, right, out):
    """Solve with the factors; right is used up."""
    blocks = right.shape[0]
    for b in range(blocks):
        r0, r1 = right[b, 0], right[b, 1]
        if b > 0:
            r0 += scale * (lower[b, 0, 0] * out[b - 1, 0] + lower[b, 0, 1] * out[b - 1, 1])
            r1 += scale * (lower[b, 1, 0] * out[b - 1, 0] + lower[b, 1, 1] * out[b - 1, 1])
        out[b, 0] = inverse[b, 0, 0] * r0 + inverse[b, 0, 1] * r1
        out[b, 1] = inverse[b, 1, 0] * r0 + inverse[b, 1, 1] * r1
    for b in range(blocks - 2, -1, -1):
        x0, x1 = out[b + 1, 0], out[b + 1, 1]
        out[b, 0] -= product[b, 0, 0] * x0 + product[b, 0, 1] * x1
        out[b, 1] -= product[b, 1, 0] * x0 + product[b, 1, 1] * x1


@njit(cache=True)
def browning_rate(t_c: float, a_w: float) -> float:
    """Rate of lightness loss, 1/s; Purlis & Salvadori (2009): k = (k1 + k2/a_w)·exp(-(k3 + k4/a_w)/T) a minute."""
    a = max(a_w, 0.1)
    kelvin = t_c + 273.15
    return (7.9233e6 + 2.7397e6 / a) * np.exp(-(8.7015e3 + 49.4738 / a) / kelvin) / 60.0


@njit(cache=True, nogil=True)
def run_stage(y, cells, around, seconds, c_v, c_hp, colour, light, keep_every, tolerance, most_step, series):
    """Integrate one stage with ROS2 and an adaptive step.

    y: (n + 1, 2), changed in place. colour: (b_factor, beta_top, beta_bottom, air_c). light: lightness of top and bottom,
    changed in place. series: (rows, 10 + 2 n): time, tray, t_top, t_bottom, t_core, water kg/m2, q_in J/m2 summed, vapour kg/m2
    summed, light_top, light_bottom, temperatures, waters.

    Returns the number of rows written, and of steps taken (negative when a step became too small).
    """
    blocks, n = y.shape[0], cells.shape[0]
    work, f_0, f_1 = np.zeros((n, 8)), np.zeros((blocks, 2)), np.zeros((blocks, 2))
    bumped, trial = np.zeros((blocks, 2)), np.zeros((blocks, 2))
    k_1, k_2, right = np.zeros((blocks, 2)), np.zeros((blocks, 2)), np.zeros((blocks, 2))
    lower, diag, upper = np.zeros((blocks, 2, 2)), np.zeros((blocks, 2, 2)), np.zeros((blocks, 2, 2))
    inverse, product = np.zeros((blocks, 2, 2)), np.zeros((blocks, 2, 2))
    time, step, rows, steps = 0.0, 0.05, 0, 0
    heat, gone = 0.0, 0.0
    q_t, q_b, j_t, j_b, t_top, t_bot = rates(y, cells, around, c_v, c_hp, f_0, work)
    a_b = cells[0, AREA_OUT]
    next_kept = 0.0
    middle = core_of(cells)
    while True:
        if time >= next_kept - 1e-9 or time >= seconds - 1e-9:
            if rows < series.shape[0]:
                row = series[rows]
                row[0], row[1], row[2], row[3], row[4] = time, y[0, 0], t_top, t_bot, work[middle, 0]
                water = 0.0
                for i in range(n):
                    water += y[i + 1, 1] * cells[i, RHO_S] * cells[i, VOLUME]
                    row[10 + i] = work[i, 0]
                    row[10 + n + i] = y[i + 1, 1]
                row[5], row[6], row[7], row[8], row[9] = water, heat, gone, light[0], light[1]
                rows += 1
            next_kept += keep_every
        if time >= seconds - 1e-9:
            return rows, steps
        if steps >= MOST_STEPS:
            return rows, -steps
        step = min(step, seconds - time, most_step, max(next_kept - time, 1e-3))
        jacobian(y, f_0, cells, around, c_v, c_hp, lower, diag, upper, work, bumped, f_1)
        while True:
            scale = GAMMA * step
            factor(lower, diag, upper, scale, inverse, product)
            right[:, :] = f_0
            solve(lower, inverse, product, scale, right, k_1)
            for b in range(blocks):
                for v in range(2):
                    trial[b, v] = y[b, v] + step * k_1[b, v]
            rates(trial, cells, around, c_v, c_hp, f_1, work)
            for b in range(blocks):
                for v in range(2):
                    right[b, v] = f_1[b, v] - 2.0 * k_1[b, v]
            solve(lower, inverse, product, scale, right, k_2)
            worst = 0.0
            for b in range(blocks):
                for v in range(2):
                    error = 0.5 * step * abs(k_1[b, v] + k_2[b, v])
                    if b == 0:
                        size = 1.0
                    elif v == 0:
                        size = cells[b - 1, C_S] + max(y[b, 1], 0.0) * C_W
                    else:
                        size = 0.002 + 0.02 * abs(y[b, 1])
                    worst = max(worst, error / size)
            worst /= tolerance
            if worst <= 1.0 or step <= 1e-4:
                break
            step = max(step * max(0.2, 0.9 / np.sqrt(worst)), 1e-4)
        for b in range(blocks):
            for v in range(2):
                y[b, v] += step * (1.5 * k_1[b, v] + 0.5 * k_2[b, v])
        t_old, b_old = t_top, t_bot
        q_n, q_bn, j_n, j_bn, t_top, t_bot = rates(y, cells, around, c_v, c_hp, f_0, work)
        heat += 0.5 * step * (q_t + q_n + a_b * (q_b + q_bn))
        gone += 0.5 * step * (j_t + j_n + a_b * (j_b + j_bn))
        q_t, q_b, j_t, j_b = q_n, q_bn, j_n, j_bn
        for face in range(2):
            old, new = (t_old, t_top) if face == 0 else (b_old, t_bot)
            cell = n - 1 if face == 0 else 0
            spot = 0.5 * (old + new)
            spot += colour[1 + face] * (colour[3] - spot)
            a_w = water_activity(max(y[cell + 1, 1], 0.0), cells[cell, A_0], work[cell, 0])
            light[face] *= np.exp(-step * colour[0] * browning_rate(spot, a_w))
        time += step
        steps += 1
        step *= min(2.0, max(0.4, 0.85 / np.sqrt(max(worst, 1e-6))))


@njit(cache=True)
def core_of(cells):
    """The cell in the middle of the first material."""
    last = 0
    for i in range(cells.shape[0]):
        if cells[i, MATERIAL] == cells[0, MATERIAL]:
            last = i
    return last // 2
