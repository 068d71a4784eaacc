"""The three lines a pattern is drawn with.

    Line     start ─────────── end
    Arc      part of a circle: centre, radius, the angle it starts at, and the angle it sweeps
             (anticlockwise when positive)
    Cubic    start, two handles, end: the free curve of necklines and armholes

All answer the same questions: how long, where and in which direction after a given length, split
there, reversed, placed elsewhere, offset to the left, flattened to points. ``at`` is always a length
along the segment from its start, in millimetres. Nothing is changed in place.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import acos, ceil, cos, floor, hypot, pi, sin, sqrt

from gentle_hem.core.geometry.placement import Placement
from gentle_hem.core.geometry.plain_cubic import NO_HANDLE, parallels, shares
from gentle_hem.core.geometry.point import Point, polar
from gentle_hem.core.geometry.worked_once import worked_once

_point = tuple.__new__

Box = tuple[float, float, float, float]
"""Left, bottom, right, top."""


@dataclass(frozen=True)
class Line:
    """Straight from one place to another."""

    start: Point
    end: Point

    def __init__(self, start: Point, end: Point) -> None:  # a third of what a frozen dataclass's own takes
        own = self.__dict__
        own["start"], own["end"] = start, end

    @worked_once
    def length(self) -> float:
        return self.start.distance(self.end)

    @worked_once
    def hull(self) -> Box:
        """An upright box that holds it, quickly found."""
        (ax, ay), (bx, by) = self.start, self.end
        return min(ax, bx), min(ay, by), max(ax, bx), max(ay, by)

    def point_at(self, at: float) -> Point:
        return self.start.towards(self.end, at / self.length) if self.length else self.start

    def tangent_at(self, at: float) -> Point:
        return (self.end - self.start).unit

    @worked_once
    def leaving(self) -> Point:
        """Direction at the start."""
        return (self.end - self.start).unit

    @property
    def arriving(self) -> Point:
        """Direction at the end."""
        return self.leaving

    def split(self, at: float) -> tuple[Line, Line]:
        middle = self.point_at(at)
        return Line(self.start, middle), Line(middle, self.end)

    def reversed(self) -> Line:
        return Line(self.end, self.start)

    def placed(self, placement: Placement) -> Line:
        return Line(placement.place(self.start), placement.place(self.end))

    def offset(self, by: float) -> tuple[Segment, ...]:
        """The parallel line, ``by`` to the left."""
        move = self.tangent_at(0).left * by
        return (Line(self.start + move, self.end + move),)

    def flatten(self, tolerance: float) -> list[Point]:
        """The points after the start."""
        return [self.end]

    @property
    def extremes(self) -> list[Point]:
        """The places that can lie furthest out: an upright box round them holds the segment."""
        return [self.start, self.end]

    @worked_once
    def area_under(self) -> float:
        """Its part of the outline's signed area: ½∮(x dy − y dx) over this segment."""
        return self.start.cross(self.end) / 2


