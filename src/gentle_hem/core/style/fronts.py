"""What happens at a front's centre and waist: button stand, keyhole, twist, basque (trade 4.6, 4.7).

stand              keyhole        twist                     basque
┌─┬────            ╲_  _╱         ___╱ fan of cuts          ────────────
│ ┊ CF               ││          )   ╲ hinged at the side   ╲          ╱
│ ┊                  ()          ‾‾‾‾                         ╲ ___  ╱   point at CF
"""

from __future__ import annotations

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.carry import Below, carried_down
from gentle_hem.core.cutting.spread import opened, smoothed
from gentle_hem.core.cutting.waist_line import centre_of
from gentle_hem.core.geometry import Cubic, Path, Placement, Point
from gentle_hem.core.parts import Allowances
from gentle_hem.core.pattern import Edge, Finished, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Layer, Panel

OFF_THE_RIDGE = 15.0
"""A button is never sewn on the ridge of a seam: common practice (trade 11)."""

BUTTON_THICKNESS = 3.0
PAST_THE_CENTRE = 3.0
"""A buttonhole is the button's width and thickness long; it begins 3 mm past the centre, where the button pulls:
common practice."""

FACING_BESIDE = 40.0
"""A stand's grown-on facing reaches 4 cm beyond the stand's width, common practice (trade 11)."""

KEYHOLE_FACING = 45.0


STAND_LINE = "centre front"
"""The name of the line inside a stand from which every front measure is taken."""


