"""The bodice blocks: every school over many figures (trade 4.1), and what is said when a figure will not draft."""

import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from pytest import approx
from shapely import Polygon

from conftest import a_recipe
from figures import FIGURES, SCHOOLS
from gentle_hem.core.compare import compare_schools
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.start import bodice_choices
from gentle_hem.core.units import Unit, inches

EASES = {
    "quarters": (inches(2), inches(1)), "quarters_cm": (40, 20), "two_lengths": (inches(1), 0),
    "proportional": (60, 0), "body_length": (inches(0.5), inches(0.5)),
}  # fmt: skip


def drafted(school, measures, **bodice):
    recipe = Recipe.model_validate(
        {"figure": {"measures": measures}, "bodice": {"kind": school, **bodice}, "lower": {"kind": "circle"}}
    )
    return make_up(recipe)


def outline(path):
    return Polygon([tuple(p) for p in path.flatten(0.02)])


def width_at(piece, level):
    """Width of the paper at a level, waist and side darts that reach it left out.

    A shoulder dart is not: School 3 draws its rectangle with that dart open.
    """
    box = piece.seam_line.box
    from shapely import LineString

    across = LineString([(box[0] - 10, level), (box[2] + 10, level)])
    width = outline(piece.seam_line).intersection(across).length
    for dart in piece.darts:
        if dart.edge == "shoulder":
            continue
        near, far = piece.dart_legs(dart)
        wedge = Polygon([tuple(near), tuple(dart.apex), tuple(far)])
        width -= wedge.intersection(across).length
    return width


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("name", FIGURES)
def test_every_school_on_every_figure(school, name):
    garment = drafted(school, FIGURES[name])
    stops = {f.code for f in garment.findings if f.severity is Severity.STOP}
    front, back = garment.piece("bodice front"), garment.piece("bodice back")
    for piece in (front, back):
        assert outline(piece.seam_line).is_valid
        assert outline(piece.cut_line).is_valid
    bust = FIGURES[name].get("bust_girth", 920)
    waist = FIGURES[name].get("waist_girth", bust - 160)
    bust_ease, waist_ease = EASES[school]
    assert 2 * garment.joins[0].upper.length == approx(waist + waist_ease, abs=0.5)
    level = front.edge("armhole").path.start.y
    assert 2 * (width_at(front, level) + width_at(back, level)) == approx(bust + bust_ease, abs=0.5)
    if not stops:
        for walked in garment.seams:
            assert walked.verdict.fits, walked
    if name == "nothing at all":
        assert stops == {"bust-not-measured"}
    if name == "square" and school == "proportional":
        assert "nothing-to-suppress" not in stops or front.darts


@pytest.mark.usefixtures("as_drafted")
def test_bust_dart_of_two_lengths():
    """Common practice: front 17 in, back 15 in; the bust dart is 2 in and closed the sides are equal."""
    measures = {
        "bust_girth": inches(38),
        "waist_girth": inches(30),
        "front_waist_length": inches(17),
        "back_waist_length": inches(15),
    }
    garment = drafted("two_lengths", measures)
    [dart] = garment.piece("bodice front").darts_of("side")
    assert dart.intake == approx(inches(2))
    side = next(w for w in garment.seams if w.seam.name == "bodice side seam")
    assert side.length_a == approx(side.length_b, abs=0.01)


def working(garment, label):
    return next(w.value for w in garment.workings if w.label == label)


def test_armhole_depths():
    """Common practice: bust/6 + 1½ in for 38 in is 7.8333 in; bust/4 + 1.5 cm for 92 cm is 24.5 cm."""
    assert working(drafted("quarters", {"bust_girth": inches(38)}), "armhole depth") == approx(inches(7.8333), abs=0.01)
    by_quarter = drafted("quarters", {"bust_girth": 920}, armhole_rule="bust_quarter")
    assert working(by_quarter, "armhole depth") == approx(245)
    by_girth = drafted("quarters", {"bust_girth": 920, "armhole_girth": 400}, armhole_rule="armhole_half")
    assert working(by_girth, "armhole depth") == approx(200)


@pytest.mark.usefixtures("as_drafted")
def test_suppression_of_school_3():
    """Common practice: bust 92, waist 72: T 13; back 4, side 4, front 5 cm."""
    garment = drafted("proportional", {"bust_girth": 920, "waist_girth": 720})
    assert working(garment, "suppression") == approx(130)
    assert working(garment, "back waist dart") == approx(40)
    assert working(garment, "front waist dart") == approx(50)
    assert garment.piece("bodice front").darts_of("waist")[0].intake == approx(50)
    assert garment.piece("bodice back").darts_of("waist")[0].intake == approx(40)


def test_neck_of_school_3():
    """Common practice: neck 36 cm: front 6.2 wide, 7.2 deep; back 6.7 wide."""
    garment = drafted("proportional", {"bust_girth": 920, "neck_girth": 360})
    assert working(garment, "front neck width") == approx(62)
    assert working(garment, "front neck depth") == approx(72)
    assert working(garment, "back neck width") == approx(67)


