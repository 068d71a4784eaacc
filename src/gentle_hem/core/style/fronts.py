"""What happens at a front's centre and waist: button stand, keyhole, twist, basque (trade 4.6, 4.7).

stand              keyhole        twist                     basque
┌─┬────            ╲_  _╱         ___╱ fan of cuts          ────────────
│ ┊ CF               ││          )   ╲ hinged at the side   ╲          ╱
│ ┊                  ()          ‾‾‾‾                         ╲ ___  ╱   point at CF
"""

from __future__ import annotations

from dataclasses import replace

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Cubic, Path, Point
from gentle_hem.core.parts import Allowances
from gentle_hem.core.pattern import Edge, Finished, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.style.carry import Below, carried_down
from gentle_hem.core.style.spread import opened, smoothed
from gentle_hem.core.style.waist_line import centre_of
from gentle_hem.core.what import Layer, Panel

OFF_THE_RIDGE = 15.0
"""A button is never sewn on the ridge of a seam: common practice (trade 11)."""

BUTTON_THICKNESS = 3.0
PAST_THE_CENTRE = 3.0
"""A buttonhole is the button's width and thickness long; it begins 3 mm past the centre, where the button pulls:
common practice."""

KEYHOLE_FACING = 45.0


def with_button_stand(piece: Piece, width: float, facing: float) -> Piece:
    """A front with a stand ``width`` beyond its centre and a grown-on facing folded back behind it.

    Every front measure stays taken from CF, which is drawn inside the piece. Marks on the centre move out to the
    stand's edge with it. Raises CannotMake when a dart opens on the centre, or the centre is not straight.
    """
    place = next(i for i, edge in enumerate(piece.edges) if edge.role is Role.CENTRE_FRONT)
    centre, count = piece.edges[place], len(piece.edges)
    before, after = piece.edges[place - 1], piece.edges[(place + 1) % count]
    top, foot = centre.path.start, centre.path.end
    if piece.darts_of(centre.name):
        raise CannotMake("a dart opens at the centre front, where the buttons go; move that dart first")
    if centre.path.length > top.distance(foot) + 0.5:
        raise CannotMake("its centre front is not straight")
    move = Point(-width, 0)
    stand = (
        Edge("stand top", Role.FREE, Path.through(top, top + move), before.allowance, finished=Finished.FOLDED),
        Edge("stand", Role.CENTRE_FRONT, Path.through(top + move, foot + move), facing, True, Finished.FOLDED),
        Edge("stand foot", Role.FREE, Path.through(foot + move, foot), after.allowance, finished=Finished.FOLDED),
    )
    return replace(
        piece, edges=(*piece.edges[:place], *stand, *piece.edges[place + 1 :]), on_fold=False, cut=2,
        marks=(*piece.marks, Mark(MarkKind.CENTRE, Path.through(top, foot))),
        notches=tuple(replace(n, edge="stand") if n.edge == centre.name else n for n in piece.notches),
        remark="centre front is the line inside the stand",
    )  # fmt: skip


def button_levels(top: float, bust: float, foot: float, count: int) -> tuple[list[float], float]:
    """Where ``count`` buttons lie down a centre front, from the top, and how far apart (levels, y up, mm).

    One lies at the bust and one just above the waist seam, where the front is under stress; the rest are equally
    spaced (trade 11), so that the number may come out one more or fewer. None lies on a seam's ridge at either end.
    """
    high, low = top - OFF_THE_RIDGE, foot + OFF_THE_RIDGE

    def above(below: int) -> int:
        return int((high - bust) / (bust - low) * below + 1e-9)

    below = min(range(1, count + 1), key=lambda n: abs(above(n) + n + 1 - count))
    up, spacing = above(below), (bust - low) / below
    return [bust + spacing * k for k in range(up, -below - 1, -1)], spacing


def with_buttonholes(piece: Piece, levels: list[float], button: float) -> Piece:
    """Buttonholes across the centre front, as long as the button is wide and thick; the buttons lie on the line."""
    centre = next(e for e in piece.edges if e.role is Role.CENTRE_FRONT).path
    top, foot = centre.start.y, centre.end.y
    holes = tuple(
        Mark(
            MarkKind.BUTTONHOLE,
            Path.through(Point(-PAST_THE_CENTRE, y), Point(button + BUTTON_THICKNESS - PAST_THE_CENTRE, y)),
        )
        for y in levels
        if foot < y < top
    )
    return replace(piece, marks=(*piece.marks, *holes))


