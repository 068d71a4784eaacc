"""The two pieces of a seam laid edge to edge: together where the seam begins, and turned over where they must be."""

import pytest
from pytest import approx
from shapely import Polygon

from dresses import made
from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.laid_together import laid_together, said

BELOW = {"kind": "straight", "length": 600}


def laid(garment, name):
    seam = next(walked.seam for walked in garment.seams if walked.name == name)
    return laid_together(seam, {piece.what: piece for piece in garment.pieces})


def shape(one):
    return Polygon([(p.x, p.y) for p in one.outline.flatten(0.3)])


@pytest.mark.parametrize("name", ["bodice side seam", "bodice shoulder seam", "skirt side seam"])
def test_neighbours_lie_beside_each_other_and_not_on_each_other(name):
    """The second keeps its shape, touches the first along the seam, and covers no more of it than the edges stray."""
    pair = laid(made(steps=[], lower=BELOW), name)
    one, other = shape(pair.one), shape(pair.other)
    assert other.area == approx(abs(pair.other.piece.seam_line.signed_area), rel=1e-3)
    assert pair.one.edge.start.distance(pair.other.edge.start) == approx(0, abs=1e-6)
    assert one.intersection(other).area <= (pair.apart + 0.1) * pair.one.edge.length
    assert one.distance(other) < 0.1
    along = (pair.one.edge.end - pair.one.edge.start).unit
    assert along.cross((pair.other.edge.end - pair.other.edge.start).unit) == approx(0, abs=1e-6)


def test_the_left_and_the_right_of_a_pair_are_each_others_mirror():
    """A back laid against its own right side over the centre back is the whole back, straight down the middle."""
    pair = laid(made(steps=[], lower=BELOW), "bodice back centre back seam")
    assert pair.one.piece is pair.other.piece
    assert pair.apart == approx(0, abs=1e-6)
    one, other = shape(pair.one), shape(pair.other)
    assert one.intersection(other).area < 1.0
    left, _, right, _ = one.union(other).bounds
    assert right - left == approx(2 * (pair.one.outline.box[2] - pair.one.outline.box[0]), abs=0.1)


def test_how_far_the_edges_part_is_said():
    """By hand: two princess edges that were one line as far as the bust point part below it by the dart's intake."""
    garment = made(steps=[{"kind": "princess"}], lower=BELOW)
    pair = laid(garment, "front princess seam")
    plain = made(steps=[], lower=BELOW).piece("bodice front")
    assert pair.apart > 0.8 * plain.darts_of("waist")[0].intake / 2
    assert "part by" in said(pair, "cm")
    straight = laid(garment, "skirt centre back seam")
    assert "all the way" in said(straight, "cm")


def test_a_seam_over_several_pieces_says_that_it_cannot_be_laid():
    with pytest.raises(CannotMake, match="several pieces"):
        laid(made(steps=[{"kind": "princess"}], lower=BELOW), "waist seam")
