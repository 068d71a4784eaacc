"""Cloth cut exactly: gores unrolled from her form, and a quarter circle hung by its waist, against their own sums."""

import numpy as np
import pytest
from pytest import approx
from shapely import Polygon

from conftest import FIGURE
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.figure import Figure
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.hang.mesh import Mesh, through
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.rest import OFF, Falling, Rest
from gentle_hem.core.hang.stand import Stand
from ritz import Quarter, cone

CREPE = Fabric.of(Cloth())
AT_REST = Rest(settled=2e-5, step=1.0, drag=4.0)


@pytest.fixture(scope="module")
def stand():
    return Stand.of(Figure(measures=FIGURE))


def strains(net, places):
    """How far every triangle is drawn along its weft and its warp."""
    ways = np.einsum("tkg,tki->tgi", net.slopes, places[net.triangles])
    return (np.linalg.norm(ways, axis=2) - 1).T


# a sheath cut to her


def on_her(stand, rows=22, columns=28):
    """Places of half a sheath from below her hip to above her bust, as far off as cloth lies."""
    low, high = stand.form.hip / 1000 - 0.02, stand.form.bust / 1000 + 0.01
    heights, turn = np.linspace(low, high, rows), np.linspace(0, np.pi, 2001)
    places = np.empty((rows, columns, 3))
    for row, z in enumerate(heights):
        wide, deep, forward = (np.interp(z / stand.step, np.arange(len(stand.rows)), of) for of in stand.rows.T[:3])
        x, y = wide * np.sin(turn), forward + deep * np.cos(turn)
        run = np.concatenate(([0.0], np.cumsum(np.hypot(np.diff(x), np.diff(y)))))
        even = np.linspace(0, run[-1], columns)
        places[row] = np.stack((np.interp(even, run, x), np.interp(even, run, y), np.full(columns, z)), axis=1)
    flat = places.reshape(-1, 3)
    for _ in range(3):
        flat = flat + (OFF - stand.far(flat))[:, None] * stand.out(flat)
        flat.reshape(rows, columns, 3)[:, (0, -1), 0] = 0.0
    return flat.reshape(rows, columns, 3)


def unrolled(left, right):
    """A gore between two lines up her, laid flat triangle by triangle, each as large as it is on her."""
    rows = len(left)
    on, flat = np.concatenate((left, right)), np.zeros((2 * rows, 2))

    def put(new, a, b):  # left of the way from a to b
        base, one, other = (np.linalg.norm(on[p] - on[q]) for p, q in ((b, a), (new, a), (new, b)))
        along = (base**2 + one**2 - other**2) / (2 * base)
        way = (flat[b] - flat[a]) / base
        flat[new] = flat[a] + along * way + np.sqrt(one**2 - along**2) * np.array([-way[1], way[0]])

    flat[rows, 0] = np.linalg.norm(on[rows] - on[0])
    for row in range(rows - 1):
        put(row + 1, row, rows + row)
        put(rows + row + 1, row + 1, rows + row)
    corners = [t for r in range(rows - 1) for t in ((r, rows + r, r + 1), (rows + r, rows + r + 1, r + 1))]
    return flat, np.array(corners)


def sheath(places, shares):
    """Its gores, each narrower across its middle by a share of its width, row by row."""
    rows, columns, _ = places.shape
    numbers, cuts = np.arange(rows * columns).reshape(rows, columns), []
    for k in range(columns - 1):
        flat, corners = unrolled(places[:, k], places[:, k + 1])
        middle = np.tile((flat[:rows] + flat[rows:]) / 2, (2, 1))
        flat = middle + (flat - middle) * (1 - np.tile(shares, 2))[:, None]
        cuts.append((Mesh(flat, corners), np.concatenate((numbers[:, k], numbers[:, k + 1])), CREPE))
    held = np.zeros((rows * columns, 3))
    held[numbers[:, (0, -1)].ravel(), 0] = 1.0
    held[numbers[(0, -1), :].ravel(), 2] = 1.0  # tacked, so that it does not ride up to her waist
    return Net.of(cuts, rows * columns), held


def test_a_sheath_cut_exactly_to_her_is_hardly_strained(stand):
    places = on_her(stand)
    net, held = sheath(places, np.zeros(len(places)))
    rest = Falling(net, held, stand).fallen(places.reshape(-1, 3), AT_REST)
    weft, warp = strains(net, rest.places)
    assert weft.max() < 0.01
    assert warp.max() < 0.01
    assert weft.min() > -0.01
    assert np.linalg.norm(rest.places - places.reshape(-1, 3), axis=1).max() < 0.003


