"""What the screen is told of a garment."""

import random
from copy import deepcopy

import pytest
from fastapi.testclient import TestClient

from conftest import BODICE, FIGURE, a_recipe, drafted_recipe
from gentle_hem.api.app import create_app
from gentle_hem.api.screen import screen, signed, stage_of
from gentle_hem.core.findings import Place, note, warn
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.refusals import field_path
from gentle_hem.core.sentences import spoken
from gentle_hem.core.steps import STEPS
from gentle_hem.core.units import Unit, inches
from gentle_hem.demo.studio import recipe_of, works
from gentle_hem.store import Store
from long import examples


def shown(recipe, unit=Unit.CM):
    return screen(recipe, make_up(recipe), unit)


def test_ribbon_of_a_waist_that_meets():
    [join] = [one for one in shown(a_recipe()).joins if one.between_sections]
    assert join.sentence == "The waist meets."
    assert join.meets
    assert {tie.state for tie in join.ties} == {"meets"}
    assert join.upper.whole == join.lower.whole == "74.0 cm"
    assert [section.upper for section in join.sections] == ["9.3 cm", "9.8 cm", "9.1 cm", "8.8 cm"]
    assert join.remedies == []


def test_ribbon_of_a_waist_that_does_not():
    [join] = [one for one in shown(a_recipe(lower={"seam": "79cm"}), Unit.INCH).joins if one.between_sections]
    assert join.sentence == "The skirt is 2 in longer than the bodice."
    assert join.whole_difference == "+2 in"
    assert join.ties[-1].state == "off"
    assert [section.state for section in join.sections] == ["off"] * 4
    assert [remedy.code for remedy in join.remedies][:2] == ["new-radius", "darts"]


def test_ribbon_of_an_eased_waist():
    recipe = a_recipe(lower={"seam": "74.6cm"}, join={"ease": "0.6cm"})
    [join] = [one for one in shown(recipe).joins if one.between_sections]
    assert join.sentence == "The waist meets with 0.6 cm of ease."
    assert join.meets


def test_landmarks_within_six_millimetres_are_hidden_not_off():
    bodice = {"front": {"centre_to_dart": 95, "dart_to_side": 95}, "back": {"centre_to_dart": 90, "dart_to_side": 90}}
    [join] = [one for one in shown(a_recipe(bodice=bodice, lower={"share": "even"})).joins if one.between_sections]
    assert next(tie.state for tie in join.ties if tie.name == "side seam") == "hidden"


@pytest.mark.parametrize(
    ("value", "unit", "text"),
    [
        (14, Unit.CM, "+1.4 cm"),
        (-14, Unit.CM, "-1.4 cm"),
        (0.2, Unit.CM, "0.0 cm"),
        (-0.2, Unit.CM, "0.0 cm"),
        (inches(0.5), Unit.INCH, "+1/2 in"),
        (0.1, Unit.INCH, "0 in"),
    ],
)
def test_differences_carry_their_sign(value, unit, text):
    assert signed(value, unit) == text


@pytest.mark.parametrize(
    ("finding", "stage"),
    [
        (warn("x", "X.", Place(recipe="figure.measures.bust_girth")), "figure"),
        (warn("x", "X.", Place(recipe="bodice.front_side")), "bodice"),
        (warn("x", "X.", Place(recipe="steps.0.depth")), "bodice"),
        (warn("x", "X.", Place(piece="bodice front")), "bodice"),
        (warn("x", "X.", Place(recipe="lower.length")), "lower"),
        (warn("waist-does-not-meet", "X.", Place(piece="bodice front")), "join"),
        (note("x", "X."), "lower"),
    ],
)
def test_findings_belong_to_a_stage_of_the_job(finding, stage):
    assert stage_of(finding, make_up(a_recipe())) == stage


