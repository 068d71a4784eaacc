"""Carrying a bodice draft on below the waist (trade 4.1, 5): for a dropped waist, a basque, a gown cut in one.

        │   ╱╲     ╲
   O ───┼──╱  ╲─────W      waist: no seam here any more
        │  ╲  ╱     │╲
        │   ╲╱      │  H   hip, a quarter of the hip with ease
        │  lower    │  │
        └───────────┴──┘   new lower edge, still called "waist" where something is joined to it
           point

The waist dart becomes a long dart pointed at both ends. Where the new edge lies above its lower point the
dart still opens on that edge, narrower.
"""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.waist_line import centre_of
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.pattern import Dart, Mark, MarkKind, Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import UNNAMED, Half

BELOW_SEAT = 127.0
"""The seat's contour is reached 5 in below the hip line: common practice (trade 4.3)."""

LEAST = 5.0
"""Nothing is carried down by less than this (mm)."""


@dataclass(frozen=True, slots=True)
class Below:
    """How a half goes on below its waist. Lengths in mm, widths from the centre line to the side seam."""

    length: float
    waist_to_hip: float
    hip_width: float
    hem_width: float
    dart_length: float
    """From the waist to the dart's lower point."""
    point: float = 0.0
    """How much further the centre is carried down, for a pointed edge."""
    knee_width: float | None = None
    waist_to_knee: float | None = None
    seat: float = 0.0
    """How far the centre comes in below the seat, 5 in below the hip (trade 4.3)."""
    from_underarm: bool = False
    """Whether it falls straight from the underarm, past the waist, as a tent does; the waist dart is left out."""


def carried_down(piece: Piece, below: Below) -> Piece:
    """A half, centre on its left, whose waist edge lies ``below.length`` lower.

    The new lowest edge keeps the waist's name, role and allowance. Raises CannotMake when the side would run
    over the dart or the length is nothing.
    """
    waist, side, centre = piece.edge("waist"), piece.edge("side"), centre_of(piece)
    darts = piece.darts_of("waist")
    if len(darts) > 1:
        raise CannotMake("the waist has more than one dart; merge them first")
    if below.length < LEAST and below.point < LEAST:
        raise CannotMake("there is nothing to carry down")
    old_foot, corner = waist.path.start, waist.path.end
    x0 = centre.path.start.x  # the original centre line, from which hip and hem are measured
    carried = below.length >= LEAST
    if below.from_underarm and piece.darts_of("side"):
        raise CannotMake("there is a dart on the side; move the bust dart elsewhere first")
    outer = _side_below(corner, x0, below) if carried and not below.from_underarm else None
    level = corner.y - below.length if carried else corner.y
    seat = below.seat if level < corner.y - below.waist_to_hip - BELOW_SEAT - 20 else 0.0
    line = _centre_below(centre.path, x0, corner, below, seat, min(level, old_foot.y) - below.point)
    foot = line.end
    falls = _falling(side.path.end, x0 + below.hem_width, level) if below.from_underarm else None
    edge_end = falls.start if falls else outer.start if outer else corner
    bottom = Path.through(foot, edge_end)
    made_darts: list[Dart] = [d for d in piece.darts if d.edge != "waist"]
    if darts and not falls:
        bottom, opened = _dart_through(piece, darts[0], bottom, below.dart_length, level)
        made_darts.append(opened)
    new_side = falls or (outer.then(side.path) if outer else side.path)
    shift = outer.length if outer else 0.0
    made_darts = [replace(d, at=d.at + shift) if d.edge == "side" else d for d in made_darts]
    gone = ("waist", "side") if falls else ("waist",)
    notches = [replace(n, at=n.at + shift) if n.edge == "side" else n for n in piece.notches if n.edge not in gone]
    if outer:
        notches.append(Notch("side", shift, UNNAMED, double=piece.what.half is not Half.FRONT))
    paths = {"waist": bottom, "side": new_side, centre.name: line}
    edges = tuple(replace(e, path=paths[e.name]) if e.name in paths else e for e in piece.edges)
    return replace(piece, edges=edges, darts=tuple(made_darts), notches=tuple(notches))


def _centre_below(centre: Path, x0: float, corner: Point, below: Below, seat: float, level: float) -> Path:
    """The centre line carried on down to a level: what was taken in at the waist runs out to nothing at the hip, and
    the seat's contour is counted from the original line (trade 4.3).
    """
    waist, hip = centre.end, Point(x0, corner.y - below.waist_to_hip)
    if abs(waist.x - x0) < 1e-9 and not seat:
        foot = Point(x0, level)
        return (
            Path.through(centre.start, foot)
            if len(centre.segments) == 1
            else Path((*centre.segments, Line(waist, foot)))
        )
    parts: list[Line | Cubic] = []
    if abs(waist.x - x0) < 1e-9:
        parts.append(Line(waist, hip))
    else:
        third = (waist.y - hip.y) / 3
        parts.append(Cubic(waist, waist + centre.arriving * (0.5 * third), hip + Point(0, third), hip))
    if seat:
        inner = Point(x0 + seat, hip.y - BELOW_SEAT)
        third = BELOW_SEAT / 3
        parts.append(Cubic(hip, hip - Point(0, third), inner + Point(0, third), inner))
    low = parts[-1].end
    if level < low.y - 1e-6:
        parts.append(Line(low, Point(low.x, level)))
    run = Path(tuple(parts))
    met = run.crossings(_level(level))
    if met and level > run.end.y + 1e-6:
        run = run.between(0.0, met[0][0])
    return Path((*centre.segments, *run.segments))