def test_a_sheath_four_centimetres_too_small_is_strained_where_she_has_least_to_give(stand):
    """By the sum of a hoop, 40 mm ÷ what it was cut as: most at the waist, within a quarter everywhere."""
    places = on_her(stand)
    girths = np.array([stand.girth(1000 * z) for z in places[:, 0, 2]])
    net, held = sheath(places, 40.0 / girths)
    rest = Falling(net, held, stand).fallen(places.reshape(-1, 3), AT_REST)
    weft, _ = strains(net, rest.places)
    high = 1000 * rest.places[net.triangles].mean(axis=1)[:, 2]
    found = {}
    for name in ("bust", "waist", "hip"):
        level = getattr(stand.form, name)
        found[name] = np.median(weft[np.abs(high - level) < 30])
        assert found[name] == approx(40.0 / (stand.girth(level) - 40.0), rel=0.25)
    assert found["waist"] > found["bust"] > found["hip"]


# a quarter circle


def in_rows(inner, outer, spacing):
    """A quarter circle in triangles, in rows round it, every other one moved by half a triangle; the points of each."""
    points, rows = [], []
    for k, r in enumerate(np.linspace(inner, outer, round((outer - inner) / spacing / 0.87) + 1)):
        turn = np.linspace(0, np.pi / 2, 2 * round(r * np.pi / 4 / spacing) + 1)
        if k % 2:
            turn = np.concatenate((turn[:1], (turn[:-1] + turn[1:]) / 2, turn[-1:]))
        rows.append(len(points) + np.arange(len(turn)))
        points += np.stack((r * np.cos(turn), r * np.sin(turn)), axis=1).tolist()
    points = np.array(points)
    sides = [[row[end] for row in rows[1:-1]] for end in (0, -1)]
    outline = [*rows[0], *sides[1], *rows[-1][::-1], *sides[0][::-1]]
    return through(points, Polygon(points[outline]), 1e-8), rows


def long(line):
    """How long a line of places is (m)."""
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


@pytest.mark.parametrize("shear", [12.0, 60.0])
def test_a_quarter_circle_drops_on_the_bias_as_its_own_numbers_say(shear):
    """Sewn to a cone and held by its waist, against the least of its energy by Ritz, in polynomials (``ritz.py``), so
    that every line is held back by its neighbours there as well: the height of its hem all round, and how much longer
    its line on the bias has become (19.0 and 5.0 mm of 600).
    """
    cloth, inner, outer = Fabric(weight=0.3, warp=1500.0, weft=1000.0, shear=shear, bending=2e-4), 0.16, 0.76
    mesh, rows = in_rows(inner, outer, 0.018)
    assert mesh.areas.sum() == approx(np.pi / 4 * (outer**2 - inner**2), rel=1e-3)
    assert mesh.quality > 0.4
    # its two straight edges are one seam
    to = np.arange(len(mesh.points))
    to[[row[-1] for row in rows]] = [row[0] for row in rows]
    _, to = np.unique(to, return_inverse=True)
    start = np.zeros((to.max() + 1, 3))
    start[to] = cone(np.hypot(*mesh.points.T), np.arctan2(*mesh.points.T[::-1]))
    net = Net.of([(mesh, to, cloth)], len(start))
    places = Falling.held_at(net, to[rows[0]]).fallen(start, Rest(settled=1e-5, step=1.0, drag=4.0)).places
    at = Quarter(cloth, inner, outer).hung()

    hem = to[rows[-1]]
    turn = np.linspace(0, np.pi / 2, len(hem))
    summed = at(np.full(len(hem), outer), turn)
    assert np.ptp(summed[:, 2]) > 0.025
    assert places[hem, 2] == approx(summed[:, 2], abs=0.003)
    down, bias = rows[:-1:2], np.pi / 4
    middle = to[[row[len(row) // 2] for row in down]]
    radii = np.linalg.norm(mesh.points[[row[0] for row in down]], axis=1)
    turn = np.full(len(radii), bias)
    longer, by_sum = (long(line) - long(cone(radii, turn)) for line in (places[middle], at(radii, turn)))
    assert longer == approx(by_sum, rel=0.06)
    assert longer == approx({12.0: 0.0190, 60.0: 0.0050}[shear], rel=0.06)
