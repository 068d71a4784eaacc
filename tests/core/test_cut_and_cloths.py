"""What is cut, from which cloth, and whether it fits the body; what is measured is used or said not to be."""

import collections
import json
from pathlib import Path

import pytest
from pytest import approx

from conftest import FIGURE, drafted_recipe
from gentle_hem.core.cloth.cloths import Cloths
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import Side, cut_pieces
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import finished_alone
from gentle_hem.core.recipe import Recipe, read_recipe
from gentle_hem.core.sentences import say_part
from gentle_hem.core.units import Unit
from gentle_hem.core.what import Half, Layer, Panel, Section, What

EXAMPLES = sorted((Path(__file__).parents[2] / "examples").glob("*.recipe.json"))


def made(school="quarters", **rest):
    data = {"figure": {"measures": FIGURE}, "bodice": {"kind": school}, "lower": {"kind": "circle", "sweep": 270}}
    return make_up(Recipe.model_validate(data | rest))


def codes(garment):
    return {finding.code for finding in garment.findings}


# names


def test_a_name_is_derived_from_what_a_piece_is():
    names = {
        What(Section.BODICE, Half.FRONT): "bodice front",
        What(Section.GOWN, Half.BACK, Panel.SIDE): "gown side back",
        What(Section.BODICE, Half.FRONT, Panel.YOKE): "front yoke",
        What(Section.BODICE, Half.BACK, Panel.NECK, Layer.FACING): "back neck facing",
        What(Section.SKIRT, Half.BACK, Panel.TIER, number=3): "tier 3 back",
        What(Section.GODET, number=2): "godet 2",
        What(Section.SLEEVE, layer=Layer.LINING): "sleeve lining",
        What(Section.BODICE, Half.BACK, other=True): "bodice back other",
    }
    assert {what: what.name for what in names} == names


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name.split(".")[0])
def test_no_two_pieces_of_an_example_are_the_same_thing_or_have_the_same_name(path):
    garment = make_up(read_recipe(json.loads(path.read_text())))
    assert len({piece.what for piece in garment.pieces}) == len(garment.pieces)
    assert len({piece.name for piece in garment.pieces}) == len(garment.pieces)
    assert len({walked.name for walked in garment.seams}) == len(garment.seams)


# cut instances


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name.split(".")[0])
def test_as_many_things_are_cut_as_the_pieces_say(path):
    garment = make_up(read_recipe(json.loads(path.read_text())))
    things = collections.Counter(one.piece for one in cut_pieces(garment))
    assert things == {p.what: p.cut for p in garment.pieces if p.cloth is not ClothRole.PAPER}
    for one in cut_pieces(garment):
        assert one.seams or one.piece.layer is Layer.INTERFACING, f"{one.name} is sewn to nothing"
        assert one.turned_over == (one.side is Side.RIGHT)
    names = [one.name for one in cut_pieces(garment)]
    assert len(set(names)) == len(names)


def test_left_and_right_whole_on_the_fold_and_alike_are_told_apart():
    garment = made(lower={"kind": "gores", "count": 8}, trims=[{"kind": "sleeve"}, {"kind": "stand_collar"}])
    sides = collections.defaultdict(list)
    for one in cut_pieces(garment):
        sides[one.piece.name].append(one.side)
    assert sides["bodice front"] == [Side.WHOLE]
    assert sides["bodice back"] == [Side.LEFT, Side.RIGHT]
    assert sides["gore front"] == [Side.ALIKE] * 4
    assert sides["sleeve"] == [Side.LEFT, Side.RIGHT]
    assert sides["stand collar"] == [Side.WHOLE] * 2, "two layers"


def test_a_garment_that_differs_left_from_right_is_nothing_special():
    garment = made("two_lengths", style={"top": "one_shoulder"}, contour={"zip_taken": 19})
    things = {one.name: one for one in cut_pieces(garment)}
    assert things["bodice back"].side is things["bodice back other"].side is Side.WHOLE
    assert things["bodice front"].side is Side.WHOLE
    assert not things["bodice front"].on_fold


