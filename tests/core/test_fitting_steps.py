"""The corrections of a fitting, done as steps: a seam let out where it was pinned, more for a full bust, a longer fork,
a deeper crotch. Front and back are let out differently on purpose.
"""

from math import asin, cos, hypot, sin

from pytest import approx

from dresses import made, recipe, refusal
from gentle_hem.core.make_up import make_up
from gentle_hem.core.steps.full_bust import FullBust


def done(*steps, **parts):
    """The plain dress with steps done to it: nothing stops, every seam walks."""
    return made(steps=list(steps), **parts)


def path(garment, piece, edge):
    return garment.piece(piece).edge(edge).path


def length(garment, piece, edge):
    return garment.piece(piece).stitched_length(edge)


PLAIN = done()


def test_a_full_bust_gets_width_length_and_a_side_dart():
    """Common practice: the cut's turn is 2 asin(a ÷ 2·AB); the side dart takes the same turn; the waist keeps its
    length. Worked out from the plain front's own points.
    """
    plain = PLAIN.piece("bodice front")
    full = FullBust(amount=20, hinge=2 / 3, share=0.25).opened(plain)
    armhole, side, [dart] = plain.edge("armhole").path, plain.edge("side").path, plain.darts
    near, far = plain.dart_legs(dart)
    bust_x, bust_y = (near.x + far.x) / 2, plain.bust_point.y  # the dart stands upright
    hinge = armhole.point_at(armhole.length / 3)  # it runs up from the underarm
    across, up = hinge.x - bust_x, hinge.y - bust_y
    turn = 2 * asin(20 / (2 * hypot(across, up)))
    wider = up * sin(turn) + across * (1 - cos(turn))
    longer = across * sin(turn) - up * (1 - cos(turn))
    assert hypot(wider, longer) == approx(20)
    assert full.edge("centre front").drawn_length == approx(plain.edge("centre front").drawn_length + longer, abs=0.05)
    assert full.darts_of("waist")[0].intake == approx(dart.intake + wider, abs=0.05)
    top = side.point_at(side.length * 0.75)  # it runs up too
    assert full.darts_of("side")[0].intake == approx(
        2 * hypot(top.x - bust_x, top.y - bust_y) * sin(turn / 2), abs=0.05
    )
    assert full.bust_point.x == approx(plain.bust_point.x + wider / 2, abs=0.05)
    for edge in ("waist", "side", "armhole", "shoulder", "neckline"):
        assert full.stitched_length(edge) == approx(plain.stitched_length(edge), abs=0.01), edge
    dressed = done({"kind": "full_bust", "amount": 20})
    assert [s.name for s in dressed.seams if not s.verdict.fits] == []


def test_a_full_bust_makes_a_side_dart_wider_that_is_there():
    to_side = {"kind": "front_dart", "to": "side"}
    before = done(to_side, bodice={"kind": "two_lengths"}).piece("bodice front").darts_of("side")
    more = {"kind": "full_bust", "amount": 15}
    after = done(to_side, more, bodice={"kind": "two_lengths"}).piece("bodice front").darts_of("side")
    assert (len(before), len(after)) == (1, 1)
    assert after[0].intake > before[0].intake + 5


def test_a_seam_is_let_out_at_its_top_at_a_level_and_at_its_foot():
    front = {"kind": "let_out", "edge": "side", "on": "front", "top": 6, "middle": 12, "foot": -4, "share": 0.5}
    back = {"kind": "let_out", "edge": "side", "on": "back", "top": 3, "middle": 8, "foot": 0}
    garment = make_up(recipe(steps=[front, back]))
    for name, top, foot in (("bodice front", 6, -4), ("bodice back", 3, 0)):
        assert length(garment, name, "waist") == approx(length(PLAIN, name, "waist") + foot, abs=0.1), name
        grown = path(garment, name, "armhole").length - path(PLAIN, name, "armhole").length
        assert grown == approx(top, abs=0.6), name
    before, after = path(PLAIN, "bodice front", "side"), path(garment, "bodice front", "side")
    middle = before.point_at(before.length / 2)
    nearest = min(after.flatten(0.01), key=lambda place: place.distance(middle))
    assert nearest.distance(middle) == approx(12, abs=0.1)
    assert nearest.x > middle.x  # out, away from the centre front on the left


def test_a_seam_let_out_alike_on_both_sides_of_it_walks():
    garment = done({"kind": "let_out", "edge": "side", "on": "both", "top": 5, "middle": 10, "foot": -4})
    assert length(garment, "bodice front", "side") == approx(length(garment, "bodice back", "side"), abs=0.1)


def test_both_edges_of_a_princess_seam_are_taken_in():
    seam = {"kind": "princess", "on": "front"}
    before = done(seam)
    after = done(seam, {"kind": "let_out", "edge": "princess", "on": "front", "top": 0, "middle": -5, "foot": -5})
    for piece in ("bodice centre front", "bodice side front"):
        assert length(after, piece, "waist") == approx(length(before, piece, "waist") - 5, abs=0.2)


def test_a_seam_that_is_a_fold_is_not_let_out():
    found = refusal("step-not-done", steps=[{"kind": "let_out", "edge": "centre", "on": "front"}])
    assert found.values["why"] == "The bodice front is cut on the fold there"


def test_a_fork_is_made_longer_and_the_inside_legs_stay_as_they_are():
    trousers = {"kind": "trousers"}
    before = done(lower=trousers)
    after = done(
        {"kind": "corner", "part": "lower", "corner": "fork", "on": "back", "out": 12, "up": 0}, lower=trousers
    )
    assert length(after, "trouser back", "inside leg") == approx(length(before, "trouser back", "inside leg"), abs=0.01)
    points = [path(g, "trouser back", "centre back") for g in (before, after)]
    forks = [min((p.start, p.end), key=lambda place: place.y) for p in points]
    assert abs(forks[0].x - forks[1].x) == approx(12, abs=0.01)
    assert [s.name for s in after.seams if not s.verdict.fits] == []


def test_a_crotch_is_made_deeper_by_length_inserted_above_it():
    """Common practice: the rise is longer by as much in front and behind, the inside leg stays."""
    trousers = {"kind": "trousers"}
    before, after = (
        done(lower=trousers),
        done({"kind": "insert", "part": "lower", "level": 150, "amount": 15}, lower=trousers),
    )
    for piece, edge in (("trouser front", "centre front"), ("trouser back", "centre back")):
        assert length(after, piece, edge) - length(before, piece, edge) == approx(15, abs=0.2)
        assert length(after, piece, "inside leg") == approx(length(before, piece, "inside leg"))
