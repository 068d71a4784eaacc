"""What a desk needs to know of a dress, and no more: what it is, and what is open in it."""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.recipe import Recipe


@dataclass(frozen=True, slots=True)
class DeskSlip:
    """A dress in a line, how much is unresolved, and the first of it in the recipe's own unit."""

    unit: str
    summary: str
    stops: int
    warnings: int
    trouble: str


def desk_slip(recipe: Recipe, garment: Garment) -> DeskSlip:
    """The slip of a recipe, read from the garment it makes."""
    troubles = [finding for finding in garment.findings if finding.severity is not Severity.NOTE]
    troubles.sort(key=lambda finding: finding.severity is not Severity.STOP)
    return DeskSlip(
        unit=recipe.unit.value,
        summary=f"{recipe.bodice.title}, {recipe.lower.title.lower()}"[:400],
        stops=sum(finding.severity is Severity.STOP for finding in troubles),
        warnings=sum(finding.severity is Severity.WARN for finding in troubles),
        trouble=troubles[0].text(recipe.unit)[:2000] if troubles else "",
    )
