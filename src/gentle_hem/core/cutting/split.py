"""Cutting a piece in two along a style line, with the darts the line runs into left out.

            first mouth                     first.at   first.to
   ┌───────────╲ ╱───────────┐         ┌────────┐       ╭────────┐
   │            V            │         │  later  ╲     ╱ earlier │
   │            │ style line │   ──►   │          │   │          │     earlier: first → last
   │            Λ            │         │         ╱     ╲         │     later:   last → first
   └───────────╱ ╲───────────┘         └────────┘       ╰────────┘
             last mouth

The outline is walked anticlockwise. What lies between the first mouth and the last becomes the *earlier*
part, the rest the *later* one; both get the style line as a new edge, in opposite directions.
"""

from __future__ import annotations

from dataclasses import dataclass

from shapely import LineString, Polygon

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.pivot import LEGS_DIFFER
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point
from gentle_hem.core.geometry.parallel import TOUCHING
from gentle_hem.core.pattern import Dart, Edge, Mark, Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import What

HAIR = 1e-6


TRUED_AWAY = 1.0
"""Truing a corner may shorten its edge by no more than this (mm)."""


@dataclass(frozen=True, slots=True)
class Mouth:
    """Where a style line leaves the outline: an edge, and the stretch of it that a dart takes away there."""

    edge: str
    at: float
    to: float

    @classmethod
    def of(cls, dart: Dart) -> Mouth:
        return cls(dart.edge, dart.at, dart.at + dart.intake)

    @classmethod
    def place(cls, edge: str, at: float) -> Mouth:
        """A place without a dart."""
        return cls(edge, at, at)


@dataclass(frozen=True)
class Split:
    """The two parts, and in which order they share each edge of the piece they were."""

    earlier: Piece
    later: Piece
    order: dict[str, tuple[What, ...]]
    """Old edge → the parts that carry a stretch of it, along its path."""


Stretch = tuple[Edge, float, float]
"""Part of an edge, from a length along it to another."""


def split(
    piece: Piece,
    first: Mouth,
    last: Mouth,
    *,
    earlier_line: Path,
    later_line: Path,
    parts: tuple[What, What],
    edge_name: str,
    role: Role,
    allowance: float,
) -> Split:
    """The piece cut in two. ``earlier_line`` runs from ``last.at`` back to ``first.to``; ``later_line`` from
    ``first.at`` to ``last.to``. Raises CannotMake when the mouths lie on one edge or are not on the outline.
    """
    index = {edge.name: i for i, edge in enumerate(piece.edges)}
    if first.edge == last.edge:
        raise CannotMake(f"the line would begin and end on the {first.edge}")
    for mouth in (first, last):
        length = piece.edge(mouth.edge).drawn_length
        if not -HAIR <= mouth.at <= mouth.to <= length + HAIR:
            raise CannotMake(f"the line misses the {mouth.edge}")
    stretches = {
        parts[0]: _tour(piece, index, first.edge, first.to, last.edge, last.at),
        parts[1]: _tour(piece, index, last.edge, last.to, first.edge, first.at),
    }
    lines = {parts[0]: earlier_line, parts[1]: later_line}
    gone = {id(dart) for dart in piece.darts if any(_same(dart, mouth) for mouth in (first, last))}
    made = []
    for what, tour in stretches.items():
        edges = [replace(edge, path=_part(edge, start, end)) for edge, start, end in tour]
        edges.append(Edge(edge_name, role, lines[what], allowance))
        made.append(_dressed(piece, what, tuple(edges), tour, gone))
    order = {}
    for edge in piece.edges:
        here = [(start, what) for what, tour in stretches.items() for e, start, _ in tour if e.name == edge.name]
        order[edge.name] = tuple(what for _, what in sorted(here, key=lambda one: one[0]))
    made, marked = _marked(piece.marks, made)
    return Split(made[0], made[1], {**order, **marked})


def _marked(marks: tuple[Mark, ...], parts: list[Piece]) -> tuple[list[Piece], dict[str, tuple[What, ...]]]:
    """The parts with what was marked inside the piece, each mark on the part it lies on whole; one that is cut through
    is gone. Beside them, which part a mark with a name lies on.
    """
    if not marks:
        return parts, {}
    outlines = [Polygon(part.seam_line.flatten(0.5)).buffer(ON_PART) for part in parts]
    own: list[list[Mark]] = [[] for _ in parts]
    order: dict[str, tuple[What, ...]] = {}
    for mark in marks:
        line = LineString(mark.path.flatten(0.5))
        for part, outline, kept in zip(parts, outlines, own, strict=True):
            if outline.contains(line):
                kept.append(mark)
                if mark.name:
                    order[mark.name] = (part.what,)
                break
    return [replace(part, marks=tuple(kept)) for part, kept in zip(parts, own, strict=True)], order


ON_PART = 0.5
"""A mark may lie so far outside the part it is on (mm): on its very edge, as a slit on the fold does."""


def _same(dart: Dart, mouth: Mouth) -> bool:
    return (
        dart.edge == mouth.edge and abs(dart.at - mouth.at) < HAIR and abs(dart.intake - (mouth.to - mouth.at)) < HAIR
    )


