"""The drawn dress: the finished garment on this figure, seen from in front, from the side and from behind.

pieces ──► surfaces: level slices whose perimeter is the girth measured on the pieces there
figure ──► form                 └──► seen from three places: outlines, folds, seams, hems
"""

from collections.abc import Iterable, Iterator

from gentle_hem.core.dressed.drawing import Drawing
from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.inks import Drawn, DrawnDress, Ink
from gentle_hem.core.dressed.views import Seen
from gentle_hem.core.garment import Garment
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace

__all__ = ["DrawnDress", "Seen", "drawn_dress"]


def drawn_dress(recipe: Recipe, garment: Garment) -> DrawnDress:
    """What a recipe makes, on its figure, from three places. Pure."""
    dressing = Dressing(recipe, garment.seamed or garment)
    levels = tuple(dressing.levels())
    views = {seen: tuple(_as_joined(Drawing(dressing, seen).inks(), garment)) for seen in Seen}
    return DrawnDress(
        views, levels, dressing.form.top, dressing.form.waist,
        next((level.height for level in levels if level.name == "hem"), None),
        {
            piece.name: colour for piece in dressing.garment.pieces
            if (colour := recipe.cloths.cloth(piece.cloth).colour) is not None
        },
    )  # fmt: skip


def _as_joined(inks: Iterable[Ink], garment: Garment) -> Iterator[Ink]:
    """The lines of a garment some of whose pieces are cut in one: each stands for what it is in now, and what is sewn
    no more is not drawn.
    """
    for ink in inks:
        place = ink.piece, ink.edge
        now = garment.became.get(place, place)
        if now is not None:
            yield ink if now == place else replace(ink, piece=now[0], edge=now[1])
        elif ink.drawn not in (Drawn.SEAM, Drawn.ZIP):
            yield ink
