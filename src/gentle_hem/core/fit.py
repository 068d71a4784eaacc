"""Fitting a lower edge that exists to the edge above it (trade 9.1): side seams taken in, darts, gathers.

side seams    w at the waist, run out to nothing by the hip        ╲│
darts         under the bodice's, each within what a dart can take  V
gathers       fullness = lower ÷ bodice
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, Any, ClassVar

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import Remedy
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.join import closed, stitched, unroll
from gentle_hem.core.parts import Host, LowerMade, RecipePart, between
from gentle_hem.core.pattern import Dart, Edge, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length
from gentle_hem.core.walk import Walked, ease_remedy
from gentle_hem.core.what import Half, What
from gentle_hem.core.workings import Ratio, Share

LEAST_DART, WIDEST_DART = 10.0, 35.0
SMALLEST_SURPLUS = 6.0
"""Darts take 1-3.5 cm each, and none is worth stitching for less than 6 mm: common practice (trade 9.1)."""

MOST_AT_SIDE = 15.0
"""Up to 1.5 cm at each side edge, run out by the hip: common practice (trade 9.1)."""

LEAST_GATHER, LOOKS_LIKE_MISTAKE = 1.15, 1.03
"""Gathers are sensible from 1.15 up; between 1.03 and 1.15 they look like a mistake: common practice."""

MOST_IN_BODICE = 40.0

LEAST_SEAM = 6.0
"""A seam needs 6 mm of allowance at least to hold (mm)."""

MOST_NEARER = 40.0
"""No seam is stitched further out of its line than this (mm)."""

LEAST_LEFT = 30.0
"""A lower part cut lower keeps so much of its length at least (mm)."""
FRONT_DEPTH, BACK_DEPTH = 108.0, 140.0
"""Skirt dart lengths: front 3½-5 in, back 5-6 in: common practice (trade 5)."""


Shorter = Annotated[Length, between(0, 40)]


class JoinPlan(RecipePart):
    """How bodice and lower part are meant to meet: plainly, eased, darted, taken in or gathered."""

    title: ClassVar[str] = "Waist seam"
    sentences: ClassVar[tuple[str, ...]] = (
        "At the waist seam {ease} is eased in. The lower part is taken in {dart} by a dart under each of the bodice's "
        "and {side} at each side seam, and sewn on {manner}.",
        "The lower part is made {front_shorter} shorter at the centre front and {back_shorter} at the centre back.",
        "Its waist edge is cut {down} lower than it was drawn.",
    )
    words: ClassVar[dict[str, Word]] = {
        "ease": length("ease at the waist seam", nothing="nothing"),
        "dart": length("darts put into the lower part, each", nothing="nothing"),
        "side": length("side seams taken in, each edge", help="Less than nothing lets them out.", nothing="nothing"),
        "front_shorter": length(
            "shorter at centre front", nothing="no", help="3/4 in where a skirt's front stands off."
        ),
        "back_shorter": length(
            "shorter at centre back", nothing="no", help="1/2 in over the hollow of the back; the bodice may be too."
        ),
        "down": length(
            "its waist cut lower by", nothing="no", help="Less than nothing: it is stitched nearer the edge instead."
        ),
        "manner": choice("how it is sewn on", ("flat", "flat"), ("gathered", "gathered"), ("pleated", "in pleats")),
    }

    ease: Annotated[Length, between(-300, 300)] = Field(
        0.0, description="How much longer the lower edge is meant to be, round the whole waist."
    )
    dart: Annotated[Length, between(0, WIDEST_DART)] = Field(0.0, description="Each dart put into the lower part.")
    side: Annotated[Length, between(-MOST_AT_SIDE, MOST_AT_SIDE)] = Field(
        0.0, description="Taken in at each edge of the side seams, at the waist."
    )
    manner: Manner = Manner.FLAT
    front_shorter: Shorter = 0.0
    back_shorter: Shorter = 0.0
    down: Annotated[Length, between(-MOST_NEARER, 400)] = Field(
        0.0,
        description="How much lower the waist of the lower part is cut; less than nothing: stitched nearer the edge.",
    )

    def undone(self) -> dict[str, float]:
        """The words that change the pieces of a lower part, each as it is when nothing is done to them."""
        return dict.fromkeys(("dart", "side", "front_shorter", "back_shorter", "down"), 0.0)


def fitted(made: LowerMade, host: Host, plan: JoinPlan) -> LowerMade:
    """The lower part with its waist cut lower, its side seams taken in and darts put in as planned.

    Raises CannotMake.
    """
    pieces = {piece.what: piece for piece in made.pieces}
    at_waist = made.waist.pieces
    if plan.down:
        pieces |= {what: _cut_lower(pieces[what], plan.down) for what in at_waist}
    if plan.side:
        pieces |= {what: _taken_in(pieces[what], plan.side) for what in at_waist}
    if plan.dart:
        pieces = _darted(made, pieces, host, plan.dart)
    in_front = 0.0 if made.point else plan.front_shorter  # a flare that follows a point has it in its edge already
    for role, by in ((Role.CENTRE_FRONT, in_front), (Role.CENTRE_BACK, plan.back_shorter)):
        if by:
            pieces = _shorter(made, pieces, role, by)
    return replace(made, pieces=tuple(pieces.values()), unspread=_as_unspread(made, host, plan))


def _as_unspread(made: LowerMade, host: Host, plan: JoinPlan) -> tuple[Piece, ...]:
    """What a lining is cut from, with the same done to it."""
    flat = {piece.what: piece for piece in made.unspread}
    if not flat:
        return ()
    fitted_flat = fitted(replace(made, pieces=tuple(flat.get(p.what, p) for p in made.pieces), unspread=()), host, plan)
    return tuple(piece for piece in fitted_flat.pieces if piece.what in flat)


def _shorter(made: LowerMade, pieces: Mapping[What, Piece], role: Role, by: float) -> dict[What, Piece]:
    """The lower part made ``by`` shorter down a centre. Raises CannotMake where no piece can be."""
    changed = {what: _sunk_at(piece, role, by) for what, piece in pieces.items()}
    if all(changed[what] is pieces[what] for what in made.waist.pieces):
        raise CannotMake(f"the {made.name} has no piece that can be made shorter at the {role}", "join")
    return changed


def _sunk_at(piece: Piece, role: Role, by: float) -> Piece:
    """A lower piece whose waist lies ``by`` lower at its centre, as a smooth curve that runs out at its other end.

    The centre line stays where it is, and the waist as long as it was: what the curve adds is taken in at the side.
    Raises CannotMake where the centre is too short for it, or the waist would grow by more than the side can take.
    """
    count = len(piece.edges)
    at = next((k for k, edge in enumerate(piece.edges) if edge.role is Role.WAIST), None)
    if at is None or role not in (piece.edges[(at + 1) % count].role, piece.edges[at - 1].role):
        return piece
    waist, ends_there = piece.edges[at], piece.edges[(at + 1) % count].role is role
    centre = piece.edges[(at + 1) % count] if ends_there else piece.edges[at - 1]
    if centre.drawn_length < 4 * by:
        raise CannotMake("its centre is too short to be made shorter", "join")
    down = centre.path.leaving if ends_there else -centre.path.arriving
    darts, whole = piece.darts_of(waist.name), piece.stitched_length(waist.name)

    def sunk(along: float) -> Point:
        share = closed(along, darts) / whole  # a dart's legs sink alike
        share = share if ends_there else 1 - share
        return waist.path.point_at(along) + down * (by * share * share * (3 - 2 * share))

    drawn: list[Path] = []
    moved = [dart for dart in piece.darts if dart.edge != waist.name]
    start = 0.0
    for dart in darts:
        drawn.append(_through(sunk, start, dart.at))
        near, far = sunk(dart.at), sunk(dart.at + dart.intake)
        step = near - waist.path.point_at(dart.at)
        bends = tuple(tuple(place + step for place in leg) for leg in dart.bends)
        long = sum(path.length for path in drawn)
        moved.append(replace(dart, at=long, apex=dart.apex + step, bends=(bends[0], bends[1])))
        drawn.append(Path.through(near, far))
        start = dart.at + dart.intake
    path = Path.joined([*drawn, _through(sunk, start, waist.drawn_length)])
    line = centre.path.split(by)[1] if ends_there else centre.path.split(centre.drawn_length - by)[0]
    paths = {waist.name: path, centre.name: line}
    notches = []
    for notch in piece.notches:
        if notch.edge == waist.name:
            notches.append(replace(notch, at=notch.at * path.length / waist.drawn_length))
        elif notch.edge != centre.name:
            notches.append(notch)
        elif by < (notch.at if ends_there else centre.drawn_length - notch.at):
            notches.append(replace(notch, at=notch.at - by) if ends_there else notch)
    edges = tuple(replace(e, path=paths.get(e.name, e.path)) for e in piece.edges)
    over = path.length - waist.drawn_length
    if over > MOST_ADDED:
        raise CannotMake("cut so much lower its waist would grow too long", "join")
    return _taken_in(replace(piece, edges=edges, darts=tuple(moved), notches=tuple(notches)), over)


STEPS = 24
"""A curve drawn through so many places strays from the one meant by less than 0.01 mm."""

MOST_ADDED = 6.0
"""What a curved waist may add to its length and have taken in at the side again (mm)."""


def _through(place: Callable[[float], Point], start: float, end: float) -> Path:
    """A curve through the places of a stretch."""
    hair = (end - start) * 1e-4
    return smooth_through(
        [place(start + (end - start) * k / STEPS) for k in range(STEPS + 1)],
        place(start + hair) - place(start), place(end) - place(end - hair),
    )  # fmt: skip


def _cut_lower(piece: Piece, by: float) -> Piece:
    """A lower piece whose waist lies ``by`` lower, along its sides and square to its edge between them; darts are as
    wide there as they are drawn. Less than nothing: so much nearer the cut edge, which stays.

    Raises CannotMake where the piece is too short or the allowance too narrow.
    """
    at = next((k for k, edge in enumerate(piece.edges) if edge.role is Role.WAIST), None)
    if at is None:
        return piece
    before, waist, after = piece.edges[at - 1], piece.edges[at], piece.edges[(at + 1) % len(piece.edges)]
    if min(before.drawn_length, after.drawn_length) < by + LEAST_LEFT:
        raise CannotMake(f"the {piece.name} is too short to be cut so much lower", "join.down")
    if waist.allowance + min(by, 0.0) < min(LEAST_SEAM, waist.allowance):
        raise CannotMake(f"the {piece.name} has not so much allowance at its waist", "join.down")
    into, out = _begun_lower(before.path.reversed(), by).reversed(), _begun_lower(after.path, by)

    def lowered(along: float) -> Point:
        return waist.path.point_at(along) + waist.path.tangent_at(along).left * by

    drawn: list[Path] = []
    darts, moved = piece.darts_of(waist.name), [dart for dart in piece.darts if dart.edge != waist.name]
    start, first = 0.0, into.end
    for dart in darts:
        near, far = waist.path.point_at(dart.at), waist.path.point_at(dart.at + dart.intake)
        left = 1 - by / dart.apex.distance(Point((near.x + far.x) / 2, (near.y + far.y) / 2))
        if left * dart.intake < 1:
            raise CannotMake(f"a dart of the {piece.name} would be cut away", "join.down")
        near, far = dart.apex + (near - dart.apex) * left, dart.apex + (far - dart.apex) * left
        drawn.append(_run(lowered, first, start, dart.at, near))
        long = sum(path.length for path in drawn)
        drawn.append(Path.through(near, far))
        bends = tuple(tuple(place for place in leg if place.distance(dart.apex) < near.distance(dart.apex) - 1)
                      for leg in dart.bends)  # fmt: skip
        moved.append(replace(dart, at=long, intake=near.distance(far), bends=(bends[0], bends[1])))
        start, first = dart.at + dart.intake, far
    drawn.append(_run(lowered, first, start, waist.drawn_length, out.start))
    path = Path.joined(drawn)
    paths = {before.name: into, waist.name: path, after.name: out}
    notches = []
    for notch in piece.notches:
        if notch.edge == waist.name:
            notches.append(replace(notch, at=notch.at * path.length / waist.drawn_length))
        elif notch.edge in (before.name, after.name):
            side = into if notch.edge == before.name else out
            # marks lie where they lay on the cloth, but the zip ends as far below the waist as it did
            moves = (notch.kind is NotchKind.ZIP_END) == (side is into)
            place = replace(notch, at=notch.at - by) if moves else notch
            notches += [place] if 0 < place.at < side.length else []
        else:
            notches.append(notch)
    edges = tuple(
        replace(e, path=paths.get(e.name, e.path), allowance=e.allowance + (min(by, 0.0) if e is waist else 0.0))
        for e in piece.edges
    )
    return replace(piece, edges=edges, darts=tuple(moved), notches=tuple(notches))


def _begun_lower(side: Path, by: float) -> Path:
    """A path begun so much later; less than nothing: so much sooner, carried on straight."""
    if by > 0:
        return side.split(by)[1]
    return Path((Line(side.start + side.leaving * by, side.start), *side.segments))


def _run(place: Callable[[float], Point], first: Point, start: float, end: float, last: Point) -> Path:
    """A curve through the places of a stretch, from a point to a point."""
    hair = (end - start) * 1e-4  # not at the ends themselves: there the edge may have a corner
    inside = [place(start + (end - start) * k / STEPS) for k in range(1, STEPS)]
    leave, arrive = place(start + 2 * hair) - place(start + hair), place(end - hair) - place(end - 2 * hair)
    return smooth_through([first, *inside, last], leave, arrive)


def cut_lower_to(made: LowerMade, wanted: float) -> float | None:
    """How much lower the waist of a lower part is to be cut to be ``wanted`` long, half garment (mm); less than nothing
    is nearer its edge. None where no line of the pieces is so long.
    """
    pieces = {piece.what: piece for piece in made.pieces}

    def long(by: float) -> float:
        return stitched(made.waist.stretches, {what: _cut_lower(pieces[what], by) for what in made.waist.pieces})

    tried, now = 0.0, long(0.0)
    step = 5.0 if wanted > now else -2.0
    try:
        for _ in range(12):
            after = long(tried + step)
            slope = (after - now) / step
            if slope <= 0:
                return None
            tried, now = tried + step, after
            step = (wanted - now) / slope
            if abs(wanted - now) < 0.005:
                return tried
    except CannotMake:
        return None
    return None


def side_ends(made: LowerMade) -> int:
    """How many ends of side seams the waist edge of the half garment has."""
    pieces = {piece.what: piece for piece in made.pieces}
    count = 0
    for ref in made.waist.stretches:
        edges = pieces[ref.piece].edges
        place = next(i for i, edge in enumerate(edges) if edge.name == ref.edge)
        count += sum(edges[i % len(edges)].role is Role.SIDE for i in (place - 1, place + 1))
    return count


def _taken_in(piece: Piece, by: float) -> Piece:
    """A lower piece whose side edges lean in by ``by`` at the waist, run out at the hip's depth.

    Lower pieces run: left edge down, hem, right edge up, waist from right to left.
    """
    names = [edge.name for edge in piece.edges]
    if "waist" not in names:
        return piece
    place = names.index("waist")
    before, waist, after = piece.edges[place - 1], piece.edges[place], piece.edges[(place + 1) % len(names)]
    path, right, left = waist.path, before.path, after.path
    at_start, at_end = before.role is Role.SIDE, after.role is Role.SIDE
    if not (at_start or at_end) or path.length < 4 * abs(by):
        return piece
    if at_start:
        path = path.split(by)[1] if by > 0 else Path((Line(path.start + path.leaving * by, path.start), *path.segments))
        right = _run_out(right.reversed(), path.start).reversed()
    if at_end:
        path = (
            path.split(path.length - by)[0]
            if by > 0
            else Path((*path.segments, Line(path.end, path.end - path.arriving * by)))
        )
        left = _run_out(left, path.end)
    shift = by if at_start else 0.0
    redrawn = {before.name: right, waist.name: path, after.name: left}
    edges = tuple(replace(e, path=redrawn.get(e.name, e.path)) for e in piece.edges)
    darts = tuple(replace(d, at=d.at - shift) if d.edge == "waist" else d for d in piece.darts)
    notches = tuple(
        replace(n, at=n.at - shift) if n.edge == "waist" else n
        for n in piece.notches
        if n.edge != "waist" or 0 < n.at - shift < path.length
    )
    return replace(piece, edges=edges, darts=darts, notches=notches)


def _run_out(side: Path, top: Point) -> Path:
    """A side edge from the waist down, begun anew at ``top`` and back on its old line by the hip."""
    depth = min(180.0, side.length * 0.5)
    rest = side.split(depth)[1]
    third = top.distance(rest.start) / 3
    toward = (rest.start - top).unit
    curve = Cubic(top, top + toward * third, rest.start - rest.leaving * third, rest.start)
    return Path((curve, *rest.segments))


def _darted(made: LowerMade, pieces: Mapping[What, Piece], host: Host, intake: float) -> dict[What, Piece]:
    """A dart of ``intake`` put into the lower edge under each of the bodice's; one that is there is made wider."""
    marks = host.waist.darts()
    if not marks:
        return dict(pieces)
    edge = unroll(made.waist, pieces)
    result = dict(pieces)
    start = 0.0
    share = (edge.length - intake * len(marks)) / host.waist.length
    for ref, laid in zip(made.waist.stretches, edge.runs, strict=True):
        piece = result[ref.piece]
        path = piece.edge(ref.edge).path
        darts, notches = list(piece.darts), list(piece.notches)
        for k, mark in enumerate(marks):
            there = next((d for d in darts if d.edge == ref.edge and d.landmark == mark.name), None)
            if there is not None:
                at = max(there.at - intake / 2, 0.0)
                darts[darts.index(there)] = replace(there, at=at, intake=there.intake + intake)
                continue
            along = mark.at * share + intake * k - start
            if not 0 <= along <= laid.length - intake:
                continue
            from_path = path.length - along - intake if ref.backwards else along
            middle = from_path + intake / 2
            inward = path.tangent_at(middle).left
            depth = FRONT_DEPTH if mark.name.half is Half.FRONT else BACK_DEPTH
            darts.append(Dart(ref.edge, from_path, intake, path.point_at(middle) + inward * depth, mark.name))
            notches = [n for n in notches if n.landmark != mark.name]
        result[ref.piece] = replace(piece, darts=tuple(darts), notches=tuple(notches))
        start += laid.length
    return result


