"""School 1 in centimetres (trade 4.1): quarters on the fold, from the measured upper bust line.

The armhole line lies at the upper bust, the shoulder drops a tenth of its width, the neck is 8 cm wide, the
armhole comes in 1 cm at its middle, the waist takes 2 cm for the dart, whose top is 3 cm below the bust line.
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.block.alike import Alike, girth_quarters, made_alike
from gentle_hem.core.block.frame import armhole_depth
from gentle_hem.core.block.quarters import BUST_EASES, WAIST_EASES, Ease, Intake
from gentle_hem.core.block.taste import Hollow, Tasted
from gentle_hem.core.drafting import BACK, FRONT, Drafting
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.parts import Allowances, BodiceMade, Opening, between
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.units import Length
from gentle_hem.core.workings import Workings

HOLLOW = 10.0
DART_BELOW_BUST = 30.0
"""The armhole's middle comes in 1 cm; the dart's top lies 3 cm below the bust line: common practice."""


class QuartersCmBodice(Tasted):
    """Drafted by quarters in centimetres, bust ease 4 cm, waist dart 2 cm, back neck 8 × 4 cm."""

    title: ClassVar[str] = "Bodice by quarters, centimetres"
    sentences: ClassVar[tuple[str, ...]] = (
        "Drafted with {bust_ease} of ease at the bust and {waist_ease} at the waist; the darts take {dart}.",
        "The armhole lies at the upper bust line; the neck is {neck_width} wide, {front_neck} deep in front and "
        "{back_neck} behind.",
        *Tasted.TASTE,
    )
    words: ClassVar[dict[str, Word]] = {
        "bust_ease": length("bust ease", presets=BUST_EASES),
        "waist_ease": length("waist ease", presets=WAIST_EASES, nothing="none"),
        "dart": length("waist dart"),
        "neck_width": length("neck width"),
        "front_neck": length("front neck depth"),
        "back_neck": length("back neck depth"),
        **Tasted.TASTE_WORDS,
    }

    kind: Literal["quarters_cm"] = "quarters_cm"
    bust_ease: Ease = Field(40.0, description="Ease round the whole bust.")
    waist_ease: Ease = Field(20.0, description="Ease round the whole waist.")
    dart: Intake = 20.0
    neck_width: Annotated[Length, between(40, 160)] = 80.0
    front_neck: Annotated[Length, between(20, 250)] = 80.0
    back_neck: Annotated[Length, between(10, 250)] = 40.0
    front_hollow: Hollow = HOLLOW
    back_hollow: Hollow = HOLLOW
    dart_short: Annotated[Length, between(0, 120)] = DART_BELOW_BUST

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {"bodice.waist_ease": (self.waist_ease, 1.0)}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        notes = notes.about("bodice")
        measures = Measures(figure, notes)
        quarters = girth_quarters(measures, self.bust_ease, self.waist_ease, notes)
        shoulder = measures.take("shoulder_width")
        drop = notes.work(
            "shoulder drop", shoulder / 10, "{shoulder_width} ÷ 10", rule="common practice, about 3 cm",
            shoulder_width=shoulder,
        )  # fmt: skip
        depth = armhole_depth("upper_bust", measures, notes, self.armhole_lower)
        alike = Alike(
            *quarters, depth, drop, self.neck_width,
            neck_depths=(self.front_neck, self.back_neck), darts=(self.dart, self.dart),
        )  # fmt: skip
        return made_alike(self, alike, (Drafting(FRONT), Drafting(BACK)), measures, allowances, opening)
