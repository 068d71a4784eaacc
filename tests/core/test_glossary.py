"""The words of the trade: two sentences each, found by their doubles, every part of a recipe explained."""

import re

import pytest

from gentle_hem.core.block import BODICES
from gentle_hem.core.figure import MEASURES
from gentle_hem.core.glossary import BOX, TERMS, about, terms
from gentle_hem.core.lower import LOWER_PARTS

# The regional doubles are those the handbook lists in section 2.
DOUBLES = {
    "half length": "front waist length", "shoulder-to-waist": "front waist length", "point to point": "bust span",
    "flare": "circle", "joining allowance": "allowance", "under-bust line": "under bust girth",
    "tummy line": "under bust girth", "mono-strap": "strap", "one-shoulder": "strap", "jumper with bib": "pinafore",
    "rise": "crotch depth",
}  # fmt: skip


@pytest.mark.parametrize(("double", "name"), DOUBLES.items())
def test_a_word_is_found_by_what_it_is_called_elsewhere(double, name):
    assert about(double.replace("shoulder-to-waist", "shoulder to waist")).name == name


def test_every_word_has_its_sentences_and_a_drawing_that_stays_in_its_box():
    assert len({term.name.lower() for term in terms()}) == len(terms()) == len(TERMS) + len(MEASURES)
    for term in terms():
        assert term.means.endswith((".", "?")), term.name
        assert len(re.findall(r"[.;:]( |$)", term.means)) <= 4, term.name
    width, height = BOX
    for term in TERMS:
        assert 30 < len(term.means) < 260, term.name
        for path in (term.solid, term.dashed):
            numbers = re.findall(r"[MLHVC]([^MLHVCAZm]*)", path)  # absolute strokes alone
            for x, y in (pair for run in numbers for pair in re.findall(r"(-?[\d.]+) (-?[\d.]+)", run)):
                assert 0 <= float(x) <= width, (term.name, x)
                assert 0 <= float(y) <= height, (term.name, y)


SAYS_ITSELF = ("No bodice yet", "Trousers", "Straight skirt")


@pytest.mark.parametrize(
    "part", [part for part in (*LOWER_PARTS, *BODICES) if part.title not in SAYS_ITSELF], ids=lambda part: part.__name__
)
def test_every_school_and_lower_part_is_explained(part):
    assert about(part.title) is not None


def test_the_longest_name_that_stands_in_a_label_is_meant():
    assert about("finished length") is None
    assert about("waist seam of the skirt").name == "waist seam"
    assert about("darts put into the lower part, each").name == "dart"
    assert about("hip girth").name == "hip girth"
    assert about("how it is hemmed") is None