def remedies(
    report: Walked,
    plan: JoinPlan,
    own: list[Remedy],
    pin: Mapping[str, Any],
    bodice: Mapping[str, tuple[float, float]],
    lower: LowerMade,
    *,
    stays: bool = False,
    is_cut: bool = False,
) -> tuple[Remedy, ...]:
    """Every way to close a join that does not meet, best first, each with its limit and cost (trade 9.1).

    ``own`` are the lower part's ways; ``pin`` holds its edge as it is; ``bodice`` says which words of the bodice's
    recipe widen its waist, and how much one millimetre all round adds to each. A waist that ``stays`` as
    it is can be cut lower; where the lower part ``is_cut`` nothing is let out further than its allowances reach.
    """
    surplus = 2 * report.open_difference
    found = list(own)
    codes = {remedy.code for remedy in found}
    darts = len(report.upper.darts())
    if "darts" not in codes and surplus >= SMALLEST_SURPLUS and darts and report.fullness < LOOKS_LIKE_MISTAKE:
        each = surplus / (2 * darts)
        if LEAST_DART <= each + plan.dart <= WIDEST_DART:
            found.append(
                Remedy(
                    "darts", "Take it up in {count} darts of {each} under the bodice's",
                    {**pin, "join.dart": plan.dart + each}, "costs no length; the hem keeps its sweep",
                    {"count": str(2 * darts), "each": Share(each + plan.dart, 2 * darts)},
                )
            )  # fmt: skip
    easing = ease_remedy(report, plan.ease, pin)
    if easing:
        found.append(easing)
    if stays or is_cut or plan.down:
        found += _cut_at_waist(report, plan, lower)
    ends = side_ends(lower)
    each = surplus * report.fullness / (2 * ends) if ends else 0.0
    spare = min((edge.allowance - LEAST_SEAM for edge in _sides(lower)), default=0.0) if is_cut else MOST_AT_SIDE
    if ends and abs(plan.side + each) <= MOST_AT_SIDE and abs(surplus) > 0 and -each <= spare:
        word = "Take the side seams in" if each > 0 else "Let the side seams out"
        found.append(
            Remedy(
                "side-seams",
                word + " by {each} at each edge, run out by the hip",
                {**pin, "join.side": plan.side + each},
                "no length; the hip stays" if each > 0 else "needs that much allowance at the sides",
                {"each": Share(abs(each), 2 * ends)},
            )
        )
    fullness = report.lower.length * report.fullness / report.upper.length
    if surplus > 0 and fullness >= LOOKS_LIKE_MISTAKE:
        mistake = (
            "between 1.03 and 1.15 it looks like a mistake" if fullness < LEAST_GATHER else "soft folds at the seam"
        )
        for manner, word in ((Manner.GATHERED, "Gather"), (Manner.PLEATED, "Pleat")):
            found.append(
                Remedy(
                    manner.value,
                    word + " it onto the {above}, {fullness} times as full",
                    {**pin, "join.manner": manner.value},
                    mistake,
                    {"fullness": Ratio(fullness), "above": report.upper_name},
                )
            )
    if bodice and abs(surplus) <= MOST_IN_BODICE:
        changes = {path: value + surplus * share for path, (value, share) in bodice.items()}
        if all(value >= -90 for value in changes.values()):
            word = "Widen" if surplus > 0 else "Narrow"
            found.append(
                Remedy(
                    "bodice-side", word + " the {above}'s waist by {amount} all round", {**pin, **changes},
                    "changes how the bodice fits at the waist", {"amount": abs(surplus), "above": report.upper_name},
                )
            )  # fmt: skip
    return tuple(found)


def _sides(lower: LowerMade) -> list[Edge]:
    """The side edges that end at its waist."""
    pieces = {piece.what: piece for piece in lower.pieces}
    return [edge for ref in lower.waist.stretches for edge in pieces[ref.piece].edges if edge.role is Role.SIDE]


def _cut_at_waist(report: Walked, plan: JoinPlan, lower: LowerMade) -> list[Remedy]:
    """The waist of a lower part cut lower, or stitched nearer its edge, until it is as long as it should be."""
    more = cut_lower_to(lower, (report.upper.length + report.ease) * report.fullness)
    if more is None:
        return []
    change = {"join.down": plan.down + more}
    if more > 0:
        cost = "{lower} of length; the hem keeps its sweep"
        return [Remedy("cut-lower", "Cut its waist lower by {lower}", change, cost, {"lower": more})]
    left = min(e.allowance for p in lower.pieces for e in p.edges if e.role is Role.WAIST) + more
    cost = "an allowance of {left} is left; {nearer} of length is won"
    values = {"nearer": -more, "left": left}
    return [Remedy("nearer-edge", "Stitch it {nearer} nearer its edge", change, cost, values)]
