"""The making plan (trade 13): everything sewn, finished and closed once, in an order in which it can be done."""

import json
from collections import Counter
from graphlib import TopologicalSorter
from pathlib import Path

import pytest

from combinations import COMBINATIONS
from conftest import own_recipe
from dresses import recipe
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.operation import Before, Closure, School, Work
from gentle_hem.core.making.plan import at_her_pace, plan_of
from gentle_hem.core.making.precedence import in_order
from gentle_hem.core.pattern import Finished, MarkKind
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.units import Unit
from gentle_hem.core.what import Layer, Panel
from long import examples
from random_recipes import MOODS, random_recipe

KEPT = sorted((Path(__file__).parents[2] / "examples").glob("*.recipe.json"))
FIXED = {path.name.removesuffix(".recipe.json"): path for path in KEPT}
NAMES = [*FIXED, *COMBINATIONS]


def read(name):
    return read_recipe(json.loads(FIXED[name].read_text()) if name in FIXED else COMBINATIONS[name])


def planned(name, school=School.SIDES_FIRST):
    dress = read(name)
    return plan_of(make_up(dress), dress, school)


def hold(garment, plan):
    """Every seam, dart, edge finished alone and closure once; every operation after what must come before it."""
    assert Counter(s for one in plan.operations for s in one.seams) == Counter(w.name for w in garment.seams)
    darts = Counter((d.piece, d.number) for one in plan.operations for d in one.darts)
    assert darts == Counter((p.what, k) for p in garment.pieces for k in range(len(p.darts)))
    edges = Counter((e.piece, e.edge) for one in plan.operations for e in one.edges)
    assert edges == Counter(
        (p.what, e.name)
        for p in garment.pieces
        if p.cloth is not ClothRole.PAPER
        for e in p.edges
        if e.finished and (e.allowance > 0 or e.finished is Finished.FUSED)
    )
    closures = Counter(c for one in plan.operations for c in one.closures)
    assert set(closures.values()) <= {1}
    buttoned = any(m.kind is MarkKind.BUTTONHOLE for p in garment.pieces for m in p.marks)
    assert (Closure.BUTTONS in closures) == buttoned
    assert (Closure.LACING in closures) == any(p.what.panel is Panel.LACING for p in garment.pieces)
    keys = [one.key for one in plan.operations]
    assert len(set(keys)) == len(keys)
    place = {key: k for k, key in enumerate(keys)}
    graph: dict[str, set[str]] = {key: set() for key in keys}
    for before in plan.before:
        graph[before.then].add(before.first)
        assert place[before.first] < place[before.then], before
    assert set(TopologicalSorter(graph).static_order()) == set(keys)
    for one in plan.operations:
        assert one.title
        assert one.minutes > 0
        for said in one.says:
            for unit in Unit:
                assert said.text(unit).endswith((".", ";")), (one.title, said)


@pytest.mark.parametrize("school", School)
@pytest.mark.parametrize("name", NAMES)
def test_everything_is_done_once_and_in_order(name, school):
    dress = read(name)
    garment = make_up(dress)
    hold(garment, plan_of(garment, dress, school))


COUNT = examples(120, 3000)


@pytest.mark.parametrize("first", range(0, COUNT, 20))
def test_random_garments_can_be_made(first):
    own = own_recipe().bodice.model_dump(mode="json")
    for seed in range(first, first + 20):
        dress = random_recipe(seed, MOODS[seed % len(MOODS)], own)
        garment = make_up(dress)
        for school in School:
            hold(garment, plan_of(garment, dress, school))


# the order, as it would be done by hand


def titles(plan, *, skip=("Cut from the outer cloth", "Mark darts and notches", "Last press")):
    return [one.title for one in plan.operations if one.title not in skip]


def test_a_plain_dress_in_both_schools():
    """Worked out by hand from the order of trade 13."""
    assert titles(planned("full-circle")) == [
        "Staystitch the curved edges", "Darts of the bodice front", "Darts of the bodice back", "Bodice side seam",
        "Skirt side seam", "Waist seam", "Fitting", "Centre back seam, below the opening", "Zip in the centre back",
        "Hang it", "Level the hem", "Hem the dress",
    ]  # fmt: skip
    assert titles(planned("full-circle", School.WAIST_FIRST)) == [
        "Staystitch the curved edges", "Darts of the bodice front", "Darts of the bodice back", "Waist seam", "Fitting",
        "Side seams, underarm to hem in one", "Centre back seam, below the opening", "Zip in the centre back",
        "Hang it", "Level the hem", "Hem the dress",
    ]  # fmt: skip


