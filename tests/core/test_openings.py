"""Where a dress opens: zips, slits, loops and laces. What opens is drawn on every piece it goes through, ends where it
is said to, and is told where it cannot be.
"""

import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.fault import FAULT
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind, Role
from gentle_hem.core.recipe import Recipe


def recipe(**parts):
    return Recipe.model_validate(
        {
            "figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "lower": {"kind": "straight"},
            "opening": {"place": "centre_back", "below_waist": 180}, **parts,
        }
    )  # fmt: skip


def made(**parts):
    garment = make_up(recipe(**parts))
    assert [f.code for f in garment.findings if f.severity is Severity.STOP or f.code == FAULT] == []
    assert [seam.name for seam in garment.seams if not seam.verdict.fits] == []
    return garment


FRONT_ZIP = {"place": "centre_front", "below_waist": 160}
BY_TWO = {"kind": "two_lengths"}


# a zip in front


@pytest.mark.parametrize("lower", ["straight", "a_line", "circle", "gathered", "gores", "gown", "trousers"])
def test_a_front_zip_goes_through_every_front_and_its_end_is_marked(lower):
    garment = made(lower={"kind": lower}, opening=FRONT_ZIP, allowances={"zip": 21})
    centres = [(p, e) for p in garment.pieces for e in p.edges if e.role is Role.CENTRE_FRONT]
    assert len(centres) == (1 if lower == "gown" else 2)
    for piece, edge in centres:
        assert (piece.on_fold, piece.cut, edge.allowance) == (False, 2, 21)
    ends = [(p, n) for p in garment.pieces for n in p.notches if n.kind is NotchKind.ZIP_END]
    [(piece, end)] = ends
    down = piece.edge(end.edge).path.point_at(end.at)
    if lower != "gown":
        top = piece.edge(end.edge).path.start
        assert end.at == approx(160)
        assert top.y - down.y == approx(160, abs=6)  # a crotch curves away a little
    # the back lies on the fold, and nothing is turned there
    backs = [(p, e) for p in garment.pieces for e in p.edges if e.role is Role.CENTRE_BACK and lower != "trousers"]
    assert all(p.on_fold and e.allowance == 0 for p, e in backs)


def test_a_gowns_front_zip_ends_below_its_waist():
    garment = made(lower={"kind": "gown"}, bodice=BY_TWO, opening=FRONT_ZIP)
    behind = made(lower={"kind": "gown"}, bodice=BY_TWO, opening={"place": "centre_back", "below_waist": 160})
    for one, half in ((garment, "front"), (behind, "back")):
        piece = one.piece(f"gown {half}")
        [end] = [n for n in piece.notches if n.kind is NotchKind.ZIP_END]
        place = piece.edge(end.edge).path.point_at(end.at)
        waist = FIGURE["front_waist_length"] if half == "front" else FIGURE["back_waist_length"]
        top = max(edge.path.box[3] for edge in piece.edges if edge.role is Role.SHOULDER)
        assert top - place.y == approx(waist + 160, abs=12)


def test_a_collar_ends_in_front_as_its_neck_does():
    garment = made(opening=FRONT_ZIP, trims=[{"kind": "stand_collar"}], style={"front_neck": "round"})
    collar = garment.piece("stand collar")
    assert (collar.edge("centre front").allowance, collar.edge("centre front").turned) == (15, True)
    assert collar.edge("centre back").allowance == 0


def test_a_front_zip_where_buttons_open_it_is_refused_with_ways_that_work():
    asked = recipe(opening=FRONT_ZIP, panels={"stand": 25})
    [refusal] = [f for f in make_up(asked).findings if f.code == "no-front-zip"]
    assert refusal.severity is Severity.STOP
    assert len(refusal.remedies) == 2


def test_a_dress_with_a_front_zip_goes_over_no_head_and_is_got_into():
    codes = {f.code for f in made(opening=FRONT_ZIP, style={"front_depth": 60}).findings}
    assert not codes & {"neck-does-not-pass-head", "cannot-be-got-into"}
