"""What a new dress can be begun from: families drawn on whoever it is for, her earlier dresses, and who is known."""

import json
from functools import lru_cache
from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from gentle_hem.api.desk import SmallDrawing
from gentle_hem.api.kept import Reading
from gentle_hem.core.block import BODICES
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.not_yet import NoBodice
from gentle_hem.core.block.own import OwnBodice
from gentle_hem.core.families import FAMILIES, family_recipe
from gentle_hem.core.figure import MEASURES, Figure
from gentle_hem.core.make_up import make_up
from gentle_hem.core.units import Unit
from gentle_hem.store.models import Commission, Person
from gentle_hem.store.store import latest_measures, latest_version
from gentle_hem.store.store import people as everyone

beginning = APIRouter(prefix="/api", tags=["beginning"])

OWN = tuple(str(kind.model_fields["kind"].default) for kind in (OwnBodice, MeasuredBodice))
"""Bodices that are the maker's own, and so worth taking over from one dress to the next."""

ASKED = ("bust-not-measured", "measure-estimated")


class FamilyOut(BaseModel):
    """A family of dresses on somebody: its drawing, and which of its measures are still to be taken, in tape order."""

    key: str
    title: str
    noun: str
    """What it is called in a sentence."""
    own_bodice: bool
    """Whether it has a bodice of its own whatever is chosen, as a pinafore has its bib."""
    drawing: SmallDrawing
    missing: list[str]


class BodiceOut(BaseModel):
    kind: str
    title: str


class EarlierOut(BaseModel):
    id: int
    title: str
    own_bodice: bool
    """Whether its bodice is a block of its own, brought in from a file, or measured on paper."""


class BeginningOut(BaseModel):
    """Everything a new dress for a person can be begun from."""

    families: list[FamilyOut]
    bodices: list[BodiceOut]
    people: list[str]
    earlier: list[EarlierOut]
    taken: int
    """How many of her measures are known."""


@beginning.get("/beginning")
def begin_for(session: Reading, person: Annotated[str, Query(max_length=120)] = "") -> BeginningOut:
    """What can be begun from, drawn for a person by her name; for nobody known, on the usual figure."""
    known = session.scalars(select(Person).where(Person.name == person.strip())).first()
    taken = (latest_measures(session, known.id) or {}) if known else {}
    dresses = session.scalars(
        select(Commission).where(Commission.person_id == known.id).order_by(Commission.worked_at.desc())
    ).all() if known else []  # fmt: skip
    return BeginningOut(
        families=_families(json.dumps(taken, sort_keys=True)),
        bodices=[
            BodiceOut(kind=str(kind.model_fields["kind"].default), title=kind.title)
            for kind in BODICES if kind not in (OwnBodice, NoBodice)
        ],
        people=[one.name for one in everyone(session)],
        earlier=[
            EarlierOut(id=row.id, title=row.title, own_bodice=_has_own_bodice(session, row.id)) for row in dresses
        ],
        taken=len(taken.get("measures", {})),
    )  # fmt: skip


def _has_own_bodice(session: Session, commission_id: int) -> bool:
    newest = latest_version(session, commission_id)
    return newest is not None and newest.recipe.get("bodice", {}).get("kind") in OWN


@lru_cache(maxsize=16)
def _families(taken: str) -> list[FamilyOut]:
    """The families on a figure; those of the last few figures are kept."""
    from gentle_hem.core.dressed import drawn_dress
    from gentle_hem.formats.dress import small_drawing

    figure = Figure.model_validate(json.loads(taken))
    made = []
    for family in FAMILIES:
        recipe = family_recipe(family, family.title, figure, Unit.CM)
        garment = make_up(recipe)
        asked = {
            place.recipe.removeprefix("figure.measures.")
            for finding in garment.findings if finding.code in ASKED for place in finding.at
        }  # fmt: skip
        drawing = small_drawing(drawn_dress(recipe, garment))
        made.append(
            FamilyOut(
                key=family.key, title=family.title, noun=family.noun, own_bodice=bool(family.own_bodice),
                drawing=SmallDrawing.model_validate(drawing),
                missing=[name for key, name in MEASURES.items() if key in asked],
            )
        )  # fmt: skip
    return made
