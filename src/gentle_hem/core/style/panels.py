"""Princess seams, yokes and midriffs: a half cut into panels (trade 4.6).

shoulder ╲          neckline ╲         armhole ╲        yoke ───────    midriff
          │                   │                 ╲        ┌─────────┐    ┌─────────┐
     bust point          bust point          bust point  │         │    ├─────────┤ under bust
          │                   │                 │        └─────────┘    └─────────┘ waist
        waist               waist             waist
"""

from __future__ import annotations

from enum import StrEnum
from itertools import pairwise

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.pivot import pivot, pivot_of
from gentle_hem.core.cutting.split import Mouth, Split, cut_across, split
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.cutting.waist_line import centre_of
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.pattern import Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.what import UNNAMED, Half, Panel, Sign, What

OVER_BUST_EASE = 6.0
"""A princess seam may be eased by up to 6 mm over the bust, common practice (trade 9.1)."""

ROUNDED, LEAST_ROUNDED, MOST_ROUNDED = 45.0, 25.0, 90.0
"""How far above and below the bust point a princess line is rounded (mm): on a usual figure, and at least and most."""


def rounded_by_cup(bust: float | None, under_bust: float | None) -> float:
    """How far a princess line is rounded over the bust, mm: a third of what the bust is more than below it.

    From memory: a small bust is a short, sharp curve and a full one a long, gentle one. A usual figure's where either
    was not measured.
    """
    if bust is None or under_bust is None:
        return ROUNDED
    return min(max((bust - under_bust) / 3, LEAST_ROUNDED), MOST_ROUNDED)


class PrincessFrom(StrEnum):
    """Where a princess seam begins."""

    NONE = "none"
    SHOULDER = "shoulder"
    NECKLINE = "neckline"
    ARMHOLE = "armhole"


INTO_SEAM = Sign("princess", Half.FRONT, shaping=True)


def princess(table: Table, what: What, start: PrincessFrom, corner: Sign, share: float = 0.5) -> None:
    """Cut a half from ``start``, at a ``share`` of its path, through the bust point (or the back dart) to its waist
    dart; over the bust it is rounded by the figure's cup.

    Any other dart of the half is turned into the seam first, so both darts disappear in it.
    """
    piece = table.pieces[what]
    is_front = what.half is Half.FRONT
    allowance = table.allowances.of(Role.PRINCESS)
    rounded = ROUNDED
    if is_front:
        rounded = rounded_by_cup(table.figure.get("bust_girth"), table.figure.get("under_bust_girth"))
    made = _cut_princess(_facing_left(piece, is_front), str(start), is_front, allowance, rounded, share)
    earlier, later, order = made.earlier, made.later, made.order
    if not is_front:
        earlier, later = _facing_left(earlier, False), _facing_left(later, False)
        order = {edge: tuple(reversed(parts)) for edge, parts in order.items()}
    seam = seam_of(corner, (later.what, "princess"), (earlier.what, "princess"), _seam_ease(later, earlier))
    table.swap(what, (later, earlier), order, corner, seam)


def _seam_ease(centre: Piece, side: Piece) -> float:
    """The ease the seam is meant to have: what rounding over the bust gives, up to what is allowed."""
    over = side.stitched_length("princess") - centre.stitched_length("princess")
    return max(-OVER_BUST_EASE, min(OVER_BUST_EASE, over))


def _facing_left(piece: Piece, is_front: bool) -> Piece:
    return piece if is_front else mirrored(piece)


