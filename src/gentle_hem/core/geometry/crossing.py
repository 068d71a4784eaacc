"""Where two lines cross.

Straight lines and arcs cross where algebra says; cubics are halved until their boxes no longer touch
or are too small to matter, and the last step is Newton's.
"""

from __future__ import annotations

from itertools import pairwise
from math import hypot, sqrt, tau

from gentle_hem.core.geometry.point import Point
from gentle_hem.core.geometry.segment import Arc, Box, Cubic, Line, Segment

NEAR = 1e-7
"""Two places closer than this are the same place (mm)."""


def line_with_line(a: Line, b: Line) -> Point | None:
    """Where two endless straight lines cross; None when they run alongside."""
    u, v = a.end - a.start, b.end - b.start
    turn = u.cross(v)
    if abs(turn) <= 1e-12 * max(1.0, u.size * v.size):
        return None
    return a.start + u * ((b.start - a.start).cross(v) / turn)


def line_with_circle(line: Line, centre: Point, radius: float) -> list[Point]:
    """Where an endless straight line meets a whole circle: none, or two places (equal when it grazes)."""
    along = (line.end - line.start).unit
    foot = line.start + along * (centre - line.start).dot(along)
    spare = radius**2 - foot.distance(centre) ** 2
    if spare < -NEAR * radius:
        return []
    reach = sqrt(max(0.0, spare))
    return [foot - along * reach, foot + along * reach]


def circle_with_circle(c1: Point, r1: float, c2: Point, r2: float) -> list[Point]:
    """Where two whole circles meet; circles about one centre never do."""
    apart = c1.distance(c2)
    if apart < NEAR:
        return []
    along = (apart**2 + r1**2 - r2**2) / (2 * apart)
    spare = r1**2 - along**2
    if spare < -NEAR * max(r1, r2):
        return []
    reach = sqrt(max(0.0, spare))
    direction = (c2 - c1).unit
    foot = c1 + direction * along
    return [foot + direction.left * reach, foot - direction.left * reach]


def endless_crossings(a: Segment, b: Segment) -> list[Point]:
    """Where the endless line or whole circle of one meets that of the other. Lines and arcs only."""
    if isinstance(a, Line) and isinstance(b, Line):
        place = line_with_line(a, b)
        return [place] if place else []
    if isinstance(a, Line) and isinstance(b, Arc):
        return line_with_circle(a, b.centre, b.radius)
    if isinstance(a, Arc) and isinstance(b, Line):
        return line_with_circle(b, a.centre, a.radius)
    if isinstance(a, Arc) and isinstance(b, Arc):
        return circle_with_circle(a.centre, a.radius, b.centre, b.radius)
    raise TypeError("a cubic has no endless continuation")


def length_along(segment: Line | Arc, place: Point) -> float | None:
    """How far along a segment a place of its endless line lies; None when it is off the segment."""
    if isinstance(segment, Line):
        at = (place - segment.start).dot(segment.tangent_at(0))
    else:
        turned = (place - segment.centre).angle - segment.start_angle
        turned = turned % tau if segment.sweep >= 0 else (-turned) % tau
        at = turned * segment.radius
        if at > segment.length + NEAR and tau * segment.radius - at < NEAR * 10:
            at = 0.0  # just before the start, by a hair
    return min(max(at, 0.0), segment.length) if -NEAR <= at <= segment.length + NEAR else None


def crossings(a: Segment, b: Segment) -> list[tuple[float, float]]:
    """Lengths along both segments at which they meet, in order along the first.

    Touching ends count. Two stretches that lie on each other give no crossing.
    """
    if apart(a.hull, b.hull):
        return []
    if not isinstance(a, Cubic) and not isinstance(b, Cubic):
        met = [(length_along(a, place), length_along(b, place)) for place in endless_crossings(a, b)]
        found = [(s, t) for s, t in met if s is not None and t is not None]
    elif isinstance(a, Line) and isinstance(b, Cubic):
        found = _line_with_cubic(a, b)
    elif isinstance(a, Cubic) and isinstance(b, Line):
        found = [(s, t) for t, s in _line_with_cubic(b, a)]
    else:
        found = _curved_crossings(a, b)
    return _without_repeats(sorted(found)) if len(found) > 1 else found


def _line_with_cubic(line: Line, curve: Cubic) -> list[tuple[float, float]]:
    """Lengths along a line and a cubic at which they meet."""
    return [(s, curve.length_to(t)) for s, t in _line_meets_cubic(line, curve)]


def along_line(line: Line, segment: Segment) -> list[float]:
    """How far along a line it meets a segment, without measuring how far along the segment."""
    if isinstance(segment, Cubic):
        return [s for s, _ in _line_meets_cubic(line, segment)]
    return [s for s, _ in crossings(line, segment)]


def _line_meets_cubic(line: Line, curve: Cubic) -> list[tuple[float, float]]:
    """Lengths along a line and parameters of a cubic: the roots of the curve's distance from the line."""
    if line.length < NEAR:
        return []
    along = line.tangent_at(0)
    p, q, r, s = (along.cross(place - line.start) for place in (curve.start, curve.first, curve.second, curve.end))
    if min(p, q, r, s) > NEAR or max(p, q, r, s) < -NEAR:
        return []
    found = []
    for t in _roots_between(s - 3 * r + 3 * q - p, 3 * (r - 2 * q + p), 3 * (q - p), p):
        at = (curve.point(t) - line.start).dot(along)
        if -NEAR <= at <= line.length + NEAR:
            found.append((min(max(at, 0.0), line.length), t))
    return found


