"""Lengths as people write them (trade 3.2)."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from gentle_hem.core.units import (
    LengthError,
    Tape,
    Unit,
    format_exact,
    format_length,
    format_share,
    inches,
    is_on_the_tape,
    parse_length,
)


@pytest.mark.parametrize(
    ("typed", "unit", "mm"),
    [
        ("34 3/4", Unit.INCH, 882.65),
        ('34 3/4"', None, 882.65),
        ("34¾in", None, 882.65),
        ("34.75", Unit.INCH, 882.65),
        ("88 cm", None, 880),
        ("88,3cm", None, 883),
        ("883mm", Unit.INCH, 883),
        ("2' 10 3/4\"", None, 882.65),
        ("2′ 10¾″", None, 882.65),
        ("2' 10", None, 863.6),
        ("3/8 in", None, 9.525),
        ("34-3/4 in", None, 882.65),
        ("½", Unit.INCH, 12.7),
        (",5 cm", None, 5),
        ("1 yd", None, 914.4),
        ("1,5 m", None, 1500),
        ("0", Unit.CM, 0),
        ("0", None, 0),
        ("  62  CM ", None, 620),
        ("-1/2 in", None, -12.7),
        ("5 ft 3 in", None, 1600.2),
    ],
)
def test_every_way_of_writing_a_length(typed, unit, mm):
    assert parse_length(typed, unit) == mm


@pytest.mark.parametrize(
    ("typed", "part"),
    [
        ("", "No length"), ("abc", '"abc"'), ("34 3/0 in", "3/0"), ("34 in 5", "no unit"), ("12 12 in", "too many"),
        ("34.5 1/2 in", "1/2"), ("cm", "no number"), ("34", "no unit"), ("34 parsecs", "parsecs"), ("6000 in", "50 m"),
        ("10 in 2 ft", "ft"), ("1,234.5 cm", "too many"), ("1e5 cm", '"e5"'), ("34 3/4 1/8 in", "1/8"),
        ("∞", "∞"), ("9" * 400 + " in", "50 m"),
    ],
)  # fmt: skip
def test_what_cannot_be_read_is_refused_in_a_sentence_naming_the_part(typed, part):
    with pytest.raises(LengthError) as refused:
        parse_length(typed)
    assert part in str(refused.value)
    assert str(refused.value).endswith(".")


@pytest.mark.parametrize(
    ("mm", "inch", "centimetre"),
    [
        (882.65, "34 3/4 in", "88.3 cm"),
        (inches(5.4113), "5 3/8 in", "13.7 cm"),
        (0, "0 in", "0.0 cm"),
        (inches(0.5), "1/2 in", "1.3 cm"),
        (inches(-0.25), "-1/4 in", "-0.6 cm"),
        (-0.01, "0 in", "0.0 cm"),
        (inches(11.99), "12 in", "30.5 cm"),
    ],
)
def test_shown_as_fractions_or_tenths(mm, inch, centimetre):
    assert format_length(mm, Unit.INCH) == inch
    assert format_length(mm, Unit.CM) == centimetre


def test_sixteenths_on_request():
    assert format_length(inches(5.4375), Tape(Unit.INCH, 16)) == "5 7/16 in"


def test_who_writes_commas_reads_commas():
    assert format_length(883, Tape(Unit.CM, comma=True)) == "88,3 cm"
    assert format_exact(137.447, Tape(Unit.CM, comma=True)) == "13,7447 cm"
    assert format_length(inches(34.75), Tape(Unit.INCH, comma=True)) == "34 3/4 in", "a fraction has no decimal"


@pytest.mark.parametrize(
    ("total", "count", "said", "each"),
    [
        (54.0, 4, Unit.CM, "1.35 cm"),
        (52.0, 4, Unit.CM, "1.3 cm"),
        (26.0, 3, Unit.CM, "0.9 cm (2) and 0.8 cm (1)"),
        (inches(2), 4, Unit.INCH, "1/2 in"),
        (inches(2.125), 4, Unit.INCH, "17/32 in"),
        (inches(1), 3, Unit.INCH, "3/8 in (1) and 5/16 in (2)"),
        (27.0, 2, Tape(Unit.CM, comma=True), "1,35 cm"),
    ],
)
def test_shares_make_the_total_that_is_said(total, count, said, each):
    """Four darts of 1.4 cm are not 5.4 cm; an instruction that does not add up is not believed."""
    assert format_share(total, count, said) == each


@given(st.floats(0, 400), st.integers(1, 12), st.sampled_from(list(Unit)))
def test_shares_add_up_whatever_is_shared(total, count, unit):
    per = 10.0 if unit is Unit.CM else 25.4
    added = 0.0
    for part in format_share(total, count, unit).split(" and "):
        size, _, times = part.removesuffix(")").partition(" (")
        added += parse_length(size) * int(times or count)
    shown = round(total) if unit is Unit.CM else round(total / per * 8) / 8 * per
    assert added == pytest.approx(shown, abs=1e-6)


def test_a_length_lies_on_the_tape_or_between_its_marks():
    assert is_on_the_tape(inches(34.75), Unit.INCH)
    assert not is_on_the_tape(inches(5.4375), Unit.INCH)
    assert is_on_the_tape(inches(5.4375), Tape(Unit.INCH, 16))
    assert is_on_the_tape(883.0, Unit.CM)
    assert not is_on_the_tape(882.65, Unit.CM)


def test_exact_text_of_the_contract():
    assert format_exact(inches(5.41126), Unit.INCH) == "5.4113 in"


@given(st.integers(0, 400), st.integers(0, 15))
def test_sixteenths_survive_writing_and_reading(whole, sixteenths):
    length = inches(float(whole + Fraction(sixteenths, 16)))
    assert parse_length(format_length(length, Tape(Unit.INCH, 16))) == pytest.approx(length, abs=1e-9)


@given(st.text(max_size=30))
def test_anything_typed_is_either_read_or_refused(typed):
    try:
        assert abs(parse_length(typed, Unit.CM)) <= 50_000
    except LengthError as refused:
        assert str(refused)
