"""Fitting a lower edge that exists: each way to close a join, its limit and its cost (trade 9.1)."""

import pytest
from pytest import approx

from conftest import BODICE, FIGURE
from gentle_hem.core.fit import LEAST_DART, MOST_AT_SIDE, WIDEST_DART, side_ends
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.seams import Manner, Verdict
from gentle_hem.core.units import Unit

WAIST = 740.0


def recipe(kind="straight", seam=None, **rest):
    lower = {"kind": kind, **({"seam": seam} if seam is not None else {})}
    return Recipe.model_validate({"figure": {"measures": FIGURE}, "bodice": BODICE, "lower": lower, **rest})


def waist_join(one):
    return next(join for join in make_up(one).joins if join.name == "waist seam")


def remedy(one, code):
    return next((r for r in waist_join(one).remedies if r.code == code), None)


@pytest.mark.parametrize("kind", ["straight", "a_line", "circle", "gathered", "pleated", "gores"])
def test_a_lower_part_that_follows_the_bodice_always_meets_it(kind):
    join = waist_join(recipe(kind))
    assert join.verdict in (Verdict.MEETS, Verdict.GATHERED)
    assert abs(join.difference) < 0.01
    assert join.remedies == ()


@pytest.mark.parametrize("over", [12, 25, 60])
def test_ways_come_best_first_and_only_within_their_limits(over):
    one = recipe(seam=WAIST + over)
    join = waist_join(one)
    codes = [r.code for r in join.remedies]
    assert codes[0] == "redraw", "a new waist is exact, if it is not cut yet"
    each_dart = over / 4
    assert ("darts" in codes) is (LEAST_DART <= each_dart <= WIDEST_DART)
    assert ("ease" in codes) is (over <= 0.03 * WAIST)
    assert ("side-seams" in codes) is (over / 4 <= MOST_AT_SIDE)
    assert ("gathered" in codes) is ((WAIST + over) / WAIST >= 1.03)
    assert ("bodice-side" in codes) is (over <= 40)


def test_too_short_is_let_out_or_the_bodice_is_narrowed_never_darted():
    codes = [r.code for r in waist_join(recipe(seam=WAIST - 30)).remedies]
    assert "darts" not in codes
    assert "gathered" not in codes
    assert {"redraw", "side-seams", "bodice-side"} <= set(codes)
    out = remedy(recipe(seam=WAIST - 30), "side-seams")
    assert out.text(Unit.CM) == "Let the side seams out by 0.75 cm at each edge, run out by the hip"
    assert out.changes["join.side"] == approx(-7.5)


@pytest.mark.usefixtures("as_drafted")
@pytest.mark.parametrize("kind", ["straight", "circle", "a_line"])
@pytest.mark.parametrize("over", [-24.0, 24.0])
def test_side_seams_taken_in_or_let_out_keep_the_hem(kind, over):
    one = recipe(kind, WAIST + over)
    taken = changed(one, dict(remedy(one, "side-seams").changes))
    before, after = make_up(one), make_up(taken)
    assert waist_join(taken).verdict.fits
    for where in ("front", "back"):
        hem = [g.piece(f"skirt {where}").edge("hem").drawn_length for g in (before, after)]
        assert hem[0] == approx(hem[1], abs=1e-6)
        waist = [g.piece(f"skirt {where}").edge("waist").drawn_length for g in (before, after)]
        assert waist[0] - waist[1] == approx(over / 4, abs=0.01)
    side = next(w for w in after.seams if w.seam.name == "skirt side seam")
    assert side.verdict.fits


def test_gathers_share_out_evenly_between_the_marks():
    one = recipe("straight", WAIST * 1.5)
    gathered = changed(one, dict(remedy(one, "gathered").changes))
    join = waist_join(gathered)
    assert join.fullness == approx(1.5)
    assert join.seam.manner is Manner.GATHERED
    assert [tie.offset for tie in join.ties] == approx([0.0] * len(join.ties), abs=0.01)


@pytest.mark.parametrize(("fullness", "mistake"), [(1.08, True), (1.4, False)])
def test_a_trace_of_gathering_looks_like_a_mistake(fullness, mistake):
    """Common practice: sensible from 1.15 up; between 1.03 and 1.15 it looks like a mistake."""
    cost = remedy(recipe(seam=WAIST * fullness), "gathered").cost(Unit.CM)
    assert ("looks like a mistake" in cost) is mistake


def test_darts_of_a_circle_skirt_lie_under_the_bodices():
    one = recipe("high_low", WAIST + 60)
    darted = changed(one, dict(remedy(one, "darts").changes))
    garment = make_up(darted)
    join = waist_join(darted)
    assert join.verdict is Verdict.MEETS
    assert all(abs(tie.offset) < 6 for tie in join.ties)
    assert [len(garment.piece(f"skirt {where}").darts) for where in ("front", "back")] == [1, 1]


@pytest.mark.usefixtures("as_drafted")
def test_a_dart_that_is_there_is_made_wider_not_doubled():
    one = recipe("straight", WAIST + 44)
    before = make_up(one).piece("skirt front").darts_of("waist")
    after = make_up(changed(one, dict(remedy(one, "darts").changes))).piece("skirt front").darts_of("waist")
    assert len(after) == len(before)
    grown = [b.intake - a.intake for a, b in zip(before, after, strict=True)]
    assert max(grown) == approx(11, abs=0.01)


def test_the_bodice_can_give_way_instead():
    one = recipe(seam=WAIST + 20)
    given = changed(one, dict(remedy(one, "bodice-side").changes))
    assert 2 * waist_join(given).upper.length == approx(WAIST + 20)
    assert waist_join(given).verdict is Verdict.MEETS


@pytest.mark.parametrize("school", ["quarters", "quarters_cm", "two_lengths", "proportional", "body_length", "bib"])
def test_every_bodice_says_which_words_widen_its_waist(school):
    one = Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": school}, "lower": {"kind": "circle"}}
    )
    words = one.bodice.waist_words()
    assert words
    before = waist_join(one).upper.length
    wider = changed(one, {path: value + 16 * share for path, (value, share) in words.items()})
    assert 2 * (waist_join(wider).upper.length - before) == approx(16, abs=0.02)


@pytest.mark.parametrize(("kind", "ends"), [("straight", 2), ("circle", 2), ("gathered", 2), ("gored_circle", 8)])
def test_side_ends_are_counted_on_the_half_garment(kind, ends):
    from gentle_hem.core.join import unroll
    from gentle_hem.core.parts import Host
    from gentle_hem.core.workings import Workings

    one = recipe(kind)
    block = one.bodice.make_up(one.figure, one.opening, one.allowances, Workings())
    upper = unroll(block.edge.run, {p.what: p for p in block.pieces})
    made = one.lower.make_up(Host(block.edge, upper, one.allowances, one.opening, one.figure), Workings())
    assert side_ends(made) == ends


def test_planned_ease_is_part_of_a_lower_part_that_follows():
    eased = recipe("straight", join={"ease": 12})
    join = waist_join(eased)
    assert join.verdict is Verdict.EASED
    assert 2 * join.difference == approx(12)
