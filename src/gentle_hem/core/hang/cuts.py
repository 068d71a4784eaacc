"""One piece as it is worn: cut without its darts, its outline with a point at every mate, in triangles.

───•──•  •──•───     a dart's mouth is cut out; its legs have the same points and are one where it is sewn
   ╲   ╲╱   ╱
    •  •  •          what lies beyond the centre (a stand, a vent's underlap) lies under the other side: cut off
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import pairwise
from math import ceil, hypot

import numpy as np
import shapely
from scipy.spatial import Delaunay
from shapely import Polygon

from gentle_hem.core.dressed.hanging import Patch
from gentle_hem.core.geometry import Path
from gentle_hem.core.hang.mesh import INSIDE, Mesh, Numbers, grid_in
from gentle_hem.core.pattern import Dart, Edge, MarkKind, Piece

HAIR = 0.05
"""Places of an edge that lie nearer are one (mm)."""

BEYOND = 0.5
"""So near the centre a place lies on it (mm)."""

STAND = 3.0
"""A piece that reaches further beyond the centre has something there that lies under the other side (mm)."""

BENT = 2.0
"""A centre that bends more is none to cut along (mm)."""

LEAST = 0.02
"""A triangle with less than such a share of an equilateral one's area is none."""

LONGER = 1.3
"""An edge is cut into parts no longer than so many spacings."""

FLAT = 0.3
"""Curves inside a piece are followed to within this (mm)."""

Place = tuple[float, float]
New = Callable[[], int]


class Worn(StrEnum):
    """How a piece is put on."""

    UPPER = "upper"
    """It lies on her: a piece of the upper part."""
    HUNG = "hung"
    """It hangs from an edge round her."""
    LEG = "leg"
    """It goes round a leg."""
    ARM = "arm"
    """It goes round an arm."""
    COLLAR = "collar"
    """It stands up from the neck edge."""
    LET_IN = "let in"
    """It is let into a seam."""
    STRAP = "strap"
    """It goes over a shoulder."""


