"""Slash and spread (trade 4.7): cuts opened by equal amounts, hinged at their far ends.

──┬──┬──┬──          ╲  │  ╱
  │  │  │     ──►     ╲ │ ╱        fullness at the opened edge = cuts × spread
──┴──┴──┴──          ──┴┴┴──       the hinged edge keeps its length
"""

from __future__ import annotations

from collections.abc import Callable
from math import asin

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Line, Path, Placement, Point
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.pattern import Dart, Edge, Piece
from gentle_hem.core.replace import replace

Chain = list[tuple[Edge, Path]]


def _cut(piece: Piece, edge: str, at: float, hinge_edge: str, hinge_at: float) -> tuple[Chain, Chain]:
    """The outline from the opened place to the hinge, and from the hinge back to the opened place."""
    if edge == hinge_edge:
        raise CannotMake("a cut runs from one edge to another")
    names = [e.name for e in piece.edges]
    i, j, count = names.index(edge), names.index(hinge_edge), len(names)
    opened, hinge = piece.edges[i], piece.edges[j]
    if not (0 < at < opened.drawn_length and 0 < hinge_at < hinge.drawn_length):
        raise CannotMake("a cut runs off the piece")
    first: Chain = [(opened, opened.path.split(at)[1])]
    k = (i + 1) % count
    while k != j:
        first.append((piece.edges[k], piece.edges[k].path))
        k = (k + 1) % count
    first.append((hinge, hinge.path.split(hinge_at)[0]))
    second: Chain = [(hinge, hinge.path.split(hinge_at)[1])]
    k = (j + 1) % count
    while k != i:
        second.append((piece.edges[k], piece.edges[k].path))
        k = (k + 1) % count
    second.append((opened, opened.path.split(at)[0]))
    return first, second


def opened(
    piece: Piece, edge: str, at: float, hinge_edge: str, hinge_at: float, amount: float, stays: Callable[[Edge], bool]
) -> Piece:
    """One cut from ``edge`` to ``hinge_edge`` opened by ``amount`` at the edge, mm.

    ``stays`` picks an edge of the part that is not turned. Darts turn with their edges. Raises CannotMake
    when the cut cannot be opened that far.
    """
    after, before = _cut(piece, edge, at, hinge_edge, hinge_at)
    here, hinge = piece.edge(edge).path.point_at(at), piece.edge(hinge_edge).path.point_at(hinge_at)
    reach = here.distance(hinge)
    if amount >= 1.6 * reach:
        raise CannotMake("the cuts are too short to open that far")
    angle = 2 * asin(amount / (2 * reach))
    turn_after = Placement.rotation(angle, hinge)
    if any(stays(e) for e, _ in after if e.name not in (edge, hinge_edge)):
        after_turn, before_turn = Placement(), Placement.rotation(-angle, hinge)
    else:
        after_turn, before_turn = turn_after, Placement()
    one = [(e, path.placed(after_turn)) for e, path in after]
    two = [(e, path.placed(before_turn)) for e, path in before]
    gap = Path.of(Line(two[-1][1].end, one[0][1].start))
    joined: dict[str, list[Path]] = {}
    hinge_name = piece.edge(hinge_edge).name
    for e, path in (*two, (piece.edge(edge), gap), *one):
        joined.setdefault(e.name, []).append(path)
    # the hinged edge starts in the part before its hinge, which the loop above met last
    joined[hinge_name] = [one[-1][1], two[0][1]]
    edges = tuple(replace(e, path=Path.joined(joined[e.name])) for e in piece.edges)

    def where(name: str, along: float) -> Placement:
        if name == edge:
            return after_turn if along > at else before_turn
        if name == hinge_edge:
            return after_turn if along < hinge_at else before_turn
        return after_turn if any(e.name == name for e, _ in after) else before_turn

    def moved(name: str, along: float) -> float:
        return along + amount if name == edge and along > at else along

    darts: list[Dart] = []
    for dart in piece.darts:
        turn = where(dart.edge, dart.at)
        bends = tuple(tuple(map(turn.place, side)) for side in dart.bends)
        darts.append(
            replace(dart, at=moved(dart.edge, dart.at), apex=turn.place(dart.apex), bends=(bends[0], bends[1]))
        )
    notches = tuple(replace(n, at=moved(n.edge, n.at)) for n in piece.notches)
    return replace(piece, edges=edges, darts=tuple(darts), notches=notches)


