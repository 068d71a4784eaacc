"""What a recipe makes: made up without saving, with words typed over it, compared, and lengths read."""

from collections.abc import Sequence
from typing import Annotated, Any

from fastapi import APIRouter, Body, HTTPException, Response
from pydantic import AfterValidator, BaseModel, Field

from gentle_hem.api.kept import Asked, found
from gentle_hem.api.screen import compared, screen
from gentle_hem.api.shown import ComparedOut, ScreenOut
from gentle_hem.core.compare import compare_schools
from gentle_hem.core.differences import differences
from gentle_hem.core.make_up import make_up
from gentle_hem.core.names import Document, whole
from gentle_hem.core.recipe import Recipe, cut_now, not_cut
from gentle_hem.core.start import bodice_choices
from gentle_hem.core.typing_over import Refusal, Typed, TypedOver, typed_over
from gentle_hem.core.units import Unit, format_length, parse_length

make = APIRouter(prefix="/api", tags=["make"])

RecipeBody = Annotated[Document, Body()]


class TypedIn(BaseModel):
    """A word as it was typed, and the unit a bare number in it was meant in."""

    path: str = Field(max_length=200)
    value: Annotated[Any, AfterValidator(whole)]
    unit: Unit


class BenchIn(BaseModel):
    """A recipe and everything that has been typed over it since it was last read."""

    recipe: Document
    typed: list[TypedIn] = Field([], max_length=200)


class RefusalOut(BaseModel):
    path: str
    text: str


class BenchOut(BaseModel):
    """What could be read of what was typed, what could not, and the garment the rest makes."""

    recipe: dict[str, Any]
    refused: list[RefusalOut]
    screen: ScreenOut


class DifferenceOut(BaseModel):
    """A word in which two states differ, and what each says."""

    path: str
    part: str
    label: str
    before: str
    after: str


class TwoStates(BaseModel):
    before: Document
    after: Document


class LengthOut(BaseModel):
    mm: float
    text: str


def read_over(recipe: dict[str, Any], typed: list[TypedIn]) -> TypedOver:
    """A recipe with words typed over it."""
    return typed_over(Recipe.model_validate(recipe), [Typed(word.path, word.value, word.unit) for word in typed])


def refusals_out(refused: Sequence[Refusal]) -> list[RefusalOut]:
    """What could not be read, for the screen."""
    return [RefusalOut(path=refusal.path, text=refusal.text) for refusal in refused]


def differences_out(before: Recipe, after: Recipe, asked: Asked) -> list[DifferenceOut]:
    """The differences between two states, said on the asker's tape."""
    return [
        DifferenceOut(path=d.path, part=d.part, label=d.label, before=d.before, after=d.after)
        for d in differences(before, after, asked.tape(after.unit))
    ]


@make.get("/schema/recipe")
def recipe_schema() -> dict[str, Any]:
    """The recipe's JSON schema."""
    return Recipe.model_json_schema()


@make.post("/make-up", response_model=ScreenOut)
def make_up_recipe(recipe: RecipeBody, asked: Asked) -> Response:
    """What a recipe makes, without saving it. Lengths may be text; a bare number in text is in ``unit``."""
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    made = screen(read, make_up(read), asked.tape(read.unit))
    return Response(made.model_dump_json(), media_type="application/json")  # not validated a second time


@make.post("/bench", response_model=BenchOut)
def work(bench: BenchIn, asked: Asked) -> Response:
    """What is typed over a recipe, read word by word, and what the recipe then makes. Nothing is saved."""
    over = read_over(bench.recipe, bench.typed)
    made = BenchOut(
        recipe=over.recipe.model_dump(mode="json"),
        refused=refusals_out(over.refused),
        screen=screen(over.recipe, make_up(over.recipe), asked.tape(over.recipe.unit)),
    )
    return Response(made.model_dump_json(), media_type="application/json")  # not validated a second time


@make.post("/cut")
def cut_or_not(recipe: RecipeBody, asked: Asked) -> dict[str, Any]:
    """The changes that say that a recipe's lower part is cut as it is now; of one that
    is cut, that it is not after all.
    """
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    return cut_now(read) if read.cut is None else not_cut(read)


@make.post("/differences")
def differing(states: TwoStates, asked: Asked) -> list[DifferenceOut]:
    """Every word in which two recipes differ."""
    return differences_out(Recipe.model_validate(states.before), Recipe.model_validate(states.after), asked)


@make.post("/compare/{kind}")
def compare(kind: str, recipe: RecipeBody, asked: Asked) -> ComparedOut:
    """This recipe's bodice over the one another school drafts for the same figure."""
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    other = found(dict(bodice_choices(read, make_up(read))).get(kind), f"bodice as {kind}")
    try:
        return compared(compare_schools(read, other), asked.tape(read.unit))
    except ValueError as wrong:
        raise HTTPException(422, str(wrong)) from None


@make.get("/length")
def read_length(text: str, asked: Asked) -> LengthOut:
    """A length as it was typed, read."""
    tape = asked.tape()
    length = parse_length(text, tape.unit)
    return LengthOut(mm=length, text=format_length(length, tape))