# cloths


def test_each_piece_is_cut_from_its_cloth():
    garment = made(
        cloths={"contrast_for": "yokes"}, panels={"front_yoke": 110}, finish={"lining": "whole"},
        trims=[{"kind": "stand_collar"}],
    )  # fmt: skip
    cloths = {piece.name: piece.cloth for piece in garment.pieces}
    assert cloths["front yoke"] is ClothRole.CONTRAST
    assert cloths["bodice front"] is cloths["stand collar"] is ClothRole.OUTER
    assert cloths["front yoke lining"] is ClothRole.LINING
    bands = made(cloths={"contrast_for": "bands"}, trims=[{"kind": "stand_collar"}])
    assert bands.piece("stand collar").cloth is ClothRole.CONTRAST


def test_a_contrast_is_spoken_of_where_something_is_cut_from_it():
    plain, yokes = Cloths(), Cloths.model_validate({"contrast_for": "yokes", "outer": {"across": 15}})
    lines = ["".join(t if isinstance(t, str) else t.text for t in line) for line in say_part(plain, "", Unit.CM).lines]
    assert "From a contrast are cut no pieces." in lines
    words = {t.path for line in say_part(yokes, "cloths", Unit.CM).lines for t in line if not isinstance(t, str)}
    assert "cloths.contrast.weight" in words


@pytest.mark.parametrize(
    ("weight", "fullness", "said"),
    [("heavy", 2.5, "bulky"), ("heavy", 1.5, ""), ("light", 1.5, "thin"), ("light", 2.5, ""), ("net", 2.0, "thin"),
     ("medium", 2.0, ""), ("unsaid", 5.0, "")],
)  # fmt: skip
def test_fullness_is_held_against_the_cloths_weight(weight, fullness, said):
    """Trade 8: fullness 1.5 heavy, 2 medium, 2.5 to 3 light, net 3 and more."""
    garment = made(lower={"kind": "gathered", "fullness": fullness}, cloths={"outer": {"weight": weight}})
    told = [f.text(Unit.CM) for f in garment.findings if f.code == "fullness-for-cloth"]
    assert len(told) == bool(said)
    assert all(said in text for text in told)


# the body


@pytest.mark.parametrize(
    ("rest", "where"),
    [
        ({"bodice": {"kind": "quarters", "bust_ease": -40}}, "bust"),
        ({"bodice": {"kind": "quarters", "waist_ease": -40}}, "waist"),
        ({"lower": {"kind": "straight", "hip_ease": -40}}, "hip"),
        ({"lower": {"kind": "gown", "length": 900, "hip_ease": -40}}, "hip"),
        ({"lower": {"kind": "gores", "hip_ease": -40}}, "hip"),
    ],
)
def test_a_girth_smaller_than_the_body_is_said_unless_the_cloth_stretches(rest, where):
    tight = made(**rest)
    told = [f for f in tight.findings if f.code == "smaller-than-body"]
    assert [finding.values["where"] for finding in told] == [where]
    assert told[0].values["short"] == approx(40, abs=6), "about what the ease falls short by"
    stretching = made(**rest, cloths={"outer": {"across": 15}})
    assert "smaller-than-body" not in codes(stretching)
    assert "smaller-than-body" not in codes(made(lower={"kind": "straight"}))


def test_stretch_lets_a_garment_without_an_opening_be_got_into():
    rest = {
        "opening": {"place": "none"},
        "bodice": {"kind": "quarters", "waist_ease": 120},
        "lower": {"kind": "gathered"},
    }
    assert "cannot-be-got-into" in codes(made(**rest))
    assert "cannot-be-got-into" not in codes(made(**rest, cloths={"outer": {"across": 30}}))


@pytest.mark.parametrize(("more", "ties", "passes"), [(25, 0, False), (200, 0, True), (25, 300, True)])
def test_a_closed_neck_band_must_pass_the_head(more, ties, passes):
    """Trade 10: head girth and 2 cm. Neck 36, head 57: 2.5 cm more does not go over it, 20 cm more and ... does."""
    figure = {"measures": FIGURE | {"neck_girth": 400, "head_girth": 570}}
    garment = made(figure=figure, opening={"place": "side"}, trims=[{"kind": "neck_band", "more": more, "ties": ties}])
    assert ("band-does-not-pass-head" not in codes(garment)) is passes


