"""Which cloth of a garment a piece is cut from."""

from __future__ import annotations

from enum import StrEnum


class ClothRole(StrEnum):
    """What a cloth is in the garment."""

    OUTER = "cloth"
    CONTRAST = "contrast"
    LINING = "lining"
    INTERFACING = "interfacing"
    PAPER = "paper"
    """No cloth: a template to be laid on one's own block."""
