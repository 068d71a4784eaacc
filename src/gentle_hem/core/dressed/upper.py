"""The bodice, or a gown cut in one, as it lies on the figure: every place of its pieces goes to a place on her.

across   how far a place lies from the centre on the cloth, darts and gaps between panels closed
down     its height on her: the waist on her waist, the neck point at her neck, the underarm of the front at the
         underarm of the back, so that what a bust dart takes out does not hang
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cutting.open_out import is_other
from gentle_hem.core.dressed.form import Form
from gentle_hem.core.dressed.slices import SAMPLES, Numbers
from gentle_hem.core.dressed.surface import FLARES, Surface, folds_of, half_surface, held_out
from gentle_hem.core.dressed.surface import Half as SurfaceHalf
from gentle_hem.core.geometry import Path
from gentle_hem.core.pattern import Edge, MarkKind, Piece, Role
from gentle_hem.core.steps.base import seen_from_centre
from gentle_hem.core.what import Half, What

ABOVE, BELOW = 14, 30
ROWS = ABOVE + BELOW
"""Rows above the underarm, and from there down."""

LEVELS = 90
ENDS = 7.0
"""So near its top or its foot a piece may not reach all its way across (mm)."""

FOOT = 121
"""Places along the lowest edge."""

MOST_UNEVEN = 25.0
"""A lowest edge that strays further from an even one is meant to (mm): it is pointed, or shorter in front."""

FLAT = 1.5
"""Paths are followed to within this (mm)."""

FLAT_SHOULDER = 0.62
"""Over the shoulders cloth lies no rounder than this (depth to width), from memory."""

ACROSS = frozenset({Role.SIDE, Role.ARMHOLE, Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.PRINCESS, Role.PANEL})
"""A dart on such an edge takes length, not width."""


def followed(path: Path) -> Numbers:
    """A path as points, one a row."""
    return np.array([(p.x, p.y) for p in path.flatten(FLAT)])


def spans(outline: Numbers, levels: Numbers) -> tuple[Numbers, Numbers]:
    """From where to where an outline reaches across at levels; NaN where it does not."""
    x0, y0 = outline[:-1, 0], outline[:-1, 1]
    x1, y1 = outline[1:, 0], outline[1:, 1]
    level = levels[:, None]
    met = (np.minimum(y0, y1) <= level) & (level <= np.maximum(y0, y1)) & (y0 != y1)
    with np.errstate(divide="ignore", invalid="ignore"):
        x = x0 + (level - y0) * (x1 - x0) / np.where(y0 == y1, 1.0, y1 - y0)
    low = np.where(met, x, np.inf).min(axis=1, initial=np.inf)
    high = np.where(met, x, -np.inf).max(axis=1, initial=-np.inf)
    return np.where(np.isfinite(low), low, np.nan), np.where(np.isfinite(high), high, np.nan)


def _filled(values: Numbers) -> Numbers:
    """NaNs filled from the nearest known value; nothing known is nothing."""
    known = ~np.isnan(values)
    if not known.any():
        return np.zeros_like(values)
    places = np.arange(len(values))
    made: Numbers = np.interp(places, places[known], values[known])
    return made


@dataclass(frozen=True)
class _Wedge:
    """What a dart takes out across, by level, and where it begins."""

    start: Numbers
    wide: Numbers


BESIDE_CENTRE = -3.0
"""What lies further beyond the centre than this is a stand's or a facing's (mm)."""


def beyond_centre(edge: Edge) -> bool:
    """Whether an edge belongs to a stand or a facing folded back; the piece lies with its centre on the left."""
    return min(edge.path.start.x, edge.path.end.x) < BESIDE_CENTRE


WHOLE = 120.0
"""A piece that reaches further beyond the centre than a stand and its facing is the whole of both sides (mm)."""


def is_whole(piece: Piece) -> bool:
    """Whether a piece is both sides of its half in one, and they are not alike."""
    left, _, right, _ = piece.seam_line.box
    if piece.on_fold:
        return False
    return min(right, -left) > WHOLE or any(is_other(edge.name) for edge in piece.edges)


class HalfUpper:
    """The front or the back of one side, its centre on its left."""

    def __init__(self, pieces: Sequence[Piece], half: Half, neck_length: float, waist: float | None) -> None:
        turned = sorted((seen_from_centre(p) for p in pieces), key=lambda p: sum(p.seam_line.box[0::2]))
        self.half, self.pieces = half, {piece.what: piece for piece in turned}
        outlines = [followed(piece.seam_line) for piece in turned]
        bottom, top = min(o[:, 1].min() for o in outlines), max(o[:, 1].max() for o in outlines)
        self.levels = np.linspace(bottom, top, LEVELS)
        self.waist = self._waist_level() if waist is None else waist
        shoulders = [y for p in turned for e in p.edges if e.role is Role.SHOULDER
                     for y in (e.path.start.y, e.path.end.y)]  # fmt: skip
        self.neck = max(shoulders) if shoulders else self.waist + neck_length
        self.underarm = self._underarm()
        self._measure(turned, outlines)

    def _waist_level(self) -> float:
        ends = [
            min((e.path.start, e.path.end), key=lambda p: abs(p.x)).y
            for p in self.pieces.values() for e in p.edges if e.role is Role.WAIST
        ]  # fmt: skip
        return min(ends) if ends else float(self.levels[0])

    def _underarm(self) -> float:
        sides = [
            max(e.path.start.y, e.path.end.y) for p in self.pieces.values() for e in p.edges if e.role is Role.SIDE
        ]
        return max(sides) if sides else float(self.levels[-1])

    def _measure(self, pieces: Sequence[Piece], outlines: Sequence[Numbers]) -> None:
        """How far across each piece reaches, and what lies closed before it."""
        centre = [followed(e.path) for p in pieces for e in p.edges if e.role.is_centre and not beyond_centre(e)]
        if centre:
            line = np.concatenate(centre)
            line = line[np.argsort(line[:, 1])]
            self._centre = np.interp(self.levels, line[:, 1], line[:, 0])
        else:
            self._centre = np.zeros(LEVELS)
        reaches = [spans(outline, self.levels) for outline in outlines]
        low, high = (np.array([reach[k] for reach in reaches]) for k in (0, 1))
        past = high < 0  # the other side of a piece that is whole
        low, high = np.where(past, np.nan, np.fmax(low, self._centre)), np.where(past, np.nan, high)
        self._wedges = {p.what: [self._wedge(dart) for dart in _darts(p)] for p in pieces}
        taken = np.array([sum((w.wide for w in self._wedges[p.what]), np.zeros(LEVELS)) for p in pieces])
        # near its own top and foot a piece reaches only part of its way: there it is beside the next as further in
        ends = np.array([(o[:, 1].min() + ENDS, o[:, 1].max() - ENDS) for o in outlines])
        whole_way = (self.levels[None, :] > ends[:, :1]) & (self.levels[None, :] < ends[:, 1:])
        inner = np.where(whole_way, low, np.nan)
        order = np.argsort(np.where(np.isnan(inner), np.inf, inner), axis=0)
        low_in, high_in, taken_in = (np.take_along_axis(of, order, axis=0) for of in (inner, high, taken))
        # what lies closed before a piece: the darts of those nearer the centre, and the gaps between them
        gaps = np.nan_to_num(low_in[1:] - high_in[:-1], nan=0.0)
        before_in = np.concatenate((np.zeros((1, LEVELS)), np.cumsum(np.nan_to_num(taken_in[:-1]) + gaps, axis=0)))
        before = np.empty_like(before_in)
        np.put_along_axis(before, order, before_in, axis=0)
        before = np.array([_filled(row) for row in np.where(np.isnan(inner), np.nan, before)])
        self._before = {p.what: before[k] for k, p in enumerate(pieces)}
        reach = high - self._centre - before - taken
        reach = np.nan_to_num(np.nanmax(np.where(np.isnan(reach), -np.inf, reach), axis=0), neginf=0.0)
        feet = [min(e.path.start.y, e.path.end.y) for p in pieces for e in p.edges if e.role is Role.SIDE]
        # below the end of the side the lower edge only dips: the half is as wide there as above
        least = min(feet, default=float(self.levels[0])) + 1.0
        whole = self.levels >= least
        self.reach = np.where(
            whole, reach, np.interp(least, self.levels[whole], reach[whole]) if whole.any() else reach
        )

    def _wedge(self, outline: Numbers) -> _Wedge:
        low, high = spans(outline, self.levels)
        return _Wedge(_filled(low), np.nan_to_num(high - low, nan=0.0))

    def across(self, piece: Piece, points: Numbers) -> Numbers:
        """How far from the centre places of a piece lie on the cloth, mm."""
        x, y = points[:, 0], points[:, 1]
        made = x - np.interp(y, self.levels, self._centre) - np.interp(y, self.levels, self._before[piece.what])
        for wedge in self._wedges[piece.what]:
            begins, wide = np.interp(y, self.levels, wedge.start), np.interp(y, self.levels, wedge.wide)
            made = made - np.minimum(np.maximum(x - begins, 0.0), wide)
        return np.asarray(made)

    def width(self, level: Numbers) -> Numbers:
        """How far the half reaches across at levels of its pieces, darts closed, mm."""
        made: Numbers = np.interp(level, self.levels, self.reach)
        return made


def _darts(piece: Piece) -> list[Numbers]:
    """The outlines of the darts that take width."""
    found = []
    for dart in piece.darts:
        if piece.edge(dart.edge).role in ACROSS:
            continue
        near, far = piece.dart_legs(dart)
        found.append(np.array([(p.x, p.y) for p in (near, dart.apex, far, near)]))
    found += [followed(mark.path) for mark in piece.marks if mark.kind is MarkKind.DART]
    return [outline for outline in found if outline[:, 0].mean() > 0]  # not those of a whole piece's other side


def _own_share(path: Path) -> float:
    """How much of an edge is on the side that is looked at: of one that runs over the centre its half."""
    ends = path.start.x, path.end.x
    return 0.5 if min(ends) < BESIDE_CENTRE and max(ends) > -BESIDE_CENTRE else float(sum(ends) > 0)


@dataclass(frozen=True)
class Placed:
    """Places on the surface: their rows and shares, and how high they lie."""

    row: Numbers
    share: Numbers
    z: Numbers


class Upper:
    """One side of the bodice or gown on the figure."""

    def __init__(
        self, pieces: Mapping[Half, Sequence[Piece]], form: Form, waists: Mapping[Half, float],
        feet: Collection[tuple[What, str]],
    ) -> None:  # fmt: skip
        self.form = form
        self.halves = {
            half: HalfUpper(there, half, form.lengths[half], waists.get(half))
            for half, there in pieces.items()
            if there
        }
        high, low = [], []
        for half in self.halves.values():
            high.append(float(self._middle(half, half.levels[-1:])[0]))
            low.append(float(self._middle(half, half.levels[:1])[0]))
        back = self.halves.get(Half.BACK) or next(iter(self.halves.values()))
        self.underarm = float(self._middle(back, np.array([back.underarm]))[0])
        tops = np.linspace(max(max(high), self.underarm + 10), self.underarm, ABOVE + 1)[:-1]
        self.z = np.concatenate((tops, np.linspace(self.underarm, min(low), BELOW)))
        self.foot_length = sum(
            piece.stitched_length(edge.name) * (_own_share(edge.path) if is_whole(piece) else 1)
            for flat in self.halves.values() for what, piece in flat.pieces.items() for edge in piece.edges
            if (what, edge.name) in feet
        )  # fmt: skip
        self.foot = self._foot(feet)

    def _foot(self, feet: Collection[tuple[What, str]]) -> tuple[Numbers, Numbers]:
        """The lowest edge: the height of its shares."""
        found: dict[Half, tuple[Numbers, Numbers]] = {}
        for half, flat in self.halves.items():
            spots = [
                self._spot(half, piece, followed(edge.path))
                for what, piece in flat.pieces.items()
                for edge in piece.edges
                if (what, edge.name) in feet
            ]
            if spots:
                found[half] = (np.concatenate([s for s, _ in spots]), np.concatenate([z for _, z in spots]))
        if not found:
            return np.array([0.0, 1.0]), np.array([self.z[-1], self.z[-1]])
        if len(found) == 2:  # front and back end in the same place, the side seam
            (front, high), (back, low) = found[Half.FRONT], found[Half.BACK]
            side = (float(front.max()) + float(back.min())) / 2
            front = front * side / max(float(front.max()), 0.01)
            back = 1 - (1 - back) * (1 - side) / max(1 - float(back.min()), 0.01)
            found = {Half.FRONT: (front, high), Half.BACK: (back, low)}
        share, z = (np.concatenate([one[k] for one in found.values()]) for k in (0, 1))
        order = np.argsort(share)
        even = np.linspace(0.0, 1.0, FOOT)
        level = np.interp(even, share[order], z[order])
        # with its darts closed an edge runs evenly; on paper it rises and falls at every one of them
        waves = np.cos(np.pi * np.outer(even, np.arange(3)))
        smooth: Numbers = waves @ np.linalg.lstsq(waves, level, rcond=None)[0]
        if float(np.abs(smooth - level).max()) < MOST_UNEVEN:
            return even, smooth
        return even, np.convolve(np.pad(level, 3, mode="edge"), np.full(7, 1 / 7), mode="valid")

    def _middle(self, half: HalfUpper, y: Numbers) -> Numbers:
        """The height of levels down the centre."""
        tall = (self.form.neck - self.form.waist) / max(half.neck - half.waist, 1.0)
        above = y - half.waist
        made: Numbers = self.form.waist + np.where(above > 0, above * tall, above)
        return made

    def _level(self, half: HalfUpper, z: Numbers) -> Numbers:
        """The level of a half's pieces that lies at heights, down the centre."""
        tall = (self.form.neck - self.form.waist) / max(half.neck - half.waist, 1.0)
        above = z - self.form.waist
        made: Numbers = half.waist + np.where(above > 0, above / tall, above)
        return made

    def height_of(self, half: Half, level: float) -> float:
        """The height of a level of a half's pieces, down the centre (mm)."""
        return float(self._middle(self.halves[half], np.array([level]))[0])

    def height(self, half: HalfUpper, y: Numbers, across: Numbers) -> Numbers:
        """The height of places: the farther from the centre, the more the underarms of front and back agree."""
        middle = self._middle(half, y)
        if half.half is Half.BACK or Half.BACK not in self.halves or half.underarm - half.waist < 20:
            return middle
        tall = (self.underarm - self.form.waist) / (half.underarm - half.waist)
        over = self.form.neck - self.underarm
        above = (y - half.underarm) * over / max(half.neck - half.underarm, 1.0)
        side = np.where(
            y > half.underarm, self.underarm + above,
            np.where(y > half.waist, self.form.waist + (y - half.waist) * tall, middle),
        )  # fmt: skip
        part = np.clip(across / np.maximum(half.width(np.minimum(y, half.underarm)), 1.0), 0.0, 1.0)
        made: Numbers = middle * (1 - part) + side * part
        return made

    @cached_property
    def half_girths(self) -> Numbers:
        """Half round at each row: the pattern's below the underarm, above it the figure's, as much eased."""
        worn = sum((half.width(self._level(half, self.z)) for half in self.halves.values()), np.zeros(ROWS))
        body = self.form.at(self.z)[0] / 2
        if len(self.halves) < 2:
            worn = worn * 2
        # between the underarm and the shoulder tip the armholes are open: the round runs on from one to the other
        tips = [self._tip(half) for half in self.halves.values()]
        tip = max((t for t in tips if t is not None), default=self.form.shoulder[1])
        at_underarm, at_tip = (float(np.interp(-level, -self.z, worn)) for level in (self.underarm, tip - 1.0))
        rest = np.clip((self.z - self.underarm) / max(tip - self.underarm, 1.0), 0.0, 1.0)
        open_round = at_underarm * (1 - rest) + max(at_tip, body[0]) * rest
        made: Numbers = np.where((self.z > self.underarm) & (self.z < tip), open_round, np.maximum(worn, 1.0))
        return made

    def _tip(self, half: HalfUpper) -> float | None:
        """How high the shoulder tip of a half lies; None where it has no shoulder."""
        ends = [
            min(e.path.start.y, e.path.end.y) for p in half.pieces.values() for e in p.edges if e.role is Role.SHOULDER
        ]
        return float(self._middle(half, np.array([min(ends)]))[0]) if ends else None

    def _spot(self, half: Half, piece: Piece, points: Numbers) -> tuple[Numbers, Numbers]:
        flat = self.halves[half]
        across = flat.across(piece, points)
        z = self.height(flat, points[:, 1], across)
        share = np.clip(across / np.interp(-z, -self.z, self.half_girths), -0.2, 1.0)
        return share if half is Half.FRONT else 1.0 - share, z

    def put(self, half: Half, piece: Piece, points: Numbers) -> Placed:
        """Where places of a piece (its centre on its left) lie."""
        share, z = self._spot(half, piece, points)
        foot = np.interp(share, *self.foot)
        above = np.interp(-z, -self.z[: ABOVE + 1], np.arange(ABOVE + 1, dtype=float))
        below = ABOVE + np.clip((self.underarm - z) / np.maximum(self.underarm - foot, 1.0), 0, 1) * (BELOW - 1)
        return Placed(np.where(z > self.underarm, above, below), share, z)