def _part(edge: Edge, start: float, end: float) -> Path:
    return edge.path.between(max(start, 0.0), min(end, edge.drawn_length))


def _tour(piece: Piece, index: dict[str, int], e0: str, at0: float, e1: str, at1: float) -> list[Stretch]:
    """The outline from one place forward to another, as stretches of edges."""
    edges, count = piece.edges, len(piece.edges)
    i, j = index[e0], index[e1]
    tour: list[Stretch] = []
    if edges[i].drawn_length - at0 > TOUCHING:
        tour.append((edges[i], at0, edges[i].drawn_length))
    k = (i + 1) % count
    while k != j:
        tour.append((edges[k], 0.0, edges[k].drawn_length))
        k = (k + 1) % count
    if at1 > TOUCHING:
        tour.append((edges[j], 0.0, at1))
    return tour


def _dressed(piece: Piece, what: What, edges: tuple[Edge, ...], tour: list[Stretch], gone: set[int]) -> Piece:
    """A part with the darts and notches that lie on its stretches, its own fold, cut number and grain."""
    where = {edge.name: (start, end) for edge, start, end in tour}

    def local(edge_name: str, at: float, room: float = 0.0) -> float | None:
        if edge_name not in where:
            return None
        start, end = where[edge_name]
        return at - start if start - HAIR <= at and at + room <= end + HAIR else None

    darts: list[Dart] = []
    for dart in piece.darts:
        at = local(dart.edge, dart.at, dart.intake)
        if id(dart) not in gone and at is not None:
            darts.append(replace(dart, at=max(at, 0.0)))
    notches: list[Notch] = []
    for notch in piece.notches:
        at = local(notch.edge, notch.at)
        if at is not None:
            notches.append(replace(notch, at=max(at, 0.0)))
    folded = piece.on_fold and any(_is_centre(edge) for edge in edges)
    made = replace(
        piece, what=what, edges=edges, darts=tuple(darts), notches=tuple(notches),
        on_fold=folded, cut=piece.cut if folded or not piece.on_fold else 2, marks=(),
    )  # fmt: skip
    point = piece.bust_point
    return replace(made, grain=upright_grain(made), bust_point=point if point and darts else None)


def _is_centre(edge: Edge) -> bool:
    return edge.role.is_centre


def upright_grain(piece: Piece, share: float = 0.5) -> tuple[Point, Point]:
    """A grain line down the middle of a piece, half as long as it is there."""
    left, bottom, right, top = piece.seam_line.box
    x = left + share * (right - left)
    for _ in range(6):  # a hollow edge may leave the very middle outside
        met = piece.seam_line.met_along(Line(Point(x, bottom - 10), Point(x, top + 10)))
        if len(met) >= 2:
            low, high = bottom - 10 + met[0], bottom - 10 + met[1]
            quarter = (high - low) / 4
            return Point(x, low + quarter), Point(x, high - quarter)
        x = (x + left) / 2
    return Point(x, bottom + (top - bottom) / 4), Point(x, top - (top - bottom) / 4)


@dataclass(frozen=True)
class LevelCut:
    """A piece cut across: what stays above, and what is left below with the dart that crossed closed."""

    above: Piece
    below: Piece


def cut_across(piece: Piece, line: Path, parts: tuple[What, What], edge_name: str, allowance: float) -> LevelCut:
    """A half with its centre on the left, cut from its centre line to its side along a level ``line``.

    The line is drawn with the waist darts closed: beyond each it goes on where the dart's other leg comes to lie. Waist
    darts that it crosses stay open above, on the new edge, and are closed below, so that the
    lower part is one piece. Both keep "waist" as the name of their lowest edge; the lower part's top is
    ``edge_name``. Raises CannotMake when the line meets another dart or misses the centre or the side.
    """
    centre = piece.edges[-1]
    on_centre = centre.path.crossings(line)
    if not on_centre:
        raise CannotMake("the line does not run from the centre to the side seam")
    at_centre = on_centre[0][0]
    run, opened = _over_darts(piece, centre.path.point_at(at_centre))
    met = piece.edge("side").path.crossings(_onwards(run.end))
    if not met:
        raise CannotMake("the line does not run from the centre to the side seam")
    at_side = met[-1][0]
    run = Path((*run.segments[1:], Line(run.end, piece.edge("side").path.point_at(at_side))))
    for dart in piece.darts_of("side"):
        if dart.at - 2 < at_side < dart.at + dart.intake + 2:
            raise CannotMake("the line runs into the bust dart at the side")
    made = split(
        piece, Mouth.place("side", at_side), Mouth.place(centre.name, at_centre),
        earlier_line=run, later_line=run.reversed(), parts=parts, edge_name="cut", role=Role.WAIST,
        allowance=allowance,
    )  # fmt: skip
    above, below = made.earlier, made.later
    above = _renamed(above, "cut", "waist")
    above = replace(above, darts=(*above.darts, *opened))
    below = _renamed(below, "cut", edge_name)
    for dart in reversed(below.darts_of("waist")):  # from the side in, so that those left keep their places
        crossing = next((d for d in opened if d.landmark == dart.landmark), None)
        if crossing is not None:
            below = _closed_through(below, dart, edge_name)
    return LevelCut(above, replace(below, bust_point=None, grain=upright_grain(below, 0.35)))


