"""What is asked and cannot be made is a stop with a way out; every seam that does not walk is said."""

from dataclasses import replace

import pytest

from conftest import drafted_recipe, own_recipe
from gentle_hem.core.findings import Severity, in_recipe, refused
from gentle_hem.core.make_up import _MakingUp, make_up
from gentle_hem.core.pattern import Verdict
from gentle_hem.core.recipe import changed
from random_recipes import MOODS, random_recipe


def refusals(garment):
    return [finding for finding in garment.findings if finding.refuses]


def test_a_style_line_that_cannot_be_drawn_is_a_stop_and_can_be_left_out():
    """A twist fans its cuts to the side, where this school has its bust dart."""
    recipe = drafted_recipe("two_lengths", panels={"twist": 3})
    garment = make_up(recipe)
    [finding] = refusals(garment)
    assert finding.severity is Severity.STOP
    assert not garment.is_ready_to_cut
    assert finding.at == in_recipe("panels.twist")
    [way] = finding.remedies
    assert make_up(changed(recipe, dict(way.changes))).is_ready_to_cut


def test_a_button_stand_and_a_dart_at_the_centre_front_do_not_go_together_and_say_so():
    recipe = drafted_recipe("quarters", style={"waist_dart": "centre front"}, panels={"stand": 25})
    [finding] = refusals(make_up(recipe))
    assert "move that dart first" in finding.text(recipe.unit)


def test_a_refusal_is_a_stop_by_its_nature():
    assert refused("x", "It cannot be.").severity is Severity.STOP


@pytest.mark.parametrize("mood", MOODS)
def test_the_way_out_of_a_refusal_leads_to_no_other(mood):
    """Whatever was refused, at least one of its ways leaves fewer refusals than there were."""
    own = own_recipe().bodice.model_dump(mode="json")
    tried = 0
    for seed in range(60):
        recipe = random_recipe(seed, mood, own)
        found = refusals(make_up(recipe))
        for finding in found:
            if finding.remedies:
                tried += 1
                after = [refusals(make_up(changed(recipe, dict(way.changes)))) for way in finding.remedies]
                assert min(map(len, after)) < len(found), (seed, mood, finding.text(recipe.unit))
    assert tried > (0 if mood == "plain" else 5)


@pytest.mark.parametrize("name", ["bodice side seam", "bodice shoulder seam"])
def test_no_seam_is_exempt_from_being_walked(name):
    """Planted: half a centimetre is taken off one side of a seam, as a slip of the pen would."""
    recipe = drafted_recipe("quarters_cm")
    table = _MakingUp(recipe)
    table._dress()
    seam = next(seam for seam in table.seams if seam.name == name)
    piece = table.pieces[seam.b[0].piece]
    whole = piece.edge(seam.b[0].edge)
    waist = piece.edge("waist")
    assert whole.drawn_length > 50
    planted = replace(seam, ease=seam.ease - 5, fullness=1.0)
    walked = table._walked(dict(table.pieces))
    before = sum(one.verdict is Verdict.SHORTER for one in walked)
    table.seams[table.seams.index(seam)] = planted
    shorter = [replace(s, b=(*s.b, replace(s.b[0], edge=waist.name))) if s is planted else s for s in table.seams]
    table.seams = shorter
    table.findings.clear()
    again = table._walked(dict(table.pieces))
    assert sum(not one.verdict.fits for one in again) == before + 1
    [finding] = [f for f in table.findings if f.code == "seam-does-not-walk"]
    assert finding.severity is Severity.STOP
    assert name in finding.text(recipe.unit)
