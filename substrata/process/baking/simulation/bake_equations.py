"""The equations of a bake, compiled: the fluxes between its cells, and how these change with the state.

State of each cell: enthalpy ``h`` (J per kg dry solids, 0 at 0 °C) and water ``w`` (kg per kg dry solids). Block 0 is the
tray: its "enthalpy" is its temperature in °C, its water stays 0. The equations stand in ``docs/science.md``.

Everything here is plain arrays for speed; ``simulate.py`` gives them names, ``integrator.py`` takes the steps.
"""

from __future__ import annotations

import numpy as np

from substrata.base.compiled_loops import entry, part
from substrata.process.baking.simulation.cell_properties import (
    AREA_OUT,
    ATMOSPHERE,
    C_S,
    C_V,
    C_W,
    DISTANCE,
    H_FG0,
    LEAST_MOBILE,
    LIQUID,
    MATERIAL,
    MOBILE,
    P_V,
    R_V,
    RHO_S,
    STEFAN,
    VOLUME,
    X_SIZE,
    K,
    T,
    W,
    changes,
    properties,
)

# Entries of the surroundings' array.
(
    AIR_C, WALL_C, H_TOP, EPS_TOP, VENT_TOP, H_BOTTOM, EPS_BOTTOM, CONTACT, H_CONTACT, LEAK, TRAY_J, TRAY_FIN, TRAY_EPS, FRYING, PRESSURE,
    VAPOUR, SIDE, TOP_AIR_C, BOIL,
) = range(19)  # fmt: skip
N_AROUND = 19
SIGMA = 5.670374419e-8  # W/(m2 K4), Stefan-Boltzmann
C_P_AIR = 1006.0
ASIDE_T, ASIDE_W = 1e-3, 1e-6  # how far an outermost cell is moved to see how its face changes


@part
def between(like, cells, i):
    """Enthalpy and water flowing up from cell i to the next, W/m2 and kg/(m2 s)."""
    # In series: half of this cell, half of the next.
    s_i, s_k = 0.5 * cells[i, X_SIZE], 0.5 * cells[i + 1, X_SIZE]
    k_i, k_k = like[i, K], like[i + 1, K]
    g_i, g_k = like[i, MOBILE], like[i + 1, MOBILE]
    t_i, t_k = like[i, T], like[i + 1, T]
    j = (like[i, P_V] - like[i + 1, P_V]) * g_i * g_k / (s_i * g_k + s_k * g_i)
    q = (t_i - t_k) * k_i * k_k / (s_i * k_k + s_k * k_i) + j * (H_FG0 + C_V * (t_i if j > 0 else t_k))
    if cells[i, MATERIAL] == cells[i + 1, MATERIAL]:
        w_i, w_k = like[i, W], like[i + 1, W]
        j_l = 0.5 * (like[i, LIQUID] * w_i + like[i + 1, LIQUID] * w_k) * (w_i - w_k) / cells[i, DISTANCE]
        q += j_l * C_W * (t_i if j_l > 0 else t_k)
        j += j_l
    return q, j


@part
def bottom_face(t_tray, like, cells, around):
    """Heat from the tray, heat in all and vapour out through the bottom, W/m2 and kg/(m2 s); and the face's temperature."""
    t_0 = like[0, T]
    half = 0.5 * cells[0, X_SIZE]
    inner = half / like[0, K]
    touch = around[CONTACT]
    q_touch = touch * (t_tray - t_0) / (1.0 / around[H_CONTACT] + inner) if touch > 0 else 0.0
    h_r = radiant(around[EPS_BOTTOM], around[WALL_C], t_0)
    h_b = around[H_BOTTOM]
    q_bare = (1 - touch) * (h_b * (around[AIR_C] - t_0) + h_r * (around[WALL_C] - t_0)) / (1.0 + (h_b + h_r) * inner)
    open_share = (1 - touch) + touch * around[LEAK]
    j = open_share * vapour_out(
        like[0, P_V], like[0, MOBILE], like[0, STEFAN], half, h_b, around, t_0, around[AIR_C], around[FRYING] > 0
    )
    return q_touch, q_touch + q_bare, j, t_0 + (q_touch + q_bare) * inner


