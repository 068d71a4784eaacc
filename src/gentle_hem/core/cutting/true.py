"""Truing: an edge redrawn so that it runs on smoothly over seams, closed darts and the centre (trade 4.8).

The edge is laid down with its darts closed, drawn as one curve between the directions in which it must leave and
arrive, and opened again: so both legs of every dart end on it, equally long. It stays as long as it was stitched. Where
a curve could only get there with a hump, the seam at its end is carried on or cut back first, on both mates alike.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping
from dataclasses import dataclass
from math import radians, tan

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.redraw import (
    TRUED_FROM,
    Closed,
    ends_turned,
    is_curve_with_darts,
    neighbour,
    redrawn,
    rounded,
    with_paths,
)
from gentle_hem.core.findings import Finding, note
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.geometry.point import turn
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.seams import Seam, with_pairs
from gentle_hem.core.shape import RUNS_ON, SMOOTH, Corner, End, Over, corners
from gentle_hem.core.what import What

TRUED = frozenset({Role.WAIST, Role.HEM})
"""Edges that are redrawn as one curve."""

ROUNDED = (SMOOTH - RUNS_ON) | {Role.ARMHOLE, Role.NECKLINE, Role.SHOULDER}
"""Edges whose corners are rounded where they lie, over closed darts too."""

LEAST_SHARE = 0.2
"""The share of a curve's whole turn that its chord makes with either end, so that it comes round without a hump."""

MOST_SLID = 15.0
"""How far the end of a seam is carried on or cut back (mm): 3-12 mm is usual on skirts (trade 4.8)."""


@dataclass(frozen=True, slots=True)
class Slid:
    """A seam that was made longer (mm; negative: shorter) at one end so that an edge runs smoothly over it."""

    seam: str
    edge: str
    by: float

    def said(self) -> Finding:
        """What was done, in a sentence."""
        return note(
            "seam-trued",
            "The {seam} is made {by} " + ("longer" if self.by > 0 else "shorter") + " at the {edge}, on both edges "
            "alike, so that the {edge} runs on smoothly over it.",
            seam=self.seam, edge=self.edge, by=abs(self.by),
        )  # fmt: skip


def trued(
    pieces: Mapping[What, Piece], seams: Iterable[Seam], left: Container[What] = ()
) -> tuple[dict[What, Piece], list[Slid]]:
    """The pieces with their edges trued, and the ends of seams that were moved for it. What is ``left`` stays as it is,
    and so does what is sewn to it.
    """
    made = dict(pieces)
    seams = tuple(s for s in seams if not any(x.piece in left for x in s.stretches))
    whole = {what: piece for what, piece in made.items() if what not in left}
    wanted = _Wanted.of(corners(whole, seams))
    long = {key: made[key[0]].stitched_length(key[1]) for key in wanted.turns}
    slid = _slide_ends(made, wanted)
    if slid:
        wanted = _Wanted.of(corners({what: made[what] for what in whole}, seams))
    for (what, name), ends in wanted.turns.items():
        edge = made[what].edge(name)
        if edge.role in RUNS_ON:
            as_one = edge.role in TRUED and not edge.pointed
            drawn = redrawn(made[what], name, ends, long.get((what, name))) if as_one else None
            made[what] = drawn or ends_turned(made[what], name, ends)
    for what, name in wanted.bent:
        edge = made[what].edge(name)
        if edge.role in ROUNDED or (edge.role in TRUED and is_curve_with_darts(made[what], edge)):
            made[what] = rounded(made[what], name)
    return made, slid


def as_unspread(
    pieces: Mapping[What, Piece], unspread: Mapping[What, Piece], seams: Iterable[Seam]
) -> dict[What, Piece]:
    """Pieces as they were before they were spread, trued as if they took the place of those that were."""
    if not unspread:
        return {}
    flat = {**pieces, **unspread}
    there = {(piece.what, edge.name) for piece in flat.values() for edge in piece.edges}
    sewn = [s for s in seams if all((x.piece, x.edge) in there for x in s.stretches)]
    made, _ = trued(flat, with_pairs(sewn, flat.values()))
    return {what: made[what] for what in unspread}


def of_part(pieces: Iterable[Piece], seams: Iterable[Seam]) -> tuple[Piece, ...]:
    """The pieces of a part, trued."""
    return tuple(trued({piece.what: piece for piece in pieces}, seams)[0].values())


