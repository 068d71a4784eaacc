"""Circles against shapely: areas and lengths of the drawn pieces, and scipy's ellipse-free arc length."""

from math import radians

import pytest
from pytest import approx
from shapely import LineString, Polygon

from conftest import a_recipe
from gentle_hem.core.make_up import make_up


@pytest.mark.parametrize("sweep", [96.0, 180.0, 270.0, 360.0, 500.0])
@pytest.mark.parametrize("pieces", [2, 4])
def test_area_and_lengths_of_a_circle_skirt(sweep, pieces):
    """External: shapely measures the polygons; the ring's area is θ/2·(R² − r²)."""
    garment = make_up(a_recipe(lower={"sweep": sweep, "pieces": pieces, "length": 600}))
    theta = radians(sweep)
    r = 740 / theta
    skirt = [piece for piece in garment.pieces if piece.name.startswith("skirt")]
    area = sum(2 * Polygon([tuple(p) for p in piece.seam_line.flatten(0.001)]).area for piece in skirt)
    assert area == approx(theta / 2 * ((r + 600) ** 2 - r**2), rel=1e-5)
    for name, total in (("waist", 740), ("hem", 740 + theta * 600)):
        drawn = sum(2 * LineString([tuple(p) for p in piece.edge(name).path.flatten(0.0005)]).length for piece in skirt)
        assert drawn == approx(total, abs=0.1)


def test_cut_area_grows_by_its_allowances():
    """External: shapely's mitred buffer of the same outline, one allowance all round."""
    even = {"waist": 10, "side": 10, "zip": 10, "panel": 10}
    recipe = a_recipe(lower={"pieces": 4, "hem": 10, "sweep": 180}, allowances=even)
    piece = make_up(recipe).piece("skirt front")
    seam = Polygon([tuple(p) for p in piece.seam_line.flatten(0.001)])
    cut = Polygon([tuple(p) for p in piece.cut_line.flatten(0.001)])
    assert cut.area == approx(seam.buffer(10, join_style="mitre", mitre_limit=10).area, rel=2e-5)
