"""A column of dough: its cells from the underside up, laid, filled, turned and topped."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from substrata.ingredients.library import Floats
from substrata.process.baking.simulation import cell_properties as properties
from substrata.process.baking.simulation.baked_material import BakeMatter
from substrata.process.baking.simulation.equivalent_body import Body

CELLS = 41


_OUTER_M = 0.25e-3  # outermost cell


KELVIN = 273.15


@dataclass(frozen=True, kw_only=True)
class Series:
    """A bake over time; k moments, n cells."""

    seconds: Floats  # (k,)
    tray_c: Floats  # (k,)
    top_c: Floats  # (k,)
    bottom_c: Floats  # (k,)
    core_c: Floats  # (k,)
    water: Floats  # (k,) kg per m2 of face
    heat: Floats  # (k,) J per m2 of face, through both faces since the stage began
    vapour: Floats  # (k,) kg per m2 of face, likewise
    light_top: Floats  # (k,)
    light_bottom: Floats  # (k,)
    scorch_top: Floats  # (k,) minutes at 180 degC that the face has had, by the rate of scorching
    scorch_bottom: Floats  # (k,)
    temperatures: Floats  # (k, n) from the bottom up
    waters: Floats  # (k, n) kg per kg dry solids
    steps: int = 0


@dataclass
class Column:
    """The dough on its way: cells from the bottom up, their state, the tray and the faces."""

    cells: Floats  # (n, properties.N_CELL)
    state: Floats  # (n + 1, 2)
    light: Floats  # (2,) top, bottom
    scorch: Floats  # (2,) top, bottom; min at 180 degC
    dry: float  # kg dry solids per m2 of face
    seconds: float = 0.0
    past: list[Series] = field(default_factory=list)

    @property
    def water(self) -> float:
        """Kg per m2 of face."""
        return float(self.state[1:, 1] @ (self.cells[:, properties.RHO_S] * self.cells[:, properties.VOLUME]))

    @property
    def enthalpy(self) -> float:
        """J per m2 of face, 0 at 0 °C."""
        return float(self.state[1:, 0] @ (self.cells[:, properties.RHO_S] * self.cells[:, properties.VOLUME]))

    @property
    def temperatures(self) -> Floats:
        """°C of each cell, shape (n,)."""
        result: Floats = self.state[1:, 0] / (self.cells[:, properties.C_S] + self.state[1:, 1] * properties.C_W)
        return result

    def copy(self) -> Column:
        """Return the same state, to go on from twice."""
        return Column(
            cells=self.cells.copy(),
            state=self.state.copy(),
            light=self.light.copy(),
            scorch=self.scorch.copy(),
            dry=self.dry,
            seconds=self.seconds,
            past=list(self.past),
        )


def column(
    matter: BakeMatter, body: Body, *, porosity: float, start_c: float, ware_c: float, light: float, cells: int = CELLS
) -> Column:
    """Return a dough before the oven.

    Args:
        matter: what it is made of.
        body: its shape.
        porosity: share of its bulk volume that is gas.
        start_c: temperature of the dough.
        ware_c: temperature of what it lies on.
        light: lightness of its faces.
        cells: odd number of cells.
    """
    sizes, volumes, areas = _grid(body, cells)
    result = np.zeros((cells, properties.N_CELL))
    result[:, properties.X_SIZE], result[:, properties.VOLUME], result[:, properties.AREA_OUT] = sizes, volumes, areas
    result[:-1, properties.DISTANCE] = (sizes[:-1] + sizes[1:]) / 2
    _fill(result, matter, porosity, material=0)
    state = np.zeros((cells + 1, 2))
    state[0, 0] = ware_c
    state[1:, 0] = start_c * (matter.c_s + matter.water * properties.C_W)
    state[1:, 1] = matter.water
    dry = float((result[:, properties.RHO_S] * result[:, properties.VOLUME]).sum())
    return Column(cells=result, state=state, light=np.array([light, light]), scorch=np.zeros(2), dry=dry)


def _fill(cells: Floats, matter: BakeMatter, porosity: float, *, material: int) -> None:
    rho_s = matter.density * (1 - porosity) / (1 + matter.water)
    cells[:, properties.RHO_S], cells[:, properties.C_S], cells[:, properties.K_S] = rho_s, matter.c_s, matter.k_s
    cells[:, properties.V_S], cells[:, properties.A_0], cells[:, properties.MATERIAL] = (
        rho_s * matter.v_s,
        matter.sorption,
        material,
    )


def grid_sizes(body: Body, cells: int) -> Floats:
    """Sizes of the cells from the bottom up, m: fine at both faces, coarse in the middle."""
    radius, half = body.radius_m, (cells - 1) // 2
    first = min(_OUTER_M, radius / half)
    low, high = 1.0, 4.0

    def reach(growth: float) -> float:
        return first * (sum(growth**k for k in range(half)) + growth**half / 2)

    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if reach(middle) < radius else (low, middle)
    outer = np.array([first * low**k for k in range(half)])
    sizes = np.concatenate((outer, [first * low**half], outer[::-1]))
    result: Floats = sizes * (2 * radius / sizes.sum())
    return result


def _grid(body: Body, cells: int) -> tuple[Floats, Floats, Floats]:
    """Sizes, volumes per face area, and areas of the lower faces."""
    radius, sizes = body.radius_m, grid_sizes(body, cells)
    edges = -radius + np.concatenate(([0.0], np.cumsum(sizes)))
    n = body.power
    primitive = np.sign(edges) * np.abs(edges / radius) ** (n + 1) * radius / (n + 1)
    return sizes, np.diff(primitive), np.abs(edges[:-1] / radius) ** n


def filled_sizes(sizes: Floats, thickness_m: float) -> tuple[Floats, NDArray[np.bool_]]:
    """Sizes of the cells of a slab whose middle is a filling, and which of them it fills; both layers keep their thickness.

    The same cells fill it however thick it is: were they chosen by where they lie, a hair's breadth would change the grid.

    Args:
        sizes: of the cells from the bottom up, m; shape (n,), n odd.
        thickness_m: of the filling.

    Returns:
        Cell sizes in m and which cells are filling, each shape (cells,).
    """
    whole, n = sizes.sum(), len(sizes)
    inside = np.abs(np.arange(n) - n // 2) <= n // 6
    scale = np.where(inside, thickness_m / sizes[inside].sum(), (whole - thickness_m) / sizes[~inside].sum())
    return sizes * scale, inside


def fill(dough: Column, matter: BakeMatter, thickness_mm: float, *, start_c: float) -> None:
    """Let the middle of a slab be a filling: what lies between two sheets of dough."""
    sizes, inside = filled_sizes(dough.cells[:, properties.X_SIZE], thickness_mm / 1000)
    cells = dough.cells
    cells[:, properties.X_SIZE] = cells[:, properties.VOLUME] = sizes
    cells[:-1, properties.DISTANCE] = (sizes[:-1] + sizes[1:]) / 2
    filled = cells[inside]
    _fill(filled, matter, 0.0, material=1)
    cells[inside] = filled
    dough.state[1:, 0][inside] = start_c * (matter.c_s + matter.water * properties.C_W)
    dough.state[1:, 1][inside] = matter.water
    dough.dry = float((cells[:, properties.RHO_S] * cells[:, properties.VOLUME]).sum())


def flip(dough: Column) -> None:
    """Turn the dough over: top becomes bottom. The tray stays."""
    cells = dough.cells[::-1].copy()
    # A face between two cells belongs to the upper one: turned over, to the other.
    upper = np.concatenate((dough.cells[1:, properties.AREA_OUT], [1.0]))[::-1]
    cells[:, properties.AREA_OUT] = upper
    cells[:-1, properties.DISTANCE] = dough.cells[:-1, properties.DISTANCE][::-1]
    cells[-1, properties.DISTANCE] = 0.0
    dough.cells = cells
    dough.state[1:] = dough.state[1:][::-1].copy()
    dough.light = dough.light[::-1].copy()
    dough.scorch = dough.scorch[::-1].copy()


def top(
    dough: Column, matter: BakeMatter, thickness_mm: float, *, start_c: float, light: float, cells: int = 9
) -> None:
    """Lay a topping on: further cells of another matter, with a face of their own."""
    size = thickness_mm / 1000 / cells
    more = np.zeros((cells, properties.N_CELL))
    more[:, properties.X_SIZE] = more[:, properties.DISTANCE] = more[:, properties.VOLUME] = size
    more[:, properties.AREA_OUT] = 1.0
    _fill(more, matter, 0.05, material=int(dough.cells[:, properties.MATERIAL].max()) + 1)
    dough.cells[-1, properties.DISTANCE] = (dough.cells[-1, properties.X_SIZE] + size) / 2
    more[-1, properties.DISTANCE] = 0.0
    dough.cells = np.vstack((dough.cells, more))
    state = np.zeros((cells, 2))
    state[:, 0] = start_c * (matter.c_s + matter.water * properties.C_W)
    state[:, 1] = matter.water
    dough.state = np.vstack((dough.state, state))
    dough.dry += float((more[:, properties.RHO_S] * more[:, properties.VOLUME]).sum())
    dough.light = np.array([light, dough.light[1]])
    dough.scorch = np.array([0.0, dough.scorch[1]])
