"""The upper half of a garment: the block, and what the steps make of it."""

from __future__ import annotations

from functools import partial

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.carry import Below
from gentle_hem.core.estimates import USUAL_BUST, from_size
from gentle_hem.core.figure import Figure, WatchedFigure
from gentle_hem.core.findings import in_recipe, stop
from gentle_hem.core.kept_stages import once
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.parts import BodiceMade
from gentle_hem.core.pattern import Piece
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.steps.waist_level import below_moved_waist
from gentle_hem.core.style.style import style_bodice
from gentle_hem.core.what import Section
from gentle_hem.core.workings import Workings


def cut_in_one_with(gown: Gown | None, block: BodiceMade) -> bool:
    return gown is not None and any(piece.bust_point is not None for piece in block.pieces)


def upper_part(recipe: Recipe, figure: WatchedFigure, notes: Workings) -> tuple[BodiceMade, BodiceMade]:
    """The block, and the bodice: what the steps make of it. Both alike where there is no block yet."""
    gown = recipe.lower if isinstance(recipe.lower, Gown) else None
    given = (recipe.bodice, recipe.opening, recipe.allowances)
    block = once("block", given, figure, notes, lambda margin: _drafted(recipe, margin))
    if block.edge is None:
        return block, block
    if cut_in_one_with(gown, block):
        block = block.in_section(Section.GOWN)
    steps = tuple(one for one in enumerate(recipe.steps) if gown or "bodice" in one[1].parts)
    bodice = once(
        "bodice", (*given, gown, steps), figure, notes,
        lambda margin: style_bodice(
            block, recipe.figure, recipe.allowances, margin,
            partial(_carried, gown, recipe.figure) if gown else None, recipe.steps,
        ),
    )  # fmt: skip
    return block, bodice


def _carried(gown: Gown, figure: Figure, piece: Piece, lowered: float) -> Below:
    """How a half of a gown goes on below a waist that lies so much lower than her own: its hem stays where it was."""
    below = gown.model_copy(update={"length": gown.length - lowered}) if lowered else gown
    return below.below(piece, below_moved_waist(figure, lowered), Workings())


def _drafted(recipe: Recipe, notes: Workings) -> BodiceMade:
    """The block. Measures no outline can be drawn from give the nearest size's block, and a stop that says so."""
    try:
        return recipe.bodice.make_up(recipe.figure, recipe.opening, recipe.allowances, notes)
    except CannotMake:
        size = from_size(recipe.figure.get("bust_girth") or USUAL_BUST)
        block = recipe.bodice.make_up(Figure(measures=size), recipe.opening, recipe.allowances, Workings())
        return block.also(
            [
                stop(
                    "measures-do-not-draft",
                    "No bodice can be drawn from these measures by this school; until they are measured again the "
                    "block of bust {bust} is drawn.",
                    *in_recipe("figure", "bodice"),
                    bust=size["bust_girth"],
                )
            ]
        )
