"""Cloth on cloth against brute force and closed forms: gaps, near pairs, what crosses, what pushes, what holds up."""

import numpy as np
import pytest
from pytest import approx
from scipy.optimize import brentq, minimize
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import maximum_bipartite_matching
from shapely import Point, Polygon, box

from gentle_hem.core.hang.fabric import GRAVITY, Fabric
from gentle_hem.core.hang.factor import _cover
from gentle_hem.core.hang.layers import PUSHES, THICK, Layers, crossed, free_ways, gap
from gentle_hem.core.hang.mesh import Mesh, meshed
from gentle_hem.core.hang.near import near
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.rest import Falling, Rest

CLOTH = Fabric(0.2, 400.0, 400.0, 40.0, 1e-5)
POINT, EDGES = True, False


def apart(four, is_point):
    """How far apart, the shares of the four, and the way."""
    share, way = np.empty(4), np.empty(3)
    return gap(np.ascontiguousarray(four), is_point, share, way), share, way


def searched(four, is_point):
    """The same by a general search over both shares."""

    def far(two):
        s, t = two
        if is_point:
            other = four[1] + s * (four[2] - four[1]) + t * (four[3] - four[1])
            return float(((four[0] - other) ** 2).sum())
        return float((((1 - s) * four[0] + s * four[1] - (1 - t) * four[2] - t * four[3]) ** 2).sum())

    within = [{"type": "ineq", "fun": lambda x: 1 - x[0] - x[1]}] if is_point else []
    tries = [minimize(far, start, bounds=[(0, 1), (0, 1)], constraints=within, method="SLSQP", tol=1e-14)
             for start in ((0.2, 0.2), (0.0, 1.0), (1.0, 0.0))]  # fmt: skip
    return min(one.fun for one in tries) ** 0.5


@pytest.mark.parametrize("is_point", [POINT, EDGES])
def test_the_shortest_way_between_two_is_what_a_search_finds(is_point):
    chance = np.random.default_rng(7)
    for _ in range(60):
        four = chance.normal(size=(4, 3))
        far, share, way = apart(four, is_point)
        assert far == approx(searched(four, is_point), abs=1e-5)
        assert way == approx(share @ four)
        assert np.abs(share[: 1 if is_point else 2]).sum() == approx(1.0)
        assert share.sum() == approx(0.0, abs=1e-12)


def test_the_shortest_way_from_what_has_no_size():
    """An edge or a triangle whose corners are in one place is a point."""
    same = np.array([[0.0, 0, 0], [1, 0, 0], [1, 0, 0], [1, 0, 0]])
    assert apart(same, POINT)[0] == approx(1.0)
    assert apart(np.array([[0.0, 0, 2], [0, 0, 2], [0, 0, 0], [0, 0, 0]]), EDGES)[0] == approx(2.0)
    assert apart(np.array([[0.5, 1, 0], [0.5, 1, 0], [0, 0, 0], [1, 0, 0]]), EDGES)[0] == approx(1.0)
    assert apart(np.array([[0.0, 0, 0], [1, 0, 0], [0, 1, 0], [1, 1, 0]]), EDGES)[0] == approx(1.0)


def two_sheets(high=0.01, spacing=0.03, size=0.09):
    """Two sheets over each other, the upper one turned a little; which points are the lower one's."""
    mesh = meshed(box(0, 0, size, size), spacing)
    count = len(mesh.points)
    net = Net.of([(mesh, np.arange(count), CLOTH), (mesh, count + np.arange(count), CLOTH)], 2 * count)
    turn = 0.3
    around = (mesh.points - size / 2) @ np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
    lower = np.column_stack((mesh.points - size / 2, np.zeros(count)))
    places = np.concatenate((lower, np.column_stack((around, np.full(count, high)))))
    return net, np.ascontiguousarray(places), np.arange(count)


