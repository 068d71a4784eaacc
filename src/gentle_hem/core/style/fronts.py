"""What happens at a front's centre and waist: button stand, keyhole, twist, basque (handbook 4.6, 4.7).

stand              keyhole        twist                     basque
┌─┬────            ╲_  _╱         ___╱ fan of cuts          ────────────
│ ┊ CF               ││          )   ╲ hinged at the side   ╲          ╱
│ ┊                  ()          ‾‾‾‾                         ╲ ___  ╱   point at CF
"""

from __future__ import annotations

from dataclasses import replace

from gentle_hem.core.geometry import Cubic, Path, Point
from gentle_hem.core.parts import Allowances
from gentle_hem.core.pattern import Edge, Notch, Piece, Role
from gentle_hem.core.style.carry import Below, carried_down
from gentle_hem.core.style.split import CannotStyle
from gentle_hem.core.style.spread import opened, smoothed
from gentle_hem.core.style.waist_line import centre_of


def with_button_stand(piece: Piece, width: float, facing: float) -> Piece:
    """A front with a stand ``width`` beyond its centre and a grown-on facing folded back behind it.

    Every front measure stays taken from CF, which is drawn inside the piece.
    """
    place = next(i for i, edge in enumerate(piece.edges) if edge.role is Role.CENTRE_FRONT)
    centre, count = piece.edges[place], len(piece.edges)
    before, after = piece.edges[place - 1], piece.edges[(place + 1) % count]
    top, foot = centre.path.start, centre.path.end
    move = Point(-width, 0)
    stand = (
        Edge("stand top", Role.FREE, Path.through(top, top + move), before.allowance),
        Edge("stand", Role.CENTRE_FRONT, Path.through(top + move, foot + move), facing, turned=True),
        Edge("stand foot", Role.FREE, Path.through(foot + move, foot), after.allowance),
    )
    return replace(
        piece, edges=(*piece.edges[:place], *stand, *piece.edges[place + 1 :]), on_fold=False, cut=2,
        internal=(*piece.internal, Path.through(top, foot)), remark="centre front is the line inside the stand",
    )  # fmt: skip


def with_keyhole(piece: Piece, bridge: float, height: float, width: float) -> Piece:
    """A drop-shaped opening on the centre line, ``bridge`` below the neck edge; drawn as its stitching line."""
    centre = centre_of(piece)
    top = centre.path.start - Point(0, bridge)
    low = top - Point(0, height)
    if low.y < centre.path.end.y + 30:
        raise CannotStyle("it would reach the waist")
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
    return replace(piece, internal=(*piece.internal, drop))


def twisted(piece: Piece, cuts: int, spread: float, allowances: Allowances) -> Piece:
    """A twist front: cuts fanned from the centre front to the side and armhole, each opened by ``spread``.

    The centre front moves out into a curve; it is cut twice and the halves are pulled through each other. The
    slit to pull through is left open at the middle of the curve.
    """
    centre = centre_of(piece)
    if piece.darts_of("side") or piece.darts_of("armhole"):
        raise CannotStyle("a dart on the side or armhole lies in the way of its cuts; move that dart first")
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
        notches=(*made.notches, Notch(centre.name, middle - spread * 0.6), Notch(centre.name, middle + spread * 0.6)),
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
