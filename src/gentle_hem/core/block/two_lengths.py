"""School 2: two lengths with a bust dart (trade 4.1).

front ───┐ waist at the front waist length        back ───┐ waist at the back waist length
         │ their difference becomes a dart at the side, upper leg at the bust level;
         │ closed, front and back side seams are equal: this is the check
"""

from __future__ import annotations

from math import hypot
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.block.alike import ARMHOLE_RULES, AboveBust, ArmholeRule
from gentle_hem.core.block.frame import ABOVE_BUST, Frame, armhole_depth, draft_half, level_findings, width_findings
from gentle_hem.core.block.quarters import BUST_EASES, WAIST_EASES, Ease, Intake
from gentle_hem.core.block.shape import bodice_made
from gentle_hem.core.block.taste import SHORT_OF_BUST_POINT, Tasted
from gentle_hem.core.drafting import BACK, FRONT, Drafting
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.parts import Allowances, BodiceMade, Opening, between
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.walk import SEAM_TOLERANCE
from gentle_hem.core.workings import Workings


class TwoLengthsBodice(Tasted):
    """Drafted by two lengths with a bust dart at the side; a quarter of an inch on every quarter."""

    title: ClassVar[str] = "Bodice by two lengths"
    sentences: ClassVar[tuple[str, ...]] = (
        "Drafted with {bust_ease} of ease at the bust and {waist_ease} at the waist; waist darts of {dart}, and "
        "the front's extra length in a bust dart at the side.",
        "The armhole level is {armhole_rule}; the shoulder drops {front_drop} in front and {back_drop} behind; "
        "the neck is {neck_width} wide, {front_neck} deep in front and {back_neck} behind.[armhole_rule=above_bust: "
        "The armhole lies {above_bust} above the bust point.]",
        *Tasted.TASTE,
        "The bust dart ends {bust_dart_short} short of the bust point.",
    )
    words: ClassVar[dict[str, Word]] = {
        "bust_ease": length("bust ease", presets=BUST_EASES),
        "waist_ease": length("waist ease", presets=WAIST_EASES, nothing="none"),
        "dart": length("waist dart"),
        "armhole_rule": ARMHOLE_RULES,
        "above_bust": length("armhole above the bust point"),
        "front_drop": length("front shoulder drop"),
        "back_drop": length("back shoulder drop"),
        "neck_width": length("neck width"),
        "front_neck": length("front neck depth"),
        "back_neck": length("back neck depth"),
        **Tasted.TASTE_WORDS,
        "bust_dart_short": length("bust dart short of the bust point", nothing="no way"),
    }

    kind: Literal["two_lengths"] = "two_lengths"
    bust_ease: Ease = Field(inches(1), description="Ease round the whole bust: a quarter of an inch each quarter.")
    waist_ease: Ease = Field(0.0, description="Ease round the whole waist.")
    dart: Intake = inches(1)
    armhole_rule: ArmholeRule = "bust_sixth"
    above_bust: AboveBust = ABOVE_BUST
    bust_dart_short: Annotated[Length, between(0, 100)] = SHORT_OF_BUST_POINT
    front_drop: Annotated[Length, between(0, 80)] = inches(1.5)
    back_drop: Annotated[Length, between(0, 80)] = inches(1)
    neck_width: Annotated[Length, between(40, 160)] = inches(3)
    front_neck: Annotated[Length, between(20, 250)] = inches(3)
    back_neck: Annotated[Length, between(10, 250)] = inches(1)

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {"bodice.waist_ease": (self.waist_ease, 1.0)}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        notes = notes.about("bodice")
        measures = Measures(figure, notes)
        bust, waist = measures.take("bust_girth"), measures.take("waist_girth")
        front_length, back_length = measures.take("front_waist_length"), measures.take("back_waist_length")
        bust_quarter = notes.work(
            "bust quarter", bust / 4 + self.bust_ease / 4, "{bust} ÷ 4 + {ease_of_a_quarter}",
            bust=bust, ease_of_a_quarter=self.bust_ease / 4,
        )  # fmt: skip
        waist_quarter = notes.work(
            "waist quarter", waist / 4 + self.waist_ease / 4, "{waist} ÷ 4 + {ease_of_a_quarter}",
            rule="the dart is put back beside it", waist=waist, ease_of_a_quarter=self.waist_ease / 4,
        )  # fmt: skip
        waist_seam = notes.work("bodice waist", 4 * waist_quarter, "4 × {waist_quarter}", waist_quarter=waist_quarter)
        difference = front_length - back_length
        bust_dart = 0.0
        if difference > SEAM_TOLERANCE:
            bust_dart = notes.work(
                "bust dart", difference, "{front_waist_length} − {back_waist_length}",
                rule="closed, the side seams are equal",
                front_waist_length=front_length, back_waist_length=back_length,
            )  # fmt: skip
        depth = armhole_depth(self.armhole_rule, measures, notes, self.armhole_lower, self.above_bust)
        bust_level = max(measures.take("shoulder_to_bust_point"), depth)
        half_shoulder = measures.take("shoulder_width") / 2 + self.shoulder_out
        papers = Drafting(FRONT), Drafting(BACK)
        front, back = (
            draft_half(
                paper,
                Frame(
                    neck_width=self.neck_width if paper.half == FRONT else self.back_neck_width or self.neck_width,
                    neck_depth=self.front_neck if paper.half == FRONT else self.back_neck,
                    half_shoulder=half_shoulder,
                    shoulder_drop=self.front_drop if paper.half == FRONT else self.back_drop,
                    shoulder_length=hypot(half_shoulder - self.neck_width, self.front_drop),
                    hollow=self.front_hollow if paper.half == FRONT else self.back_hollow,
                    armhole_level=depth,
                    bust_level=bust_level,
                    waist_level=back_length + bust_dart if paper.half == FRONT else back_length,
                    bust_quarter=bust_quarter,
                    waist_quarter=waist_quarter,
                    half_span=measures.take("bust_span") / 2,
                    waist_dart=self.dart,
                    bust_dart=bust_dart if paper.half == FRONT else 0.0,
                    bust_dart_short=self.bust_dart_short,
                    dart_below=self.dart_short,
                    dart_at=self.front_dart_at if paper.half == FRONT else self.back_dart_at,
                    dart_share=self.dart_share,
                    to_chest=paper.half == BACK and self.back_dart_top == "chest",
                ),
            )
            for paper in papers
        )
        made = bodice_made((front, back), allowances, opening, waist_seam, (*papers[0].steps, *papers[1].steps))
        troubles = [*level_findings(back_length, bust_level), *width_findings(bust_quarter, half_shoulder)]
        return made.also([*measures.findings, *troubles])