measures = st.fixed_dictionaries(
    {"bust_girth": st.floats(740, 1400), "waist_girth": st.floats(560, 1300)},
    optional={
        "front_waist_length": st.floats(360, 520), "back_waist_length": st.floats(350, 470),
        "bust_span": st.floats(140, 260), "shoulder_to_bust_point": st.floats(200, 340),
        "shoulder_width": st.floats(320, 450), "shoulder_length": st.floats(100, 150),
        "neck_girth": st.floats(310, 460), "across_front": st.floats(280, 400), "across_back": st.floats(300, 420),
    },
)  # fmt: skip


DEEP_DART = {"bust_girth": 967.0, "waist_girth": 608.0, "front_waist_length": 360.0, "back_waist_length": 350.0}
"""A waist so far in below so full a bust that its edge is turned by 25° where it meets the side."""


@given(st.sampled_from(SCHOOLS), measures)
@example("proportional", DEEP_DART)
def test_any_figure_drafts_to_pieces_that_close_and_seams_that_walk_or_a_finding(school, taken):
    garment = drafted(school, taken)
    told = {f.code for f in garment.findings if f.severity is not Severity.NOTE}
    for piece in garment.pieces[:2]:
        assert outline(piece.seam_line).is_valid or told
    for walked in garment.seams:
        assert walked.verdict.fits or told
    waist_ease = EASES[school][1]
    if not told & {"nothing-to-suppress", "waist-too-near-bust", "waist-not-as-asked", "measures-do-not-draft"}:
        assert 2 * garment.joins[0].upper.length == approx(taken["waist_girth"] + waist_ease, abs=0.5)


@pytest.mark.parametrize("school", SCHOOLS)
def test_dart_legs_are_equally_long(school):
    garment = drafted(school, FIGURES["very full bust"])
    for piece in garment.pieces[:2]:
        for dart in piece.darts:
            near, far = piece.dart_legs(dart)
            assert near.distance(dart.apex) == approx(far.distance(dart.apex), abs=0.01), dart


@pytest.mark.parametrize("school", SCHOOLS)
def test_the_draft_can_be_played(school):
    """Every line of the finished outline appears in some step, and every named place is found once a half."""
    garment = drafted(school, FIGURES["tall"])
    assert len(garment.draft) >= 10
    for half in ("front", "back"):
        steps = [step for step in garment.draft if step.half == half]
        names = [name for step in steps for name in step.points]
        assert {"N", "C", "T", "A", "U", "W", "O"} <= set(names)
        assert len(names) == len(set(names))
        drawn = {segment for step in steps for path in step.strokes for segment in path}
        front = garment.piece("bodice front")
        if half == "front":
            for edge in ("waist", "side", "armhole", "neckline"):
                assert set(front.edge(edge).path.segments) <= drawn
        for step in steps:
            assert step.text(Unit.INCH).endswith(".")


def test_estimates_are_marked_and_rules_named():
    garment = drafted("quarters", {"bust_girth": 1040, "waist_girth": 860, "hip_girth": 1100})
    said = [f.text(Unit.CM) for f in garment.findings if f.code == "measure-estimated"]
    assert "The bust span was not measured: 20.8 cm is estimated, confirm at fitting." in said
    estimated = [w for w in garment.workings if w.label.endswith("(estimated)")]
    assert all(w.rule for w in estimated)
    assert len(estimated) == len(said)


@pytest.mark.usefixtures("as_drafted")
def test_changing_the_way_keeps_the_waist_seam():
    """A bodice turned into measured edges begins with the edges it had."""
    recipe = a_recipe(figure={"measures": FIGURES["tall"]})
    drafted_recipe = recipe.model_copy(update={"bodice": Recipe.model_validate(
        {"bodice": {"kind": "two_lengths"}, "lower": {"kind": "circle"}}).bodice})  # fmt: skip
    garment = make_up(drafted_recipe)
    measured = dict(bodice_choices(drafted_recipe, garment))["measured"]
    again = make_up(drafted_recipe.model_copy(update={"bodice": measured}))
    assert again.joins[0].upper.length == approx(garment.joins[0].upper.length)
    assert again.joins[0].upper.at("front dart") == approx(garment.joins[0].upper.at("front dart"))
    assert again.joins[0].upper.at("back dart") == approx(garment.joins[0].upper.at("back dart"))


def test_two_schools_compared_for_one_figure():
    recipe = Recipe.model_validate(
        {"figure": {"measures": FIGURES["tall"]}, "bodice": {"kind": "quarters"}, "lower": {"kind": "circle"}}
    )
    other = dict(bodice_choices(recipe, make_up(recipe)))["two_lengths"]
    compared = compare_schools(recipe, other)
    rows = {row.label: row for row in compared.rows}
    assert rows["front waist"].mine == approx((740 + inches(1)) / 4)
    assert rows["front waist"].theirs == approx(740 / 4)
    assert rows["front dart at the side"].mine == 0
    assert rows["front dart at the side"].theirs == approx(30, abs=0.3), "as its trued side has it"
    assert rows["front waist"].difference == approx(-inches(0.25))
    for mine, theirs in compared.halves:
        centre = f"centre {mine.name.split()[1]}"
        xs = {round(p.edge(centre).path.start.x, 9) for p in (mine, theirs)}
        assert xs == {0.0}, "both drafts share the centre line"


def test_measured_edges_have_no_draft_to_compare():
    recipe = a_recipe()
    other = dict(bodice_choices(recipe, make_up(recipe)))["quarters"]
    with pytest.raises(ValueError, match="choose two schools"):
        compare_schools(recipe, other)
