"""School 1: quarters on the fold (trade 4.1).

One outline serves front and back, then they are told apart: the back neck is shallower and its armhole
fuller. Every width is a quarter of its girth with ease; at the waist the dart is put back.
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.block.alike import InchFrame, girth_quarters, made_alike
from gentle_hem.core.block.frame import armhole_depth
from gentle_hem.core.drafting import BACK, FRONT, Drafting
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.parts import Allowances, BodiceMade, Opening, between
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.workings import Workings

Ease = Annotated[Length, between(-100, 300)]
Intake = Annotated[Length, between(0, 80)]

BUST_EASES = (
    (inches(0.75), "close, 3/4 in"), (inches(2), "semi-fitted, 2 in"), (inches(4), "easy, 4 in"),
    (60.0, "6 cm, by proportion"), (0.0, "none, for stretch cloth"), (-20.0, "2 cm less, for stretch cloth"),
)  # fmt: skip
WAIST_EASES = ((0.0, "none"), (inches(0.5), "close, 1/2 in"), (inches(1), "1 in"), (60.0, "easy, 6 cm"))
"""Sets of whole-garment ease, common practice (trade 4.2)."""


class QuartersBodice(InchFrame):
    """Drafted by quarters on the fold, bust ease 2 in, waist ease 1 in, darts of 1 in."""

    title: ClassVar[str] = "Bodice by quarters on the fold"
    sentences: ClassVar[tuple[str, ...]] = (
        "Drafted with {bust_ease} of ease at the bust and {waist_ease} at the waist; darts of {front_dart} in "
        "front and {back_dart} behind, put back at the side.",
        InchFrame.FRAME,
        *InchFrame.TASTE,
    )
    words: ClassVar[dict[str, Word]] = {
        "bust_ease": length("bust ease", presets=BUST_EASES),
        "waist_ease": length("waist ease", presets=WAIST_EASES, nothing="none"),
        "front_dart": length("front waist dart"),
        "back_dart": length("back waist dart"),
        **InchFrame.FRAME_WORDS,
        **InchFrame.TASTE_WORDS,
    }

    kind: Literal["quarters"] = "quarters"
    bust_ease: Ease = Field(inches(2), description="Ease round the whole bust.")
    waist_ease: Ease = Field(inches(1), description="Ease round the whole waist.")
    front_dart: Intake = inches(1)
    back_dart: Intake = inches(1)

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {"bodice.waist_ease": (self.waist_ease, 1.0)}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        notes = notes.about("bodice")
        measures = Measures(figure, notes)
        quarters = girth_quarters(measures, self.bust_ease, self.waist_ease, notes)
        depth = armhole_depth(self.armhole_rule, measures, notes, self.armhole_lower, self.above_bust)
        alike = self.alike(quarters, depth, (self.front_dart, self.back_dart))
        return made_alike(self, alike, (Drafting(FRONT), Drafting(BACK)), measures, allowances, opening)
