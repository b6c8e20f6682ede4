"""The time steps of a bake, compiled: ROS2 over a block-tridiagonal system, with an adaptive step."""

from __future__ import annotations

import numpy as np

from substrata.oven.equations import (
    A_0,
    AREA_OUT,
    C_S,
    C_W,
    MATERIAL,
    N_LIKE,
    RHO_S,
    VOLUME,
    T,
    browning_rate,
    entry,
    jacobian,
    part,
    rates,
    water_activity,
)  # fmt: skip

GAMMA = 1.0 - 1.0 / np.sqrt(2.0)  # makes ROS2 L-stable (Verwer, Spee, Blom & Hundsdorfer 1999)
MOST_STEPS = 6000  # of a stage; an ordinary one takes some hundreds


@part
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


@part
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


@entry
def run_stage(y, cells, around, seconds, c_v, c_hp, colour, light, keep_every, tolerance, most_step, series):
    """Integrate one stage with ROS2 and an adaptive step.

    y: (n + 1, 2), changed in place. colour: (b_factor, beta_top, beta_bottom, air_c). light: lightness of top and bottom,
    changed in place. series: (rows, 10 + 2 n): time, tray, t_top, t_bottom, t_core, water kg/m2, q_in J/m2 summed, vapour kg/m2
    summed, light_top, light_bottom, temperatures, waters.

    Returns the number of rows written, and of steps taken (negative when a step became too small).
    """
    blocks, n = y.shape[0], cells.shape[0]
    work, by_h, by_w = np.zeros((n, N_LIKE)), np.zeros((n, N_LIKE)), np.zeros((n, N_LIKE))
    f_0, f_1, trial = np.zeros((blocks, 2)), np.zeros((blocks, 2)), np.zeros((blocks, 2))
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
                row[0], row[1], row[2], row[3], row[4] = time, y[0, 0], t_top, t_bot, work[middle, T]
                water = 0.0
                for i in range(n):
                    water += y[i + 1, 1] * cells[i, RHO_S] * cells[i, VOLUME]
                    row[10 + i] = work[i, T]
                    row[10 + n + i] = y[i + 1, 1]
                row[5], row[6], row[7], row[8], row[9] = water, heat, gone, light[0], light[1]
                rows += 1
            next_kept += keep_every
        if time >= seconds - 1e-9:
            return rows, steps
        if steps >= MOST_STEPS:
            return rows, -steps
        step = min(step, seconds - time, most_step, max(next_kept - time, 1e-3))
        jacobian(y, cells, around, c_v, c_hp, work, by_h, by_w, lower, diag, upper)
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
            a_w = water_activity(max(y[cell + 1, 1], 0.0), cells[cell, A_0], work[cell, T])
            light[face] *= np.exp(-step * colour[0] * browning_rate(spot, a_w))
        time += step
        steps += 1
        step *= min(3.0, max(0.4, 0.7 / np.sqrt(max(worst, 1e-6))))


@part
def core_of(cells):
    """The cell in the middle of the first material."""
    last = 0
    for i in range(cells.shape[0]):
        if cells[i, MATERIAL] == cells[0, MATERIAL]:
            last = i
    return last // 2