def _cut_princess(piece: Piece, start: str, is_front: bool, allowance: float, rounded: float, share: float) -> Split:
    waist = piece.darts_of("waist")
    if not waist:
        raise CannotMake("there is no waist dart for it to run into")
    dart = waist[0]
    for extra in [d for d in piece.darts if d is not dart and d.edge == "waist"]:
        raise CannotMake(f"the waist has two darts; merge the {extra.landmark} first")
    low = pivot_of(piece, dart, piece.bust_point) if piece.bust_point else dart.apex
    at = piece.edge(start).drawn_length * share
    high = low
    mouth = Mouth.place(start, at)
    for other in [d for d in piece.darts if d is not dart]:
        if other.edge != start:
            if piece.bust_point is None:
                continue  # a back's shoulder dart stays where it is when the seam begins elsewhere
            piece = pivot(piece, other, start, _clear(piece, start, share), piece.bust_point, INTO_SEAM)
            other = next(d for d in piece.darts if d.landmark == INTO_SEAM)
            dart = next(d for d in piece.darts_of("waist"))
        high = pivot_of(piece, other, piece.bust_point) if piece.bust_point else other.apex
        mouth = Mouth.of(other)
    waist_mouth = Mouth.of(dart)
    path = piece.edge(start).path
    near, far = piece.dart_leg_paths(dart)
    first_at, first_to = path.point_at(mouth.at), path.point_at(mouth.to)
    if not is_front and mouth.to > mouth.at:
        # the back shoulder dart ends above the waist dart's point; the seam runs on from one to the other
        high = next(d for d in piece.darts if d.edge == start).apex
    # anticlockwise: waist … side … armhole … start … neckline … centre; waist mouth first, start mouth last
    outer = _line_down(first_at, high, low, far.start, far, rounded)
    inner = _line_down(first_to, high, low, near.start, near, rounded)
    made = split(
        piece, waist_mouth, mouth, earlier_line=outer, later_line=inner.reversed(),
        parts=(piece.what.as_panel(Panel.SIDE), piece.what.as_panel(Panel.CENTRE)), edge_name="princess",
        role=Role.PRINCESS, allowance=allowance,
    )  # fmt: skip
    return replace(made, earlier=_notched(made.earlier, not is_front), later=_notched(made.later, not is_front))


def _clear(piece: Piece, edge: str, share: float) -> float:
    at = piece.edge(edge).drawn_length * share
    for dart in piece.darts_of(edge):
        if dart.at - 12 < at < dart.at + dart.intake + 12:
            raise CannotMake(f"there is a dart on the {edge} already")
    return at


def _line_down(start: Point, high: Point, low: Point, end: Point, leg: Path, rounded: float) -> Path:
    """One side of a princess seam from the top edge to the waist, rounded over the bust, along the dart's leg."""
    bends = [segment.end for segment in leg.segments[:-1]]
    places = [*reversed(bends), end]
    foot = places[0]
    above, below = high.distance(start), low.distance(foot)
    up, down = min(rounded, 0.45 * above), min(rounded, 0.45 * below)
    enter = high + (start - high).unit * up
    leave = low + (foot - low).unit * down
    middle = high.towards(low, 0.5)
    bend = Cubic(enter, enter.towards(middle, 0.62), leave.towards(middle, 0.62), leave)
    lines = [Line(a, b) for a, b in pairwise([leave, *places])]
    return Path((Line(start, enter), bend, *lines))


def _notched(piece: Piece, double: bool) -> Piece:
    """Notches of a princess seam: at the bust, where it is rounded, and 6 cm above and below."""
    edge = piece.edge("princess")
    at = 0.0
    for segment in edge.path:
        if isinstance(segment, Cubic):
            at += segment.length / 2
            break
        at += segment.length
    marks = [at, at - 60, at + 60]
    notches = tuple(Notch("princess", m, double=double) for m in marks if 15 < m < edge.path.length - 15)
    return replace(piece, notches=(*piece.notches, *notches))


