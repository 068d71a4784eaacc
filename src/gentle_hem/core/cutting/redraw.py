"""An edge laid down with its darts closed, drawn anew, and opened again.

    as drawn                       its darts closed              redrawn, and opened again

    ────╲ ╱────────╲               ──────╲                       ────╲  ╱─────╲
         V          ╲ side                ╲──────╲ side               ╲╱       ╲ square to the side
                                                  ╲

What is to be redrawn, and how much it is to turn, is said by ``true``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from math import radians, sin

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Placement, Point, Segment
from gentle_hem.core.geometry.point import turn
from gentle_hem.core.join import closed, opened
from gentle_hem.core.pattern import Dart, Edge, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.shape import CORNER_TOLERANCE

TRUED_FROM = 0.8
"""A corner of less is left as it is (degrees)."""

CURVED = 1.1
"""An edge that is so many times as long as its chord was drawn as the curve it is, and is not drawn anew."""

ROUNDED_OVER = 80.0
"""How far to either side of a corner an edge is drawn anew (mm), or half the way to the next."""

LEAST_ARM = 0.01
"""No arm of a corner is shorter than this (mm)."""

ARM_TURNS = 0.5
"""How much of a circle is drawn anew beside a corner (radians)."""

MOST_BESIDE, LEAST_INWARD = 8.0, 0.02
"""How far beside its corner a rounded edge may pass (mm), and how little its arms may be bent for that to matter."""

LET_PASS, LET_PASS_ACROSS = 0.02, 0.15
"""What rounding a corner may add to an edge or take from it (mm): through the corner, and across it."""

ROUND_CORNER = 2 / 3
"""How far a curve's handles reach towards where its end directions meet: a parabola's."""

LEAST_HANDLE = 0.15
"""Where the end directions meet nearer to one end than this share of the chord, the curve has a turn in it instead."""

GIVES = frozenset({Role.SIDE, Role.PRINCESS, Role.PANEL, Role.INSIDE_LEG, Role.CROTCH})
"""Edges that give a little at their ends, so that one that meets them keeps its length when it is trued."""

TURNED_OVER = 30.0
"""The end of a curve is turned within so much of it (mm), or a third of it; twice as much where it is bent sharply."""

TURNED_OVER_A_DEGREE = 6.0
"""An armhole is turned over so much of it for each degree (mm)."""

MOST_TURNED = 25.0
"""An end that would have to be turned further is meant to be as it is (degrees)."""

MOST_GIVEN = 20.0
"""How far an edge's end may move along it so that the edge keeps its length (mm)."""


@dataclass(frozen=True)
class Closed:
    """An edge laid down with its darts closed, in the place of its first stretch."""

    spans: tuple[tuple[Path, Placement], ...]
    """Its stretches between the darts as they lie on the paper, and how each is moved to lie beside the one before."""

    @classmethod
    def of(cls, piece: Piece, edge: Edge) -> Closed:
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


def neighbour(piece: Piece, edge: str, at_end: bool) -> Edge:
    """The edge that an edge meets at one of its ends."""
    index = piece.at_edge(edge)
    assert index is not None
    return piece.edges[(index + (1 if at_end else -1)) % len(piece.edges)]


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


def is_curve_with_darts(piece: Piece, edge: Edge) -> bool:
    """Whether an edge was drawn as a curve of its own and has darts, over which it is rounded: a circle with darts."""
    if edge.pointed or not piece.darts_of(edge.name):
        return False
    try:
        return Closed.of(piece, edge).is_drawn_curved
    except CannotMake:
        return False


def redrawn(piece: Piece, name: str, more: tuple[float, float], long: float | None) -> Piece | None:
    """An edge redrawn as one curve that leaves and arrives as it should, with ``more`` degrees inside the piece at its
    start and its end, ``long`` mm when it is stitched; as long as it was where nothing is said.

    None where the edge is a curve already, or cannot be drawn so.
    """
    edge, (at_start, at_end) = piece.edge(name), more
    try:
        laid = Closed.of(piece, edge)
    except CannotMake:
        return None
    leave, arrive = laid.leaving.turned(radians(-at_start)), laid.arriving.turned(radians(at_end))
    start, end = laid.start, laid.end
    if laid.length > CURVED * start.distance(end) or laid.is_drawn_curved:
        return None
    long = laid.length if long is None else long
    gives_at_start, gives_at_end = (neighbour(piece, name, at_end).role in GIVES for at_end in (False, True))
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


def ends_turned(piece: Piece, name: str, more: tuple[float, float]) -> Piece:
    """A curved edge with its ends turned, so that there are ``more`` degrees inside the piece at its start and end.

    It is turned over as little of it as leaves room for its allowance; the piece as it is where nothing does.
    """
    edge = piece.edge(name)
    # an armhole is no seam yet, and may be turned over more of it: so it has no hook at the underarm
    wide = TURNED_OVER_A_DEGREE * max(map(abs, more)) if edge.role is Role.ARMHOLE else 0.0
    for reach in (max(TURNED_OVER, wide), 2 * TURNED_OVER):
        turned = _kept_long(_turned(piece, edge, more, min(reach, edge.path.length / 3)), edge)
        if _leaves_room(turned.edge(name).path, edge.allowance):
            return turned
    return piece


