"""Cubics in plain numbers: their parallels, which are most of the work of a make-up."""

from __future__ import annotations

from functools import lru_cache
from math import hypot

OFFSET_TOLERANCE = 0.01
"""How far an offset cubic may lie from the true parallel curve (mm)."""

NO_HANDLE = 1e-9 / 3
"""A shorter handle says nothing of a direction (mm)."""

HALVED = 8
"""A cubic is halved so often at most."""

Handles = tuple[float, float, float, float, float, float, float, float]
"""A cubic's four places as plain numbers, x before y."""


def parallels(piece: Handles, by: float) -> list[Handles]:
    """The parallels of a cubic ``by`` mm to its left, in order; none where it bends more tightly."""
    found: list[Handles] = []
    _add(piece, by, HALVED, found)
    return found


def _add(piece: Handles, by: float, depth: int, found: list[Handles]) -> None:
    """The parallels of a cubic, in order, added to those found; halved at most ``depth`` times."""
    sx, sy, ax, ay, bx, ty, ex, ey = piece
    px, py, qx, qy, rx, ry = ax - sx, ay - sy, bx - ax, ty - ay, ex - bx, ey - ty
    fast, slow = hypot(px, py), hypot(rx, ry)
    # 1 − κ·by at either end and in the middle; without a handle there is no bend to speak of
    leaving = 1 - by * 2 / 3 * (px * qy - py * qx) / fast**3 if fast > 1e-12 else 1.0
    arriving = 1 - by * 2 / 3 * (qx * ry - qy * rx) / slow**3 if slow > 1e-12 else 1.0
    vx, vy = 0.75 * (px + 2 * qx + rx), 0.75 * (py + 2 * qy + ry)
    speed = hypot(vx, vy)
    between = 1 - by * 3 * (vx * (ry - py) - vy * (rx - px)) / speed**3 if speed > 1e-12 else 1.0
    runs_on = leaving >= 0 and arriving >= 0 and between >= 0
    if not runs_on and (depth == 0 or (leaving < 0 and arriving < 0 and between < 0)):
        return  # bent tighter than the offset: the parallel would run backwards there
    if runs_on:
        (ux, uy), (wx, wy) = _ends_of(piece, px, py, fast, rx, ry, slow)
        sx_, sy_, ex_, ey_ = sx - uy * by, sy + ux * by, ex - wy * by, ey + wx * by
        made = sx_, sy_, sx_ + px * leaving, sy_ + py * leaving, ex_ - rx * arriving, ey_ - ry * arriving, ex_, ey_
        if depth == 0 or not _strays(piece, made, abs(by)):
            found.append(made)
            return
    fx, fy, mx, my, lx, ly = (sx + ax) / 2, (sy + ay) / 2, (ax + bx) / 2, (ay + ty) / 2, (bx + ex) / 2, (ty + ey) / 2
    gx, gy, hx, hy = (fx + mx) / 2, (fy + my) / 2, (mx + lx) / 2, (my + ly) / 2
    cx, cy = (gx + hx) / 2, (gy + hy) / 2
    _add((sx, sy, fx, fy, gx, gy, cx, cy), by, depth - 1, found)
    _add((cx, cy, hx, hy, lx, ly, ex, ey), by, depth - 1, found)


def _ends_of(
    piece: Handles, px: float, py: float, fast: float, rx: float, ry: float, slow: float
) -> tuple[tuple[float, float], tuple[float, float]]:
    """The directions at a cubic's ends, also where a handle sits on its end."""
    if min(fast, slow) > NO_HANDLE:
        return (px / fast, py / fast), (rx / slow, ry / slow)
    (nx, ny), (mx, my) = _place(piece, NEARBY), _place(piece, 1 - NEARBY)
    sx, sy, ex, ey = piece[0], piece[1], piece[6], piece[7]
    return _unit(nx - sx, ny - sy), _unit(ex - mx, ey - my)


NEARBY = 1e-4
"""Where a handle says nothing of a direction, the curve so far on does (of its parameter)."""


def _place(piece: Handles, t: float) -> tuple[float, float]:
    sx, sy, ax, ay, bx, ty, ex, ey = piece
    u = 1 - t
    a, b, c, d = u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t
    return a * sx + b * ax + c * bx + d * ex, a * sy + b * ay + c * ty + d * ey


def _unit(x: float, y: float) -> tuple[float, float]:
    size = hypot(x, y)
    return (x / size, y / size) if size else (x, y)


def _strays(piece: Handles, made: Handles, away: float) -> bool:
    """Whether a cubic lies anywhere else than ``away`` mm beside another, looked at at its quarters."""
    px, py, qx, qy, rx, ry, sx, sy = piece
    kx, ky, lx, ly, mx, my, nx, ny = made
    kx, ky, lx, ly, mx, my, nx, ny = kx - px, ky - py, lx - qx, ly - qy, mx - rx, my - ry, nx - sx, ny - sy
    for a, b, c, d in _QUARTERS:
        off = hypot(a * kx + b * lx + c * mx + d * nx, a * ky + b * ly + c * my + d * ny) - away
        if not -OFFSET_TOLERANCE < off < OFFSET_TOLERANCE:
            return True
    return False


@lru_cache(maxsize=512)
def shares(count: int) -> tuple[tuple[float, float, float, float], ...]:
    """What a cubic's four places weigh at each inner place of so many equal steps of its parameter."""
    return tuple(
        ((1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t * t, t**3) for t in (i / count for i in range(1, count))
    )


_QUARTERS = shares(4)
