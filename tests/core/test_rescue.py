"""The rescue bench: every way out of a wrongly cut circle, taken, meets (trade 9.1)."""

import random

import pytest
from pydantic import ValidationError
from pytest import approx

from conftest import outline
from gentle_hem.core.rescue import CutCircle, spoken, ways_out
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.walk import SEAM_TOLERANCE
from gentle_hem.core.workings import Workings


def wrongly_cut(seed):
    chance = random.Random(seed)
    seam = chance.uniform(580, 1150)
    wrong = seam * chance.uniform(0.86, 1.2)
    return CutCircle(
        seam=seam, edge_now=wrong, sweep=chance.choice([90, 180, 270, 360, 540, 720]), length=chance.uniform(250, 1100),
        pieces=chance.choice([1, 2, 4]) if wrong else 2, waist_allowance=chance.uniform(5, 20),
        side_allowance=chance.uniform(8, 40), hem_allowance=15, darts=chance.choice([0, 2, 4, 8]),
    )  # fmt: skip


@pytest.mark.parametrize("seed", range(200))
def test_every_way_out_of_a_wrongly_cut_circle_meets(seed):
    cut = wrongly_cut(seed)
    ways = ways_out(cut, Workings())
    if abs(cut.stitched - cut.seam) <= SEAM_TOLERANCE:
        assert ways == []
        return
    assert ways, "there is always a way"
    for way in ways:
        assert way.stitched - way.ease == approx(cut.seam, abs=SEAM_TOLERANCE), way.code
        assert way.piece.seam_line.is_closed
        if cut.sweep / cut.pieces < 350:
            assert outline(way.piece.seam_line).is_valid, way.code
        assert way.minutes > 0
        assert way.text(Unit.CM)
        assert way.cost(Unit.INCH)


def test_too_small_is_cut_lower_by_x_over_theta():
    """Geometry: 2 in too small on a full circle: 2 ÷ 6.2832 = 0.3183 in lower, and that much shorter."""
    cut = CutCircle(seam=inches(34), edge_now=inches(32), sweep=360, length=inches(24))
    way = next(w for w in ways_out(cut, Workings()) if w.code == "cut-lower")
    assert way.loses == approx(inches(0.31831), abs=1e-3)
    assert way.piece.edge("side").drawn_length == approx(inches(24 - 0.31831), abs=1e-3)


def test_too_big_offers_what_costs_no_length():
    cut = CutCircle(seam=700, edge_now=740, sweep=360, length=600, pieces=2, darts=4)
    codes = [way.code for way in ways_out(cut, Workings())]
    assert {"darts", "deeper-seams", "gathers", "pleats-behind"} <= set(codes)
    assert "ease" not in codes, "5.7 % is more than cloth eases"
    assert all(way.loses <= 0 for way in ways_out(cut, Workings()))


def test_what_is_the_matter_is_said():
    cut = CutCircle(seam=700, cut_radius=100, waist_allowance=10, sweep=360)
    assert "measures 69.1 cm on its stitching line and must meet 70.0 cm: it is 0.9 cm too small" in spoken(
        cut, Unit.CM
    )
    assert "nothing needs to be done" in spoken(CutCircle(seam=700, edge_now=700.5), Unit.CM)


def test_bad_input_is_refused():
    with pytest.raises(ValidationError, match="out of range"):
        CutCircle(seam="70cm", edge_now="0.1mm")