@pytest.mark.parametrize("places", ["anywhere", "on a grid", "small"])
def test_pairs_that_come_near_on_the_way_are_all_found(places):
    """Against every pair of boxes, one by one; on a grid many of them begin at one place, small ones lie in many of the
    strips they are looked for in.
    """
    chance = np.random.default_rng(3)
    is_small = places == "small"
    places = chance.integers(0, 4, (30, 3)) / 4 if places == "on a grid" else chance.uniform(size=(30, 3))
    moved = places + chance.normal(scale=0.1, size=(30, 3)) if places[0, 0] % 0.25 else places.copy()
    triangles = np.array([chance.permutation(30)[:3] for _ in range(20)])
    if is_small:  # three points next to each other across many strips
        places = chance.uniform(size=(120, 3)) * [2.0, 0.05, 2.1]
        places = places[np.argsort(places[:, 0])]
        moved = places + chance.normal(scale=0.05, size=(120, 3))
        triangles = np.array([[k, k + 1, k + 2] for k in range(118)])
    edges = np.unique(np.sort(np.concatenate((triangles[:, :2], triangles[:, 1:])), axis=1), axis=0)

    def boxes(points):
        both = np.concatenate((places[points], moved[points]))
        return both.min(axis=0) - 0.01, both.max(axis=0) + 0.01

    def meet(one, other):
        (a, b), (c, d) = boxes(one), boxes(other)
        return not set(one) & set(other) and (a <= d).all() and (c <= b).all()

    wanted = {(1, p, *t) for p in range(len(places)) for t in triangles.tolist() if meet([p], t)}
    wanted |= {(0, *a, *b) for n, a in enumerate(edges.tolist()) for b in edges.tolist()[n + 1 :] if meet(a, b)}
    found = near(places, moved, triangles, edges, 0.02).tolist()
    assert len(wanted) > 50
    assert len(found) == len(wanted)
    either = {(kind, *four) if kind else (0, *sorted(([four[0], four[1]], [four[2], four[3]]))[0],
              *sorted(([four[0], four[1]], [four[2], four[3]]))[1]) for kind, *four in found}  # fmt: skip
    assert either == {w if w[0] else (0, *sorted((list(w[1:3]), list(w[3:])))[0],
                                      *sorted((list(w[1:3]), list(w[3:])))[1]) for w in wanted}  # fmt: skip


def goes_through(edge, corners):
    """Whether an edge goes through a triangle: where it meets the triangle's plane, seen along an axis, by shapely."""
    normal = np.cross(corners[1] - corners[0], corners[2] - corners[0])
    a, b = ((end - corners[0]) @ normal for end in edge)
    if a * b > 0:
        return False
    place = edge[0] + (edge[1] - edge[0]) * a / (a - b)
    axis = np.abs(normal).argmax()
    flat = np.delete(corners, axis, axis=1)
    return Polygon(flat).covers(Point(np.delete(place, axis)))


def test_what_goes_through_is_found():
    chance = np.random.default_rng(11)
    times = 0
    for _ in range(200):
        places = chance.normal(size=(5, 3))
        wanted = goes_through(places[:2], places[2:])
        hit = crossed(places, np.array([[2, 3, 4]]), np.array([[0, 1]]))
        assert hit.tolist() == [wanted] * 5
        times += wanted
    assert 10 < times < 100
    # an edge of the triangle itself, or one that only touches at a corner, goes through nothing
    assert not crossed(places, np.array([[2, 3, 4]]), np.array([[2, 3], [1, 4]])).any()


def test_what_pushes_is_the_slope_of_its_energy():
    net, places, _ = two_sheets(high=0.6 * THICK)
    chance = np.random.default_rng(5)
    places = places + chance.normal(scale=0.1 * THICK, size=places.shape)
    layers = Layers(net)
    pairs = layers.near(places, places)
    pushing = layers.pushing(places, pairs)
    assert len(pushing.who) > 100
    falling = Falling(net, np.zeros_like(places))
    matrix = falling.joined_by(pushing.who)
    rise, blocks = falling.forces(places, matrix=matrix, pushing=pushing)
    bare, without = falling.forces(places, matrix=matrix)
    by = 1e-9
    for point, axis in ((3, 2), (5, 0), (len(places) - 2, 2), (len(places) - 1, 1)):
        step = np.zeros_like(places)
        step[point, axis] = by
        slope = (layers.energy(places + step, pairs) - layers.energy(places - step, pairs)) / (2 * by)
        assert (rise - bare)[point, axis] == approx(slope, rel=1e-3, abs=1e-6)
    # how that rises is what it is along the way: for a push straight up, all of it
    stiff = (blocks - without)[matrix.alone]
    assert np.linalg.eigvalsh((stiff + stiff.transpose(0, 2, 1)) / 2).min() > -1e-6 * np.abs(stiff).max()
    # what the matrix has no pair for is held no less firmly: by as much as all four of a pair together
    _, lumped = falling.forces(places, matrix=falling.plain, pushing=pushing)
    _, plain = falling.forces(places, matrix=falling.plain)
    alone = (lumped - plain)[falling.plain.alone]
    assert falling.plain.lacking(pushing) == 1.0
    assert matrix.lacking(pushing) == 0.0
    assert np.trace(alone, axis1=1, axis2=2).sum() > np.trace(stiff, axis1=1, axis2=2).sum()