def test_tiers_are_closed_one_after_another_or_gathered_flat():
    """Each tier is closed before it is drawn up onto the one above; flat, all are joined first and closed in one."""
    in_turn = [one.key for one in planned("tiered").operations]
    for tier in (2, 3):
        order = [f"side skirt {tier}", f"gather tier {tier} seam", f"tier tier {tier} seam", "waist"]
        assert sorted(order, key=in_turn.index) == order
    flat = [one.key for one in planned("tiered", School.WAIST_FIRST).operations]
    assert flat.index("tier tier 3 seam") < flat.index("waist") < flat.index("side in one")


MUST = [
    # (example, school, first, then): trade 13.1, each a line of it
    ("trumpet-gores", School.SIDES_FIRST, "zip", "cape"),
    ("pleated-inches", School.SIDES_FIRST, "collar stand collar", "zip"),
    ("pleated-inches", School.WAIST_FIRST, "sleeve", "side in one"),
    ("pleated-inches", School.SIDES_FIRST, "underarm sleeve underarm seam", "sleeve"),
    ("straight-waistband", School.SIDES_FIRST, "band band seam", "waist"),
    ("straight-waistband", School.SIDES_FIRST, "hem", "edges skirt whole"),
    ("pinafore", School.SIDES_FIRST, "bib bib seam", "waist"),
    ("pinafore", School.SIDES_FIRST, "fitting", "strap strap to the bodice back"),
    ("laced-gathered", School.SIDES_FIRST, "pocket", "side skirt 1"),
    ("laced-gathered", School.SIDES_FIRST, "made up loop strip back", "laced back lacing strip"),
    ("peplum-under-blouse", School.SIDES_FIRST, "zip", "lining rest"),
    ("mermaid-gown", School.SIDES_FIRST, "hem hem ruffle", "gather hem ruffle seam"),
    ("mermaid-gown", School.SIDES_FIRST, "panel front princess seam", "godet godet"),
    ("full-circle", School.SIDES_FIRST, "hang", "hem"),
    ("full-circle", School.SIDES_FIRST, "hang", "level"),
    ("jumpsuit", School.SIDES_FIRST, "inside leg inside leg seam", "crotch"),
    ("jumpsuit", School.WAIST_FIRST, "crotch crotch seam, front", "inside leg inside leg seam"),
    ("drafted-proportional", School.SIDES_FIRST, "shoulder", "facing bodice neck"),
    ("pocketed-shirt-dress", School.SIDES_FIRST, "facing slit sleeve slit facing seam", "sleeve"),
]


@pytest.mark.parametrize(("name", "school", "first", "then"), MUST)
def test_what_must_come_before_what(name, school, first, then):
    plan = planned(name, school)
    keys = {one.key for one in plan.operations}
    assert {first, then} <= keys, keys
    before = {key: {pair.first for pair in plan.before if pair.then == key} for key in keys}
    forced, looked = set(), [then]  # not by chance of the usual order: by what is said to come first
    while looked:
        new = before[looked.pop()] - forced
        forced |= new
        looked += new
    assert first in forced


def test_a_skirt_without_side_seams_is_joined_in_the_round():
    plan = planned("gored-circle-spiral", School.WAIST_FIRST)
    assert plan.school is School.SIDES_FIRST


def test_every_reason_is_said_once_and_none_that_follows_from_another():
    plan = planned("full-circle", School.WAIST_FIRST)
    why = {before.first: before.why for before in plan.reasons("side in one")}
    assert why == {
        "fitting": "what it shows is still easy to change", "waist": "sides last, so that it can be let out",
    }  # fmt: skip


def test_the_cape_comes_after_the_zip_so_that_its_ends_align():
    plan = planned("trumpet-gores")
    assert "zip before the cape, so that its ends align" in {why.why for why in plan.reasons("cape")}


# what is said


def says(plan, key):
    return " ".join(said.text(Unit.CM) for one in plan.operations if one.key == key for said in one.says)


def test_the_numbers_are_those_of_the_garment():
    garment = make_up(read("tiered"))
    plan = plan_of(garment, read("tiered"), School.SIDES_FIRST)
    walked = next(w for w in garment.seams if w.name == "tier 2 seam")
    text = says(plan, "gather tier 2 seam")
    assert f"{2 * walked.length_b / 10:.1f} cm" in text
    assert f"{2 * walked.length_a / 10:.1f} cm" in text
    # the zip takes 19 cm of a first tier of 21.4 cm
    assert "Centre back on centre back of the tier 1 back: 2.4 cm, from the end of the zip down." in says(
        plan, "centre below the opening"
    )


