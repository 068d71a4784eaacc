"""What a hand marks on a piece beside its outline: drill points, pleat lines with their direction, the fold (trade 11).

  dart ╲   ╱         pleat  │◄──│        fold  ┊◄─┐
        ╲•╱ drill           │   │              ┊  │ bracket
         V                  laid this way      ┊◄─┘

They follow from what the piece is, so they are worked out where they are drawn and cannot disagree with it.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import hypot

from gentle_hem.core.geometry import Line, Path, Point, Segment
from gentle_hem.core.pattern import FOLDS, Dart, Edge, Fold, MarkKind, Piece, folds_to_far

DRILL_INSIDE = 10.0
"""A dart's point is drilled so far short of it (mm), so that the stitching covers the hole: common practice."""

DRILL_BESIDE = 3.0
"""A bend of a dart's leg is drilled so far inside the dart (mm): common practice."""

PLEAT_LINE = 60.0
"""How far down from the edge a pleat's lines are drawn (mm)."""

BRACKET_DEPTH = 12.0
"""How far inside a fold its bracket stands (mm), or a third of the piece's width there."""

ARROW = 5.0
"""How long an arrow's head is (mm)."""


def drill_points(piece: Piece) -> Iterator[Point]:
    """Where a piece is pricked or drilled: just inside each dart's point, and inside its legs where they bend."""
    for dart in piece.darts:
        if dart.pleat:
            continue
        near, far = piece.dart_legs(dart)
        yield from _drilled([dart.apex, *dart.bends[0], near, far, *reversed(dart.bends[1])], [dart.apex])
    for mark in piece.marks:
        if mark.kind is MarkKind.DART:
            corners = [segment.start for segment in mark.path]
            low, high = (end(corners, key=lambda place: place.y) for end in (min, max))
            yield from _drilled(corners, [low, high])


def _drilled(corners: list[Point], tips: list[Point]) -> Iterator[Point]:
    """Inside the corners of a dart: short of its tips, beside its legs' bends, nothing at its mouth."""
    middle = Point(sum(c.x for c in corners) / len(corners), sum(c.y for c in corners) / len(corners))
    for corner in corners:
        reach = DRILL_INSIDE if corner in tips else DRILL_BESIDE
        before, after = (corners[(corners.index(corner) + step) % len(corners)] for step in (-1, 1))
        is_mouth = len(tips) == 1 and corner not in tips and (tips[0] not in (before, after) or len(corners) == 3)
        if not is_mouth and corner.distance(middle) > 1.5 * reach:
            yield corner + (middle - corner).unit * reach


def pleat_lines(piece: Piece, dart: Dart) -> Iterator[Path]:
    """A pleat's two lines, along the grain from the edge, and an arrow from the one that is folded to where it lies."""
    near, far = piece.dart_legs(dart)
    start, end = piece.grain
    down = (end - start).unit
    inward = (dart.apex - near.towards(far, 0.5)).unit
    if down.dot(inward) < 0:
        down = -down
    if down.dot(inward) < 0.5:
        down = inward  # an edge along the grain is laid in pleats across it
    long = min(PLEAT_LINE, near.distance(dart.apex))
    for foot in (near, far):
        yield Path.through(foot, foot + down * long)
    fold, halfway = dart.fold or FOLDS.get(piece.edge(dart.edge).role), down * (long / 2)
    middle = near.towards(far, 0.5)
    if fold in (Fold.BOTH_IN, Fold.BOTH_OUT):
        for leg in (near, far):
            lifted, laid = (leg, middle) if fold is Fold.BOTH_IN else (middle, leg)
            yield from arrow(lifted + halfway, laid + halfway)
        return
    lifted, laid = (near, far) if folds_to_far(near, far, fold) else (far, near)
    yield from arrow(lifted + halfway, laid + halfway)


def arrow(start: Point, end: Point, size: float = ARROW) -> Iterator[Path]:
    """A line from one place to another with a head where it ends."""
    yield Path.through(start, end)
    back = (start - end).unit
    head = min(size, start.distance(end) / 2)
    yield Path.through(end + back * head + back.left * (head / 2), end, end + back * head - back.left * (head / 2))


def is_fold(piece: Piece, edge: Edge) -> bool:
    """Whether this edge lies on the fold of the cloth."""
    return edge == piece.fold


def fold_bracket(piece: Piece, edge: Edge) -> Iterator[Path]:
    """The bracket that says an edge is laid on the fold: a line beside it, an arrow to the fold at either end."""
    path = edge.path
    inward = path.tangent_at(path.length / 2).left
    left, bottom, right, top = piece.seam_line.box
    depth = min(BRACKET_DEPTH, abs(inward.x) * (right - left) / 3 + abs(inward.y) * (top - bottom) / 3)
    feet = [path.point_at(path.length * share) for share in (0.15, 0.85)]
    yield Path.through(*(foot + inward * depth for foot in feet))
    for foot in feet:
        yield from arrow(foot + inward * depth, foot)


def off_the_fold(piece: Piece, outline: Path) -> tuple[Path, ...]:
    """A closed outline of a piece without what lies on its folds, which is not cut: itself where there is no fold."""
    folds = [edge.path for edge in piece.edges if is_fold(piece, edge)]
    if not folds:
        return (outline,)

    def lies_on(segment: Segment) -> bool:
        return isinstance(segment, Line) and any(
            _beside(fold, segment.start) < ON_FOLD and _beside(fold, segment.end) < ON_FOLD for fold in folds
        )

    kept = [not lies_on(segment) for segment in outline]
    count = len(kept)
    runs: list[list[Segment]] = []
    # begun just after a fold, so that what is cut in one go is one line
    first = next((k for k in range(count) if kept[k] and not kept[k - 1]), 0)
    for k in ((first + step) % count for step in range(count)):
        if kept[k]:
            if not runs or not kept[k - 1]:
                runs.append([])
            runs[-1].append(outline.segments[k])
    return tuple(Path(tuple(run)) for run in runs)


ON_FOLD = 0.01
"""How near a fold's line a place must lie to lie on it (mm)."""


def _beside(fold: Path, place: Point) -> float:
    """How far a place lies from a fold's endless line, mm."""
    along = (fold.end - fold.start).unit
    away = place - fold.start
    return hypot(*(away - along * away.dot(along)))
