"""Parallel paths, and where the parallels of two neighbouring edges meet.

    outward corner                    inward corner                turned corner (hem, zip)

      ────────────┐ mitre               ──────╮ cut back             side cut line
      ─ ─ ─ ─ ┐   │ extended              ─ ─ ┼ ─                      \\
              ┊   │ until they meet           ┊╰────                    \\____ hem line, fold here
                                                                        /
                                                                       / mirrored, so the turned-up
                                                                      /  allowance covers the side
"""

from __future__ import annotations

from math import tau

from gentle_hem.core.cannot import CannotDraw
from gentle_hem.core.geometry.crossing import endless_crossings, line_with_line
from gentle_hem.core.geometry.path import Path
from gentle_hem.core.geometry.point import Point
from gentle_hem.core.geometry.segment import Arc, Cubic, Line, Segment

MITRE_LIMIT = 4.0
"""A mitre further from the corner than this many offsets is cut off square."""

TOUCHING = 1e-6


def parallel(path: Path, by: float) -> Path:
    """The parallel of a path, ``by`` millimetres to its left, inner corners extended or trimmed to meet.

    Raises CannotDraw when nothing of the path is left.
    """
    if by == 0:
        return path
    runs = [run for segment in path for run in _unbroken(segment.offset(by))]
    if not runs:
        raise CannotDraw(f"an offset of {by:.2f} mm leaves nothing of the curve")
    made = runs[0]
    for run in runs[1:]:
        made = join_runs(made, run)
    return made


def _unbroken(segments: tuple[Segment, ...]) -> list[Path]:
    """Segments as runs without gaps."""
    if len(segments) == 1:
        return [Path.of(*segments)]
    runs: list[list[Segment]] = []
    for segment in segments:
        if runs and runs[-1][-1].end.distance(segment.start) <= TOUCHING / 10:
            runs[-1].append(segment)
        else:
            runs.append([segment])
    return [Path.of(*run) for run in runs]


def _carrier_at_end(path: Path) -> Line | Arc:
    """What the path would run on along: its last line or arc, or the tangent of its last cubic."""
    last = path.segments[-1]
    if isinstance(last, Cubic):
        return Line(last.end - last.direction(1), last.end)
    return last


def _carrier_at_start(path: Path) -> Line | Arc:
    first = path.segments[0]
    if isinstance(first, Cubic):
        return Line(first.start, first.start + first.direction(0))
    return first


def _extended_to(path: Path, place: Point) -> Path:
    """The path run on from its end to a place on its carrier."""
    last = path.segments[-1]
    if path.end.distance(place) < TOUCHING:
        return path
    if isinstance(last, Line):
        return Path((*path.segments[:-1], Line(last.start, place)))
    if isinstance(last, Arc):
        step = (place - last.centre).angle - last.end_angle
        step = (step + tau / 2) % tau - tau / 2  # the short way round, back or on
        return Path((*path.segments[:-1], Arc(last.centre, last.radius, last.start_angle, last.sweep + step)))
    back = path.end.distance(place)
    if (place - path.end).dot(path.arriving) < 0 and last.length > 2 * back:
        # the place lies a little way back along the curve: end the curve there
        kept = last.split(last.length - back)[0]
        return Path((*path.segments[:-1], Cubic(kept.start, kept.first, kept.second, place)))
    return Path((*path.segments, Line(path.end, place)))


def _extended_from(place: Point, path: Path) -> Path:
    """The path carried back from its start to a place on its carrier."""
    first = _extended_to(Path.of(path.segments[0].reversed()), place).reversed()
    return Path((*first.segments, *path.segments[1:])) if len(path.segments) > 1 else first


def join_runs(before: Path, after: Path) -> Path:
    """Two offset runs made into one: trimmed where they cross, extended where they fall apart.

    Runs that can do neither are tied by a straight line.
    """
    if before.end.distance(after.start) < TOUCHING:
        return before.then(after)
    trimmed = trim_to_meet(before, after)
    if trimmed:
        return trimmed[0].then(trimmed[1])
    place = mitre(before, after)
    if place:
        first, second = extended_to_meet(before, after, place)
        return first.then(second)
    return Path((*before.segments, Line(before.end, after.start), *after.segments))


