"""A bodice carried on down below its waist, front and back: their sides made equally long, the waist notched alike."""

from __future__ import annotations

from collections.abc import Callable

from gentle_hem.core.cutting.carry import Below, carried_down, trued_at_side
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.pattern import Notch, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.what import Half

SAID_FROM = 3.0
"""What is trued by less than this is not worth saying (mm)."""


def carry_down(table: Styling, carry: Callable[[Piece], Below]) -> None:
    """Both halves carried on down as ``carry`` says, their side seams walking. Raises CannotMake."""
    halves = (table.front, table.back)
    for what in halves:
        table.redraw(what, lambda p: carried_down(p, carry(p)))
    front, back = (table.pieces[what].stitched_length("side") for what in halves)
    longer = table.front if front > back else table.back
    over = abs(front - back)
    table.redraw(longer, lambda p: trued_at_side(p, over))
    _notched_alike(table)
    if over > SAID_FROM:
        table.findings.append(
            note(
                "sides-trued",
                "The side of the {piece} is longer by {over} from its own shape; it is made as much shorter at its "
                "lower end, so that the side seams walk.",
                *in_recipe("lower.hip_shift"), piece=longer.name, over=over,
            )
        )  # fmt: skip


def _notched_alike(table: Styling) -> None:
    """The waist notched at one distance from the underarm on both sides, where the blocks' own sides differ."""
    found = {}
    for what in (table.front, table.back):
        piece, half = table.pieces[what], what.half
        piece = mirrored(piece) if half is Half.BACK else piece
        path = piece.edge("side").path
        notches = [n for n in piece.notches if n.edge == "side"]
        if not notches or half is None or half not in table.waists:
            return
        level = table.waists[half]
        notch = min(notches, key=lambda n: abs(path.point_at(n.at).y - level))
        found[what] = notch, path.length - notch.at
    down = [from_top for _, from_top in found.values()]
    if 0 < abs(down[0] - down[1]) <= SAID_FROM:
        both = sum(down) / 2
        for what, (notch, _) in found.items():
            table.redraw(what, lambda p, n=notch: _notched_from_top(p, n, both))  # type: ignore[misc]


def _notched_from_top(piece: Piece, notch: Notch, down: float) -> Piece:
    at = piece.edge(notch.edge).drawn_length - down
    return replace(piece, notches=tuple(replace(n, at=at) if n is notch else n for n in piece.notches))
