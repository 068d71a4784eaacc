"""How a bodice ends at the top, when it is not held by both shoulders (trade 4.6).

off the shoulder      strapless        halter              one shoulder
 ___________         ___________         N╲                   ╲N
(           )        │         │         ╱  ╲              ╱   │
 ╲         ╱         │         │       U╱    │           U╱    │U
"""

from __future__ import annotations

from enum import StrEnum

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.split import Mouth, split, upright_grain
from gentle_hem.core.cutting.waist_line import centre_of
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.pattern import Dart, Edge, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import inches
from gentle_hem.core.what import UNNAMED, WAIST_CORNERS, Half, Panel, Sign, What

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


def draw_top(table: Styling, top: Top, taken: float, strap_width: float, bare: float = BELOW_UNDERARM) -> None:
    """Draw the top of both halves. ``taken`` is how far below the shoulder an off-shoulder edge lies, ``bare`` how far
    below the underarm a one-shoulder top lies on its bare side.
    """
    if top is Top.OFF_SHOULDER:
        for what in (table.front, table.back):
            table.redraw(what, lambda p: cut_top(p, taken))
        table.drop_seams_of(Role.SHOULDER)
    elif top is Top.STRAPLESS:
        for what in (table.front, table.back):
            table.redraw(what, lambda p: cut_top(p, _underarm_depth(p) + BELOW_UNDERARM))
        table.drop_seams_of(Role.SHOULDER)
    elif top is Top.HALTER:
        table.redraw(table.front, lambda p: haltered(p, strap_width))
        table.redraw(table.back, lambda p: cut_top(p, _underarm_depth(p) + BELOW_UNDERARM))
        table.drop_seams_of(Role.SHOULDER)
    elif top is Top.ONE_SHOULDER:
        _one_shoulder(table, bare)


def _underarm_depth(piece: Piece) -> float:
    return piece.edge("shoulder").path.end.y - piece.edge("armhole").path.start.y


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
        later_line=line,
        parts=(piece.what.as_panel(Panel.TOP), piece.what), edge_name="neckline",
        role=Role.NECKLINE, allowance=neck.allowance,
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
        *(replace(d, edge=d.edge + OTHER, landmark=d.landmark.on_the_other_side()) for d in turned.darts),
    )
    notches = (*piece.notches, *(replace(n, edge=n.edge + OTHER, landmark=UNNAMED) for n in turned.notches))
    return replace(
        piece, edges=(*own, *others), darts=darts, notches=notches, on_fold=False, cut=1,
        marks=(*piece.marks, *turned.marks),
    )  # fmt: skip


def _one_shoulder(table: Styling, below: float) -> None:
    table.redraw(table.front, lambda piece: _asymmetric(piece, below))
    back = table.pieces[table.back]
    if back.on_fold:
        table.redraw(table.back, lambda piece: _asymmetric(piece, below))
        other, waist = (table.back, "side" + OTHER), Stretch(table.back, "waist" + OTHER, backwards=True)
    else:
        kept, bare = _asymmetric_halves(mirrored(back), below)
        table.put(mirrored(kept))
        table.put(bare)
        other, waist = (bare.what, "side"), Stretch(bare.what, "waist", backwards=True)
        centre = centre_of(kept).name
        table.seams.append(seam_of("{section} centre back seam", (kept.what, centre), (bare.what, centre)))
    front_waist = Stretch(table.front, "waist" + OTHER, backwards=True)
    table.other_waist = Run((front_waist, waist), WAIST_CORNERS, "bodice")
    table.seams.append(seam_of("{section} other side seam", (table.front, "side" + OTHER), other))
    table.findings.append(
        note(
            "one-shoulder-right-side-up",
            "The one-shoulder pieces are not symmetrical: cut each once, right side up.",
            *in_recipe("steps"),
        )
    )


def _clear_of_darts(piece: Piece) -> None:
    if piece.darts_of("shoulder") or piece.darts_of("neckline") or piece.darts_of("armhole"):
        raise CannotMake("a dart lies at the shoulder, neck or armhole; move that dart first")


def _deep_enough(piece: Piece, below: float) -> None:
    if below > piece.edge("side").drawn_length - LEAST_SIDE:
        raise CannotMake("nothing would be left of the side seam on the bare side")