def _roots_between(a: float, b: float, c: float, d: float) -> list[float]:
    """Roots of at³ + bt² + ct + d in [0, 1]: between its turning points, each stretch bisected and polished."""

    def value(t: float) -> float:
        return ((a * t + b) * t + c) * t + d

    turns = [0.0]
    spare = b * b - 3 * a * c
    if abs(a) > 1e-12 and spare > 0:
        turns += sorted(t for t in ((-b - sqrt(spare)) / (3 * a), (-b + sqrt(spare)) / (3 * a)) if 0 < t < 1)
    elif abs(a) <= 1e-12 and abs(b) > 1e-12 and 0 < -c / (2 * b) < 1:
        turns.append(-c / (2 * b))
    turns.append(1.0)
    roots = [t for t in turns if abs(value(t)) < NEAR]
    for low, high in pairwise(turns):
        start = value(low)
        if start * value(high) >= 0 or abs(start) < NEAR or abs(value(high)) < NEAR:
            continue
        t = (low + high) / 2
        for _ in range(80):
            now = value(t)
            if abs(now) < 1e-12:
                break
            low, high = (t, high) if (now < 0) == (start < 0) else (low, t)
            slope = (3 * a * t + 2 * b) * t + c
            step = t - now / slope if slope else (low + high) / 2
            t = step if low < step < high else (low + high) / 2
        roots.append(t)
    return roots


def _without_repeats(found: list[tuple[float, float]]) -> list[tuple[float, float]]:
    kept: list[tuple[float, float]] = []
    for s, t in found:
        if all(abs(s - other) > 1e-5 or abs(t - where) > 1e-5 for other, where in kept):
            kept.append((s, t))
    return kept


def apart(a: Box, b: Box) -> bool:
    """Whether two upright boxes lie apart."""
    return a[2] < b[0] - NEAR or b[2] < a[0] - NEAR or a[3] < b[1] - NEAR or b[3] < a[1] - NEAR


def _curved_crossings(a: Segment, b: Segment) -> list[tuple[float, float]]:
    """Crossings where at least one is a cubic: chords first, then Newton on both parameters."""
    found = []
    chords_b = _chords(b)
    for s0, p0, s1, p1 in _chords(a):
        left, right = (p0.x, p1.x) if p0.x < p1.x else (p1.x, p0.x)
        low, high = (p0.y, p1.y) if p0.y < p1.y else (p1.y, p0.y)
        left, right, low, high = left - NEAR, right + NEAR, low - NEAR, high + NEAR
        for t0, q0, t1, q1 in chords_b:
            if (q0.x < left and q1.x < left) or (q0.x > right and q1.x > right):
                continue
            if (q0.y < low and q1.y < low) or (q0.y > high and q1.y > high):
                continue
            u, v = p1 - p0, q1 - q0
            turn = u.cross(v)
            if abs(turn) < 1e-15:
                continue
            share_a, share_b = (q0 - p0).cross(v) / turn, (q0 - p0).cross(u) / turn
            slack = 0.05
            if -slack <= share_a <= 1 + slack and -slack <= share_b <= 1 + slack:
                met = _refined(a, b, s0 + (s1 - s0) * share_a, t0 + (t1 - t0) * share_b)
                if met:
                    found.append(met)
    return found


Chord = tuple[float, Point, float, Point]


def _chords(segment: Segment) -> list[Chord]:
    """Short chords of a segment with the parameters (0 to 1) at which they start and end."""
    points = [segment.start, *segment.flatten(0.05)]
    count = len(points) - 1
    return [(i / count, points[i], (i + 1) / count, points[i + 1]) for i in range(count)]


def _place(segment: Segment, t: float) -> Point:
    return segment.point(t) if isinstance(segment, Cubic) else segment.point_at(segment.length * t)


def _pace(segment: Segment, t: float) -> Point:
    """How the place moves with the parameter."""
    return (
        segment.velocity(t) if isinstance(segment, Cubic) else segment.tangent_at(segment.length * t) * segment.length
    )


def _length(segment: Segment, t: float) -> float:
    return segment.length_to(t) if isinstance(segment, Cubic) else segment.length * t


def _refined(a: Segment, b: Segment, s: float, t: float) -> tuple[float, float] | None:
    """Newton's steps on the two parameters until both name the same place; None when they do not."""
    for _ in range(30):
        s, t = min(max(s, 0.0), 1.0), min(max(t, 0.0), 1.0)
        gap = _place(b, t) - _place(a, s)
        if hypot(*gap) < NEAR:
            return _length(a, s), _length(b, t)
        u, v = _pace(a, s), _pace(b, t)
        turn = u.cross(v)
        if abs(turn) < 1e-12 * (1 + u.size * v.size):
            return None
        s, t = s + gap.cross(v) / turn, t + gap.cross(u) / turn
    return None
