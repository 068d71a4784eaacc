"""Truing: an edge redrawn so that it runs on smoothly over seams, closed darts and the centre (trade 4.8).

    as drawn                       its darts closed              redrawn, and opened again

    ────╲ ╱────────╲               ──────╲                       ────╲  ╱─────╲
         V          ╲ side                ╲──────╲ side               ╲╱       ╲ square to the side
                                                  ╲

The edge is laid down with its darts closed, drawn as one curve between the directions in which it must leave and
arrive, and opened again: so both legs of every dart end on it, equally long. It stays as long as it was stitched. Where
a curve could only get there with a hump, the seam at its end is carried on or cut back first, on both mates alike.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping
from dataclasses import dataclass, replace
from itertools import pairwise
from math import radians, tan

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Placement, Point, Segment
from gentle_hem.core.join import closed, opened
from gentle_hem.core.pattern import Dart, Edge, Piece, Role
from gentle_hem.core.seams import Seam
from gentle_hem.core.shape import CORNER_TOLERANCE, RUNS_ON, SMOOTH, Corner, End, Over, corners, turn
from gentle_hem.core.what import What

TRUED_FROM = 0.8
"""A corner of less is left as it is (degrees)."""

TRUED = frozenset({Role.WAIST, Role.HEM})
"""Edges that are redrawn as one curve."""

CURVED = 1.1
"""An edge that is so many times as long as its chord was drawn as the curve it is, and is not drawn anew."""

ROUNDED = SMOOTH - RUNS_ON
"""Edges whose corners are rounded where they lie, over closed darts too."""

ROUNDED_OVER = 80.0
"""How far to either side of a corner an edge is drawn anew (mm), or half the way to the next."""

MOST_BESIDE, LEAST_INWARD = 8.0, 0.02
"""How far beside its corner a rounded edge may pass (mm), and how little its arms may be bent for that to matter."""

LET_PASS = 0.02
"""What rounding a corner may add to an edge (mm)."""

ROUND_CORNER = 2 / 3
"""How far a curve's handles reach towards where its end directions meet: a parabola's."""

LEAST_HANDLE = 0.15
"""Where the end directions meet nearer to one end than this share of the chord, the curve has a turn in it instead."""

LEAST_SHARE = 0.2
"""The share of a curve's whole turn that its chord makes with either end, so that it comes round without a hump."""

GIVES = frozenset({Role.SIDE, Role.PRINCESS, Role.PANEL, Role.INSIDE_LEG, Role.CROTCH})
"""Edges that give a little at their ends, so that one that meets them keeps its length when it is trued."""

TURNED_OVER = 30.0
"""The end of a curve is turned within so much of it (mm), or a third of it."""

MOST_TURNED = 25.0
"""An end that would have to be turned further is meant to be as it is (degrees)."""

MOST_GIVEN = 20.0
"""How far an edge's end may move along it so that the edge keeps its length (mm)."""

MOST_SLID = 15.0
"""How far the end of a seam is carried on or cut back (mm): 3-12 mm is usual on skirts (trade 4.8)."""


@dataclass(frozen=True, slots=True)
class Slid:
    """An end of an edge that was moved along its seam so that the edge runs smoothly (mm, outward is more)."""

    end: End
    by: float


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
            drawn = _redrawn(made[what], name, ends, long.get((what, name))) if as_one else None
            made[what] = drawn or _ends_turned(made[what], name, ends)
    for what, name in wanted.bent:
        edge = made[what].edge(name)
        if edge.role in ROUNDED or (edge.role in TRUED and _is_curve_with_darts(made[what], edge)):
            made[what] = _rounded(made[what], name)
    return made, slid


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


@dataclass(frozen=True)
class _Closed:
    """An edge laid down with its darts closed, in the place of its first stretch."""

    spans: tuple[tuple[Path, Placement], ...]
    """Its stretches between the darts as they lie on the paper, and how each is moved to lie beside the one before."""

    @classmethod
    def of(cls, piece: Piece, edge: Edge) -> _Closed:
        spans = []
        start, here = 0.0, Placement()
        for dart in piece.darts_of(edge.name):
            spans.append((_stretch(edge.path, start, dart.at), here))
            here = _closing(piece, dart).then(here)
            start = dart.at + dart.intake
        spans.append((_stretch(edge.path, start, edge.path.length), here))
        return cls(tuple(spans))

    @property
    def is_drawn_curved(self) -> bool:
        """Whether it was drawn as a curve of its own: part of a circle, or several between one dart and the next."""
        return any(
            isinstance(path.segments[0], Arc)
            or (len(path.segments) > 1 and not all(isinstance(segment, Line) for segment in path))
            for path, _ in self.spans
        )

    @property
    def start(self) -> Point:
        return self.spans[0][0].start

    @property
    def end(self) -> Point:
        return self.spans[-1][1].place(self.spans[-1][0].end)

    @property
    def leaving(self) -> Point:
        return self.spans[0][0].leaving

    @property
    def arriving(self) -> Point:
        path, put = self.spans[-1]
        return path.arriving.turned(put.angle)

    @property
    def length(self) -> float:
        return sum(path.length for path, _ in self.spans)


