"""The waist moved up or down: the bodice is longer or shorter above it, and as wide there as it was."""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.parts import between
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName
from gentle_hem.core.steps.insert import Insert
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length
from gentle_hem.core.workings import Workings

SHARES = (0.5, 0.4, 0.6, 0.3, 0.7)
"""Where between underarm and waist the bodice is cut across, the first of these that runs through no dart's mouth."""


class WaistLevel(BodiceStep):
    """The waist 2 cm lower than her own."""

    title: ClassVar[str] = "Move the waist"
    sentences: ClassVar[tuple[str, ...]] = (
        "The waist lies {by} {way} than her own, and is as wide there as it was drawn.",
    )
    words: ClassVar[dict[str, Word]] = {
        "by": length("how far"),
        "way": choice(
            "which way", ("lower", "lower"), ("higher", "higher"),
            help="A skirt joined to it hangs as long as it says; a gown cut in one keeps its hem.",
        ),
    }  # fmt: skip

    kind: Literal["waist_level"] = "waist_level"
    on: Literal["both"] = "both"
    by: Annotated[Length, between(2, 80)] = 20.0
    way: Literal["lower", "higher"] = "lower"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("waist",)

    @property
    def lower_by(self) -> float:
        """How much lower it lies, mm; less than nothing where it lies higher."""
        return self.by if self.way == "lower" else -self.by

    def draw(self, table: Styling) -> None:
        top = max(piece.seam_line.box[3] for piece in table.pieces.values())
        side = table.pieces[table.front].edge("side").path.box
        for share in SHARES:
            try:
                Insert(level=top - side[3] + share * (side[3] - side[1]), amount=self.lower_by).do(table)
                break
            except CannotMake as wrong:
                last = wrong
        else:
            raise last
        table.is_block()
        table.lowered += self.lower_by
        if not table.carries:
            table.level += self.lower_by
        self._said(table)

    def _said(self, table: Styling) -> None:
        """That she is wider below her waist, and by about how much: on a straight line from waist to hip."""
        waist, hip = table.figure.get("waist_girth"), table.figure.get("hip_girth")
        if self.way == "higher" or waist is None or hip is None:
            return
        drop = Measures(table.figure, Workings()).take("waist_to_hip")
        there = waist + (hip - waist) * min(self.by / drop, 1.0)
        table.findings.append(
            note(
                "waist-moved",
                "Her waist is {waist} round; {by} below it she is some {there}, by a straight line to her hip. Measure "
                "her there.",
                *in_recipe("steps"), waist=waist, by=self.by, there=there,
            )
        )  # fmt: skip


FROM_WAIST = ("waist_to_knee", "waist_to_floor")


def below_moved_waist(figure: Figure, by: float) -> Figure:
    """The figure as what lies below a moved waist is drawn on: everything is so much nearer to it, or further off."""
    if not by:
        return figure
    measures = {key: figure.measures[key] - by for key in FROM_WAIST if key in figure.measures}
    measures["waist_to_hip"] = max(Measures(figure, Workings()).take("waist_to_hip") - by, 10.0)
    return figure.model_copy(update={"measures": {**figure.measures, **measures}})