# measures


def test_a_measure_that_was_taken_is_used_or_said_not_to_be():
    figure = {"measures": FIGURE | {"calf_girth": 360, "full_length": 1400}}
    [finding] = [f for f in made(figure=figure).findings if f.code == "measures-unused"]
    assert "calf girth" in finding.text(Unit.CM)
    assert "full length" in finding.text(Unit.CM)
    assert "waist girth" not in finding.text(Unit.CM)
    trousers = made(figure={"measures": {"bust_girth": 900, "waist_to_knee": 580}}, lower={"kind": "trousers"})
    told = [f.text(Unit.CM) for f in trousers.findings if f.code == "measures-unused"]
    assert not any("waist to knee" in text for text in told)


def test_making_up_leaves_the_recipes_own_figure_alone():
    recipe = drafted_recipe("quarters")
    make_up(recipe)
    assert type(recipe.figure).__name__ == "Figure"
    assert make_up(recipe).findings == make_up(recipe).findings


def test_nape_to_waist_gives_the_back_neck_depth():
    """Trade 3.4: back length less nape to waist, where both are taken: 40.2 and 38.4 give 1.8 cm."""
    figure = {"measures": FIGURE | {"back_waist_length": 402, "nape_to_waist": 384}}
    back = made("proportional", figure=figure).piece("bodice back")
    assert back.edge("neckline").path.box[1] == approx(-18, abs=0.01)


def test_front_and_back_cross_shoulders_are_their_own():
    """Trade 4.1: the proportional school halves the front's and the back's, each for its own shoulder."""
    plain = made("proportional")
    figure = {"measures": FIGURE | {"cross_shoulder_front": 360, "cross_shoulder_back": 400}}
    other = made("proportional", figure=figure)
    for name in ("bodice front", "bodice back"):
        assert other.piece(name).edge("shoulder").path != plain.piece(name).edge("shoulder").path
    slopes = []
    for name in ("bodice front", "bodice back"):
        path = other.piece(name).edge("shoulder").path
        high, low = max(path.start, path.end, key=lambda p: p.y), min(path.start, path.end, key=lambda p: p.y)
        slopes.append(abs(high.y - low.y) / abs(high.x - low.x))
    assert slopes[0] != approx(slopes[1], rel=0.003)


# why


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name.split(".")[0])
def test_the_working_beside_a_length_explains_that_very_length(path):
    garment = make_up(read_recipe(json.loads(path.read_text())))
    places = {id(working) for working in garment.workings}
    assert garment.joins
    for walked in garment.joins:
        for run, length in ((walked.seam.a, walked.length_a), (walked.seam.b, walked.length_b)):
            assert id(run.why.working) in places
            assert min(abs(run.why - length), abs(run.why - walked.times * length)) < 0.06, (walked.name, run.name)


def test_a_gore_seam_beside_a_princess_seam_is_tied_to_it_and_shown():
    garment = made(
        lower={"kind": "gores", "count": 6}, panels={"front_princess": "shoulder", "back_princess": "shoulder"}
    )
    ties = {tie.name: tie for tie in next(w for w in garment.seams if w.name == "waist seam").ties}
    tie = ties["front princess seam"]
    assert tie.lower_name == "front gore seam 1"
    assert abs(tie.offset) > 6
    said = [f.text(Unit.CM) for f in garment.findings if f.code == "landmark-does-not-meet"]
    assert any(
        "front gore seam 1 of the skirt" in text and "the front princess seam of the bodice" in text for text in said
    )


def test_every_kind_of_edge_that_may_be_left_alone_says_how():
    from gentle_hem.core.pattern import Role

    alone = {role for role in Role if finished_alone(role) is not None}
    assert alone == {Role.HEM, Role.NECKLINE, Role.ARMHOLE, Role.FREE}
