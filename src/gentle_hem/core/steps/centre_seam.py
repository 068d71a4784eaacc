"""A seam down the centre: a front or back that lies on the fold is cut as a left and a right."""

from typing import ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.centre import seamed_at_centre
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.sentences import Word
from gentle_hem.core.steps.base import EdgeName, PatternStep, the_pieces


class CentreSeam(PatternStep):
    """A seam down the centre front of the bodice."""

    title: ClassVar[str] = "Seam down the centre"
    sentences: ClassVar[tuple[str, ...]] = ("The {part}, {on}, has a seam down its centre.",)
    words: ClassVar[dict[str, Word]] = {**PatternStep.own_words}

    kind: Literal["centre_seam"] = "centre_seam"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("centre",)

    def do(self, table: Table) -> None:
        for half in self.halves:
            folded = [what for what in the_pieces(table, half, "centre") if table.pieces[what].fold]
            if not folded:
                raise CannotMake(f"the {half} has a seam or an opening there already")
            for what in folded:
                table.redraw(what, lambda piece: seamed_at_centre(piece, table.allowances.panel))
