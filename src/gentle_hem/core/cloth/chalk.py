"""Drawn straight on folded cloth: every point of a piece from the cut end and from the fold, allowances included.

cut end ─┬──────────────────        A  from the fold 0      from the cut end 2.5
         │A───B                     B            7.2                      0
    fold ┆    ╲C                    C           12.8                     4.1     curve through c1, c2
         ┆     │                    …                                             then what is trimmed from the front
         ┆D────E                                                                 alone, where both are drawn together

Rings and circles are marked on cloth folded in four or eight, from its tip:

tip ●──── r ────╮───────── r + length ─────────╮      reach: straight across the fold from edge to edge at the hem
     ╲          │                              │
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, degrees, hypot, radians, sin

from shapely import LineString, Polygon, box, line_merge
from shapely import Point as Spot
from shapely.affinity import scale, translate
from shapely.geometry.base import BaseGeometry

from gentle_hem.core.cloth.on_fold import half_on_fold
from gentle_hem.core.cloth.things import laid_down
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Arc
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Half, What

CORNER = radians(18)
"""A turn of a cut line that is sharper than this is a point to be marked."""

CHORD = 2.5
"""How far a curve may stray from the straight line between two of its points (mm)."""

TRIMMED_FROM = 3.0
"""What lies less far within the other is not trimmed but eased by the hand that cuts (mm)."""


LEAST_TRIMMED = 100.0
"""A sliver smaller than this is not said (mm²)."""


@dataclass(frozen=True, slots=True)
class ChalkPoint:
    """A point to be marked: its letter, and how far it is from the fold and from the cut end (mm)."""

    letter: str
    from_fold: float
    """Below 0: so far beyond it, as the back's allowance for a zip is."""
    from_cut_end: float
    curved: bool
    """Whether it is one of those a curve is led through, rather than a corner."""


@dataclass(frozen=True, slots=True)
class ChalkSheet:
    """A piece marked on folded cloth, in the order of marking: from the fold at the cut end round to it again."""

    name: str
    on_fold: bool
    """Whether its own fold lies on the cloth's; else the fold is only measured from."""
    width: float
    length: float
    points: tuple[ChalkPoint, ...]


def chalk(garment: Garment, what: What) -> ChalkSheet:
    """One piece marked on folded cloth, its top at the cut end."""
    piece = next(piece for piece in garment.pieces if piece.what == what)
    outline = _as_it_lies(garment, piece)
    return ChalkSheet(piece.name, piece.on_fold, *_size(outline), _points(outline))


def _as_it_lies(garment: Garment, piece: Piece) -> Polygon:
    """A piece by the fold, its foot at y = 0: on it where it is cut so, else with its centre seam on it and the
    allowance beyond (x below 0); a piece without a centre with its left by the fold.
    """
    if piece.on_fold:
        return half_on_fold(piece)
    one = next(one for one in cut_pieces(garment) if one.piece == piece.what)
    shape, lying = laid_down(one, piece)
    centre = next((edge.path for edge in piece.edges if edge.role.is_centre), None)
    if centre is None:
        return shape
    x = lying.place(*centre.end)[0]
    if x > shape.centroid.x:
        shape, x = scale(shape, -1, 1, origin=(0, 0)), -x
    return translate(shape, -x, -shape.bounds[1])


def _size(outline: Polygon) -> tuple[float, float]:
    left, bottom, right, top = outline.bounds
    return float(right - left), float(top - bottom)


def _points(outline: Polygon) -> tuple[ChalkPoint, ...]:
    """The corners of an outline and what a curve needs between them, from the upper left corner round by the right."""
    ring = _apart(list(outline.exterior.coords)[:-1])
    if outline.exterior.is_ccw:
        ring.reverse()
    top = max(y for _, y in ring)
    turns = [k for k in range(len(ring)) if abs(_turn(ring[k - 1], ring[k], ring[(k + 1) % len(ring)])) > CORNER]
    start = min(turns or range(len(ring)), key=lambda k: (round(ring[k][0], 1), -ring[k][1]))
    turns = [k for k in turns if k != start]
    summit = max(range(len(ring)), key=lambda k: ring[k][1])
    on_curve = {(summit - start) % len(ring)} - {(k - start) % len(ring) for k in turns} - {0}
    order = sorted({*((k - start) % len(ring) for k in turns), *on_curve})
    corners = [0, *order, len(ring)]
    round_it = [ring[(start + k) % len(ring)] for k in range(len(ring) + 1)]
    marked: list[tuple[tuple[float, float], bool]] = []
    for a, b in itertools.pairwise(corners):
        run = round_it[a : b + 1]
        marked.append((run[0], a in on_curve))
        marked += [(place, True) for place in _along(run)]
    letters = iter(_letters())
    points, corner, k = [], "", 0
    for (x, y), curved in marked:
        if curved:
            k += 1
            letter = f"{corner}{k}"
        else:
            corner, k = next(letters), 0
            letter = corner
        points.append(ChalkPoint(letter, x, top - y, curved))
    return tuple(points)