def _stretch(path: Path, start: float, end: float) -> Path:
    if end - start < 1e-3:
        raise CannotMake("a dart reaches the end of its edge")
    return path.between(start, end)


def _closing(piece: Piece, dart: Dart) -> Placement:
    """What lies beyond a dart, moved so that its far leg lies on its near one; a pleat is only shifted."""
    near, far = piece.dart_legs(dart)
    if dart.pleat:
        return Placement.shift(near - far)
    near_leg, far_leg = (leg.leaving for leg in piece.dart_leg_paths(dart))
    turned = Placement.rotation(radians(turn(far_leg, near_leg)), far)
    return turned.then(Placement.shift(near - far))


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
        slid.append(Slid(corner.ends[0], by))
    return slid


def _slide(piece: Piece, end: End, wanted: _Wanted) -> float:
    """How far an edge's end is to go outward along its seam, so that the edge gets there in one curve (mm)."""
    edge = piece.edge(end.edge)
    if edge.role not in TRUED or edge.pointed or piece.what.section.is_upper:
        return 0.0  # the sides of a bodice are measured, and stay as long as they are
    at_start, at_end = wanted.turns[end.what, end.edge]
    try:
        laid = _Closed.of(piece, edge)
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
    by = leftward / outward.dot(chord.unit.left)
    return by if abs(by) <= MOST_SLID else 0.0


def _beyond(piece: Piece, end: End) -> Point:
    """The direction in which the seam at an end of an edge would be carried on."""
    neighbour = _neighbour(piece, end)
    return -neighbour.path.leaving if end.at_end else neighbour.path.arriving


def _neighbour(piece: Piece, end: End) -> Edge:
    """The edge that an edge meets at one of its ends."""
    index = piece.at_edge(end.edge)
    assert index is not None
    return piece.edges[(index + (1 if end.at_end else -1)) % len(piece.edges)]


def _carried_on(piece: Piece, end: End, by: float) -> Piece:
    """A piece with the seam at an end of an edge carried on outward, or cut back, and the edge's end with it."""
    seam, edge = _neighbour(piece, end), piece.edge(end.edge)
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


def with_paths(piece: Piece, paths: Mapping[str, Path], marked: str = "") -> Piece:
    """A piece with some edges' paths moved a little at their ends; what is marked on them stays where it is, except on
    the edge that is ``marked`` anew already.
    """
    darts, notches = list(piece.darts), list(piece.notches)
    for name, path in paths.items():
        old = piece.edge(name).path
        if old.start == path.start or name == marked:
            continue
        more = path.length - old.length
        if old.end != path.end:
            more = 0.0
        darts = [replace(d, at=d.at + more) if d.edge == name else d for d in darts]
        notches = [replace(n, at=n.at + more) if n.edge == name else n for n in notches]
    edges = tuple(replace(e, path=paths[e.name]) if e.name in paths else e for e in piece.edges)
    return replace(piece, edges=edges, darts=tuple(darts), notches=tuple(notches))


def _is_curve_with_darts(piece: Piece, edge: Edge) -> bool:
    """Whether an edge was drawn as a curve of its own and has darts, over which it is rounded: a circle with darts."""
    if edge.pointed or not piece.darts_of(edge.name):
        return False
    try:
        return _Closed.of(piece, edge).is_drawn_curved
    except CannotMake:
        return False


