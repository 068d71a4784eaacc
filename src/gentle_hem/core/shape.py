"""Walking the shape: whether an edge runs on smoothly over a seam, a closed dart and the centre (trade 4.8, 9.2).

         waist                     a corner over a seam: the two angles make 180° together
    ───────╲ ╱───────              a corner at the centre: square, where the line runs on over it
         a  ╳  b                   over a closed dart: the edge has no corner once the legs lie on each other
           ╱ ╲                     in an edge: its segments leave each other without a corner
        side seam

Lengths are walked in ``walk``; these are angles, in degrees.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from math import radians

from gentle_hem.core.findings import Finding, Place, warn
from gentle_hem.core.geometry import Line
from gentle_hem.core.geometry.point import turn
from gentle_hem.core.join import closed
from gentle_hem.core.pattern import Dart, Edge, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Seam, Stretch
from gentle_hem.core.what import Layer, What
from gentle_hem.core.workings import Angle

CORNER_TOLERANCE = 3.0
"""A corner is seen from 3° on (trade 9.2)."""

ALONG = 65.0
"""An edge that leans so far from square to a seam goes on along it (degrees)."""

CHORD, CHORDS_TURN = 20.0, 8.0
"""Straight pieces shorter than this (mm) that turn by less than this (degrees) are the chords of one curve."""

LEG_TOLERANCE = 1.0
"""Dart legs are equal within 1 mm."""

RUNS_ON = frozenset({Role.WAIST, Role.HEM, Role.ARMHOLE, Role.NECKLINE})
"""Edges that go on over the seams they meet as one line."""

SMOOTH = RUNS_ON | {Role.SIDE, Role.PRINCESS, Role.PANEL, Role.CROTCH, Role.CAP, Role.INSIDE_LEG}
"""Edges that are one curve from end to end, unless they are said to have points."""


class Over(StrEnum):
    """What an edge runs on over."""

    SEAM = "over a seam"
    CENTRE = "at the centre"
    DART = "over a closed dart"
    EDGE = "in the edge"


@dataclass(frozen=True, slots=True)
class End:
    """An edge at one of its ends, and the angle inside the piece there, in degrees."""

    what: What
    edge: str
    at_end: bool
    angle: float


@dataclass(frozen=True, slots=True)
class Corner:
    """A place where an edge should run on smoothly, and by how many degrees it does not."""

    over: Over
    off: float
    what: What
    edge: str
    ends: tuple[End, ...] = ()
    """The ends of edges that come together in it; none within an edge."""
    seam: str = ""
    """The seam it lies over."""

    @property
    def is_seen(self) -> bool:
        return abs(self.off) > CORNER_TOLERANCE


def corners(pieces: Mapping[What, Piece], seams: Iterable[Seam]) -> list[Corner]:
    """Every place of a garment where an edge should run on smoothly."""
    found = [corner for piece in pieces.values() for corner in _within(piece)]
    for seam in seams:
        found += _over_seam(seam, pieces)
    return found


def _within(piece: Piece) -> tuple[Corner, ...]:
    """The corners within a piece, kept with it: truing and walking both ask for them."""
    found: tuple[Corner, ...] | None = piece.__dict__.get(KEPT)
    if found is None:
        found = piece.__dict__[KEPT] = tuple(_looked_within(piece))
    return found


KEPT = "corners"
"""Under which name a piece keeps its corners; ``Piece.KEEPS`` says for how long."""


def _looked_within(piece: Piece) -> Iterator[Corner]:
    for edge in piece.edges:
        darts = piece.darts_of(edge.name)
        if edge.role in SMOOTH and not edge.pointed:
            yield from _in_edge(piece, edge, darts)
        for dart in darts:
            if not dart.pleat:
                yield Corner(Over.DART, over_dart(piece, dart), piece.what, edge.name)
    if piece.on_fold:
        for index, edge in enumerate(piece.edges):
            if edge.role.is_centre:
                for other, at_end in ((piece.edges[index - 1], True), (_after(piece, index), False)):
                    if other.role in RUNS_ON and not other.pointed:
                        angle = _interior(other, edge) if at_end else _interior(edge, other)
                        end = End(piece.what, other.name, at_end, angle)
                        yield Corner(Over.CENTRE, angle - 90, piece.what, other.name, (end,))


def _in_edge(piece: Piece, edge: Edge, darts: tuple[Dart, ...]) -> Iterator[Corner]:
    at = 0.0
    for (before, after), off in zip(pairwise(edge.path.segments), edge.path.turns, strict=True):
        if darts:
            at += before.length
            if any(dart.at - 0.01 <= at <= dart.at + dart.intake + 0.01 for dart in darts):
                continue
        short = abs(off) < CHORDS_TURN and before.length < CHORD and after.length < CHORD
        if short and isinstance(before, Line) and isinstance(after, Line):
            continue  # a curve that was brought in as short chords
        yield Corner(Over.EDGE, off, piece.what, edge.name)


def over_dart(piece: Piece, dart: Dart) -> float:
    """The corner an edge makes over a dart once its legs lie on each other, in degrees."""
    path = piece.edge(dart.edge).path
    near, far = (leg.segments[0] for leg in piece.dart_leg_paths(dart))
    closing = turn(far.tangent_at(0), near.tangent_at(0))
    before = path.up_to(*path.locate(dart.at)).arriving if dart.at > 0.01 else path.leaving
    end = dart.at + dart.intake
    after = path.onward_from(*path.locate(end)).leaving if end < path.length - 0.01 else path.arriving
    return (turn(before, after) + closing + 180) % 360 - 180


def _after(piece: Piece, index: int) -> Edge:
    return piece.edges[(index + 1) % len(piece.edges)]


def _interior(before: Edge, after: Edge) -> float:
    """The angle inside a piece between one edge and the next, in degrees."""
    return 180 - turn(before.path.arriving, after.path.leaving)


def _corner_of(stretch: Stretch, pieces: Mapping[What, Piece], *, at_start: bool) -> tuple[Edge, End] | None:
    """The edge that runs on at an end of a stretch, and its end there; None where the stretch ends within its edge."""
    if not stretch.is_whole:
        return None
    piece = pieces[stretch.piece]
    kept: dict[tuple[str, bool], tuple[Edge, End] | None] = piece.__dict__.setdefault(ENDS, {})
    place = stretch.edge, at_start != stretch.backwards
    if place not in kept:
        kept[place] = _end_beside(piece, *place)
    return kept[place]


ENDS = "ends"
"""Under which name a piece keeps the ends that lie beside its edges, as its corners."""


def _end_beside(piece: Piece, name: str, at_start: bool) -> tuple[Edge, End] | None:
    index = piece.at_edge(name)
    if index is None:
        return None
    edge = piece.edges[index]
    if at_start:
        other = piece.edges[index - 1]
        return other, End(piece.what, other.name, True, _interior(other, edge))
    other = _after(piece, index)
    return other, End(piece.what, other.name, False, _interior(edge, other))


def _over_seam(seam: Seam, pieces: Mapping[What, Piece]) -> Iterator[Corner]:
    for at_start in (True, False):
        index = 0 if at_start else -1
        one, two = (_corner_of(run.stretches[index], pieces, at_start=at_start) for run in (seam.a, seam.b))
        if one is None or two is None:
            continue
        (edge, end), (other, its_end) = one, two
        over = Over.CENTRE if seam.is_of_itself or _is_of_twins(seam) else Over.SEAM
        if edge.role not in RUNS_ON or edge.role is not other.role or (over is Over.CENTRE and edge.pointed):
            continue
        if not all(abs(one.angle - 90) < ALONG for one in (end, its_end)):
            continue  # it goes on along the seam rather than over it, as a waist does into the foot of a stand
        ends = (end,) if seam.is_of_itself else (end, its_end)
        yield Corner(over, end.angle + its_end.angle - 180, end.what, end.edge, ends, seam.name)


def _is_of_twins(seam: Seam) -> bool:
    """Whether it joins the left and the right of a pair that is cut apart."""
    one, other = seam.a.stretches[0], seam.b.stretches[0]
    apart = other.piece.other and not one.piece.other and one.edge == other.edge
    return apart and other.piece == replace(one.piece, other=True)


def findings_for(pieces: Mapping[What, Piece], seams: Iterable[Seam]) -> list[Finding]:
    """A sentence for every corner that a cutter would see on an outer piece, and for every dart whose legs differ. A
    facing that has its outer piece's corner is named with it, and one of its own is said too.

    A bodice that is only its measured edges has no shape to speak of.
    """
    drawn = {
        what: piece
        for what, piece in pieces.items()
        if what.layer is Layer.OUTER and not any(edge.role is Role.TEMPLATE for edge in piece.edges)
    }
    seams = [s for s in seams if all(stretch.piece in drawn for stretch in s.stretches)]
    seen = [corner for corner in corners(drawn, seams) if corner.is_seen]
    facings = [piece for what, piece in pieces.items() if what.layer is Layer.FACING]
    faced = [corner for piece in facings for corner in _within(piece) if corner.is_seen]
    copies = {k: [c for c in faced if _is_copy(c, corner)] for k, corner in enumerate(seen)}
    found = [_turns(corner, copies[k]) for k, corner in enumerate(seen)]
    copied = {id(corner) for them in copies.values() for corner in them}
    found += [_turns(corner) for corner in faced if id(corner) not in copied]
    found += [_apart(seam, drawn, gap) for seam in seams if (gap := notches_apart(seam, drawn)) > NOTCH_TOLERANCE]
    for piece in drawn.values():
        for dart in piece.darts:
            near, far = (leg.length for leg in piece.dart_leg_paths(dart))
            if abs(near - far) > LEG_TOLERANCE:
                found.append(
                    warn(
                        "dart-legs-differ",
                        "The legs of the dart on the {edge} of the {piece} are {near} and {far} long; draw them equal, "
                        "or its edge does not meet when it is closed.",
                        Place(piece=piece.name, edge=dart.edge),
                        edge=dart.edge, piece=piece.name, near=near, far=far,
                    )
                )  # fmt: skip
    return found


NOTCH_TOLERANCE = 1.0
"""Balance notches of two mates lie within 1 mm of each other along their seam."""


def notches_apart(seam: Seam, pieces: Mapping[What, Piece]) -> float:
    """By how much the balance notches of two whole edges sewn flat miss each other at most (mm), ease allowed for; the
    length of the edge where one of them has a notch the other has not.
    """
    if seam.manner is not Manner.FLAT or seam.is_of_itself or len(seam.a.stretches) != 1 or len(seam.b.stretches) != 1:
        return 0.0
    sides = []
    for stretch in (seam.a.stretches[0], seam.b.stretches[0]):
        piece = pieces[stretch.piece]
        if not stretch.is_whole or piece.at_edge(stretch.edge) is None:
            return 0.0
        long, darts = piece.stitched_length(stretch.edge), piece.darts_of(stretch.edge)
        marked = [
            closed(n.at, darts)
            for n in piece.notches
            if n.edge == stretch.edge and n.kind is NotchKind.BALANCE and not n.landmark
        ]
        sides.append(sorted(long - at if stretch.backwards else at for at in marked))
    one, other = sides
    if len(one) != len(other):
        return pieces[seam.a.stretches[0].piece].stitched_length(seam.a.stretches[0].edge)
    return max([0.0, *(abs(a - b) - abs(seam.ease) for a, b in zip(one, other, strict=True))])


def _apart(seam: Seam, pieces: Mapping[What, Piece], gap: float) -> Finding:
    places = tuple(Place(piece=s.piece.name, edge=s.edge) for s in seam.stretches)
    return warn(
        "notches-do-not-meet",
        "The balance notches of the {seam} do not meet: they lie {gap} apart, or one edge has one the other has not. "
        "Notch both edges at the same distance before they are cut.",
        *places, seam=seam.name, gap=gap,
    )  # fmt: skip


def _is_copy(corner: Corner, of: Corner) -> bool:
    """Whether a facing's corner is the one of the outer piece it was cut from."""
    return corner.what.half is of.what.half and corner.edge == of.edge and abs(corner.off - of.off) < SAME_CORNER


SAME_CORNER = 0.5
"""Corners that differ by less are one and its copy (degrees)."""


def _turns(corner: Corner, copies: Iterable[Corner] = ()) -> Finding:
    places = tuple(Place(piece=end.what.name, edge=end.edge) for end in corner.ends) or (
        Place(piece=corner.what.name, edge=corner.edge),
    )
    places += tuple(Place(piece=copy.what.name, edge=copy.edge) for copy in copies)
    template = {
        Over.SEAM: "The {edge} turns a corner of {off} over the {seam}; draw it on smoothly there before it is cut.",
        Over.CENTRE: "The {edge} of the {piece} is {off} off square at the centre; draw it square there, so that it "
        "runs on.",
        Over.DART: "The {edge} of the {piece} turns a corner of {off} over its dart; fold the dart and draw it smooth.",
        Over.EDGE: "The {edge} of the {piece} turns a corner of {off} on its way; draw it as a curve.",
    }[corner.over]
    return warn(
        "turns-a-corner", template, *places,
        edge=corner.edge, piece=corner.what.name, seam=corner.seam, off=Angle(radians(abs(corner.off))),
    )  # fmt: skip
