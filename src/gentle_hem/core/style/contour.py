"""Contours: the hollows of the body taken out of a block (trade 4.3, 4.4).

 back zip                          closer than the block
 neck ┬──╮                         neckline   a wedge to the bust point, closed into the waist dart
      │   )                        armhole    the same, for sleeveless fronts
chest ┤                            under the bust   the dart's legs bent apart at that level
       ╲  centre taken in          centre     a long narrow wedge, for strapless and one-shoulder
 waist  ┤     given back at the side
"""

from __future__ import annotations

from enum import StrEnum

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.cutting.waist_line import centre_of, redrawn, with_waist_ends
from gentle_hem.core.figure import Figure
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.pattern import Dart, Notch, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.style.darts import merge
from gentle_hem.core.units import inches
from gentle_hem.core.what import Half, Sign

MOST_TOWARD_CENTRE = inches(0.75)
"""Of what is taken under the bust, ¼ to ¾ in goes toward the centre front, the rest on the dart's outer
leg: common practice (trade 4.4)."""

BELOW_BUST = 70.0
"""Under the bust lies about 7 cm below the bust point where it was not measured: a rule of thumb (mm)."""


class ZipRun(StrEnum):
    """Where the back zip's contour begins: half-way down, or at the neck."""

    HALF = "half"
    FULL = "full"


PINCH = Sign("pinch", Half.FRONT, shaping=True)

TRUED_OVER = 30.0
"""A pinched edge is trued over this much on each side of the pinch (mm)."""


def under_bust_level(front: Piece, figure: Figure) -> float:
    """Level (y) of the under-bust on a drafted front: measured, or below the bust point."""
    top = front.edge("shoulder").path.end.y
    measured = figure.get("shoulder_to_under_bust")
    if measured is not None:
        return top - measured
    if front.bust_point is None:
        raise CannotMake("the block has no bust point")
    return front.bust_point.y - BELOW_BUST


def taken_in_at_back(
    piece: Piece, taken: float, run: ZipRun, shorter: float, *, side_out: float, dart_out: float
) -> Piece:
    """The back with its centre line taken in at the waist, and made ``shorter`` at the centre (mm).

    ``half`` begins at the chest line, the armhole's level; ``full`` at the neck. The side is moved ``side_out``, the
    dart ``dart_out`` from the centre.
    """
    centre = centre_of(piece)
    top, foot = centre.path.start, centre.path.end
    new_foot = foot + Point(taken, shorter)
    if run is ZipRun.FULL:
        line = Path.through(top, new_foot)
    else:
        chest = Point(top.x, min(piece.edge("armhole").path.start.y, top.y - 10))
        if chest.y - new_foot.y < 30:
            raise CannotMake("the chest line lies too near the waist")
        third = (chest.y - new_foot.y) / 3
        # upright at the waist, so that it runs on below it without a corner
        line = Path.of(Line(top, chest), Cubic(chest, chest - Point(0, third), new_foot + Point(0, third), new_foot))
    return with_waist_ends(piece, line, side_out, dart_out=dart_out)


def pinched(piece: Piece, edge: str, share: float, intake: float) -> Piece:
    """A wedge ``intake`` wide taken out of an edge, to the bust point; the angle goes into the waist dart."""
    point = piece.bust_point
    if point is None:
        raise CannotMake("the block has no bust point")
    path = piece.edge(edge).path
    at = path.length * share - intake / 2
    after = at + intake
    blend = min(TRUED_OVER, at - 5, path.length - after - 5)
    if blend < 5:
        raise CannotMake(f"the {edge} is too short for it")
    # both legs are made equally long, and the edge trued to them over a short way on each side
    near, far = path.point_at(at), path.point_at(after)
    reach = (near.distance(point) + far.distance(point)) / 2
    a, b = point + (near - point).unit * reach, point + (far - point).unit * reach
    before, rest = path.between(0, at - blend), path.between(after + blend, path.length)
    into = _blended(before.end, before.arriving, a, path.tangent_at(at))
    out = _blended(b, path.tangent_at(after), rest.start, rest.leaving)
    drawn = Path((*before.segments, into, Line(a, b), out, *rest.segments))
    wedge = Dart(edge, before.length + into.length, a.distance(b), point, PINCH)
    made = redrawn(piece, **{edge: drawn})
    shift = drawn.length - path.length
    notches = tuple(replace(n, at=n.at + shift) if n.edge == edge and n.at > after else n for n in made.notches)
    return _into_waist_dart(replace(made, darts=(*made.darts, wedge), notches=notches), wedge, point)


