"""Pictures of a hung dress: what hides what, against shapely's outlines and Pillow's reading of the files."""

import io

import numpy as np
import pytest
from PIL import Image
from pytest import approx
from shapely import Polygon, union_all

from dresses import recipe
from gentle_hem.core.hang import kernels
from gentle_hem.core.hang.pictures import FORM, HIGH, ROOM, VIEWS, WIDE, _colour, as_png, pictured
from gentle_hem.core.recipe import changed
from gentle_hem.core.replace import replace
from hung import example, hung_roughly

RED, BLUE = (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)


def canvas(high=60, wide=80):
    return np.full((high, wide), -np.inf), np.zeros((high, wide, 4))


def test_of_two_triangles_the_nearer_is_seen_whichever_is_painted_first():
    """Two that go through each other: each is seen where it is nearer; together they cover shapely's union."""
    at = np.array([
        [5.0, 5.0, 0.0], [75.0, 5.0, 2.0], [40.0, 55.0, 1.0], [5.0, 50.0, 2.0], [75.0, 50.0, 0.0], [40.0, 2.0, 1.0],
    ])  # fmt: skip
    corners, colours, shade = np.array([[0, 1, 2], [3, 4, 5]]), np.array([RED, BLUE]), np.ones(6)
    pictures = []
    for order in ([0, 1], [1, 0]):
        near, picture = canvas()
        kernels.painted(at, corners[order], shade, colours[order], near, picture)
        pictures.append(picture)
    assert (pictures[0] == pictures[1]).all()
    covered = union_all([Polygon(at[three, :2]) for three in corners]).area
    assert pictures[0][..., 3].sum() == approx(covered, rel=0.02)
    # the red one rises to the right, the blue one to the left
    assert pictures[0][25, 30, :3] == approx(BLUE)
    assert pictures[0][25, 50, :3] == approx(RED)
    # half as light is half as bright; a line is hidden behind what is nearer, and one before it is not
    near, picture = canvas()
    kernels.painted(at[:3], corners[:1], shade[:3] / 2, colours[:1], near, picture)
    assert picture[20, 40, :3] == approx((0.5, 0, 0))
    line = np.array([[10.0, 20.0, -5.0], [70.0, 20.0, -5.0], [10.0, 24.0, 5.0], [70.0, 24.0, 5.0]])
    kernels.inked(line, np.array([[0, 1], [2, 3]]), np.array(BLUE), near, picture)
    assert picture[20, 40, :3] == approx((0.5, 0, 0))
    assert picture[24, 40, :3] == approx(BLUE)


@pytest.mark.parametrize("name", ["pocketed-shirt-dress", "jumpsuit"])
def test_a_dress_is_pictured_from_three_sides_as_large_as_it_is(name):
    of = changed(example(name), {"cloths.outer.colour": "#c02030"})
    dress = hung_roughly(of)
    made = pictured(dress, of)
    assert list(made) == ["front", "side", "back"]
    top = len(dress.stand.rows) * dress.stand.step
    for view, picture in made.items():
        assert picture.shape == (HIGH, WIDE, 4)
        covered = picture[..., 3] > 127
        rows = np.flatnonzero(covered.any(axis=1))
        # from the floor to her neck, all in one scale
        scale = (rows[-1] - rows[0] + 1) / top
        assert rows[-1] == approx(HIGH * (1 - ROOM), abs=2)
        # as wide as the outline of everything seen from there
        right, *_ = _seen_by_hand(dress.now, VIEWS[view])
        both = np.concatenate((right, _seen_by_hand(dress.now * [-1, 1, 1], VIEWS[view])[0]))
        columns = np.flatnonzero(covered.any(axis=0))
        assert columns[0] <= WIDE / 2 + scale * both.min() + 2
        assert columns[-1] >= WIDE / 2 + scale * both.max() - 2
        red = (picture[..., 0] > picture[..., 2] + 40) & covered
        assert 0.2 < red.sum() / covered.sum() < 0.97
    # her left is on the right of who looks: from her left, her front is on the left of the picture
    bust = round(HIGH * (1 - ROOM) - dress.stand.form.bust / 1000 * scale)
    seen = np.flatnonzero(made["side"][bust, :, 3] > 127)
    assert WIDE / 2 - seen[0] > seen[-1] - WIDE / 2
    # it is alike on both sides, so it looks so, but for the light
    front = made["front"][..., 3] > 127
    assert (front != front[:, ::-1]).mean() < 0.02
    for view, png in as_png(made):
        with Image.open(io.BytesIO(png)) as read:
            assert (np.array(read.convert("RGBA")) == made[view]).all()
        assert len(png) < 200_000


def test_every_piece_is_pictured_in_the_cloth_it_is_cut_of():
    of = changed(recipe(), {
        "cloths.outer.colour": "#c02030", "cloths.contrast.colour": "#2030c0", "cloths.contrast_for": "lower",
    })  # fmt: skip
    dress = hung_roughly(of)
    made = pictured(dress, of)["front"].astype(int)
    red, blue = made[..., 0] > made[..., 2] + 40, made[..., 2] > made[..., 0] + 40
    waist = round(HIGH * (1 - ROOM) - dress.stand.form.waist / 1000 * (1 - 2 * ROOM) * HIGH
                  / (len(dress.stand.rows) * dress.stand.step))  # fmt: skip
    assert red[: waist - 8].sum() > 3000
    assert blue[waist + 8 :].sum() > 3000
    assert not blue[: waist - 8].any()
    assert not red[waist + 8 :].any()


def test_each_side_is_pictured_in_its_own_cloth():
    """Her left is on the right of who looks from in front, and on the left from behind, where both are of one cloth."""
    of = changed(example("two-cloth-knot"), {
        "cloths.outer.colour": "#c02030", "cloths.contrast.colour": "#2030c0",
    })  # fmt: skip
    dress = replace(hung_roughly(of), right=hung_roughly(of, "right"))
    made = pictured(dress, of)
    front = made["front"].astype(int)
    red, blue = front[..., 0] > front[..., 2] + 40, front[..., 2] > front[..., 0] + 40
    half = WIDE // 2
    assert red[:, half + 4 :].sum() > 10 * blue[:, half + 4 :].sum()
    assert blue[:, : half - 4].sum() > 3 * red[:, : half - 4].sum()  # behind it the other cloth is seen below the hem
    behind = made["back"].astype(int)
    assert (behind[..., 0] > behind[..., 2] + 40).sum() > 10 * (behind[..., 2] > behind[..., 0] + 40).sum()


def _seen_by_hand(places, turn):
    """To the right, and toward who looks."""
    return (
        places[:, 0] * np.cos(turn) - places[:, 1] * np.sin(turn),
        places[:, 0] * np.sin(turn) + places[:, 1] * np.cos(turn),
    )


def test_cloth_is_pictured_in_its_colour_and_is_plain_without_one():
    assert _colour("#ff0000") == approx((1.0, 0.2, 0.2))
    assert _colour(None) == _colour("")
    of = recipe()
    dress = hung_roughly(of)
    plain, blue = (
        pictured(dress, one)["front"] for one in (of, changed(of, {"cloths.outer.colour": "#2040c0"}))
    )  # fmt: skip
    assert (plain[..., 3] == blue[..., 3]).all()
    changed_there = (plain != blue).any(axis=2)
    assert 0.1 < changed_there.mean() < 0.6
    leg = plain[int(HIGH * 0.93), WIDE // 2, :3] / 255
    assert leg / leg.max() == approx(np.array(FORM) / max(FORM), abs=0.03)
