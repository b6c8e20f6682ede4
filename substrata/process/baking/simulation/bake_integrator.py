"""The time steps of a bake, compiled: a Rosenbrock pair over a block-tridiagonal system, with an adaptive step.

The pair is the modified one of orders two and three of Shampine & Reichelt (1997), SIAM J. Sci. Comput. 18:1-22: L-stable, of second
order whatever the Jacobian, its last rates the first of the next step, and with an extension that is continuous within the step, so
that no step has to end where a moment is kept. Its inner stage overshoots a boiling cell's equilibrium by seven tenths only; a pair
that does so by more swings about it in hundreds of small steps.
"""

from __future__ import annotations

import numpy as np

from substrata.base.compiled_loops import entry, part
from substrata.process.baking.simulation.bake_equations import at_faces, jacobian, rates
from substrata.process.baking.simulation.cell_properties import (
    A_0,
    AREA_OUT,
    C_S,
    C_W,
    MATERIAL,
    N_LIKE,
    RHO_S,
    VOLUME,
    browning_rate,
    water_activity,
)

GAMMA = 1.0 / (2.0 + np.sqrt(2.0))
E_32 = 6.0 + np.sqrt(2.0)
MOST_STEPS = 6000  # of a stage; an ordinary one takes about a hundred
FIRST_S, LEAST_S = 0.05, 1e-4
LEAST_GROWTH, MOST_GROWTH, SAFETY = 0.2, 3.0, 0.8
LOWER, DIAG, UPPER, INVERSE, PRODUCT = range(5)  # parts of the linear system
HEAT, VAPOUR_GONE, LIGHT_TOP, LIGHT_BOTTOM = range(4)  # what is summed over a stage
Q_TOP, Q_BOTTOM, J_TOP, J_BOTTOM, T_TOP, T_BOTTOM = range(6)  # what ``rates`` tells of the faces


@part
def factor(lower, diag, upper, scale, inverse, product):
    """Block Thomas elimination of I - scale·J; keeps the inverse pivots and the products for every stage."""
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


@part
def attempt(y, f, step, cells, around, c_v, c_hp, system, k, room, like, faces):
    """One step from y, whose rates are f[0]. Both stages come to k, the new state to room[1], its rates to f[1], like and faces.

    Returns the step's error in units of 1 K and of 2 % of a cell's water, the largest of all cells.

    Returns:
        Error of the step over its tolerance.
    """
    blocks = y.shape[0]
    lower, inverse, product = system[LOWER], system[INVERSE], system[PRODUCT]
    right, state, between, k_3 = room[0], room[1], room[2], room[3]
    scale = GAMMA * step
    factor(lower, system[DIAG], system[UPPER], scale, inverse, product)
    right[:, :] = f[0]
    solve(lower, inverse, product, scale, right, k[0])
    for b in range(blocks):
        for v in range(2):
            state[b, v] = y[b, v] + 0.5 * step * k[0, b, v]
    rates(state, cells, around, c_v, c_hp, between, like)
    for b in range(blocks):
        for v in range(2):
            right[b, v] = between[b, v] - k[0, b, v]
    solve(lower, inverse, product, scale, right, k[1])
    for b in range(blocks):
        for v in range(2):
            k[1, b, v] += k[0, b, v]
            state[b, v] = y[b, v] + step * k[1, b, v]
    record_row(rates(state, cells, around, c_v, c_hp, f[1], like), faces)
    for b in range(blocks):
        for v in range(2):
            right[b, v] = f[1, b, v] - E_32 * (k[1, b, v] - between[b, v]) - 2.0 * (k[0, b, v] - f[0, b, v])
    solve(lower, inverse, product, scale, right, k_3)
    worst = 0.0
    for b in range(blocks):
        for v in range(2):
            error = step / 6.0 * abs(k[0, b, v] - 2.0 * k[1, b, v] + k_3[b, v])
            if b == 0:
                size = 1.0
            elif v == 0:
                size = cells[b - 1, C_S] + max(y[b, 1], 0.0) * C_W
            else:
                size = 0.002 + 0.02 * abs(y[b, 1])
            worst = max(worst, error / size)
    return worst


@part
def within(y, k, step, share, out):
    """Compute the state after a share of a step: the pair's own second-order extension."""
    first, second = (
        share * (1.0 - share) / (1.0 - 2.0 * GAMMA),
        share * (share - 2.0 * GAMMA) / (1.0 - 2.0 * GAMMA),
    )
    for b in range(y.shape[0]):
        for v in range(2):
            out[b, v] = y[b, v] + step * (first * k[0, b, v] + second * k[1, b, v])


@part
def record_row(face_rates, out):
    """Put what ``rates`` tells of the faces into an array."""
    for index in range(6):
        out[index] = face_rates[index]