def test_a_step_through_another_layer_ends_before_it():
    net, places, lower = two_sheets(high=0.01)
    toward = np.zeros_like(places)
    toward[len(lower) :, 2] = -0.05
    layers = Layers(net)
    pairs = layers.near(places, places + toward)
    share = free_ways(places, toward, pairs, THICK)
    moved = places + share[:, None] * toward
    assert not layers.tangled(moved).any()
    over = np.abs(places[len(lower) :, :2]).max(axis=1) < 0.04  # what sticks out beside may hang down there
    assert moved[len(lower) :, 2][over].min() > 0
    assert (share[len(lower) :] < 1)[over].all()
    # what only comes nearer goes all the way, and what moves together as far as it likes
    assert free_ways(places, toward / 20, pairs, THICK) == approx(np.ones(len(places)))
    together = np.tile([0.3, 0.1, -0.4], (len(places), 1))
    assert free_ways(places, together, layers.near(places, places + together), THICK) == approx(np.ones(len(places)))


def test_edges_that_would_cross_are_held_up():
    places = np.array([[-1.0, 0, 0], [1, 0, 0], [0, -1, 1], [0, 1, 1]])
    toward = np.array([[0.0, 0, 0], [0, 0, 0], [0, 0, -2], [0, 0, -2]])
    share = free_ways(places, toward, np.array([[0, 0, 1, 2, 3]]), THICK)
    assert 0.2 < share[2] == share[3] < 0.5
    # that which goes beside it does not meet it
    beside = places + np.array([[0, 0, 0], [0, 0, 0], [1.5, 0, 0], [1.5, 0, 0]])
    assert free_ways(beside, toward, np.array([[0, 0, 1, 2, 3]]), THICK) == approx(np.ones(4))


def test_what_is_held_up_holds_up_what_comes_after_it():
    """A point over a triangle over a triangle: the lowest does not move, and the two above it come down as one."""
    lowest = np.array([[-3.0, -3, 0], [3, -3, 0], [0, 5, 0]])
    middle = np.array([[-1.0, -1, 0.5], [1, -1, 0.5], [0, 1, 0.5]])
    places = np.concatenate((lowest, middle, [[0.0, -0.3, 1.0]]))
    toward = np.zeros((7, 3))
    toward[3:, 2] = -1.0
    pairs = np.array([[1, 6, 3, 4, 5], *([1, p, 0, 1, 2] for p in (3, 4, 5))])
    share = free_ways(places, toward, pairs, THICK)
    moved = places + share[:, None] * toward
    assert share[3:6].max() < 0.5
    assert moved[3:6, 2].min() > 0
    assert moved[6, 2] > moved[3:6, 2].max()


def test_a_sheet_let_fall_on_another_lies_on_it():
    """As far off as its weight over its area needs: from κ (d − D)² ln(D ÷ d), by a root of its slope."""
    net, places, lower = two_sheets(high=0.006, spacing=0.02)
    held = np.zeros_like(places)
    held[lower] = 1.0
    held[len(lower) :, :2] = 1.0
    rest = Falling(net, held).fallen(places, Rest(settled=1e-6, step=1.0, drag=4.0))
    high = rest.places[len(lower) :, 2]
    assert high.min() > 0.5 * THICK
    assert high.max() < THICK

    def presses(d):  # N/m²: the slope of the barrier, which both kinds of pairs together make once over
        return PUSHES * (2 * (d - THICK) * np.log(d / THICK) + (d - THICK) ** 2 / d)

    weighs = CLOTH.weight * GRAVITY
    assert np.median(high) == approx(brentq(lambda d: presses(d) - weighs, 1e-5, THICK - 1e-9), abs=1e-4)


