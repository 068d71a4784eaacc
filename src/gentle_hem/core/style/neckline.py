"""Necklines (trade 4.6): the neck edge of a block redrawn.

  N' N            round     a quarter of an oval from the shoulder to the centre
   ╲              V         straight to the centre
╲   ╲  shoulder   square    straight down, straight across
 │                sweetheart  down, then over the bust and into a point at the centre
 C' centre        scoop     round, but deep and open
"""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.drafting import ROUND
from gentle_hem.core.geometry import Cubic, Path, Placement, Point
from gentle_hem.core.geometry.segment import Line
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace


class Neckline(StrEnum):
    """The shape of a neck edge."""

    AS_DRAFTED = "as_drafted"
    ROUND = "round"
    V = "v"
    SQUARE = "square"
    SCOOP = "scoop"
    SWEETHEART = "sweetheart"


SQUARE_FOR = 50.0
"""A straight neck leaves the shoulder square, and comes round to its line within so much (mm)."""


def _oval(n: Point, c: Point, square: Point, fullness: float) -> Path:
    down, across = n.y - c.y, n.x - c.x
    return Path.of(Cubic(n, n + square * (down * fullness), c + Point(across * fullness, 0), c))


def _off_the_shoulder(n: Point, square: Point, place: Point) -> Path:
    """From the shoulder, square to it, round and straight on to a place."""
    long = n.distance(place)
    reach = min(SQUARE_FOR, long / 3)
    along = (place - n).unit
    round_to = n + along * reach
    return Path.of(Cubic(n, n + square * (reach / 3), round_to - along * (reach / 3), round_to), Line(round_to, place))


def _square(n: Point, c: Point, square: Point) -> Path:
    """Straight down from where the curve off the shoulder has come upright, and straight across."""
    reach = min(SQUARE_FOR, (n.y - c.y) / 2)
    down = Point(n.x + square.x / -square.y * reach / 2, n.y - reach)
    curve = Cubic(n, n + square * (reach / 2 / -square.y), down + Point(0, reach / 2), down)
    return Path.of(curve, Line(down, Point(down.x, c.y)), Line(Point(down.x, c.y), c))


def _sweetheart(n: Point, c: Point, square: Point) -> Path:
    """Down to the top of the bust, over it, and into a point a little above the lowest place."""
    width, depth = n.x - c.x, n.y - c.y
    top = Point(c.x + 0.78 * width, c.y + 0.30 * depth)
    along = (top - n).unit
    over = Cubic(top, top + along * (0.24 * depth), c + Point(0.42 * width, 0.24 * depth), c)
    return _off_the_shoulder(n, square, top).then(Path.of(over))


SHAPES: dict[Neckline, Callable[[Point, Point, Point], Path]] = {
    Neckline.ROUND: lambda n, c, square: _oval(n, c, square, ROUND),
    Neckline.V: lambda n, c, square: _off_the_shoulder(n, square, c),
    Neckline.SQUARE: lambda n, c, square: _square(n, c, square),
    Neckline.SCOOP: lambda n, c, square: _oval(n, c, square, 0.8),
    Neckline.SWEETHEART: _sweetheart,
}
"""Each drawn from the shoulder at the neck to the lowest place at the centre, leaving the shoulder square."""

POINTED = frozenset({Neckline.V, Neckline.SQUARE, Neckline.SWEETHEART})
"""Necks that keep their point at the centre, or their corner."""


ASIDE = 0.8
"""How far aside of the centre a neck may be lowest, as a share of the way to the shoulder."""


def _aside(n: Point, lowest: Point, x: float, shape: Neckline, square: Point) -> Path:
    """Half of a neck that is lowest ``lowest.x - x`` beside the centre: drawn from both shoulders, and cut there."""
    if shape in (Neckline.SWEETHEART, Neckline.SQUARE):
        raise CannotMake(f"a {shape} neck is alike on both sides; draw another shape, or lowest at the centre")
    if abs(lowest.x - x) > ASIDE * (n.x - x):
        raise CannotMake("it would be lowest beyond the neck; take less beside the centre, or open the neck wider")
    over = Placement.mirror(Point(x, 0), Point(x, 1))
    mine = SHAPES[shape](n, lowest, square)
    theirs = SHAPES[shape](n, over.place(lowest), square).placed(over).reversed()
    across = mine.then(theirs)
    met = across.crossings(Path.through(Point(x, lowest.y - 10), Point(x, n.y + 10)))
    if not met:
        raise CannotMake("it does not come over the centre")
    return across.between(0.0, met[0][0])


class UsedUp(CannotMake):
    """A neck leaves nothing of an edge beside it."""


def with_neckline(piece: Piece, shape: Neckline, depth: float, wider: float, aside: float = 0.0) -> Piece:
    """A half whose centre is on its left, with its neck redrawn.

    ``depth`` is measured down the centre line from the shoulder's level at the neck of the block;
    ``wider`` is how far down the shoulder the neck is opened, and ``aside`` how far towards this side of
    the centre it is lowest (negative: towards the other). Raises UsedUp when the shoulder or the centre
    is, and CannotMake where it cannot be so far aside.
    """
    shoulder, centre = piece.edge("shoulder"), piece.edge(piece.edges[-1].name)
    neck = shoulder.path.end
    used = max((dart.at + dart.intake for dart in piece.darts_of("shoulder")), default=0.0)
    left = shoulder.drawn_length - wider
    if left < used + 10:
        raise UsedUp("the shoulder")
    low = neck.y - depth
    if low < centre.path.end.y + 20:
        raise UsedUp("the centre")
    opened = shoulder.path if wider <= 0 else shoulder.path.split(left)[0]
    lowest = Point(centre.path.start.x, low)
    square = opened.arriving.left
    if aside:
        drawn = _aside(opened.end, lowest + Point(aside, 0), lowest.x, shape, square)
        lowest = drawn.end
    else:
        drawn = SHAPES[shape](opened.end, lowest, square)
    made = {
        "shoulder": replace(shoulder, path=opened),
        "neckline": replace(piece.edge("neckline"), path=drawn, pointed=bool(aside) or shape in POINTED),
        centre.name: replace(centre, path=Path.through(lowest, centre.path.end)),
    }
    return replace(piece, edges=tuple(made.get(edge.name, edge) for edge in piece.edges))