def _blended(start: Point, leaving: Point, end: Point, arriving: Point) -> Cubic:
    third = start.distance(end) / 3
    return Cubic(start, start + leaving * third, end - arriving * third, end)


def _into_waist_dart(piece: Piece, wedge: Dart, point: Point) -> Piece:
    waist = piece.darts_of("waist")
    if not waist:
        raise CannotMake("there is no waist dart to take it up")
    kept = waist[0]
    moved = pivot(piece, wedge, "waist", kept.at + kept.intake, point, PINCH)
    darts = moved.darts_of("waist")
    first = next(d for d in darts if d.landmark == kept.landmark)
    second = next(d for d in darts if d.landmark == PINCH)
    return merge(moved, first, second, kept.landmark)


def centre_pinched(piece: Piece, amount: float) -> Piece:
    """A wedge ``amount`` wide, half of it on each side, out of the top of the centre line, 4 in long."""
    centre = centre_of(piece)
    top, foot = centre.path.start, centre.path.end
    depth = min(inches(4), centre.drawn_length * 0.6)
    below = top - Point(0, depth)
    neck = piece.edge("neckline").path
    crossing = neck.crossings(
        Path.through(Point(top.x + amount / 2, top.y + 300), Point(top.x + amount / 2, top.y - 300))
    )
    if not crossing:
        raise CannotMake("the neckline is too short for it")
    at = crossing[-1][0]
    new_top = neck.point_at(at)
    line = Path.of(Line(new_top, below), *(() if below.distance(foot) < 1e-9 else (Line(below, foot),)))
    edges = tuple(
        replace(e, path=neck.between(0, at)) if e.name == "neckline"
        else replace(e, path=line, allowance=max(e.allowance, 10.0)) if e is centre else e
        for e in piece.edges
    )  # fmt: skip
    notches = tuple(n for n in piece.notches if n.edge != "neckline" or n.at < at)
    notches = (*notches, Notch(centre.name, new_top.distance(below)))
    return replace(piece, edges=edges, notches=notches, on_fold=False, cut=2 if piece.on_fold else piece.cut)


def hollowed(piece: Piece, level: float, quarter: float) -> tuple[Piece, float]:
    """The front's waist dart bent wider at the under-bust level until the quarter measures ``quarter``.

    Returns the piece and what was taken. A little goes toward the centre front, the rest on the outer leg.
    """
    darts = piece.darts_of("waist")
    if not darts:
        raise CannotMake("there is no waist dart to widen")
    dart = darts[0]
    low, high = piece.edge("waist").path.box[3], dart.apex.y
    if not low + 10 < level < high - 5:
        raise CannotMake("the level under the bust does not cross the waist dart")
    line = Path.through(Point(-500, level), Point(1500, level))
    centre_x = centre_of(piece).path.point_at(centre_of(piece).path.crossings(line)[0][0]).x
    on_side = piece.edge("side").path.crossings(line)
    if not on_side:
        raise CannotMake("the level under the bust does not reach the side seam")
    side_x = piece.edge("side").path.point_at(on_side[0][0]).x
    near, far = piece.dart_leg_paths(dart)
    a, b = near.point_at(near.crossings(line)[0][0]), far.point_at(far.crossings(line)[0][0])
    excess = (side_x - centre_x) - (b.x - a.x) - quarter
    if excess <= 0:
        raise CannotMake("the pattern is not wider there than the body")
    inward = min(MOST_TOWARD_CENTRE, excess * 3 / 7)
    outward = excess - inward
    if a.x - inward < centre_x + 15 or b.x + outward > side_x - 15:
        raise CannotMake("the dart would run over the centre or the side")
    bent = replace(dart, bends=((a - Point(inward, 0),), (b + Point(outward, 0),)))
    return replace(piece, darts=tuple(bent if d is dart else d for d in piece.darts)), excess
