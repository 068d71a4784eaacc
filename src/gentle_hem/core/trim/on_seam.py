"""Where something is sewn into a seam or onto an edge: the piece that has it, and a place along it."""

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.steps.base import EdgeName, Part, along, edge_of, seen_from_centre
from gentle_hem.core.what import Half, Layer
from gentle_hem.core.workroom import Dressed


def edge_on(dress: Dressed, part: Part, half: Half, name: EdgeName) -> tuple[Piece, Edge]:
    """The outer piece of a half nearest the centre that has an edge of this name, and the edge. Raises CannotMake where
    there is none, or none but the fold.
    """
    there = [
        (piece, edge)
        for piece in dress.pieces.values()
        if piece.what.layer is Layer.OUTER and piece.what.half is half and not piece.what.other
        and (piece.what.section.is_upper if part == "bodice" else piece.what.section.is_lower)
        and (edge := edge_of(piece, name)) is not None and edge is not piece.fold
    ]  # fmt: skip
    if not there:
        raise CannotMake(f"the {half} has no seam at its {name} there")
    return min(there, key=lambda one: min(abs(place.x) for place in one[1].path.flatten(5.0)))


def at_share(piece: Piece, edge: Edge, name: EdgeName, share: float) -> float:
    """How far along an edge's path a share of its way lies (mm): from the top of an upright one, else from the centre
    or the neck.
    """
    flat = seen_from_centre(piece).edge(edge.name)
    at = along(flat, name, share)
    return edge.drawn_length - at if piece.what.half is Half.BACK else at  # a back lies turned over
