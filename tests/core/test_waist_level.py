"""The waist moved up or down: longer or shorter above it, as wide there as before, and the hip where it was."""

import pytest
from pytest import approx

from conftest import FIGURE
from dresses import made, recipe
from gentle_hem.core.geometry import Line, Point
from gentle_hem.core.make_up import make_up

LOWER, HIGHER = {"kind": "waist_level", "by": 20}, {"kind": "waist_level", "by": 25, "way": "higher"}
STRAIGHT = {"kind": "straight", "length": 600}


def across(piece, level):
    """How wide a piece is at a level, darts and all."""
    met = piece.seam_line.met_along(Line(Point(-900, level), Point(900, level)))
    return met[-1] - met[0]


@pytest.mark.parametrize(("step", "by"), [(LOWER, 20), (HIGHER, -25)])
@pytest.mark.parametrize("half", ["front", "back"])
def test_the_bodice_is_so_much_longer_above_the_waist_and_as_wide_at_it(step, by, half):
    plain, moved = (made(steps=steps, lower=STRAIGHT).piece(f"bodice {half}") for steps in ([], [step]))
    centre = f"centre {half}"
    assert moved.edge(centre).drawn_length - plain.edge(centre).drawn_length == approx(by, abs=0.01)
    assert moved.stitched_length("waist") == approx(plain.stitched_length("waist"), abs=0.05)
    assert moved.edge("armhole").drawn_length == approx(plain.edge("armhole").drawn_length)
    [before], [after] = plain.darts_of("waist"), moved.darts_of("waist")
    assert (after.intake, after.apex) == (approx(before.intake, abs=0.3), before.apex)


@pytest.mark.parametrize(("step", "by"), [(LOWER, 20), (HIGHER, -25)])
def test_a_skirt_joined_to_it_has_its_hip_so_much_nearer_and_is_as_long_as_it_says(step, by):
    plain, moved = (made(steps=steps, lower=STRAIGHT).piece("skirt front") for steps in ([], [step]))
    assert moved.edge("centre front").drawn_length == approx(plain.edge("centre front").drawn_length, abs=0.5)
    hip = FIGURE["waist_to_hip"]
    full = across(plain, -hip - 1)
    for piece, level in ((plain, hip), (moved, hip - by)):
        assert across(piece, -level - 1) == approx(full, abs=0.1), "full width from the hip down"
        assert across(piece, -level + 30) < full - 0.2, "and not above it"


@pytest.mark.parametrize(("step", "by"), [(LOWER, 20), (HIGHER, -25)])
def test_a_gown_is_narrowest_there_and_keeps_its_hip_and_its_hem(step, by):
    gown = {"kind": "gown", "length": 1000}
    plain, moved = (make_up(recipe(steps=steps, lower=gown)) for steps in ([], [step]))
    for half in ("front", "back"):
        was, now = (garment.piece(f"gown {half}") for garment in (plain, moved))
        waist = plain.waists[now.what.half]
        assert now.seam_line.box[1] == approx(was.seam_line.box[1], abs=0.5)
        assert across(now, waist - FIGURE["waist_to_hip"]) == approx(
            across(was, waist - FIGURE["waist_to_hip"]), abs=0.6
        )
        levels = [waist + d for d in range(-60, 61)]
        narrowest = [min(levels, key=lambda level, p=piece: round(across(p, level), 3)) for piece in (was, now)]
        assert narrowest[1] - narrowest[0] == approx(-by, abs=2)
        assert across(now, narrowest[1]) == approx(across(was, narrowest[0]), abs=0.5)


def test_where_it_touches_nothing_else_it_may_stand_anywhere_in_the_list():
    neck = {"kind": "neckline", "shape": "v", "depth": 160}
    one, other = (made(steps=steps, lower=STRAIGHT) for steps in ([LOWER, neck], [neck, LOWER]))
    for mine, theirs in zip(one.pieces, other.pieces, strict=True):
        for a, b in zip(mine.edges, theirs.edges, strict=True):
            for share in (0.0, 0.25, 0.5, 0.75, 1.0):
                spots = (edge.path.point_at(share * edge.drawn_length) for edge in (a, b))
                assert next(spots).distance(next(spots)) < 0.1, (mine.name, a.name)


def test_two_moves_add_up_and_that_she_is_wider_there_is_said():
    """By hand: waist 76, hip 104, 20 cm between them, so 2 cm lower she is 76 + 28 / 10 = 78.8 cm round."""
    twice = made(steps=[LOWER, {**LOWER, "by": 10}], lower=STRAIGHT).piece("bodice front")
    once = made(steps=[{**LOWER, "by": 30}], lower=STRAIGHT).piece("bodice front")
    assert twice.edge("centre front").drawn_length == approx(once.edge("centre front").drawn_length)
    figure = {"measures": {**FIGURE, "waist_girth": 760, "hip_girth": 1040, "waist_to_hip": 200}}
    [said] = [f for f in make_up(recipe(figure=figure, steps=[LOWER])).findings if f.code == "waist-moved"]
    assert said.values["there"] == approx(788)
    assert not [f for f in make_up(recipe(steps=[HIGHER])).findings if f.code == "waist-moved"]


def test_a_front_that_is_in_panels_already_is_refused():
    garment = make_up(recipe(steps=[{"kind": "princess"}, LOWER]))
    [found] = [f for f in garment.findings if f.code == "step-not-done"]
    assert "move it before that" in found.text("cm")


def test_one_that_is_refused_changes_nothing_below_the_waist_either():
    """Three times 8 cm higher is more than the side is long: the third is refused, and is as if it were not there."""
    gown, higher = {"kind": "gown", "length": 1000}, {**HIGHER, "by": 80}
    two, three = (make_up(recipe(steps=[higher] * times, lower=gown)) for times in (2, 3))
    assert [found.at[0].recipe for found in three.findings if found.code == "step-not-done"] == ["steps.2"]
    assert [piece.seam_line for piece in three.pieces] == [piece.seam_line for piece in two.pieces]
