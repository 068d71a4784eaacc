"""A buttoned tab: as wide where it is sewn in as it is drawn, its buttonhole as long as its button asks."""

from math import pi

import pytest
from pytest import approx

from dresses import made, recipe, refusal, worked
from gentle_hem.core.making.notions import Notion, notions
from gentle_hem.core.making.plan import School, plan_of
from gentle_hem.core.pattern import MarkKind, NotchKind

TAB = {"kind": "tab", "long": 80, "wide": 30, "button": 18}


def tabbed(**asked):
    return made(trims=[{**TAB, **asked}])


@pytest.mark.parametrize(
    ("end", "area", "tip"),
    [
        ("square", 80 * 30, 80),
        ("pointed", 65 * 30 + 15 * 15, 80),
        ("round", 65 * 30 + pi * 15**2 / 2, 80),
    ],
)
def test_a_tab_is_as_long_and_wide_as_asked_whatever_its_end(end, area, tip):
    tab = tabbed(end=end).piece("tab")
    assert tab.seam_line.signed_area == approx(area, rel=1e-3)
    left, bottom, right, top = tab.seam_line.box
    assert (right - left, top - bottom) == (approx(30), approx(tip))
    assert tab.cut == 2, "one tab down the centre, of two layers"


def test_its_buttonhole_is_the_button_and_its_thickness_and_lies_within():
    """By hand: 18 mm and 3 for its thickness; a pointed end begins 15 short of the tip."""
    garment = tabbed(end="pointed")
    [hole] = [mark for mark in garment.piece("tab").marks if mark.kind is MarkKind.BUTTONHOLE]
    assert worked(garment, "buttonhole") == approx(21)
    assert (hole.path.length, hole.path.end.y) == (approx(21), approx(65))
    assert hole.path.start.x == hole.path.end.x == approx(15)


@pytest.mark.parametrize(
    ("asked", "at"),
    [
        ({"edge": "centre", "on": "back", "share": 0.0}, "top"),
        ({"edge": "shoulder", "on": "front", "share": 0.5}, "middle"),
        ({"edge": "side", "on": "back", "part": "lower", "share": 0.25}, "quarter"),
    ],
)
def test_it_is_sewn_in_where_it_is_said_between_its_notches(asked, at):
    garment = tabbed(**asked)
    walked = next(one for one in garment.seams if one.name == "tab seam")
    assert (walked.length_a, walked.length_b) == (approx(30), approx(30))
    [stretch] = walked.seam.a.stretches
    path = garment.piece(stretch.piece.name).edge(stretch.edge).path
    start, end = stretch.start, path.length if stretch.end is None else stretch.end
    down = path.start.y > path.end.y if at != "middle" else True
    middle = (start + end) / 2 if down else path.length - (start + end) / 2
    assert middle == approx({"top": 15, "middle": path.length / 2, "quarter": path.length / 4}[at], abs=0.01)
    marked = [
        n.at for n in garment.piece(stretch.piece.name).notches if n.edge == stretch.edge and n.kind is NotchKind.OPEN
    ]
    assert sorted(marked) == [approx(place) for place in (start, end) if 0.01 < place < path.length - 0.01]


def test_a_pair_of_tabs_is_four_layers_and_two_buttons():
    asked = recipe(trims=[{**TAB, "edge": "shoulder", "on": "front", "share": 0.5}])
    garment = tabbed(edge="shoulder", on="front", share=0.5)
    assert garment.piece("tab").cut == 4
    needed = {one.notion: one.count for one in notions(garment, asked, plan_of(garment, asked, School.SIDES_FIRST))}
    assert needed[Notion.BUTTONS] == 2


def test_what_cannot_be_sewn_in_says_why():
    assert "shorter than the tab is wide" in refusal(
        "trim-left-out", trims=[{**TAB, "wide": 120, "long": 300, "edge": "neckline", "on": "back"}]
    ).text("cm")
    assert "too short for its buttonhole" in refusal("trim-left-out", trims=[{**TAB, "long": 40}]).text("cm")
    front = made().piece("bodice front")
    [dart] = front.darts_of("waist")  # its path runs from the centre
    share = (dart.at + dart.intake / 2) / front.edge("waist").drawn_length
    there = refusal("trim-left-out", trims=[{**TAB, "edge": "waist", "on": "front", "share": share}])
    assert "a dart lies there" in there.text("cm")