@dataclass(frozen=True)
class Arc:
    """Part of a circle.

    >>> from math import pi
    >>> round(Arc(Point(0, 0), 10, 0, pi / 2).length, 4)
    15.708
    """

    centre: Point
    radius: float
    start_angle: float
    sweep: float

    @worked_once
    def start(self) -> Point:
        return polar(self.radius, self.start_angle, self.centre)

    @worked_once
    def end(self) -> Point:
        return polar(self.radius, self.end_angle, self.centre)

    @property
    def end_angle(self) -> float:
        return self.start_angle + self.sweep

    @property
    def length(self) -> float:
        return self.radius * abs(self.sweep)

    @property
    def hull(self) -> Box:
        """An upright box that holds it, quickly found: its whole circle's."""
        c, r = self.centre, self.radius
        return c.x - r, c.y - r, c.x + r, c.y + r

    def angle_at(self, at: float) -> float:
        return self.start_angle + (self.sweep * at / self.length if self.length else 0.0)

    def point_at(self, at: float) -> Point:
        return polar(self.radius, self.angle_at(at), self.centre)

    def tangent_at(self, at: float) -> Point:
        outward = polar(1.0, self.angle_at(at))
        return outward.left if self.sweep >= 0 else -outward.left

    @property
    def leaving(self) -> Point:
        """Direction at the start."""
        return self.tangent_at(0.0)

    @property
    def arriving(self) -> Point:
        """Direction at the end."""
        return self.tangent_at(self.length)

    def split(self, at: float) -> tuple[Arc, Arc]:
        middle = self.angle_at(at)
        return (
            Arc(self.centre, self.radius, self.start_angle, middle - self.start_angle),
            Arc(self.centre, self.radius, middle, self.end_angle - middle),
        )

    def reversed(self) -> Arc:
        return Arc(self.centre, self.radius, self.end_angle, -self.sweep)

    def placed(self, placement: Placement) -> Arc:
        sign = -1 if placement.mirrored else 1
        return Arc(
            placement.place(self.centre),
            self.radius * placement.factor,
            placement.angle + sign * self.start_angle,
            sign * self.sweep,
        )

    def offset(self, by: float) -> tuple[Segment, ...]:
        """The concentric arc, ``by`` to the left; nothing when the radius is used up."""
        radius = self.radius - by if self.sweep >= 0 else self.radius + by
        return (Arc(self.centre, radius, self.start_angle, self.sweep),) if radius > 0 else ()

    def flatten(self, tolerance: float) -> list[Point]:
        """The points after the start; no chord strays from the arc by more than the tolerance."""
        if self.radius <= tolerance:
            return [self.end]
        step = 2 * acos(max(-1.0, 1 - tolerance / self.radius))
        count = max(1, ceil(abs(self.sweep) / step))
        inner = [polar(self.radius, self.start_angle + self.sweep * i / count, self.centre) for i in range(1, count)]
        return [*inner, self.end]

    @property
    def extremes(self) -> list[Point]:
        """Its ends, and the compass points it passes."""
        first, last = sorted((self.start_angle, self.end_angle))
        quarters = range(ceil(first / (pi / 2)), floor(last / (pi / 2)) + 1)
        return [self.start, self.end, *(polar(self.radius, q * pi / 2, self.centre) for q in quarters)]

    @worked_once
    def area_under(self) -> float:
        """Its part of the outline's signed area, exactly: the chord's part and the circle segment's."""
        return self.start.cross(self.end) / 2 + self.radius**2 * (self.sweep - sin(self.sweep)) / 2


# Gauss-Kronrod on [-1, 1]: fifteen nodes, of which every second is one of Gauss's seven. What the two rules differ by
# says how good they are (QUADPACK's 7-15 pair, from memory; the tests hold it against polynomials of degree 22).
_MIDDLE = 0.209482141084727828, 0.417959183673469388
"""What the middle weighs by Kronrod's rule, and by Gauss's."""

_BOTH = tuple(
    (node, node**2, kronrod, gauss)
    for node, kronrod, gauss in (
        (0.405845151377397167, 0.190350578064785410, 0.381830050505118945),
        (0.741531185599394440, 0.140653259715525919, 0.279705391489276668),
        (0.949107912342758525, 0.063092092629978553, 0.129484966168869693),
    )
)
"""Node, its square, Kronrod's weight, Gauss's weight."""

_KRONROD = tuple(
    (node, node**2, kronrod)
    for node, kronrod in (
        (0.207784955007898468, 0.204432940075298892),
        (0.586087235467691130, 0.169004726639267903),
        (0.864864423359769073, 0.104790010322250184),
        (0.991455371120812640, 0.022935322010529225),
    )
)


