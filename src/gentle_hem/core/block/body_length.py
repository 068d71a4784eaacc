"""School 4: the body-length frame (trade 4.1), for gowns and draped fronts.

nape ─┬──────
      │ chest    the bust quarter from the centre to the side, even here
      ├──────
      │ waist    quarters + ⅛ in
      ├──────
      │ hip
      ├──────
      │ knee + 1 in
      ├──────
hem  ─┴──────    squared off
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.block.alike import InchFrame, made_alike
from gentle_hem.core.block.frame import armhole_depth
from gentle_hem.core.block.quarters import Intake
from gentle_hem.core.drafting import BACK, FRONT, Drafting, line
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.geometry import Point
from gentle_hem.core.parts import Allowances, BodiceMade, Opening, between
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.workings import Workings

KNEE_MORE = inches(1)
"""The knee line lies 1 in below the measured knee: common practice (trade 4.1)."""


class BodyLengthBodice(InchFrame):
    """Drafted on the body-length frame, an eighth of an inch on every quarter."""

    title: ClassVar[str] = "Bodice on the body-length frame"
    sentences: ClassVar[tuple[str, ...]] = (
        "Squared down the whole body, every quarter with {quarter_ease} more; waist darts of {dart}.",
        InchFrame.FRAME,
        *InchFrame.TASTE,
    )
    words: ClassVar[dict[str, Word]] = {
        "quarter_ease": length("ease on each quarter"),
        "dart": length("waist dart"),
        **InchFrame.FRAME_WORDS,
        **InchFrame.TASTE_WORDS,
    }

    kind: Literal["body_length"] = "body_length"
    quarter_ease: Annotated[Length, between(-20, 60)] = Field(inches(0.125), description="Ease on every quarter.")
    dart: Intake = inches(1)

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {"bodice.quarter_ease": (self.quarter_ease, 0.25)}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        notes = notes.about("bodice")
        measures = Measures(figure, notes)
        widths: dict[str, float] = {}
        for name in ("bust", "waist", "hip"):
            girth = measures.take(f"{name}_girth")  # type: ignore[arg-type]
            widths[name] = notes.work(
                f"{name} quarter", girth / 4 + self.quarter_ease, "{girth} ÷ 4 + {ease_of_a_quarter}",
                girth=girth, ease_of_a_quarter=self.quarter_ease,
            )  # fmt: skip
        waist = notes.work("bodice waist", 4 * widths["waist"], "4 × {waist_quarter}", waist_quarter=widths["waist"])
        depth = armhole_depth(self.armhole_rule, measures, notes, self.armhole_lower, self.above_bust)
        papers = Drafting(FRONT), Drafting(BACK)
        for paper in papers:
            self._square_off(paper, measures, measures.take("front_waist_length"), widths)
        alike = self.alike((widths["bust"], widths["waist"], waist), depth, (self.dart, self.dart))
        return made_alike(self, alike, papers, measures, allowances, opening)

    @staticmethod
    def _square_off(paper: Drafting, measures: Measures, waist_level: float, widths: dict[str, float]) -> None:
        """The frame: hem, hip and knee squared off from the centre line, for what is carried down."""
        hip = waist_level + measures.take("waist_to_hip")
        knee = waist_level + measures.take("waist_to_knee") + KNEE_MORE
        floor = waist_level + measures.take("waist_to_floor")
        paper.step(
            "Square off from the centre: the waist {waist} down, the hip {hip}, the knee and 1 in {knee}, the floor "
            "{floor}; the hip quarter is {quarter}.",
            *(line(Point(0, -level), Point(widths["hip"], -level)) for level in (waist_level, hip, knee, floor)),
            waist=waist_level, hip=hip, knee=knee, floor=floor, quarter=float(widths["hip"]),
        )  # fmt: skip
