"""Pieces, their cut lines and corners, and the walking of seams."""

import pytest
from pytest import approx
from shapely import Polygon

from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.geometry import ORIGIN, Arc, Path, Placement, Point
from gentle_hem.core.join import stitched
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.seams import Verdict, along, seam_of
from gentle_hem.core.units import Unit
from gentle_hem.core.walk import SEAM_TOLERANCE, findings_for, verdict_on, walk
from gentle_hem.core.what import FRONT_DART, SKIRT_BACK, SKIRT_FRONT, Sign


def panel(width=200.0, height=400.0, lean=0.0, allowances=(10, 15, 30, 12), turned_hem=True, **rest):
    """A plain panel: waist on top, hem below, sides leaning out by ``lean`` at the hem."""
    a, b = Point(-lean, 0), Point(width + lean, 0)
    c, d = Point(width, height), Point(0, height)
    waist, side, hem, centre = allowances
    return Piece(
        SKIRT_FRONT,
        (
            Edge("hem", Role.HEM, Path.through(a, b), hem, turned=turned_hem),
            Edge("side", Role.SIDE, Path.through(b, c), side),
            Edge("waist", Role.WAIST, Path.through(c, d), waist),
            Edge("centre front", Role.CENTRE_FRONT, Path.through(d, a), centre),
        ),
        **rest,
    )


def cut_polygon(piece):
    return Polygon([tuple(p) for p in piece.cut_line.flatten(0.01)])


def test_each_edge_has_its_own_allowance():
    left, bottom, right, top = panel().cut_line.box
    assert (left, bottom, right, top) == (approx(-12), approx(-30), approx(215), approx(410))


def test_cut_area_of_a_square_panel():
    assert cut_polygon(panel()).area == approx((200 + 12 + 15) * (400 + 10 + 30))


def test_a_fold_takes_no_allowance():
    piece = panel(allowances=(10, 15, 30, 0), on_fold=True)
    assert piece.cut_line.box[0] == approx(0)
    assert piece.cut_line.is_closed


def test_without_allowances_the_cut_line_is_the_seam_line():
    piece = panel(allowances=(0, 0, 0, 0))
    assert piece.cut_line.length == approx(piece.seam_line.length)


def test_a_leaning_side_is_mirrored_below_a_turned_hem():
    """Turned up, the hem's allowance must lie on the side's: folded over the hem line they coincide."""
    piece = panel(lean=40)
    below = [s for s in piece.cut_line if min(s.start.y, s.end.y) < -29]
    corner = max((p for s in below for p in (s.start, s.end)), key=lambda p: p.x)
    folded = Point(corner.x, -corner.y)
    side = max((s for s in piece.cut_line if s.start.x > 200 and s.end.x > 200), key=lambda s: s.length)
    share = (folded.y - side.start.y) / (side.end.y - side.start.y)
    assert side.start.towards(side.end, share).distance(folded) < 1e-6


def test_a_hem_that_is_not_turned_is_simply_mitred():
    mitred, turned = panel(lean=40, turned_hem=False), panel(lean=40)
    assert mitred.cut_line.box[2] > turned.cut_line.box[2]


def test_the_cut_line_holds_the_seam_line():
    for lean in (-60, -20, 0, 20, 60):
        piece = panel(lean=lean)
        assert cut_polygon(piece).buffer(0.01).contains(Polygon([tuple(p) for p in piece.seam_line.flatten(0.01)]))


def test_curved_edges_keep_their_centre_in_the_cut_line():
    r, big = 100.0, 500.0
    piece = Piece(
        SKIRT_FRONT,
        (
            Edge("left", Role.SIDE, Path.through(Point(0, -r), Point(0, -big)), 10),
            Edge("hem", Role.HEM, Path.of(Arc(ORIGIN, big, -1.5707963267948966, 1.0)), 15, turned=True),
            Edge("right", Role.SIDE, Path.through(*_ray(1.0, big, r)), 10),
            Edge("waist", Role.WAIST, Path.of(Arc(ORIGIN, r, -1.5707963267948966 + 1.0, -1.0)), 10),
        ),
    )
    radii = {round(s.radius, 6) for s in piece.cut_line if isinstance(s, Arc)}
    assert radii == {90.0, 515.0}
    assert cut_polygon(piece).is_valid


def _ray(angle, first, last):
    return [Point(0, -first).turned(angle), Point(0, -last).turned(angle)]


def test_an_outline_that_does_not_close_is_refused():
    edges = panel().edges
    with pytest.raises(ValueError, match=r"broken|close"):
        Piece(SKIRT_FRONT, edges[:3])


