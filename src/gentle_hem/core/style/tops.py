"""How a bodice ends at the top, when it is not held by both shoulders (trade 4.6).

off the shoulder      strapless        halter              one shoulder
 ___________         ___________         N╲                   ╲N
(           )        │         │         ╱  ╲              ╱   │
 ╲         ╱         │         │       U╱    │           U╱    │U
"""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum

from gentle_hem.core.block.shape import mirrored
from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.pattern import Dart, Edge, EdgeRef, Piece, Role, Seam
from gentle_hem.core.style.split import Mouth, split, upright_grain
from gentle_hem.core.style.styling import BACK_PIECE, FRONT_PIECE, Styling
from gentle_hem.core.style.waist_line import centre_of
from gentle_hem.core.units import inches

BELOW_UNDERARM = 15.0
"""A strapless edge lies this far below the underarm (mm)."""

SHORT_OF_TOP = 12.0
"""A dart stops this far below a bare top's edge (mm)."""

OVER_THE_SHOULDER = inches(1.25)
"""A strap is measured over the shoulder from front to back, and 1 to 1½ in more: common practice (trade 4.6)."""


class Top(StrEnum):
    """What holds the bodice up."""

    SHOULDERS = "shoulders"
    HALTER = "halter"
    ONE_SHOULDER = "one_shoulder"
    OFF_SHOULDER = "off_shoulder"
    STRAPLESS = "strapless"


def draw_top(table: Styling, top: Top, taken: float, strap_width: float) -> None:
    """Draw the top of both halves. ``taken`` is how far below the shoulder an off-shoulder edge lies."""
    if top is Top.OFF_SHOULDER:
        for name in (FRONT_PIECE, BACK_PIECE):
            table.redraw(name, lambda p: cut_top(p, taken))
        _without_shoulders(table)
    elif top is Top.STRAPLESS:
        for name in (FRONT_PIECE, BACK_PIECE):
            table.redraw(name, lambda p: cut_top(p, _underarm_depth(p) + BELOW_UNDERARM))
        _without_shoulders(table)
    elif top is Top.HALTER:
        table.redraw(FRONT_PIECE, lambda p: haltered(p, strap_width))
        table.redraw(BACK_PIECE, lambda p: cut_top(p, _underarm_depth(p) + BELOW_UNDERARM))
        _without_shoulders(table)
    elif top is Top.ONE_SHOULDER:
        _one_shoulder(table)


def _underarm_depth(piece: Piece) -> float:
    return piece.edge("shoulder").path.end.y - piece.edge("armhole").path.start.y


def _without_shoulders(table: Styling) -> None:
    table.seams = [seam for seam in table.seams if seam.name != "bodice shoulder seam"]


def cut_top(piece: Piece, taken: float) -> Piece:
    """A half cut off level, ``taken`` below the shoulder at the neck, a little hollow toward the centre."""
    level = piece.edge("shoulder").path.end.y - taken
    centre = centre_of(piece)
    level_at_centre = centre.path.start.y - 8 if level > centre.path.start.y - 5 else level - 8
    reach = Path.through(Point(-900, level), Point(1500, level))
    hole = piece.edge("armhole").path.crossings(reach)
    edge = "armhole" if hole else "side"
    met = hole or piece.edge("side").path.crossings(reach)
    if not met:
        raise CannotMake("it does not meet the armhole or the side")
    at = met[-1][0] if edge == "side" else met[0][0]
    kept: list[Dart] = []
    for dart in piece.darts:
        above = dart.edge in ("shoulder", "neckline") or (dart.edge == "armhole" and dart.at > at)
        if above and dart.apex.y < level + 5:
            raise CannotMake(f"the {dart.landmark} lies above it; move that dart first")
        if dart.edge == edge and dart.at - 5 < at < dart.at + dart.intake + 5:
            raise CannotMake(f"it runs into the {dart.landmark}")
        if not above:
            kept.append(_below_edge(piece, dart, level_at_centre))
    piece = replace(piece, darts=tuple(kept))
    outside = piece.edge(edge).path.point_at(at)
    inside = Point(centre.path.start.x, level_at_centre)
    on_centre = centre.path.crossings(Path.through(inside - Point(900, 0), inside + Point(900, 0)))
    if not on_centre:
        raise CannotMake("it does not meet the centre")
    inside = centre.path.point_at(on_centre[0][0])
    width = outside.x - inside.x
    line = Path.of(Cubic(outside, outside - Point(width / 3, 0), inside + Point(width / 3, 0), inside))
    neck = piece.edge("neckline")
    made = split(
        piece, Mouth.place(edge, at), Mouth.place(centre.name, on_centre[0][0]), earlier_line=line.reversed(),
        later_line=line, names=("top", piece.name), edge_name="neckline", role=Role.NECKLINE, allowance=neck.allowance,
    ).later  # fmt: skip
    start = next(i for i, e in enumerate(made.edges) if e.name == "waist")
    made = replace(made, edges=made.edges[start:] + made.edges[:start], bust_point=piece.bust_point)
    return replace(made, grain=piece.grain if piece.grain[1].y < level else upright_grain(made, 0.2))