@part
def add(total, seconds, before, now, y, cells, colour):
    """Sum heat, vapour and the loss of lightness from one moment to another; y: the state at the later."""
    below, n = cells[0, AREA_OUT], cells.shape[0]
    half = 0.5 * seconds
    total[HEAT] += half * (before[Q_TOP] + now[Q_TOP] + below * (before[Q_BOTTOM] + now[Q_BOTTOM]))
    total[VAPOUR_GONE] += half * (before[J_TOP] + now[J_TOP] + below * (before[J_BOTTOM] + now[J_BOTTOM]))
    for face in range(2):
        spot = 0.5 * (before[T_TOP + face] + now[T_TOP + face])
        spot += colour[1 + face] * (colour[3] - spot)
        i = n - 1 if face == 0 else 0
        w = max(y[i + 1, 1], 0.0)
        a_w = water_activity(w, cells[i, A_0], y[i + 1, 0] / (cells[i, C_S] + w * C_W))
        total[LIGHT_TOP + face] *= np.exp(-seconds * colour[0] * browning_rate(spot, a_w))


@part
def keep(row, time, y, faces, total, cells, middle):
    """Write a moment down."""
    n = cells.shape[0]
    water = 0.0
    for i in range(n):
        w = y[i + 1, 1]
        water += w * cells[i, RHO_S] * cells[i, VOLUME]
        row[10 + i] = y[i + 1, 0] / (cells[i, C_S] + max(w, 0.0) * C_W)
        row[10 + n + i] = w
    row[0], row[1], row[2], row[3], row[4] = time, y[0, 0], faces[T_TOP], faces[T_BOTTOM], row[10 + middle]
    row[5], row[6], row[7], row[8], row[9] = (
        water, total[HEAT], total[VAPOUR_GONE], total[LIGHT_TOP], total[LIGHT_BOTTOM],
    )  # fmt: skip


@entry
def run_stage(y, cells, around, seconds, c_v, c_hp, colour, light, keep_every, tolerance, most_step, series):
    """Integrate one stage.

    y: (n + 1, 2), changed in place. colour: (b_factor, beta_top, beta_bottom, air_c). light: lightness of top and bottom,
    changed in place. series: (rows, 10 + 2 n): time, tray, t_top, t_bottom, t_core, water kg/m2, q_in J/m2 summed, vapour kg/m2
    summed, light_top, light_bottom, temperatures, waters; of the first moment, each ``keep_every`` seconds, and the last.

    Returns the number of rows written, and of steps taken (negative when there were too many).

    Returns:
        The kept rows and how many steps were taken.
    """
    blocks, n = y.shape[0], cells.shape[0]
    like, change, like_before = np.zeros((n, N_LIKE)), np.zeros((n, 2, N_LIKE)), np.zeros((n, N_LIKE))
    system, k, room, f = (
        np.zeros((5, blocks, 2, 2)), np.zeros((2, blocks, 2)), np.zeros((4, blocks, 2)), np.zeros((2, blocks, 2)),
    )  # fmt: skip
    y_before, before, now, faces_before = np.zeros((blocks, 2)), np.zeros(6), np.zeros(6), np.zeros(6)
    total, total_before = np.array([0.0, 0.0, light[0], light[1]]), np.zeros(4)
    middle = core_of(cells)
    record_row(rates(y, cells, around, c_v, c_hp, f[0], like), before)
    keep(series[0], 0.0, y, before, total, cells, middle)
    time, step, rows, steps, next_output = 0.0, FIRST_S, 1, 0, keep_every
    while time < seconds - 1e-9:
        if steps >= MOST_STEPS:
            return rows, -steps
        step = min(step, seconds - time, most_step)
        jacobian(y, cells, around, c_hp, like, change, system[LOWER], system[DIAG], system[UPPER])
        while True:
            worst = attempt(y, f, step, cells, around, c_v, c_hp, system, k, room, like, now) / tolerance
            if worst <= 1.0 or step <= LEAST_S:
                break
            # No number at all is the worst of errors.
            step = max(step * (max(LEAST_GROWTH, SAFETY / np.cbrt(worst)) if worst < 1e9 else LEAST_GROWTH), LEAST_S)
        while next_output < min(time + step, seconds) - 1e-9:
            within(y, k, step, (next_output - time) / step, y_before)
            record_row(at_faces(y_before, cells, around, c_v, c_hp, like_before), faces_before)
            total_before[:] = total
            add(total_before, next_output - time, before, faces_before, y_before, cells, colour)
            keep(series[rows], next_output, y_before, faces_before, total_before, cells, middle)
            rows += 1
            next_output += keep_every
        y[:, :], f[0] = room[1], f[1]
        add(total, step, before, now, y, cells, colour)
        before[:] = now
        time += step
        steps += 1
        step *= min(MOST_GROWTH, SAFETY / np.cbrt(max(worst, 1e-6)))
    keep(series[rows], time, y, before, total, cells, middle)
    light[0], light[1] = total[LIGHT_TOP], total[LIGHT_BOTTOM]
    return rows + 1, steps


@part
def core_of(cells):
    """Return the cell in the middle of the first material."""
    last = 0
    for i in range(cells.shape[0]):
        if cells[i, MATERIAL] == cells[0, MATERIAL]:
            last = i
    return last // 2
