"""Gathers finer than the triangles, as they are drawn: waves by hand, and drawn dresses against how they were cut."""

import numpy as np
import pytest
from pytest import approx
from scipy.integrate import quad

from gentle_hem.core.hang.finer import SMOOTH, Finer, heights, outward
from gentle_hem.core.recipe import changed
from hung import example, hung_roughly

LIMP, CRISP = ({"weight": "light", "drape": "limp"}, {"weight": "heavy", "drape": "crisp"})


def test_a_wave_takes_up_what_is_pushed_together():
    """0.3 are pushed together: waves 30 and 60 mm wide as they were cut, each the only one a sixteenth and a quarter of
    the way down. As scipy integrates its length, a wave so high is longer than its way by what is pushed together.
    """
    widths, pushed = np.array([0.06, 0.03]), np.full(4, 0.3 + SMOOTH)
    made = heights(pushed, np.array([1 / 4, 1 / 16, 1 / 64, 1 / 8]), widths)
    slope = 2 * (1 / 0.7 - 1) ** 0.5
    assert slope == approx(1.3093, abs=1e-4)
    assert made[0] == approx([slope * 0.06 * 0.68 / 2 / np.pi, 0.0], abs=1e-9)
    assert made[1] == approx([0.0, slope * 0.03 * 0.68 / 2 / np.pi], abs=1e-9)
    assert made[2] == approx(made[1])  # the finest goes on up to the stitches
    # half-way between both, their slopes' squares together are as much
    assert (made[3] * 2 * np.pi / (0.68 * widths)) ** 2 == approx([slope**2 / 2] * 2)
    way, high = 0.03 * 0.68, made[1, 1]
    long = quad(lambda x: np.hypot(1, high * 2 * np.pi / way * np.cos(2 * np.pi * x / way)), 0, way)[0]
    assert long / 0.03 == approx(0.93, abs=0.02)  # a little short of 1: it is steep
    assert heights(np.array([0.0, SMOOTH]), np.array([0.2, 0.2]), widths) == approx(np.zeros((2, 2)))


@pytest.fixture(scope="module")
def gathered():
    """The same gathered dress in limp and in crisp cloth, and how each is drawn."""
    made = {}
    for name, cloth in (("limp", LIMP), ("crisp", CRISP)):
        of = changed(example("laced-gathered"), {f"cloths.outer.{key}": value for key, value in cloth.items()})
        dress = hung_roughly(of)
        made[name] = dress, Finer.of(dress.sewn, dress.now)
    return made


def cut_at(dress, drawn):
    """By point that is drawn of the front of the skirt: which it is, and where it lay as it was cut (m)."""
    [number] = [k for k, sheet in enumerate(dress.sewn.sheets) if sheet.name == "skirt front"]
    own = np.flatnonzero(dress.sewn.sheet_of[drawn.within] == number)
    return own, np.einsum("nk,nki->ni", drawn.shares[own], dress.sewn.net.flat[drawn.within[own]])


def sizes(at, triangles):
    a, b, c = (at[triangles[:, k]] for k in range(3))
    return np.linalg.norm(np.cross(b - a, c - a), axis=1) / 2


@pytest.mark.parametrize(("name", "below"), [("limp", 0.04), ("crisp", 0.04), ("crisp", 0.09)])
def test_what_is_drawn_is_nearer_to_what_was_cut(gathered, name, below):
    """By areas of what was cut so far below the stitches: as it hangs, and as it is drawn (rounded where it is folded
    besides, so that it may be a little more).
    """
    dress, drawn = gathered[name]
    net = dress.sewn.net
    _, cut = cut_at(dress, drawn)
    [number] = [k for k, sheet in enumerate(dress.sewn.sheets) if sheet.name == "skirt front"]
    high = net.flat[:, :, 1].mean(axis=1)
    band = (dress.sewn.sheet_of == number) & (np.abs(high - (cut[:, 1].max() - below)) < 0.02)
    assert band.sum() > 10
    whole, hangs = net.areas[band].sum(), sizes(dress.now, net.triangles[band]).sum()
    shown = sizes(drawn.lain(dress.now), drawn.triangles[band[drawn.part_of]]).sum()
    assert hangs < 0.9 * whole
    assert hangs + 0.3 * (whole - hangs) < shown < 1.15 * whole


