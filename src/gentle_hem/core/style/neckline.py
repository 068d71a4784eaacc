"""Necklines (trade 4.6): the neck edge of a block redrawn.

  N' N            round     a quarter of an oval from the shoulder to the centre
   ╲              V         straight to the centre
╲   ╲  shoulder   square    straight down, straight across
 │                sweetheart  down, then over the bust and into a point at the centre
 C' centre        scoop     round, but deep and open
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from enum import StrEnum

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.drafting import ROUND
from gentle_hem.core.geometry import Cubic, Path, Point
from gentle_hem.core.geometry.segment import Line
from gentle_hem.core.pattern import Piece


class Neckline(StrEnum):
    """The shape of a neck edge."""

    AS_DRAFTED = "as_drafted"
    ROUND = "round"
    V = "v"
    SQUARE = "square"
    SCOOP = "scoop"
    SWEETHEART = "sweetheart"


def _oval(n: Point, c: Point, fullness: float) -> Path:
    down, across = c.y - n.y, n.x - c.x
    return Path.of(Cubic(n, n + Point(0, down * fullness), c + Point(across * fullness, 0), c))


def _sweetheart(n: Point, c: Point) -> Path:
    """Down to the top of the bust, over it, and into a point a little above the lowest place."""
    width, depth = n.x - c.x, n.y - c.y
    top = Point(c.x + 0.78 * width, c.y + 0.30 * depth)
    over = Cubic(top, top + Point(-0.10 * width, -0.22 * depth), c + Point(0.42 * width, 0.24 * depth), c)
    return Path.of(Line(n, top), over)


SHAPES: dict[Neckline, Callable[[Point, Point], Path]] = {
    Neckline.ROUND: lambda n, c: _oval(n, c, ROUND),
    Neckline.V: lambda n, c: Path.through(n, c),
    Neckline.SQUARE: lambda n, c: Path.through(n, Point(n.x, c.y), c),
    Neckline.SCOOP: lambda n, c: _oval(n, c, 0.8),
    Neckline.SWEETHEART: _sweetheart,
}


def with_neckline(piece: Piece, shape: Neckline, depth: float, wider: float) -> Piece:
    """A half whose centre is on its left, with its neck redrawn.

    ``depth`` is measured down the centre line from the shoulder's level at the neck of the block;
    ``wider`` is how far down the shoulder the neck is opened. Raises CannotMake when the shoulder or
    the centre is used up.
    """
    shoulder, centre = piece.edge("shoulder"), piece.edge(piece.edges[-1].name)
    neck = shoulder.path.end
    used = max((dart.at + dart.intake for dart in piece.darts_of("shoulder")), default=0.0)
    left = shoulder.drawn_length - wider
    if left < used + 10:
        raise CannotMake("the shoulder")
    low = neck.y - depth
    if low < centre.path.end.y + 20:
        raise CannotMake("the centre")
    opened = shoulder.path if wider <= 0 else shoulder.path.split(left)[0]
    lowest = Point(centre.path.start.x, low)
    drawn = SHAPES[shape](opened.end, lowest)
    made = {
        "shoulder": replace(shoulder, path=opened),
        "neckline": replace(piece.edge("neckline"), path=drawn),
        centre.name: replace(centre, path=Path.through(lowest, centre.path.end)),
    }
    return replace(piece, edges=tuple(made.get(edge.name, edge) for edge in piece.edges))
