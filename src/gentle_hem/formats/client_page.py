"""The client's page: what is agreed, to be looked at together and taken home; nothing of how it is made.

the dress drawn, large · how long, how wide, how it closes, of which cloth · its days · what to bring · room to sign
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime

from reportlab.pdfgen.canvas import Canvas

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.dressed import DrawnDress
from gentle_hem.core.garment import Garment
from gentle_hem.core.making.hints import cautions_for_the_wearer
from gentle_hem.core.making.plan import plan_of
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length
from gentle_hem.formats.letters import FONT
from gentle_hem.formats.pages import Pages
from gentle_hem.formats.paper import paper_for
from gentle_hem.formats.written import spelt

DRESS_HIGH = 118.0

CLOSES = {
    OpeningPlace.CENTRE_BACK: "in the centre back",
    OpeningPlace.CENTRE_FRONT: "in the centre front",
    OpeningPlace.SIDE: "in the side seam",
}

BRING = (
    "To every fitting please bring the shoes, the underwear and whatever else is worn with it: they change how it "
    "hangs. Come in a top that is quickly taken off, and say what pinches."
)
"""Common practice."""


@dataclass(frozen=True, slots=True)
class Agreed:
    """What is agreed of a dress beside its pattern."""

    title: str
    person: str
    occasion: str
    due_on: date | None
    fitting_at: datetime | None
    on_day: date


def to_client_page(recipe: Recipe, garment: Garment, dress: DrawnDress | None, agreed: Agreed, unit: Tape) -> bytes:
    """One page for whoever will wear it."""
    under = [text for text in (f"for {agreed.person}", agreed.occasion) if text]
    if agreed.due_on:
        under.append(f"to be ready on {spelt(agreed.due_on)}")
    pages = Pages(agreed.title, under, paper_for(unit))
    if dress is None:
        pages.say("The dress cannot be drawn yet.")
    else:
        pages.dress(dress, DRESS_HIGH)
    pages.rows((), list(_facts(recipe, dress, unit)), (20, 80))
    if agreed.fitting_at:
        at = agreed.fitting_at
        pages.say(f"Your next fitting: {spelt(at.date())} at {at:%H:%M}.", bold=True)
    pages.say(BRING)
    for caution in cautions_for_the_wearer(garment, recipe, plan_of(garment, recipe).operations):
        pages.say(str(caution))
    pages.head("Agreed", needs=34)
    pages.draw(pages.width, 22, lambda canvas: _to_sign(canvas, pages.width))
    pages.say(f"As it is drawn on {spelt(agreed.on_day)}; what is changed later is drawn again.", small=True)
    return pages.done()


def _facts(recipe: Recipe, dress: DrawnDress | None, unit: Tape) -> Iterator[Sequence[str]]:
    """What is known of the finished dress, a row each; nothing of what is not."""
    parts = [part.title for part in (recipe.lower, *recipe.trims) if part.title]
    yield "What it is", ", ".join(dict.fromkeys([parts[0], *(title[:1].lower() + title[1:] for title in parts[1:])]))
    if dress is not None:
        if dress.hem is not None:
            below = dress.waist - dress.hem
            yield (
                "How long",
                f"to {format_length(dress.hem, unit)} above the floor in front, "
                f"{format_length(below, unit)} below the waist",
            )
        round_her = [f"{level.name} {format_length(level.girth, unit)}" for level in dress.levels]
        if round_her:
            yield "Round the dress", ", ".join(round_her)
    closes = CLOSES.get(recipe.opening.place)
    if closes:
        yield "It closes", closes
    cloth = [
        f"{role if role is not ClothRole.OUTER else 'outside'}: {recipe.cloths.cloth(role).name}"
        for role in (ClothRole.OUTER, ClothRole.CONTRAST, ClothRole.LINING)
        if recipe.cloths.cloth(role).name
    ]
    if cloth:
        yield "Of", "; ".join(cloth)


def _to_sign(canvas: Canvas, width: float) -> None:
    canvas.setLineWidth(0.2)
    canvas.setFont(FONT, 2.6)
    half = width / 2 - 5
    for left, label in ((0.0, "day and name"), (half + 10, "day and name of the maker")):
        canvas.line(left, 7, left + half, 7)
        canvas.drawString(left, 3, label)