def _below_edge(piece: Piece, dart: Dart, level: float) -> Dart:
    """A dart that would run off a bare top, its point drawn back to stop short of the edge."""
    near, far = piece.dart_legs(dart)
    middle = near.towards(far, 0.5)
    high = level - SHORT_OF_TOP
    if dart.apex.y <= high or middle.y >= high - 20 or dart.bends[0]:
        return dart
    return replace(dart, apex=middle.towards(dart.apex, (high - middle.y) / (dart.apex.y - middle.y)))


def haltered(piece: Piece, strap: float) -> Piece:
    """A front whose armhole runs from the underarm straight up to the neck, ``strap`` wide there."""
    shoulder = piece.edge("shoulder")
    if piece.darts_of("shoulder") or piece.darts_of("armhole"):
        raise CannotMake("a dart lies on the shoulder or armhole; move that dart first")
    if strap > shoulder.drawn_length - 5:
        raise CannotMake("the strap is as wide as the shoulder")
    kept = shoulder.path.split(shoulder.drawn_length - strap)[1]
    side = piece.edge("side")
    if any(d.at + d.intake > side.drawn_length - BELOW_UNDERARM for d in piece.darts_of("side")):
        raise CannotMake("the bust dart lies too near the underarm")
    lowered = side.path.split(side.drawn_length - BELOW_UNDERARM)[0]
    under, tip = lowered.end, kept.start
    rise = tip.y - under.y
    curve = Path.of(
        Cubic(under, under + Point(-0.75 * (under.x - tip.x), 0.12 * rise), tip - Point(-6, 0.55 * rise), tip)
    )
    paths = {"armhole": curve, "shoulder": kept, "side": lowered}
    edges = tuple(
        replace(e, path=paths[e.name], role=Role.FREE if e.name == "shoulder" else e.role) if e.name in paths else e
        for e in piece.edges
    )
    notches = tuple(n for n in piece.notches if n.edge not in ("armhole", "shoulder"))
    return replace(piece, edges=edges, notches=notches)


OTHER = " other"


def unfolded(piece: Piece) -> Piece:
    """A half on the fold, centre on its left, opened out to the whole piece; the mirrored edges are "… other"."""
    if not piece.on_fold:
        raise CannotMake("it has a seam down its centre; put the opening in the side seam")
    turned = mirrored(piece)
    there = {e.name: replace(e, name=e.name + OTHER) for e in turned.edges}
    own = piece.edges[:-1]
    others = [there[e.name] for e in reversed(piece.edges[:-1])]
    darts = (
        *piece.darts,
        *(replace(d, edge=d.edge + OTHER, landmark=d.landmark + OTHER) for d in turned.darts),
    )
    notches = (*piece.notches, *(replace(n, edge=n.edge + OTHER, landmark="") for n in turned.notches))
    return replace(
        piece, edges=(*own, *others), darts=darts, notches=notches, on_fold=False, cut=1,
        internal=(*piece.internal, *turned.internal),
    )  # fmt: skip


def _one_shoulder(table: Styling) -> None:
    table.redraw(FRONT_PIECE, _asymmetric)
    back = table.pieces[BACK_PIECE]
    if back.on_fold:
        table.redraw(BACK_PIECE, _asymmetric)
        other = EdgeRef(BACK_PIECE, "side" + OTHER)
    else:
        kept, bare = _asymmetric_halves(mirrored(back))
        table.put(mirrored(kept))
        table.put(bare)
        other = EdgeRef(bare.name, "side")
        centre = centre_of(kept).name
        table.seams.append(
            Seam("bodice centre back seam", (EdgeRef(kept.name, centre),), (EdgeRef(bare.name, centre),))
        )
    table.seams.append(Seam("bodice other side seam", (EdgeRef(FRONT_PIECE, "side" + OTHER),), (other,)))
    table.findings.append(
        note(
            "one-shoulder-right-side-up",
            "The one-shoulder pieces are not symmetrical: cut each once, right side up.",
            *in_recipe("style.top"),
        )
    )


def _clear_of_darts(piece: Piece) -> None:
    if piece.darts_of("shoulder") or piece.darts_of("neckline") or piece.darts_of("armhole"):
        raise CannotMake("a dart lies at the shoulder, neck or armhole; move that dart first")


