"""What was learnt of a cloth comes back as advice, with its numbers."""

from datetime import date

import pytest

from conftest import a_recipe
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.learnt import Kind, Learnt, NotMeasured, advice, checked
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import changed
from gentle_hem.core.units import Tape, Unit

DAY = date(2026, 5, 3)
CM = Tape(Unit.CM)


def shrank(before, after):
    return Learnt(Kind.SHRINKS, DAY, "washed", before, after)


def grew(before, after):
    return Learnt(Kind.GROWS, DAY, "hung", before, after)


def told(notes, recipe, cloth=None, tape=CM):
    return advice(notes, cloth or recipe.cloths.outer, "cloths.outer", recipe, make_up(recipe), tape)


def test_shrinkage_that_is_not_reckoned_with_is_said_and_can_be_taken():
    """A metre came back as 94 cm: 6 per cent; the lay reckons with none."""
    recipe = a_recipe()
    (one,) = told([shrank(1000, 940)], recipe)
    assert one.text == (
        "It shrank by 6 %: 100.0 cm before, 94.0 cm after. The lay reckons with 0 %: it would come out short."
    )
    after = changed(recipe, dict(one.changes))
    assert after.cloths.outer.shrinks == 6.0
    (again,) = told([shrank(1000, 940)], after)
    assert not again.changes
    assert again.text.endswith("The lay reckons with 6 %.")


def test_one_cuts_for_the_most_that_was_seen():
    (one,) = told([shrank(1000, 970), shrank(500, 475), shrank(1000, 990)], a_recipe())
    assert one.changes == {"cloths.outer.shrinks": 5.0}


def test_less_than_is_reckoned_with_is_said_too():
    (one,) = told([shrank(1000, 990)], a_recipe(), Cloth(shrinks=5.0))
    assert one.text.endswith("longer than is needed.")
    assert one.changes == {"cloths.outer.shrinks": 1.0}


def test_growth_on_the_bias_is_told_of_this_skirts_length():
    """60 cm hung to 62.4: 4 per cent; a circle of 62 cm may hang 2.48 cm longer."""
    (one,) = told([grew(600, 624)], a_recipe())
    assert "It grew on the bias by 4 %" in one.text
    assert "This one, 62.0 cm long, may hang 2.5 cm longer" in one.text


def test_a_straight_skirt_has_no_bias_to_grow_on():
    straight = a_recipe().model_validate(
        {**a_recipe().model_dump(mode="json"), "lower": {"kind": "straight", "length": 620}}
    )
    assert told([grew(600, 624)], straight) == ()


def test_a_cloth_that_frays_asks_for_wider_seams_until_it_has_them():
    frays = Learnt(Kind.FRAYS, DAY, "at a look")
    (one,) = told([frays], a_recipe())
    assert one.changes == {"allowances.side": 15.0}
    (after,) = told([frays], changed(a_recipe(), dict(one.changes)))
    assert not after.changes


def test_what_was_only_written_down_is_told_as_it_stands():
    assert [one.text for one in told([Learnt(Kind.PRESSES, DAY, "never flat")], a_recipe())] == ["Pressing: never flat"]


def test_in_inches():
    (one,) = told([shrank(36 * 25.4, 35 * 25.4)], a_recipe(), tape=Tape(Unit.INCH))
    assert one.text.startswith("It shrank by 2.8 %: 36 in before, 35 in after.")


@pytest.mark.parametrize(
    ("note", "said"),
    [
        (Learnt(Kind.SHRINKS, DAY), "before and after"),
        (shrank(1000, None), "before and after"),
        (shrank(0, 10), "more than nothing"),
        (shrank(940, 1000), "the right way round"),
        (shrank(1000, 39.4), "in one unit"),
        (grew(1000, 900), "the right way round"),
        (Learnt(Kind.FRAYS, DAY), "what was learnt"),
    ],
)
def test_a_note_that_says_nothing_is_refused_with_the_reason(note, said):
    with pytest.raises(NotMeasured, match=said):
        checked(note)
