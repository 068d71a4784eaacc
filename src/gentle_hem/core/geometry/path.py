"""Segments end to end: an edge, a style line, an outline.

    start ──── line ────╮ arc ╭──── cubic ──── end
          at = 0                      at = length

``at`` is a length along the path from its start, in millimetres.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import accumulate, pairwise

from gentle_hem.core.cannot import CannotDraw
from gentle_hem.core.geometry.crossing import along_line, apart, crossings
from gentle_hem.core.geometry.placement import Placement
from gentle_hem.core.geometry.point import Point, turn
from gentle_hem.core.geometry.segment import Arc, Box, Cubic, Line, Segment, arc_as_cubics
from gentle_hem.core.geometry.worked_once import worked_once

JOINED = 1e-6
"""Ends closer than this are joined (mm)."""


def _look_between(end: Point, start: Point) -> None:
    """Raises CannotDraw where a path would be broken."""
    if end is not start and end != start and end.distance(start) > JOINED:
        raise CannotDraw(f"the path is broken between {end} and {start}")


@dataclass(frozen=True)
class Path:
    """Segments in order, each starting where the one before ended.

    Raises CannotDraw when it is empty or broken.

    >>> Path.through(Point(0, 0), Point(3, 4)).length
    5.0
    """

    segments: tuple[Segment, ...]

    def __post_init__(self) -> None:
        if not self.segments:
            raise CannotDraw("a path needs at least one segment")
        for before, after in pairwise(self.segments):
            _look_between(before.end, after.start)

    @classmethod
    def of(cls, *segments: Segment) -> Path:
        return cls(segments) if len(segments) > 1 else cls._whole(segments)

    @classmethod
    def _whole(cls, segments: tuple[Segment, ...]) -> Path:
        """Segments that come from a path and are in its order, so that they need not be looked over again."""
        made = object.__new__(cls)
        made.__dict__["segments"] = segments
        return made

    @classmethod
    def through(cls, *points: Point) -> Path:
        """Straight lines from place to place."""
        return cls(tuple(Line(a, b) for a, b in pairwise(points)))

    @classmethod
    def joined(cls, paths: Iterable[Path]) -> Path:
        """Paths laid end to end. Raises CannotDraw where there is a gap between two, or none at all."""
        segments: list[Segment] = []
        for path in paths:
            if segments:
                _look_between(segments[-1].end, path.segments[0].start)
            segments += path.segments
        return cls._whole(tuple(segments)) if segments else cls(())

    @property
    def start(self) -> Point:
        return self.segments[0].start

    @property
    def end(self) -> Point:
        return self.segments[-1].end

    @worked_once
    def _ends(self) -> tuple[float, ...]:
        return tuple(accumulate(segment.length for segment in self.segments))

    @property
    def length(self) -> float:
        return self._ends[-1]

    @worked_once
    def turns(self) -> tuple[float, ...]:
        """How far each segment turns into the next, in degrees, anticlockwise."""
        return tuple(turn(before.arriving, after.leaving) for before, after in pairwise(self.segments))

    @property
    def is_closed(self) -> bool:
        return self.start.distance(self.end) <= JOINED

    def locate(self, at: float) -> tuple[int, float]:
        """Which segment a length falls in, and how far along that segment."""
        for index, end in enumerate(self._ends):
            if at <= end or index == len(self._ends) - 1:
                before = self._ends[index - 1] if index else 0.0
                return index, min(max(at - before, 0.0), self.segments[index].length)
        raise AssertionError("a path has at least one segment")

    def point_at(self, at: float) -> Point:
        index, rest = self.locate(at)
        return self.segments[index].point_at(rest)

    def tangent_at(self, at: float) -> Point:
        index, rest = self.locate(at)
        return self.segments[index].tangent_at(rest)

    @property
    def leaving(self) -> Point:
        """Direction at the start."""
        return self.segments[0].leaving

    @property
    def arriving(self) -> Point:
        """Direction at the end."""
        return self.segments[-1].arriving

    def split(self, at: float) -> tuple[Path, Path]:
        """The part before and the part after a length strictly inside the path."""
        if not 0 < at < self.length:
            raise CannotDraw(f"cannot split a path of {self.length:.3f} mm at {at:.3f} mm")
        index, rest = self.locate(at)
        here = self.segments[index]
        before, after = self.segments[:index], self.segments[index + 1 :]
        if rest <= JOINED and before:
            return Path._whole(before), Path._whole((here, *after))
        if here.length - rest <= JOINED and after:
            return Path._whole((*before, here)), Path._whole(after)
        first, second = here.split(rest)
        return Path._whole((*before, first)), Path._whole((second, *after))

    def between(self, start: float, end: float) -> Path:
        """The part from one length to a later one."""
        part = self
        if end < self.length - JOINED:
            part = part.split(end)[0]
        return part.split(start)[1] if start > JOINED else part

    def reversed(self) -> Path:
        return Path._whole(tuple(segment.reversed() for segment in reversed(self.segments)))

    def placed(self, placement: Placement) -> Path:
        if placement.stays:
            return self
        return Path._whole(tuple(segment.placed(placement) for segment in self.segments))

    def then(self, other: Path) -> Path:
        """This path followed by another that starts where it ends."""
        _look_between(self.end, other.start)
        return Path._whole(self.segments + other.segments)

    def ending_at(self, place: Point) -> Path:
        """The same with its end moved a little way: its last line is drawn to there, its last curve goes with it."""
        last = self.segments[-1]
        if last.end == place:
            return self
        if isinstance(last, Arc):
            return Path._whole((*self.segments[:-1], *arc_as_cubics(last))).ending_at(place)
        moved = (
            Line(last.start, place)
            if isinstance(last, Line)
            else Cubic(last.start, last.first, last.second + (place - last.end), place)
        )
        return Path._whole((*self.segments[:-1], moved))

    def starting_at(self, place: Point) -> Path:
        """The same with its start moved a little way."""
        return self if self.start == place else self.reversed().ending_at(place).reversed()

    def flatten(self, tolerance: float) -> list[Point]:
        """Points from start to end; the chords stay within the tolerance of the path (mm).

        A closed path ends on exactly the point it started from.
        """
        points = [self.start]
        for segment in self.segments:
            points.extend(segment.flatten(tolerance))
        if self.is_closed:
            points[-1] = self.start
        return points

    @worked_once
    def hull(self) -> Box:
        """An upright box that holds it, quickly found."""
        if len(self.segments) == 1:
            return self.segments[0].hull
        lefts, bottoms, rights, tops = zip(*[segment.hull for segment in self.segments], strict=True)
        return min(lefts), min(bottoms), max(rights), max(tops)

    def meetings(self, other: Path) -> Iterator[tuple[int, float, int, float]]:
        """Where it meets another: which segment of each, and how far along that segment. A corner is met twice."""
        whole = other.hull
        if apart(self.hull, whole):
            return
        theirs = [(j, segment, segment.hull) for j, segment in enumerate(other.segments)]
        for i, mine in enumerate(self.segments):
            hull = mine.hull
            if apart(hull, whole):
                continue
            for j, segment, other_hull in theirs:
                if not apart(hull, other_hull):
                    for s, t in crossings(mine, segment):
                        yield i, s, j, t

    def met_along(self, line: Line) -> list[float]:
        """How far along a straight line it is met, in order, each place once."""
        hull = line.hull
        found = sorted(s for x in self.segments if not apart(x.hull, hull) for s in along_line(line, x))
        return [s for k, s in enumerate(found) if k == 0 or s - found[k - 1] > JOINED]

    def crossings(self, other: Path) -> list[tuple[float, float]]:
        """Lengths along this path and the other at which they meet, in order along this one."""
        mine, theirs = (0.0, *self._ends), (0.0, *other._ends)
        found = [(mine[i] + s, theirs[j] + t) for i, s, j, t in self.meetings(other)]
        kept: list[tuple[float, float]] = []
        for s, t in sorted(found):
            if not kept or s - kept[-1][0] > 1e-5 or abs(t - kept[-1][1]) > 1e-5:
                kept.append((s, t))
        return kept

    def up_to(self, index: int, at: float) -> Path:
        """The part that ends so far along one of its segments."""
        here, before = self.segments[index], self.segments[:index]
        if at <= JOINED and before:
            return Path._whole(before)
        return Path._whole((*before, here if here.length - at <= JOINED else here.split(at)[0]))

    def onward_from(self, index: int, at: float) -> Path:
        """The part that begins so far along one of its segments."""
        here, after = self.segments[index], self.segments[index + 1 :]
        if here.length - at <= JOINED and after:
            return Path._whole(after)
        return Path._whole((here if at <= JOINED else here.split(at)[1], *after))

    @property
    def signed_area(self) -> float:
        """Area enclosed by a closed path, mm²; positive when it runs anticlockwise."""
        return sum(segment.area_under for segment in self.segments)

    @worked_once
    def box(self) -> tuple[float, float, float, float]:
        """Left, bottom, right, top: the smallest upright box round the path."""
        points = [place for segment in self.segments for place in segment.extremes]
        xs, ys = [p.x for p in points], [p.y for p in points]
        return min(xs), min(ys), max(xs), max(ys)

    def __iter__(self) -> Iterator[Segment]:
        return iter(self.segments)


def smooth_through(points: Sequence[Point], leave: Point | None = None, arrive: Point | None = None) -> Path:
    """A curve without corners through two or more places, optionally with given end directions.

    Each inner place takes the direction of its neighbours' chord; handles are a third of the chord,
    so no cubic loops. ``leave`` and ``arrive`` are directions of travel, of any length.
    """
    if len(points) < 2:
        raise CannotDraw("a curve needs at least two places")
    directions: list[Point] = []
    last = len(points) - 1
    for i, here in enumerate(points):
        if i == 0:
            directions.append((leave or points[1] - here).unit)
        elif i == last:
            directions.append((arrive or here - points[i - 1]).unit)
        else:
            into, out = here - points[i - 1], points[i + 1] - here
            # the nearer neighbour has the greater say, as with a bent ruler
            directions.append((into.unit * out.size + out.unit * into.size).unit)
    segments = []
    for i in range(last):
        a, b = points[i], points[i + 1]
        third = a.distance(b) / 3
        segments.append(Cubic(a, a + directions[i] * third, b - directions[i + 1] * third, b))
    return Path(tuple(segments))