def test_an_outline_the_wrong_way_round_is_refused():
    edges = tuple(Edge(e.name, e.role, e.path.reversed(), e.allowance) for e in reversed(panel().edges))
    with pytest.raises(ValueError, match="anticlockwise"):
        Piece(SKIRT_FRONT, edges)


def test_dart_mouths_are_left_out_of_the_stitched_length():
    darts = (
        Dart("waist", 50, 20, Point(140, 300), FRONT_DART),
        Dart("waist", 120, 15, Point(72, 300), Sign("second dart")),
    )
    piece = panel(darts=darts)
    assert piece.edge("waist").drawn_length == approx(200)
    assert piece.stitched_length("waist") == approx(165)
    assert [d.landmark for d in piece.darts_of("waist")] == ["front dart", "second dart"]
    near, far = piece.dart_legs(darts[0])
    assert near.distance(far) == approx(20)
    assert cut_polygon(piece).is_valid
    with pytest.raises(KeyError, match="no neckline any more"):
        piece.edge("neckline")


def test_a_square_on_dart_folds_to_a_symmetrical_peak():
    piece = panel(darts=(Dart("waist", 90, 20, Point(100, 250), FRONT_DART),))
    peak = max((s.end for s in piece.cut_line), key=lambda p: p.y)
    assert peak.x == approx(100)
    assert 410 < peak.y < 416


def test_a_mirrored_piece_keeps_lengths_darts_and_notches():
    piece = panel(lean=30, darts=(Dart("waist", 50, 20, Point(140, 300), FRONT_DART),), notches=(Notch("side", 100),))
    other = mirrored(piece)
    for edge in piece.edges:
        assert other.edge(edge.name).drawn_length == approx(edge.drawn_length)
        assert other.stitched_length(edge.name) == approx(piece.stitched_length(edge.name))
    assert other.seam_line.signed_area == approx(piece.seam_line.signed_area)
    assert other.cut_line.signed_area == approx(piece.cut_line.signed_area)
    assert mirrored(other).darts[0].at == approx(50)
    near, far = other.dart_legs(other.darts[0])
    assert near.distance(other.darts[0].apex) == approx(far.distance(other.darts[0].apex), abs=20)
    assert mirrored(other).edge("side").path.start.distance(piece.edge("side").path.start) < 1e-9


@pytest.mark.parametrize(
    ("difference", "ease", "verdict"),
    [
        (0, 0, Verdict.MEETS),
        (1.5, 0, Verdict.MEETS),
        (1.6, 0, Verdict.LONGER),
        (-1.6, 0, Verdict.SHORTER),
        (6, 8, Verdict.EASED),
        (9.4, 8, Verdict.EASED),
        (9.6, 8, Verdict.LONGER),
        (-5, -6, Verdict.EASED),
        (2, -6, Verdict.LONGER),
        (1, 8, Verdict.MEETS),
    ],
)
def test_verdicts_within_the_trades_tolerance(difference, ease, verdict):
    """Common practice: plain seams equal within 1.5 mm, and up to the ease that was meant."""
    assert verdict_on(difference, ease) is verdict


def test_a_seam_that_does_not_walk_says_by_how_much():
    long, short = panel(height=410), panel()
    pieces = {SKIRT_FRONT: long, SKIRT_BACK: short}
    seam = seam_of("side seam", (SKIRT_FRONT, "side"), (SKIRT_BACK, "side"))
    walked = walk(seam, pieces)
    assert walked.difference == approx(-10)
    [finding] = findings_for(walked)
    assert finding.text(Unit.CM) == (
        "The side seam does not walk: skirt front measures 41.0 cm, skirt back measures 40.0 cm; the difference is "
        "1.0 cm."
    )
    assert findings_for(walk(seam, {SKIRT_FRONT: short, SKIRT_BACK: short})) == []
    both = along((SKIRT_FRONT, "side"), (SKIRT_BACK, "side"))
    assert stitched(both.stretches, pieces) == approx(810)
    assert SEAM_TOLERANCE == 1.5


def test_placements_follow_one_another():
    there = (
        Placement.rotation(0.4, Point(3, 4)).then(Placement.scale(2)).then(Placement.mirror(Point(0, 0), Point(1, 2)))
    )
    place = Point(7, -2)
    step = Placement.mirror(Point(0, 0), Point(1, 2)).place(
        Placement.scale(2).place(Placement.rotation(0.4, Point(3, 4)).place(place))
    )
    assert there.place(place).distance(step) < 1e-9
    assert there.factor == approx(2)
    twice = Placement.mirror(Point(1, 1), Point(2, 5)).then(Placement.mirror(Point(1, 1), Point(2, 5)))
    assert twice.place(place).distance(place) < 1e-9
