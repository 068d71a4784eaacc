"""Moving a dart by pivoting about the bust point (trade 4.5).

N────T              N──╲ ╱──T      the part between the old dart and the new slash turns about
│   L1              │   Q          the pivot until the old dart is closed; the slash opens by
│   ╱ dart   ──►    │   │          the same angle. The angle is what is preserved, not the
P  <                P   │          width, and no other edge changes its length.
│   ╲               │   ╲
│    L2             │    L
"""

from __future__ import annotations

from gentle_hem.core.cannot import CannotDraw
from gentle_hem.core.geometry import Path, Placement, Point
from gentle_hem.core.geometry.segment import Line
from gentle_hem.core.pattern import Dart, Edge, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Sign

SHORT_OF_PIVOT = 25.0
"""A stitched dart stops 2.5 cm short of the bust point, common practice (trade 4.5)."""

EDGE_HAIR = 1e-6


def pivot_of(piece: Piece, dart: Dart, bust_point: Point) -> Point:
    """Where the dart's axis comes nearest the bust point: its two legs are equally long from there."""
    near, far = piece.dart_legs(dart)
    middle = near.towards(far, 0.5)
    along = (dart.apex - middle).unit
    return middle + along * (bust_point - middle).dot(along)


def pivot(piece: Piece, dart: Dart, to_edge: str, at: float, bust_point: Point, landmark: Sign) -> Piece:
    """The piece with a dart moved to another edge, ``at`` mm along that edge's path.

    The part that does not hold the centre line turns. Raises CannotDraw when the place lies in the
    dart's own mouth.
    """
    point = pivot_of(piece, dart, bust_point)
    near, far = piece.dart_legs(dart)
    if to_edge == dart.edge and dart.at - EDGE_HAIR < at < dart.at + dart.intake + EDGE_HAIR:
        raise CannotDraw("a dart cannot be moved into its own mouth")
    after, before = _chains(piece, dart, to_edge, at)
    angle = (near - point).angle - (far - point).angle
    centre_turns = any(edge.role.is_centre for edge, _ in after)
    if centre_turns:
        turn_after, turn_before = Placement(), Placement.rotation(-angle, point)
    else:
        turn_after, turn_before = Placement.rotation(angle, point), Placement()

    parts = [(edge, path.placed(turn_after)) for edge, path in after]
    mouth_edge = piece.edge(to_edge)
    others = [(edge, path.placed(turn_before)) for edge, path in before]
    mouth = Path.of(Line(parts[-1][1].end, others[0][1].start))
    edges = _edges_from(piece, [*parts, (mouth_edge, mouth), *others])

    def turned(place: Point, edge_name: str, along: float) -> Point:
        first = _is_after(piece, dart, to_edge, at, edge_name, along)
        return (turn_after if first else turn_before).place(place)

    def moved(edge_name: str, along: float) -> float:
        """A length along an edge, once the old mouth is shut and the new one open."""
        beyond_old = edge_name == dart.edge and along > dart.at + dart.intake - EDGE_HAIR
        beyond_new = edge_name == to_edge and along > at
        return along - (dart.intake if beyond_old else 0.0) + (mouth.length if beyond_new else 0.0)

    kept = []
    for other in piece.darts:
        if other is dart:
            continue
        apex = turned(other.apex, other.edge, other.at)
        bends = tuple(tuple(turned(p, other.edge, other.at) for p in leg) for leg in other.bends)
        kept.append(replace(other, at=moved(other.edge, other.at), apex=apex, bends=(bends[0], bends[1])))
    notches = [replace(notch, at=moved(notch.edge, notch.at)) for notch in piece.notches]
    middle = mouth.start.towards(mouth.end, 0.5)
    apex = point + (middle - point).unit * min(SHORT_OF_PIVOT, middle.distance(point) / 2)
    made = Dart(to_edge, moved(to_edge, at), mouth.length, apex, landmark)
    return replace(piece, edges=edges, darts=(*kept, made), notches=tuple(notches))


Chain = list[tuple[Edge, Path]]


def _chains(piece: Piece, dart: Dart, to_edge: str, at: float) -> tuple[Chain, Chain]:
    """The outline from the dart's far leg to the slash, and from the slash to its near leg."""
    order = list(piece.edges)
    first = next(i for i, edge in enumerate(order) if edge.name == dart.edge)
    start_edge = order[first]
    tour: list[tuple[Edge, Path, float]] = []
    leg_end = dart.at + dart.intake
    if leg_end < start_edge.drawn_length - EDGE_HAIR:
        tour.append((start_edge, start_edge.path.between(leg_end, start_edge.drawn_length), leg_end))
    tour += [(edge, edge.path, 0.0) for edge in (*order[first + 1 :], *order[:first])]
    if dart.at > EDGE_HAIR:
        tour.append((start_edge, start_edge.path.between(0.0, dart.at), 0.0))

    after: Chain = []
    before: Chain = []
    found = False
    for edge, path, offset in tour:
        local = at - offset
        if not found and edge.name == to_edge and EDGE_HAIR < local < path.length - EDGE_HAIR:
            one, two = path.split(local)
            after.append((edge, one))
            before.append((edge, two))
            found = True
        else:
            (before if found else after).append((edge, path))
    if not found:
        raise CannotDraw(f"there is no place {at:.1f} mm along the {to_edge} of {piece.name}")
    return after, before


def _is_after(piece: Piece, dart: Dart, to_edge: str, at: float, edge_name: str, along: float) -> bool:
    """Whether a place of the old outline lies between the far leg and the slash."""
    names = [edge.name for edge in piece.edges]
    count = len(names)

    def order(name: str, length: float) -> tuple[int, float]:
        step = (names.index(name) - names.index(dart.edge)) % count
        if step == 0 and length < dart.at + dart.intake - EDGE_HAIR:
            step = count
        return step, length

    return order(edge_name, along) < order(to_edge, at)


LEGS_DIFFER = 3.0
"""Legs of a block brought in may differ by a little; by more than this they are not one dart's (mm)."""


def _closed_onto(first: Path, second: Path) -> Path:
    """A path carried on by another; where a dart's legs were not quite equal, by a short line between."""
    gap = first.end.distance(second.start)
    if gap <= EDGE_HAIR:
        return first.then(second)
    if gap > LEGS_DIFFER:
        raise CannotDraw("the dart's legs are not equally long")
    return Path((*first.segments, Line(first.end, second.start), *second.segments))


def _edges_from(piece: Piece, parts: Chain) -> tuple[Edge, ...]:
    """Edges from an outline in parts: neighbouring parts of one edge become one path again."""
    names = [edge.name for edge in piece.edges]
    # begin where one edge ends and another begins, so that no edge is cut by the list's own ends
    start = next(i for i in range(len(parts)) if parts[i][0].name != parts[i - 1][0].name)
    ordered = parts[start:] + parts[:start]
    made: list[Edge] = []
    for edge, path in ordered:
        if made and made[-1].name == edge.name:
            made[-1] = replace(made[-1], path=_closed_onto(made[-1].path, path))
        else:
            made.append(replace(edge, path=path))
    first = next(i for i, edge in enumerate(made) if edge.name == names[0])
    return tuple(made[first:] + made[:first])