def _redrawn(piece: Piece, name: str, more: tuple[float, float], long: float | None) -> Piece | None:
    """An edge redrawn as one curve that leaves and arrives as it should, with ``more`` degrees inside the piece at its
    start and its end, ``long`` mm when it is stitched; as long as it was where nothing is said.

    None where the edge is a curve already, or cannot be drawn so.
    """
    edge, (at_start, at_end) = piece.edge(name), more
    try:
        laid = _Closed.of(piece, edge)
    except CannotMake:
        return None
    leave, arrive = laid.leaving.turned(radians(-at_start)), laid.arriving.turned(radians(at_end))
    start, end = laid.start, laid.end
    if laid.length > CURVED * start.distance(end) or laid.is_drawn_curved:
        return None
    long = laid.length if long is None else long
    gives_at_start, gives_at_end = (
        _neighbour(piece, End(piece.what, name, at_end, 0)).role in GIVES for at_end in (False, True)
    )
    if not gives_at_start and not gives_at_end:
        return None
    curve = _curve(start, leave, arrive, end)
    for _ in range(40):
        over = curve.length - long
        if abs(over) < 1e-6:
            return _opened(piece, edge, laid, Path.of(curve))
        if gives_at_end:
            end = end - arrive * over
        else:
            start = start + leave * over
        if max(start.distance(laid.start), end.distance(laid.end)) > MOST_GIVEN:
            break
        curve = _curve(start, leave, arrive, end)
    return None


def _ends_turned(piece: Piece, name: str, more: tuple[float, float]) -> Piece:
    """A curved edge with its ends turned, so that there are ``more`` degrees inside the piece at its start and end."""
    edge = piece.edge(name)
    path, darts, notches = edge.path, piece.darts_of(name), piece.notches
    reach = min(TURNED_OVER, path.length / 3)
    moved = 0.0
    if CORNER_TOLERANCE / 2 < abs(more[0]) <= MOST_TURNED and not any(dart.at < reach for dart in darts):
        out, rest = path.split(reach)
        turned = _as_long(out, out.leaving.turned(radians(-more[0])), out.arriving)
        path, moved = turned.then(rest), turned.length - reach
    if CORNER_TOLERANCE / 2 < abs(more[1]) <= MOST_TURNED and not any(
        dart.at + dart.intake > edge.path.length - reach for dart in darts
    ):
        rest, into = path.split(path.length - reach)
        path = rest.then(_as_long(into, into.leaving, into.arriving.turned(radians(more[1]))))
    return replace(
        piece.with_edge(name, path=path),
        darts=tuple(replace(d, at=d.at + moved) if d.edge == name else d for d in piece.darts),
        notches=tuple(replace(n, at=n.at + moved) if n.edge == name and n.at >= reach else n for n in notches),
    )


def _as_long(path: Path, leave: Point, arrive: Point) -> Path:
    """A curve between the ends of a path in other directions, as long as the path where its handles can make it so."""
    chord, handle = path.start.distance(path.end), 1 / 3
    for _ in range(6):
        curve = _with_handles(path.start, leave, arrive, path.end, handle)
        over = curve.length - path.length
        if abs(over) < 1e-4:
            break
        bowed = max(curve.length - chord, 1e-6)
        handle = min(max(handle * (1 - over / (2 * bowed)), 0.3), 0.45)
    return Path.of(curve)


def _curve(start: Point, leave: Point, arrive: Point, end: Point) -> Cubic:
    """One curve from one direction to another, without a hump where there can be one."""
    chord = end - start
    across = leave.cross(arrive)
    reach = chord.cross(arrive) / across if abs(across) > 1e-3 else 0.0
    back = leave.cross(chord) / across if abs(across) > 1e-3 else 0.0
    if min(reach, back) < LEAST_HANDLE * chord.size or max(reach, back) > 2 * chord.size:
        reach = back = chord.size / 2
    return Cubic(start, start + leave * (reach * ROUND_CORNER), end - arrive * (back * ROUND_CORNER), end)


def _rounded(piece: Piece, name: str) -> Piece:
    """An edge with its corners rounded, over darts as they will be folded. The piece as it is where a dart reaches the
    edge's end.
    """
    edge = piece.edge(name)
    try:
        laid = _Closed.of(piece, edge)
    except CannotMake:
        return piece
    runs, turns = _smooth_runs([segment for path, put in laid.spans for segment in path.placed(put)])
    made: list[Path] = []
    grown: list[tuple[float, float]] = []
    drawn = along = 0.0  # as it is drawn now, and as it was
    arm: Path | None = None  # what comes into the corner at hand
    for k, run in enumerate(runs):
        rest: Path | None = run
        reach = min(ROUNDED_OVER, run.length / (2 if 0 < k < len(turns) else 1))
        if arm:
            out, rest = _parted(run, reach)
            assert out is not None
            for curve, until in zip(_through_corner(arm, out, turns[k - 1]), (along, along + out.length), strict=True):
                made.append(curve)
                drawn += curve.length
                grown.append((until, drawn - until))
            along += out.length
        if k < len(turns):
            assert rest is not None
            rest, arm = _parted(rest, rest.length - reach)
            assert arm is not None
            along += arm.length
        if rest:
            made.append(rest)
            drawn += rest.length
            along += rest.length
    return _opened(piece, edge, laid, Path.joined(made), tuple(grown))


