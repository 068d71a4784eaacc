"""The drawn dress: the finished garment on this figure, seen from in front, from the side and from behind.

pieces ──► surfaces: level slices whose perimeter is the girth measured on the pieces there
figure ──► form                 └──► seen from three places: outlines, folds, seams, hems
"""

from gentle_hem.core.dressed.drawing import Drawing
from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.inks import DrawnDress
from gentle_hem.core.dressed.views import Seen
from gentle_hem.core.garment import Garment
from gentle_hem.core.recipe import Recipe

__all__ = ["DrawnDress", "Seen", "drawn_dress"]


def drawn_dress(recipe: Recipe, garment: Garment) -> DrawnDress:
    """What a recipe makes, on its figure, from three places. Pure."""
    dressing = Dressing(recipe, garment)
    levels = tuple(dressing.levels())
    return DrawnDress(
        {seen: tuple(Drawing(dressing, seen).inks()) for seen in Seen}, levels, dressing.form.top, dressing.form.waist,
        next((level.height for level in levels if level.name == "hem"), None),
    )  # fmt: skip
