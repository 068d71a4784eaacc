"""The way through the job, and where on it a finding belongs.

figure ──► bodice ──► lower part ──► waist seam ──► pattern ──► making ──► fittings
"""

from __future__ import annotations

from typing import Literal

from gentle_hem.core.findings import Finding
from gentle_hem.core.garment import Garment

Stage = Literal["figure", "bodice", "lower", "join", "pattern", "making", "fittings"]

OF_JOINS = ("waist-does-not-meet", "landmark-does-not-meet", "join-does-not-meet")

STAGES: dict[str, Stage] = {
    "figure": "figure",
    "bodice": "bodice",
    "steps": "bodice",
    "lower": "lower",
    "join": "join",
}
"""The stage at which a part of the recipe is worked on."""


def stage_of(finding: Finding, garment: Garment) -> Stage:
    """Where on the way through the job a finding belongs: by the first of its places that says."""
    if finding.code in OF_JOINS:
        return "join"
    upper = {piece.name for piece in garment.pieces if piece.what.section.is_upper}
    for place in finding.at:
        stage = STAGES.get(place.recipe.split(".")[0])
        if stage is not None:
            return stage
        if place.piece in upper:
            return "bodice"
    return "lower"