@dataclass(frozen=True)
class _Wanted:
    """The edges to redraw: by how much more the angle inside the piece is to be at their start and end (degrees)."""

    turns: dict[tuple[What, str], tuple[float, float]]
    over_seams: list[Corner]
    bent: tuple[tuple[What, str], ...]
    """The edges that have a corner within, or over one of their darts."""

    @classmethod
    def of(cls, found: Iterable[Corner]) -> _Wanted:
        turns: dict[tuple[What, str], tuple[float, float]] = {}
        over_seams = []
        bent = []
        for corner in found:
            if abs(corner.off) < TRUED_FROM:
                continue
            if corner.over in (Over.EDGE, Over.DART):
                bent.append((corner.what, corner.edge))
            if corner.over is Over.EDGE:
                continue
            turns.setdefault((corner.what, corner.edge), (0.0, 0.0))
            if corner.over is Over.SEAM:
                over_seams.append(corner)
            for end, angle in zip(corner.ends, _aims(corner), strict=True):
                at_start, at_end = turns.get((end.what, end.edge), (0.0, 0.0))
                more = angle - end.angle
                turns[end.what, end.edge] = (at_start, more) if end.at_end else (more, at_end)
        return cls(turns, over_seams, tuple(dict.fromkeys(bent)))


def _aims(corner: Corner) -> tuple[float, ...]:
    """The angles a corner's ends are to have: square, each by its own lean; where one leans in and the other out, only
    the one that leans more is changed.
    """
    if len(corner.ends) < 2:
        return tuple(90.0 for _ in corner.ends)
    a, b = (end.angle for end in corner.ends)
    if (a - 90) * (b - 90) >= 0:
        return 90.0, 90.0
    return (180 - b, b) if abs(a - 90) > abs(b - 90) else (a, 180 - a)


def _slide_ends(made: dict[What, Piece], wanted: _Wanted) -> list[Slid]:
    """Carry the seams on, or cut them back, wherever an edge could only arrive square with a hump."""
    slid = []
    for corner in wanted.over_seams:
        moves = [_slide(made[end.what], end, wanted) for end in corner.ends]
        by = max(moves, key=abs)
        if abs(by) < 0.1 or min(moves) * max(moves) < 0:
            continue
        for end in corner.ends:
            made[end.what] = _carried_on(made[end.what], end, by)
        slid.append(Slid(corner.seam, corner.edge, by))
    return slid


def _slide(piece: Piece, end: End, wanted: _Wanted) -> float:
    """How far an edge's end is to go outward along its seam, so that the edge gets there in one curve (mm)."""
    edge = piece.edge(end.edge)
    if edge.role not in TRUED or edge.pointed or piece.what.section.is_upper:
        return 0.0  # the sides of a bodice are measured, and stay as long as they are
    at_start, at_end = wanted.turns[end.what, end.edge]
    try:
        laid = Closed.of(piece, edge)
    except CannotMake:
        return 0.0
    if laid.is_drawn_curved:
        return 0.0
    chord = laid.end - laid.start
    leave, arrive = laid.leaving.turned(radians(-at_start)), laid.arriving.turned(radians(at_end))
    first, last = turn(leave, chord), turn(chord, arrive)
    whole = first + last
    far = first if end.at_end else last
    if abs(whole) < TRUED_FROM or far / whole >= LEAST_SHARE:
        return 0.0
    # the chord is turned so that it makes its share with the other end
    leftward = chord.size * tan(radians(LEAST_SHARE * whole - far))
    outward = _beyond(piece, end).turned(laid.spans[-1][1].angle if end.at_end else 0.0)
    straight_out = outward.dot(chord.unit.left)
    # a seam that goes on along the edge would have to slide for ever
    return leftward / straight_out if abs(leftward) <= MOST_SLID * abs(straight_out) else 0.0


def _beyond(piece: Piece, end: End) -> Point:
    """The direction in which the seam at an end of an edge would be carried on."""
    beside = neighbour(piece, end.edge, end.at_end)
    return -beside.path.leaving if end.at_end else beside.path.arriving


def _carried_on(piece: Piece, end: End, by: float) -> Piece:
    """A piece with the seam at an end of an edge carried on outward, or cut back, and the edge's end with it."""
    seam, edge = neighbour(piece, end.edge, end.at_end), piece.edge(end.edge)
    path = seam.path if end.at_end else seam.path.reversed()
    # from the corner inward
    path = _begun_sooner(path, by) if by > 0 else path.split(-by)[1]
    place = path.start
    carried = path if end.at_end else path.reversed()
    run = edge.path.ending_at(place) if end.at_end else edge.path.starting_at(place)
    return with_paths(piece, {seam.name: carried, edge.name: run}, marked=edge.name)


def _begun_sooner(path: Path, by: float) -> Path:
    """A path carried on before its start, along itself."""
    first = path.segments[0]
    if isinstance(first, Cubic):
        first = first.split_at_parameter(-by / max(first.velocity(0).size, 1.0))[1]
    else:
        first = Line(path.start - path.leaving * by, first.end) if isinstance(first, Line) else first
    if first is path.segments[0]:
        return Path((Line(path.start - path.leaving * by, path.start), *path.segments))
    return Path((first, *path.segments[1:]))