def test_edges_know_their_mates_both_ways():
    sheet = shown(a_recipe()).sheet
    edges = {(p.name, e.name): e for p in sheet.pieces for e in p.edges}
    [mate] = edges["skirt front", "side"].mates
    assert (mate.piece, mate.edge, mate.text) == ("skirt back", "side", "meets, 0.0 cm")
    [back] = edges["skirt back", "side"].mates
    assert (back.piece, back.edge) == ("skirt front", "side")
    assert edges["skirt front", "hem"].mates == []
    [own] = edges["skirt back", "centre back"].mates
    assert own.piece == "skirt back"


def test_a_drafted_bodice_can_be_played_and_a_measured_one_cannot():
    assert shown(a_recipe()).draft is None
    drafted = shown(Recipe.model_validate({"bodice": {"kind": "proportional"}, "lower": {"kind": "circle"}}))
    assert drafted.draft is not None
    left, _, width, _ = drafted.draft.box
    for step in drafted.draft.steps:
        for point in step.points:
            assert left - 1 <= point.x <= left + width + 1
    assert {step.half for step in drafted.draft.steps} == {"front", "back"}


def test_every_bodice_offered_makes_a_garment():
    recipe = a_recipe()
    for choice in shown(recipe).bodices:
        other = Recipe.model_validate({**recipe.model_dump(mode="json"), "bodice": choice.bodice})
        assert make_up(other).pieces
        assert other.bodice.title == choice.title