def yoke(table: Styling, what: What, depth: float) -> None:
    """A yoke cut across a half ``depth`` below the shoulder at the neck, from the centre to the armhole."""
    is_front = what.half is Half.FRONT
    piece = _facing_left(table.pieces[what], is_front)
    centre, hole, shoulder = centre_of(piece), piece.edge("armhole"), piece.edge("shoulder")
    level = shoulder.path.end.y - depth
    if level > centre.path.start.y - 15:
        raise CannotMake("the neckline reaches below it")
    line = Path.through(Point(-800, level), Point(1500, level))
    on_hole, on_centre = hole.path.crossings(line), centre.path.crossings(line)
    if not on_hole or not on_centre:
        raise CannotMake("it does not meet the armhole")
    if piece.darts_of("shoulder") or piece.darts_of("neckline") or piece.darts_of("armhole"):
        raise CannotMake("a dart at the shoulder, neck or armhole runs through it; move that dart first")
    run = Path.through(hole.path.point_at(on_hole[0][0]), centre.path.point_at(on_centre[0][0]))
    made = split(
        piece, Mouth.place("armhole", on_hole[0][0]), Mouth.place(centre.name, on_centre[0][0]),
        earlier_line=run.reversed(), later_line=run, parts=(what.as_panel(Panel.YOKE), what), edge_name="yoke",
        role=Role.YOKE, allowance=table.allowances.of(Role.YOKE),
    )  # fmt: skip
    # both halves keep their centre; the body's edges begin at its waist again
    body = _waist_first(made.later)
    top = _centre_last(made.earlier)
    order = made.order
    if not is_front:
        body, top = _facing_left(body, False), _facing_left(top, False)
        order = {edge: tuple(reversed(parts)) for edge, parts in order.items()}
    seam = seam_of(f"{what.half} yoke seam", (body.what, "yoke"), (top.what, "yoke"))
    table.swap(what, (top, body), order, UNNAMED, seam)


def _waist_first(piece: Piece) -> Piece:
    start = next(i for i, edge in enumerate(piece.edges) if edge.name == "waist")
    return replace(piece, edges=piece.edges[start:] + piece.edges[:start])


def _centre_last(piece: Piece) -> Piece:
    last = next((i for i, edge in enumerate(piece.edges) if edge.role.is_centre), None)
    if last is None:
        raise CannotMake(f"nothing is left of the centre of the {piece.name}")
    return replace(piece, edges=piece.edges[last + 1 :] + piece.edges[: last + 1])


def cut_under_bust(table: Styling, what: What, level: float, keep_midriff: bool) -> None:
    """Cut a half across under the bust. What is below is kept as a midriff in one piece, or left off."""
    is_front = what.half is Half.FRONT
    piece = _facing_left(table.pieces[what], is_front)
    midriff = what.as_panel(Panel.MIDRIFF)
    line = Path.through(Point(-800, level), Point(1500, level))
    made = cut_across(piece, line, (what, midriff), "under bust", table.allowances.of(Role.WAIST))
    above = _centre_last(made.above)
    table.put(_facing_left(above, is_front))
    if not keep_midriff:
        return
    below = made.below
    below = replace(
        below,
        edges=tuple(
            replace(e, role=Role.YOKE, allowance=table.allowances.of(Role.YOKE)) if e.name == "under bust" else e
            for e in below.edges
        ),
        notches=(*below.notches, *_under_dart(above, below)),
    )  # fmt: skip
    table.put(_facing_left(below, is_front))
    table.seams.append(seam_of(f"{what.half} midriff seam", (what, "waist"), (midriff, "under bust")))


def _under_dart(above: Piece, below: Piece) -> list[Notch]:
    """A notch on the midriff's top under each dart of the bodice above it."""
    top = below.edge("under bust").drawn_length
    marks = []
    for dart in above.darts_of("waist"):
        marks.append(Notch("under bust", top - dart.at, dart.landmark))
    return marks


def midriff_joined(table: Styling) -> None:
    """Once both halves are cut: the midriffs' own side seam, and the waist edge along their lower edges."""
    front, back = table.front.as_panel(Panel.MIDRIFF), table.back.as_panel(Panel.MIDRIFF)
    moved = {table.front: front, table.back: back}
    stretches = tuple(replace(s, piece=moved.get(s.piece, s.piece)) for s in table.waist.stretches)
    table.waist = replace(table.waist, stretches=stretches)
    table.seams.append(seam_of("midriff side seam", (front, "side"), (back, "side")))
