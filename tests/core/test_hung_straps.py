"""Straps over her shoulders: how they are cut, sewn on without a turn in them, folded back where they cross, and what
hangs from them.
"""

import numpy as np
import pytest
from pytest import approx

from gentle_hem.core.hang.in_words import said
from gentle_hem.core.hang.layers import Layers
from gentle_hem.core.hang.reading import read, strained
from gentle_hem.core.hang.straps import crossing
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import changed
from gentle_hem.core.steps.top import Straps
from gentle_hem.core.style import tops
from gentle_hem.core.units import Tape, Unit
from gentle_hem.core.what import Half
from hung import example, hung_roughly, sewn


def strapped(way="straight", ends="square", wide=50.0):
    """The tiered dress with straps laid so."""
    of = example("tiered")
    place = next(k for k, step in enumerate(of.steps) if isinstance(step, Straps))
    return changed(of, {f"steps.{place}.way": way, f"steps.{place}.ends": ends, f"steps.{place}.width": wide})


def straps_of(parts):
    return [sheet for sheet in parts.sheets if sheet.is_strap]


def area(parts, sheet):
    return float(parts.net.areas[parts.sheet_of == parts.sheets.index(sheet)].sum())


WAYS = [("straight", None), ("criss_cross", Half.BACK), ("crossed_front", Half.FRONT)]


@pytest.mark.parametrize(("way", "crosses"), WAYS)
def test_a_strap_is_folded_lengthways_and_sewn_on_at_both_ends(way, crosses):
    """Half of the strip it is cut of, 10 cm wide, for each shoulder; of two layers."""
    of = strapped(way)
    assert crossing(of) is crosses
    parts, garment = sewn(of), make_up(of)
    assert "strap" not in parts.left_out
    cut = garment.piece("strap")
    straps = straps_of(parts)
    assert len(straps) == (1 if crosses is None else 2)
    long = cut.edge("edge").path.length
    assert sum(area(parts, sheet) for sheet in straps) == approx(long * 50 / 1e6, rel=1e-6)
    for sheet in straps:
        [fabric] = set(parts.net.fabric[parts.sheet_of == parts.sheets.index(sheet)].tolist())
        [under] = set(parts.net.fabric[parts.sheet_of == 0].tolist())
        assert parts.net.fabrics[fabric].weight == approx(2 * parts.net.fabrics[under].weight)
        assert parts.net.fabrics[fabric].bending == approx(2 * parts.net.fabrics[under].bending)
    # 5 cm of each top edge is one with an end of it
    mine = set(np.concatenate([sheet.points for sheet in straps]).tolist())
    for piece, end in (("bodice front", long), ("bodice back", 0.0)):
        sheet = straps[0] if end else straps[-1]
        shared = [point for point in parts.edges[piece, "neckline"] if int(point) in mine]
        assert len(shared) >= 2
        at = {int(point): 1000 * place for point, place in zip(sheet.points, sheet.laid, strict=True)}
        assert [at[int(point)][0] for point in shared] == approx([end] * len(shared), abs=1e-6)
        across = [at[int(point)][1] for point in shared]
        assert (min(across), max(across)) == approx((0.0, 50.0), abs=1e-6)
        # without a turn: its outer edge is sewn on further out, but for an end that has crossed
        out = parts.start[np.array(shared), 0]
        is_crossed = crosses is (Half.FRONT if end else Half.BACK)
        assert out[np.argmin(across)] - out[np.argmax(across)] == approx(-0.04 if is_crossed else 0.04, abs=0.012)


@pytest.mark.parametrize(("way", "crosses"), WAYS)
def test_what_hangs_from_straps_is_held_by_nothing_else(way, crosses):
    of = strapped(way)
    dress = hung_roughly(of)
    parts, layers = dress.sewn, Layers(dress.sewn.net)
    assert not parts.held[:, 2].any()
    straps = straps_of(parts)
    points = np.unique(np.concatenate([sheet.points for sheet in straps]))
    # over the shoulder, between neck and tip
    top = dress.now[points[dress.now[points, 2].argmax()]]
    across, tip = parts.stand.form.shoulder
    assert 1000 * top[2] > tip
    assert 30 < 1000 * top[0] < across
    assert (dress.off(dress.now) < 0).mean() < 0.001
    assert not layers.tangled(dress.now).any()
    assert np.quantile(strained(dress), 0.95) < 0.03
    if crosses is not None:
        # the two parts meet on the middle of her, on the side they cross
        fold = np.array(sorted(set(straps[0].points.tolist()) & set(straps[1].points.tolist())))
        assert parts.held[fold, 0].all()
        assert (dress.now[fold, 1] > 0).all() == (crosses is Half.FRONT)
        assert len(fold) >= 2
    words = said(read(dress, of, make_up(of)), Tape(Unit.CM))
    assert not any("Not hung with it: strap" in sentence for sentence in words)


def test_longer_straps_let_it_down(monkeypatch):
    """By no more than they are longer, and by more than half of that: nothing else holds it up in front."""
    heights = []
    for more, wide in ((0.0, 40.0), (60.0, 40.1)):  # another width: what is drawn once is kept
        monkeypatch.setattr(tops, "OVER_THE_SHOULDER", 31.75 + more)
        of = strapped(wide=wide)
        dress = hung_roughly(of)
        heights.append(1000 * float(dress.now[dress.sewn.edges["bodice front", "neckline"], 2].mean()))
        reading = read(dress, of, make_up(of))
        assert reading.on_straps
    assert 25 < heights[0] - heights[1] < 65
    assert "its straps held it: shorten them" in " ".join(said(reading, Tape(Unit.CM)))


def test_the_straps_of_a_bib_cross_behind():
    of = example("pinafore")
    assert crossing(of) is Half.BACK
    parts = sewn(of)
    front, back = straps_of(parts)
    cut = make_up(of).piece("strap")
    assert area(parts, front) + area(parts, back) == approx(cut.seam_line.box[2] * 35 / 1e6, rel=1e-6)
    # behind it ends as far from the middle of her as it is sewn on, and comes there from the other side
    assert parts.start[back.points, 1].max() < 0
    assert (parts.start[back.points, 0] >= 0).all()
    assert parts.start[front.points, 1].max() > 0.05


def test_shaped_ends_are_sewn_on_as_they_are_cut():
    of = strapped(ends="shaped")
    parts, cut = sewn(of), make_up(of).piece("strap")
    [sheet] = straps_of(parts)
    assert area(parts, sheet) == approx(cut.seam_line.box[3] / 2 * cut.edge("edge").path.length / 1e6, rel=0.01)
    assert "strap" not in parts.left_out