LEAST_SIDE = 40.0
"""As much of a side seam is left below a bare top at least (mm)."""


def _asymmetric_halves(piece: Piece, below: float) -> tuple[Piece, Piece]:
    """A half with a seam down its centre, its centre on the left, as the two halves of a one-shoulder top: the one that
    keeps its shoulder, and the bare one turned over. The top edge runs on over the centre seam.
    """
    _clear_of_darts(piece)
    _deep_enough(piece, below)
    neck, side, centre = piece.edge("neckline"), piece.edge("side"), centre_of(piece)
    if any(dart.at + dart.intake > side.drawn_length - below for dart in piece.darts_of("side")):
        raise CannotMake("the bust dart lies too near the top of the bare side")
    x0 = centre.path.start.x
    turned = Placement.mirror(Point(x0, 0), Point(x0, 1))
    start = min(8.0, neck.drawn_length / 4)
    a, under = neck.path.point_at(start), side.path.point_at(side.drawn_length - below)
    b = turned.place(under)
    middle = a.towards(b, 0.5) + Point(0, -0.06 * a.distance(b))
    inward = side.path.tangent_at(side.drawn_length - below).left
    line = smooth_through([a, middle, b], arrive=turned.place(-inward) - turned.place(Point(0, 0)))
    met = line.crossings(centre.path)
    if not met:
        raise CannotMake("its top edge does not meet the centre seam")
    at, along = met[0]
    foot = centre.path.between(along, centre.path.length)
    beyond = line.between(at, line.length).placed(turned)
    bare_top = smooth_through(
        [under, beyond.point_at(beyond.length / 2), foot.start], leave=inward, arrive=-beyond.leaving
    )
    top = Edge("top edge", Role.NECKLINE, line.between(0.0, at), neck.allowance)
    edges = {edge.name: edge for edge in piece.edges}
    short = replace(neck, path=neck.path.between(0.0, start))
    seam = replace(centre, path=foot)
    kept = replace(
        piece, cut=1, edges=(edges["waist"], side, edges["armhole"], edges["shoulder"], short, top, seam),
        notches=tuple(n for n in piece.notches if n.edge not in ("neckline", centre.name)),
    )  # fmt: skip
    bare_side = replace(side, path=side.path.between(0.0, side.drawn_length - below))
    bare = replace(
        piece, what=replace(piece.what, other=True), cut=1,
        edges=(edges["waist"], bare_side, replace(top, path=bare_top), seam),
        notches=tuple(n for n in piece.notches if n.edge in ("waist", "side")),
    )  # fmt: skip
    return kept, bare


def _asymmetric(piece: Piece, below: float) -> Piece:
    _clear_of_darts(piece)
    _deep_enough(piece, below)
    whole = unfolded(piece)
    neck, side = whole.edge("neckline"), whole.edge("side" + OTHER)
    if any(dart.at < below for dart in whole.darts_of(side.name)):
        raise CannotMake("the bust dart lies too near the top of the bare side")
    start = min(8.0, neck.drawn_length / 4)
    a, b = neck.path.point_at(start), side.path.point_at(below)
    middle = a.towards(b, 0.5) + Point(0, -0.06 * a.distance(b))
    # square to the side, so that it runs on over the seam to the other half
    line = smooth_through([a, middle, b], arrive=-side.path.tangent_at(below).left)
    made = split(
        whole, Mouth.place("neckline", start), Mouth.place(side.name, below), earlier_line=line.reversed(),
        later_line=line,
        parts=(piece.what.as_panel(Panel.TOP), piece.what), edge_name="top edge",
        role=Role.NECKLINE, allowance=neck.allowance,
    ).later  # fmt: skip
    first = next(i for i, e in enumerate(made.edges) if e.name == "waist")
    return replace(
        made, edges=made.edges[first:] + made.edges[:first], cut=1, bust_point=piece.bust_point, grain=piece.grain
    )


def strip(
    what: What,
    long: float,
    wide: float,
    allowance: float,
    *,
    cut: int = 1,
    remark: str = "",
    role: Role = Role.PANEL,
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
        what,
        edges,
        cut=cut,
        alike=True,
        remark=remark,
        grain=(Point(long * 0.25, middle), Point(long * 0.75, middle)),
    )


