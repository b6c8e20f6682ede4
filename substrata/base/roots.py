"""Where a function is nought."""

from __future__ import annotations

from collections.abc import Callable


def root(function: Callable[[float], float], low: float, high: float, *, exact: float = 2e-12) -> float:
    """Return the place between two at which a function changes its sign.

    Args:
        function: continuous, of opposite signs at the two places.
        low: one of the places.
        high: the other.
        exact: how far off the answer may be.

    Raises:
        ValueError: when the signs are the same.
    """
    # Imported here: most of what is asked needs none, and whatever starts would wait for it.
    from scipy.optimize import brentq

    return float(brentq(function, low, high, xtol=exact))
