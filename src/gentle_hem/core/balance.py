"""Balance notches where a hand puts them, on both mates alike: half-way, waist, hip and knee (trade 11).

    bodice side    ────┼────            half-way
    skirt side     ──┼─────┼───         hip, and what the part has put half-way itself
    gown side      ─┼──┼──┼───┼───      waist, half-way to the hip, hip, knee

Single in front, double behind.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from gentle_hem.core.figure import Figure
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.join import closed, opened, stitched
from gentle_hem.core.parts import Opening, OpeningPlace
from gentle_hem.core.pattern import Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Seam, Stretch
from gentle_hem.core.what import Half, Layer, Section, Sign, What
from gentle_hem.core.workroom import Dressed

BALANCED = frozenset({Role.SIDE, Role.PRINCESS, Role.PANEL})
"""Seams that get balance notches."""

LEAST_SEAM = 120.0
"""A shorter seam needs none (mm)."""

APART = 40.0
"""No notch lies nearer to another, to a dart or to the end of its seam (mm)."""


BESIDE_ZIP = 10.0
"""A balance notch lies no nearer to the end of a zip, which is marked in another way (mm)."""

SAME = 0.5
"""Two notches so near are one (mm)."""


def balanced(dress: Dressed) -> Dressed:
    """The garment with balance notches on its side, princess and panel seams, and the zip's end on a gown."""
    waists = dress.waists
    pieces = {what: _told_apart(piece) for what, piece in dress.pieces.items()}
    for seam in dress.seams:
        _on_seam(pieces, seam, dress.figure, waists)
        _quartered(pieces, seam)
    for what in [what for what in pieces if what.section is Section.GOWN and what.half]:
        pieces[what] = _zip_end(pieces[what], dress.opening, waists)
    return replace(dress, pieces=pieces)


def _told_apart(piece: Piece) -> Piece:
    """Single notches in front, double behind."""
    if piece.what.half is None:
        return piece
    double = piece.what.half is Half.BACK
    if all(n.double is double for n in piece.notches if n.kind is NotchKind.BALANCE):
        return piece
    notches = (replace(n, double=double) if n.kind is NotchKind.BALANCE else n for n in piece.notches)
    return replace(piece, notches=tuple(notches))


def _on_seam(pieces: dict[What, Piece], seam: Seam, figure: Figure, waists: Mapping[Half, float]) -> None:
    """Put the notches of one seam on both its edges."""
    if len(seam.a.stretches) != 1 or len(seam.b.stretches) != 1 or seam.is_of_itself or seam.manner is not Manner.FLAT:
        return
    one, other = seam.a.stretches[0], seam.b.stretches[0]
    if not all(s.is_whole and s.piece.layer is Layer.OUTER and s.piece in pieces for s in (one, other)):
        return
    piece, mate = pieces[one.piece], pieces[other.piece]
    if piece.at_edge(one.edge) is None or mate.at_edge(other.edge) is None:
        return
    if piece.edge(one.edge).role not in BALANCED or piece.stitched_length(one.edge) < LEAST_SEAM:
        return
    taken = _taken(piece, one.edge), _taken(mate, other.edge)
    notched = _notched(piece, one.edge), _notched(mate, other.edge)
    marks: tuple[list[float], list[float]] = ([], [])
    for at in _places(piece, one, figure, waists):
        there = _along(piece, one, at), _along(mate, other, at)
        # one of several alike is notched for its other mate already, at the same place
        has = [any(abs(place - at) < SAME for at in found) for place, found in zip(there, notched, strict=True)]
        free = [all(abs(place - near) >= by for near, by in side) for place, side in zip(there, taken, strict=True)]
        if all(known or room for known, room in zip(has, free, strict=True)):
            for place, known, side, found in zip(there, has, taken, marks, strict=True):
                if not known:
                    side.append((place, APART))
                    found.append(place)
    pieces[one.piece] = _marked(piece, one.edge, marks[0])
    pieces[other.piece] = _marked(pieces[other.piece], other.edge, marks[1])  # both edges of one cut several times


def _places(piece: Piece, stretch: Stretch, figure: Figure, waists: Mapping[Half, float]) -> list[float]:
    """How far along a seam its notches lie, in its direction, darts closed (mm)."""
    long = piece.stitched_length(stretch.edge)
    section, half = piece.what.section, piece.what.half
    if section is not Section.GOWN and not section.is_lower:
        return [long / 2]
    down, knee = figure.get("waist_to_hip"), figure.get("waist_to_knee")
    if section is Section.GOWN and half and half in waists:
        depths = [0.0, *([down / 2, down] if down else []), *([knee] if knee else [])]
        met = [_level(piece, stretch, waists[half] - depth) for depth in depths]
        return [at for at in met if at is not None]
    from_top = [depth for depth in (down, knee) if depth and depth < long - APART]
    ends_at_top = piece.begins_at_hem(stretch.edge) != stretch.backwards
    return [long - depth if ends_at_top else depth for depth in from_top]


def _level(piece: Piece, stretch: Stretch, level: float) -> float | None:
    """How far along a seam it crosses a level; None where it does not."""
    path = piece.edge(stretch.edge).path
    left, _, right, _ = path.hull
    met = path.crossings(Path.of(Line(Point(left - 1, level), Point(right + 1, level))))
    if not met:
        return None
    at = closed(met[0][0], piece.darts_of(stretch.edge))
    return piece.stitched_length(stretch.edge) - at if stretch.backwards else at