def _asymmetric_halves(piece: Piece) -> tuple[Piece, Piece]:
    """A half with a seam down its centre, its centre on the left, as the two halves of a one-shoulder top: the one that
    keeps its shoulder, and the bare one turned over. The top edge runs on over the centre seam.
    """
    _clear_of_darts(piece)
    neck, side, centre = piece.edge("neckline"), piece.edge("side"), centre_of(piece)
    if any(dart.at + dart.intake > side.drawn_length - BELOW_UNDERARM for dart in piece.darts_of("side")):
        raise CannotMake("the bust dart lies too near the underarm")
    x0 = centre.path.start.x
    turned = Placement.mirror(Point(x0, 0), Point(x0, 1))
    start = min(8.0, neck.drawn_length / 4)
    a, under = neck.path.point_at(start), side.path.point_at(side.drawn_length - BELOW_UNDERARM)
    b = turned.place(under)
    middle = a.towards(b, 0.5) + Point(0, -0.06 * a.distance(b))
    line = smooth_through([a, middle, b])
    met = line.crossings(centre.path)
    if not met:
        raise CannotMake("its top edge does not meet the centre seam")
    at, along = met[0]
    foot = centre.path.between(along, centre.path.length)
    beyond = line.between(at, line.length).placed(turned)
    bare_top = smooth_through([under, beyond.point_at(beyond.length / 2), foot.start])
    top = Edge("top edge", Role.NECKLINE, line.between(0.0, at), neck.allowance)
    edges = {edge.name: edge for edge in piece.edges}
    short = replace(neck, path=neck.path.between(0.0, start))
    seam = replace(centre, path=foot)
    kept = replace(
        piece, cut=1, edges=(edges["waist"], side, edges["armhole"], edges["shoulder"], short, top, seam),
        notches=tuple(n for n in piece.notches if n.edge not in ("neckline", centre.name)),
    )  # fmt: skip
    bare_side = replace(side, path=side.path.between(0.0, side.drawn_length - BELOW_UNDERARM))
    bare = replace(
        piece, name=f"{piece.name}{OTHER}", cut=1, edges=(edges["waist"], bare_side, replace(top, path=bare_top), seam),
        notches=tuple(n for n in piece.notches if n.edge in ("waist", "side")),
    )  # fmt: skip
    return kept, bare


def _asymmetric(piece: Piece) -> Piece:
    _clear_of_darts(piece)
    whole = unfolded(piece)
    neck, side = whole.edge("neckline"), whole.edge("side" + OTHER)
    if any(dart.at < BELOW_UNDERARM for dart in whole.darts_of(side.name)):
        raise CannotMake("the bust dart lies too near the underarm")
    start = min(8.0, neck.drawn_length / 4)
    a, b = neck.path.point_at(start), side.path.point_at(BELOW_UNDERARM)
    middle = a.towards(b, 0.5) + Point(0, -0.06 * a.distance(b))
    line = smooth_through([a, middle, b])
    made = split(
        whole, Mouth.place("neckline", start), Mouth.place(side.name, BELOW_UNDERARM), earlier_line=line.reversed(),
        later_line=line, names=("top", piece.name), edge_name="top edge", role=Role.NECKLINE, allowance=neck.allowance,
    ).later  # fmt: skip
    first = next(i for i, e in enumerate(made.edges) if e.name == "waist")
    return replace(
        made, edges=made.edges[first:] + made.edges[:first], cut=1, bust_point=piece.bust_point, grain=piece.grain
    )


def strip(
    name: str,
    long: float,
    wide: float,
    allowance: float,
    *,
    cut: int = 1,
    remark: str = "",
    role: Role = Role.PANEL,
    material: str = "cloth",
) -> Piece:
    """A straight band: ``long`` across, ``wide`` high, with its allowance all round. Its long lower edge is "edge"."""
    a, b, c, d = Point(0, 0), Point(long, 0), Point(long, wide), Point(0, wide)
    edges = (
        Edge("edge", role, Path.of(Line(a, b)), allowance),
        Edge("end", Role.PANEL, Path.of(Line(b, c)), allowance),
        Edge("top", role, Path.of(Line(c, d)), allowance),
        Edge("start", Role.PANEL, Path.of(Line(d, a)), allowance),
    )
    middle = wide / 2
    return Piece(
        name,
        edges,
        cut=cut,
        remark=remark,
        material=material,
        grain=(Point(long * 0.25, middle), Point(long * 0.75, middle)),
    )


def straps(table: Styling, kind: str, width: float, allowance: float, block: tuple[Piece, Piece]) -> None:
    """Straps from the front's top edge over the shoulder to the back's (trade 4.6).

    ``block`` are front and back before their tops were cut: the strap follows their shoulder.
    """
    if any("shoulder" in {e.name for e in table.pieces[n].edges} for n in (FRONT_PIECE, BACK_PIECE)):
        raise CannotMake("the bodice still has its shoulders")
    reach = 0.0
    for name, old, is_front in ((FRONT_PIECE, block[0], True), (BACK_PIECE, block[1], False)):
        half, was = table.pieces[name], old
        if not is_front:
            half, was = mirrored(half), mirrored(was)
        seam = was.edge("shoulder").path
        over = seam.point_at(seam.length / 2)
        top = half.edge("neckline").path
        place = top.point_at(top.length * 0.45)
        if kind == "criss_cross" and not is_front:
            place = Point(-place.x, place.y)  # it crosses the centre back to the other side
        reach += over.distance(place)
    long = reach + OVER_THE_SHOULDER
    table.put(strip("strap", long, 2 * width, allowance, cut=2, remark="folded lengthways"))
