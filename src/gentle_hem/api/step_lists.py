"""Steps kept under a name, and done to another dress."""

from typing import Annotated, Any

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Reading, Writing, found
from gentle_hem.core.names import GivenName
from gentle_hem.core.recipe import CURRENT, UnreadableRecipe, read_recipe, steps_of
from gentle_hem.store.store import drop_step_list, keep_step_list, step_list_called, step_lists

lists = APIRouter(prefix="/api", tags=["steps"])

ListName = Annotated[GivenName, Path(min_length=1, max_length=120)]


class StepListIn(BaseModel):
    """What is to be kept: the steps of a dress, as its recipe has them."""

    steps: list[dict[str, Any]] = Field(min_length=1, max_length=40)


class StepListOut(BaseModel):
    """Steps kept by name: their titles, and the steps themselves as today's recipe has them."""

    name: str
    titles: list[str]
    steps: list[dict[str, Any]]
    unreadable: str = ""
    """Why it cannot be read, where it cannot."""


def _shown(name: str, version: int, steps: list[dict[str, Any]]) -> StepListOut:
    try:
        read = read_recipe({"version": version, "steps": steps, "lower": {"kind": "circle"}}).steps
    except UnreadableRecipe as wrong:
        return StepListOut(name=name, titles=[], steps=[], unreadable=str(wrong))
    return StepListOut(
        name=name, titles=[step.title for step in read], steps=[step.model_dump(mode="json") for step in read]
    )


@lists.get("/step-lists")
def list_step_lists(session: Reading) -> list[StepListOut]:
    """Every list that is kept, by name."""
    return [_shown(row.name, row.version, row.steps) for row in step_lists(session)]


@lists.put("/step-lists/{name}")
def keep_steps(name: ListName, body: StepListIn, session: Writing) -> StepListOut:
    """Steps kept under a name; what was kept under it before is replaced."""
    steps = [step.model_dump(mode="json") for step in steps_of(body.steps, CURRENT)]
    row = keep_step_list(session, name, CURRENT, steps)
    return _shown(row.name, row.version, row.steps)


@lists.delete("/step-lists/{name}", status_code=204)
def drop_steps(name: ListName, session: Writing) -> None:
    """A kept list given up."""
    drop_step_list(session, found(step_list_called(session, name), "list of steps"))