def _parted(path: Path, at: float) -> tuple[Path | None, Path | None]:
    """The parts before and after a place; None for one that is nothing."""
    if at <= 1e-3:
        return None, path
    if at >= path.length - 1e-3:
        return path, None
    return path.split(at)


def _smooth_runs(segments: list[Segment]) -> tuple[list[Path], list[float]]:
    """Segments as runs without corners, and by how many degrees each turns into the next."""
    runs, turns = [[segments[0]]], []
    for before, after in pairwise(segments):
        off = turn(before.arriving, after.leaving)
        if abs(off) >= TRUED_FROM:
            turns.append(off)
            runs.append([])
        runs[-1].append(after)
    return [Path(tuple(run)) for run in runs], turns


def _through_corner(into: Path, out: Path, off: float) -> list[Path]:
    """Two arms of a corner redrawn as curves that meet without one, so little beside it that they stay as long."""
    middle = into.arriving.turned(radians(off / 2))
    leave, arrive, long = into.leaving, out.arriving, into.length + out.length
    place = into.end
    for _ in range(6):
        curves = [_with_handles(into.start, leave, middle, place), _with_handles(place, middle, arrive, out.end)]
        over = sum(curve.length_between(0, 1) for curve in curves) - long
        # moved towards both far ends the two become shorter by so much for each mm
        inward = (into.start - place).unit + (out.end - place).unit
        if abs(over) < LET_PASS or abs(off) < CORNER_TOLERANCE or inward.size < LEAST_INWARD:
            break  # a corner that is hardly seen makes the edge no longer
        moved = place + inward.unit * (over / inward.size)
        if moved.distance(into.end) > MOST_BESIDE:
            break
        place = moved
    return [Path.of(curve) for curve in curves]


def _with_handles(start: Point, leave: Point, arrive: Point, end: Point, share: float = 1 / 3) -> Cubic:
    """A curve with handles of a share of its chord."""
    reach = start.distance(end) * share
    return Cubic(start, start + leave * reach, end - arrive * reach, end)


def _opened(piece: Piece, edge: Edge, laid: _Closed, curve: Path, grown: Growth = ()) -> Piece:
    """The piece with a curve that was drawn over closed darts opened again: each dart lies as far along it as it did,
    and both its legs end in that place. ``grown`` says from where on the curve is by how much longer.
    """
    darts = piece.darts_of(edge.name)
    places = [_grown(closed(dart.at, darts), grown) for dart in darts]
    paths: list[Path] = []
    moved: list[Dart] = []
    start = 0.0
    for place, (_, put) in zip([*places, curve.length], laid.spans, strict=True):
        span = curve.between(start, place).placed(put.undone)
        if paths:
            near, far = paths[-1].end, span.start
            dart = darts[len(moved)]
            moved.append(replace(dart, at=sum(p.length for p in paths), intake=near.distance(far)))
            paths.append(Path.through(near, far))
        paths.append(span)
        start = place
    whole = Path.joined(paths)
    index = piece.at_edge(edge.name)
    assert index is not None
    before, after = piece.edges[index - 1], piece.edges[(index + 1) % len(piece.edges)]
    paths_of = {
        before.name: before.path.ending_at(whole.start),
        edge.name: whole,
        after.name: after.path.starting_at(whole.end),
    }
    laid_open = iter(moved)
    return with_paths(
        replace(
            piece,
            darts=tuple(next(laid_open) if d.edge == edge.name else d for d in _in_order(piece.darts, edge.name)),
            notches=tuple(
                replace(n, at=opened(_grown(closed(n.at, darts), grown), moved)) if n.edge == edge.name else n
                for n in piece.notches
            ),
        ),
        paths_of, marked=edge.name,
    )  # fmt: skip


Growth = tuple[tuple[float, float], ...]
"""Lengths along an edge as it was, and by how much it has become longer up to there."""


def _grown(at: float, grown: Growth) -> float:
    """A length along an edge as it was, along it as it has become."""
    return at + next((more for until, more in reversed(grown) if until <= at + 1e-6), 0.0)


def _in_order(darts: tuple[Dart, ...], edge: str) -> list[Dart]:
    """The darts as they are kept, those of one edge among them in the order of its path."""
    sorted_there = iter(sorted((d for d in darts if d.edge == edge), key=lambda d: d.at))
    return [next(sorted_there) if d.edge == edge else d for d in darts]