@dataclass
class Cut:
    """One piece as it is worn on her left."""

    piece: Piece
    worn: Worn = Worn.UPPER
    patch: Patch | None = None
    """How it hangs; None where it does not."""
    part: int = -1
    """Which hanging part it is in, and which patch of it."""
    number: int = 0
    mirrored: bool = False
    """Whether its centre lies on its right."""
    ats: dict[str, set[float]] = field(default_factory=lambda: defaultdict(set))
    """By edge, how far along its path there must be a point (mm)."""
    ids: dict[tuple[str, float], int] = field(default_factory=dict)
    """The points of its edges."""
    centre: list[int] = field(default_factory=list)
    """The points that lie on its centre line."""
    same: list[tuple[int, int]] = field(default_factory=list)
    """The points of its darts' legs that are one."""

    def at(self, edge: str, along: float) -> float:
        """A place of an edge: that of a known one where there is one within a hair."""
        near = min(self.ats[edge], key=lambda known: abs(known - along), default=None)
        if near is not None and abs(near - along) < HAIR:
            return near
        self.ats[edge].add(along)
        return along

    def meshed(self, spacing: float, new: New) -> tuple[Mesh, list[int]]:
        """It in triangles (mm), and the number of each of its points."""
        chain = self._outline(spacing, new)
        holes = [self._hole(mark.path, spacing, new) for mark in self.piece.marks if mark.kind is MarkKind.DART]
        line = self.centre_line()
        if line is not None:
            chain = _without_beyond(chain, *line, spacing, new)
            self.centre = [point for place, point in chain if abs(_across(place, *line)) < BEYOND]
            holes = [hole for hole in holes if min(_across(place, *line) for place, _ in hole) > 0]
        shape = Polygon([place for place, _ in chain], [[place for place, _ in hole] for hole in holes])
        around = [*chain, *(one for hole in holes for one in hole), *self._marked(shape, new)]
        inside = grid_in(shape, spacing)
        if len(around) > len(chain):
            known = np.array([place for place, _ in around[len(chain) :]])
            far = np.hypot(*(inside[:, None] - known[None]).transpose(2, 0, 1)).min(axis=1)
            inside = inside[far > INSIDE * spacing]
        points = np.concatenate((np.array([place for place, _ in around]), inside.reshape(-1, 2)))
        corners = Delaunay(points).simplices.astype(np.int64)
        mesh = Mesh(points, corners)
        middles = points[corners].mean(axis=1)
        keep = shapely.contains_xy(shape, middles[:, 0], middles[:, 1]) & (mesh.areas > LEAST * spacing**2 / 2)
        return Mesh(points, corners[keep]), [point for _, point in around] + [new() for _ in inside]

    def _marked(self, shape: Polygon, new: New) -> list[tuple[Place, int]]:
        """The places of lines marked inside that something is sewn to."""
        found = []
        for name, ats in self.ats.items():
            if self.piece.at_edge(name) is None:
                path = self.piece.edge(name).path
                for at in sorted(ats):
                    place = path.point_at(at)
                    if shapely.contains_xy(shape, place.x, place.y):
                        found.append(((place.x, place.y), self.point(name, at, new)))
        return found

    def point(self, edge: str, at: float, new: New) -> int:
        """The point of a place of an edge."""
        if (edge, at) not in self.ids:
            self.ids[edge, at] = new()
        return self.ids[edge, at]

    def _outline(self, spacing: float, new: New) -> list[tuple[Place, int]]:
        edges = self.piece.edges
        for edge, after in zip(edges, (*edges[1:], edges[0]), strict=True):
            corner = self.point(after.name, self.at(after.name, 0.0), new)
            self.ids[edge.name, self.at(edge.name, edge.path.length)] = corner
        chain: list[tuple[Place, int]] = []
        for edge in edges:
            mouths = {self.at(edge.name, d.at): d for d in self.piece.darts_of(edge.name)}
            for at in self._places(edge, spacing)[:-1]:
                place = edge.path.point_at(at)
                chain.append(((place.x, place.y), self.point(edge.name, at, new)))
                if at in mouths:
                    chain += self._dart(edge, mouths[at], spacing, new)
        return chain

    def _places(self, edge: Edge, spacing: float) -> list[float]:
        """Where there are points along an edge, in order; none within a dart's mouth."""
        mouths = [
            (self.at(edge.name, d.at), self.at(edge.name, d.at + d.intake)) for d in self.piece.darts_of(edge.name)
        ]
        for at in (0.0, edge.path.length):
            self.at(edge.name, at)
        known = [at for at in sorted(self.ats[edge.name]) if not any(low < at < high for low, high in mouths)]
        made = [known[0]]
        for at, after in pairwise(known):
            if all(at != low for low, _ in mouths):
                count = ceil((after - at) / (LONGER * spacing) - 1e-6)
                made += [self.at(edge.name, at + (after - at) * k / count) for k in range(1, count)]
            made.append(after)
        return made

    def _dart(self, edge: Edge, dart: Dart, spacing: float, new: New) -> list[tuple[Place, int]]:
        """What lies between a dart's two legs on the outline: down the one and up the other; a pleat is only folded
        over at its edge.
        """
        ends = [self.point(edge.name, self.at(edge.name, at), new) for at in (dart.at, dart.at + dart.intake)]
        self.same.append((ends[0], ends[1]))
        if dart.pleat:
            count = max(2, ceil(dart.intake / spacing))
            across = [edge.path.point_at(dart.at + dart.intake * k / count) for k in range(1, count)]
            return [((p.x, p.y), new()) for p in across]
        near, far = self.piece.dart_leg_paths(dart)
        count = max(1, ceil(near.length / spacing))
        down, up = (
            [(p.x, p.y) for p in (leg.point_at(leg.length * k / count) for k in range(1, count))] for leg in (near, far)
        )
        one, other = [(place, new()) for place in down], [(place, new()) for place in up]
        self.same += [(a, b) for (_, a), (_, b) in zip(one, other, strict=True)]
        return [*one, ((dart.apex.x, dart.apex.y), new()), *reversed(other)]

    def _hole(self, path: Path, spacing: float, new: New) -> list[tuple[Place, int]]:
        """A dart with two points, cut out; its two sides are one."""
        ring = [(p.x, p.y) for p in path.flatten(FLAT)]
        ring = ring[:-1] if hypot(ring[0][0] - ring[-1][0], ring[0][1] - ring[-1][1]) < HAIR else ring
        top, low = (of(range(len(ring)), key=lambda k: ring[k][1]) for of in (max, min))
        one = [ring[(top + k) % len(ring)] for k in range((low - top) % len(ring) + 1)]
        other = [ring[(top - k) % len(ring)] for k in range((top - low) % len(ring) + 1)]
        count = max(2, ceil(max(_long(one), _long(other)) / spacing))
        a, b = ([(place, new()) for place in _even(side, count)[1:-1]] for side in (one, other))
        self.same += [(p, q) for (_, p), (_, q) in zip(a, b, strict=True)]
        return [(ring[top], new()), *a, (ring[low], new()), *reversed(b)]

    def centre_line(self) -> tuple[Numbers, Numbers] | None:
        """A line down the middle of the body on the piece: a place of it and the way across into the piece; None where
        it has none that is straight.
        """
        if self.worn is Worn.UPPER:
            return np.zeros(2), np.array([-1.0 if self.mirrored else 1.0, 0.0])
        if self.patch is None:
            return None
        marks = [m.path for m in self.piece.marks if m.kind is MarkKind.CENTRE]
        edges = [e.path for e in self.piece.edges if e.role.is_centre and not self.piece.on_fold]
        if not marks and not edges:
            return None
        path = marks[0] if marks else max(edges, key=lambda p: p.length)
        start, end = np.array((path.start.x, path.start.y)), np.array((path.end.x, path.end.y))
        along = (end - start) / max(float(np.hypot(*(end - start))), 1e-9)
        across = np.array([-along[1], along[0]])
        if max(abs(_across((p.x, p.y), start, across)) for p in path.flatten(1.0)) > BENT:
            return None
        # what is sewn on her left lies on the side that is kept
        stretch, sewn_on = self.patch.stretch, self.piece.edge(self.patch.stretch.edge).path
        last = sewn_on.length if stretch.end is None else stretch.end
        places = [sewn_on.point_at(stretch.start + (last - stretch.start) * k / 8) for k in range(9)]
        side = [_across((p.x, p.y), start, across) for p in places]
        return start, across if max(side) > -min(side) else -across


