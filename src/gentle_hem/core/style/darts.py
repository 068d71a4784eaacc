"""Darts changed where they are: merged, narrowed, shortened, laid as a pleat (trade 4.5).

merge        two mouths side by side become one; both angles stay
narrow       the surplus goes to the centre and the side, or all to the side where the centre is a fold
shorten      the point drawn back along the dart's middle
pleat        the mouth folded over and left open
"""

from __future__ import annotations

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.pivot import SHORT_OF_PIVOT, pivot, pivot_of
from gentle_hem.core.cutting.waist_line import centre_of, with_waist_ends
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.pattern import Dart, Edge, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Half, Sign

MERGING = Sign("merging", Half.FRONT, shaping=True)


def merge(piece: Piece, first: Dart, second: Dart, landmark: Sign) -> Piece:
    """Two darts whose mouths touch made one, its point short of the bust point by as much as the first's was.

    Raises CannotMake when their mouths do not touch.
    """
    if second.at < first.at:
        first, second = second, first
    if first.edge != second.edge or abs(first.at + first.intake - second.at) > 1e-3:
        raise CannotMake("the two darts do not lie side by side")
    edge = piece.edge(first.edge)
    near, far = edge.path.point_at(first.at), edge.path.point_at(second.at + second.intake)
    before = edge.path.between(0.0, first.at) if first.at > 1e-6 else None
    rest = second.at + second.intake
    after = edge.path.between(rest, edge.drawn_length) if rest < edge.drawn_length - 1e-6 else None
    path = Path((*(before.segments if before else ()), Line(near, far), *(after.segments if after else ())))
    shrunk = second.at + second.intake - first.at - near.distance(far)
    middle = near.towards(far, 0.5)
    aim = piece.bust_point or first.apex
    apex = _on_middle(near, far, aim)
    apex = apex + (middle - apex).unit * min(SHORT_OF_PIVOT, middle.distance(apex) / 2)
    made = Dart(first.edge, first.at, near.distance(far), apex, landmark)

    def after_it(at: float) -> float:
        return at - shrunk if at > second.at else at

    darts = tuple(
        replace(d, at=after_it(d.at)) if d.edge == first.edge else d for d in piece.darts if d not in (first, second)
    )
    notches = tuple(replace(n, at=after_it(n.at)) if n.edge == first.edge else n for n in piece.notches)
    return replace(piece, edges=_with(piece, edge, path), darts=(*darts, made), notches=notches)


def _with(piece: Piece, edge: Edge, path: Path) -> tuple[Edge, ...]:
    return tuple(replace(e, path=path) if e.name == edge.name else e for e in piece.edges)


def _on_middle(near: Point, far: Point, aim: Point) -> Point:
    """The place on the mouth's upright middle line nearest a point: both legs are equally long from there."""
    middle = near.towards(far, 0.5)
    upright = (far - near).unit.left
    return middle + upright * (aim - middle).dot(upright)


def merged_into_waist(piece: Piece, moving: Dart) -> Piece:
    """The bust dart turned into the waist dart, so that one dart holds both."""
    waist = [d for d in piece.darts_of("waist") if d is not moving]
    if not waist:
        raise CannotMake("there is no waist dart to merge it with")
    if piece.bust_point is None or moving.edge == "waist":
        raise CannotMake("the bust dart lies at the waist already")
    kept = waist[0]
    moved = pivot(piece, moving, "waist", kept.at + kept.intake, piece.bust_point, MERGING)
    first = next(d for d in moved.darts_of("waist") if d.landmark == kept.landmark)
    second = next(d for d in moved.darts_of("waist") if d.landmark == MERGING)
    return merge(moved, first, second, kept.landmark)


def narrowed(piece: Piece, dart: Dart, by: float) -> Piece:
    """The waist dart made narrower, the waist seam as long as before.

    A quarter in to each side as common practice has it: to the centre where that is a seam, else all at the side.
    """
    if by >= dart.intake - 3:
        raise CannotMake("nothing would be left of the dart")
    centre = centre_of(piece)
    at_centre = 0.0 if piece.on_fold or centre.role is Role.CENTRE_FRONT else by / 2
    foot = centre.path.end + Point(at_centre, 0)
    line = Path.through(centre.path.start, foot) if at_centre else centre.path
    return with_waist_ends(piece, line, -(by - at_centre), by)


def shortened(piece: Piece, dart: Dart, short: float) -> Piece:
    """The dart's point ``short`` from the bust point, on the dart's own middle."""
    if piece.bust_point is None:
        raise CannotMake("the block has no bust point")
    near, far = piece.dart_legs(dart)
    full = pivot_of(piece, dart, piece.bust_point)
    middle = near.towards(far, 0.5)
    if short >= middle.distance(full) - 10:
        raise CannotMake("nothing would be left of the dart")
    apex = full + (middle - full).unit * short
    return replace(piece, darts=tuple(replace(d, apex=apex) if d is dart else d for d in piece.darts))


def as_pleat(piece: Piece, dart: Dart) -> Piece:
    """The dart folded over at its mouth and left open above."""
    return replace(piece, darts=tuple(replace(d, pleat=True) if d is dart else d for d in piece.darts))
