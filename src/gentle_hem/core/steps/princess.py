"""A princess seam from any place of the shoulder, neckline or armhole, through the bust point to the waist dart."""

from typing import ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.steps.base import (
    EdgeName,
    PatternStep,
    Share,
    Side,
    along,
    seen_from_centre,
    share_word,
    the_edge,
    the_pieces,
)
from gentle_hem.core.style.panels import PrincessFrom, princess
from gentle_hem.core.what import BACK_PRINCESS, FRONT_PRINCESS, Half


class PrincessSeam(PatternStep):
    """A princess seam from a third of the shoulder, front and back."""

    title: ClassVar[str] = "Princess seam"
    sentences: ClassVar[tuple[str, ...]] = (
        "A princess seam runs from the {start} of the {part}, {on}, {share} of its way, through the bust point to the "
        "waist dart.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words,
        "start": choice("where it begins", ("shoulder", "shoulder"), ("neckline", "neckline"), ("armhole", "armhole")),
        "share": share_word("how far along"),
    }  # fmt: skip

    styles: ClassVar[bool] = True
    sided: ClassVar[bool] = True

    kind: Literal["princess"] = "princess"
    on: Side = "both"
    start: Literal["shoulder", "neckline", "armhole"] = "shoulder"
    share: Share = 1 / 3

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return self.start, "princess"

    def do(self, table: Table) -> None:
        for half in self.halves:
            there = the_pieces(table, half, self.start)
            what = next((one for one in there if table.pieces[one].darts_of("waist")), there[0])
            edge = the_edge(seen_from_centre(table.pieces[what]), self.start)
            at = along(edge, self.start, min(max(self.share, 0.1), 0.9)) / edge.drawn_length
            if not table.pieces[what].darts_of("waist"):
                raise CannotMake(f"the {what.name} has no waist dart for it to run into")
            princess(table, what, PrincessFrom(self.start), FRONT_PRINCESS if half is Half.FRONT else BACK_PRINCESS, at)
