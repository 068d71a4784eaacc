"""Cutting, carrying down and turning pieces: what every style line is made of."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from shapely import Point as ShapelyPoint

from conftest import FIGURE, drafted_recipe, outline
from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.carry import Below, carried_down, pointed_at_both_ends
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.split import Mouth, cut_across, split, upright_grain
from gentle_hem.core.cutting.spread import smoothed
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.geometry.crossing import crossings
from gentle_hem.core.geometry.path_text import path_data, path_from_text
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.what import BODICE_FRONT, Panel

TOP, LOW = BODICE_FRONT.as_panel(Panel.TOP), BODICE_FRONT.as_panel(Panel.MIDRIFF)

SCHOOLS = ("quarters", "quarters_cm", "two_lengths", "proportional", "body_length")


def front(school="quarters"):
    return make_up(drafted_recipe(school)).piece("bodice front")


@given(st.floats(0.1, 0.9), st.floats(0.1, 0.9))
def test_two_parts_of_a_split_make_the_whole(a, b):
    piece = front()
    armhole, centre = piece.edge("armhole"), piece.edges[-1]
    at, to = armhole.drawn_length * a, centre.drawn_length * b
    line = Path.through(armhole.path.point_at(at), centre.path.point_at(to))
    if line.length < 5:
        return
    made = split(
        piece, Mouth.place("armhole", at), Mouth.place(centre.name, to), earlier_line=line.reversed(),
        later_line=line, parts=(TOP, LOW), edge_name="cut", role=Role.YOKE, allowance=10.0,
    )  # fmt: skip
    area = made.earlier.seam_line.signed_area + made.later.seam_line.signed_area
    assert area == approx(piece.seam_line.signed_area, rel=1e-9)
    for edge in ("armhole", centre.name):
        parts = [p.edge(edge).drawn_length for p in (made.earlier, made.later)]
        assert sum(parts) == approx(piece.edge(edge).drawn_length)
    assert made.order["armhole"] == (LOW, TOP), "along the armhole's own path, from the underarm up"
    assert made.later.on_fold
    assert made.earlier.on_fold, "both reach the centre"


def test_a_line_that_leaves_by_the_edge_it_came_in_is_refused():
    piece = front()
    with pytest.raises(CannotMake, match="begin and end on the armhole"):
        split(
            piece, Mouth.place("armhole", 20), Mouth.place("armhole", 60), earlier_line=piece.edges[0].path,
            later_line=piece.edges[0].path, parts=(TOP, LOW), edge_name="cut", role=Role.YOKE, allowance=0,
        )  # fmt: skip


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("above", [40, 60])
def test_cut_across_keeps_the_cloth_and_closes_the_dart_below(school, above):
    piece = front(school)
    level = piece.edge("waist").path.end.y + above
    try:
        made = cut_across(piece, Path.through(Point(-500, level), Point(900, level)), (TOP, LOW), "cut", 10)
    except CannotMake:
        return
    assert made.above.darts_of("waist")
    assert made.below.darts_of("waist") == ()
    assert made.above.stitched_length("waist") == approx(made.below.edge("cut").drawn_length, abs=1.5)
    assert made.below.edge("waist").drawn_length == approx(piece.stitched_length("waist"), abs=1.5)
    assert outline(made.below.seam_line).is_valid


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("length", [60, 205, 400, 950])
def test_carried_down_passes_the_hip_at_its_width(school, length):
    piece = front(school)
    below = Below(length, 205, 270, 250, 150)
    made = carried_down(piece, below)
    corner = piece.edge("waist").path.end
    assert made.edge("side").drawn_length > piece.edge("side").drawn_length + 0.95 * min(length, 205)
    if length > 205:
        across = Path.through(Point(-50, corner.y - 205), Point(900, corner.y - 205))
        assert max(t for _, t in made.edge("side").path.crossings(across)) - 50 == approx(270, abs=0.5)
    assert outline(made.seam_line).is_valid
    if length > 160:
        assert pointed_at_both_ends(made).darts_of("waist") == ()
        assert len(pointed_at_both_ends(made).marks) == 1


@pytest.mark.parametrize("school", SCHOOLS)
def test_a_gown_measures_hip_and_ease_at_the_hip(school):
    """Girth at the hip equals figure and chosen ease within 0.5 mm."""
    garment = make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": school},
                "lower": {"kind": "gown", "hip_ease": 60, "length": 700},
            }
        )
    )
    total = 0.0
    for where in ("front", "back"):
        piece = garment.piece(f"gown {where}")
        side = piece.edge("side").path
        waist_y = max(side.point_at(n.at).y for n in piece.notches if n.edge == "side")
        level = waist_y - FIGURE["waist_to_hip"]
        left, _, right, _ = piece.seam_line.box
        across = Path.through(Point(left - 10, level), Point(right + 10, level))
        met = sorted(t for _, t in piece.seam_line.crossings(across))
        total += met[-1] - met[0]
    assert 2 * total == approx(FIGURE["hip_girth"] + 60, abs=0.5)


def test_mirrored_twice_is_the_same_piece():
    piece = front("proportional")
    again = mirrored(mirrored(piece))
    for a, b in zip(piece.edges, again.edges, strict=True):
        assert a.name == b.name
        assert a.path.start.distance(b.path.start) < 1e-9
    for a, b in zip(piece.darts, again.darts, strict=True):
        assert a.at == approx(b.at)
        assert a.apex.distance(b.apex) < 1e-9


def test_an_upright_grain_lies_inside():
    for school in SCHOOLS:
        for piece in make_up(drafted_recipe(school, panels={"front_princess": "armhole"})).pieces:
            start, end = upright_grain(piece)
            inside = outline(piece.seam_line).buffer(0.1)
            assert inside.contains(ShapelyPoint(tuple(start.towards(end, 0.5)))), piece.name
            assert start.x == approx(end.x)
            assert start.y < end.y


def test_smoothed_keeps_the_ends_of_an_edge():
    piece = front()
    made = smoothed(piece, "armhole", 9)
    assert made.edge("armhole").path.start.distance(piece.edge("armhole").path.start) < 1e-9
    assert made.edge("armhole").path.end.distance(piece.edge("armhole").path.end) < 1e-9
    assert made.edge("armhole").drawn_length == approx(piece.edge("armhole").drawn_length, rel=0.02)


@pytest.mark.parametrize("school", SCHOOLS)
def test_paths_written_as_text_read_back_the_same(school):
    for piece in make_up(drafted_recipe(school)).pieces:
        for edge in piece.edges:
            again = path_from_text(path_data(edge.path))
            assert again.length == approx(edge.path.length, abs=1e-5)
            assert again.start.distance(edge.path.start) < 1e-6
            middle = edge.path.length / 2
            assert again.point_at(middle).distance(edge.path.point_at(middle)) < 1e-4


@pytest.mark.parametrize("text", ["L 1 2", "M 0 0 Q 1 1 2 2", "M 0 0 L 5", "M 0 0 L x y"])
def test_text_that_is_no_path_of_ours_is_refused(text):
    with pytest.raises(ValueError, match=r"M|part of a path|takes"):
        path_from_text(text)


places = st.tuples(st.floats(-100, 100), st.floats(-100, 100)).map(lambda p: Point(*p))


@given(places, places, places, places, places, places)
def test_a_line_meets_a_cubic_where_both_say_so(a, b, c, d, p, q):
    if p.distance(q) < 1:
        return
    line, curve = Line(p, q), Cubic(a, b, c, d)
    for s, t in crossings(line, curve):
        assert line.point_at(s).distance(curve.point_at(t)) < 1e-4
