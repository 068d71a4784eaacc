"""The recipe a new commission begins from: a plain bodice edge and a half circle skirt, to be corrected."""

from __future__ import annotations

from gentle_hem.core.block import BODICES
from gentle_hem.core.block.measured import MeasuredBodice, MeasuredEdge
from gentle_hem.core.figure import Figure
from gentle_hem.core.garment import Garment
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.parts import INCH_ALLOWANCES, METRIC_ALLOWANCES, BodicePart
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit, inches

WAIST_EASE = 20.0


def bodice_choices(recipe: Recipe, garment: Garment) -> list[tuple[str, BodicePart]]:
    """Every kind of bodice this recipe could have, as it would begin; the one it has, as it is.

    A bodice by its measured edges begins with the edges of the one that is drafted now.
    """
    choices: list[tuple[str, BodicePart]] = []
    for kind in BODICES:
        name = str(kind.model_fields["kind"].default)
        if isinstance(recipe.bodice, kind):
            choices.append((name, recipe.bodice))
        elif kind is MeasuredBodice:
            choices.append((name, _as_measured(garment)))
        else:
            choices.append((name, kind.model_validate({"kind": name})))
    return choices


def _as_measured(garment: Garment) -> MeasuredBodice:
    edges, sides = {}, {}
    for where in ("front", "back"):
        piece = garment.piece(f"bodice {where}")
        whole = piece.stitched_length("waist")
        darts = piece.darts_of("waist")
        at = darts[0].at if darts else whole / 2
        to_dart = at if where == "front" else whole - at
        edges[where] = MeasuredEdge(
            centre_to_dart=to_dart, dart_width=sum(d.intake for d in darts), dart_to_side=whole - to_dart
        )
        sides[where] = piece.stitched_length("side")
    return MeasuredBodice(front=edges["front"], back=edges["back"], front_side=sides["front"], back_side=sides["back"])


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
