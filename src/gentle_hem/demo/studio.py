"""The studio's people, their measures and the state of their commissions, as data."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from typing import Any

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.figure import Figure
from gentle_hem.core.parts import INCH_ALLOWANCES, METRIC_ALLOWANCES
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit
from gentle_hem.demo.bench import fit, keep_books, put_to_work
from gentle_hem.demo.cloths import SHELF, cloths_for
from gentle_hem.store import Store
from gentle_hem.store.cloths import put_on_shelf
from gentle_hem.store.models import Commission, FigureSet, Person
from gentle_hem.store.slips import write_slip
from gentle_hem.store.store import append_version


@dataclass(frozen=True)
class Work:
    """A commission: what it is for, when it is due, and its recipe but for the figure."""

    title: str
    occasion: str
    due_on: date
    recipe: dict[str, Any]


@dataclass(frozen=True)
class Player:
    """One of the Saltmarsh Players: her measures, the days they were taken, and what is made for her.

    ``earlier`` holds older sets as changes to the newest one.
    """

    name: str
    measured_on: date
    measures: dict[str, str]
    unit: Unit
    works: tuple[Work, ...]
    earlier: tuple[tuple[date, dict[str, str]], ...] = ()


def bodice(front: tuple[str, str, str], back: tuple[str, str, str], side: str) -> dict[str, Any]:
    """A measured bodice: centre to dart, dart, dart to side, front and back, and its side seam."""
    edges = [dict(zip(("centre_to_dart", "dart_width", "dart_to_side"), edge, strict=True)) for edge in (front, back)]
    return {"kind": "measured", "front": edges[0], "back": edges[1], "front_side": side, "back_side": side}


KEEPER, CHALK, TIDE = "The Keeper's Daughter", "Chalk and Thunder", "A Tide for Midsummer"

PLAYERS = (
    Player(
        "Wren Tolliver", date(2026, 4, 18),
        {"height": "152 cm", "neck_girth": "32.5 cm", "bust_girth": "80 cm", "under_bust_girth": "70 cm",
         "waist_girth": "62 cm",
         "hip_girth": "86 cm", "bust_span": "16.2 cm", "shoulder_width": "35 cm", "shoulder_length": "11.2 cm",
         "across_front": "29.5 cm", "across_back": "32 cm", "shoulder_to_bust_point": "23 cm",
         "front_waist_length": "38.5 cm",
         "back_waist_length": "36.5 cm", "waist_to_hip": "18 cm", "waist_to_floor": "93 cm",
         "upper_arm_girth": "25.5 cm"},
        Unit.CM,
        (
            Work("Kite dress", f"{TIDE}, garden scene", date(2026, 7, 10), {
                "bodice": {"kind": "quarters_cm"},
                "steps": [{"kind": "neckline", "shape": "v", "depth": "16cm"}, {"kind": "facing"}],
                "lower": {"kind": "handkerchief", "length": "46cm"},
                "trims": [{"kind": "bias_binding", "edge": "armholes"}],
            }),
            Work("Lantern dress", f"{TIDE}, night scene", date(2026, 7, 10), {
                "bodice": {"kind": "two_lengths"}, "steps": [{"kind": "ends", "where": "dropped", "depth": "6cm"}],
                "lower": {"kind": "gored_circle", "count": 8, "sweep": 270, "length": "42cm"},
                "trims": [{"kind": "spiral_flounce", "width": "9cm"}],
            }),
            Work("Lighthouse picnic blouse", f"{KEEPER}, first act", date(2026, 6, 12), {
                "bodice": bodice(("7.6cm", "2.2cm", "8.7cm"), ("7.4cm", "2cm", "7.9cm"), "17.5cm"),
                "lower": {"kind": "circle", "sweep": 360, "length": "16cm", "pieces": 1, "hem": "1cm",
                          "arc_allowance": "3cm"},
            }),
        ),
    ),
    Player(
        "Corinne Dace", date(2026, 5, 2),
        {"height": "66 in", "neck_girth": "14 3/4 in", "bust_girth": "38 in", "under_bust_girth": "33 1/4 in",
         "waist_girth": "31 in", "hip_girth": "41 1/2 in", "bust_span": "7 1/2 in", "shoulder_width": "15 1/2 in",
         "shoulder_length": "4 7/8 in", "shoulder_to_bust_point": "10 3/4 in", "front_waist_length": "17 1/2 in",
         "back_waist_length": "16 1/4 in", "waist_to_hip": "8 in", "waist_to_floor": "40 1/2 in",
         "upper_arm_girth": "11 3/4 in"},
        Unit.INCH,
        (
            Work("Schoolmistress's dress", f"{CHALK}, second act", date(2026, 7, 3), {
                "bodice": {"kind": "two_lengths"},
                "lower": {"kind": "pleated", "pleats": 18, "style": "inverted", "fullness": 2.2, "length": "25in",
                "hem": "2in"},
                "trims": [{"kind": "sleeve", "length": "17in", "cap_ease": "1in"}, {"kind": "stand_collar",
                "height": "1 1/2in"}, {"kind": "sleeve_rings", "rings": 2, "width": "3in"}],
            }),
            Work("Chalk-dust pinafore", f"{CHALK}, first act", date(2026, 7, 3), {
                "bodice": {"kind": "bib", "height": "9in", "top": "8in", "bottom": "10in", "band": "1 1/2in"},
                "lower": {"kind": "gathered", "fullness": 1.8, "length": "24in", "hem": "2in"},
            }),
            Work("Schoolroom pinafore", CHALK, date(2026, 7, 3), {
                "bodice": bodice(("3 3/4in", "1in", "4 3/8in"), ("3 1/2in", "3/4in", "4 1/4in"), "7 3/4in"),
                "lower": {"kind": "circle", "sweep": 270, "length": "24 1/2in", "pieces": 4, "hem": "1/2in"},
            }),
        ),
        ((date(2026, 2, 14), {"waist_girth": "30 1/2 in", "hip_girth": "41 in"}),),
    ),
    Player(
        "Bettany Oxley", date(2026, 5, 9),
        {"height": "168 cm", "neck_girth": "40 cm", "bust_girth": "122 cm", "under_bust_girth": "101 cm",
         "waist_girth": "94 cm",
         "hip_girth": "118 cm", "bust_span": "23.5 cm", "shoulder_width": "41 cm", "shoulder_length": "12.6 cm",
         "shoulder_to_bust_point": "31 cm", "front_waist_length": "49.5 cm", "back_waist_length": "43 cm",
         "waist_to_hip": "22 cm", "waist_to_floor": "103 cm", "upper_arm_girth": "37 cm", "head_girth": "57 cm"},
        Unit.CM,
        (
            Work("Harbour master's suit dress", f"{KEEPER}, second act", date(2026, 6, 12), {
                "bodice": {"kind": "two_lengths", "waist_ease": "2cm"}, "band": {"kind": "waistband", "width": "5cm"},
                "lower": {"kind": "straight", "length": "62cm", "taper": "2.5cm", "side_in": "3cm"},
                "trims": [{"kind": "vent"}],
            }),
            Work("Peplum jacket-blouse", f"{KEEPER}, first act", date(2026, 6, 12), {
                "bodice": {"kind": "two_lengths", "waist_ease": "3cm"}, "steps": [{"kind": "stand", "width": "2.5cm"}],
                "lower": {"kind": "peplum", "style": "double", "length": "18cm"},
                "trims": [{"kind": "sleeve", "style": "puff", "length": "26cm"}], "opening": {"place": "side"},
            }),
            Work("Harbour dance dress", f"{KEEPER}, third act", date(2026, 6, 12), {
                "bodice": bodice(("11.2cm", "3.2cm", "13.4cm"), ("10.6cm", "2.4cm", "12.8cm"), "21cm"),
                "lower": {"kind": "circle", "sweep": 180, "length": "66cm", "pieces": 2, "hem": "1.5cm",
                          "seam": "101.2cm"},
            }),
        ),
        ((date(2026, 3, 7), {"waist_girth": "96 cm"}),),
    ),
    Player(
        "Isolde Marrin", date(2026, 5, 16),
        {"height": "181 cm", "neck_girth": "36 cm", "bust_girth": "92 cm", "under_bust_girth": "79 cm",
         "waist_girth": "74 cm",
         "hip_girth": "100 cm", "bust_span": "18.4 cm", "shoulder_width": "39.5 cm", "shoulder_length": "12.8 cm",
         "across_front": "33 cm", "across_back": "35.5 cm", "shoulder_to_bust_point": "28 cm",
         "shoulder_to_under_bust": "35.5 cm", "front_waist_length": "47 cm", "back_waist_length": "44.5 cm",
         "waist_to_hip": "22 cm", "waist_to_knee": "64 cm", "waist_to_floor": "113 cm", "heel_height": "4 cm",
         "off_shoulder_girth": "103 cm"},
        Unit.CM,
        (
            Work("Mermaid finale gown", f"{TIDE}, finale", date(2026, 6, 26), {
                "bodice": {"kind": "two_lengths"},
                "steps": [{"kind": "neckline", "shape": "sweetheart", "depth": "17cm"},
                          {"kind": "princess", "on": "front", "start": "armhole", "share": 0.5},
                          {"kind": "princess", "on": "back", "start": "shoulder", "share": 0.5}],
                "lower": {"kind": "gown", "length": "106cm", "knee": "shaped", "knee_in": "3cm", "hem_in": "-2cm"},
                "trims": [{"kind": "godets", "count": 6, "angle": 60, "height": "38cm"},
                          {"kind": "hem_ruffle", "place": "cut_off", "height": "20cm", "fullness": 2}],
            }),
            Work("Storm queen's gown", f"{TIDE}, storm scene", date(2026, 6, 26), {
                "bodice": {"kind": "two_lengths"},
                "steps": [{"kind": "front_dart", "dart": "bust", "to": "waist"},
                          {"kind": "top", "top": "off_shoulder"}, {"kind": "facing"}],
                "lower": {"kind": "gores", "count": 8, "flare_from": "trumpet", "trumpet": "58cm", "length": "92cm",
                          "hem_sweep": "2.8m"},
                "trims": [{"kind": "cape"}, {"kind": "ring_flounce", "rings": 7, "width": "16cm"}],
            }),
            Work("Ball gown", f"{TIDE}, ball scene", date(2026, 6, 26), {
                "bodice": bodice(("9.3cm", "2.5cm", "9.8cm"), ("8.8cm", "2cm", "9.1cm"), "20.5cm"),
                "lower": {"kind": "circle", "sweep": 360, "length": "108cm", "pieces": 2, "hem": "1.5cm"},
            }),
        ),
        ((date(2026, 1, 24), {"waist_girth": "73 cm"}), (date(2026, 3, 28), {"waist_girth": "75.5 cm",
         "hip_girth": "101 cm"})),
    ),
    Player(
        "Odette Fairweather", date(2026, 5, 20),
        {"bust_girth": "104 cm", "waist_girth": "86 cm", "hip_girth": "110 cm"},
        Unit.CM,
        (
            Work("Tiered beach dress", f"{TIDE}, beach scene", date(2026, 7, 10), {
                "bodice": {"kind": "quarters", "front_dart": "3cm"},
                "steps": [{"kind": "top", "top": "strapless"},
                          {"kind": "straps", "way": "criss_cross", "width": "5cm"}],
                "lower": {"kind": "tiered", "tiers": 3, "length": "78cm", "growth": 1.2},
            }),
            Work("Market-day dress", f"{KEEPER}, market scene", date(2026, 6, 12), {
                "bodice": {"kind": "quarters"}, "steps": [{"kind": "ends", "where": "midriff"}],
                "lower": {"kind": "a_line", "length": "60cm", "flare": "9cm", "side_in": "3cm"},
                "trims": [{"kind": "side_ruffle", "height": "7cm"},
                          {"kind": "pocket", "shape": "pointed", "width": "12cm", "height": "13cm", "down": "16cm",
                           "beside": "6cm", "flap": "4.5cm"}],
            }),
            Work("Sundress", f"{TIDE}, garden scene", date(2026, 7, 10), {
                "bodice": {"kind": "quarters"},
                "lower": {"kind": "circle", "sweep": 180, "length": "60cm", "pieces": 2, "hem": "1.5cm"},
            }),
        ),
    ),
    Player(
        "Pip Larkham", date(2026, 5, 20),
        {"height": "163 cm", "neck_girth": "33.5 cm", "shoulder_width": "36.5 cm", "shoulder_length": "11.8 cm",
         "across_front": "31 cm", "across_back": "33.5 cm", "bust_girth": "84 cm", "under_bust_girth": "74 cm",
         "waist_girth": "68 cm", "hip_girth": "92 cm", "bust_span": "17 cm", "shoulder_to_bust_point": "24.5 cm",
         "front_waist_length": "41.5 cm", "back_waist_length": "39.5 cm", "waist_to_hip": "19 cm"},
        Unit.CM,
        (
            Work("Lighthouse keeper's jumpsuit", f"{KEEPER}, title part", date(2026, 6, 12), {
                "bodice": {"kind": "quarters_cm", "waist_ease": "6cm"},
                "steps": [{"kind": "yoke", "on": "front", "depth": "12cm"}, {"kind": "stand", "width": "2.5cm"}],
                "lower": {"kind": "trousers", "length": "99cm", "hem_round": "44cm", "side_in": "3cm",
                "crotch_ease": "2cm"},
                "trims": [{"kind": "stand_collar", "height": "4cm"}], "opening": {"place": "side"},
            }),
            Work("Tide dance dress", f"{TIDE}, chorus", date(2026, 6, 26), {
                "bodice": {"kind": "two_lengths"},
                "steps": [{"kind": "princess", "on": "front", "start": "shoulder", "share": 0.5},
                          {"kind": "laced", "width": "6cm", "by": "eyelets", "pitch": "2cm"}],
                "lower": {"kind": "high_low", "front": "45cm", "back": "78cm", "sweep": 270},
            }),
            Work("Fisher chorus dress", f"{KEEPER}, chorus", date(2026, 6, 12), {
                "bodice": {"kind": "body_length"}, "band": {"kind": "yoke", "deep": "11cm"},
                "lower": {"kind": "gathered", "fullness": 2, "length": "48cm"},
                "trims": [{"kind": "hem_ruffle", "height": "9cm"}, {"kind": "belt"}, {"kind": "seam_pocket"}],
            }),
            Work("Midsummer dance dress", f"{TIDE}, chorus", date(2026, 6, 26), {
                "bodice": {"kind": "proportional"},
                "lower": {"kind": "circle", "sweep": 270, "length": "58cm", "pieces": 2, "hem": "1.5cm"},
            }),
        ),
    ),
)  # fmt: skip


def works() -> list[tuple[Player, Work]]:
    """Every commission with whose it is, the plainest of each player's last, so that they lie on top of the desk."""
    most = max(len(player.works) for player in PLAYERS)
    return [(p, p.works[k - most + len(p.works)]) for k in range(most) for p in PLAYERS if k - most + len(p.works) >= 0]