def with_keyhole(piece: Piece, bridge: float, height: float, width: float) -> Piece:
    """A drop-shaped opening on the centre line, ``bridge`` below the neck edge; drawn as its stitching line."""
    centre = centre_of(piece)
    top = centre.path.start - Point(0, bridge)
    low = top - Point(0, height)
    if low.y < centre.path.end.y + 30:
        raise CannotMake("it would reach the waist")
    half = width / 2
    drop = Path.of(
        Cubic(
            top,
            top + Point(0.25 * half, -0.35 * height),
            top + Point(half, -0.45 * height),
            top + Point(half, -0.68 * height),
        ),
        Cubic(top + Point(half, -0.68 * height), top + Point(half, -0.90 * height), low + Point(0.55 * half, 0), low),
    )
    return replace(piece, marks=(*piece.marks, Mark(MarkKind.OPENING, drop)))


def keyhole_facing(front: Piece) -> Piece:
    """The facing of a keyhole: the same opening on a patch that reaches KEYHOLE_FACING beyond it, cut on the fold.

    Its upper edge is the neck edge's level, so that it is caught in the neck seam or turned under.
    """
    opening = next(mark for mark in reversed(front.marks) if mark.kind is MarkKind.OPENING)
    drop = opening.path
    centre = centre_of(front)
    top, low = centre.path.start, min(drop.end.y, drop.start.y) - KEYHOLE_FACING
    wide = drop.box[2] + KEYHOLE_FACING
    x = top.x
    edges = (
        Edge("foot", Role.FREE, Path.through(Point(x, low), Point(wide, low)), 0.0),
        Edge("outer edge", Role.FREE, Path.through(Point(wide, low), Point(wide, top.y)), 0.0),
        Edge("upper edge", Role.FREE, Path.through(Point(wide, top.y), top), 0.0),
        Edge("centre front", Role.CENTRE_FRONT, Path.through(top, Point(x, low)), 0.0),
    )
    middle = (x + wide) / 2
    return Piece(
        front.what.as_layer(Layer.FACING).as_panel(Panel.KEYHOLE), edges, on_fold=True, marks=(opening,),
        grain=(Point(middle, top.y - 20), Point(middle, low + 20)),
        remark="stitched round the opening before it is slit",
    )  # fmt: skip


def twisted(piece: Piece, cuts: int, spread: float, allowances: Allowances) -> Piece:
    """A twist front: cuts fanned from the centre front to the side and armhole, each opened by ``spread``.

    The centre front moves out into a curve; it is cut twice and the halves are pulled through each other. The
    slit to pull through is left open at the middle of the curve.
    """
    centre = centre_of(piece)
    if piece.darts_of("side") or piece.darts_of("armhole"):
        raise CannotMake("a dart on the side or armhole lies in the way of its cuts; move that dart first")
    made = replace(piece, on_fold=False, cut=2)
    for k in range(cuts):
        share = (k + 1) / (cuts + 1)
        at = _unopened(made, centre.name, share, k, spread)
        hole = made.edge("armhole")
        hinge = hole.drawn_length * (0.55 - 0.45 * share)
        made = opened(made, centre.name, at, "armhole", max(hinge, 4.0), spread, lambda e: e.role is Role.WAIST)
    made = smoothed(made, centre.name)
    edge = made.edge(centre.name)
    middle = edge.path.length / 2
    seam = replace(edge, allowance=allowances.panel, turned=False)
    return replace(
        made, edges=tuple(seam if e.name == centre.name else e for e in made.edges),
        notches=(
            *made.notches,
            *(Notch(centre.name, middle + side * spread * 0.6, kind=NotchKind.OPEN) for side in (-1, 1)),
        ),
        remark="twist: left open between the notches at the centre", grain=piece.grain,
    )  # fmt: skip


def _unopened(piece: Piece, edge: str, share: float, done: int, spread: float) -> float:
    """Where a cut begins: a share of the edge as it was before ``done`` cuts were opened above it.

    The centre front runs downwards, so cuts already opened lie before this one.
    """
    now = piece.edge(edge).drawn_length
    return (now - done * spread) * share + done * spread


def pointed_waist(piece: Piece, depth: float) -> Piece:
    """A bodice front carried down to a point: its waist edge from the side to a point ``depth`` below at CF."""
    waist = piece.edge("waist").path
    width = waist.end.x - waist.start.x
    return carried_down(piece, Below(0.0, 200.0, width, width, dart_length=max(2.2 * depth, 90.0), point=depth))