def upper_surface(left: Upper, right: Upper, cloth: Cloth, added: Mapping[int, Numbers]) -> Surface:
    """The surface both sides make; ``added`` is what godets add to each half row."""
    halves: dict[int, SurfaceHalf] = {}
    held, phase = 0.0, None
    for sign, side in ((1, left), (-1, right)):
        if sign < 0 and side is left:
            halves[sign] = halves[1].mirrored()
            continue
        body, aspect, forward = side.form.at(side.z)
        girth = 2 * (side.half_girths + added[sign])
        below = side.z <= side.underarm
        start = int(np.argmax(below)) if below.any() else 0
        over = np.where(below, body, 1.0)
        held_rows = np.where(
            below,
            held_out(girth, over, np.maximum(side.z[start] - side.z, 0.0), float(girth[start]), cloth), girth,
        )  # fmt: skip
        phase = folds_of(held_rows, girth, float(side.z[0] - side.z[-1]), cloth, FLARES)
        # what is held away from the body is rounder than it
        rounder = np.clip((held_rows / np.maximum(body, 1.0) - 1.0) * 0.8, 0.0, 1.0)
        aspect = np.where(below, aspect + (0.92 - aspect) * rounder, np.minimum(aspect, FLAT_SHOULDER))
        z = np.repeat(side.z[:, None], SAMPLES, axis=1)
        half = _down_to_foot(
            half_surface(z, girth, held_rows, aspect, forward, phase),
            side,
            forward,
            float(added.get(sign, np.zeros(1))[-1]),
        )
        halves[sign] = half if sign > 0 else half.mirrored()
        # as long as it is drawn, but for its folds
        held = float(held_rows[-1] * half.girths[-1] / max(girth[-1] / 2, 1.0))
    return Surface(halves[1], halves[-1], held=held, phase=phase)


