"""Measures as a table: out and back unchanged, and other people's tables read or refused by their line."""

import pytest
from pytest import approx

from gentle_hem.core.figure import Figure
from gentle_hem.core.units import Unit
from gentle_hem.devices.person import TAPE_PERSON
from gentle_hem.formats.figure_csv import TableError, from_csv, to_csv


@pytest.mark.parametrize("unit", list(Unit))
def test_out_and_back_changes_nothing(unit):
    again = from_csv(to_csv(Figure(measures=TAPE_PERSON), unit), Unit.CM)
    assert again == approx(TAPE_PERSON, abs=0.001)


def test_other_peoples_tables():
    table = "Measure;Value\nWaist girth;72,5\nHIP GIRTH;38 1/2 in\n\nbust_girth;\n"
    assert from_csv(table, Unit.CM) == approx({"waist_girth": 725, "hip_girth": 977.9})


@pytest.mark.parametrize(
    ("table", "part"),
    [
        ("waist girth,72\ntail,3", 'Line 2: "tail" is not a measure'),
        ("waist girth,about 70", "Line 1, waist girth"),
        ("waist girth,0", "more than nothing"),
        ("", "No measures were found"),
    ],
)
def test_what_cannot_be_read_names_its_line(table, part):
    with pytest.raises(TableError, match=part):
        from_csv(table, Unit.CM)
