"""A bodice styled: the steps done to its block, in the order they stand; where the garment is cut in one, carried on
down between those done to the block and those done to the whole.

block ─► steps on the block ─► carried down ─► steps on the gown ─► straps sewn on ─► trued
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.carry import Below, pointed_at_both_ends
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.drafting import Step
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, in_recipe, note
from gentle_hem.core.parts import Allowances, BodiceMade
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.steps.base import PatternStep, not_taken, take
from gentle_hem.core.style.down import carry_down
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.style.tops import sew_straps
from gentle_hem.core.what import Half
from gentle_hem.core.workings import Workings


def style_bodice(
    bodice: BodiceMade,
    figure: Figure,
    allowances: Allowances,
    notes: Workings,
    carry: Callable[[Piece, float], Below] | None = None,
    steps: Sequence[PatternStep] = (),
) -> BodiceMade:
    """The bodice with the steps done to it. ``carry`` says how each half goes on below a waist so much lower than her
    own when the garment is cut in one; then the steps for the lower part are done to it too.

    A bodice that is only measured edges has nothing to style, and says so.
    """
    if carry is None and not any("bodice" in step.parts and not step.off for step in steps):
        return _trued_block(bodice)
    if all(piece.bust_point is None for piece in bodice.pieces):
        return bodice.also(_nothing_to_style(steps))
    section = bodice.pieces[0].what.section
    table = Styling.of(bodice, allowances, section, figure, notes.about("bodice"), carries=carry is not None)
    if carry is None:
        take(steps, ("bodice",), table)
    else:
        take(steps, ("bodice",), table, lambda step: step.on_block)
        table.style(
            "part below the waist", "lower.length", lambda: carry_down(table, lambda piece: carry(piece, table.lowered))
        )
        take(steps, ("bodice", "lower"), table, lambda step: not step.on_block or step.part == "lower")
    sew_straps(table)
    for piece in list(table.pieces.values()):
        table.put(pointed_at_both_ends(piece))
    table.true()
    return table.made()


def _goes_on(table: Styling, carry: Callable[[Piece, float], Below], piece: Piece) -> Below:
    """How a half goes on below its waist, where the steps have put it."""
    return carry(piece, table.lowered)


def _nothing_to_style(steps: Sequence[PatternStep]) -> list[Finding]:
    """What is said of steps on a bodice that is only its measured edges: what styles it is left out, anything else is
    asked for and cannot be drawn.
    """
    found = not_taken(
        steps, ("bodice",), "steps need a drafted bodice, and this one is only its measured edges",
        lambda step: not step.styles,
    )  # fmt: skip
    if any(step.styles and not step.off for step in steps):
        found.append(
            note(
                "style-needs-a-draft", "Style lines need a drafted bodice; this one is only its measured edges.",
                *in_recipe("bodice", "steps"),
            )
        )  # fmt: skip
    return found


def _trued_block(bodice: BodiceMade) -> BodiceMade:
    """A block trued, with a last step of its draft that says so; one brought in is the maker's own, and stays."""
    if not bodice.draft:
        return bodice
    steps = []
    pieces = true.of_part(bodice.pieces, bodice.seams)
    for before, after in zip(bodice.pieces, pieces, strict=True):
        drawn = after if after.what.half is Half.FRONT else mirrored(after)
        anew = tuple(drawn.edge(e.name).path for e in before.edges if after.edge(e.name).path != e.path)
        if anew and before.what.half:
            steps.append(Step(before.what.half.value, TRUED, {}, anew))
    return replace(bodice, pieces=pieces, draft=(*bodice.draft, *steps))


TRUED = (
    "Fold the darts and draw the waist and the side once more, smooth over the folds and square where they meet the "
    "seams and the centre; each stays as long as it was."
)
