"""What a dress costs, and the quote for whom it is for."""

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, BeforeValidator, Field
from sqlalchemy.orm import Session

from gentle_hem.api.kept import Asked, Reading, RecordId, Writing, attached, found, stored
from gentle_hem.api.lays import laid_cloths
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.costs import Costs, Extra, OfCloth, Said, Sort, costs, money
from gentle_hem.core.making.notions import notions
from gentle_hem.core.making.operation import School, Work
from gentle_hem.core.making.plan import at_her_pace, plan_of
from gentle_hem.core.names import GivenName, few_enough, file_name
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape
from gentle_hem.formats.paper import paper_for
from gentle_hem.store.costs import costing_of, keep_costing, last_rate, minutes_worked
from gentle_hem.store.making import bench_marks, paces, school_of
from gentle_hem.store.models import Commission
from gentle_hem.store.store import latest_version

costing = APIRouter(prefix="/api/commissions/{commission_id}", tags=["costs"])

Amount = Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)]


class ExtraIn(BaseModel):
    what: GivenName = Field(max_length=120)
    amount: Amount


class CostingIn(BaseModel):
    """What the maker says of the costs of a dress."""

    rate: Amount | None = Field(None, description="What an hour of hers costs.")
    prices: Annotated[dict[Annotated[str, Field(max_length=60)], Amount], BeforeValidator(few_enough)] = Field(
        {}, max_length=60
    )
    hours: Annotated[float, Field(ge=0, le=10_000)] | None = Field(
        None, description="How many hours are counted, where it is not those of the plan."
    )
    extras: list[ExtraIn] = Field([], max_length=40)
    adds: Annotated[float, Field(ge=0, le=500)] = Field(0.0, description="What the workroom adds, per cent.")


class CostLineOut(BaseModel):
    key: str
    sort: Sort
    what: str
    working: str
    price: float | None
    amount: str
    """Nothing where a price is not said yet."""


class CostsOut(BaseModel):
    """What a dress costs, line by line, and what was said of it."""

    said: CostingIn
    lines: list[CostLineOut]
    together: str
    added: str
    total: str
    unpriced: int


def _reckoned(commission_id: int, recipe: Recipe, session: Session, tape: Tape) -> tuple[CostingIn, Costs]:
    said = CostingIn.model_validate(costing_of(session, commission_id) or {"rate": last_rate(session)})
    garment = make_up(recipe)
    plan = plan_of(garment, recipe, School(school_of(session, commission_id) or School.SIDES_FIRST))
    minutes = at_her_pace(plan, {Work(work): pace for work, pace in paces(session).items()})
    done = {key for key, mark in bench_marks(session, commission_id).items() if mark.done_at is not None}
    cloths = [
        OfCloth(role, laid.cloth.name or f"The {role}", laid.bought.text, laid.cloth.price, laid.bought.cost)
        for role, laid in laid_cloths(commission_id, recipe, garment, session, tape).items()
    ]
    left = sum(needed for key, needed in minutes.items() if key not in done)
    made = costs(
        cloths, notions(garment, recipe, plan), minutes_worked(session, commission_id), left,
        Said(said.rate, said.prices, said.hours, [Extra(one.what, one.amount) for one in said.extras], said.adds), tape,
    )  # fmt: skip
    return said, made


@costing.get("/costs")
def costs_of(commission_id: RecordId, session: Reading, asked: Asked) -> CostsOut:
    """What a dress costs as it is saved: its cloth as it is laid, its notions, the hours of its plan."""
    found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    tape = asked.tape(recipe.unit)
    said, made = _reckoned(commission_id, recipe, session, tape)
    return CostsOut(
        said=said, together=money(made.together, tape), added=money(made.added, tape), total=money(made.total, tape),
        unpriced=made.unpriced,
        lines=[
            CostLineOut(
                key=one.key, sort=one.sort, what=one.what, working=one.working, price=one.price,
                amount="" if one.amount is None else money(one.amount, tape),
            )
            for one in made.lines
        ],
    )  # fmt: skip


@costing.put("/costs")
def say_costs(commission_id: RecordId, body: CostingIn, session: Writing, asked: Asked) -> CostsOut:
    """What the maker says of the costs, kept; and what they come to."""
    found(session.get(Commission, commission_id), "commission")
    keep_costing(session, commission_id, body.model_dump(mode="json"))
    return costs_of(commission_id, session, asked)


@costing.get("/quote.pdf", response_class=Response)
def quote(commission_id: RecordId, session: Reading, asked: Asked) -> Response:
    """A plain quote: what is made for whom by when, and what it comes to."""
    from gentle_hem.formats.quote import Quote, to_quote  # here: writing paper is slow to read in

    row = found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    tape = asked.tape(recipe.unit)
    _, made = _reckoned(commission_id, recipe, session, tape)
    share = made.total / made.together if made.together else 1.0
    sums = [
        ("Cloth", made.of(Sort.CLOTH)), ("Notions", made.of(Sort.NOTION)), ("Work", made.of(Sort.HOURS)),
        *((line.what, line.amount or 0.0) for line in made.lines if line.sort is Sort.EXTRA),
    ]  # fmt: skip
    content = to_quote(
        Quote(
            row.title, row.person.name, row.occasion, row.due_on, date.today(),
            [(what, money(amount * share, tape)) for what, amount in sums if amount], money(made.total, tape),
            [line.what for line in made.lines if line.amount is None],
        ),
        paper_for(tape),
    )  # fmt: skip
    headers = {"Content-Disposition": attached(f"{file_name(row.title)} quote.pdf")}
    return Response(content, media_type="application/pdf", headers=headers)
