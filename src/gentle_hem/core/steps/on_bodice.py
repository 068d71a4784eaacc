"""What is done to a whole bodice: a step that knows its front and back, and the block they were drafted as."""

from typing import ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.sentences import Word
from gentle_hem.core.steps.base import PatternStep, Side
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.what import Half


class BodiceStep(PatternStep):
    """One thing done to the bodice as a whole. Where the garment is cut in one it is done before the bodice is carried
    on down, unless its kind says otherwise.
    """

    own_words: ClassVar[dict[str, Word]] = {}
    styles: ClassVar[bool] = True

    part: Literal["bodice"] = "bodice"
    on: Side = "both"

    @property
    def on_block(self) -> bool:
        return True

    def do(self, table: Table) -> None:
        if not isinstance(table, Styling):
            raise TypeError(f"{type(self).__name__} is done to a bodice")
        for half in self.whole:
            if (table.front if half is Half.FRONT else table.back) not in table.pieces:
                raise CannotMake(f"the {half} is cut into panels by then; move it before that")
        self.draw(table)

    @property
    def whole(self) -> tuple[Half, ...]:
        """The halves that must not have been cut into panels yet."""
        return self.halves

    def draw(self, table: Styling) -> None:
        """Do it to the bodice on the table. Raises CannotMake where it cannot be done."""
        raise TypeError(f"{type(self).__name__} does not say how it is done")