def test_limp_cloth_is_drawn_in_more_gathers_than_crisp(gathered):
    """By hand: 64 cm of cloth whose bending length is 12.5 or 30 mm fall in folds of λ = 2√π·(2·c³·L)^¼ = 141 or 272
    mm, and wrinkle a sixteenth of the way down in a quarter of that: 9.8 or 5.1 gathers in 34.4 cm. Counted where they
    are drawn, 3 to 6 cm down.
    """
    found = {}
    for name, (dress, drawn) in gathered.items():
        own, cut = cut_at(dress, drawn)
        near = (cut[:, 1] < cut[:, 1].max() - 0.03) & (cut[:, 1] > cut[:, 1].max() - 0.06)
        far = np.linalg.norm(drawn.lain(dress.now)[own] - drawn._smooth(dress.now)[own], axis=1)[near]
        x = np.abs(cut[near, 0])
        high = np.array([far[(x >= low) & (x < low + 0.008)].max(initial=0.0) for low in np.arange(0, x.max(), 0.008)])
        inner = high[1:-1]
        found[name] = int(((inner > high[:-2]) & (inner >= high[2:]) & (inner > 0.25 * high.max())).sum())
    assert found == approx({"limp": 9.8, "crisp": 5.1}, abs=1.5)


def test_a_dress_drawn_finer_is_whole(gathered):
    """Each triangle of the net is one or as many as a side's parts squared; all of it is joined up without a gap, and
    what is not gathered lies just where it hangs.
    """
    for dress, drawn in gathered.values():
        net, at = dress.sewn.net, drawn.lain(dress.now)
        times = np.bincount(drawn.part_of, minlength=len(net.triangles))
        parts = int(times.max() ** 0.5)
        assert parts >= 2
        assert set(times.tolist()) == {1, parts**2}
        assert drawn.shares.sum(axis=1) == approx(np.ones(len(at)))
        assert drawn.shares.min() >= 0
        # a side of a triangle that is parted beside one that is not is as straight as that one's
        whole = net.triangles[times == 1]
        flat = drawn._between(dress.now)
        beside = np.isin(net.triangles[drawn.within], whole.ravel()) | (drawn.shares == 0)
        assert at[beside.all(axis=1)] == approx(flat[beside.all(axis=1)], abs=1e-12)
        assert np.bincount(np.unique(drawn.triangles), minlength=len(at)).min() == 1
        # without its waves and its roundness it is as large as it hangs
        assert sizes(flat, drawn.triangles).sum() == approx(sizes(dress.now, net.triangles).sum(), rel=1e-9)
        # its lines are the same, in shorter parts
        inked, before = (
            np.linalg.norm(of[pairs[:, 1]] - of[pairs[:, 0]], axis=1).sum()
            for of, pairs in ((flat, drawn.lines), (dress.now, dress.sewn.outlines))
        )
        assert inked == approx(before, rel=1e-9)
        assert len(drawn.lines) > len(dress.sewn.outlines)
        ways = drawn.ways(dress.now)
        assert np.linalg.norm(ways, axis=1) == approx(np.ones(len(ways)))
        assert (ways * outward(at, drawn.triangles)).sum(axis=1).mean() < -0.9
        assert (ways * dress.stand.armless.out(at)).sum(axis=1).mean() > 0.5


def test_waves_rise_out_from_her(gathered):
    for dress, drawn in gathered.values():
        at, flat = drawn.lain(dress.now), drawn._smooth(dress.now)
        moved = np.linalg.norm(at - flat, axis=1) > 0.003
        assert moved.sum() > 50
        further = dress.stand.armless.far(at[moved]) - dress.stand.armless.far(flat[moved])
        assert (further > 0).mean() > 0.9


def test_a_dress_without_gathers_is_drawn_in_the_triangles_it_hangs_in():
    dress = hung_roughly(example("drafted-two-lengths"))
    drawn = Finer.of(dress.sewn, dress.now)
    assert np.array_equal(drawn.triangles, dress.sewn.net.triangles)
    assert drawn.lain(dress.now) == approx(dress.now)


def test_a_strap_is_lit_from_outside_as_what_it_is_sewn_to():
    """It lies in the net the other way round: where it is sewn on, the ways out of both would else take each other
    away.
    """
    dress = hung_roughly(example("pinafore"))
    drawn = Finer.of(dress.sewn, dress.now)
    names = np.array(dress.sewn.pieces)[drawn.sheet_of]
    at, ways = drawn.lain(dress.now), drawn.ways(dress.now)
    out = dress.stand.armless.out(at[drawn.triangles].mean(axis=1))
    for name in ("strap", "bib"):
        own = drawn.triangles[names == name]
        assert (ways[own].mean(axis=1) * out[names == name]).sum(axis=1).mean() > 0.7
    both = np.intersect1d(drawn.triangles[names == "strap"], drawn.triangles[names == "bib"])
    assert len(both) > 1
    assert (ways[both] * dress.stand.armless.out(at[both])).sum(axis=1).min() > 0.5