def test_field_paths_leave_out_the_kinds():
    assert field_path(("bodice", "measured", "front", "dart_width")) == "bodice.front.dart_width"
    assert field_path(("body", "lower", "circle", "sweep")) == "lower.sweep"
    assert field_path(()) == ""


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    store = Store(tmp_path_factory.mktemp("fuzz"))
    with TestClient(create_app(store), base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client


ODD = [
    None,
    "",
    "abc",
    "½",
    "1/0",
    -1,
    0,
    1e-9,
    1e9,
    float(10**300),
    True,
    [],
    {},
    "12 in",
    "3' 4",
    "9" * 500,
    "\x00",
    "∞",
    4.5,
]


def places_of(value, path=()):
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from places_of(inner, (*path, key))
    yield path


@pytest.mark.parametrize("kind", ["measured", "quarters", "two_lengths", "proportional"])
def test_odd_values_anywhere_are_made_up_or_refused_in_a_sentence_never_a_fault(client, kind):
    bodice = BODICE if kind == "measured" else {"kind": kind}
    whole = Recipe.model_validate({"bodice": bodice, "lower": {"kind": "circle"}}).model_dump(mode="json")
    chance = random.Random(kind)
    paths = [path for path in places_of(whole) if path]
    answers = {200: 0, 422: 0}
    for _ in range(examples(100, 1_000)):
        recipe = Recipe.model_validate({"bodice": bodice, "lower": {"kind": "circle"}}).model_dump(mode="json")
        for path in chance.sample(paths, 1):
            target = recipe
            for key in path[:-1]:
                target = target.get(key) if isinstance(target, dict) else None
            if isinstance(target, dict):
                target[path[-1]] = deepcopy(chance.choice(ODD))
        answer = client.post("/api/make-up?unit=cm", json=recipe)
        assert answer.status_code in answers, (answer.status_code, recipe)
        answers[answer.status_code] += 1
        if answer.status_code == 422:
            assert all(len(error["text"]) > 5 for error in answer.json()["errors"])
    assert min(answers.values()) > 3, "both outcomes are exercised"


@pytest.mark.parametrize(("player", "work"), works(), ids=lambda one: getattr(one, "title", ""))
def test_every_demo_commission_can_be_shown_and_its_remedies_sent_back(client, player, work):
    recipe = recipe_of(player, work).model_dump(mode="json")
    shown = client.post("/api/make-up", json=recipe).json()
    assert shown["joins"] or shown["recipe"]["lower"]["kind"] == "gown"
    assert {choice["kind"] for choice in shown["lowers"]} >= {"circle", "gown", "trousers"}


def test_remedies_that_add_something_reach_the_screen(client):
    recipe = {"figure": {"measures": FIGURE}, "bodice": {"kind": "two_lengths"}, "lower": {"kind": "gown"}}
    shown = client.post("/api/make-up", json=recipe).json()
    narrow = next(f for f in shown["findings"] if f["code"] == "hem-too-narrow-to-walk")
    slit = next(r for r in narrow["remedies"] if r["code"] == "slit")
    again = client.post("/api/make-up", json={**recipe, **slit["changes"]}).json()
    assert "hem-too-narrow-to-walk" not in [f["code"] for f in again["findings"]]


def test_every_other_lower_part_offered_makes_up(client):
    shown = client.post("/api/make-up", json={"bodice": BODICE, "lower": {"kind": "circle", "length": "70cm"}}).json()
    for choice in shown["lowers"]:
        answer = client.post("/api/make-up", json={**shown["recipe"], "lower": choice["part"]})
        assert answer.status_code == 200, choice["kind"]
        if choice["kind"] not in ("peplum", "high_low"):
            assert answer.json()["recipe"]["lower"]["length"] == 700, "the words they share are carried over"


def test_a_join_that_is_not_round_the_garment_is_not_doubled():
    shown_ = shown(a_recipe(trims=[{"kind": "godets", "height": "30cm"}]))
    godet = next(join for join in shown_.joins if join.lower_name == "godet")
    assert (godet.halved, godet.upper.whole) == (False, "30.0 cm")


@pytest.mark.parametrize("unit", ["cm", "in"])
def test_the_rescue_bench_answers_or_refuses_in_a_sentence(client, unit):
    answer = client.post(f"/api/rescue?unit={unit}", json={"seam": "70 cm", "edge_now": "74 cm"}).json()
    assert {way["code"] for way in answer["ways"]} >= {"darts", "deeper-seams", "gathers"}
    assert all(way["lines"] and way["text"] for way in answer["ways"])
    assert client.post("/api/rescue", json={"seam": "70 cm"}).status_code == 422
    refused = client.post("/api/rescue", json={"seam": "a lot", "edge_now": "74 cm"}).json()
    assert refused["errors"][0]["field"] == "seam"


def test_every_sum_draws_or_says_nothing(client):
    given = {"seam": "70cm", "length": "60cm", "sweep": 360}
    drawn = client.post("/api/sums/circle", json=given).json()["sketch"]
    assert len(drawn["paths"]) == 4
    assert client.post("/api/sums/nothing", json={}).status_code == 404


def test_a_length_of_nothing_is_said_in_words_and_stays_a_length_in_its_field():
    """Nobody says "0.0 cm of yoke"."""
    recipe = drafted_recipe("quarters", style={"front_neck": "v"})
    on_screen = shown(recipe, Unit.INCH)
    words = {w.path: w for part in on_screen.sentences for line in part.lines for w in line if not isinstance(w, str)}
    assert (words["steps.0.wider"].text, words["steps.0.wider"].typed) == ("no", "0 in")
    assert (words["lower.length"].text, words["lower.length"].typed) == ("24 3/8 in", "24 3/8 in")
    assert words["lower.seam"].typed == "", "what is left out has an empty field"
    said = spoken(recipe.join, Unit.CM)
    assert said.startswith("At the waist seam nothing is eased in.")
    assert "0.0" not in said
    for kind in STEPS:
        nothing = {name: 0.0 for name, word in kind.words.items() if word.nothing and name in kind.model_fields}
        assert " 0.0 cm" not in spoken(kind(**nothing), Unit.CM), "what is not asked for is said without noughts"


def test_a_word_whose_line_cannot_be_drawn_is_struck():
    made = shown(drafted_recipe("two_lengths", panels={"twist": 3}), Unit.CM)
    words = {w.path: w for part in made.sentences for line in part.lines for w in line if not isinstance(w, str)}
    assert [path for path, word in words.items() if word.struck] == ["steps.0.cuts", "steps.0.spread"]
