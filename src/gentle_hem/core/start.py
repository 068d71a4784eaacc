"""The recipe a new commission begins from: a plain bodice edge and a half circle skirt, to be corrected."""

from __future__ import annotations

from gentle_hem.core.block.measured import MeasuredBodice, MeasuredEdge
from gentle_hem.core.figure import Figure
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.parts import INCH_ALLOWANCES, METRIC_ALLOWANCES
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit, inches

WAIST_EASE = 20.0


def new_recipe(name: str, figure: Figure, unit: Unit) -> Recipe:
    """A recipe to begin from: the measured waist in equal quarters if there is one, a 72 cm waist if not."""
    quarter = ((figure.get("waist_girth") or 720.0) + WAIST_EASE) / 4
    edge = MeasuredEdge(centre_to_dart=quarter / 2, dart_width=25, dart_to_side=quarter / 2)
    bodice = MeasuredBodice(front=edge, back=edge, front_side=200, back_side=200)
    metric = unit is Unit.CM
    lower = CircleSkirt(sweep=180, length=600 if metric else inches(24), hem=15 if metric else inches(0.5))
    return Recipe(
        name=name, unit=unit, figure=figure, bodice=bodice, lower=lower,
        allowances=METRIC_ALLOWANCES if metric else INCH_ALLOWANCES,
    )  # fmt: skip