def straps(table: Styling, kind: str, width: float, allowance: float, block: tuple[Piece, Piece], ends: str) -> None:
    """Straps from the front's top edge over the shoulder to the back's (trade 4.6); they may cross in front or behind,
    and their ``ends`` be square, or shaped to lie on the edge they are sewn to.

    ``block`` are front and back before their tops were cut: the strap follows their shoulder.
    """
    if any(e.name == "shoulder" for what in (table.front, table.back) for e in table.pieces[what].edges):
        raise CannotMake("the bodice still has its shoulders")
    reach, slants = 0.0, {}
    for what, old in zip((table.front, table.back), block, strict=True):
        half, was = table.pieces[what], old
        if what.half is Half.BACK:
            half, was = mirrored(half), mirrored(was)
        seam = was.edge("shoulder").path
        over = seam.point_at(seam.length / 2)
        top = half.edge("neckline").path
        at = top.length * 0.45
        place, along = top.point_at(at), top.tangent_at(at)
        mark = Notch("neckline", at, Sign("strap", what.half), kind=NotchKind.STRAP)
        if not width / 2 < mark.at < top.length - width / 2:
            raise CannotMake("the top edge is too short for a strap so wide")
        table.redraw(what, lambda p, m=mark: replace(p, notches=(*p.notches, m)))  # type: ignore[misc]
        if CROSSES.get(kind) is what.half:  # to the other side, over the centre
            place, along = Point(-place.x, place.y), Point(-along.x, along.y)
        if what.half is Half.BACK:  # as it is seen from outside
            place, along, over = (Point(-p.x, p.y) for p in (place, along, over))
        up = (over - place).unit
        slants[what.half] = width * along.dot(up) / along.dot(up.left) if ends == "shaped" else 0.0
        reach += over.distance(place)
    if any(abs(slant) > MOST_SLANTED * width for slant in slants.values()):
        raise CannotMake("it would lie along the edge it is sewn to; take square ends")
    long = reach + OVER_THE_SHOULDER
    what = What(table.section, panel=Panel.STRAP)
    strap = strip(what, long, 2 * width, allowance, cut=2, remark="folded lengthways")
    table.put(_shaped(strap, long, width, slants[Half.BACK], slants[Half.FRONT]))
    table.seams.append(seam_of("strap fold", (what, "edge"), (what, "top")))


CROSSES = {"criss_cross": Half.BACK, "crossed_front": Half.FRONT}
"""Where straps go over the centre to the other side."""

MOST_SLANTED = 1.5
"""A strap's end is slanted by no more than this times its width."""


def _shaped(strap: Piece, long: float, width: float, start: float, end: float) -> Piece:
    """A strap whose ends are slanted by so much over its width, alike on both layers when it is folded; as long down
    its middle as before.
    """
    if not start and not end:
        return strap
    a, b, c = Point(-start / 2, 0), Point(start / 2, width), Point(-start / 2, 2 * width)
    p, q, r = Point(long - end / 2, 0), Point(long + end / 2, width), Point(long - end / 2, 2 * width)
    paths = {
        "edge": Path.through(a, p), "end": Path.through(p, q, r), "top": Path.through(r, c),
        "start": Path.through(c, b, a),
    }  # fmt: skip
    edges = tuple(replace(e, path=paths[e.name], pointed=e.name in ("start", "end")) for e in strap.edges)
    return replace(strap, edges=edges)


def sew_straps(table: Styling) -> None:
    """The straps' ends sewn to the top edges where they are marked, once the bodice is cut into its panels."""
    strap = What(table.section, panel=Panel.STRAP)
    if strap not in table.pieces:
        return
    for piece in list(table.pieces.values()):
        for notch in piece.notches:
            if notch.kind is not NotchKind.STRAP:
                continue
            own = "end" if piece.what.half is Half.FRONT else "start"
            wide = table.pieces[strap].edge(own).drawn_length / 2
            start, end = notch.at - wide / 2, notch.at + wide / 2
            above = Stretch(
                piece.what, notch.edge, False, max(start, 0.0), min(end, piece.edge(notch.edge).drawn_length)
            )
            under = Stretch(strap, own, True, 0.0, wide)
            table.seams.append(Seam(f"strap to the {piece.name}", Run((above,)), Run((under,))))
