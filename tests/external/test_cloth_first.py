"""Cloth first, against shapely: what is answered lies inside the cloth without overlap, and 1 cm longer does not."""

import itertools
import math

import pytest
from pytest import approx
from shapely import Point, box

from gentle_hem.core.cloth.first import circle_from_cloth, half_discs, quarter_discs, whole_discs
from gentle_hem.core.sums import SUMS
from gentle_hem.core.sums.sum import ask

FAR = 1e5


def pieces_of(laid, radius):
    return [
        Point(one.x, one.y).buffer(radius, quad_segs=256)
        & box(max(one.left, -FAR), max(one.bottom, -FAR), min(one.right, FAR), min(one.top, FAR))
        for one in laid
    ]


def fits(laid, radius, width, length):
    """Whether pieces of a radius, laid as they lie, are inside the cloth and apart."""
    shapes = pieces_of(laid, radius)
    cloth = box(-0.01, -0.01, width + 0.01, length + 0.01)
    inside = all(cloth.contains(shape) for shape in shapes)
    apart = all(a.intersection(b).area < 1.0 for a, b in itertools.combinations(shapes, 2))
    return inside and apart


@pytest.mark.parametrize("width", [900.0, 1150.0, 1400.0, 1500.0])
@pytest.mark.parametrize("length", [1000.0, 1800.0, 2743.2, 4000.0])
@pytest.mark.parametrize(
    ("sweep", "pieces"), [(360, 1), (360, 2), (360, 4), (180, 1), (180, 2), (90, 1), (720, 2), (720, 4)]
)
def test_what_is_answered_fits_and_a_centimetre_more_does_not(width, length, sweep, pieces):
    answer = circle_from_cloth(sweep, pieces, width, length, 12.0)
    if answer is None:
        return
    assert len(answer.laid) == pieces
    assert fits(answer.laid, answer.radius, width, length)
    longer = answer.radius + 10
    lay = {360: whole_discs, 180: half_discs, 90: quarter_discs}[round(sweep / pieces)]
    again = lay(longer, width, length, pieces) if lay is whole_discs else lay(longer, width, length, pieces, 12.0)
    assert again is None, "no placement of these kinds takes it"
    assert not fits(answer.laid, longer, width, length), "nor does the one that was answered"


def test_full_circle_in_one_piece_check_value():
    """Trade 15, geometry: 70 cm seam in one piece on 150 cm: the longest is 62.86 cm with 1 cm hem."""
    given = {"seam": "70cm", "cloth_width": "150cm", "cloth_length": "5m", "hem_allowance": "1cm"}
    values = ask(SUMS["circle_from_cloth"], given, None).answer().values
    assert values["longest_in_one"] == approx(628.6, abs=0.05)
    assert values["longest_in_two"] >= values["longest_in_one"]
    assert values["seam_radius"] == approx(700 / math.tau)


def test_cloth_that_gives_nothing_says_so():
    given = {"seam": "2m", "cloth_width": "30cm", "cloth_length": "30cm", "sweep": "180"}
    answer = ask(SUMS["circle_from_cloth"], given, None).answer()
    assert [f.code for f in answer.findings] == ["cloth-too-small"]
