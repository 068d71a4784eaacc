"""A piece on the fold opened out into a whole.

half:  fold ┃  ╲           whole:  ╱  ┆  ╲      its edges once more, mirrored over the fold, each called "other"
            ┃   │                 │   ┆   │
            ┃__╱                   ╲__┆__╱
"""

from __future__ import annotations

from gentle_hem.core.geometry import Placement
from gentle_hem.core.pattern import Dart, Mark, MarkKind, Notch, Piece
from gentle_hem.core.replace import replace

OTHER = " other"


def is_other(edge: str) -> bool:
    """Whether an edge is on the other side of a piece that was opened out."""
    return edge.endswith(OTHER)


def opened_out(piece: Piece) -> Piece:
    """A piece on the fold as a whole, the fold a centre line in it; any other piece as it is."""
    if piece.fold is None:
        return piece
    at, fold = piece.edges.index(piece.fold), piece.fold.path
    over = Placement.mirror(fold.start, fold.end)
    mine = (*piece.edges[at + 1 :], *piece.edges[:at])
    theirs = tuple(
        replace(edge, name=edge.name + OTHER, path=edge.path.placed(over).reversed()) for edge in reversed(mine)
    )
    lengths = {edge.name: edge.drawn_length for edge in mine}
    return replace(
        piece, edges=(*mine, *theirs), on_fold=False, grain=(fold.start, fold.end),
        darts=(*piece.darts, *(_dart_over(dart, over, lengths) for dart in piece.darts if dart.edge in lengths)),
        notches=(*piece.notches, *(_notch_over(notch, lengths) for notch in piece.notches if notch.edge in lengths)),
        marks=(*piece.marks, *(mark.placed(over) for mark in piece.marks), Mark(MarkKind.CENTRE, fold)),
    )  # fmt: skip


def _dart_over(dart: Dart, over: Placement, lengths: dict[str, float]) -> Dart:
    return replace(
        dart, edge=dart.edge + OTHER, at=lengths[dart.edge] - dart.at - dart.intake, apex=over.place(dart.apex),
        bends=(tuple(map(over.place, dart.bends[1])), tuple(map(over.place, dart.bends[0]))),
    )  # fmt: skip


def _notch_over(notch: Notch, lengths: dict[str, float]) -> Notch:
    return replace(notch, edge=notch.edge + OTHER, at=lengths[notch.edge] - notch.at)