def with_button_stand(piece: Piece, width: float, facing: float) -> Piece:
    """A front with a stand ``width`` beyond its centre and a grown-on facing, ``facing`` wide, folded back behind it.

            neckline ╲    stand    facing, the mirror image of what it lies on
                      ╲___┬___·___╱
        CF, drawn inside ─┊   ┊fold
                          ┊   ┊
            waist  ───────┴───┴────

    The facing reaches the neck's cut edge and the seam below as the front itself does. Raises CannotMake when a dart
    opens on the centre, or the centre is not straight.
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
    mirror = Placement.mirror(top + move, foot + move)
    reach = min(facing - width, _room(piece, before, at_end=True), _room(piece, after, at_end=False))
    upper = _within(before.path.reversed(), top.x + reach)
    lower = _within(after.path, foot.x + reach)
    facing_top = Path.through(top, top + move).placed(mirror).reversed().then(upper.placed(mirror))
    facing_foot = Path.through(foot + move, foot).placed(mirror).then(lower.placed(mirror)).reversed()
    grown = (
        Edge("stand top", Role.FREE, Path.through(top, top + move), before.allowance, before.turned, Finished.FOLDED),
        Edge("facing top", Role.FREE, facing_top, before.allowance, before.turned, Finished.FOLDED),
        Edge("facing edge", Role.CENTRE_FRONT, Path.through(facing_top.end, facing_foot.start), 0.0),
        Edge("facing foot", Role.FREE, facing_foot, after.allowance, after.turned, Finished.FOLDED),
        Edge("stand foot", Role.FREE, Path.through(foot + move, foot), after.allowance, after.turned, Finished.FOLDED),
    )
    marks = (
        Mark(MarkKind.CENTRE, centre.path, STAND_LINE), Mark(MarkKind.FOLD, Path.through(top + move, foot + move)),
    )  # fmt: skip
    return replace(
        piece, edges=(*piece.edges[:place], *grown, *piece.edges[place + 1 :]), on_fold=False, cut=2,
        marks=(*piece.marks, *marks), notches=tuple(n for n in piece.notches if n.edge != centre.name),
        remark="centre front is the line inside the stand",
    )  # fmt: skip


def _room(piece: Piece, edge: Edge, *, at_end: bool) -> float:
    """How far from the centre an edge runs before a dart opens on it or it ends, less a little (mm)."""
    darts = piece.darts_of(edge.name)
    path = edge.path
    if not darts:
        return abs(path.end.x - path.start.x) - 5
    here = path.end if at_end else path.start
    nearest = darts[-1].at + darts[-1].intake if at_end else darts[0].at
    return abs(path.point_at(nearest).x - here.x) - 5


def _within(path: Path, x: float) -> Path:
    """A path that begins at the centre, as far as an upright line at ``x``."""
    met = path.crossings(Path.through(Point(x, -9000), Point(x, 9000)))
    return path.between(0.0, met[0][0]) if met else path


def without_stand(piece: Piece, allowance: float) -> Piece:
    """The front as far as the edge of the facing that is folded back over it: what a lining is cut from.

    Its new edge takes the facing edge's name. A piece without a stand is returned as it is.
    """
    names = [edge.name for edge in piece.edges]
    if "facing edge" not in names:
        return piece
    first, last, count = names.index("stand top"), names.index("stand foot"), len(names)
    before, after = piece.edges[first - 1], piece.edges[(last + 1) % count]
    fold = piece.edge("stand top").path.end.x
    x = 2 * fold - piece.edge("facing edge").path.start.x
    upper, lower = _beyond(before.path.reversed(), x).reversed(), _beyond(after.path, x)
    shift = after.path.length - lower.length
    paths = {before.name: upper, after.name: lower}
    edge = Edge("facing edge", Role.FREE, Path.through(upper.end, lower.start), allowance)
    kept = [replace(e, path=paths.get(e.name, e.path)) for e in piece.edges if e.name not in GROWN]
    place = next(k for k, e in enumerate(kept) if e.name == before.name) + 1
    darts = tuple(replace(d, at=d.at - shift) if d.edge == after.name else d for d in piece.darts)
    notches = tuple(
        replace(n, at=n.at - shift) if n.edge == after.name else n
        for n in piece.notches
        if n.edge not in GROWN and (n.edge != after.name or n.at >= shift)
        if n.edge != before.name or n.at <= upper.length
    )
    return replace(piece, edges=(*kept[:place], edge, *kept[place:]), darts=darts, notches=notches)


GROWN = ("stand top", "facing top", "facing edge", "facing foot", "stand foot")
"""The edges of a stand and its grown-on facing."""


def _beyond(path: Path, x: float) -> Path:
    """A path that begins at the centre, from an upright line at ``x`` on."""
    return path.between(_within(path, x).length, path.length)


def faced_with_stand(facing: Piece, width: float) -> Piece:
    """A neck facing, its centre front on the left, carried on over a button stand and cut as a pair."""
    place = next(i for i, edge in enumerate(facing.edges) if edge.role is Role.CENTRE_FRONT)
    centre = facing.edges[place]
    move, neck = Point(-width, 0), facing.edges[place - 1]
    top, foot = centre.path.start, centre.path.end
    grown = (
        Edge("stand top", Role.FREE, Path.through(top, top + move), neck.allowance),
        replace(centre, path=Path.through(top + move, foot + move), allowance=0.0),
        Edge("stand foot", Role.FREE, Path.through(foot + move, foot), 0.0),
    )
    edges = (*facing.edges[:place], *grown, *facing.edges[place + 1 :])
    return replace(facing, edges=edges, on_fold=False, cut=2)


def button_levels(
    top: float, bust: float, foot: float, count: int, *, goes_on: bool = False
) -> tuple[list[float], float]:
    """Where ``count`` buttons lie down a centre front, from the top, and how far apart (levels, y up, mm).

    One lies at the bust and one just above the waist seam, where the front is under stress; the rest are equally
    spaced (trade 11), so that the number may come out one more or fewer. None lies on a seam's ridge at either end.
    Where they go on below it, the seam falls midway between two.
    """
    high, low = top - OFF_THE_RIDGE, foot if goes_on else foot + OFF_THE_RIDGE
    half = 0.5 if goes_on else 0.0

    def spaced(below: int) -> float:
        return (bust - low) / (below + half)

    def above(below: int) -> int:
        return int((high - bust) / spaced(below) + 1e-9)

    below = min(range(0 if goes_on else 1, count + 1), key=lambda n: abs(above(n) + n + 1 - count))
    up, spacing = above(below), spaced(below)
    return [bust + spacing * k for k in range(up, -below - 1, -1)], spacing


ABOVE_HEM = 60.0
"""The lowest button lies at least so far above the hem (mm)."""


def buttoned_down(piece: Piece, spacing: float, button: float, width: float, facing: float) -> Piece:
    """A lower front that opens with the bodice: its stand, and buttons at the same spaces from the seam down."""
    centre = next(e for e in piece.edges if e.role is Role.CENTRE_FRONT).path
    top, foot = centre.start.y, centre.end.y
    count = int((top - foot - ABOVE_HEM - spacing / 2) / spacing) + 1
    levels = [top - spacing * (k + 0.5) for k in range(max(count, 0))]
    return with_button_stand(with_buttonholes(piece, levels, button), width, facing)


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
        Edge(str(centre.role), centre.role, Path.through(top, Point(x, low)), 0.0),
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
    wanted = centre.drawn_length + cuts * spread
    made = piece
    share = 1.0
    for _ in range(12):  # smoothing shortens the opened edge: it is opened until as much is left as was asked
        made = smoothed(_fanned(piece, centre.name, cuts, spread * share), centre.name)
        short = wanted - made.edge(centre.name).drawn_length
        if abs(short) < 0.01:
            break
        share += short / (cuts * spread)
    made = replace(made, on_fold=False, cut=2, marks=(*made.marks, *_cut_lines(made, centre, cuts, spread)))
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


def _fanned(piece: Piece, edge: str, cuts: int, spread: float) -> Piece:
    """A front with cuts fanned from its centre to the armhole, each opened by ``spread``."""
    for k in range(cuts):
        at = _unopened(piece, edge, (k + 1) / (cuts + 1), k, spread)
        piece = opened(piece, edge, at, "armhole", _hinge(piece, k, cuts), spread, lambda e: e.role is Role.WAIST)
    return piece


def _hinge(piece: Piece, cut: int, cuts: int) -> float:
    """Where along the armhole a cut is hinged; hinging leaves the armhole as long as it is."""
    return max(piece.edge("armhole").drawn_length * (0.55 - 0.45 * (cut + 1) / (cuts + 1)), 4.0)


def _cut_lines(piece: Piece, centre: Edge, cuts: int, spread: float) -> list[Mark]:
    """The lines a spread front was cut along: from the middle of each opening to its hinge."""
    drawn, hole = piece.edge(centre.name).path, piece.edge("armhole").path
    lines = []
    for k in range(cuts):
        at = centre.drawn_length * (k + 1) / (cuts + 1) + (k + 0.5) * spread
        lines.append(Mark(MarkKind.SLASH, Path.through(drawn.point_at(at), hole.point_at(_hinge(piece, k, cuts)))))
    return lines


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
    drawn = carried_down(piece, Below(0.0, 200.0, width, width, dart_length=max(2.2 * depth, 90.0), point=depth))
    return drawn.with_edge("waist", pointed=True)