@part
def top_face(like, cells, around):
    """Heat in and vapour out through the top, W/m2 and kg/(m2 s); and the face's temperature."""
    m = cells.shape[0] - 1
    t_m = like[m, T]
    half = 0.5 * cells[m, X_SIZE]
    inner = half / like[m, K]
    h_t = around[H_TOP]
    h_r = radiant(around[EPS_TOP], around[WALL_C], t_m)
    q = (h_t * (around[TOP_AIR_C] - t_m) + h_r * (around[WALL_C] - t_m)) / (1.0 + (h_t + h_r) * inner)
    j = around[VENT_TOP] * vapour_out(
        like[m, P_V], like[m, MOBILE], like[m, STEFAN], half, h_t, around, t_m, around[TOP_AIR_C], False
    )
    return q, j, t_m + q * inner


@part
def tray_gain(t_tray, q_touch, around):
    """Warming of the tray, K/s."""
    if around[TRAY_J] <= 0:
        return 0.0
    h_r = radiant(around[TRAY_EPS], around[WALL_C], t_tray)
    gain = around[TRAY_FIN] * (around[H_BOTTOM] * (around[AIR_C] - t_tray) + h_r * (around[WALL_C] - t_tray))
    return (gain - q_touch) / around[TRAY_J]


@part
def radiant(eps: float, wall_c: float, t_c: float) -> float:
    """Radiation as a coefficient, W/(m2 K)."""
    a, b = wall_c + 273.15, t_c + 273.15
    return eps * SIGMA * (a * a + b * b) * (a + b)


@part
def vapour_out(p_v, gamma, stefan, half, h, around, t_c, air_c, in_oil):
    """Vapour through an open face, kg/(m2 s): the half cell and the air in series; Lewis. In oil only what boils leaves."""
    p_out = around[PRESSURE]
    kelvin = t_c + 273.15
    if in_oil:
        over = (p_v - p_out) / 2000.0
        driving = 2000.0 * (over if over > 30 else np.log1p(np.exp(over)))
        return driving * max(gamma, LEAST_MOBILE) / half
    rho = 1.2 * 293.15 / (0.5 * (kelvin + air_c + 273.15)) * p_out / ATMOSPHERE
    k_m = 1.1 * h / (rho * C_P_AIR) * stefan / (R_V * kelvin)
    return (p_v - around[VAPOUR]) / (1.0 / max(k_m, 1e-16) + half / max(gamma, LEAST_MOBILE))


@entry
def rates(y, cells, around, c_v, c_hp, out, like):
    """Time derivatives of all blocks.

    y, out: (n + 1, 2); cells: (n, N_CELL); around: (N_AROUND,); like: (n, N_LIKE), what the cells are like, is filled.
    Returns heat and vapour through both faces and the surface temperatures: q_top, q_bottom, j_top, j_bottom, t_top, t_bottom.

    Returns:
        Time derivatives, shape (blocks, 2), 1/s.
    """
    n = cells.shape[0]
    for i in range(n):
        properties(y[i + 1, 0], y[i + 1, 1], cells, i, c_v, c_hp, around[PRESSURE], around[BOIL], like)
    q_touch, q_bottom, j_bottom, t_bottom = bottom_face(y[0, 0], like, cells, around)
    q_top, j_top, t_top = top_face(like, cells, around)
    out[0, 0], out[0, 1] = tray_gain(y[0, 0], q_touch, around), 0.0
    q_in, j_in = q_bottom - j_bottom * (H_FG0 + C_V * like[0, T]), -j_bottom
    a_in = cells[0, AREA_OUT]  # area of the bottom face, of the surface's
    for i in range(n):
        if i < n - 1:
            q, j = between(like, cells, i)
            a_out = cells[i + 1, AREA_OUT]
        else:
            q, j, a_out = -(q_top - j_top * (H_FG0 + C_V * like[i, T])), j_top, 1.0
        mass = cells[i, RHO_S] * cells[i, VOLUME]
        side = around[SIDE] * cells[i, VOLUME] * (around[AIR_C] - like[i, T])
        out[i + 1, 0] = (a_in * q_in - a_out * q + side) / mass
        out[i + 1, 1] = (a_in * j_in - a_out * j) / mass
        q_in, j_in, a_in = q, j, a_out
    return q_top, q_bottom, j_top, j_bottom, t_top, t_bottom