def test_what_crosses_is_made_smooth_until_it_does_not_and_what_still_does_is_let_through():
    mesh = meshed(box(0, 0, 0.2, 0.2), 0.03)
    net = Net.of([(mesh, np.arange(len(mesh.points)), CLOTH)], len(mesh.points))
    layers, held = Layers(net), np.zeros((len(mesh.points), 3))
    places = np.column_stack((mesh.points, np.zeros(len(mesh.points))))
    middle = int(np.hypot(*(mesh.points - [0.1, 0.1]).T).argmin())
    bad = places.copy()
    bad[middle] += [0.06, 0.04, 0.01]
    bad[:, 2] += 0.02 * np.sin(60 * places[:, 0])
    assert layers.tangled(bad).any()
    made = layers.untangled(bad, held)
    assert not layers.tangled(made).any()
    far = np.hypot(*(mesh.points - mesh.points[middle]).T) > 0.13
    assert far.any()
    assert (made[far] == bad[far]).all()
    assert layers.untangled(places, held) == approx(places)
    # two sheets right through each other cannot be made smooth: what crosses does not push
    net, places, lower = two_sheets(high=0.0)
    places[len(lower) :] = places[len(lower) :] @ np.array([[1.0, 0, 0], [0, 0, 1], [0, -1, 0]])
    layers = Layers(net)
    tangled = layers.tangled(places)
    assert tangled.any()
    pairs = layers.near(places, places, tangled)
    assert not tangled[pairs[:, 1:]].all(axis=1).any()
    assert len(pairs) < len(layers.near(places, places))


def test_layers_are_jammed_by_their_gap_and_what_is_jammed_is_made_smooth_until_it_is_not():
    net, places, _ = two_sheets(high=2e-4)
    layers = Layers(net)
    pairs = layers.near(places, places)
    assert layers.is_jammed(places, pairs, 2.1e-4)
    assert not layers.is_jammed(places, pairs, 1.9e-4)
    assert not layers.is_jammed(places, pairs[:0], 1.0)
    # a sheet with one point drawn close over others of it
    mesh = meshed(box(0, 0, 0.2, 0.2), 0.03)
    layers = Layers(Net.of([(mesh, np.arange(len(mesh.points)), CLOTH)], len(mesh.points)))
    places = np.column_stack((mesh.points, np.zeros(len(mesh.points))))
    middle = int(np.hypot(*(mesh.points - [0.1, 0.1]).T).argmin())
    places[middle] += [0.06, 0.0, 1e-3]
    assert layers.is_jammed(places, layers.near(places, places), 0.0015)
    held = np.zeros_like(places)
    assert (layers.untangled(places, held) == places).all()
    made = layers.untangled(places, held, 0.0015)
    assert not layers.is_jammed(made, layers.near(made, made), 0.0015)
    assert not layers.tangled(made).any()


def test_as_few_points_as_can_be_keep_two_parts_apart():
    """König's theorem: as many as a largest matching has pairs, found by scipy."""
    chance = np.random.default_rng(2)
    for ones, others, pairs in ((8, 9, 14), (20, 12, 60), (30, 30, 35), (5, 5, 0)):
        one, other = chance.integers(0, ones, pairs), chance.integers(0, others, pairs)
        from_one, from_other = _cover(one, other, ones, others)
        assert (from_one[one] | from_other[other]).all()
        joined = csr_matrix((np.ones(pairs), (one, other)), shape=(ones, others))
        matched = maximum_bipartite_matching(joined, perm_type="column") >= 0
        assert from_one.sum() + from_other.sum() == matched.sum()


def test_a_mesh_has_every_edge_once():
    mesh = Mesh(np.array([[0.0, 0], [1, 0], [1, 1], [0, 1]]), np.array([[0, 1, 2], [0, 2, 3]]))
    net = Net(4, mesh.points[mesh.triangles], mesh.triangles, (CLOTH,), np.zeros(2, dtype=int), csr_matrix((4, 4)))
    assert Layers(net).edges.tolist() == [[0, 1], [0, 2], [0, 3], [1, 2], [2, 3]]