def test_a_sleeves_ease_is_said_where_it_lies_and_a_seam_to_a_godet_ends_at_its_tip():
    sleeve = says(planned("pleated-inches"), "sleeve")
    assert "Ease the sleeve in by" in sleeve
    godet = planned("mermaid-gown")
    gown = make_up(read("mermaid-gown"))
    princess = next(w for w in gown.seams if w.name == "front princess seam").length_a
    slit = next(w for w in gown.seams if w.name == "godet to the gown centre front, left").length_a
    assert f"{(princess - slit) / 10:.1f} cm, to the tip of the godet" in says(godet, "panel front princess seam")


def test_only_what_grows_hangs():
    """A full circle and a half circle grow on the bias; a straight skirt, gathers and trousers do not."""
    hung = {name: any(one.work is Work.HANG for one in planned(name).operations) for name in
            ("full-circle", "half-circle-inches", "straight-waistband", "pinafore", "jumpsuit", "tiered")}  # fmt: skip
    assert [name for name, hangs in hung.items() if hangs] == ["full-circle", "half-circle-inches"]


def test_buttons_and_a_side_zip_are_each_closed():
    closed = {one.key: one.closures for one in planned("jumpsuit").operations if one.closures}
    assert closed == {"zip": (Closure.ZIP,), "buttons": (Closure.BUTTONS,)}


def test_a_dress_without_an_opening_has_no_zip_and_what_is_fused_is_fused_flat():
    dress = recipe(opening={"place": "none", "below_waist": 0}, style={"facing": "faced"},
                   finish={"lining": "whole", "interfacing": "interfaced"})  # fmt: skip
    garment = make_up(dress)
    plan = plan_of(garment, dress, School.SIDES_FIRST)
    hold(garment, plan)
    assert not any(one.closures for one in plan.operations)
    keys = [one.key for one in plan.operations]
    fused = plan.operations[keys.index("fuse")]
    assert {what.layer for what in fused.pieces} == {Layer.INTERFACING}
    assert keys.index("fuse") < keys.index("facing bodice neck") < keys.index("lining neckline")


def test_her_own_pace_changes_only_the_work_she_has_timed():
    plan = planned("full-circle")
    usual, hers = at_her_pace(plan, {}), at_her_pace(plan, {Work.HEM: 0.5})
    for one in plan.operations:
        assert hers[one.key] == pytest.approx(usual[one.key] * (0.5 if one.work is Work.HEM else 1))


def test_a_knot_in_the_order_is_named():
    plan = planned("full-circle")
    with pytest.raises(ValueError, match=r"these wait for each other: .*hem, .*waist"):
        in_order(plan.operations, [*plan.before, Before("hem", "waist", "by mistake"), Before("waist", "hem", "")])


ALLOWED = [
    # (example, operation, what is said): the allowances of the recipe itself, those of front and back apart
    ("tiered", "waist", "Allowance 1.0 cm."),
    ("tiered", "centre below the opening", "Allowance 1.5 cm."),
    ("tiered", "strap strap to the bodice front", "Allowance 0.6 cm and 1.0 cm: stitching line on stitching line."),
    ("jumpsuit", "collar stand collar", "Allowance 0.6 cm."),
    ("pocketed-shirt-dress", "patch pocket", "laid along the line it is sewn to."),
    ("full-circle", "side bodice 1", "With your own pattern's allowance."),
]


@pytest.mark.parametrize(("name", "key", "said"), ALLOWED)
def test_the_allowance_said_is_that_of_the_edges(name, key, said):
    assert said in says(planned(name), key)


def test_front_is_sewn_to_back_and_each_dart_has_its_own_intake():
    """Front and back of this draft differ on purpose: the front's dart takes more than the back's."""
    garment = make_up(read("tiered"))
    plan = plan_of(garment, read("tiered"), School.SIDES_FIRST)
    intakes = [garment.piece(f"bodice {half}").darts[0].intake for half in ("front", "back")]
    assert intakes[0] - intakes[1] > 1
    for half, intake in zip(("front", "back"), intakes, strict=True):
        assert f"The {half} dart, {intake / 10:.1f} cm wide at the waist" in says(plan, f"darts bodice {half}")
    assert says(plan, "side bodice 1").startswith("Side of the bodice front to side of the bodice back: ")
