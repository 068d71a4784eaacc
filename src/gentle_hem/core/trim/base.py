"""Added fullness, and what is added at the top: each a part laid onto a garment that is already there.

    garment so far ──► trim ──► the garment with pieces added or changed, its new joins, its new hem

Trims are made up in the order they stand in the recipe, each on what the ones before it left.
"""

from enum import IntEnum
from typing import ClassVar

from gentle_hem.core.parts import RecipePart
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed


class Turn(IntEnum):
    """When a trim is made up, whatever its place among the sentences: what is let into the panels comes before what is
    sewn to their hem, so that trims in any order give one garment.
    """

    INTO_THE_PANELS = 0
    AT_THE_HEM = 1
    ELSEWHERE = 2
    ON_WHAT_IS_THERE = 3
    LAST = 4


class Trim(RecipePart):
    """One thing added to a garment."""

    turn: ClassVar[Turn] = Turn.ELSEWHERE

    def cut_first(self, dress: Dressed, where: str) -> Dressed:
        """What is cut off before any trim is made up: the stretch of hem that a strip takes the place of."""
        return dress

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        """The garment with this added. ``where`` is the trim's place in the recipe. Never raises for a valid recipe."""
        raise TypeError(f"{type(self).__name__} does not say how it is made up")
