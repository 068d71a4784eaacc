"""Front and back drafted on one frame and then told apart: what the quarter schools share (trade 4.1)."""

from __future__ import annotations

from dataclasses import dataclass
from math import hypot
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.block.frame import ABOVE_BUST, Frame, draft_half, level_findings, width_findings
from gentle_hem.core.block.shape import bodice_made
from gentle_hem.core.block.taste import Tasted
from gentle_hem.core.drafting import Drafting
from gentle_hem.core.estimates import Measures
from gentle_hem.core.parts import Allowances, BodiceMade, Opening, between
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.workings import Worked, Workings

ArmholeRule = Literal["bust_sixth", "bust_quarter", "armhole_half", "upper_bust", "above_bust"]
AboveBust = Annotated[Length, between(0, 150)]

ARMHOLE_RULES = choice(
    "armhole level",
    ("bust_sixth", "bust ÷ 6 + 1 1/2 in"),
    ("bust_quarter", "bust ÷ 4 + 1.5 cm"),
    ("armhole_half", "armhole girth ÷ 2"),
    ("upper_bust", "the measured upper bust level"),
    ("above_bust", "measured from the bust point"),
)


class InchFrame(Tasted):
    """What the schools in inches say of a frame's armhole level, shoulder and neck."""

    FRAME: ClassVar[str] = (
        "The armhole level is {armhole_rule}; the shoulder drops {shoulder_drop}; the neck is {neck_width} wide, "
        "{front_neck} deep in front and {back_neck} behind.[armhole_rule=above_bust: "
        "The armhole lies {above_bust} above the bust point.]"
    )
    FRAME_WORDS: ClassVar[dict[str, Word]] = {
        "armhole_rule": ARMHOLE_RULES,
        "above_bust": length("armhole above the bust point"),
        "shoulder_drop": length("shoulder drop"),
        "neck_width": length("neck width"),
        "front_neck": length("front neck depth"),
        "back_neck": length("back neck depth"),
    }

    armhole_rule: ArmholeRule = "bust_sixth"
    above_bust: AboveBust = ABOVE_BUST
    shoulder_drop: Annotated[Length, between(0, 80)] = inches(1)
    neck_width: Annotated[Length, between(40, 160)] = inches(3)
    front_neck: Annotated[Length, between(20, 250)] = inches(3)
    back_neck: Annotated[Length, between(10, 250)] = inches(1)

    def alike(self, quarters: tuple[float, float, Worked], depth: float, darts: tuple[float, float]) -> Alike:
        """The frame of given bust and waist quarters, whole waist, armhole level, front and back waist darts (mm)."""
        return Alike(
            *quarters, depth, self.shoulder_drop, self.neck_width, neck_depths=(self.front_neck, self.back_neck),
            darts=darts,
        )  # fmt: skip


def girth_quarters(
    measures: Measures, bust_ease: float, waist_ease: float, notes: Workings
) -> tuple[float, float, Worked]:
    """A quarter of bust and of waist, each with its ease round the whole, and the whole waist."""
    bust, waist = measures.take("bust_girth"), measures.take("waist_girth")
    bust_quarter = notes.work(
        "bust quarter", (bust + bust_ease) / 4, "({bust} + {ease}) ÷ 4", bust=bust, ease=bust_ease
    )
    waist_quarter = notes.work(
        "waist quarter", (waist + waist_ease) / 4, "({waist} + {ease}) ÷ 4",
        rule="the dart is put back beside it", waist=waist, ease=waist_ease,
    )  # fmt: skip
    waist_seam = notes.work("bodice waist", 4 * waist_quarter, "4 × {waist_quarter}", waist_quarter=waist_quarter)
    return float(bust_quarter), float(waist_quarter), waist_seam


@dataclass(frozen=True, slots=True)
class Alike:
    """What a school settles for both halves, mm; a pair is (front, back)."""

    bust_quarter: float
    waist_quarter: float
    waist: Worked
    armhole_level: float
    shoulder_drop: float
    neck_width: float
    neck_depths: tuple[float, float]
    darts: tuple[float, float]


def made_alike(
    part: Tasted, alike: Alike, papers: tuple[Drafting, Drafting], measures: Measures, allowances: Allowances,
    opening: Opening,
) -> BodiceMade:  # fmt: skip
    """Both halves to the front waist length, and what is said of a frame whose levels or widths cross."""
    half_length = measures.take("front_waist_length")
    bust_level = max(measures.take("shoulder_to_bust_point"), alike.armhole_level)
    half_shoulder = measures.take("shoulder_width") / 2 + part.shoulder_out
    neck_widths = alike.neck_width, part.back_neck_width or alike.neck_width
    front, back = (
        draft_half(
            paper,
            Frame(
                neck_width=neck_widths[side],
                neck_depth=alike.neck_depths[side],
                half_shoulder=half_shoulder,
                shoulder_drop=alike.shoulder_drop,
                hollow=part.hollows[side],
                armhole_level=alike.armhole_level,
                bust_level=bust_level,
                waist_level=half_length,
                bust_quarter=alike.bust_quarter,
                waist_quarter=alike.waist_quarter,
                half_span=measures.take("bust_span") / 2,
                waist_dart=alike.darts[side],
                dart_below=part.dart_short,
                dart_at=part.dart_places[side],
                dart_share=part.dart_share,
                to_chest=side == 1 and part.back_dart_top == "chest",
                shoulder_length=hypot(half_shoulder - alike.neck_width, alike.shoulder_drop),
            ),
        )
        for side, paper in enumerate(papers)
    )
    made = bodice_made((front, back), allowances, opening, alike.waist, (*papers[0].steps, *papers[1].steps))
    troubles = [*level_findings(half_length, bust_level), *width_findings(alike.bust_quarter, half_shoulder)]
    return made.also([*measures.findings, *troubles])
