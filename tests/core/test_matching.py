"""Prints matched over seams, and borders along hems: by hand, and over every example."""

import json
from pathlib import Path

import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.cloth.lay import HowLaid, lay
from gentle_hem.core.cloth.matching import BORDER_BEND, MATCHED_WITHIN, Over, matched_within, matches
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.squares import Repeat
from gentle_hem.core.cloth.things import Why, of_piece
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, read_recipe

RECIPES = {path.name.split(".")[0]: json.loads(path.read_text()) for path in Path("examples").glob("*.recipe.json")}
PRINT = Repeat(across=90, along=117)


def skirt(**lower):
    """Two rectangles on a measured bodice, the front 1.5 times 200, the back 1.5 times 180 on either side."""
    return make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": "measured", "front": {"centre_to_dart": 100, "dart_to_side": 100},
                           "back": {"centre_to_dart": 90, "dart_to_side": 90}, "front_side": 200, "back_side": 200},
                "lower": {"kind": "gathered", "length": 500, "fullness": 1.5, "hem": 20, **lower},
                "opening": {"place": "none"}, "allowances": {"waist": 10, "side": 10},
            }
        )
    )  # fmt: skip


def corners(laid):
    return {one.name: (one.from_selvedge, one.from_cut_end) for one in laid.placed}


@pytest.mark.parametrize("name", RECIPES)
def test_matched_notches_fall_on_the_same_place_of_the_repeat_or_the_seam_is_named(name):
    garment = make_up(read_recipe(RECIPES[name]))
    how = HowLaid(over=tuple(Over), repeat=PRINT)
    laid = lay(garment, ClothRole.OUTER, 1400, how)
    assert laid.faults == ()
    assert not any(one.turned for one in laid.placed if one.name in corners(laid) and _is_matched(garment, one.name))
    named = {one.name for one in laid.refused}
    groups, met, needed = {}, 0, 0
    for match, off in matched_within(garment, ClothRole.OUTER, how.over, corners(laid), PRINT):
        assert off <= MATCHED_WITHIN or match.seam in named, (match.seam, off)
        met += off <= MATCHED_WITHIN
        one, other = (groups.setdefault(what, {what}) for what in (match.piece, match.other))
        if one is not other:  # the first seam between two groups of pieces can always be met
            needed += 1
            one |= other
            groups.update(dict.fromkeys(one, one))
    assert met >= needed


def _is_matched(garment, name):
    try:
        what = of_piece(garment, name)[1].what
    except KeyError:
        return False  # a strip cut in widths
    return any(what in (match.piece, match.other) for match in matches(garment, ClothRole.OUTER, tuple(Over)))


def test_two_rectangles_are_matched_at_their_sides_by_hand():
    """Both are alike in height, so that a whole number of repeats of 117 mm lies between their corners: on a cloth that
    takes one beside the other none, on a narrow one five (585 is the first that clears 530).
    """
    garment = skirt()
    how = HowLaid(over=(Over.SIDES,), repeat=Repeat(along=117))
    wide = sorted(one.from_cut_end for one in lay(garment, ClothRole.OUTER, 3000, how).placed)
    assert wide[1] - wide[0] == approx(0, abs=0.02)
    narrow = sorted(one.from_cut_end for one in lay(garment, ClothRole.OUTER, 640, how).placed)
    assert narrow[1] - narrow[0] == approx(585, abs=0.02)
    free = sorted(one.from_cut_end for one in lay(garment, ClothRole.OUTER, 640).placed)
    assert free[1] - free[0] == approx(534, abs=0.02)


def test_a_centre_lies_on_the_middle_of_a_stripe():
    """The centre front of a front on the fold is the middle of the opened piece: a whole number of 90 mm from where the
    repeat begins.
    """
    garment = make_up(read_recipe(RECIPES["quarter-flare"]))
    laid = lay(garment, ClothRole.OUTER, 1800, HowLaid(over=(Over.CENTRES,), repeat=Repeat(across=90)))
    checked = 0
    for one in laid.placed:
        cut, _ = of_piece(garment, one.name)
        if cut.on_fold:
            left, _, right, _ = one.outline.bounds
            assert ((left + right) / 2) % 90 == approx(0, abs=0.3) or ((left + right) / 2) % 90 == approx(90, abs=0.3)
            checked += 1
    assert checked >= 2


def test_a_straight_hem_lies_on_the_border_and_a_bent_one_says_by_how_much_it_bends():
    """A gathered skirt's hem is straight; a quarter circle flare's bends by its own arrow, read off its hem's own arc:
    radius × (1 − cos of half its sweep).
    """
    straight = lay(skirt(), ClothRole.OUTER, 1400, HowLaid(border=True))
    assert straight.refused == ()
    for one in straight.placed:
        left, foot, right, top = one.outline.bounds
        assert left == approx(0, abs=0.01)
        assert right - left == approx(530, abs=0.1)
        assert top - foot > 500
    round_hem = lay(make_up(read_recipe(RECIPES["full-circle"])), ClothRole.OUTER, 1600, HowLaid(border=True))
    why = {one.name: (one.why, one.by) for one in round_hem.refused}
    assert why["skirt front"][0] is Why.BENT
    assert why["skirt front"][1] > 40 * BORDER_BEND


def test_what_is_longer_than_the_cloth_is_wide_is_not_laid_on_the_border():
    narrow = lay(skirt(), ClothRole.OUTER, 500, HowLaid(border=True))
    assert {(one.why, round(one.by)) for one in narrow.refused} == {(Why.TOO_LONG, 530)}