EASED_IN = np.clip((np.arange(ABOVE + BELOW) - (ABOVE + BELOW - 7)) / 6, 0.0, 1.0)
"""How far each row has come to be as long as the lowest edge is stitched."""


def _down_to_foot(level: SurfaceHalf, side: Upper, forward: Numbers, added: float) -> SurfaceHalf:
    """Level rows drawn anew so that the lowest of them is the lower edge, which need not be level, and as long as it is
    stitched, with what is ``added`` by godets.
    """
    foot = np.interp(np.linspace(0.0, 1.0, SAMPLES), *side.foot)
    share = np.arange(BELOW) / (BELOW - 1)
    z = np.concatenate((level.z[:ABOVE], side.underarm + (foot[None, :] - side.underarm) * share[:, None]))
    place = np.interp(-z, -side.z, np.arange(ROWS, dtype=float))
    low = np.minimum(place.astype(int), ROWS - 2)
    part, columns = place - low, np.arange(SAMPLES)[None, :]
    x, y = (of[low, columns] * (1 - part) + of[low + 1, columns] * part for of in (level.x, level.y))
    girths = np.hypot(np.diff(x, axis=1), np.diff(y, axis=1)).sum(axis=1)
    if side.foot_length:
        times = (1 + ((side.foot_length + added) / girths[-1] - 1) * EASED_IN)[:, None]
        middle = forward[:, None]
        x, y, girths = x * times, middle + (y - middle) * times, girths * times[:, 0]
    return SurfaceHalf(x, y, z, girths)
