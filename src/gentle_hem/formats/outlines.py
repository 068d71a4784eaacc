"""Strokes of any file into outlines of pattern pieces: tied end to end, cut at their corners, darts found.

strokes ─► closed lines ─► corners ─► edges, each with what it probably is ─► an outline
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import isfinite, radians, sin

from gentle_hem.core.block.own import Named
from gentle_hem.core.geometry import Line, Path, Point, Segment

CLOSES_WITHIN = 3.0
"""An outline whose ends lie this close is closed for the maker (mm)."""

CORNER = radians(24)
"""A turn sharper than this is a corner between two edges; a curve in chords turns less at each."""

MOST_STROKES = 1_500
"""How many separate lines are tried against each other for their ends."""

FARTHEST = 50_000.0
"""No place on a pattern lies further from another than fifty metres (mm)."""

SMALLEST = 60.0
LARGEST_SIDE = 3000.0
TOUCHES = 1.5


class UnreadableError(ValueError):
    """A file that cannot be taken as a block; the sentence says why and what is accepted."""


@dataclass(frozen=True, slots=True)
class FoundEdge:
    """An edge between two corners: its line, and what it probably is."""

    path: Path
    guess: Named | None


@dataclass(frozen=True, slots=True)
class FoundDart:
    """A dart drawn on an outline: which edge it opens on, where, how wide, and its point."""

    edge: int
    at: float
    intake: float
    apex: Point


@dataclass(frozen=True)
class Outline:
    """One closed outline found in the file, anticlockwise."""

    name: str
    edges: tuple[FoundEdge, ...]
    darts: tuple[FoundDart, ...]


def mended(segments: list[Segment]) -> Path | None:
    """Segments whose ends differ by rounding, tied."""
    made: list[Segment] = []
    for segment in segments:
        if segment.length < 1e-9:
            continue
        if made and made[-1].end.distance(segment.start) > 1e-9:
            made.append(Line(made[-1].end, segment.start))
        made.append(segment)
    return Path(tuple(made)) if made else None


def outlines_of(strokes: list[Path]) -> list[Outline]:
    """Closed outlines among strokes: some are closed already, others are made of strokes end to end."""
    if len(strokes) > MOST_STROKES:
        raise UnreadableError(
            f"The file draws {len(strokes)} separate lines; a block has a few dozen. Leave out everything else, or "
            "join the lines of each piece."
        )
    if any(not isfinite(number) or abs(number) > FARTHEST for path in strokes for number in path.box):
        raise UnreadableError("The file has lines more than 50 m away; look at its unit and save it again.")
    closed: list[Path] = []
    open_ones: list[Path] = []
    for path in strokes:
        (closed if path.start.distance(path.end) <= CLOSES_WITHIN and path.length > SMALLEST else open_ones).append(
            path
        )
    chains = _chained(open_ones)
    rings = closed + [c for c in chains if c.start.distance(c.end) <= CLOSES_WITHIN and c.length > SMALLEST]
    inner = [c for c in open_ones if c.length < 1500]
    made = [outline_of(f"outline {k + 1}", ring, inner) for k, ring in enumerate(rings)]
    found = [outline for outline in made if outline]
    unclosed = [c for c in chains if c.start.distance(c.end) > CLOSES_WITHIN and c.length > 400]
    if not found and unclosed:
        longest = max(unclosed, key=lambda c: c.length)
        gap = longest.start.distance(longest.end)
        raise UnreadableError(
            f"The outline is open: its ends lie {gap / 10:.1f} cm ({gap / 25.4:.2f} in) apart. "
            "Close it and send it again."
        )
    return found


def _chained(strokes: list[Path]) -> list[Path]:
    """Strokes tied end to end where their ends touch."""
    rest = list(strokes)
    chains: list[Path] = []
    while rest:
        chain = rest.pop(0)
        grown = True
        while grown:
            grown = False
            for k, other in enumerate(rest):
                for candidate in (other, other.reversed()):
                    if chain.end.distance(candidate.start) <= TOUCHES:
                        chain = _tied(chain, candidate)
                    elif candidate.end.distance(chain.start) <= TOUCHES:
                        chain = _tied(candidate, chain)
                    else:
                        continue
                    rest.pop(k)
                    grown = True
                    break
                if grown:
                    break
        chains.append(chain)
    return chains


def _tied(a: Path, b: Path) -> Path:
    return mended([*a.segments, *b.segments]) or a


def outline_of(name: str, ring: Path, inner: Iterable[Path]) -> Outline | None:
    """A closed outline with its edges, anticlockwise; None when it is no pattern piece by its size."""
    segments = list(ring.segments)
    gap = ring.end.distance(ring.start)
    if gap > 1e-9:
        segments.append(Line(ring.end, ring.start))
    path = Path(tuple(segments))
    left, bottom, right, top = path.box
    if right - left < SMALLEST or top - bottom < SMALLEST:
        return None
    if max(right - left, top - bottom) > LARGEST_SIDE:
        raise UnreadableError(
            f"{name} is {max(right - left, top - bottom) / 1000:.1f} m across; "
            "is the file in another unit than it says?"
        )
    if path.signed_area < 0:
        path = path.reversed()
    strokes = list(inner)
    pieces, darts = _between_corners(
        path, [place for dart in _dart_strokes(strokes) for place in (dart.start, dart.end)]
    )
    guesses = _guessed(pieces)
    edges = tuple(FoundEdge(edge, guess) for edge, guess in zip(pieces, guesses, strict=True))
    found = [*darts, *_drawn_darts(pieces, strokes)]
    return Outline(name, edges, tuple(found))


def _between_corners(path: Path, mouths: list[Point]) -> tuple[list[Path], list[FoundDart]]:
    """The outline cut at its corners; darts drawn as notches in it are closed across their mouths. Where a dart that is
    drawn inside opens, an edge trued over it has a corner of its own.
    """
    segments = list(path.segments)
    count = len(segments)
    corners = []
    for i in range(count):
        before, after = segments[i - 1], segments[i]
        turn = before.tangent_at(before.length).cross(after.tangent_at(0.0))
        along = before.tangent_at(before.length).dot(after.tangent_at(0.0))
        at_mouth = along > 0 and any(after.start.distance(place) < TOUCHES for place in mouths)
        if not at_mouth and (along < 0 or abs(turn) > sin(CORNER)):
            corners.append(i)
    if len(corners) < 3:
        return [path], []
    edges = []
    for a, b in zip(corners, [*corners[1:], corners[0] + count], strict=True):
        edges.append(Path(tuple(segments[k % count] for k in range(a, b))))
    return _without_notched_darts(edges)


def _without_notched_darts(edges: list[Path]) -> tuple[list[Path], list[FoundDart]]:
    """Two equally long straight edges running in to a point and out again are a dart, not two edges."""
    made: list[Path] = []
    darts: list[FoundDart] = []
    i, count = 0, len(edges)
    start = next((k for k in range(count) if not _is_leg_pair(edges, k) and not _is_leg_pair(edges, k - 1)), 0)
    order = [edges[(start + k) % count] for k in range(count)]
    while i < count:
        if i + 2 < count and made and _is_leg_pair(order, i):
            first, second = order[i], order[i + 1]
            at = made[-1].length
            mouth = Line(first.start, second.end)
            darts.append(FoundDart(len(made) - 1, at, mouth.length, first.end))
            made[-1] = Path((*made[-1].segments, mouth, *order[i + 2].segments))
            i += 3
            continue
        made.append(order[i])
        i += 1
    return made, darts


def _is_leg_pair(edges: list[Path], i: int) -> bool:
    a, b = edges[i], edges[(i + 1) % len(edges)]
    if len(a.segments) > 2 or len(b.segments) > 2 or abs(a.length - b.length) > 3 or a.length < 25:
        return False
    turns_in = a.arriving.cross(b.leaving) < 0 or a.arriving.dot(b.leaving) < -0.9
    return turns_in and a.start.distance(b.end) < 0.8 * a.length


def _dart_strokes(inner: Iterable[Path]) -> list[Path]:
    """Strokes of two straight lines, as a dart is drawn."""
    return [path for path in inner if len(path.segments) == 2 and all(isinstance(s, Line) for s in path.segments)]


def _drawn_darts(edges: list[Path], inner: Iterable[Path]) -> list[FoundDart]:
    """Strokes of two straight lines whose open ends lie on one edge are darts."""
    found = []
    for stroke in _dart_strokes(inner):
        apex = stroke.segments[0].end
        for k, edge in enumerate(edges):
            a, b = _along(edge, stroke.start), _along(edge, stroke.end)
            if a is not None and b is not None and abs(a - b) > 2:
                found.append(FoundDart(k, min(a, b), abs(a - b), apex))
                break
    return found


def _along(path: Path, place: Point) -> float | None:
    """How far along a path a place on it lies; None when it is off it."""
    before, best, gap = 0.0, None, TOUCHES
    for segment in path.segments:
        if isinstance(segment, Line):
            at = min(max((place - segment.start).dot(segment.tangent_at(0)), 0.0), segment.length)
            places = [at]
        else:
            places = [segment.length * i / 60 for i in range(61)]
        for at in places:
            off = segment.point_at(at).distance(place)
            if off < gap:
                gap, best = off, before + at
        before += segment.length
    return best


def _guessed(edges: list[Path]) -> list[Named | None]:
    """What each edge of a bodice half probably is, going round from its longest upright straight edge, the centre."""
    upright = [
        (edge.length, k)
        for k, edge in enumerate(edges)
        if abs((edge.end - edge.start).unit.x) < 0.05 and edge.start.distance(edge.end) > 0.995 * edge.length
    ]
    guesses: list[Named | None] = [None] * len(edges)
    if not upright or len(edges) not in (5, 6):
        return guesses
    _, centre = max(upright)
    names: list[Named] = ["centre", "waist", "side", "armhole", "shoulder", "neckline"]
    if len(edges) == 5:
        names.remove("shoulder")
    downwards = edges[centre].end.y < edges[centre].start.y
    for step, name in enumerate(names):
        k = centre + step if downwards else centre - step
        guesses[k % len(edges)] = name
    return guesses