def _apart(ring: list[tuple[float, ...]]) -> list[tuple[float, float]]:
    """Places of an outline without those that lie on the one before."""
    kept: list[tuple[float, float]] = []
    for x, y in ring:
        if not kept or hypot(x - kept[-1][0], y - kept[-1][1]) > SAME_PLACE:
            kept.append((float(x), float(y)))
    return kept


SAME_PLACE = 2.0
"""Two places nearer than this are one chalk mark (mm)."""


def _letters() -> Sequence[str]:
    alphabet = [chr(ord("A") + k) for k in range(26) if chr(ord("A") + k) not in "IO"]
    return [*alphabet, *(one + one for one in alphabet), *(one * 3 for one in alphabet), *(one * 4 for one in alphabet)]


def _turn(before: tuple[float, float], here: tuple[float, float], after: tuple[float, float]) -> float:
    ux, uy, vx, vy = here[0] - before[0], here[1] - before[1], after[0] - here[0], after[1] - here[1]
    return atan2(ux * vy - uy * vx, ux * vx + uy * vy)


def _along(run: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """The places a curve is led through, evenly; none where it is nearly straight."""
    line = LineString(run)
    chord = LineString([run[0], run[-1]])
    if max(chord.distance(Spot(place)) for place in run) <= CHORD:
        return []
    count = max(len(line.simplify(CHORD).coords) - 1, 2)
    places = [line.interpolate(k / count, normalized=True) for k in range(1, count)]
    return [(float(place.x), float(place.y)) for place in places]


@dataclass(frozen=True, slots=True)
class Trim:
    """What is cut off one of two that are drawn together: the edge, and the points of it (from fold and cut end)."""

    name: str
    edge: str
    points: tuple[ChalkPoint, ...]


@dataclass(frozen=True, slots=True)
class Beyond:
    """A piece that reaches beyond the fold, by its centre's allowance (mm)."""

    name: str
    by: float


@dataclass(frozen=True, slots=True)
class Together:
    """A front and a back marked as one: what both are cut to, what is then trimmed from either alone, and which of them
    reaches beyond the fold.
    """

    sheet: ChalkSheet
    trims: tuple[Trim, ...]
    beyond: tuple[Beyond, ...]


LIKE = 0.1
"""How much of the whole may be trimmed off a front or a back before they are better drawn apart."""


def chalk_together(garment: Garment, front: What, back: What) -> Together | None:
    """A front and a back drawn on one folded cloth, the feet of their side seams at one level; None where they differ
    so much that they are better drawn apart.
    """
    pieces = {piece.what: piece for piece in garment.pieces}
    one, other = pieces[front], pieces[back]
    shapes = [_as_it_lies(garment, one), _as_it_lies(garment, other)]
    beyond = tuple(
        Beyond(piece.name, -float(shape.bounds[0]))
        for piece, shape in zip((one, other), shapes, strict=True)
        if shape.bounds[0] < -0.5
    )
    inside = [_largest(shape.intersection(box(0, -1, 1e5, 1e5))) for shape in shapes]
    level = _side_foot(inside[0]) - _side_foot(inside[1])
    inside[1] = translate(inside[1], 0, level)
    low = min(shape.bounds[1] for shape in inside)
    inside = [translate(shape, 0, -low) for shape in inside]
    whole = Polygon(_largest(inside[0].union(inside[1])).exterior)
    if any(whole.area - shape.area > LIKE * whole.area for shape in inside):
        return None
    sheet = ChalkSheet(f"{one.name} and {other.name}", True, *_size(whole), _points(whole))
    top = float(whole.bounds[3])
    trims = []
    for piece, shape in zip((one, other), inside, strict=True):
        off = whole.difference(shape).buffer(-TRIMMED_FROM / 2).buffer(TRIMMED_FROM / 2)
        trims += [
            Trim(piece.name, _edge_at(piece, shape, part), _trim_points(part, shape, top))
            for part in getattr(off, "geoms", [off])
            if part.area > LEAST_TRIMMED
        ]
    return Together(sheet, tuple(trims), beyond)


def _largest(found: BaseGeometry) -> Polygon:
    parts = [part for part in getattr(found, "geoms", [found]) if isinstance(part, Polygon)]
    return max(parts, key=lambda part: part.area)


def _side_foot(shape: Polygon) -> float:
    """How high the lowest corner on the side away from the fold lies."""
    ring = list(shape.exterior.coords)[:-1]
    reach = float(shape.bounds[2])
    return float(min(y for x, y in ring if x > 0.55 * reach))


def _edge_at(piece: Piece, shape: Polygon, part: Polygon) -> str:
    """What is hollowed out there: an edge high up by the fold is the neck, by the side the armhole."""
    x, y = part.centroid.x / max(shape.bounds[2], 1), part.centroid.y / max(shape.bounds[3], 1)
    roles = {edge.role for edge in piece.edges}
    if y > 0.5 and x < 0.5 and Role.NECKLINE in roles:
        return str(Role.NECKLINE)
    if y > 0.4 and Role.ARMHOLE in roles:
        return str(Role.ARMHOLE)
    return str(Role.HEM if y < 0.2 and Role.HEM in roles else Role.WAIST if y < 0.3 else Role.SIDE)


def _trim_points(part: Polygon, shape: Polygon, top: float) -> tuple[ChalkPoint, ...]:
    """The new line, from where it leaves what was marked to where it meets it again."""
    line = shape.exterior.intersection(part.buffer(TRIMMED_FROM))
    if hasattr(line, "geoms"):
        merged = line_merge(line)
        line = max(getattr(merged, "geoms", [merged]), key=lambda one: one.length)
    count = max(round(line.length / 60.0), 2)
    places = [line.interpolate(k / count, normalized=True) for k in range(count + 1)]
    return tuple(
        ChalkPoint(str(k), float(place.x), top - float(place.y), 0 < k < count) for k, place in enumerate(places, 1)
    )


@dataclass(frozen=True, slots=True)
class FoldedRing:
    """A flare cut as whole rings, or a part of one, from cloth folded to a wedge; its radii are those of the cut lines,
    from the tip (mm).
    """

    name: str
    rings: int
    """How many such rings it takes."""
    sweep: float
    """Of each, in degrees: 360, 180 or 90."""
    layers: int
    """Through how many layers it is cut: the cloth is folded in so many."""
    inner: float
    outer: float
    reach: float
    """Straight across the wedge at the hem, from fold to fold."""
    square: float
    """How long a side the cloth must have that is folded."""

    @property
    def wedge(self) -> float:
        """The angle at the tip (degrees)."""
        return self.sweep / self.layers


WHOLE = (90.0, 180.0, 360.0)
NEARLY = 0.06
"""How much of a ring a slit or a trued end may leave out of it."""


def folded_rings(garment: Garment) -> list[FoldedRing]:
    """The flares of a garment that come to a quarter, a half or whole circles when their pieces are laid side by side,
    each folded in four and in eight where it is a whole one.
    """
    flares: dict[tuple[str, float, float], list[Piece]] = {}
    for piece in garment.pieces:
        inner, outer = _arc_of(piece, Role.WAIST) or _arc_of(piece, Role.PANEL), _arc_of(piece, Role.HEM)
        if inner and outer and inner[0].centre.distance(outer[0].centre) < CONCENTRIC:
            radii = round(inner[0].radius - inner[1], 1), round(outer[0].radius + outer[1], 1)
            flares.setdefault((piece.what.section, *radii), []).append(piece)
    found = []
    for (section, inner_cut, outer_cut), pieces in flares.items():
        turn = sum(_turned_by(piece) for piece in pieces)
        rings = max(round(turn / 360), 1)
        sweep = next((whole for whole in WHOLE if abs(turn / rings - whole) < NEARLY * whole), None)
        if sweep is None:
            continue
        for layers in {360.0: (4, 8), 180.0: (2, 4), 90.0: (2,)}[sweep]:
            reach = 2 * outer_cut * sin(radians(sweep / layers) / 2)
            square = 2 * outer_cut if sweep > 90 else outer_cut
            found.append(FoldedRing(section, rings, sweep, layers, inner_cut, outer_cut, reach, square))
    return found


CONCENTRIC = 0.5
"""How far apart the centres of an inner and an outer edge may lie (mm)."""


def _turned_by(piece: Piece) -> float:
    """How far round all that is cut of a piece goes at its hem (degrees)."""
    arc = _arc_of(piece, Role.HEM)
    assert arc is not None
    return abs(degrees(arc[0].sweep)) * (2 if piece.on_fold else 1) * piece.cut


def _arc_of(piece: Piece, role: Role) -> tuple[Arc, float] | None:
    """The arc an edge of a role mostly is, and its allowance; None where it is none."""
    for edge in piece.edges:
        arcs = [segment for segment in edge.path.segments if isinstance(segment, Arc)]
        if edge.role is role and arcs:
            arc = max(arcs, key=lambda one: one.length)
            same = [one for one in arcs if one.centre.distance(arc.centre) < 0.01]
            if sum(one.length for one in same) > 0.9 * edge.path.length:
                return replace(arc, sweep=sum(one.sweep for one in same)), edge.allowance
    return None


def pairs_to_chalk(garment: Garment) -> list[tuple[What, What]]:
    """The fronts and backs of a garment that can be drawn together: of one section, panel and layer."""
    cut = {one.piece for one in cut_pieces(garment)}
    fronts = [piece.what for piece in garment.pieces if piece.what.half is Half.FRONT and piece.what in cut]
    return [
        (front, piece.what)
        for front in fronts
        for piece in garment.pieces
        if piece.what == replace(front, half=Half.BACK)
    ]
