"""Pieces drawn straight on folded cloth: chalk sheets, fronts and backs together, rings folded in four or eight."""

from fastapi import APIRouter
from pydantic import BaseModel

from gentle_hem.api.kept import Asked
from gentle_hem.api.make import RecipeBody
from gentle_hem.core.cloth.chalk import (
    ChalkPoint,
    ChalkSheet,
    FoldedRing,
    Together,
    chalk,
    chalk_together,
    folded_rings,
    pairs_to_chalk,
)
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length, plain

chalking = APIRouter(prefix="/api", tags=["cloth"])


class ChalkPointOut(BaseModel):
    """A point to be marked: where it stands in the drawing (mm, x from the fold, y from the cut end), and in words."""

    letter: str
    x: float
    y: float
    from_fold: str
    from_cut_end: str
    curved: bool


class TrimOut(BaseModel):
    """What is then cut off one of two that are drawn together."""

    said: str
    points: list[ChalkPointOut]


class ChalkOut(BaseModel):
    """One drawing on folded cloth, in the order of marking."""

    name: str
    said: list[str]
    width: float
    length: float
    points: list[ChalkPointOut]
    trims: list[TrimOut]


class RingOut(BaseModel):
    """A flare marked on cloth folded to a wedge."""

    name: str
    said: list[str]
    wedge: float
    inner: float
    outer: float


class ChalksOut(BaseModel):
    together: list[ChalkOut]
    sheets: list[ChalkOut]
    rings: list[RingOut]


def _point(point: ChalkPoint, tape: Tape) -> ChalkPointOut:
    beyond = point.from_fold < -0.5
    said = format_length(abs(point.from_fold), tape)
    return ChalkPointOut(
        letter=point.letter, x=point.from_fold, y=point.from_cut_end, curved=point.curved,
        from_fold=f"{said} beyond" if beyond else said, from_cut_end=format_length(point.from_cut_end, tape),
    )  # fmt: skip


def _sheet(sheet: ChalkSheet, tape: Tape) -> ChalkOut:
    said = ["Its own fold lies on the fold of the cloth." if sheet.on_fold
            else "Cut through both layers; the fold is only measured from."]  # fmt: skip
    if any(point.from_fold < -0.5 for point in sheet.points):
        said = ["Its centre seam lies on the fold line that is measured from, its allowance beyond."]
    return ChalkOut(
        name=sheet.name, said=said, width=sheet.width, length=sheet.length,
        points=[_point(point, tape) for point in sheet.points], trims=[],
    )  # fmt: skip


def _together(one: Together, tape: Tape) -> ChalkOut:
    drawn = _sheet(one.sheet, tape)
    said = ["Both are cut to this line first."]
    said += [
        f"The {beyond.name} reaches {format_length(beyond.by, tape)} beyond the fold, for its centre seam or zip: lay "
        "its fold so far in."
        for beyond in one.beyond
    ]
    trims = [
        TrimOut(
            said=f"Then from the {trim.name} alone, its {trim.edge}:", points=[_point(p, tape) for p in trim.points]
        )
        for trim in one.trims
    ]
    return drawn.model_copy(update={"said": said, "trims": trims})


FOLDED = {2: "in two", 4: "in four", 8: "in eight"}


def _ring(ring: FoldedRing, tape: Tape) -> RingOut:
    count = "" if ring.rings == 1 else f"{ring.rings} such rings. "
    what = {360.0: "a whole circle", 180.0: "a half circle", 90.0: "a quarter circle"}[ring.sweep]
    return RingOut(
        name=ring.name, wedge=ring.wedge, inner=ring.inner, outer=ring.outer,
        said=[
            f"{count}Cut as {what} from cloth folded {FOLDED[ring.layers]}: {plain(ring.wedge, 1)}° at the tip, "
            f"from cloth {format_length(ring.square, tape)} long a side.",
            f"From the tip {format_length(ring.inner, tape)} all along to the waist's cut line, and "
            f"{format_length(ring.outer, tape)} to the hem's.",
            f"Straight across from fold to fold the hem reaches {format_length(ring.reach, tape)}.",
            "It has no side seams then: where it is slit or opened, give that edge its allowance.",
        ],
    )  # fmt: skip


@chalking.post("/chalk")
def chalk_all(recipe: RecipeBody, asked: Asked) -> ChalksOut:
    """Everything of a dress that is cut from cloth, as it is drawn straight on it."""
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    garment, tape = make_up(read), asked.tape(read.unit)
    drawn = [chalk_together(garment, front, back) for front, back in pairs_to_chalk(garment)]
    whats = dict.fromkeys(one.piece for one in cut_pieces(garment))
    return ChalksOut(
        together=[_together(one, tape) for one in drawn if one is not None],
        sheets=[_sheet(chalk(garment, what), tape) for what in whats],
        rings=[_ring(ring, tape) for ring in folded_rings(garment)],
    )
