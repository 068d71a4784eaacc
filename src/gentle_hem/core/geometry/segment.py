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
from gentle_hem.core.geometry.point import Point, polar
from gentle_hem.core.geometry.worked_once import worked_once

OFFSET_TOLERANCE = 0.01
"""How far an offset cubic may lie from the true parallel curve (mm)."""


Box = tuple[float, float, float, float]
"""Left, bottom, right, top."""


def box_round(*places: Point) -> Box:
    """The smallest upright box round some places."""
    xs, ys = [place.x for place in places], [place.y for place in places]
    return min(xs), min(ys), max(xs), max(ys)


@dataclass(frozen=True)
class Line:
    """Straight from one place to another."""

    start: Point
    end: Point

    @worked_once
    def length(self) -> float:
        return self.start.distance(self.end)

    @worked_once
    def hull(self) -> Box:
        """An upright box that holds it, quickly found."""
        return box_round(self.start, self.end)

    def point_at(self, at: float) -> Point:
        return self.start.towards(self.end, at / self.length) if self.length else self.start

    def tangent_at(self, at: float) -> Point:
        return (self.end - self.start).unit

    @property
    def leaving(self) -> Point:
        """Direction at the start."""
        return (self.end - self.start).unit

    arriving = leaving

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


# Gauss-Legendre on [0, 1], eight nodes: exact for the polynomials a short cubic's speed is close to.
_NODES = (
    (0.019855071751231884, 0.05061426814518813), (0.10166676129318664, 0.11119051722668724),
    (0.2372337950418355, 0.15685332293894363), (0.4082826787521751, 0.18134189168918100),
    (0.5917173212478249, 0.18134189168918100), (0.7627662049581645, 0.15685332293894363),
    (0.8983332387068134, 0.11119051722668724), (0.9801449282487681, 0.05061426814518813),
)  # fmt: skip


@dataclass(frozen=True)
class Cubic:
    """A free curve: it leaves ``start`` towards ``first`` and comes to ``end`` from ``second``."""

    start: Point
    first: Point
    second: Point
    end: Point

    @worked_once
    def hull(self) -> Box:
        """An upright box that holds it, quickly found: its handle polygon's."""
        return box_round(self.start, self.first, self.second, self.end)

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
        return Point(a * px + b * qx + c * rx, a * py + b * qy + c * ry)

    def bend(self, t: float) -> float:
        """Signed curvature at parameter t, 1/mm, positive where it turns left."""
        vx, vy = self.velocity(t)
        px, py, qx, qy, rx, ry = self._legs
        u = 1 - t
        ax, ay = 6 * (u * (qx - px) + t * (rx - qx)), 6 * (u * (qy - py) + t * (ry - qy))
        speed = hypot(vx, vy)
        return (vx * ay - vy * ax) / speed**3 if speed > 1e-12 else 0.0

    def length_between(self, t0: float, t1: float) -> float:
        """Length between two parameters by one Gauss rule: within a hundredth of a mm for a gentle curve."""
        e, d, c, b, a = self._speed
        width, total = t1 - t0, 0.0
        for x, weight in _NODES:
            t = t0 + width * x
            # abs: it may lie a hair below nothing where the curve stands still
            total += weight * sqrt(abs((((e * t + d) * t + c) * t + b) * t + a))
        return width * total

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
        p, q, r = self.first - self.start, self.second - self.first, self.end - self.second
        return p.x, p.y, q.x, q.y, r.x, r.y

    def length_to(self, t: float) -> float:
        """Length from the start to parameter t, to better than a millionth of a millimetre."""

        def measured(t0: float, t1: float, whole: float, depth: int) -> float:
            middle = (t0 + t1) / 2
            left, right = self.length_between(t0, middle), self.length_between(middle, t1)
            # halving makes the rule's error some 65,000 times smaller: what differs by 1e-6 is right to 1e-10
            if depth == 0 or abs(left + right - whole) < 1e-6:
                return left + right
            return measured(t0, middle, left, depth - 1) + measured(middle, t1, right, depth - 1)

        return measured(0.0, t, self.length_between(0.0, t), 20) if t > 0 else 0.0

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
            if abs(miss) < 1e-10:
                break
            low, high = (t, high) if miss < 0 else (low, t)
            speed = self.velocity(t).size
            step = t - miss / speed if speed else (low + high) / 2
            t = step if low < step < high else (low + high) / 2
        return t

    def point_at(self, at: float) -> Point:
        return self.point(self.parameter_at(at))

    def direction(self, t: float) -> Point:
        """Unit tangent at parameter t, also where a handle sits on its end point."""
        v = self.velocity(t)
        speed = hypot(v.x, v.y)
        if speed > 1e-9:
            return Point(v.x / speed, v.y / speed)
        nearby = 1e-4 if t < 0.5 else -1e-4
        step = (self.point(t + nearby) - self.point(t)) * (1 if nearby > 0 else -1)
        return step.unit

    def tangent_at(self, at: float) -> Point:
        return self.direction(self.parameter_at(at))

    @property
    def leaving(self) -> Point:
        """Direction at the start."""
        return self.direction(0)

    @property
    def arriving(self) -> Point:
        """Direction at the end."""
        return self.direction(1)

    def split_at_parameter(self, t: float) -> tuple[Cubic, Cubic]:
        """De Casteljau's split."""
        a, b, c = (
            self.start.towards(self.first, t),
            self.first.towards(self.second, t),
            self.second.towards(self.end, t),
        )
        ab, bc = a.towards(b, t), b.towards(c, t)
        middle = ab.towards(bc, t)
        return Cubic(self.start, a, ab, middle), Cubic(middle, bc, c, self.end)

    def split(self, at: float) -> tuple[Cubic, Cubic]:
        return self.split_at_parameter(self.parameter_at(at))

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

        found: list[Segment] = []
        if self.length > 0:
            _parallels(self, by, 8, found)
        return tuple(found)

    def flatten(self, tolerance: float) -> list[Point]:
        """The points after the start; chords stay within the tolerance of the curve."""
        # A cubic strays from its chord by at most √3/18 of the larger second difference.
        (px, py), (qx, qy), (rx, ry), (sx, sy) = self.start, self.first, self.second, self.end
        bent = max(hypot(px - 2 * qx + rx, py - 2 * qy + ry), hypot(qx - 2 * rx + sx, qy - 2 * ry + sy))
        count = max(1, ceil((6 * bent / (8 * tolerance)) ** 0.5))
        points = []
        for i in range(1, count):
            t = i / count
            u = 1 - t
            a, b, c, d = u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t
            points.append(Point(a * px + b * qx + c * rx + d * sx, a * py + b * qy + c * ry + d * sy))
        return [*points, self.end]

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


