"""The body that is baked: from mass and density to a one-dimensional equivalent.

A finite body is baked as a body of dimension ``d`` and half thickness ``R`` that keeps two exact things: its surface over
volume, ``d/R = S/V``, and its own first eigenvalue at a very good heat transfer, ``λ₁(d)/R``; ``λ₁(d)`` is the first zero of
``J_{d/2−1}``. A slab has d = 1, a long rope 2, a ball 3.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import pi, sqrt

from substrata.base.roots import root


@dataclass(frozen=True, kw_only=True)
class Body:
    """What heat meets."""

    dimension: float  # d: 1 slab, 2 rope, 3 ball
    radius_m: float  # R
    side_per_m: float = 0.0  # perimeter over area of a flat body whose rim counts, 1/m

    @property
    def power(self) -> float:
        """N of the area ``|x/R|^n``."""
        return self.dimension - 1


_MOST = 6.0  # dimensions; a cube has 4.8


@lru_cache(maxsize=512)
def first_eigenvalue(dimension: float) -> float:
    """First zero of ``J_{d/2−1}``: π/2 for a slab, 2.4048 for a cylinder, π for a sphere.

    >>> [round(first_eigenvalue(d), 4) for d in (1.0, 2.0, 3.0)]
    [1.5708, 2.4048, 3.1416]

    Returns:
        The first zero, a number without unit.
    """
    order = dimension / 2 - 1
    # The zero lies near 1.57 + 0.75 (d - 1); from 1 to 6 dimensions this bracket holds no other.
    from scipy.special import jv  # late, as in ``root``

    return root(lambda x: float(jv(order, x)), 0.9 + 0.35 * dimension, 1.6 + 0.85 * dimension)


def slab(thickness_mm: float, perimeter_per_area: float = 0.0) -> Body:
    """Return a sheet, baked from both faces."""
    return Body(dimension=1.0, radius_m=thickness_mm / 2000, side_per_m=perimeter_per_area)


def equivalent(surface_m2: float, volume_m3: float, eigenvalue_per_m: float) -> Body:
    """Return the body of dimension d that keeps surface over volume and the first eigenvalue.

    Args:
        surface_m2: S.
        volume_m3: V.
        eigenvalue_per_m: the body's own ``λ₁/R``, 1/m.

    Source: exact for bricks and short cylinders, whose eigenvalue is known.
    """
    ratio = surface_m2 / volume_m3

    def off(d: float) -> float:
        return first_eigenvalue(d) * ratio / d - eigenvalue_per_m

    d = 1.0 if off(1.0) <= 0 else _MOST if off(_MOST) >= 0 else root(off, 1.0, _MOST, exact=1e-6)
    return Body(dimension=d, radius_m=d / ratio)


def brick(length_mm: float, width_mm: float, height_mm: float) -> Body:
    """Return a brick. Its eigenvalue: ``π·√(1/a² + 1/b² + 1/c²)``."""
    a, b, c = length_mm / 1000, width_mm / 1000, height_mm / 1000
    return equivalent(2 * (a * b + b * c + a * c), a * b * c, pi * sqrt(1 / a**2 + 1 / b**2 + 1 / c**2))


def short_cylinder(diameter_mm: float, height_mm: float) -> Body:
    """Return a disc or short cylinder. Its eigenvalue: ``√((2.4048/r)² + (π/h)²)``."""
    r, h = diameter_mm / 2000, height_mm / 1000
    eigen = sqrt((first_eigenvalue(2.0) / r) ** 2 + (pi / h) ** 2)
    return equivalent(2 * pi * r * r + 2 * pi * r * h, pi * r * r * h, eigen)


def rope(diameter_mm: float) -> Body:
    """Return a long rope."""
    return Body(dimension=2.0, radius_m=diameter_mm / 2000)


def ball(diameter_mm: float) -> Body:
    """Return a ball."""
    return Body(dimension=3.0, radius_m=diameter_mm / 2000)
