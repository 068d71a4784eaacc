"""Random garments on random cloths, laid every way: by shapely nothing overlaps or leaves, grain and nap are kept."""

import random
from itertools import combinations

import pytest

from conftest import own_recipe
from gentle_hem.core.cloth.lay import HowLaid, Layers, Pin, lay, roles_of
from gentle_hem.core.cloth.matching import MATCHED_WITHIN, Over, matched_within
from gentle_hem.core.cloth.squares import APART, Repeat
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.make_up import make_up
from long import examples
from random_recipes import MOODS, random_recipe

COUNT = examples(8, 480)
BATCH = 4


@pytest.fixture(scope="module")
def own():
    return own_recipe().bodice.model_dump(mode="json")


@pytest.mark.parametrize("first", range(0, COUNT, BATCH))
def test_random_garments_on_random_cloths(own, first):
    for seed in range(first, first + BATCH):
        chance = random.Random(seed)
        garment = make_up(random_recipe(seed, MOODS[seed % len(MOODS)], own))
        for role in roles_of(garment)[:1]:
            width = chance.uniform(500, 1700)
            hold(garment, role, width, HowLaid(one_way=chance.random() < 0.5, corners=chance.random() < 0.5), seed)
            folded = HowLaid(folded=chance.uniform(150, width / 2), one_way=chance.random() < 0.5)
            hold(garment, role, width, folded, seed)
            repeat = Repeat(chance.choice([None, 45.0, 160.0]), chance.uniform(60, 400))
            if seed % 3 == 0:  # it takes longest
                hold(garment, role, width, HowLaid(over=tuple(Over), repeat=repeat), seed)


def hold(garment, role, width, how, seed):
    laid = lay(garment, role, width, how)
    assert laid.faults == (), seed
    for one in laid.placed:
        left, foot, right, top = one.outline.bounds
        assert left >= -0.05, (seed, one.name)
        assert foot >= -0.05, (seed, one.name)
        assert right <= width + 0.05, (seed, one.name)
        assert top <= laid.length + 0.05, (seed, one.name)
        assert not (how.one_way and one.turned), (seed, one.name)
        if one.layers is Layers.FOLD:
            assert abs(left) < 0.05, (seed, one.name)
        if one.layers is not Layers.FLAT:
            assert right <= how.folded + 0.05, (seed, one.name)
    for one, other in combinations(laid.placed, 2):
        assert one.outline.distance(other.outline) >= APART - 0.5, (seed, one.name, other.name)
    wanted = {one.name for one in cut_pieces(garment) if one.cloth is role}
    there = {name for one in laid.placed for name in (one.name, *one.name.split(" and "))}
    parts = {one.name for one in (*laid.joined, *laid.too_wide)}
    assert wanted <= there | parts, seed
    if how.over and how.repeat.along:
        spots = {one.name: (one.from_selvedge, one.from_cut_end) for one in laid.placed}
        missed = {one.name for one in laid.refused}
        for match, off in matched_within(garment, role, how.over, spots, how.repeat):
            assert off <= MATCHED_WITHIN or match.seam in missed, (seed, match.seam)


def test_what_a_hand_has_pinned_stays_whatever_the_garment(own):
    for seed in range(6):
        garment = make_up(random_recipe(seed, MOODS[seed % len(MOODS)], own))
        for role in roles_of(garment)[:1]:
            free = lay(garment, role, 1500)
            if len(free.placed) < 2:
                continue
            name = free.placed[seed % len(free.placed)].name
            pinned = lay(garment, role, 1500, HowLaid(pins=(Pin(name, 3.3, 700.7),)))
            assert pinned.faults == (), seed
            spot = next(one for one in pinned.placed if one.name == name)
            assert spot.outline.bounds[:2] == pytest.approx((3.3, 700.7)), seed
