"""Level slices: closed curves as long as a girth, with what is spare over the body standing in folds.

          back                    ╭─╮ ╭─╮
       ╭────────╮               ╭─╯ ╰─╯ ╰─╮       base    an ellipse as long as the cloth is held out
      │          │      ──►     │         │       folds   waves on it, as high as makes the curve as long
       ╰────────╯               ╰─╮ ╭─╮ ╭─╯               as the girth
          front                   ╰─╯ ╰─╯

A half of a slice is said by shares of its length, from 0 at the centre front to 1 at the centre back. x is to the side,
y to the front, mm.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Numbers = NDArray[np.float64]

SAMPLES = 181
"""Points on half a slice."""

ASPECTS = np.linspace(0.25, 1.6, 28)

LEAST_RATIO = 1.0005
"""A cloth longer than its base by less has no folds."""


@lru_cache(maxsize=1)
def _ellipses() -> tuple[Numbers, Numbers]:
    """Half ellipses of perimeter 1 by aspect (depth over width): their x and y at even shares of their length."""
    turn = np.linspace(0.0, np.pi, 1441)
    even = np.linspace(0.0, 1.0, SAMPLES)
    xs, ys = [], []
    for aspect in ASPECTS:
        x, y = np.sin(turn), aspect * np.cos(turn)
        run = np.concatenate(([0.0], np.cumsum(np.hypot(np.diff(x), np.diff(y)))))
        xs.append(np.interp(even, run / run[-1], x) / (2 * run[-1]))
        ys.append(np.interp(even, run / run[-1], y) / (2 * run[-1]))
    return np.array(xs), np.array(ys)


@lru_cache(maxsize=1)
def _steepness() -> tuple[Numbers, Numbers]:
    """How much longer a wave is than its base, for steepness 2π · height ÷ wavelength."""
    steep = np.linspace(0.0, 12.0, 600)
    turn = np.linspace(0.0, 2 * np.pi, 256, endpoint=False)  # a whole wave, so that its mean is as good as exact
    return steep, np.sqrt(1 + (steep[:, None] * np.cos(turn)[None, :]) ** 2).mean(axis=1)


def half_ellipses(perimeter: Numbers, aspect: Numbers) -> tuple[Numbers, Numbers]:
    """Half ellipses, one a row, of whole perimeters and aspects: x and y at even shares of their length."""
    xs, ys = _ellipses()
    place = np.clip((aspect - ASPECTS[0]) / (ASPECTS[1] - ASPECTS[0]), 0, len(ASPECTS) - 1.001)
    low = place.astype(int)
    part = (place - low)[:, None]
    along = perimeter[:, None]
    return (
        along * (xs[low] * (1 - part) + xs[low + 1] * part),
        along * (ys[low] * (1 - part) + ys[low + 1] * part),
    )


def phases(folds: int, uneven: float) -> Numbers:
    """How many waves lie before each of a half slice's places; ``uneven`` moves them a little, as gathers lie."""
    even = np.linspace(0.0, 1.0, SAMPLES)
    made: Numbers = folds * even + uneven * (np.sin(2 * np.pi * 3 * even) + 0.6 * np.sin(2 * np.pi * 7 * even))
    return made


def folded(x: Numbers, y: Numbers, half_girth: Numbers, phase: Numbers | None) -> tuple[Numbers, Numbers]:
    """Half slices with waves on them so that each is as long as half its girth; None: no waves."""
    base = _lengths(x, y)
    ratio = np.maximum(half_girth / base, 1.0)
    if phase is None or float(ratio.max()) < LEAST_RATIO:
        return x, y
    folds = float(phase[-1])
    wave = -np.cos(2 * np.pi * phase)[None, :]
    dx, dy = np.gradient(x, axis=1), np.gradient(y, axis=1)
    size = np.hypot(dx, dy)
    out_x, out_y = -dy / size, dx / size
    steep, longer = _steepness()
    height = (np.interp(ratio, longer, steep) * base / (2 * np.pi * folds))[:, None]
    height[ratio < LEAST_RATIO] = 0.0
    for _ in range(3):
        made_x, made_y = x + out_x * wave * height, y + out_y * wave * height
        length = _lengths(made_x, made_y)
        over, wanted = np.maximum(length**2 - base**2, 1e-9), np.maximum(half_girth**2 - base**2, 0.0)
        height = height * np.clip(np.sqrt(wanted / over), 0.5, 2.0)[:, None]
    return x + out_x * wave * height, y + out_y * wave * height


def _lengths(x: Numbers, y: Numbers) -> Numbers:
    made: Numbers = np.hypot(x[:, 1:] - x[:, :-1], y[:, 1:] - y[:, :-1]).sum(axis=1)
    return made
