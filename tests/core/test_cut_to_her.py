"""Cloth cut exactly: gores unrolled from her form, and a quarter circle hung by its waist, against their own sums."""

import numpy as np
import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.figure import Figure
from gentle_hem.core.hang.fabric import GRAVITY, Fabric
from gentle_hem.core.hang.mesh import Mesh
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.rest import OFF, Falling, Rest
from gentle_hem.core.hang.stand import Stand

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


def test_a_quarter_circle_drops_on_the_bias_as_its_own_numbers_say():
    """Sewn to a cone and held by its waist. Every line down it carries what hangs below: w g (R² − r²) ÷ 2r to the
    metre across, along a cone that stands up by √(1 − 1/16); and is as stiff as a strip cut at its angle to the grain,
    1 ÷ E = cos⁴ ÷ E_weft + sin⁴ ÷ E_warp + sin² cos² ÷ G. Its neighbours, which give less, hold it back: it drops by
    less than it would alone, and by more than three fifths of that.
    """
    cloth = Fabric(weight=0.3, warp=1500.0, weft=1000.0, shear=12.0, bending=2e-6)
    inner, outer, rows, columns = 0.16, 0.76, 19, 33
    turns, radii = np.linspace(0, np.pi / 2, columns), np.linspace(inner, outer, rows)
    r, turn = (of.ravel() for of in np.meshgrid(radii, turns, indexing="ij"))
    grid = np.arange(rows * columns).reshape(rows, columns)
    a, b, c, d = (of.ravel() for of in (grid[:-1, :-1], grid[:-1, 1:], grid[1:, :-1], grid[1:, 1:]))
    even = (np.add.outer(np.arange(rows - 1), np.arange(columns - 1)) % 2 == 0).ravel()[:, None]
    corners = np.concatenate((
        np.where(even, np.stack((a, c, b), 1), np.stack((a, c, d), 1)),
        np.where(even, np.stack((b, c, d), 1), np.stack((a, d, b), 1)),
    ))  # fmt: skip
    flat = np.stack((r * np.cos(turn), r * np.sin(turn)), axis=1)
    # round the cone: its two straight edges are one seam
    to = np.arange(rows)[:, None] * (columns - 1) + np.arange(columns) % (columns - 1)
    mesh = Mesh(flat, corners)
    assert (mesh.areas > 0).all()
    net = Net.of([(mesh, to.ravel(), cloth)], rows * (columns - 1))
    cone = np.stack((r / 4 * np.sin(4 * turn), r / 4 * np.cos(4 * turn), -r * np.sqrt(1 - 1 / 16)), axis=1)
    start = np.ascontiguousarray(cone.reshape(rows, columns, 3)[:, :-1].reshape(-1, 3))
    rest = Falling.held_at(net, to[0]).fallen(start, Rest(settled=1e-5, step=1.0, drag=4.0))
    drop = (start - rest.places)[to[-1], 2]

    def summed(angle):
        at = np.linspace(inner, outer, 2001)
        pull = cloth.weight * GRAVITY * (outer**2 - at**2) / (2 * at) * np.sqrt(1 - 1 / 16)
        gives = np.cos(angle) ** 4 / cloth.weft + np.sin(angle) ** 4 / cloth.warp
        return np.trapezoid(pull * (gives + (np.sin(angle) * np.cos(angle)) ** 2 / cloth.shear), at)

    more, alone = drop[columns // 2] - drop[0], summed(np.pi / 4) - summed(0)
    assert 0.6 * alone < more < alone
    eighth = drop[columns // 4] - drop[0]
    assert 0.6 * (summed(np.pi / 8) - summed(0)) < eighth < more
