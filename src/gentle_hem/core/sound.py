"""Whether every piece can be drawn and cut out: the last look before a garment leaves the table.

outline crosses itself          stop: the lines it is drawn from do not go together
allowance wider than the curve  stop: it is drawn with the widest that goes, and both are said
"""

from __future__ import annotations

from collections.abc import Iterable
from itertools import chain

import numpy as np
from shapely import is_valid, polygons

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import Finding, Place, in_recipe, stop
from gentle_hem.core.geometry import Path
from gentle_hem.core.geometry.parallel import parallel
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Layer

HALVINGS = 8
"""How often the widest allowance is sought by halving: to within a 256th of what was asked."""


LARGEST = 100_000.0
"""A piece of more than 100 m is no piece of a dress (mm): its numbers are another unit's, or run into each other."""


def too_large(piece: Piece) -> Finding | None:
    """The finding for a piece that no cloth is long enough for, and that is left off; None for any other."""
    left, bottom, right, top = piece.seam_line.hull
    if max(right - left, top - bottom) <= LARGEST:
        return None
    left, bottom, right, top = piece.seam_line.box
    long = max(right - left, top - bottom)
    if long <= LARGEST:
        return None
    return stop(
        "piece-too-large",
        "The {piece} would be {long} long, and a piece is {most} at most; it is left off. Look at the numbers it is "
        "drawn from.",
        Place(piece=piece.name),
        *in_recipe("lower", "trims"),
        piece=piece.name, long=long, most=LARGEST,
    )  # fmt: skip


def sound(pieces: Iterable[Piece]) -> tuple[list[Piece], list[Finding]]:
    """The pieces with every allowance their curves can take, and what could not be done."""
    looked: list[Piece] = []
    findings: list[Finding] = []
    for piece in pieces:
        made = piece
        if not _can_be_cut(piece):
            edges = tuple(replace(edge, allowance=_widest(edge)) for edge in piece.edges)
            findings += [
                _too_wide(piece, edge, drawn.allowance)
                for edge, drawn in zip(piece.edges, edges, strict=True)
                if drawn.allowance != edge.allowance
            ]
            made = replace(piece, edges=edges)
        looked.append(made)
        if piece.what.layer is Layer.LINING:
            continue  # its outline is the outer piece's
        if made.fold_bends > FOLD_BENDS:
            findings.append(
                stop(
                    "fold-not-straight",
                    "The centre of the {piece} lies on the fold of the cloth and is {off} from straight there: it "
                    "cannot be cut so. Put a seam down it.",
                    Place(piece=piece.name), piece=piece.name, off=made.fold_bends,
                )
            )  # fmt: skip
        if _crosses_itself(made.seam_line):
            findings.append(
                stop(
                    "outline-crosses-itself",
                    "The outline of the {piece} crosses itself; the measures or style lines it is drawn from do not go "
                    "together.",
                    Place(piece=piece.name),
                    piece=piece.name,
                )
            )
        elif _crosses_itself(made.cut_line):
            findings.append(
                stop(
                    "cut-line-crosses-itself",
                    "The cut line of the {piece} crosses itself: an edge is too short or too hollow for the allowances "
                    "beside it. Make them narrower.",
                    Place(piece=piece.name),
                    *in_recipe("allowances"),
                    piece=piece.name,
                )
            )
    return looked, findings


FOLD_BENDS = 0.5
"""A fold that is further from straight is seen when it is cut (mm)."""


def _crosses_itself(outline: Path) -> bool:
    points = outline.flatten(0.3)
    places = np.fromiter(chain.from_iterable(points), float, 2 * len(points)).reshape(-1, 2)
    return not is_valid(polygons(places))


def _can_be_cut(piece: Piece) -> bool:
    try:
        piece.cut_line  # noqa: B018  (it is worked out once and kept)
    except CannotMake:
        return False
    return True


def _goes(edge: Edge, allowance: float) -> bool:
    try:
        parallel(edge.path, -allowance)
    except CannotMake:
        return False
    return True


def _widest(edge: Edge) -> float:
    """The widest allowance up to its own that an edge's curve leaves room for, mm."""
    if edge.allowance == 0 or _goes(edge, edge.allowance):
        return edge.allowance
    least, most = 0.0, edge.allowance
    for _ in range(HALVINGS):
        middle = (least + most) / 2
        least, most = (middle, most) if _goes(edge, middle) else (least, middle)
    return least


def _too_wide(piece: Piece, edge: Edge, widest: float) -> Finding:
    return stop(
        "allowance-too-wide",
        "An allowance of {asked} leaves nothing of the {edge} of the {piece}, which turns too tightly for it; it is "
        "drawn with {widest}. Ask for no more than that, or make the curve wider.",
        Place(piece=piece.name, edge=edge.name),
        asked=edge.allowance, widest=widest, edge=edge.name, piece=piece.name,
    )  # fmt: skip