@part
def at_faces(y, cells, around, c_v, c_hp, like):
    """Compute what ``rates`` returns, without the cells between the outermost; like: filled for these."""
    m = cells.shape[0] - 1
    properties(y[1, 0], y[1, 1], cells, 0, c_v, c_hp, around[PRESSURE], around[BOIL], like)
    properties(y[m + 1, 0], y[m + 1, 1], cells, m, c_v, c_hp, around[PRESSURE], around[BOIL], like)
    _, q_bottom, j_bottom, t_bottom = bottom_face(y[0, 0], like, cells, around)
    q_top, j_top, t_top = top_face(like, cells, around)
    return q_top, q_bottom, j_top, j_bottom, t_top, t_bottom


@entry
def jacobian(y, cells, around, c_hp, like, change, lower, diag, upper):
    """Fill the block-tridiagonal Jacobian of ``rates``.

    It holds the derivatives of the cells' properties and of the flows, the faces by differences, turned from temperature to enthalpy.

    like: what the cells are like at y, as ``rates`` left it. change: (n, 2, N_LIKE), room for its derivatives.
    lower, diag, upper: (n + 1, 2, 2): how each block's rates change with the block below, itself and the block above.
    """
    n = cells.shape[0]
    lower[:], diag[:], upper[:] = 0.0, 0.0, 0.0
    for i in range(n):
        changes(cells, i, c_hp, around[PRESSURE], around[BOIL], like, change)
    flows_change(like, change, cells, lower, diag, upper)
    faces_change(y[0, 0], like, change, cells, around, lower, diag, upper)
    for i in range(n):
        # Block i + 1 is a column of its own diagonal, of the block below's upper and of the block above's lower.
        b = i + 1
        diag[b, 0, 0] -= around[SIDE] / cells[i, RHO_S]
        per_h = 1.0 / (cells[i, C_S] + like[i, W] * C_W)
        by_w = C_W * like[i, T] * per_h
        for row in range(2):
            diag[b, row, 1] -= by_w * diag[b, row, 0]
            diag[b, row, 0] *= per_h
            upper[i, row, 1] -= by_w * upper[i, row, 0]
            upper[i, row, 0] *= per_h
            if b < n:
                lower[b + 1, row, 1] -= by_w * lower[b + 1, row, 0]
                lower[b + 1, row, 0] *= per_h