def _turned(piece: Piece, edge: Edge, more: tuple[float, float], reach: float) -> Piece:
    """A piece with the ends of one edge turned, each within a ``reach`` of it."""
    path, darts, name = edge.path, piece.darts_of(edge.name), edge.name
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
        notches=tuple(
            replace(n, at=n.at + moved) if n.edge == name and n.at >= reach else n for n in piece.notches
        ),
    )  # fmt: skip


def _kept_long(piece: Piece, was: Edge) -> Piece:
    """A piece with an edge as long as it was: where it has become longer, its end is drawn back along it a little, if
    what it meets there gives.
    """
    path, long = piece.edge(was.name).path, was.path.length
    beside = neighbour(piece, was.name, at_end=True)
    if beside.role not in GIVES:
        return piece
    for _ in range(5):
        over = path.length - long
        if abs(over) < LET_PASS or path.end.distance(was.path.end) > MOST_BESIDE:
            break
        path = path.ending_at(path.end - path.arriving * over)
    return with_paths(piece, {was.name: path, beside.name: beside.path.starting_at(path.end)}, marked=was.name)


def _leaves_room(path: Path, allowance: float) -> bool:
    """Whether a curve is nowhere bent so tightly that an allowance beside it would run back on itself."""
    bends = (s.bend(k / 8) for s in path if isinstance(s, Cubic) for k in range(9))
    return all(1 + bend * allowance > 0 for bend in bends)


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


def rounded(piece: Piece, name: str) -> Piece:
    """An edge with its corners rounded, over darts as they will be folded. The piece as it is where a dart reaches the
    edge's end.
    """
    edge = piece.edge(name)
    try:
        laid = Closed.of(piece, edge)
    except CannotMake:
        return piece
    if any(segment.length < LEAST_ARM for path, _ in laid.spans for segment in path):
        return piece  # too short a stretch to be drawn anew
    runs, turns = _smooth_runs([segment for path, put in laid.spans for segment in path.placed(put)])
    made: list[Path] = []
    grown: list[tuple[float, float]] = []
    drawn = along = 0.0  # as it is drawn now, and as it was
    arm: Path | None = None  # what comes into the corner at hand
    for k, run in enumerate(runs):
        rest: Path | None = run
        most = min(ROUNDED_OVER, run.length / (2 if 0 < k < len(turns) else 1))
        if arm:
            out, rest = _parted(run, _gently_bent(run.segments[0], most))
            assert out is not None
            # a side goes through its corner, where a girth is measured; other edges are smoother across theirs
            curves = _over_corner(arm, out, turns[k - 1], across=edge.role is not Role.SIDE)
            for curve, until in zip(curves, (along, along + out.length), strict=True):
                made.append(curve)
                drawn += curve.length
                grown.append((until, drawn - until))
            along += out.length
        if k < len(turns):
            assert rest is not None
            rest, arm = _parted(rest, rest.length - _gently_bent(run.segments[-1], most))
            assert arm is not None
            along += arm.length
        if rest:
            made.append(rest)
            drawn += rest.length
            along += rest.length
    return _opened(piece, edge, laid, Path.joined(made), tuple(grown))


def _gently_bent(segment: Segment, most: float) -> float:
    """How far beside a corner that lies at its end a curve may be drawn anew, ``most`` mm at most: one cubic follows
    no more of a small circle than an arm of so little turn.
    """
    return min(most, ARM_TURNS * segment.radius) if isinstance(segment, Arc) else most


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


def _over_corner(into: Path, out: Path, off: float, *, across: bool) -> list[Path]:
    """Two arms of a corner redrawn as curves that meet without one, so little beside it that they stay as long: through
    the corner, or ``across`` it.
    """
    middle = into.arriving.turned(radians(off / 2))
    leave, arrive, long = into.leaving, out.arriving, into.length + out.length
    place, let_pass = into.end, LET_PASS
    if across:  # as a parabola would: through the corner itself each arm would have to bulge first
        place += middle.left * (min(into.length, out.length) / 2 * sin(radians(off) / 2))
        let_pass = LET_PASS_ACROSS
    for _ in range(6):
        curves = [_with_handles(into.start, leave, middle, place), _with_handles(place, middle, arrive, out.end)]
        over = sum(curve.length for curve in curves) - long
        # moved towards both far ends the two become shorter by so much for each mm
        inward = (into.start - place).unit + (out.end - place).unit
        if abs(over) < let_pass or abs(off) < CORNER_TOLERANCE or inward.size < LEAST_INWARD:
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


def _opened(piece: Piece, edge: Edge, laid: Closed, curve: Path, grown: Growth = ()) -> Piece:
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
