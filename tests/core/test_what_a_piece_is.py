"""A piece is asked what it is, never what it is called."""

import ast
from pathlib import Path

import pytest
from pytest import approx

import gentle_hem
from conftest import FIGURE, drafted_recipe
from gentle_hem.core.compare import compare_schools
from gentle_hem.core.make_up import make_up
from gentle_hem.core.start import bodice_choices
from gentle_hem.core.what import Half, Layer, Section, What

SCHOOLS = ("quarters", "quarters_cm", "two_lengths", "proportional", "body_length")
SOURCE = Path(gentle_hem.__file__).parent


def working(garment, label):
    return next(w.value for w in garment.workings if w.label == label)


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize(
    "lines",
    [{}, {"front_princess": "shoulder", "back_princess": "armhole"}, {"front_yoke": 80, "back_yoke": 90},
     {"ends": "midriff"}],
    ids=["plain", "princess", "yoke", "midriff"],
)  # fmt: skip
def test_every_piece_says_its_section_half_and_layer(school, lines):
    recipe = drafted_recipe(
        school, panels=lines, style={"facing": "faced"}, finish={"lining": "whole", "interfacing": "interfaced"},
        band={"kind": "waistband"}, trims=[{"kind": "sleeve"}, {"kind": "hem_ruffle"}],
    )  # fmt: skip
    for piece in make_up(recipe).pieces:
        said = piece.name.split()
        if "front" in said or "back" in said:
            assert piece.what.half is (Half.FRONT if "front" in said else Half.BACK), piece.name
        assert (piece.what.layer is Layer.LINING) == ("lining" in said), piece.name
        assert (piece.what.layer is Layer.INTERFACING) == ("interfacing" in said), piece.name
        if "facing" in said and "interfacing" not in said:
            assert piece.what.layer is Layer.FACING, piece.name
        sections = {
            "skirt": Section.SKIRT, "bodice": Section.BODICE, "waistband": Section.WAISTBAND, "sleeve": Section.SLEEVE,
            "midriff": Section.BODICE, "yoke": Section.BODICE,
        }  # fmt: skip
        wanted = next((section for word, section in sections.items() if word in said), None)
        assert wanted in (None, piece.what.section), piece.name


def test_a_princess_seam_does_not_shorten_the_trunk():
    """The trunk of a jumpsuit is what it is, whatever the bodice is cut into (it differed by 20 cm)."""
    figure = {"measures": {**FIGURE, "trunk_girth": 1560}}
    trunks = []
    for lines in ({}, {"front_princess": "shoulder", "back_princess": "shoulder"}, {"front_yoke": 80}):
        recipe = drafted_recipe("two_lengths", lower=None, panels=lines).model_copy(deep=True)
        data = recipe.model_dump(mode="json") | {"figure": figure, "lower": {"kind": "trousers"}}
        trunks.append(working(make_up(type(recipe).model_validate(data)), "trunk of the pattern"))
    assert trunks[1] == approx(trunks[0], abs=0.01)
    assert trunks[2] == approx(trunks[0], abs=0.01)


def test_a_yoke_does_not_lengthen_a_peplum():
    lengths = []
    for lines in ({}, {"front_yoke": 80, "back_yoke": 80}, {"front_princess": "armhole"}):
        recipe = drafted_recipe("quarters", panels=lines)
        data = recipe.model_dump(mode="json") | {"lower": {"kind": "peplum", "top_length": 640}}
        lengths.append(working(make_up(type(recipe).model_validate(data)), "peplum length"))
    assert lengths[1] == approx(lengths[0], abs=0.01)
    assert lengths[2] == approx(lengths[0], abs=0.01)


@pytest.mark.parametrize("lower", [{"kind": "tiered"}, {"kind": "peplum"}, {"kind": "gores"}, {"kind": "trousers"}])
def test_a_dress_lined_all_through_has_a_lining_for_every_lower_piece(lower):
    """A tiered skirt has nothing to do with a tie, and a peplum is lined like the rest."""
    recipe = drafted_recipe("quarters")
    data = recipe.model_dump(mode="json") | {"lower": lower, "finish": {"lining": "whole"}}
    pieces = make_up(type(recipe).model_validate(data)).pieces
    outer = {piece.name for piece in pieces if piece.what.section.is_lower and piece.what.layer is Layer.OUTER}
    lined = {piece.name.removesuffix(" lining") for piece in pieces if piece.what.layer is Layer.LINING}
    assert outer
    assert outer <= lined


@pytest.mark.parametrize("lower", [{"kind": "gown"}, {"kind": "trousers"}, {"kind": "circle"}])
def test_schools_are_compared_under_any_lower_part(lower):
    recipe = drafted_recipe("quarters")
    recipe = type(recipe).model_validate(
        recipe.model_dump(mode="json") | {"lower": lower, "trims": [{"kind": "sleeve"}]}
    )
    other = dict(bodice_choices(recipe, make_up(recipe)))["proportional"]
    comparison = compare_schools(recipe, other)
    assert [pair[0].what for pair in comparison.halves] == [
        What(Section.BODICE, Half.FRONT), What(Section.BODICE, Half.BACK),
    ]  # fmt: skip
    assert {row.label for row in comparison.rows} >= {"front waist", "back armhole"}


def test_no_code_asks_whether_a_pieces_name_holds_a_word():
    """Held over every module of the core: ``"x" in name`` and ``name.startswith("x")`` of a piece."""
    asked = []
    for file in sorted((SOURCE / "core").rglob("*.py")):
        for node in ast.walk(ast.parse(file.read_text())):
            if isinstance(node, ast.Compare) and isinstance(node.ops[0], ast.In | ast.NotIn):
                of = ast.unparse(node.comparators[0])
                if isinstance(node.left, ast.Constant) and (
                    of in ("name", "n") or of.endswith(("piece.name", ".piece"))
                ):
                    asked.append(f"{file.name}:{node.lineno}")
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
                of = ast.unparse(node.func.value)
                if node.func.attr in ("startswith", "endswith") and (
                    of == "name" or of.endswith(("piece.name", ".piece"))
                ):
                    asked.append(f"{file.name}:{node.lineno}")
    assert asked == []