@part
def flows_change(like, change, cells, lower, diag, upper):
    """Add the flows between cells to the Jacobian, by temperature and water: the derivatives of ``between``."""
    for i in range(cells.shape[0] - 1):
        a = cells[i + 1, AREA_OUT]
        below, above = a / (cells[i, RHO_S] * cells[i, VOLUME]), a / (cells[i + 1, RHO_S] * cells[i + 1, VOLUME])
        s_i, s_k = 0.5 * cells[i, X_SIZE], 0.5 * cells[i + 1, X_SIZE]
        k_i, k_k = like[i, K], like[i + 1, K]
        g_i, g_k = like[i, MOBILE], like[i + 1, MOBILE]
        t_i, t_k, w_i, w_k = like[i, T], like[i + 1, T], like[i, W], like[i + 1, W]
        # In series: d(x·y / (s·y + r·x)) by dx is s·(y / (s·y + r·x))².
        u, g = 1.0 / (s_i * k_k + s_k * k_i), 1.0 / (s_i * g_k + s_k * g_i)
        passes_q, passes_j = k_i * k_k * u, g_i * g_k * g
        q_k_i, q_k_k = s_i * k_k * k_k * u * u * (t_i - t_k), s_k * k_i * k_i * u * u * (t_i - t_k)
        dp = like[i, P_V] - like[i + 1, P_V]
        j_g_i, j_g_k = s_i * g_k * g_k * g * g * dp, s_k * g_i * g_i * g * g * dp
        j_v = passes_j * dp
        h_up = H_FG0 + C_V * (t_i if j_v > 0 else t_k)
        half = 0.5 / cells[i, DISTANCE] if cells[i, MATERIAL] == cells[i + 1, MATERIAL] else 0.0
        sum_l = like[i, LIQUID] * w_i + like[i + 1, LIQUID] * w_k
        h_l = C_W * (t_i if w_i > w_k else t_k)
        # What a warmer cell sends with it: the heat conducted, and that of the vapour and liquid it is the source of.
        from_i = passes_q + (j_v * C_V if j_v > 0 else 0.0) + (half * sum_l * (w_i - w_k) * C_W if w_i > w_k else 0.0)
        from_k = -passes_q + (0.0 if j_v > 0 else j_v * C_V) + (0.0 if w_i > w_k else half * sum_l * (w_i - w_k) * C_W)
        for var in range(2):
            for b in range(i, i + 2):
                low = b == i
                d_l = change[b, var, LIQUID] * like[b, W]
                if var == 0:
                    d_q, d_w = from_i if low else from_k, 0.0
                else:
                    d_l += like[b, LIQUID]
                    d_q, d_w = 0.0, 1.0 if low else -1.0
                d_j = (j_g_i if low else j_g_k) * change[b, var, MOBILE] + (passes_j if low else -passes_j) * change[
                    b, var, P_V
                ]
                d_jl = half * (d_l * (w_i - w_k) + sum_l * d_w)
                d_q += (q_k_i if low else q_k_k) * change[b, var, K] + d_j * h_up + d_jl * h_l
                d_j += d_jl
                diag_b, sign = (i + 1, -below) if low else (i + 2, above)
                diag[diag_b, 0, var] += sign * d_q
                diag[diag_b, 1, var] += sign * d_j
                if low:
                    lower[i + 2, 0, var] = above * d_q
                    lower[i + 2, 1, var] = above * d_j
                else:
                    upper[i + 1, 0, var] = -below * d_q
                    upper[i + 1, 1, var] = -below * d_j


@part
def faces_change(t_tray, like, change, cells, around, lower, diag, upper):
    """Add both faces and the tray to the Jacobian: an outermost cell is moved a little in temperature (0), then in water (1)."""
    n = cells.shape[0]
    m = n - 1
    bottom, top = cells[0, AREA_OUT] / (cells[0, RHO_S] * cells[0, VOLUME]), 1.0 / (cells[m, RHO_S] * cells[m, VOLUME])
    touch_0, q_0, j_0, _ = bottom_face(t_tray, like, cells, around)
    gain_0 = tray_gain(t_tray, touch_0, around)
    q_m, j_m, _ = top_face(like, cells, around)
    moved = like.copy()
    for var in range(2):
        step = ASIDE_T if var == 0 else ASIDE_W
        for i in (0, m):
            for p in (P_V, K, MOBILE, STEFAN):
                moved[i, p] = like[i, p] + change[i, var, p] * step
            moved[i, T] = like[i, T] + (step if var == 0 else 0.0)
        touch, q, j, _ = bottom_face(t_tray, moved, cells, around)
        gained = q - q_0 - j * (H_FG0 + C_V * moved[0, T]) + j_0 * (H_FG0 + C_V * like[0, T])
        diag[1, 0, var] += bottom * gained / step
        diag[1, 1, var] -= bottom * (j - j_0) / step
        upper[0, 0, var] = (tray_gain(t_tray, touch, around) - gain_0) / step
        q, j, _ = top_face(moved, cells, around)
        gained = q - q_m - j * (H_FG0 + C_V * moved[m, T]) + j_m * (H_FG0 + C_V * like[m, T])
        diag[n, 0, var] += top * gained / step
        diag[n, 1, var] -= top * (j - j_m) / step
    touch, q, _, _ = bottom_face(t_tray + ASIDE_T, like, cells, around)
    lower[1, 0, 0] = bottom * (q - q_0) / ASIDE_T
    diag[0, 0, 0] = (tray_gain(t_tray + ASIDE_T, touch, around) - gain_0) / ASIDE_T
