"""The recipe: a small description of a dress, from which everything else is worked out.

    figure      whose measures
    bodice      measured edges, a drafted block, …
    steps       what is done to the pieces, one thing after another: necklines, darts, seams, cuts
    lower       circle skirt, …
    join        how the two are meant to meet
    allowances  per kind of edge
    opening     how it is got into
    cut         what the lower part was drawn to when it was cut, where it is cut already

It is immutable and carries its figure with it, so that a version of it always makes the same garment.
"""

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal, TypeVar

from pydantic import Field, ValidationError, model_validator

from gentle_hem.core.band import BANDS
from gentle_hem.core.band.band import Band, NoBand
from gentle_hem.core.block import BODICES
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.not_yet import NoBodice
from gentle_hem.core.cloth.cloths import Cloths
from gentle_hem.core.figure import Figure
from gentle_hem.core.finish import Finish
from gentle_hem.core.fit import JoinPlan
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.names import GivenName, KeptText, few_enough
from gentle_hem.core.parts import Allowances, BodicePart, LowerPart, Opening, RecipePart
from gentle_hem.core.refusals import field_path, sentence
from gentle_hem.core.sentences import SpokenPart, say_part
from gentle_hem.core.steps import STEPS
from gentle_hem.core.steps.base import PatternStep
from gentle_hem.core.trim import TRIMS
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.units import Said, Unit
from gentle_hem.core.upgrade import upgraded

if TYPE_CHECKING:
    AnyBodice = BodicePart
    AnyBand = Band
    AnyLower = LowerPart
    AnyTrim = Trim
    AnyStep = PatternStep
else:
    AnyBodice = Annotated[reduce(or_, BODICES), Field(discriminator="kind")]
    AnyBand = Annotated[reduce(or_, BANDS), Field(discriminator="kind")]
    AnyLower = Annotated[reduce(or_, LOWER_PARTS), Field(discriminator="kind")]
    AnyTrim = Annotated[reduce(or_, TRIMS), Field(discriminator="kind")]
    AnyStep = Annotated[reduce(or_, STEPS), Field(discriminator="kind")]


CURRENT: Literal[3] = 3
"""The version of today's recipes."""

OfKind = TypeVar("OfKind", bound=PatternStep)


class AsCut(RecipePart):
    """What the lower part hung from, and was drawn with, when it was cut: it stays so, whatever becomes of the rest."""

    figure: Figure
    bodice: AnyBodice
    steps: tuple[AnyStep, ...] = Field((), max_length=40)
    band: AnyBand
    join: JoinPlan
    allowances: Allowances
    opening: Opening


class Recipe(RecipePart):
    """A dress in words and numbers. Lengths are millimetres, or text with a unit."""

    format: Literal["gentle-hem recipe"] = "gentle-hem recipe"
    version: Literal[3] = CURRENT
    name: GivenName = Field("Untitled dress", max_length=120)
    unit: Unit = Field(Unit.CM, description="The unit its maker thinks in; changes no number.")
    figure: Figure = Field(default_factory=Figure)
    bodice: AnyBodice = Field(default_factory=NoBodice)
    steps: tuple[AnyStep, ...] = Field((), max_length=40, description="What is done to the pieces, in order.")
    band: AnyBand = Field(default_factory=NoBand)
    lower: AnyLower
    join: JoinPlan = Field(default_factory=JoinPlan)
    trims: tuple[AnyTrim, ...] = Field((), max_length=10, description="What is added, in order.")
    finish: Finish = Field(default_factory=Finish)
    cloths: Cloths = Field(default_factory=Cloths)
    allowances: Allowances = Field(default_factory=Allowances)
    opening: Opening = Field(default_factory=Opening)
    remarks: KeptText = Field("", max_length=4000)
    cut: AsCut | None = Field(None, description="What its lower part was drawn to, where that is cut already.")

    @model_validator(mode="before")
    @classmethod
    def _in_todays_version(cls, document: Any) -> Any:
        return upgraded(few_enough(document))


def steps_of(steps: Any, version: int) -> tuple[PatternStep, ...]:
    """Steps by themselves, as a recipe of a version has them. Raises ValidationError."""
    return Recipe.model_validate({"version": version, "steps": steps, "lower": {"kind": "circle"}}).steps


def step_of(recipe: Recipe, kind: type[OfKind]) -> tuple[int, OfKind] | None:
    """The first step of a kind that is done, and its place in the list; None where there is none."""
    return next(
        ((place, step) for place, step in enumerate(recipe.steps) if isinstance(step, kind) and not step.off), None
    )


def with_step(recipe: Recipe, *steps: dict[str, Any], first: bool = False) -> dict[str, Any]:
    """The change that puts steps into the list, at its end or first of all."""
    there = [step.model_dump(mode="json") for step in recipe.steps]
    return {"steps": [*steps, *there] if first else [*there, *steps]}