def _falling(underarm: Point, out: float, level: float) -> Path:
    """The side from the hem straight up to the underarm, no longer than it would be hanging straight down (trade 5)."""
    lean = (Point(out, level) - underarm).unit
    return Path.of(Line(underarm + lean * (underarm.y - level), underarm))


def _level(y: float) -> Path:
    return Path.through(Point(-3000, y), Point(5000, y))


def _side_below(corner: Point, x0: float, below: Below) -> Path:
    """The side seam below the waist, from the new lower edge up to the waist."""
    hip = Point(x0 + below.hip_width, corner.y - below.waist_to_hip)
    curve = Cubic(hip, hip + Point(0, below.waist_to_hip * 0.45), corner - Point(0, below.waist_to_hip * 0.30), corner)
    if below.length <= below.waist_to_hip - 1:
        path = Path.of(curve)
        level = corner.y - below.length
        met = path.crossings(Path.through(Point(x0 - 500, level), Point(x0 + 2500, level)))
        if not met:
            raise CannotMake("the side seam cannot be carried down")
        return path.between(met[-1][0], path.length)
    hem = Point(x0 + below.hem_width, corner.y - below.length)
    if below.length < below.waist_to_hip + 5:
        return Path.of(curve) if hem.distance(hip) < 1e-6 else Path.of(Line(hem, hip), curve)
    if below.knee_width is not None and below.waist_to_knee is not None:
        knee = Point(x0 + below.knee_width, corner.y - below.waist_to_knee)
        if hem.y < knee.y - 20 and knee.y < hip.y - 20:
            third = (hip.y - knee.y) / 3
            inward = Cubic(knee, knee + Point(0, third), hip - Point(0, third), hip)
            return Path.of(Line(hem, knee), inward, curve)
    return Path.of(Line(hem, hip), curve)


def _dart_through(piece: Piece, dart: Dart, bottom: Path, length: float, level: float) -> tuple[Path, Dart]:
    """The waist dart carried on to a point below, and the new edge with its mouth in it."""
    near, far = piece.dart_legs(dart)
    middle = near.towards(far, 0.5)
    low = middle - Point(0, length)
    near_bends, far_bends = dart.bends
    # the new edge may slant: the legs end where it crosses the dart's middle, so that both are equally long
    crossed = bottom.crossings(Path.through(middle, low))
    share = (middle.y - bottom.point_at(crossed[0][0]).y) / length if crossed else 0.0
    start, end = near.towards(low, share), far.towards(low, share)
    if crossed and start.distance(end) > 0.5:
        path = Path.through(bottom.start, start, end, bottom.end)
        return path, replace(
            dart,
            at=bottom.start.distance(start),
            intake=start.distance(end),
            bends=((near, *near_bends), (far, *far_bends)),
        )
    if near.y - level < 5:
        raise CannotMake("the new edge lies above the dart's mouth")
    under = bottom.crossings(Path.through(low + Point(0, 1e-3), Point(low.x, low.y - 5000)))
    at = under[0][0] if under else bottom.length * 0.5
    return bottom, replace(dart, at=at, intake=0.0, bends=((low, near, *near_bends), (low, far, *far_bends)))


def pointed_at_both_ends(piece: Piece) -> Piece:
    """The piece with every dart that no longer opens on an edge drawn as a closed shape inside it."""
    kept: list[Dart] = []
    inside: list[Mark] = list(piece.marks)
    for dart in piece.darts:
        if dart.intake > 1e-9 or not dart.bends[0]:
            kept.append(dart)
            continue
        low, *near = dart.bends[0]
        _, *far = dart.bends[1]
        inside.append(Mark(MarkKind.DART, Path.through(low, *near, dart.apex, *reversed(far), low)))
    return replace(piece, darts=tuple(kept), marks=tuple(inside))


def as_hem(piece: Piece, old: str, allowance: float) -> Piece:
    """The piece with one of its edges become its hem."""
    edges = tuple(
        replace(e, name="hem", role=Role.HEM, allowance=allowance, turned=True) if e.name == old else e
        for e in piece.edges
    )
    darts = tuple(replace(d, edge="hem") if d.edge == old else d for d in piece.darts)
    notches = tuple(replace(n, edge="hem") if n.edge == old else n for n in piece.notches)
    return replace(piece, edges=edges, darts=darts, notches=notches)


MOST_TRUED = 25.4
"""Side seams that differ by more than this are not trued to each other (mm)."""


def trued_at_side(piece: Piece, over: float) -> Piece:
    """A carried half, centre on its left, whose side seam is made shorter by ``over`` at its lower end."""
    side, bottom = piece.edge("side"), piece.edge("waist")
    if not 0 < over <= MOST_TRUED or over > side.path.segments[0].length - LEAST:
        return piece
    path = side.path.split(over)[1]
    last = bottom.path.segments[-1]
    made = Path((*bottom.path.segments[:-1], Line(last.start, path.start)))
    edges = tuple(replace(e, path={"side": path, "waist": made}.get(e.name, e.path)) for e in piece.edges)
    darts = tuple(replace(d, at=d.at - over) if d.edge == "side" else d for d in piece.darts)
    notches = tuple(replace(n, at=n.at - over) if n.edge == "side" else n for n in piece.notches)
    return replace(piece, edges=edges, darts=darts, notches=notches)
