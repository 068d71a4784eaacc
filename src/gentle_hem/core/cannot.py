"""What cannot be made, kept apart from a fault of the program.

CannotMake    the maker asked for something these measures or lines do not allow: a stop with its sentence
CannotDraw    lines that run into each other, found by the geometry itself; a CannotMake without words of its own
anything else a fault of the program, and called so
"""

from __future__ import annotations


class CannotMake(ValueError):  # noqa: N818  (it is not an error of the program)
    """What is asked cannot be made; the sentence says what is in its way. ``field`` is the word of the recipe."""

    def __init__(self, sentence: str, field: str = "") -> None:
        super().__init__(sentence)
        self.field = field

    @property
    def why(self) -> str:
        """What is in its way, as it stands within a sentence."""
        return str(self)


class CannotDraw(CannotMake):
    """Lines that do not make a path or an outline."""

    @property
    def why(self) -> str:
        return "its lines run into each other"
