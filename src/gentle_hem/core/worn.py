"""What a made dress measures, to be held against the body that wears it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from gentle_hem.core.estimates import Measures
from gentle_hem.core.geometry import Line, Point
from gentle_hem.core.parts import BodiceMade
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.what import Half, Panel, Section, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed

LEVEL_WAIST = 15.0
"""A waist edge that rises by more than this is a flare's (mm)."""


@dataclass(frozen=True, slots=True)
class Worn:
    """What the checks need of a garment. Lengths in mm, halves doubled."""

    waist: float
    neck: float | None
    hem: float
    opened: float
    below_waist: float
    trousers_crotch: float | None
    front_length: float | None
    back_length: float | None
    bust: float | None = None
    hip: float | None = None


def worn(dress: Dressed, block: BodiceMade, waist: float) -> Worn:
    """The made dress measured: ``block`` is its bodice as drafted, ``waist`` the whole waist seam of it (mm)."""
    upper = dress.outer_upper()
    neck = sum(
        piece.stitched_length(edge.name)
        for piece in upper
        for edge in piece.edges
        if edge.role is Role.NECKLINE and edge.name == "neckline"
    )
    opened = dress.neck_opened + sum(
        2 * piece.edge("edge").drawn_length for what, piece in dress.pieces.items() if what.panel is Panel.LACING
    )
    edges = [edge for piece in upper for edge in piece.edges]
    # where a shoulder is bare the head goes through with the arm
    held = any(edge.role is Role.SHOULDER for edge in edges) and all(edge.name != "top edge" for edge in edges)
    front, back = (length_of(half, dress.pieces.values()) for half in Half)
    return Worn(
        waist=waist, neck=2 * neck + opened if neck and held else None, hem=2 * dress.half_hem,
        opened=dress.opened, below_waist=dress.length, trousers_crotch=_crotch(dress.pieces.values()),
        front_length=front, back_length=back, bust=_bust(block), hip=_hip(dress, block),
    )  # fmt: skip


def across_waist(dress: Dressed) -> float | None:
    """Round a tent at the level of the waist, where it hangs free; None where it does not reach it."""
    pieces = [(piece, dress.waists.get(piece.what.half)) for piece in dress.outer_upper() if piece.what.half]
    widths = [_across(piece, level) for piece, level in pieces if level is not None]
    return 2 * sum(width for width in widths if width) if widths and all(widths) else None


def _bust(block: BodiceMade) -> float | None:
    """Round the drafted block at its bust level; None where it has no bust point."""
    level = next((piece.bust_point.y for piece in block.pieces if piece.bust_point is not None), None)
    if level is None:
        return None
    widths = [_across(piece, level) for piece in block.pieces]
    return 2 * sum(width for width in widths if width is not None)


def _hip(dress: Dressed, block: BodiceMade) -> float | None:
    """Round the lower part or gown at the hip; None for a flare, whose hip is checked by its sweep, or a short one."""
    drop = Measures(dress.figure, Workings()).take("waist_to_hip")
    if dress.above is None:
        return None
    if dress.cut_in_one:
        waist = max(piece.edge("waist").path.box[3] for piece in block.pieces)
        widths = [_across(dress.pieces[what], waist - drop) for what in dress.above.run.pieces]
    else:
        tops = [(dress.pieces[s.piece], dress.pieces[s.piece].edge(s.edge).path.box) for s in dress.lower.stretches]
        if any(box[3] - box[1] > LEVEL_WAIST for _, box in tops):
            return None
        level = max(box[3] for _, box in tops) - (drop - dress.above.level)
        widths = [_across(piece, box[3] - (drop - dress.above.level)) for piece, box in tops]
        # a part that is cut across has pieces at the hip that do not reach the waist
        known = {piece.what for piece, _ in tops}
        below = [p for what, p in dress.pieces.items() if what not in known and _belongs(what, known)]
        more = [width for piece in below if (width := _across(piece, level)) is not None]
        if more:
            return 2 * (sum(width for width in widths if width is not None) + sum(more))
    if not widths or any(width is None for width in widths):
        return None
    return 2 * sum(width for width in widths if width is not None)


def _belongs(what: What, others: Iterable[What]) -> bool:
    """Whether a piece is another panel of the same half of a part."""
    return any(what.section is o.section and what.half is o.half and what.layer is o.layer for o in others)


def _across(piece: Piece, level: float) -> float | None:
    """How far a piece reaches across at a level, mm; None where it does not reach it."""
    met = piece.seam_line.met_along(Line(Point(-9000, level), Point(9000, level)))
    return met[-1] - met[0] if len(met) > 1 else None


def length_of(half: Half, pieces: Iterable[Piece]) -> float | None:
    """Shoulder at the neck to the lowest of the waist edge, down a drafted half whatever it is cut into, mm.

    None where it cannot be told: there is no shoulder, or no waist.
    """
    edges = [edge for piece in pieces if piece.what.is_outer_upper(half) for edge in piece.edges]
    shoulders = [e.path for e in edges if e.role is Role.SHOULDER]
    waists = [e.path for e in edges if e.role is Role.WAIST]
    if not shoulders or not waists:
        return None
    high = max(y for path in shoulders for y in (path.start.y, path.end.y))
    return high - min(y for path in waists for y in (path.start.y, path.end.y))


def _crotch(pieces: Iterable[Piece]) -> float | None:
    """Length of the crotch seam, front and back, of trousers; None for anything else."""
    lengths = [
        edge.drawn_length
        for piece in pieces
        if piece.what.is_outer(Section.TROUSERS)
        for edge in piece.edges
        if edge.role.is_centre
    ]
    return sum(lengths) if lengths else None
