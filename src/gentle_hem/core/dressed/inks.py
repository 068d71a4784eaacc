"""What the drawing is made of: lines in ink, each standing for a piece and an edge, and the levels of the dress."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum

from gentle_hem.core.dressed.views import Seen, Spot


class Drawn(StrEnum):
    """What a line of the drawing is."""

    FORM = "form"
    INSIDE = "inside"
    """The wrong side of the cloth behind, seen past an edge in front."""
    CLOTH = "cloth"
    PAPER = "paper"
    """A template only: nothing is cut from it."""
    SEAM = "seam"
    DART = "dart"
    FOLD = "fold"
    HEM = "hem"
    MARK = "mark"
    BUTTON = "button"
    ZIP = "zip"


@dataclass(frozen=True, slots=True)
class Ink:
    """One line of the drawing, mm, up is up; and the piece and edge it stands for."""

    drawn: Drawn
    spots: tuple[Spot, ...]
    closed: bool = False
    piece: str = ""
    edge: str = ""


@dataclass(frozen=True, slots=True)
class Level:
    """A level of the dress: how high it is above the floor, how long round, and the very slice that is drawn (mm)."""

    name: str
    height: float
    girth: float
    slice: tuple[Spot, ...]


@dataclass(frozen=True, slots=True)
class DrawnDress:
    """The dress from three places, and its levels."""

    views: dict[Seen, tuple[Ink, ...]]
    levels: tuple[Level, ...]
    top: float
    """The height of the figure (mm)."""
    waist: float
    hem: float | None
    """How high the hem is above the floor at the centre front (mm)."""
    colours: Mapping[str, str] = field(default_factory=dict)
    """The colours of the cloths that have one, by the pieces that are cut from them (#rrggbb)."""
