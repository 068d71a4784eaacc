"""A drafted waist taken apart and drawn again: its centre moved in, its side moved out, its dart narrowed.

O ──────── near ╲ ╱ far ──────── W        O' = O + in     W' so that the side seam keeps its length
"""

from __future__ import annotations

import itertools

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.drafting import side_seam
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.replace import replace


def centre_of(piece: Piece) -> Edge:
    """The centre line of a half whose centre is on its left: its last edge. Raises CannotMake where that has been cut
    away or built on.
    """
    last = piece.edges[-1]
    if not last.role.is_centre:
        raise CannotMake(f"the centre of the {piece.name} is no longer as it was drafted; do it before that")
    return last


def redrawn(piece: Piece, **paths: Path) -> Piece:
    """The piece with some edges' paths drawn anew, by edge name with spaces as underscores."""
    by_name = {name.replace("_", " "): path for name, path in paths.items()}
    return replace(
        piece, edges=tuple(replace(e, path=by_name[e.name]) if e.name in by_name else e for e in piece.edges)
    )


def with_waist_ends(
    piece: Piece, centre_line: Path, side_out: float, narrower: float = 0.0, dart_out: float = 0.0
) -> Piece:
    """The piece with its waist running from the end of ``centre_line`` to a side moved out by ``side_out``.

    The side seam keeps its length; the dart is made ``narrower``, half from each leg, and moved ``dart_out`` as it is.
    Dart legs stay equally long. Raises CannotMake when the waist has more than one dart or a neighbour is used up.
    """
    waist, side = piece.edge("waist"), piece.edge("side")
    darts = piece.darts_of("waist")
    if len(darts) > 1:
        raise CannotMake("its waist has more than one dart")
    start, end = centre_line.end, waist.path.end + Point(side_out, 0)
    inner: list[Point] = []
    if darts:
        near, far = piece.dart_legs(darts[0])
        step = (far - near).unit * (narrower / 2)
        inner = [near + step + Point(dart_out, 0), far - step + Point(dart_out, 0)]
    if inner and (inner[0].x - start.x < 5 or end.x - inner[1].x < 5):
        raise CannotMake("the dart would run over the centre or the side")
    last = waist.path.segments[-1]
    seam = _side_of_length(
        piece, inner[1] if inner else None, last.length + narrower / 2 + side_out - dart_out, end, side.drawn_length
    )
    places = [start, *inner, seam.start]
    path = Path(tuple(Line(a, b) for a, b in itertools.pairwise(places)))
    made = replace(
        piece,
        edges=tuple(
            replace(e, path={"waist": path, "side": seam}.get(e.name, centre_line if e is piece.edges[-1] else e.path))
            for e in piece.edges
        ),
        darts=tuple(
            replace(
                d,
                at=start.distance(inner[0]),
                intake=inner[0].distance(inner[1]),
                apex=d.apex + Point(dart_out, 0),
                bends=(_moved(d.bends[0], dart_out), _moved(d.bends[1], dart_out)),
            )
            if d in darts
            else d
            for d in _shifted(piece, seam)
        ),
    )
    return made


def _moved(places: tuple[Point, ...], out: float) -> tuple[Point, ...]:
    return tuple(place + Point(out, 0) for place in places)


def _side_of_length(piece: Piece, far: Point | None, reach: float, foot: Point, length: float) -> Path:
    """The side seam from a new foot, found so that the seam is ``length`` long and the foot ``reach`` from ``far``."""
    old = piece.edge("side").path
    first = old.segments[0]
    rest = old.segments[1:]

    def drawn(at: Point) -> Path:
        curve = side_seam(at, first.end, first.end)
        return Path((*curve.segments, *rest))

    for _ in range(40):
        seam = drawn(foot)
        over = seam.length - length
        if abs(over) < 1e-6:
            break
        foot = foot + Point(0, over)
        if far is not None and abs(foot.y - far.y) < reach:
            foot = Point(far.x + (reach**2 - (foot.y - far.y) ** 2) ** 0.5, foot.y)
    return drawn(foot)


def _shifted(piece: Piece, seam: Path) -> list:  # type: ignore[type-arg]
    """Darts of a side whose first stretch changed keep their distance from the underarm, where they lie."""
    old = piece.edge("side").path
    moved = seam.segments[0].length - old.segments[0].length
    return [replace(d, at=d.at + moved) if d.edge == "side" else d for d in piece.darts]
