"""The studio's people, their measures and the state of their commissions, as data."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from gentle_hem.core.figure import Figure
from gentle_hem.core.parts import INCH_ALLOWANCES, METRIC_ALLOWANCES
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit
from gentle_hem.store import Store
from gentle_hem.store.models import Commission, FigureSet, Person
from gentle_hem.store.store import append_version


@dataclass(frozen=True)
class Player:
    """One of the Saltmarsh Players and her commission."""

    name: str
    measured_on: date
    measures: dict[str, str]
    title: str
    occasion: str
    due_on: date
    unit: Unit
    recipe: dict[str, Any]


def bodice(front: tuple[str, str, str], back: tuple[str, str, str], side: str) -> dict[str, Any]:
    """A measured bodice: centre to dart, dart, dart to side, front and back, and its side seam."""
    edges = [dict(zip(("centre_to_dart", "dart_width", "dart_to_side"), edge, strict=True)) for edge in (front, back)]
    return {"kind": "measured", "front": edges[0], "back": edges[1], "front_side": side, "back_side": side}


PLAYERS = (
    Player(
        "Wren Tolliver", date(2026, 4, 18),
        {"height": "152 cm", "bust_girth": "80 cm", "waist_girth": "62 cm", "hip_girth": "86 cm",
         "waist_to_hip": "18 cm"},
        "Lighthouse picnic blouse", "The Keeper's Daughter, first act", date(2026, 6, 12), Unit.CM,
        {
            "bodice": bodice(("7.6cm", "2.2cm", "8.7cm"), ("7.4cm", "2cm", "7.9cm"), "17.5cm"),
            "lower": {"kind": "circle", "sweep": 360, "length": "16cm", "pieces": 1, "hem": "1cm",
                      "arc_allowance": "3cm"},
        },
    ),
    Player(
        "Corinne Dace", date(2026, 5, 2),
        {"height": "66 in", "bust_girth": "38 in", "waist_girth": "31 in", "hip_girth": "41 1/2 in",
         "waist_to_hip": "8 in"},
        "Schoolroom pinafore", "Chalk and Thunder", date(2026, 7, 3), Unit.INCH,
        {
            "bodice": bodice(("3 3/4in", "1in", "4 3/8in"), ("3 1/2in", "3/4in", "4 1/4in"), "7 3/4in"),
            "lower": {"kind": "circle", "sweep": 270, "length": "24 1/2in", "pieces": 4, "hem": "1/2in"},
        },
    ),
    Player(
        "Bettany Oxley", date(2026, 5, 9),
        {"height": "168 cm", "bust_girth": "122 cm", "waist_girth": "94 cm", "hip_girth": "118 cm",
         "waist_to_hip": "22 cm"},
        "Harbour dance dress", "The Keeper's Daughter, third act", date(2026, 6, 12), Unit.CM,
        {
            "bodice": bodice(("11.2cm", "3.2cm", "13.4cm"), ("10.6cm", "2.4cm", "12.8cm"), "21cm"),
            "lower": {"kind": "circle", "sweep": 180, "length": "66cm", "pieces": 2, "hem": "1.5cm",
                      "seam": "101.2cm"},
        },
    ),
    Player(
        "Isolde Marrin", date(2026, 5, 16),
        {"height": "181 cm", "bust_girth": "92 cm", "waist_girth": "74 cm", "hip_girth": "100 cm",
         "waist_to_hip": "22 cm"},
        "Ball gown", "A Tide for Midsummer, ball scene", date(2026, 6, 26), Unit.CM,
        {
            "bodice": bodice(("9.3cm", "2.5cm", "9.8cm"), ("8.8cm", "2cm", "9.1cm"), "20.5cm"),
            "lower": {"kind": "circle", "sweep": 360, "length": "108cm", "pieces": 2, "hem": "1.5cm"},
        },
    ),
    Player(
        "Odette Fairweather", date(2026, 5, 20),
        {"bust_girth": "104 cm", "waist_girth": "86 cm", "hip_girth": "110 cm"},
        "Sundress", "A Tide for Midsummer, garden scene", date(2026, 7, 10), Unit.CM,
        {
            "bodice": {"kind": "quarters"},
            "lower": {"kind": "circle", "sweep": 180, "length": "60cm", "pieces": 2, "hem": "1.5cm"},
        },
    ),
    Player(
        "Pip Larkham", date(2026, 5, 23),
        {"height": "163 cm", "neck_girth": "33.5 cm", "shoulder_width": "36.5 cm", "shoulder_length": "11.8 cm",
         "across_front": "31 cm", "across_back": "33.5 cm", "bust_girth": "84 cm", "under_bust_girth": "74 cm",
         "waist_girth": "68 cm", "hip_girth": "92 cm", "bust_span": "17 cm", "shoulder_to_bust_point": "24.5 cm",
         "front_waist_length": "41.5 cm", "back_waist_length": "39.5 cm", "waist_to_hip": "19 cm"},
        "Midsummer dance dress", "A Tide for Midsummer, chorus", date(2026, 6, 26), Unit.CM,
        {
            "bodice": {"kind": "proportional"},
            "lower": {"kind": "circle", "sweep": 270, "length": "58cm", "pieces": 2, "hem": "1.5cm"},
        },
    ),
)  # fmt: skip


def recipe_of(player: Player) -> Recipe:
    """A player's recipe, her figure in it."""
    allowances = METRIC_ALLOWANCES if player.unit is Unit.CM else INCH_ALLOWANCES
    return Recipe.model_validate(
        {
            "name": player.title,
            "unit": player.unit,
            "figure": Figure.model_validate(
                {"name": player.name, "taken_on": str(player.measured_on), "measures": player.measures}
            ),
            "allowances": allowances,
            **player.recipe,
        }
    )


def fill(store: Store) -> None:
    """Put the studio's people and commissions into an empty store, the last one on top of the desk."""
    with store.session() as session:
        for player in PLAYERS:
            recipe = recipe_of(player)
            person = Person(name=player.name, remarks="")
            session.add(person)
            session.flush()
            session.add(
                FigureSet(person_id=person.id, taken_on=player.measured_on, measures=dict(recipe.figure.measures))
            )
            commission = Commission(
                person_id=person.id, title=player.title, occasion=player.occasion, due_on=player.due_on
            )
            session.add(commission)
            session.flush()
            append_version(session, commission.id, recipe.model_dump(mode="json"))
