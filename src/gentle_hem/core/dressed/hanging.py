"""What hangs below: skirts, bands, tiers, peplums, ruffles, flounces, each a patch of cloth from one edge to the next.

top edge   ──────────────      where it is sewn on: shares of her round, and a height
   │   u from centre front to centre back
   v   down the patch          its slice at every depth is measured across the pieces, its height down them
lower edge ──────────────      what hangs from there in turn
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cutting.open_out import OTHER
from gentle_hem.core.dressed.form import Form
from gentle_hem.core.dressed.slices import SAMPLES, Numbers
from gentle_hem.core.dressed.surface import FLARES, GATHERS, Folds, Half, Surface, folds_of, half_surface, held_out
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.seams import Stretch
from gentle_hem.core.what import Section, What

ROWS = 13
ACROSS = 17
"""So many places are measured down a patch, and across it."""

SEWN_SIDES = frozenset({Role.SIDE, Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.PANEL, Role.PRINCESS, Role.YOKE})

STRIPS = (Section.RUFFLE, Section.FLOUNCE)

GATHERED = 1.2
"""A top edge so many times as long as what it is sewn to is gathered."""


@dataclass(frozen=True)
class Patch:
    """One stretch of a hanging part: its places by depth and across, how long its slices are and how far down."""

    piece: Piece
    stretch: Stretch
    x: Numbers
    y: Numbers
    lengths: Numbers
    """Across at each depth, darts closed (mm)."""
    down: Numbers
    """Below the top edge, by depth and place across (mm)."""
    lower: tuple[str, ...]
    """The edges it ends in, in the order of the run."""
    darts: tuple[tuple[float, float], ...]
    """Its darts at the top edge: how far across, as a share, and how long (mm); a pleat is as long as nothing."""
    sides: tuple[str, str]
    """The edges it begins and ends with."""

    def at_depths(self, depths: Numbers) -> Numbers:
        """How long its slices are that are equally deep all across, carried on below a foot that is higher (mm)."""
        places = [np.stack([_carried(depths, self.down[:, k], of[:, k]) for k in range(ACROSS)], 1)
                  for of in (self.x, self.y)]  # fmt: skip
        made: Numbers = _long(*places) - (_long(self.x, self.y)[0] - self.lengths[0])
        made[0] = self.lengths[0]
        return made

    def nearest(self, place: Point) -> tuple[float, float]:
        """Depth and share across of a place of the piece, to the nearest measured one."""
        at = int(np.argmin((self.x - place.x) ** 2 + (self.y - place.y) ** 2))
        return at // ACROSS / (ROWS - 1), at % ACROSS / (ACROSS - 1)


UNEVEN = 1.05
"""Patches that are so many times as long in one place as in another are measured at equal depths."""


def _long(x: Numbers, y: Numbers) -> Numbers:
    """How long rows of places are."""
    made: Numbers = np.hypot(x[:, 1:] - x[:, :-1], y[:, 1:] - y[:, :-1]).sum(axis=1)
    return made


def _carried(depths: Numbers, known: Numbers, values: Numbers) -> Numbers:
    """Values at depths, carried on straight below the last that is known."""
    slope = (values[-1] - values[-2]) / max(known[-1] - known[-2], 1e-9)
    made: Numbers = np.interp(depths, known, values) + np.maximum(depths - known[-1], 0.0) * slope
    return made


DEPTHS = np.linspace(0.0, 1.0, ROWS)
PLACES = np.linspace(0.0, 1.0, ACROSS)


FOLLOWED = 0.1
"""An edge is followed to within this (mm)."""


def _points(path: Path, shares: Numbers) -> Numbers:
    """Places at shares of a path's way."""
    places = np.array(path.flatten(FOLLOWED))
    far = np.concatenate((np.zeros(1), np.cumsum(np.hypot(*(places[1:] - places[:-1]).T))))
    at = shares * far[-1]
    return np.stack((np.interp(at, far, places[:, 0]), np.interp(at, far, places[:, 1])), 1)