FIRST_DUE = min(work.due_on for player in PLAYERS for work in player.works)
AHEAD = timedelta(days=15)
"""The first first night is so far ahead, or up to a week further, whenever the studio is opened."""


def later_by(today: date) -> timedelta:
    """By how many whole weeks the season as it is written lies earlier than it is shown: a Friday stays a Friday."""
    return timedelta(weeks=-((FIRST_DUE - today - AHEAD).days // 7))


def figure_of(player: Player, later: timedelta = timedelta()) -> Figure:
    """A player's newest measures."""
    return Figure.model_validate(
        {"name": player.name, "taken_on": str(player.measured_on + later), "measures": player.measures}
    )


def recipe_of(player: Player, work: Work, later: timedelta = timedelta()) -> Recipe:
    """A commission's recipe, the player's figure in it."""
    allowances = METRIC_ALLOWANCES if player.unit is Unit.CM else INCH_ALLOWANCES
    return Recipe.model_validate(
        {
            "name": work.title,
            "unit": player.unit,
            "figure": figure_of(player, later),
            "allowances": allowances,
            "cloths": cloths_for(work.title),
            **work.recipe,
        }
    )


REMARKS = {
    "Wren Tolliver": "Still growing: 4 cm in the sides. No cords at the neck.",
    "Bettany Oxley": "Sings: room for a breath at the under-bust. Never wool on the skin.",
    "Corinne Dace": "Inches. Likes pockets, and a hem that clears her boots.",
    "Isolde Marrin": "Dances on heels of 4 cm; measures with the shoes on.",
}
"""What is to be known of some of them."""


def fill(store: Store, today: date | None = None) -> None:
    """Put the studio's people, their dated measures and their commissions into an empty store, the season ahead."""
    later = later_by(today or date.today())
    with store.writing() as session:
        for name, said in SHELF.items():
            put_on_shelf(session, name, Cloth.model_validate({**said, "name": name}).model_dump(mode="json"))
        people: dict[str, Person] = {}
        for player in PLAYERS:
            person = Person(name=player.name, remarks=REMARKS.get(player.name, ""))
            session.add(person)
            session.flush()
            people[player.name] = person
            newest = figure_of(player)
            for day, changes in (*player.earlier, (player.measured_on, {})):
                older = Figure.model_validate({"measures": {**player.measures, **changes}})
                measures = dict(older.measures if changes else newest.measures)
                session.add(FigureSet(person_id=person.id, taken_on=day + later, measures=measures))
        for player, work in works():
            commission = Commission(
                person_id=people[player.name].id, title=work.title, occasion=work.occasion,
                due_on=work.due_on + later,
            )  # fmt: skip
            session.add(commission)
            session.flush()
            append_version(session, commission.id, recipe_of(player, work, later).model_dump(mode="json"))
            session.refresh(commission)
            write_slip(session, commission)
        now = datetime.combine(today, time(9)) if today else datetime.now().replace(second=0, microsecond=0)
        fit(session, now.date())
        put_to_work(session, now)
        keep_books(session, now.date())
