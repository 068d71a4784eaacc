"""How much cloth a dress takes, and how its pieces lie on it."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel

from gentle_hem.api.kept import Asked
from gentle_hem.api.make import RecipeBody
from gentle_hem.core.cloth.lay import Lay, Placed, lays, to_buy
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length

DRAWN_TO = 1.0
"""How far an outline may be drawn beside itself on the screen (mm)."""

laying = APIRouter(prefix="/api", tags=["cloth"])


class PlacedOut(BaseModel):
    """One thing on the cloth: its outline (mm, x along the cloth from the cut end, y from the selvedge), and where it
    begins in words.
    """

    number: int
    name: str
    d: str
    along: float
    across: float
    """Where its number stands, well within it."""
    from_selvedge: str
    from_cut_end: str
    turned: bool


class JoinedOut(BaseModel):
    """A strip that is cut in several widths of the cloth and joined."""

    name: str
    across: str
    widths: int


class TooWideOut(BaseModel):
    name: str
    across: str


class LayOut(BaseModel):
    """One cloth laid, opened flat."""

    cloth: str
    width: float
    width_text: str
    said: bool
    """Whether its width is said, or the usual one was taken."""
    one_way: bool
    length: float
    buy: str
    use: str
    placed: list[PlacedOut]
    joined: list[JoinedOut]
    too_wide: list[TooWideOut]


def _out(lay: Lay, recipe: Recipe, unit: Tape) -> LayOut:
    cloth = recipe.cloths.cloth(lay.role)
    return LayOut(
        cloth=lay.role.value, width=lay.width, width_text=format_length(lay.width, unit), said=cloth.width is not None,
        one_way=cloth.nap == "one_way", length=lay.length, buy=to_buy(lay.length, unit.unit),
        use=f"{round(100 * lay.use)} %",
        placed=[_placed(one, unit) for one in lay.placed],
        joined=[
            JoinedOut(name=one.name, across=format_length(one.across, unit), widths=one.widths) for one in lay.joined
        ],
        too_wide=[TooWideOut(name=one.name, across=format_length(one.across, unit)) for one in lay.too_wide],
    )  # fmt: skip


def _placed(one: Placed, unit: Tape) -> PlacedOut:
    outline = one.outline.simplify(DRAWN_TO)
    places = [f"{y:.1f} {x:.1f}" for x, y in outline.exterior.coords]
    heart = outline.representative_point()
    return PlacedOut(
        number=one.number, name=one.name, d="M" + "L".join(places) + "Z", along=heart.y, across=heart.x,
        from_selvedge=format_length(one.from_selvedge, unit), from_cut_end=format_length(one.from_cut_end, unit),
        turned=one.turned,
    )  # fmt: skip


@laying.post("/lays")
def lay_out(recipe: RecipeBody, asked: Asked) -> list[LayOut]:
    """Every cloth of a recipe with its pieces laid on it, opened flat, along the grain."""
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    unit = asked.tape(read.unit)
    return [_out(lay, read, unit) for lay in lays(make_up(read), read.cloths.cloth)]
