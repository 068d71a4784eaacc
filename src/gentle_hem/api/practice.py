"""The practice bench: a problem on one of the demo studio's garments, an answer looked at, and what comes next."""

from functools import cache
from typing import Annotated

from fastapi import APIRouter, HTTPException
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Asked, Asker
from gentle_hem.core.make_up import make_up
from gentle_hem.core.practice import (
    LEVELS,
    Kind,
    NotAnAnswer,
    Problem,
    Study,
    judged,
    level_of,
    next_kind,
    problem,
)
from gentle_hem.core.units import format_length
from gentle_hem.core.walk import WAIST_SEAM
from gentle_hem.demo.studio import recipe_of, works

practice = APIRouter(prefix="/api/practice", tags=["practice"])

Number = Annotated[int, Field(ge=0, le=2**31)]
Level = Annotated[int, Field(ge=1, le=LEVELS)]


class AnsweredIn(BaseModel):
    kind: Kind
    right: bool


class NextIn(BaseModel):
    """What has been answered so far, the first first; and a number the problem is found again by."""

    answers: list[AnsweredIn] = Field([], max_length=400)
    number: Number


class ProblemOut(BaseModel):
    """A problem: its kind, level and number find it again."""

    kind: Kind
    level: int
    levels: int
    number: int
    says: str
    asks: str
    counts: bool


class AnswerIn(BaseModel):
    """An answer as it was typed."""

    kind: Kind
    level: Level
    number: Number
    typed: str = Field(max_length=60)


class JudgedOut(BaseModel):
    """An answer looked at: the right one, its working line by line, and the slip that was probably made."""

    right: bool
    answer: str
    slip: str
    workings: list[str]


@cache
def _studies() -> tuple[Study, ...]:
    """The demo studio's garments with the waist seams they have."""
    found = []
    for player, work in works():
        garment = make_up(recipe_of(player, work))
        for walked in garment.joins:
            if walked.name == WAIST_SEAM:
                found.append(Study(work.title, walked.times * walked.upper.length))
    return tuple(found)


def _problem(kind: Kind, level: int, number: int, asked: Asker) -> Problem:
    return problem(kind, level, number, _studies(), asked.tape())


@practice.post("/next")
def next_problem(body: NextIn, asked: Asked) -> ProblemOut:
    """The next problem, at the level her answers have led to."""
    answers = [(one.kind, one.right) for one in body.answers]
    kind = next_kind(answers)
    level = level_of(kind, answers)
    made = _problem(kind, level, body.number, asked)
    return ProblemOut(
        kind=kind, level=level, levels=LEVELS, number=body.number, says=made.says, asks=made.asks, counts=made.counts
    )


@practice.post("/answer")
def look_at_answer(body: AnswerIn, asked: Asked) -> JudgedOut:
    """An answer looked at, with the working of the right one."""
    tape = asked.tape()
    made = _problem(body.kind, body.level, body.number, asked)
    try:
        found = judged(made, body.typed, tape)
    except NotAnAnswer as wrong:
        raise HTTPException(422, str(wrong)) from None
    return JudgedOut(
        right=found.right, slip=found.slip,
        answer=f"{made.answer:.0f}" if made.counts else format_length(made.answer, tape),
        workings=[f"{one.label}: {one.formula} — {one.line(tape)}" for one in made.workings],
    )  # fmt: skip
