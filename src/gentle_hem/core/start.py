"""The recipe a new commission begins from: no bodice yet, and a half circle skirt to hang from it."""

from __future__ import annotations

from pydantic import ValidationError

from gentle_hem.core.band import BANDS
from gentle_hem.core.band.band import NoBand
from gentle_hem.core.block import BODICES
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.not_yet import NoBodice
from gentle_hem.core.block.own import OwnBodice
from gentle_hem.core.figure import Figure
from gentle_hem.core.garment import Garment
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.lower.peplum import Peplum
from gentle_hem.core.parts import INCH_ALLOWANCES, METRIC_ALLOWANCES, BodicePart, RecipePart
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.steps import STEPS
from gentle_hem.core.trim import TRIMS
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.what import SIDE_SEAM, Half


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
        elif kind not in (OwnBodice, NoBodice):  # a block of one's own comes from a file; having none is no choice
            choices.append((name, kind.model_validate({"kind": name})))
    return choices


PartChoice = tuple[str, str, RecipePart]
"""A kind, what it is called, and the part as it would begin."""

CARRIED = ("length", "hem", "seam", "sweep", "hip_ease", "side_in")
"""Words that a lower part takes over from the one it replaces, where it has them too."""


def lower_choices(recipe: Recipe) -> list[PartChoice]:
    """Every kind of lower part this recipe could have, as it would begin; the one it has, as it is."""
    kept = recipe.lower.model_dump(mode="json")
    choices: list[PartChoice] = []
    for kind in LOWER_PARTS:
        name = str(kind.model_fields["kind"].default)
        if isinstance(recipe.lower, kind):
            choices.append((name, kind.title, recipe.lower))
            continue
        words = {word: kept[word] for word in CARRIED if word in kept and word in kind.model_fields}
        if kind is Peplum or isinstance(recipe.lower, Peplum):
            words.pop("length", None)
        try:
            part = kind.model_validate({"kind": name, **words})
        except ValidationError:
            part = kind.model_validate({"kind": name})
        choices.append((name, kind.title, part))
    return choices


def band_choices(recipe: Recipe) -> list[PartChoice]:
    """Every kind of band there is, as it would begin; the one the recipe has, as it is."""
    return [
        (str(kind.model_fields["kind"].default), "No band" if kind is NoBand else kind.title,
         recipe.band if isinstance(recipe.band, kind) else kind())
        for kind in BANDS
    ]  # fmt: skip


def allowance_choices(recipe: Recipe) -> list[PartChoice]:
    """The two common sets of allowances (trade 11), after the maker's own where hers is neither."""
    sets: list[PartChoice] = [
        ("metric", "Metric block maker's allowances", METRIC_ALLOWANCES),
        ("inch", "Inch workshop's allowances", INCH_ALLOWANCES),
    ]
    if all(recipe.allowances != part for _, _, part in sets):
        sets.insert(0, ("own", "Allowances of my own", recipe.allowances))
    return sets


def trim_choices() -> list[PartChoice]:
    """Everything that can be added, as it would begin."""
    return [(str(kind.model_fields["kind"].default), kind.title, kind()) for kind in TRIMS]


def step_choices() -> list[PartChoice]:
    """Everything that can be done to the pieces, as it would begin."""
    return [(str(kind.model_fields["kind"].default), kind.title, kind()) for kind in STEPS]


def _as_measured(garment: Garment) -> MeasuredBodice:
    """The waist edge as it is now, typed in: where its darts or princess seams lie, and how long the sides are.

    Where nothing is drawn, or nothing that could be typed in, every edge is still to be measured.
    """
    upper = garment.joins[0].upper if garment.joins else None
    if upper is None or upper.at(SIDE_SEAM) is None:
        return MeasuredBodice()
    side_at = upper.between(upper.landmarks[0].name, SIDE_SEAM)
    drawn = {piece.what: piece for piece in garment.pieces}
    edges = {}
    for half, start, whole in ((Half.FRONT, 0.0, side_at), (Half.BACK, upper.length, upper.length - side_at)):
        marks = [mark.at for mark in upper.darts() if mark.name.half is half]
        to_dart = abs(marks[0] - start) if marks else whole / 2
        taken = sum(
            dart.intake
            for piece in {run.piece for run in upper.runs}
            if piece in drawn
            for dart in drawn[piece].darts_of("waist")
            if dart.landmark.half is half
        )
        edges[half.value] = {"centre_to_dart": to_dart, "dart_width": taken, "dart_to_side": whole - to_dart}
    side = next((walked for walked in garment.seams if walked.name == "bodice side seam"), None)
    front_side, back_side = (side.length_a, side.length_b) if side else (200.0, 200.0)
    try:
        return MeasuredBodice.model_validate({**edges, "front_side": front_side, "back_side": back_side})
    except ValidationError:
        return MeasuredBodice()


def new_recipe(name: str, figure: Figure, unit: Unit) -> Recipe:
    """A recipe to begin from: the person's measures, no bodice yet, and a half circle skirt."""
    metric = unit is Unit.CM
    lower = CircleSkirt(sweep=180, length=600 if metric else inches(24), hem=15 if metric else inches(0.5))
    return Recipe(
        name=name, unit=unit, figure=figure, bodice=NoBodice(), lower=lower,
        allowances=METRIC_ALLOWANCES if metric else INCH_ALLOWANCES,
    )  # fmt: skip