def trim_to_meet(before: Path, after: Path) -> tuple[Path, Path] | None:
    """Both cut back to their crossing nearest the corner; None when they do not cross."""

    def at_an_outer_end(i: int, s: float, j: int, t: float) -> bool:
        last = len(after.segments) - 1
        return (i == 0 and s <= TOUCHING) or (j == last and t >= after.segments[j].length - TOUCHING)

    def from_corner(place: tuple[int, float, int, float]) -> float:
        i, s, j, t = place
        return sum(x.length for x in before.segments[i:]) - s + sum(x.length for x in after.segments[:j]) + t

    met = [place for place in before.meetings(after) if not at_an_outer_end(*place)]
    if not met:
        return None
    # most corners are met once, and then nothing need be measured
    i, s, j, t = min(met, key=from_corner) if len(met) > 1 else met[0]
    return before.up_to(i, s), after.onward_from(j, t)


def mitre(before: Path, after: Path) -> Point | None:
    """Where both would meet if they ran on, or one ran on and the other stopped a little sooner.

    None when that lies too far off or behind them.
    """
    a, b = _carrier_at_end(before), _carrier_at_start(after)
    gap = before.end.distance(after.start)
    places = [p for p in endless_crossings(a, b) if p.distance(before.end) <= MITRE_LIMIT * gap]
    ahead = [
        p
        for p in places
        if (p - before.end).dot(before.arriving) >= -gap / 2 and (after.start - p).dot(after.leaving) >= -gap / 2
    ]
    return min(ahead, key=lambda p: p.distance(before.end), default=None)


def extended_to_meet(before: Path, after: Path, place: Point) -> tuple[Path, Path]:
    """Both runs carried on to a place on their carriers."""
    return _extended_to(before, place), _extended_from(place, after)


def turned_corner(side_cut: Path, fold: Path, fold_cut: Path) -> tuple[Path, Path] | None:
    """A side's cut line carried over a fold so that the turned allowance lies exactly on the side.

    ``side_cut`` arrives at the corner; ``fold`` is the seam line of the hem or zip leaving it, and
    ``fold_cut`` its offset. Returns the side continued to the fold and mirrored beyond it, and the
    fold's cut line cut or carried to meet it; None where the two would not meet near the corner.
    """
    fold_line = Line(fold.start, fold.start + fold.leaving)
    side = _carrier_at_end(side_cut)
    side_line = side if isinstance(side, Line) else Line(side_cut.end - side_cut.arriving, side_cut.end)
    at_fold = line_with_line(side_line, fold_line)
    if at_fold is None or at_fold.distance(side_cut.end) > MITRE_LIMIT * (1 + fold.start.distance(side_cut.end)):
        return None
    beyond = -(side_line.tangent_at(0).mirrored_about(fold.leaving))
    ray = Line(at_fold, at_fold + beyond)
    carrier = _carrier_at_start(fold_cut)
    depth = fold.start.distance(fold_cut.start)
    places = [
        p
        for p in endless_crossings(ray, carrier)
        if (p - at_fold).dot(beyond) > 0 and p.distance(at_fold) <= MITRE_LIMIT * max(depth, 1.0)
    ]
    if not places:
        return None
    corner = min(places, key=lambda p: p.distance(at_fold))
    side_made = _extended_to(side_cut, at_fold)
    side_made = Path((*side_made.segments, Line(side_made.end, corner)))
    crossing_cut = trim_to_meet(Path.of(Line(at_fold, corner + beyond)), fold_cut)
    if crossing_cut:
        return side_made, crossing_cut[1]
    return side_made, _extended_from(corner, fold_cut)


def run_to_ray(run: Path, start: Point, through: Point) -> Path | None:
    """A run cut back or carried on to the ray from one place through another; None where it does not come to it."""
    ray = Line(start, through + (through - start).unit * FAR)
    trimmed = trim_to_meet(run, Path.of(ray))
    if trimmed:
        return trimmed[0]
    place = line_with_line(Line(run.end, run.end + run.arriving), ray)
    if place is None or place.distance(run.end) > FAR:
        return None
    return Path((*run.segments, Line(run.end, place))) if place.distance(run.end) > TOUCHING else run


FAR = 200.0
"""How far beyond a place a run is still carried to a ray (mm)."""


def stopped_at(run: Path, end: Point, along: Point) -> Path | None:
    """A run stopped where it crosses a line carried back from its own end, and led along it to that end.

    ``along``: the direction in which the line leaves its end. None where the run does not cross it.
    """
    before = end - along * max(run.end.distance(end) * STOP_REACH, 1.0)
    met = max(run.meetings(Path.of(Line(before, end))), default=None)
    if met is None:
        return None
    stopped = run.up_to(met[0], met[1])
    return stopped.then(Path.of(Line(stopped.end, end))) if stopped.end.distance(end) > TOUCHING else stopped


STOP_REACH = 20.0
"""How many times as far as a run ends from a line's end it may cross the line before that end."""
