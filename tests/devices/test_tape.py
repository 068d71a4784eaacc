"""The simulated tape: what it sends, and what is taken of it."""

import pytest
from pytest import approx

from gentle_hem.core.agreement import agreement
from gentle_hem.core.figure import Figure
from gentle_hem.core.measuring import ORDER
from gentle_hem.core.units import Unit
from gentle_hem.devices.person import TAPE_PERSON
from gentle_hem.devices.tape import Manner, Reading, SimulatedTape, lengths


@pytest.mark.parametrize("unit", list(Unit))
def test_a_steady_tape_reads_the_person_to_its_marks(unit):
    tape = SimulatedTape(TAPE_PERSON, unit)
    for key in ORDER:
        tape.aim(key)
        [length] = lengths(tape.press(0.0), unit)
        assert length == approx(TAPE_PERSON[key], abs=1.6)


def test_nothing_is_sent_until_it_is_held_round_something():
    assert SimulatedTape(TAPE_PERSON).press(0.0) == []


def test_an_echo_is_one_press_and_two_presses_are_two():
    tape = SimulatedTape(TAPE_PERSON)
    tape.manner = Manner.DOUBLE
    tape.aim("waist_girth")
    assert len(tape.press(1.0)) == 2
    assert lengths(tape.press(1.0), Unit.CM) == [approx(742)]
    twice = [Reading(1, "74.2 cm", 0.0), Reading(2, "74.2 cm", 5.0)]
    assert len(lengths(twice, Unit.CM)) == 2


def test_the_other_unit_is_noticed_by_the_measures():
    tape = SimulatedTape(TAPE_PERSON)
    tape.manner = Manner.WRONG_UNIT
    tape.aim("waist_girth")
    [length] = lengths(tape.press(0.0), Unit.CM)
    assert length == approx(292, abs=2.1)
    assert "measure-in-other-unit" in [f.code for f in agreement(Figure(measures={"waist_girth": length}))]


def test_a_dropout_sends_nothing():
    tape = SimulatedTape(TAPE_PERSON)
    tape.manner = Manner.DROPOUT
    tape.aim("waist_girth")
    assert tape.press(0.0) == []


def test_the_invented_person_agrees_with_herself():
    assert [f.code for f in agreement(Figure(measures=TAPE_PERSON))] == []
    assert set(ORDER) == set(TAPE_PERSON), "and has every measure"