@dataclass(frozen=True)
class Cubic:
    """A free curve: it leaves ``start`` towards ``first`` and comes to ``end`` from ``second``."""

    start: Point
    first: Point
    second: Point
    end: Point

    def __init__(self, start: Point, first: Point, second: Point, end: Point) -> None:
        own = self.__dict__
        own["start"], own["first"], own["second"], own["end"] = start, first, second, end

    @worked_once
    def hull(self) -> Box:
        """An upright box that holds it, quickly found: its handle polygon's."""
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = self.start, self.first, self.second, self.end
        return min(ax, bx, cx, dx), min(ay, by, cy, dy), max(ax, bx, cx, dx), max(ay, by, cy, dy)

    def point(self, t: float) -> Point:
        """The place at parameter t (0 to 1)."""
        u = 1 - t
        a, b, c, d = u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t
        p, q, r, s = self.start, self.first, self.second, self.end
        return Point(a * p.x + b * q.x + c * r.x + d * s.x, a * p.y + b * q.y + c * r.y + d * s.y)

    def velocity(self, t: float) -> Point:
        """First derivative at parameter t."""
        u = 1 - t
        a, b, c = 3 * u * u, 6 * u * t, 3 * t * t
        px, py, qx, qy, rx, ry = self._legs
        return _point(Point, (a * px + b * qx + c * rx, a * py + b * qy + c * ry))

    def bend(self, t: float) -> float:
        """Signed curvature at parameter t, 1/mm, positive where it turns left."""
        vx, vy = self.velocity(t)
        px, py, qx, qy, rx, ry = self._legs
        u = 1 - t
        ax, ay = 6 * (u * (qx - px) + t * (rx - qx)), 6 * (u * (qy - py) + t * (ry - qy))
        speed = hypot(vx, vy)
        return (vx * ay - vy * ax) / speed**3 if speed > 1e-12 else 0.0

    def length_between(self, t0: float, t1: float) -> float:
        """Length between two parameters by one rule: within a thousandth of a mm for a gentle curve."""
        return self._ruled(t0, t1)[0]

    def _ruled(self, t0: float, t1: float) -> tuple[float, float]:
        """Length between two parameters by Kronrod's rule and by Gauss's; plain numbers, for it is done most of all."""
        e, d, c, b, a = self._speed
        half, m = (t1 - t0) / 2, (t0 + t1) / 2
        # the same polynomial of how far a node lies from the middle, its even and its odd part: two nodes at a time
        whole = (((e * m + d) * m + c) * m + b) * m + a
        b = (((4 * e * m + 3 * d) * m + 2 * c) * m + b) * half
        c = ((6 * e * m + 3 * d) * m + c) * half**2
        d = (4 * e * m + d) * half**3
        e *= half**4
        # abs: it may lie a hair below nothing where the curve stands still
        speed = sqrt(abs(whole))
        fine, coarse = _MIDDLE[0] * speed, _MIDDLE[1] * speed
        for node, square, kronrod, gauss in _BOTH:
            even, odd = (e * square + c) * square + whole, (d * square + b) * node
            speed = sqrt(abs(even + odd)) + sqrt(abs(even - odd))
            fine += kronrod * speed
            coarse += gauss * speed
        for node, square, kronrod in _KRONROD:
            even, odd = (e * square + c) * square + whole, (d * square + b) * node
            fine += kronrod * (sqrt(abs(even + odd)) + sqrt(abs(even - odd)))
        return half * fine, half * coarse

    @worked_once
    def _speed(self) -> tuple[float, float, float, float, float]:
        """The square of its speed as a polynomial of the parameter, the highest power first."""
        px, py, qx, qy, rx, ry = self._legs
        # velocity = 3·(leg + 2t·bend + t²·twist), and its square multiplied out
        bx, by, tx, ty = qx - px, qy - py, px - 2 * qx + rx, py - 2 * qy + ry
        return (
            9 * (tx * tx + ty * ty), 36 * (bx * tx + by * ty), 18 * (px * tx + py * ty) + 36 * (bx * bx + by * by),
            36 * (px * bx + py * by), 9 * (px * px + py * py),
        )  # fmt: skip

    @worked_once
    def _legs(self) -> tuple[float, float, float, float, float, float]:
        """The three legs of its handle polygon, as plain numbers."""
        (ax, ay), (bx, by), (cx, cy), (dx, dy) = self.start, self.first, self.second, self.end
        return bx - ax, by - ay, cx - bx, cy - by, dx - cx, dy - cy

    def length_to(self, t: float) -> float:
        """Length from the start to parameter t, to better than a millionth of a millimetre."""

        return self._measured(0.0, t, 20) if t > 0 else 0.0

    def _measured(self, t0: float, t1: float, depth: int) -> float:
        fine, coarse = self._ruled(t0, t1)
        # the coarse rule's own error is some thousand times the fine one's
        if depth == 0 or abs(fine - coarse) < 1e-6:
            return fine
        middle = (t0 + t1) / 2
        return self._measured(t0, middle, depth - 1) + self._measured(middle, t1, depth - 1)

    @worked_once
    def length(self) -> float:
        return self.length_to(1.0)

    def parameter_at(self, at: float) -> float:
        """The parameter after a length, by Newton's steps kept inside the bracket."""
        if at <= 0 or self.length == 0:
            return 0.0
        if at >= self.length:
            return 1.0
        low, high, t = 0.0, 1.0, at / self.length
        for _ in range(60):
            miss = self.length_to(t) - at
            speed = self.velocity(t).size
            if abs(miss) < 1e-6 and speed > 1.0:
                return t - miss / speed  # the step's own error is the square of so little
            if abs(miss) < 1e-10:
                break
            low, high = (t, high) if miss < 0 else (low, t)
            step = t - miss / speed if speed else (low + high) / 2
            t = step if low < step < high else (low + high) / 2
        return t

    def point_at(self, at: float) -> Point:
        return self.point(self.parameter_at(at))

    def direction(self, t: float) -> Point:
        """Unit tangent at parameter t, also where a handle sits on its end point."""
        px, py, qx, qy, rx, ry = self._legs
        u = 1 - t
        a, b, c = u * u, 2 * u * t, t * t
        x, y = a * px + b * qx + c * rx, a * py + b * qy + c * ry
        speed = hypot(x, y)
        if speed > NO_HANDLE:
            return _point(Point, (x / speed, y / speed))
        nearby = 1e-4 if t < 0.5 else -1e-4
        step = (self.point(t + nearby) - self.point(t)) * (1 if nearby > 0 else -1)
        return step.unit

    def tangent_at(self, at: float) -> Point:
        return self.direction(self.parameter_at(at))

    @worked_once
    def leaving(self) -> Point:
        """Direction at the start."""
        (ax, ay), (bx, by) = self.start, self.first
        x, y = bx - ax, by - ay
        handle = hypot(x, y)
        return _point(Point, (x / handle, y / handle)) if handle > NO_HANDLE else self.direction(0)

    @worked_once
    def arriving(self) -> Point:
        """Direction at the end."""
        (ax, ay), (bx, by) = self.second, self.end
        x, y = bx - ax, by - ay
        handle = hypot(x, y)
        return _point(Point, (x / handle, y / handle)) if handle > NO_HANDLE else self.direction(1)

    def split_at_parameter(self, t: float) -> tuple[Cubic, Cubic]:
        """De Casteljau's split."""
        (sx, sy), (fx, fy), (gx, gy), (ex, ey) = self.start, self.first, self.second, self.end
        ax, ay, bx, by, cx, cy = (
            sx + (fx - sx) * t,
            sy + (fy - sy) * t,
            fx + (gx - fx) * t,
            fy + (gy - fy) * t,
            gx + (ex - gx) * t,
            gy + (ey - gy) * t,
        )
        px, py, qx, qy = ax + (bx - ax) * t, ay + (by - ay) * t, bx + (cx - bx) * t, by + (cy - by) * t
        middle = _point(Point, (px + (qx - px) * t, py + (qy - py) * t))
        return (
            Cubic(self.start, _point(Point, (ax, ay)), _point(Point, (px, py)), middle),
            Cubic(middle, _point(Point, (qx, qy)), _point(Point, (cx, cy)), self.end),
        )

    def split(self, at: float) -> tuple[Cubic, Cubic]:
        before, after = self.split_at_parameter(self.parameter_at(at))
        before.__dict__["length"], after.__dict__["length"] = at, self.length - at
        return before, after

    def reversed(self) -> Cubic:
        return self._as_long(Cubic(self.end, self.second, self.first, self.start), 1.0)

    def placed(self, placement: Placement) -> Cubic:
        put = placement.place
        return self._as_long(Cubic(put(self.start), put(self.first), put(self.second), put(self.end)), placement.factor)

    def _as_long(self, made: Cubic, times: float) -> Cubic:
        """Another that is so many times as long, and need not be measured again where this one has been."""
        if "length" in self.__dict__:
            made.__dict__["length"] = self.length * times
        return made

    def offset(self, by: float) -> tuple[Segment, ...]:
        """Parallel curve ``by`` to the left, as cubics within OFFSET_TOLERANCE of the true one.

        Where the curve bends tighter than the offset nothing is left, so that there may be a gap.

        Each piece keeps the true offset's ends and end derivatives, B′·(1 − κ·by); where it strays
        at its middle the cubic is halved and both halves are offset.
        """

        if not any(self._legs):
            return ()
        found = parallels((*self.start, *self.first, *self.second, *self.end), by)
        return tuple([
            Cubic(_point(Point, (a, b)), _point(Point, (c, d)), _point(Point, (e, f)), _point(Point, (g, h)))
            for a, b, c, d, e, f, g, h in found
        ])  # fmt: skip

    def flatten(self, tolerance: float) -> list[Point]:
        """The points after the start; chords stay within the tolerance of the curve."""
        # A cubic strays from its chord by at most √3/18 of the larger second difference.
        (px, py), (qx, qy), (rx, ry), (sx, sy) = self.start, self.first, self.second, self.end
        bent = max(hypot(px - 2 * qx + rx, py - 2 * qy + ry), hypot(qx - 2 * rx + sx, qy - 2 * ry + sy))
        count = max(1, ceil((6 * bent / (8 * tolerance)) ** 0.5))
        points = [
            _point(Point, (a * px + b * qx + c * rx + d * sx, a * py + b * qy + c * ry + d * sy))
            for a, b, c, d in shares(count)
        ]
        points.append(self.end)
        return points

    @property
    def extremes(self) -> list[Point]:
        """Its ends, and where it runs level or upright: the roots of each derivative."""
        found = [self.start, self.end]
        for axis in (0, 1):
            p, q, r, s = (place[axis] for place in (self.start, self.first, self.second, self.end))
            a, b, c = s - 3 * r + 3 * q - p, 2 * (r - 2 * q + p), q - p
            spare = b * b - 4 * a * c
            if abs(a) < 1e-12:
                roots = [-c / b] if abs(b) > 1e-12 else []
            else:
                roots = [(-b + sign * sqrt(spare)) / (2 * a) for sign in (1, -1)] if spare >= 0 else []
            found += [self.point(t) for t in roots if 0 < t < 1]
        return found

    @worked_once
    def area_under(self) -> float:
        """Its part of the outline's signed area, exactly (the integral of a polynomial)."""
        p, q, r, s = self.start, self.first, self.second, self.end
        return (6 * p.cross(q) + 3 * p.cross(r) + p.cross(s) + 3 * q.cross(r) + 3 * q.cross(s) + 6 * r.cross(s)) / 20


Segment = Line | Arc | Cubic


def arc_as_cubics(arc: Arc) -> list[Cubic]:
    """An arc as cubics of an eighth turn or less: within 5 millionths of the radius, for ink only."""
    count = max(1, ceil(abs(arc.sweep) / (pi / 4)))
    step = arc.sweep / count
    pull = 4 / 3 * (1 - cos(step / 2)) / sin(step / 2) if step else 0.0
    made = []
    for i in range(count):
        a, b = arc.start_angle + i * step, arc.start_angle + (i + 1) * step
        start, end = polar(arc.radius, a, arc.centre), polar(arc.radius, b, arc.centre)
        reach = arc.radius * pull
        made.append(Cubic(start, start + polar(reach, a).left, end - polar(reach, b).left, end))
    return made
