"""A seam down the middle of a piece that lay on the fold there: it is cut as a left and a right."""

from __future__ import annotations

from gentle_hem.core.pattern import Notch, Piece
from gentle_hem.core.replace import replace


def seamed_at_centre(piece: Piece, allowance: float, *, turned: bool = False, marks: tuple[Notch, ...] = ()) -> Piece:
    """A piece cut twice as often, with ``allowance`` mm at its centre instead of the fold, ``turned`` for a zip; as it
    is where its centre is not on the fold.
    """
    centre = piece.fold
    if centre is None:
        return piece
    made = piece.with_edge(centre.name, allowance=allowance, turned=turned)
    return replace(made, on_fold=False, cut=2 * piece.cut, notches=(*piece.notches, *marks))