def smoothed(piece: Piece, edge: str, points: int = 7) -> Piece:
    """The piece with an opened edge redrawn as one curve through places evenly spread along it."""
    path = piece.edge(edge).path
    places: list[Point] = [path.point_at(path.length * i / (points - 1)) for i in range(points)]
    curve = smooth_through(places)
    edges = tuple(replace(e, path=curve) if e.name == edge else e for e in piece.edges)
    share = curve.length / path.length
    notches = tuple(replace(n, at=n.at * share) if n.edge == edge else n for n in piece.notches)
    return replace(piece, edges=edges, notches=notches)


def pinched_out(
    piece: Piece, edge: str, at: float, hinge_edge: str, hinge_at: float, amount: float, stays: Callable[[Edge], bool]
) -> Piece:
    """A wedge ``amount`` wide at ``edge`` folded out of a piece, to nothing at ``hinge_edge``, mm.

    The opposite of ``opened``: the edge becomes shorter by as much, the hinged edge keeps its length. Raises CannotMake
    where a dart or the piece's own end lies in the wedge.
    """
    low, high = at - amount / 2, at + amount / 2
    if any(d.edge == edge and d.at < high + 2 and d.at + d.intake > low - 2 for d in piece.darts):
        raise CannotMake("a dart lies in the wedge")
    after, _ = _cut(piece, edge, high, hinge_edge, hinge_at)
    _, before = _cut(piece, edge, low, hinge_edge, hinge_at)
    path, hinge = piece.edge(edge).path, piece.edge(hinge_edge).path.point_at(hinge_at)
    angle = (path.point_at(low) - hinge).angle - (path.point_at(high) - hinge).angle
    if any(stays(e) for e, _ in after if e.name not in (edge, hinge_edge)):
        after_turn, before_turn = Placement(), Placement.rotation(-angle, hinge)
    else:
        after_turn, before_turn = Placement.rotation(angle, hinge), Placement()
    one = [(e, p.placed(after_turn)) for e, p in after]
    two = [(e, p.placed(before_turn)) for e, p in before]
    joined: dict[str, Path] = {e.name: p for e, p in (*one[1:-1], *two[1:-1])}
    joined[edge] = two[-1][1].ending_at(one[0][1].start).then(one[0][1])
    joined[hinge_edge] = one[-1][1].then(two[0][1])
    edges = tuple(replace(e, path=joined[e.name]) for e in piece.edges)
    names_after = {e.name for e, _ in after}

    def where(name: str, along: float) -> Placement:
        if name == edge:
            return after_turn if along > at else before_turn
        if name == hinge_edge:
            return after_turn if along < hinge_at else before_turn
        return after_turn if name in names_after else before_turn

    darts = []
    for dart in piece.darts:
        turn = where(dart.edge, dart.at)
        bends = tuple(tuple(map(turn.place, side)) for side in dart.bends)
        moved = dart.at - (amount if dart.edge == edge and dart.at > at else 0.0)
        darts.append(replace(dart, at=moved, apex=turn.place(dart.apex), bends=(bends[0], bends[1])))
    notches = []
    for notch in piece.notches:
        if notch.edge == edge and low < notch.at < high:
            continue  # it was folded away
        notches.append(replace(notch, at=notch.at - amount) if notch.edge == edge and notch.at > at else notch)
    return replace(piece, edges=edges, darts=tuple(darts), notches=tuple(notches))