def _onwards(start: Point) -> Path:
    return Path.through(start, start + Point(4000, 0))


def _over_darts(piece: Piece, start: Point) -> tuple[Path, list[Dart]]:
    """A level line from the centre to beyond the last waist dart it meets, and those darts as they open on it.

    Beyond a dart it goes on at the place of the far leg that meets the near leg's when the dart is closed. The path
    begins with an empty stretch at ``start``.
    """
    places, opened, long = [start - Point(1, 0), start], [], 0.0
    for dart in piece.darts_of("waist"):
        near, far = piece.dart_leg_paths(dart)
        met = near.crossings(_onwards(places[-1]))
        if not met:
            continue
        from_point = near.length - met[0][0]
        a, b = near.point_at(met[0][0]), far.point_at(far.length - from_point)
        long += places[-1].distance(a)
        bends = _above(dart, from_point, near, 0), _above(dart, from_point, far, 1)
        opened.append(replace(dart, edge="waist", at=long, intake=a.distance(b), bends=bends))
        long += a.distance(b)
        places += [a, b]
    return Path.through(*places), opened


def _above(dart: Dart, from_point: float, leg: Path, side: int) -> tuple[Point, ...]:
    """The bends of a dart's leg that lie nearer its point than a cut does, ``from_point`` along the leg."""
    kept, at = [], 0.0
    for segment, bend in zip(leg.segments, dart.bends[side], strict=False):
        at += segment.length
        if leg.length - at < from_point - HAIR:
            kept.append(bend)
    return tuple(kept)


def _renamed(piece: Piece, old: str, new: str) -> Piece:
    edges = tuple(replace(edge, name=new) if edge.name == old else edge for edge in piece.edges)
    start = next((i for i, edge in enumerate(edges) if edge.name == "waist"), 0)
    return replace(piece, edges=edges[start:] + edges[:start])


def _closed_through(piece: Piece, dart: Dart, top: str) -> Piece:
    """A piece whose dart runs from its waist right through its top edge, folded shut and made one."""
    near, far = piece.dart_leg_paths(dart)
    edge = piece.edge(top)
    a, b = edge.path.crossings(far), edge.path.crossings(near)
    if not a or not b:
        raise CannotMake("the dart does not reach the line")
    far_top, near_top = edge.path.point_at(a[0][0]), edge.path.point_at(b[-1][0])
    turn = (near.start - near_top).angle - (far.start - far_top).angle
    swing = Placement.rotation(turn, far_top).then(Placement.shift(near_top - far_top))
    waist = piece.edge("waist")
    left = waist.path.between(0.0, dart.at)
    right = waist.path.between(dart.at + dart.intake, waist.drawn_length).placed(swing)
    outer = edge.path.between(0.0, a[0][0]).placed(swing)
    inner = edge.path.between(b[-1][0], edge.drawn_length)
    made: list[Edge] = []
    for old in piece.edges:
        if old.name == "waist":
            made.append(replace(old, path=_tied(left, right)))
        elif old.name == top:
            made.append(replace(old, path=_tied(outer, inner)))
        else:
            is_centre = _is_centre(old)
            made.append(old if is_centre else replace(old, path=old.path.placed(swing)))
    names = [e.name for e in made]
    start = names.index("waist")
    notches = tuple(n for n in piece.notches if n.edge not in ("waist", top))
    darts = tuple(d for d in piece.darts if d is not dart and (d.edge != "waist" or d.at < dart.at))
    return replace(piece, edges=tuple(made[start:] + made[:start]), darts=darts, notches=notches)


def _tied(first: Path, second: Path) -> Path:
    """Two paths that meet, or nearly (a dart's legs may differ by a hair), as one, its corner trued to a curve."""
    gap = first.end.distance(second.start)
    if gap > LEGS_DIFFER:
        raise CannotMake("the dart's legs are not equally long")
    into, out = first.segments[-1], second.segments[0]
    corner = into.end.towards(out.start, 0.5)
    start, end = into.start, out.end
    if isinstance(into, Line) and isinstance(out, Line):
        return Path((*first.segments[:-1], *_rounded(start, corner, end), *second.segments[1:]))
    link = (Line(first.end, second.start),) if gap > HAIR / 2 else ()
    return Path((*first.segments, *link, *second.segments))


def _rounded(start: Point, corner: Point, end: Point) -> list[Line | Cubic]:
    """Two straight lines with their corner rounded as far as it may be without shortening them by more than 1 mm."""
    before, after = start.distance(corner), corner.distance(end)
    share = 1.0
    while True:
        a, b = corner.towards(start, share), corner.towards(end, share)
        bend = Cubic(a, a.towards(corner, 2 / 3), b.towards(corner, 2 / 3), b)
        if share * (before + after) - bend.length <= TRUED_AWAY or share < 0.05:
            break
        share *= 0.7
    if share == 1.0:
        return [bend]
    return [Line(start, a), bend, Line(b, end)]
