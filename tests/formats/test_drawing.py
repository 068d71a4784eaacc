"""How pieces are laid on a sheet and drawn, before any format has its say."""

from itertools import combinations, pairwise
from math import pi

import pytest
import svgelements
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from shapely import Polygon, box

from conftest import a_recipe
from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Point
from gentle_hem.core.make_up import make_up
from gentle_hem.core.marking import is_fold
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit
from gentle_hem.formats.drawing import Ink, lay_side_by_side, lay_to_fill, strokes
from gentle_hem.formats.dxf import vertices
from gentle_hem.formats.labels import Tag, sheet
from gentle_hem.formats.paper import Paper
from gentle_hem.formats.pdf import MARGIN, OVERLAP, Tile, tiles_for
from gentle_hem.formats.svg import number, path_data


def outlines(laid):
    return [Polygon([tuple(p) for p in item.piece.cut_line.placed(item.placement).flatten(0.1)]) for item in laid]


@given(st.floats(60, 720), st.sampled_from([1, 2, 4]), st.floats(100, 1200), st.floats(400, 4000), st.floats(0, 80))
def test_pieces_on_a_sheet_never_touch_and_never_leave_it(sweep, pieces, length, widest, gap):
    garment = make_up(a_recipe(lower={"sweep": sweep, "pieces": pieces, "length": length}))
    laid, width, height = lay_side_by_side(garment.pieces, gap, widest)
    assert [item.piece.name for item in laid] == [piece.name for piece in garment.pieces]
    placed = outlines(laid)
    sheet = box(0, 0, width, height).buffer(0.2)
    for outline in placed:
        assert sheet.contains(outline)
    for one, other in combinations(placed, 2):
        assert one.distance(other) >= gap - 0.2


def test_small_pieces_lie_below_each_other():
    laid, _, _ = lay_side_by_side(make_up(a_recipe(lower={"length": 900})).pieces)
    front, back = laid[0].placement.move, laid[1].placement.move
    assert front.real == approx(back.real)
    assert front.imag > back.imag


def test_the_screens_sheet_is_no_smaller_than_one_row_or_one_column():
    pieces = make_up(a_recipe()).pieces
    _, width, height = lay_to_fill(pieces, 1.3)
    for widest in (1, 1e9):
        _, other_width, other_height = lay_side_by_side(pieces, 60.0, widest)
        assert max(width / 1.3, height) <= max(other_width / 1.3, other_height) + 1e-6


@pytest.fixture(scope="module")
def bodice():
    recipe = {"figure": {"measures": {"bust_girth": 920, "waist_girth": 740}}, "bodice": {"kind": "quarters"}}
    return make_up(Recipe.model_validate({**recipe, "lower": {"kind": "circle"}}))


def test_every_mark_of_a_piece_is_drawn(bodice):
    front = bodice.piece("bodice front")
    drawn = {}
    for stroke in strokes(front):
        drawn.setdefault(stroke.ink, []).append(stroke)
    assert len(drawn[Ink.CUT]) == len(drawn[Ink.SEAM]) == 1
    assert len(drawn[Ink.FOLD]) == 1
    bracket = 1 + 2 * 2
    assert len(drawn[Ink.INTERNAL]) == len(front.darts) + bracket
    assert len(drawn[Ink.DRILL]) == 2 * len(front.darts), "a cross just inside each dart's point"
    assert len(drawn[Ink.NOTCH]) == sum(2 if notch.double else 1 for notch in front.notches)
    assert len(drawn[Ink.GRAIN]) == 3, "a line and two arrow heads"


def test_only_the_edge_on_the_fold_is_a_fold(bodice):
    front, back = bodice.piece("bodice front"), bodice.piece("bodice back")
    assert [edge.name for edge in front.edges if is_fold(front, edge)] == ["centre front"]
    assert [edge.name for edge in back.edges if is_fold(back, edge)] == []


def test_notches_reach_from_the_seam_line_to_the_cut_line(bodice):
    front = bodice.piece("bodice front")
    cut = Polygon([tuple(p) for p in front.cut_line.flatten(0.01)]).exterior
    seam = Polygon([tuple(p) for p in front.seam_line.flatten(0.01)]).exterior
    from shapely import Point as Dot

    for stroke in strokes(front):
        if stroke.ink is Ink.NOTCH:
            assert seam.distance(Dot(*stroke.path.start)) < 0.05
            assert cut.distance(Dot(*stroke.path.end)) < 0.05


