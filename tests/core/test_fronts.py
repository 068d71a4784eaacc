"""What happens at a front's centre: buttons on their stand, and a keyhole with its facing (trade 4.6, 11)."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from shapely import Point as ShapelyPoint

from conftest import drafted_recipe, outline
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import MarkKind
from gentle_hem.core.style.fronts import OFF_THE_RIDGE, button_levels


@given(st.floats(-120, -40), st.floats(60, 250), st.floats(80, 900), st.integers(2, 40))
def test_buttons_are_equally_spaced_with_one_at_the_bust_and_one_above_the_seam(top, to_bust, to_foot, count):
    """Common practice: first at the stress points, waist seam and bust, then equal spaces."""
    bust, foot = top - to_bust, top - to_bust - to_foot
    levels, spacing = button_levels(top, bust, foot, count)
    assert any(level == approx(bust) for level in levels)
    assert levels[-1] == approx(foot + OFF_THE_RIDGE)
    assert levels[0] <= top - OFF_THE_RIDGE + 1e-6
    assert levels[0] + spacing > top - OFF_THE_RIDGE - 1e-6, "no room for one more above"
    gaps = [a - b for a, b in itertools.pairwise(levels)]
    assert gaps == approx([spacing] * len(gaps))


@pytest.mark.parametrize(("asked", "drawn"), [(3, 3), (5, 5), (7, 7), (9, 9), (6, 5)])
def test_as_many_buttons_as_equal_spaces_allow_and_a_note_where_that_is_not_as_asked(asked, drawn):
    made = make_up(drafted_recipe("quarters", panels={"stand": 25, "buttons": asked, "button": 12}))
    front = made.piece("bodice front")
    holes = [mark.path for mark in front.marks if mark.kind is MarkKind.BUTTONHOLE]
    assert all(hole.length == approx(15) and hole.start.y == approx(hole.end.y) for hole in holes)
    assert len(holes) == drawn, "a buttonhole is the button's width and its thickness"
    cloth = outline(front.seam_line)
    assert all(cloth.contains(ShapelyPoint(*end)) for hole in holes for end in (hole.start, hole.end))
    assert ("buttons-in-equal-spaces" in {f.code for f in made.findings}) is (asked != drawn)


def test_no_stand_no_buttons():
    made = make_up(drafted_recipe("quarters", panels={"buttons": 8}))
    assert made.piece("bodice front").marks == ()
    assert "button spacing" not in {w.label for w in made.workings}


def test_a_button_near_a_yoke_seam_is_warned_of():
    yoked = {"stand": 25, "buttons": 6, "front_yoke": 120}
    assert "button-on-a-seam" in {f.code for f in make_up(drafted_recipe("quarters", panels=yoked)).findings}
    plain = {"stand": 25, "buttons": 6}
    assert "button-on-a-seam" not in {f.code for f in make_up(drafted_recipe("quarters", panels=plain)).findings}


@pytest.mark.parametrize("school", ["quarters", "two_lengths", "proportional", "body_length"])
def test_a_keyhole_has_a_facing_with_the_same_opening(school):
    made = make_up(drafted_recipe(school, style={"keyhole": "keyhole", "facing": "faced"}))
    facing, front = made.piece("keyhole facing"), made.piece("bodice front")
    assert facing.on_fold
    [mark] = facing.marks
    assert mark in front.marks
    drop = mark.path
    patch = outline(facing.seam_line)
    assert patch.is_valid
    edge = patch.boundary
    for share in (0.1, 0.4, 0.7, 0.95):
        place = ShapelyPoint(*drop.point_at(share * drop.length))
        assert patch.buffer(0.01).contains(place)
    lowest = ShapelyPoint(*min((drop.start, drop.end), key=lambda p: p.y))
    assert edge.distance(lowest) == approx(0, abs=0.01), "the opening ends on the fold"


def test_a_godet_spread_at_its_cuts_shows_them():
    """Fuller by slash and spread: as much wider at the hem as all its cuts together, its sides as long as the slit."""
    made = make_up(
        drafted_recipe(
            "two_lengths", lower={"length": 700},
            trims=[{"kind": "godets", "count": 2, "height": 300, "angle": 60, "fuller": 30, "cuts": 3}],
        )
    )  # fmt: skip
    plain = make_up(
        drafted_recipe("two_lengths", lower={"length": 700}, trims=[{"kind": "godets", "count": 2, "height": 300}])
    )
    godet, narrow = made.piece("godet"), plain.piece("godet")
    assert len(godet.marks) == 3
    assert narrow.marks == ()
    assert godet.edge("hem").drawn_length - narrow.edge("hem").drawn_length == approx(90, abs=0.01)
    assert godet.edge("left").drawn_length == godet.edge("right").drawn_length == approx(300)


@pytest.mark.parametrize("changes", [{}, {"waist": 20}])
def test_sets_of_allowances_are_offered_beside_the_makers_own(changes):
    from gentle_hem.core.start import allowance_choices

    offered = allowance_choices(drafted_recipe("quarters", allowances=changes))
    kinds = [kind for kind, _, _ in offered]
    assert kinds == (["own", "metric", "inch"] if changes else ["metric", "inch"])
    sets = {kind: part for kind, _, part in offered}
    assert (sets["metric"].neck, sets["metric"].side) == (6.0, 10.0)
    assert (sets["inch"].neck, sets["inch"].side) == (12.7, 25.4)