def _along(piece: Piece, stretch: Stretch, at: float) -> float:
    """A length along a seam as a length along the edge's path, dart mouths and all."""
    at = piece.stitched_length(stretch.edge) - at if stretch.backwards else at
    return opened(at, piece.darts_of(stretch.edge))


def _taken(piece: Piece, edge: str) -> list[tuple[float, float]]:
    """The places of an edge at which something is marked: notches, darts and its ends (mm along its path), and how far
    from each the next may lie.
    """
    ends = [0.0, piece.edge(edge).drawn_length]
    darts = [place for dart in piece.darts_of(edge) for place in (dart.at, dart.at + dart.intake)]
    notches = [(n.at, BESIDE_ZIP if n.kind is NotchKind.ZIP_END else APART) for n in piece.notches if n.edge == edge]
    return [*((at, APART) for at in (*ends, *darts)), *notches]


def _notched(piece: Piece, edge: str) -> list[float]:
    """The places of an edge's balance notches."""
    return [n.at for n in piece.notches if n.edge == edge and n.kind is NotchKind.BALANCE]


def _marked(piece: Piece, edge: str, places: Iterable[float]) -> Piece:
    double = piece.what.half is Half.BACK
    return replace(piece, notches=(*piece.notches, *(Notch(edge, at, double=double) for at in places)))


QUARTERS: tuple[float, ...] = (1 / 4, 1 / 2, 3 / 4)
EIGHTHS: tuple[float, ...] = tuple(k / 8 for k in range(1, 8))

QUARTERS_APART = 8.0
"""A quarter mark so near to another notch or a dart says nothing more than that (mm)."""


def _quartered(pieces: dict[What, Piece], seam: Seam) -> None:
    """Put quarter marks on both edges of a seam that is gathered or drawn in: of each stretch where both sides have the
    same stretches, of the whole half otherwise.
    """
    drawn_in = any(what.section is Section.CASING for what in (*seam.a.pieces, *seam.b.pieces))
    if not drawn_in and (seam.manner is not Manner.GATHERED or seam.fullness <= 1):
        return
    sides: list[tuple[Stretch, ...]] = []
    for run in (seam.a, seam.b):
        if any(s.piece not in pieces or pieces[s.piece].at_edge(s.edge) is None for s in run.stretches):
            return
        if any(pieces[s.piece].edge(s.edge).role is Role.CAP for s in run.stretches):
            return  # a puffed sleeve is gathered in its head, between its own marks
        sides.append(run.stretches)
    a, b = sides
    pairs = [((s,), (t,)) for s, t in zip(a, b, strict=True)] if len(a) == len(b) else [(a, b)]
    shares = QUARTERS if len(a) == len(b) else EIGHTHS
    for one, other in pairs:
        laid = [(run, [stitched([stretch], pieces) for stretch in run]) for run in (one, other)]
        for share in shares:
            places = [_at_share(run, lengths, share, pieces) for run, lengths in laid]
            taken = ((at, near) for what, edge, at in places for near, _ in _taken(pieces[what], edge))
            if all(abs(at - near) >= QUARTERS_APART for at, near in taken):
                for what, edge, at in dict.fromkeys(places):
                    mark = Notch(edge, at, double=what.half is Half.BACK, kind=NotchKind.QUARTER)
                    pieces[what] = replace(pieces[what], notches=(*pieces[what].notches, mark))


def _at_share(
    run: Sequence[Stretch], lengths: Sequence[float], share: float, pieces: Mapping[What, Piece]
) -> tuple[What, str, float]:
    """The place at a share of some stretches of such stitched lengths: the piece, its edge, how far along its path."""
    rest, k = share * sum(lengths), 0
    while k < len(run) - 1 and rest > lengths[k]:
        rest -= lengths[k]
        k += 1
    stretch = run[k]
    piece = pieces[stretch.piece]
    darts = piece.darts_of(stretch.edge)
    if stretch.backwards:
        rest = closed(piece.edge(stretch.edge).drawn_length if stretch.end is None else stretch.end, darts) - rest
    else:
        rest = closed(stretch.start, darts) + rest
    return stretch.piece, stretch.edge, opened(rest, darts)


ZIPPED = {
    OpeningPlace.CENTRE_BACK: Role.CENTRE_BACK, OpeningPlace.CENTRE_FRONT: Role.CENTRE_FRONT,
    OpeningPlace.SIDE: Role.SIDE,
}  # fmt: skip
"""The edges a zip lies on."""


def _zip_end(piece: Piece, opening: Opening, waists: Mapping[Half, float]) -> Piece:
    """A gown's back or front with the end of its zip marked down the centre or the side."""
    role, half = ZIPPED.get(opening.place), piece.what.half
    if role is None or half is None or half not in waists:
        return piece
    for edge in piece.edges:
        if edge.role is not role or not (edge.turned or role is Role.SIDE):
            continue
        if any(n.edge == edge.name and n.kind is NotchKind.ZIP_END for n in piece.notches):
            continue
        at = _level(piece, Stretch(piece.what, edge.name), waists[half] - opening.below_waist)
        if at is not None:
            end = Notch(edge.name, opened(at, piece.darts_of(edge.name)), Sign("zip end"), kind=NotchKind.ZIP_END)
            piece = replace(piece, notches=(*piece.notches, end))
    return piece
