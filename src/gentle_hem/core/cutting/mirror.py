"""A piece turned over about its centre line, as a back lies beside its front.

CF │ front ╲      ╱ back │ CB          the centre at x = 0 on either; edges run anticlockwise again
"""

from __future__ import annotations

from gentle_hem.core.geometry import Placement, Point
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace

MIRROR = Placement.mirror(Point(0, 0), Point(0, 1))


def mirrored(piece: Piece) -> Piece:
    """The piece turned over about its centre line, its edges running anticlockwise again.

    Turned over once more it is the piece it was, and not drawn a second time.
    """
    was = piece.__dict__.get(WAS)
    if isinstance(was, Piece):
        return was
    made = _turned_over(piece)
    made.__dict__[WAS] = piece
    return made


WAS = "was"
"""Where a piece that was turned over keeps what it was before."""


def _turned_over(piece: Piece) -> Piece:
    lengths = {edge.name: edge.drawn_length for edge in piece.edges}
    edges = tuple(replace(edge, path=edge.path.placed(MIRROR).reversed()) for edge in reversed(piece.edges))
    darts = tuple(
        replace(
            dart, at=lengths[dart.edge] - dart.at - dart.intake, apex=MIRROR.place(dart.apex),
            bends=(tuple(map(MIRROR.place, dart.bends[1])), tuple(map(MIRROR.place, dart.bends[0]))),
        )
        for dart in piece.darts
    )  # fmt: skip
    notches = tuple(replace(notch, at=lengths[notch.edge] - notch.at) for notch in piece.notches)
    start, end = piece.grain
    return replace(
        piece, edges=edges, darts=darts, notches=notches, grain=(MIRROR.place(start), MIRROR.place(end)),
        marks=tuple(mark.placed(MIRROR) for mark in piece.marks),
        bust_point=piece.bust_point and MIRROR.place(piece.bust_point),
    )  # fmt: skip
