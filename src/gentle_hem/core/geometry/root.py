"""Where a function crosses nought."""

from __future__ import annotations

from collections.abc import Callable


def root(of: Callable[[float], float], low: float, high: float, within: float = 1e-6) -> float:
    """Where a function that changes its sign between two values is nought (Brent's method).

    Raises ValueError when the sign is the same at both ends.
    """
    from scipy.optimize import brentq  # here, since it alone takes most of a second of the start

    return float(brentq(of, low, high, xtol=within))
