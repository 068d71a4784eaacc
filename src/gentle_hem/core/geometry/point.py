"""A place on the paper, which is also a move from the origin to it."""

from __future__ import annotations

from math import atan2, cos, degrees, hypot, sin
from typing import NamedTuple

_point = tuple.__new__
"""A named tuple made without asking its names: half the time, where places are made by the thousand."""


class Point(NamedTuple):
    """A place (x, y) in millimetres. Adding and scaling treat it as a move.

    >>> Point(3, 4).size, Point(1, 0) + Point(0, 2)
    (5.0, Point(x=1, y=2))
    """

    x: float
    y: float

    def __add__(self, other: Point) -> Point:  # type: ignore[override]
        return _point(Point, (self.x + other.x, self.y + other.y))

    def __sub__(self, other: Point) -> Point:
        return _point(Point, (self.x - other.x, self.y - other.y))

    def __mul__(self, factor: float) -> Point:  # type: ignore[override]
        return _point(Point, (self.x * factor, self.y * factor))

    def __neg__(self) -> Point:
        return _point(Point, (-self.x, -self.y))

    @property
    def size(self) -> float:
        """Length of the move."""
        return hypot(self.x, self.y)

    @property
    def unit(self) -> Point:
        """The same direction, one millimetre long; a move of no length stays as it is."""
        size = hypot(self.x, self.y)
        return _point(Point, (self.x / size, self.y / size)) if size else self

    @property
    def left(self) -> Point:
        """The move turned a quarter anticlockwise."""
        return _point(Point, (-self.y, self.x))

    @property
    def angle(self) -> float:
        """Direction in radians, anticlockwise from the x axis."""
        return atan2(self.y, self.x)

    def dot(self, other: Point) -> float:
        return self.x * other.x + self.y * other.y

    def cross(self, other: Point) -> float:
        """Positive when ``other`` lies to the left of this direction."""
        return self.x * other.y - self.y * other.x

    def distance(self, other: Point) -> float:
        return hypot(self.x - other.x, self.y - other.y)

    def towards(self, other: Point, share: float) -> Point:
        """The place a share of the way to another: 0 is here, 1 is there."""
        return _point(Point, (self.x + (other.x - self.x) * share, self.y + (other.y - self.y) * share))

    def turned(self, angle: float, about: Point | None = None) -> Point:
        """Turned anticlockwise by ``angle`` radians about a place (the origin by default)."""
        centre = about or ORIGIN
        dx, dy = self.x - centre.x, self.y - centre.y
        c, s = cos(angle), sin(angle)
        return _point(Point, (centre.x + c * dx - s * dy, centre.y + s * dx + c * dy))

    def mirrored_about(self, direction: Point) -> Point:
        """A move mirrored about a line through the origin with the given direction."""
        along = direction.unit
        return along * (2 * self.dot(along)) - self


ORIGIN = Point(0.0, 0.0)


def polar(radius: float, angle: float, centre: Point = ORIGIN) -> Point:
    """The place at a distance and direction from a centre."""
    return _point(Point, (centre.x + radius * cos(angle), centre.y + radius * sin(angle)))


def turn(a: Point, b: Point) -> float:
    """How far direction b is turned anticlockwise from direction a, in degrees, −180 to 180."""
    (ax, ay), (bx, by) = a, b
    return degrees(atan2(ax * by - ay * bx, ax * bx + ay * by))
