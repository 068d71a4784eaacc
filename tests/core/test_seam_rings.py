"""A circular ruffle along any seam: as long as the stretch it is sewn to, whichever way that runs."""

from math import pi

import pytest
from pytest import approx

from dresses import made, recipe, refusal, worked
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind

RINGS = {"kind": "seam_rings", "rings": 5, "width": 60, "join": 10}


def ringed(steps=(), **asked):
    return made(steps=list(steps), trims=[{**RINGS, **asked}])


def ruffle(garment):
    return next(walked for walked in garment.seams if walked.name == "ruffle ring seam")


def test_a_ring_is_drawn_from_both_sides_of_the_neck():
    """By hand, trade 8: base = 2 × the half neck; r = (base ÷ n + 2j) ÷ 2π; the fold's arc an eighth of base ÷ n."""
    garment = ringed(edge="neckline")
    neck = garment.piece("bodice front").edge("neckline").drawn_length
    ring = garment.piece("ruffle ring")
    assert ring.cut == 5
    assert ring.edge("top").drawn_length == approx(2 * neck / 5, abs=0.01)
    radius = (2 * neck / 5 + 20) / (2 * pi)
    assert worked(garment, "seam radius") == approx(radius)
    assert worked(garment, "arc on the fold") == approx(2 * neck / 5 / 8)
    assert worked(garment, "reach across the fold") == approx(radius + 60 + 6.35)
    hem = ring.edge("hem").path
    assert hem.point_at(hem.length / 2).size == approx(radius + 60, abs=0.01)
    assert ruffle(garment).length_a == approx(ruffle(garment).length_b, abs=0.01) == approx(neck, abs=0.01)


@pytest.mark.parametrize(
    ("asked", "pieces"),
    [
        ({"on": "both", "edge": "neckline"}, ["bodice front", "bodice back"]),
        ({"on": "both", "edge": "armhole"}, ["bodice front", "bodice back"]),
        ({"on": "both", "edge": "shoulder"}, ["bodice front"]),  # the two are one seam
        ({"on": "both", "edge": "side", "part": "lower"}, ["skirt front"]),
        ({"on": "back", "edge": "hem", "part": "lower"}, ["skirt back"]),
        ({"on": "back", "edge": "centre", "part": "lower"}, ["skirt back"]),
    ],
)
def test_it_is_sewn_to_every_edge_once(asked, pieces):
    garment = ringed(**asked)
    walked = ruffle(garment)
    assert [stretch.piece.name for stretch in walked.seam.a.stretches] == pieces
    once = 1 if asked["edge"] == "centre" else 2
    long = sum(garment.piece(name).stitched_length(walked.seam.a.stretches[0].edge) for name in pieces)
    assert worked(garment, "base") == approx(once * long, abs=0.01)
    assert walked.length_b == approx(long, abs=0.01)


@pytest.mark.parametrize(
    ("asked", "from_top"),
    [
        ({"part": "lower", "on": "front", "edge": "side"}, True),
        ({"part": "lower", "on": "back", "edge": "side"}, True),
        ({"part": "lower", "on": "back", "edge": "centre"}, True),
        ({"part": "bodice", "on": "front", "edge": "armhole"}, True),
        ({"part": "bodice", "on": "back", "edge": "neckline"}, False),
    ],
)
def test_a_share_of_the_way_is_counted_from_the_top_or_the_centre(asked, from_top):
    garment = ringed(**asked, first=0.25, last=0.75)
    [stretch] = ruffle(garment).seam.a.stretches
    piece = garment.piece(stretch.piece.name)
    path = piece.edge(stretch.edge).path
    ends = sorted((path.point_at(at) for at in (stretch.start, stretch.end)), key=lambda spot: spot.y)
    assert [n.at for n in piece.notches if n.kind is NotchKind.OPEN] == [stretch.start, stretch.end]
    assert stretch.end - stretch.start == approx(path.length / 2)
    if from_top:
        top = max((path.start, path.end), key=lambda spot: spot.y)
        assert ends[1].distance(top) < ends[0].distance(top)
    # a lower half alone begins where that stretch ends
    lower = ruffle(ringed(**asked, first=0.5, last=1.0)).seam.a.stretches[0]
    reached = path.length if lower.end is None else lower.end
    foot = path.point_at(lower.start if lower.start == approx(0) else reached)
    begins_at_end = min(lower.start, path.length - reached) == approx(0, abs=0.01)
    assert begins_at_end
    if from_top:
        assert foot == min((path.start, path.end), key=lambda spot: spot.y)
    else:
        assert foot == max((path.start, path.end), key=lambda spot: abs(spot.x))


def test_what_it_cannot_be_sewn_to_says_so():
    on_fold = refusal("trim-left-out", trims=[{**RINGS, "edge": "centre", "on": "front"}])
    assert "the front has no seam at its centre there" in on_fold.text("cm")
    short = refusal("trim-left-out", trims=[{**RINGS, "edge": "neckline", "on": "back", "first": 0.5, "last": 0.6}])
    assert "too little of the neckline" in short.text("cm")
    with pytest.raises(ValueError, match="ends further along"):
        recipe(trims=[{**RINGS, "first": 0.5, "last": 0.5}])


def test_rings_too_small_for_their_depth_are_said_to_curl():
    garment = make_up(recipe(trims=[{**RINGS, "rings": 20, "width": 200, "edge": "neckline"}]))
    assert "rings-curl" in {finding.code for finding in garment.findings}
