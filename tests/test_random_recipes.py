"""Random valid recipes of every kind through everything: never an exception, and never a fault of the program."""

import pytest

from conftest import own_recipe
from gentle_hem.api.screen import screen
from gentle_hem.core.fault import FAULT
from gentle_hem.core.findings import Severity
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed, cut_now
from gentle_hem.core.seams import Verdict
from gentle_hem.core.sentences import spoken
from gentle_hem.core.slip import desk_slip
from gentle_hem.formats.files import FILE_WRITERS, Order
from long import examples
from random_recipes import MOODS, random_recipe

COUNT = examples(102, 5_100)
BATCH = 17

CUT_ALREADY = 10
"""Of one mood of so many seeds the lower part is cut already, and lower than it was drawn."""


@pytest.fixture(scope="module")
def own():
    return own_recipe().bodice.model_dump(mode="json")


@pytest.mark.parametrize("first", range(0, COUNT // len(MOODS), BATCH))
def test_no_random_recipe_knocks_anything_over(own, first):
    for seed in range(first, first + BATCH):
        for place, mood in enumerate(MOODS):
            recipe = random_recipe(seed, mood, own)
            if seed % CUT_ALREADY == place and not isinstance(recipe.lower, Gown):
                recipe = changed(recipe, {**cut_now(recipe), "join.down": seed % 30})
            garment = make_up(recipe)
            faults = [finding.values for finding in garment.findings if finding.code == FAULT]
            assert not faults, (seed, mood, faults)
            hold_together(garment, (seed, mood))
            shown = screen(recipe, garment, recipe.unit)
            assert FAULT not in {finding.code for finding in shown.findings}, (seed, mood)
            spoken(recipe.lower, recipe.unit)
            desk_slip(recipe, garment)
            if seed % len(MOODS) != place:
                continue  # files take far longer than the garment: those of one mood of every seed are written
            order = Order(recipe, garment)
            for name, writer in FILE_WRITERS.items():
                assert writer(order), (seed, mood, name)


UNMADE = {"cannot-be-made", "piece-too-large", "allowance-too-wide"}
"""Stops after which a part of the garment is not there to be sewn to."""


def hold_together(garment, where):
    """Every edge seamed or finished, every mark on an edge that is there, no seam off its ease without a word."""
    codes = {finding.code for finding in garment.findings}
    sewn = {(stretch.piece, stretch.edge) for walked in garment.seams for stretch in walked.seam.stretches}
    for piece in garment.pieces:
        assert piece.fold_bends < 0.5 or "fold-not-straight" in codes, (where, piece.name)
        names = {edge.name for edge in piece.edges}
        assert {dart.edge for dart in piece.darts} | {notch.edge for notch in piece.notches} <= names, (
            where,
            piece.name,
        )
        for edge in piece.edges:
            told = edge.allowance == 0 or edge.finished is not None or (piece.what, edge.name) in sewn
            assert told or codes & UNMADE, (where, piece.name, edge.name)
    assert len({walked.name for walked in garment.seams}) == len(garment.seams), where
    said = " ".join(f.text("cm") for f in garment.findings if f.code in WALKING)
    for walked in garment.seams:
        off = walked.verdict in (Verdict.LONGER, Verdict.SHORTER)
        assert not off or (walked.seam.repeats or walked.name) in said, (where, walked.name)
        assert walked.verdict is verdict_of(walked), (where, walked.name)


WALKING = ("seam-does-not-walk", "join-does-not-meet", "waist-does-not-meet")


def verdict_of(walked):
    """What a seam's own numbers say, worked out again."""
    over = walked.length_b / walked.fullness - walked.length_a
    least, most = min(0.0, walked.ease) - 1.5, max(0.0, walked.ease) + 1.5
    if not least <= over <= most:
        return Verdict.LONGER if over > most else Verdict.SHORTER
    if walked.fullness > 1.001:
        return Verdict.GATHERED
    return Verdict.MEETS if abs(over) <= 1.5 else Verdict.EASED


@pytest.mark.parametrize("mood", MOODS)
def test_a_seed_makes_the_same_recipe_and_the_recipe_the_same_garment(own, mood):
    one, other = (random_recipe(7, mood, own) for _ in range(2))
    assert one == other
    assert make_up(one).pieces == make_up(Recipe.model_validate(other.model_dump(mode="json"))).pieces


def test_the_recipes_are_of_every_kind_and_many_of_them_can_be_cut(own):
    """A generator that makes only refusals would prove nothing."""
    recipes = [random_recipe(seed, mood, own) for seed in range(120) for mood in MOODS]
    assert len({recipe.bodice.kind for recipe in recipes}) >= 8
    assert len({recipe.lower.kind for recipe in recipes}) >= 12
    assert len({trim.kind for recipe in recipes for trim in recipe.trims}) >= 10
    plain = [recipe for recipe in recipes if recipe.name.startswith("plain")]
    ready = [all(f.severity is not Severity.STOP for f in make_up(recipe).findings) for recipe in plain]
    assert sum(ready) > len(ready) / 4