def test_grain_is_parallel_to_the_centre(bodice):
    for piece in bodice.pieces:
        start, end = piece.grain
        assert start.x == approx(end.x)
        assert Polygon([tuple(p) for p in piece.seam_line.flatten(0.1)]).contains(
            Polygon([(start.x - 0.1, start.y), (start.x + 0.1, start.y), (end.x, end.y)])
        )


@pytest.mark.parametrize(
    ("row", "column", "name"),
    [(0, 0, "A1"), (1, 2, "B3"), (25, 0, "Z1"), (26, 3, "AA4"), (27, 0, "AB1"), (701, 0, "ZZ1")],
)
def test_pages_are_named_by_row_and_column(row, column, name):
    assert Tile(row, column, 0, 0).name == name


@pytest.mark.parametrize("paper", [Paper.A4, Paper.LETTER, Paper.LEGAL])
def test_neighbouring_pages_overlap_by_exactly_the_overlap(paper):
    drawn, width, height = sheet(make_up(a_recipe()), Tag(), Unit.CM)
    tiles = {(t.row, t.column): t for t in tiles_for(drawn, width, height, paper)}
    field_width, field_height = paper.size[0] - 2 * MARGIN, paper.size[1] - 2 * MARGIN
    pairs = 0
    for (row, column), tile in tiles.items():
        beside, below = tiles.get((row, column + 1)), tiles.get((row + 1, column))
        if beside:
            assert tile.left + field_width - beside.left == approx(OVERLAP)
            pairs += 1
        if below:
            assert below.top - (tile.top - field_height) == approx(OVERLAP)
            pairs += 1
    assert pairs > 4


arcs = st.builds(
    Arc,
    st.builds(Point, st.floats(-300, 300), st.floats(-300, 300)),
    st.floats(10, 900),
    st.floats(-pi, pi),
    st.one_of(st.floats(0.05, 6.2), st.floats(-6.2, -0.05)),
)


@given(arcs)
def test_svg_arcs_are_true_arcs(arc):
    """External: svgelements reads the path back; y is turned down."""
    read = svgelements.Path(path_data(Path.of(arc)))
    assert sum(p.length(error=1e-6) for p in read if not isinstance(p, svgelements.Move)) == approx(
        arc.length, abs=0.01
    )
    last = read[-1].end
    assert (last.x, -last.y) == (approx(arc.end.x, abs=1e-5), approx(arc.end.y, abs=1e-5))
    for part in read:
        if isinstance(part, svgelements.Arc):
            middle = part.point(0.5)
            assert Point(middle.x, -middle.y).distance(arc.centre) == approx(arc.radius, abs=1e-4)


@given(arcs)
def test_dxf_bulges_are_true_arcs(arc):
    """The bulge is the tangent of a quarter of the sweep: chord and bulge give the radius back."""
    points = vertices(Path.of(arc), closed=False)
    for (x0, y0, bulge), (x1, y1, _) in pairwise(points):
        chord = Point(x0, y0).distance(Point(x1, y1))
        assert chord * (1 + bulge**2) / (4 * abs(bulge)) == approx(arc.radius, rel=1e-6)
    assert Point(*points[-1][:2]).distance(arc.end) < 1e-6


def test_cubics_go_to_svg_as_they_are_and_to_dxf_as_short_chords():
    curve = Cubic(Point(0, 0), Point(40, 90), Point(60, -90), Point(100, 0))
    path = Path.of(curve, Line(Point(100, 0), Point(120, 0)))
    assert path_data(path) == "M0 0C40 -90 60 90 100 0L120 0"
    points = [Point(x, y) for x, y, _ in vertices(path, closed=False)]
    length = sum(a.distance(b) for a, b in pairwise(points))
    assert length == approx(path.length, abs=0.02)


@pytest.mark.parametrize(("value", "text"), [(0.0, "0"), (-0.0, "0"), (1.5, "1.5"), (-1e-9, "0"), (1 / 3, "0.3333333")])
def test_numbers_are_short(value, text):
    assert number(value) == text