def _parallels(piece: Cubic, by: float, depth: int, found: list[Segment]) -> None:
    """The parallels of a cubic, in order, added to those found; worked in plain numbers, for it is most of the work."""
    (sx, sy), (ex, ey) = piece.start, piece.end
    px, py, qx, qy, rx, ry = piece._legs
    fast, slow = hypot(px, py), hypot(rx, ry)
    # 1 − κ·by at either end; without a handle there is no bend to speak of
    leaving = 1 - by * 2 / 3 * (px * qy - py * qx) / fast**3 if fast > 1e-12 else 1.0
    arriving = 1 - by * 2 / 3 * (qx * ry - qy * rx) / slow**3 if slow > 1e-12 else 1.0
    least, most = sorted((leaving, arriving, 1 - by * piece.bend(0.5)))[::2]
    if most < 0 or (least < 0 and depth == 0):
        return  # bent tighter than the offset: the parallel would run backwards there
    if least >= 0:
        (ux, uy), (vx, vy) = piece.direction(0), piece.direction(1)
        start, end = Point(sx - uy * by, sy + ux * by), Point(ex - vy * by, ey + vx * by)
        first = Point(start.x + px * leaving, start.y + py * leaving)
        second = Point(end.x - rx * arriving, end.y - ry * arriving)
        if depth == 0 or _strays(piece, (start, first, second, end), abs(by)) < OFFSET_TOLERANCE:
            found.append(Cubic(start, first, second, end))
            return
    left, right = piece.split_at_parameter(0.5)
    _parallels(left, by, depth - 1, found)
    _parallels(right, by, depth - 1, found)


def _strays(piece: Cubic, handles: tuple[Point, Point, Point, Point], away: float) -> float:
    """How far a cubic of these handles lies from ``away`` mm beside another, at its quarters."""
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = (
        (a.x - b.x, a.y - b.y)
        for a, b in zip(handles, (piece.start, piece.first, piece.second, piece.end), strict=True)
    )
    return max(
        abs(hypot(a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3) - away)
        for a, b, c, d in _QUARTERS
    )


_QUARTERS = tuple(((1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t * t, t**3) for t in (0.25, 0.5, 0.75))


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
