"""Front and back drafted on one frame and then told apart: what the quarter schools share (handbook 4.1)."""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.block.frame import SHORT_OF_BUST_POINT, Frame, draft_half, level_findings, width_findings
from gentle_hem.core.block.shape import bodice_made
from gentle_hem.core.drafting import Drafting
from gentle_hem.core.estimates import Measures
from gentle_hem.core.parts import Allowances, Made, Opening
from gentle_hem.core.units import inches

HOLLOWS = (inches(0.75), inches(0.25))
"""How far the armhole of front and back comes in at its middle: common practice."""


@dataclass(frozen=True, slots=True)
class Alike:
    """What a school settles for both halves, mm; a pair is (front, back)."""

    bust_quarter: float
    waist_quarter: float
    armhole_level: float
    shoulder_drop: float
    neck_width: float
    neck_depths: tuple[float, float]
    hollows: tuple[float, float]
    darts: tuple[float, float]
    dart_below: float = SHORT_OF_BUST_POINT


def made_alike(
    alike: Alike, papers: tuple[Drafting, Drafting], measures: Measures, allowances: Allowances, opening: Opening
) -> Made:
    """Both halves to the front waist length, and what is said of a frame whose levels or widths cross."""
    half_length = measures.take("front_waist_length")
    bust_level = max(measures.take("shoulder_to_bust_point"), alike.armhole_level)
    half_shoulder = measures.take("shoulder_width") / 2
    front, back = (
        draft_half(
            paper,
            Frame(
                neck_width=alike.neck_width,
                neck_depth=alike.neck_depths[side],
                half_shoulder=half_shoulder,
                shoulder_drop=alike.shoulder_drop,
                hollow=alike.hollows[side],
                armhole_level=alike.armhole_level,
                bust_level=bust_level,
                waist_level=half_length,
                bust_quarter=alike.bust_quarter,
                waist_quarter=alike.waist_quarter,
                half_span=measures.take("bust_span") / 2,
                waist_dart=alike.darts[side],
                dart_below=alike.dart_below,
            ),
        )
        for side, paper in enumerate(papers)
    )
    made = bodice_made(front, back, allowances, opening, (*papers[0].steps, *papers[1].steps))
    troubles = [*level_findings(half_length, bust_level), *width_findings(alike.bust_quarter, half_shoulder)]
    return made.also([*measures.findings, *troubles])
