"""Families of dresses to begin from: each a whole recipe, drawn on whoever it is for.

circle dress · half circle · gathered · pleated · tiered · high and low · handkerchief
A-line · straight, with a band · princess dress · gown cut in one · jumpsuit · peplum blouse · pinafore
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.not_yet import NoBodice
from gentle_hem.core.figure import Figure
from gentle_hem.core.parts import INCH_ALLOWANCES, METRIC_ALLOWANCES, BodicePart
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit, inches


@dataclass(frozen=True)
class Family:
    """A kind of dress: what it is called for short and in a sentence, and the parts that make it one. ``long`` is its
    length in cm and in inches, round numbers in either.
    """

    key: str
    title: str
    noun: str
    lower: dict[str, Any]
    long: tuple[float, float] | None = (60, 24)
    parts: dict[str, Any] = field(default_factory=dict)
    steps: tuple[dict[str, Any], ...] = ()
    own_bodice: str = ""
    """The kind of bodice it has whatever is chosen: a pinafore has its bib."""


PRINCESS = {"kind": "princess", "on": "both", "start": "shoulder"}

FAMILIES: tuple[Family, ...] = (
    Family("circle", "circle dress", "circle dress", {"kind": "circle", "sweep": 360}),
    Family("half_circle", "half circle", "half circle dress", {"kind": "circle", "sweep": 180}),
    Family("gathered", "gathered", "gathered dress", {"kind": "gathered"}),
    Family("pleated", "pleated", "pleated dress", {"kind": "pleated"}),
    Family("tiered", "tiered", "tiered dress", {"kind": "tiered"}, (78, 31)),
    Family("high_low", "high and low", "high and low dress", {"kind": "high_low"}, None),
    Family("handkerchief", "handkerchief", "handkerchief dress", {"kind": "handkerchief"}, None),
    Family("a_line", "A-line", "dress in an A-line", {"kind": "a_line"}),
    Family("straight", "straight, with a band", "straight dress with a band", {"kind": "straight"}, (58, 23),
           {"band": {"kind": "waistband"}}),
    Family("princess", "princess dress", "princess dress", {"kind": "circle", "sweep": 120}, (70, 28),
           steps=(PRINCESS,)),
    Family("gown", "gown cut in one", "gown cut in one", {"kind": "gown", "hem_in": -150}, (100, 40),
           steps=(PRINCESS,)),
    Family("jumpsuit", "jumpsuit", "jumpsuit", {"kind": "trousers"}, None),
    Family("peplum", "peplum blouse", "peplum blouse", {"kind": "peplum"}, None),
    Family("pinafore", "pinafore", "pinafore", {"kind": "gathered"}, own_bodice="bib"),
)  # fmt: skip

BY_KEY = {family.key: family for family in FAMILIES}

USUAL_DRAFT = {"kind": "quarters"}
"""How a bodice is drafted for a drawing while no way has been chosen."""


def family_recipe(
    family: Family, name: str, figure: Figure, unit: Unit, bodice: BodicePart | dict[str, Any] | None = None
) -> Recipe:
    """A recipe of a family to begin from, on somebody's measures. Raises ValidationError for a bodice that is none."""
    metric = unit is Unit.CM
    lower = dict(family.lower)
    if family.long is not None:
        lower["length"] = family.long[0] * 10 if metric else inches(family.long[1])
    if isinstance(bodice, BodicePart):
        bodice = bodice.model_dump(mode="json")
    chosen = {"kind": family.own_bodice} if family.own_bodice else bodice or USUAL_DRAFT
    drawn = chosen.get("kind") not in (_kind(MeasuredBodice), _kind(NoBodice))
    allowances = METRIC_ALLOWANCES if metric else INCH_ALLOWANCES
    return Recipe.model_validate(
        {
            "name": name, "unit": unit.value, "figure": figure.model_dump(mode="json"), "bodice": chosen,
            "lower": lower, "allowances": allowances.model_dump(mode="json"),
            "steps": list(family.steps) if drawn else [], **family.parts,
        }
    )  # fmt: skip


def _kind(part: type[BodicePart]) -> str:
    return str(part.model_fields["kind"].default)