def cut_now(recipe: Recipe) -> dict[str, Any]:
    """The changes that say the lower part is cut as it is now: what was done to it is in it, and is not done again."""
    as_cut = AsCut(**{name: getattr(recipe, name) for name in AsCut.model_fields})
    done = [step.model_dump(mode="json") for step in recipe.steps if step.parts != ("lower",)]
    return {
        "cut": as_cut.model_dump(mode="json"), "steps": done,
        **{f"join.{name}": value for name, value in recipe.join.undone().items()},
    }  # fmt: skip


def not_cut(recipe: Recipe) -> dict[str, Any]:
    """The changes that say it is not cut after all: it follows the bodice again, with what was done to it before."""
    if recipe.cut is None:
        return {}
    before = [step for step in recipe.cut.steps if step.parts == ("lower",)]
    plan = recipe.cut.join.model_dump(mode="json")
    return {
        "cut": None, "steps": [step.model_dump(mode="json") for step in (*recipe.steps, *before)],
        **{f"join.{name}": plan[name] for name in recipe.join.undone()},
    }  # fmt: skip


class UnreadableRecipe(ValueError):  # noqa: N818  (it is not an error of the program)
    """A kept or given document that is no recipe; the sentence names the word and what is wrong with it."""


def read_recipe(document: Any) -> Recipe:
    """A recipe from its document. Raises UnreadableRecipe."""
    try:
        return Recipe.model_validate(document)
    except ValidationError as error:
        first = error.errors()[0]
        where = field_path(first["loc"])
        raise UnreadableRecipe(f"{where}: {sentence(dict(first))}" if where else sentence(dict(first))) from None


UNDRAWN = (MeasuredBodice, NoBodice)
"""Bodices that have no draft to be styled or carried on down."""

PLACES = (
    "figure", "bodice", "band", "lower", "join", "finish", "cloths", "opening", "allowances",
)  # fmt: skip
"""The parts of a recipe in the order of the trade; steps come after the bodice, what is added after the join."""


def spoken_parts(recipe: Recipe, unit: Said) -> list[SpokenPart]:
    """The whole recipe said aloud, part by part, in the order of the trade."""
    listed = {"bodice": "steps", "join": "trims"}
    places: list[str] = []
    for name in PLACES:
        places.append(name)
        if name in listed:
            places += [f"{listed[name]}.{k}" for k in range(len(getattr(recipe, listed[name])))]
    silent: set[str] = set()
    if isinstance(recipe.lower, Gown) and not isinstance(recipe.bodice, UNDRAWN):
        silent |= {"join", "band"}
    said = [say_part(_part(recipe, where), where, unit) for where in places if where not in silent]
    return said if recipe.cut is None else [part.told() if part.where == "lower" else part for part in said]


def _part(recipe: Recipe, where: str) -> Any:
    name, _, place = where.partition(".")
    part = getattr(recipe, name)
    return part[int(place)] if place else part


def changed(recipe: Recipe, changes: dict[str, Any]) -> Recipe:
    """The recipe with some of its words changed, as a remedy gives them: ``{"lower.seam": None}``.

    Raises ValidationError when the result is not a recipe, KeyError for a path it does not have.
    """
    data: dict[str, Any] = recipe.model_dump(mode="json")
    for path, value in changes.items():
        if not put(data, path, value):
            raise KeyError(f"a recipe has no {path}")
    return Recipe.model_validate(data)


MEASURED = ("measures", "second", "rules")
"""Parts of a figure that hold only what was taken: nothing typed there takes a measure away."""


def put(data: dict[str, Any], path: str, value: Any) -> bool:
    """Set one word of a recipe's document by its dotted path; False where there is no such place.

    A measure that is taken away leaves nothing behind, and one that is typed is simulated no longer.
    """
    *parents, last = path.split(".")
    at: Any = data
    for key in parents:
        if isinstance(at, list):
            if not key.isdigit() or int(key) >= len(at):
                return False
            at = at[int(key)]
        elif isinstance(at, dict) and key in at:
            at = at[key]
        else:
            return False
    if len(parents) == 2 and parents[0] == "figure" and parents[1] in MEASURED:
        if not isinstance(at, dict):
            return False
        figure = data["figure"]
        if parents[-1] == "measures":
            figure["simulated"] = [key for key in figure.get("simulated", []) if key != last]
        at.pop(last, None)
        if value is not None:
            at[last] = value
        return True
    if isinstance(at, list):
        if not last.isdigit() or int(last) >= len(at):
            return False
        at[int(last)] = value
        return True
    if not isinstance(at, dict) or last not in at:
        return False
    at[last] = value
    return True