def _across(place: Place, start: Numbers, across: Numbers) -> float:
    return float((place[0] - start[0]) * across[0] + (place[1] - start[1]) * across[1])


def _without_beyond(
    chain: list[tuple[Place, int]], start: Numbers, across: Numbers, spacing: float, new: New
) -> list[tuple[Place, int]]:
    """An outline without what lies beyond the centre; where that is cut off there are points along the centre."""
    far = [_across(place, start, across) for place, _ in chain]
    if min(far) > -STAND:
        return chain
    made: list[tuple[Place, int]] = []
    for k, here in enumerate(chain):
        now, was = far[k], far[k - 1]
        if (now < -BEYOND) != (was < -BEYOND) and max(now, was) > BEYOND:
            part = now / (now - was)
            (x, y), (px, py) = here[0], chain[k - 1][0]
            made.append(((x + (px - x) * part, y + (py - y) * part), new()))
        if now >= -BEYOND:
            made.append(here)
    whole = []
    for (place, point), (after, _) in zip(made, [*made[1:], made[0]], strict=True):
        whole.append((place, point))
        long = hypot(after[0] - place[0], after[1] - place[1])
        if long > LONGER * spacing and all(abs(_across(p, start, across)) < STAND for p in (place, after)):
            count = ceil(long / spacing)
            whole += [
                ((place[0] + (after[0] - place[0]) * k / count, place[1] + (after[1] - place[1]) * k / count), new())
                for k in range(1, count)
            ]
    return whole


def _long(line: Sequence[Place]) -> float:
    return sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(line))


def _even(line: Sequence[Place], count: int) -> list[Place]:
    """Places at even shares of a line."""
    places = np.array(line)
    far = np.concatenate(([0.0], np.cumsum(np.hypot(*np.diff(places, axis=0).T))))
    at = np.linspace(0, far[-1], count + 1)
    return list(zip(np.interp(at, far, places[:, 0]).tolist(), np.interp(at, far, places[:, 1]).tolist(), strict=True))
