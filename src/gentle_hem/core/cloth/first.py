"""This width and this many metres: how long, how full can it be? (trade 7.5, 12)

Circles are laid only in ways whose fit can be proved. A piece is a disc of the outer cut radius R, or what is left
of it beside one or two straight edges with their allowance a:

   whole         half, opposed               quarter, opposed
   ╭───╮         ┃╲    centres ≥ 2R apart     ┌─╮      corners ≥ 2R apart
   │ · │         ┃ )  ╱┃                      │· ╲
   ╰───╯         ┃╱  ( ┃                      └───   ╲ ·│
                      ╲┃                              ╰─┘

Two discs whose centres lie 2R apart do not overlap, so neither do the parts of them.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import floor, sqrt

STEPS = 80


@dataclass(frozen=True, slots=True)
class Lying:
    """One piece on the cloth: the centre of its disc, and the box its straight edges leave of it."""

    x: float
    y: float
    left: float
    bottom: float
    right: float
    top: float


Laid = list[Lying]
FAR = 1e6


def whole_discs(radius: float, width: float, length: float, count: int) -> Laid | None:
    """Whole rings in a row along the cloth, or in rows where two fit beside each other."""
    across = floor(width / (2 * radius) + 1e-9)
    if across < 1:
        return None
    rows = -(-count // across)
    if rows * 2 * radius > length + 1e-9:
        return None
    return [
        Lying(radius * (1 + 2 * (k % across)), radius * (1 + 2 * (k // across)), -FAR, -FAR, FAR, FAR)
        for k in range(count)
    ]


def half_discs(radius: float, width: float, length: float, count: int, allowance: float) -> Laid | None:
    """Halves: their straight edges on the two selvedges in turn, or across the cloth one above the other."""
    return _opposed_halves(radius, width, length, count, allowance) or _stacked_halves(
        radius, width, length, count, allowance
    )


def _opposed_halves(radius: float, width: float, length: float, count: int, a: float) -> Laid | None:
    inner = width - 2 * a
    if inner + a < radius:
        return None
    if count == 1:
        return (
            [Lying(a, radius, 0, -FAR, FAR, FAR)]
            if 2 * radius <= length + 1e-9 and a + radius <= width + 1e-9
            else None
        )
    shift = sqrt(max(4 * radius**2 - inner**2, 0.0)) if inner < 2 * radius else 0.0
    shift = max(shift, radius * 1e-9)
    # neighbours on one selvedge lie a diameter apart; the other selvedge's lie between them
    ys = [radius]
    for k in range(1, count):
        same = ys[k - 2] + 2 * radius if k >= 2 else -FAR
        ys.append(max(ys[k - 1] + shift if shift > 1e-6 else ys[k - 1], same))
    if ys[-1] + radius > length + 1e-9 or a + radius > width + 1e-9:
        return None
    return [
        Lying(a, y, 0, -FAR, FAR, FAR) if k % 2 == 0 else Lying(width - a, y, -FAR, -FAR, width, FAR)
        for k, y in enumerate(ys)
    ]


def _stacked_halves(radius: float, width: float, length: float, count: int, a: float) -> Laid | None:
    if 2 * radius > width + 1e-9 or count * (radius + a) > length + 1e-9:
        return None
    return [Lying(radius, k * (radius + a) + a, -FAR, k * (radius + a), FAR, FAR) for k in range(count)]


def quarter_discs(radius: float, width: float, length: float, count: int, allowance: float) -> Laid | None:
    """Quarters in opposed pairs, corner to opposite corner across the whole width."""
    a = allowance
    inner = width - 2 * a
    if radius + a > width + 1e-9:
        return None
    if count == 1:
        return [Lying(a, a, 0, 0, FAR, FAR)] if radius + a <= length + 1e-9 else None
    along = sqrt(max(4 * radius**2 - inner**2, 0.0))
    tall = max(along + 2 * a, radius + a)
    pairs = -(-count // 2)
    if pairs * tall > length + 1e-9:
        return None
    made: Laid = []
    for k in range(count):
        base = (k // 2) * tall
        if k % 2 == 0:
            made.append(Lying(a, base + a, 0, base, FAR, FAR))
        else:
            made.append(Lying(width - a, base + tall - a, -FAR, -FAR, width, base + tall))
    return made


@dataclass(frozen=True, slots=True)
class Answer:
    """The longest flare a cloth gives in a number of pieces: its outer cut radius, and how the pieces lie."""

    pieces: int
    radius: float
    laid: tuple[Lying, ...]


def largest(fits: Callable[[float], Laid | None], most: float) -> Answer | None:
    """The largest outer cut radius that still fits, found by halving; None when not even a small one does."""
    low, high = 1.0, most
    if fits(low) is None:
        return None
    for _ in range(STEPS):
        middle = (low + high) / 2
        low, high = (middle, high) if fits(middle) is not None else (low, middle)
    laid = fits(low)
    assert laid is not None
    return Answer(len(laid), low, tuple(laid))


def circle_from_cloth(sweep: float, pieces: int, width: float, length: float, allowance: float) -> Answer | None:
    """The largest flare of a sweep in degrees, cut in so many equal pieces; None where a piece is no whole, half or
    quarter disc, or does not fit. A whole ring has no allowance at its slit.
    """
    turn = sweep / pieces
    most = max(width, length)
    if abs(turn - 360) < 1e-6:
        return largest(lambda r: whole_discs(r, width, length, pieces), most)
    if abs(turn - 180) < 1e-6:
        return largest(lambda r: half_discs(r, width, length, pieces, allowance), most)
    if abs(turn - 90) < 1e-6:
        return largest(lambda r: quarter_discs(r, width, length, pieces, allowance), most)
    return None


def panels_from_cloth(width: float, length: float, side: float, height: float) -> int:
    """How many straight panels of a cut height the cloth gives, one above the other across its whole width."""
    return floor(length / height + 1e-9) if width > 2 * side else 0
