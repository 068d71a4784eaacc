"""The papers a pattern is tiled to."""

from __future__ import annotations

from enum import StrEnum

from gentle_hem.core.units import inches


class Paper(StrEnum):
    """The paper in the maker's printer."""

    A4 = "a4"
    LETTER = "letter"

    @property
    def size(self) -> tuple[float, float]:
        """Width and height in mm, upright."""
        return (210.0, 297.0) if self is Paper.A4 else (inches(8.5), inches(11))
