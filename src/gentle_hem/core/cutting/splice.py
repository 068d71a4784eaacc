"""Two whole pieces that were drawn alike but for one side: her left of the one and her right of the other.

   mine  ╱ left  ┆ right ╲       theirs ╱ left  ┆ right ╲       spliced ╱ left of mine ┆ right of theirs ╲

An edge that runs over the centre is taken from either up to where it crosses it.
"""

from __future__ import annotations

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.open_out import is_other
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.pattern import Dart, Edge, Mark, Notch, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Half

MEET = 0.5
"""Edges of both that cross the centre cross it at the same place within so much (mm)."""


def can_be_spliced(mine: Piece, theirs: Piece) -> bool:
    """Whether two pieces are whole, and have the same edges in the same order."""
    whole = all(piece.cut == 1 and not piece.on_fold and not piece.what.other for piece in (mine, theirs))
    names = [[edge.name for edge in piece.edges] for piece in (mine, theirs)]
    return whole and names[0] == names[1] and any(map(is_other, names[0]))


def spliced(mine: Piece, theirs: Piece) -> Piece:
    """The left of one and the right of the other. Raises CannotMake where they do not meet at the centre."""
    edges: list[Edge] = []
    notches: list[Notch] = []
    darts: list[Dart] = []
    for own, other in zip(mine.edges, theirs.edges, strict=True):
        if _crosses(own.path):
            path, shift, cuts, left_first = _over_centre(own.path, other.path, mine.what.half, own.name)
            edges.append(replace(own, path=path))
            first, last = (mine, theirs) if left_first else (theirs, mine)
            notches += [n for n in first.notches if n.edge == own.name and n.at <= cuts[0]]
            notches += [replace(n, at=n.at + shift) for n in last.notches if n.edge == own.name and n.at > cuts[1]]
            darts += [d for d in first.darts if d.edge == own.name and d.at <= cuts[0]]
            darts += [replace(d, at=d.at + shift) for d in last.darts if d.edge == own.name and d.at > cuts[1]]
            continue
        source = theirs if is_other(own.name) else mine
        edges.append(other if is_other(own.name) else own)
        notches += [n for n in source.notches if n.edge == own.name]
        darts += [d for d in source.darts if d.edge == own.name]
    return replace(
        mine, edges=_closed(edges, mine.name), notches=tuple(notches), darts=tuple(darts), marks=_marks(mine, theirs)
    )


def _crosses(path: Path) -> bool:
    return min(path.start.x, path.end.x) < -MEET and max(path.start.x, path.end.x) > MEET


def _is_left(place: Point, half: Half | None) -> bool:
    """Whether a place lies on her left: a back is drawn turned over, its left on the left."""
    return place.x < 0 if half is Half.BACK else place.x > 0


def _over_centre(own: Path, other: Path, half: Half | None, name: str) -> tuple[Path, float, tuple[float, float], bool]:
    """An edge over the centre, by how much what lies beyond it on the second's has moved along it, where each of the
    first's and the last's is cut, and whether it begins on her left.
    """
    centre = Path.of(Line(Point(0, -9000), Point(0, 9000)))
    left_first = _is_left(own.start, half)
    first, last = (own, other) if left_first else (other, own)
    cuts = [path.crossings(centre) for path in (first, last)]
    if any(len(cut) != 1 for cut in cuts):
        raise CannotMake(f"the {name} does not cross the centre once")
    a, b = cuts[0][0][0], cuts[1][0][0]
    before, after = first.between(0.0, a), last.between(b, last.length)
    if before.end.distance(after.start) > MEET:
        raise CannotMake(f"the {name} of either side does not come to the same place of the centre")
    return before.then(after.starting_at(before.end)), a - b, (a, b), left_first


def _closed(edges: list[Edge], name: str) -> tuple[Edge, ...]:
    """Edges that end where the next begins, within a hair of it."""
    made = list(edges)
    for k, edge in enumerate(made):
        after = made[(k + 1) % len(made)]
        gap = edge.path.end.distance(after.path.start)
        if gap > MEET:
            raise CannotMake(f"the two sides of the {name} do not come to the same place of its centre")
        if gap:
            made[k] = replace(edge, path=edge.path.ending_at(after.path.start))
    return tuple(made)


def _marks(mine: Piece, theirs: Piece) -> tuple[Mark, ...]:
    def on_left(mark: Mark) -> bool:
        middle = mark.path.point_at(mark.path.length / 2)
        return abs(middle.x) < MEET or _is_left(middle, mine.what.half)

    return (*(m for m in mine.marks if on_left(m)), *(m for m in theirs.marks if not on_left(m)))