@lru_cache(maxsize=64)
def patch(piece: Piece, stretch: Stretch) -> Patch | None:
    """A piece from an edge of it down to what it ends in; None where it has no lower edge."""
    place = piece.at_edge(stretch.edge)
    if place is None:
        return None
    edges = (*piece.edges[place:], *piece.edges[:place])
    lower = [k for k, e in enumerate(edges) if k and e.role is Role.HEM]
    # a part that is cut across ends in the line it was cut along
    lower = lower or [k for k, e in enumerate(edges) if k and (e.name == "lower" or e.role is Role.YOKE)]
    if not lower:
        return None
    first, last = lower[0], lower[-1]
    hem = f"hem{OTHER}" if stretch.edge.endswith(OTHER) else "hem"
    if any(edges[k].name == hem for k in lower):  # a vent's own hem lies beside it, or that of the other side
        first = last = next(k for k in lower if edges[k].name == hem)
    top = edges[0].path
    bottom = Path.joined([e.path for e in edges[first : last + 1]]) if first != last else edges[first].path
    after = _side(edges[1], top.end, bottom.start, from_top=True)
    before = _side(edges[-1], top.start, bottom.end, from_top=False)
    names = tuple(e.name for e in edges[first : last + 1])
    bottom, left, right = bottom.reversed(), before, after
    if stretch.backwards:
        top, bottom, left, right = top.reversed(), bottom.reversed(), right, left
    else:
        names = tuple(reversed(names))
    t, b, le, ri = _points(top, PLACES), _points(bottom, PLACES), _points(left, DEPTHS), _points(right, DEPTHS)
    u, v = PLACES[None, :, None], DEPTHS[:, None, None]
    grid = (
        (1 - v) * t[None] + v * b[None] + (1 - u) * le[:, None] + u * ri[:, None]
        - ((1 - u) * (1 - v) * t[0] + u * (1 - v) * t[-1] + (1 - u) * v * b[0] + u * v * b[-1])
    )  # fmt: skip
    x, y = grid[..., 0], grid[..., 1]
    down = np.zeros((ROWS, ACROSS))
    down[1:] = np.cumsum(np.hypot(x[1:] - x[:-1], y[1:] - y[:-1]), axis=0)
    lengths = _long(x, y)
    lengths[0], lengths[-1] = top.length, bottom.length
    if piece.what.section in STRIPS:  # it goes round and round, and is as deep all along
        lengths = top.length + (bottom.length - top.length) * DEPTHS
        deep = min(left.length, right.length)
        down = np.repeat((DEPTHS * deep)[:, None], ACROSS, axis=1)
    sides = (edges[-1].name, edges[1].name)
    darts = []
    for dart in piece.darts_of(stretch.edge):
        near, far = piece.dart_legs(dart)
        long = 0.0 if dart.pleat else near.towards(far, 0.5).distance(dart.apex)
        middle = (dart.at + dart.intake / 2) / top.length
        darts.append((1 - middle if stretch.backwards else middle, long))
        if dart.pleat:
            lengths[0] = lengths[0] - dart.intake
        else:
            lengths = lengths - dart.intake * np.maximum(1 - down[:, ACROSS // 2] / max(long, 1.0), 0.0)
    return Patch(piece, stretch, x, y, lengths, down, names, tuple(darts), sides[::-1] if stretch.backwards else sides)


def _side(edge: Edge, top: Point, bottom: Point, *, from_top: bool) -> Path:
    """A side of a patch from its top down: the edge that lies there, carried on straight to the lower edge."""
    if edge.role not in SEWN_SIDES or edge.path.length < 1:
        return Path.of(Line(top, bottom))
    path = edge.path if from_top else edge.path.reversed()
    if path.end.distance(bottom) < 0.1:
        return path
    return Path((*path.segments, Line(path.end, bottom)))


@dataclass(frozen=True)
class Hung:
    """A hanging part on one garment: its patches in order, and its surface."""

    patches: tuple[Patch, ...]
    surface: Surface
    bounds: Numbers
    """By depth, the shares at which its patches begin and end."""
    shares: tuple[float, float]
    below: int
    """How many parts it hangs from, one from another."""
    over: bool = False
    """Whether it hangs over what it is sewn to, and not from its foot."""

    def seam(self, index: int) -> tuple[Numbers, Numbers]:
        """Rows and shares of the seam before a patch."""
        return np.arange(ROWS, dtype=float), self.bounds[:, index]

    def down(self, index: int, across: float, depth: float) -> tuple[Numbers, Numbers]:
        """Rows and shares of a line straight down a patch, from its top to a share of its depth."""
        rows = np.linspace(0.0, depth * (ROWS - 1), 8)
        share = self.bounds[:, index] + (self.bounds[:, index + 1] - self.bounds[:, index]) * across
        return rows, np.interp(rows, np.arange(ROWS), share)

    def share(self, index: int, depth: float, across: float) -> float:
        """The share of the whole half of a place of a patch."""
        row = depth * (ROWS - 1)
        low, high = (float(np.interp(row, np.arange(ROWS), self.bounds[:, k])) for k in (index, index + 1))
        return low + (high - low) * across


def hang(
    patches: Sequence[Patch], form: Form, top: Callable[[Numbers], Numbers], held: float, sewn_to: float,
    shares: tuple[float, float], cloth: Cloth, added: Numbers | None = None, below: int = 0, over: bool = False,
    gathers: Folds = GATHERS,
) -> Hung:  # fmt: skip
    """Patches hung from an edge: ``top`` says the height of its shares, ``held`` how long it is held out there, all
    round, ``sewn_to`` how long what it is sewn to is, along these patches, ``added`` what is let into them at each
    depth, all round (mm).
    """
    deepest = max(float(p.down[-1].max()) for p in patches)
    uneven = deepest > UNEVEN * min(float(p.down[-1].min()) for p in patches)
    lengths = np.array([p.at_depths(DEPTHS * deepest) if uneven else p.lengths for p in patches])
    whole = lengths.sum(axis=0)
    bounds = np.concatenate((np.zeros((1, ROWS)), np.cumsum(lengths, axis=0))) / whole
    low, high = shares
    bounds = (low + (high - low) * bounds).T
    columns = np.linspace(low, high, SAMPLES)
    tops = top(columns)
    down = np.empty((ROWS, SAMPLES))
    for row in range(ROWS):
        places = np.concatenate([
            bounds[row, k] + (bounds[row, k + 1] - bounds[row, k]) * PLACES for k in range(len(patches))
        ])  # fmt: skip
        down[row] = np.interp(columns, places, np.concatenate([p.down[row] for p in patches]))
    z = tops[None, :] - down
    if uneven:  # each slice is as deep all round, and what is shorter there ends before it
        down_to, z = z, tops[None, :] - (DEPTHS * deepest)[:, None]
    part = high - low
    girths = 2 * whole / part + (0.0 if added is None else added)
    middle = z.mean(axis=1)
    body, aspect, forward = form.at(middle)
    pleated = any(long == 0 for p in patches for _, long in p.darts)
    gathered = pleated or bool(whole[0] > sewn_to * GATHERED)
    under = np.maximum(body, min(held, float(girths[0])) if middle[0] < form.hip else 0.0)
    base = held_out(girths, under, middle[0] - middle, held, cloth, gathered)
    base[0] = min(held, girths[0])
    laid = np.concatenate((base[:1], girths[1:]))  # gathers lie too close at their seam to be seen as folds
    folds = FLARES if not gathered else GATHERS if pleated else gathers
    phase = folds_of(base, laid, float(middle[0] - middle[-1]), cloth, folds)
    rounder = np.clip((base / np.maximum(body, 1.0) - 1.0) * 0.8, 0.0, 1.0)
    aspect = aspect + (0.92 - aspect) * rounder
    if shares != (0.0, 1.0):  # only part of the round: its slice is cut out of the whole one
        whole_round = half_surface(z, laid, base, aspect, forward, phase)
        keep = np.linspace(low * (SAMPLES - 1), high * (SAMPLES - 1), SAMPLES)
        near = np.minimum(keep.astype(int), SAMPLES - 2)
        rest = keep - near
        x = whole_round.x[:, near] * (1 - rest) + whole_round.x[:, near + 1] * rest
        y = whole_round.y[:, near] * (1 - rest) + whole_round.y[:, near + 1] * rest
        phase = None if phase is None else np.interp(keep, np.arange(SAMPLES), phase)
        left = Half(x, y, z, laid / 2)
    else:
        left = half_surface(z, laid, base, aspect, forward, phase)
    if uneven:
        asked = left
        left = _ended(asked, down_to, down[-1] / deepest)
        edge = sum(float(p.lengths[-1]) for p in patches)
        nearer = 1 - (1 - edge / _foot(left)) * DEPTHS**4  # what it ends in rises and falls over the folds as well
        left = _ended(
            Half(asked.x * nearer[:, None], asked.y * nearer[:, None], asked.z, asked.girths),
            down_to,
            down[-1] / deepest,
        )
    surface = Surface(left, left.mirrored(), shares, float(base[-1]), phase, gathered and not pleated, uneven)
    return Hung(tuple(patches), surface, bounds, shares, below, over)


def _foot(half: Half) -> float:
    """How long what a half ends in is, risen and fallen (mm)."""
    x, y, z = (np.diff(of[-1]) for of in (half.x, half.y, half.z))
    return float(np.sqrt(x * x + y * y + z * z).sum())


def _ended(half: Half, z: Numbers, shares: Numbers) -> Half:
    """A half whose columns end at shares of its depth: each of its rows as much of that way down."""
    rows = np.arange(ROWS)[:, None] * np.minimum(shares, 1.0)[None, :]
    above = np.minimum(rows.astype(int), ROWS - 2)
    part, columns = rows - above, np.arange(rows.shape[1])[None, :]
    x, y = (of[above, columns] * (1 - part) + of[above + 1, columns] * part for of in (half.x, half.y))
    return Half(x, y, z, half.girths)


def ends(patches: Sequence[Patch]) -> dict[tuple[What, str], int]:
    """The lower edges of patches, and the patch each belongs to."""
    return {(p.piece.what, name): k for k, p in enumerate(patches) for name in p.lower}
