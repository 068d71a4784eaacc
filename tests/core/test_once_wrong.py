"""What was once drawn wrong, each with numbers worked out by hand: lines carried down, contours, stands, capes.

Front and back are given different numbers on purpose, so that a swap cannot pass.
"""

from itertools import pairwise
from math import pi, radians

import pytest
from pytest import approx
from shapely import LineString, affinity, box
from shapely import Point as ShapelyPoint

from conftest import FIGURE, outline
from gentle_hem.core.findings import Severity
from gentle_hem.core.geometry import Line, Path, Placement, Point
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Finished, MarkKind
from gentle_hem.core.recipe import Recipe, spoken_parts
from gentle_hem.core.units import Unit, inches

HIP, WAIST_TO_HIP = FIGURE["hip_girth"], FIGURE["waist_to_hip"]


def made(school="quarters", **rest):
    data = {"figure": {"measures": FIGURE}, "bodice": {"kind": school}, "lower": {"kind": "circle", "sweep": 270}}
    return make_up(Recipe.model_validate(data | rest))


def stops(garment):
    return [f.code for f in garment.findings if f.severity is Severity.STOP]


def width_at(piece, level):
    """How far a piece reaches across at a level, from shapely: its left and right."""
    across = outline(piece.seam_line).intersection(LineString([(-3000, level), (3000, level)]))
    return across.bounds[0], across.bounds[2]


# 3: the zip contour carried on into a gown


@pytest.mark.parametrize("run", ["half", "full"])
def test_the_zip_contour_runs_out_to_nothing_at_the_hip_of_a_gown(run):
    """Trade 4.3: taken in at the waist; at the hip the centre back is the original line again, to the hem."""
    contour = {"zip_taken": 20, "zip_run": run, "give_back": "none"}
    gown = made(contour=contour, lower={"kind": "gown", "length": 900, "hip_ease": 48, "hem_in": 0}).piece("gown back")
    waist = -FIGURE["front_waist_length"]  # this school draws both halves to the front length
    assert width_at(gown, waist)[1] == approx(-20, abs=0.05), "2 cm in at the waist"
    assert width_at(gown, waist - WAIST_TO_HIP)[1] == approx(0, abs=0.05)
    assert width_at(gown, waist - 800)[1] == approx(0, abs=0.05)
    hip = width_at(gown, waist - WAIST_TO_HIP)
    assert hip[1] - hip[0] == approx((HIP + 48) / 4, abs=0.05), "the hip is measured from the original line"


def test_the_seat_contour_counts_from_the_original_line():
    """Trade 4.3: ½ in from the original line, 5 in below the hip, whatever was taken in at the waist."""
    for taken in (0, 25):
        gown = made(contour={"zip_taken": taken}, lower={"kind": "gown", "length": 900, "seat": 12}).piece("gown back")
        below = -FIGURE["front_waist_length"] - WAIST_TO_HIP - inches(5)
        assert width_at(gown, below - 20)[1] == approx(-12, abs=0.05)


@pytest.mark.parametrize(("given", "moved"), [("old", 0), ("new", 20)])
def test_the_back_dart_counts_from_the_old_or_the_new_line(given, moved):
    plain = made().piece("bodice back").darts_of("waist")[0].apex.x
    dart = made(contour={"zip_taken": 20, "zip_dart": given}).piece("bodice back").darts_of("waist")[0].apex.x
    assert plain - dart == approx(moved, abs=0.01), "the back's centre lies on its right"


def test_side_seams_that_differ_are_trued_to_each_other_and_it_is_said():
    """A hip moved from front to back makes the back's side lean out further, and so longer."""
    gown = made(lower={"kind": "gown", "length": 900, "hip_shift": inches(1)})
    side = next(w for w in gown.seams if w.name == "gown side seam")
    assert side.difference == approx(0, abs=0.1)
    assert "sides-trued" in {f.code for f in gown.findings}
    assert stops(gown) == []


def test_bodice_and_skirt_are_made_shorter_at_the_centre_back_as_chosen():
    """Trade 4.3: the bodice's waist ½ in higher there, the skirt's ½ in lower; or the bodice's alone."""
    lower = {"kind": "straight", "length": 620}
    plain = made(lower=lower)
    bodice = made(lower=lower, contour={"zip_drop": 12.7})
    both = made(lower=lower, contour={"zip_drop": 12.7}, join={"back_shorter": 12.7, "front_shorter": 19})

    def centre(garment, name, edge):
        return garment.piece(name).edge(edge).drawn_length

    back = centre(plain, "bodice back", "centre back")
    assert centre(bodice, "bodice back", "centre back") == approx(back - 12.7, abs=0.01)
    assert centre(bodice, "skirt back", "centre back") == approx(620)
    assert centre(both, "skirt back", "centre back") == approx(620 - 12.7)
    assert centre(both, "skirt front", "centre front") == approx(620 - 19)
    assert centre(both, "bodice front", "centre front") == approx(centre(plain, "bodice front", "centre front"))
    for garment in (bodice, both):
        waist = next(w for w in garment.seams if w.name == "waist seam")
        assert waist.difference == approx(0, abs=0.3)
        assert stops(garment) == []


def test_a_flare_is_made_shorter_at_the_front_along_its_spiral():
    """Its edge drops evenly to the centre front and stays as long as the bodice's."""
    skirt = made(join={"front_shorter": 19}, lower={"kind": "circle", "sweep": 270, "length": 620})
    assert skirt.piece("skirt front").edge("centre front").drawn_length == approx(620 - 19, abs=0.01)
    assert skirt.piece("skirt front").edge("side").drawn_length == approx(620, abs=0.01)
    assert skirt.joins[0].difference == approx(0, abs=0.1)


# 5: two darts on the waist under one line


@pytest.mark.parametrize("school", ["quarters", "two_lengths", "proportional"])
def test_a_midriff_is_one_piece_though_two_darts_cross_its_line(school):
    garment = made(school, style={"bust_dart": "waist"}, panels={"ends": "midriff"})
    assert stops(garment) == []
    assert garment.piece("front midriff").darts == ()
    seams = {w.name: w for w in garment.seams}
    for name in ("front midriff seam", "midriff side seam", "bodice side seam"):
        assert seams[name].difference == approx(0, abs=0.6), name


# 2: darts and a hem that is cut off


def test_a_side_dart_stays_where_it_is_when_the_hem_is_cut_off():
    ruffle = {"kind": "hem_ruffle", "place": "cut_off", "height": 200}
    lower = {"kind": "gown", "length": 900}
    whole, cut = (made("two_lengths", lower=lower, trims=trims).piece("gown front") for trims in ([], [ruffle]))
    before, after = whole.darts_of("side")[0], cut.darts_of("side")[0]
    assert after.apex == before.apex
    for one, other in zip(whole.dart_legs(before), cut.dart_legs(after), strict=True):
        assert one.distance(other) < 0.01


# 6: cape and casing


def test_a_cape_holds_its_allowances_once_and_is_walked_at_the_real_edges():
    """Trade 8: half the off-shoulder girth and ½ in on the fold, depth and ½ in, as cut. 108 cm, 4 in deep."""
    measures = FIGURE | {"off_shoulder_girth": 1080}
    garment = made(
        "two_lengths", figure={"measures": measures}, style={"top": "off_shoulder", "bust_dart": "waist"},
        trims=[{"kind": "cape", "depth": "4in", "slant": 0}],
    )  # fmt: skip
    cape = garment.piece("cape")
    left, bottom, right, top = cape.cut_line.box
    assert right - left == approx(540 + 12.7, abs=0.01)
    assert top - bottom == approx(101.6 + 12.7, abs=0.01)
    seams = {w.name: w for w in garment.seams}
    front, back = seams["cape seam, front"], seams["cape seam, back"]
    assert (front.verdict.fits, back.verdict.fits) == (True, True)
    free = 540 - front.length_a - back.length_a
    first, second = sorted(notch.at for notch in cape.notches)
    assert second - first == approx(free, abs=0.01), "the arm's span lies between its notches"
    assert first == approx(back.length_a, abs=0.01), "counted from the end at the centre back"
    [on_front], [on_back] = front.seam.b.stretches, back.seam.b.stretches
    assert (on_front.start, on_front.end) == (approx(second), None), "the front's is the one that ends on the fold"
    assert (on_back.start, on_back.end) == (0.0, approx(first))
    assert [notch.double for notch in sorted(cape.notches, key=lambda one: one.at)] == [True, False]
    assert next(w.value for w in garment.workings if w.label == "free over each arm") == approx(free)
    assert cape.edge("hem").finished is Finished.BOUND


def test_a_cape_on_a_bodice_with_shoulders_is_refused():
    assert "trim-left-out" in stops(made(trims=[{"kind": "cape"}]))


@pytest.mark.parametrize(
    ("place", "rest", "edge"),
    [
        ("waist", {}, "waist seam"),
        ("under_bust", {"panels": {"ends": "under_bust"}}, "waist seam"),
        ("off_shoulder", {"style": {"top": "off_shoulder", "bust_dart": "waist"}}, None),
    ],
)
def test_a_casing_is_as_long_as_the_edge_it_is_on(place, rest, edge):
    garment = made("two_lengths", trims=[{"kind": "elastic", "place": place}], **rest)
    casing = garment.piece("elastic casing").edge("edge").drawn_length
    seam = next(w for w in garment.seams if w.name == "elastic casing seam")
    assert casing == approx(2 * seam.length_a, abs=0.01)
    if edge:
        assert seam.length_a == approx(next(w for w in garment.seams if w.name == edge).length_a)
    assert seam in garment.joins, "it can be seen on the ribbon"


@pytest.mark.parametrize("place", ["under_bust", "off_shoulder"])
def test_a_casing_where_there_is_no_edge_is_refused(place):
    assert "trim-left-out" in stops(made(trims=[{"kind": "elastic", "place": place}]))


# 7: a front with a button stand


def test_buttons_that_go_on_down_keep_their_spaces_with_the_seam_midway():
    """Trade 11: first at the bust, then equal spaces, the waist seam midway between two."""
    garment = made(
        panels={"stand": 25, "buttons": 6, "down": "skirt"}, lower={"kind": "a_line", "length": 620},
        opening={"place": "none"},
    )  # fmt: skip
    assert stops(garment) == [], "buttoned all down, it can be got into"

    def levels(name):
        piece = garment.piece(name)
        return sorted((m.path.start.y for m in piece.marks if m.kind is MarkKind.BUTTONHOLE), reverse=True)

    bodice, skirt = levels("bodice front"), levels("skirt front")
    foot = garment.piece("bodice front").edge("stand foot").path.end.y
    top = garment.piece("skirt front").edge("stand top").path.start.y
    spacing = bodice[0] - bodice[1]
    assert bodice[-1] - foot == approx(spacing / 2)
    assert top - skirt[0] == approx(spacing / 2)
    assert [a - b for a, b in pairwise(skirt)] == approx([spacing] * (len(skirt) - 1))
    assert len(skirt) >= 3
    names = {w.name for w in garment.seams}
    assert {"stand foot at the waist", "facing foot at the waist"} <= names
    assert all(w.verdict.fits for w in garment.seams)


@pytest.mark.parametrize("lower", [{"kind": "gathered"}, {"kind": "gores"}, {"kind": "circle", "sweep": 270}])
def test_every_front_the_buttons_go_down_has_its_stand(lower):
    garment = made(panels={"stand": 25, "buttons": 6, "down": "skirt"}, lower=lower)
    fronts = [p for p in garment.pieces if any(e.name == "stand top" for e in p.edges)]
    assert [p.what.section.value for p in fronts] == ["bodice", "skirt"]


def test_trousers_do_not_open_down_the_front_and_it_is_said():
    garment = made(panels={"stand": 25, "down": "skirt"}, lower={"kind": "trousers"})
    assert "buttons-end-at-waist" in stops(garment)


def test_a_grown_on_facing_reaches_the_neck_as_the_front_does():
    """Folded back on its line, the facing covers what it lies on, neck edge, allowance and all."""
    front = made(panels={"stand": 25}).piece("bodice front")
    fold = next(m.path.start.x for m in front.marks if m.kind is MarkKind.FOLD)
    cut, seam = outline(front.cut_line), outline(front.seam_line)
    for line in (cut, seam):
        facing = line.intersection(box(-500, -2000, fold, 500))
        folded = affinity.scale(facing, xfact=-1, origin=(fold, 0))
        there = line.intersection(box(fold, -2000, fold + 65, 500))
        assert folded.symmetric_difference(there).area < 10, "mm² that it does not cover"


def test_a_neck_facing_beside_a_stand_is_a_pair_with_the_stand_on():
    garment = made(panels={"stand": 25}, style={"facing": "faced"})
    facing = garment.piece("front neck facing")
    assert (facing.on_fold, facing.cut) == (False, 2)
    assert facing.edge("stand top").drawn_length == approx(25)
    assert all(w.verdict.fits for w in garment.seams)


def test_a_lining_ends_at_the_edge_of_the_facing():
    garment = made(panels={"stand": 25}, finish={"lining": "whole"})
    lining = garment.piece("bodice front lining")
    assert lining.seam_line.box[0] == approx(40), "the facing lies 4 cm behind the front"
    assert all(w.verdict.fits for w in garment.seams)


# 8: the circle's own choices for a peplum


@pytest.mark.parametrize(("pieces", "cut"), [(1, 1), (2, 2), (4, 4)])
def test_a_peplum_is_cut_in_as_many_pieces_as_asked_with_the_circles_choices(pieces, cut):
    """Drawn on the cut edge the stitched line is longer by sweep × allowance (trade 7.2): 240° × 10 mm."""
    peplum = made(lower={"kind": "peplum", "sweep": 240, "length": "7in", "pieces": pieces, "rule": "cut_edge"})
    mine = [p for p in peplum.pieces if p.what.section.value == "peplum"]
    assert sum(p.cut for p in mine) == (cut if pieces != 2 else 3), "the back is a pair where it has the zip"
    waist = peplum.joins[0]
    assert 2 * waist.difference == approx(radians(240) * 10, abs=0.01)
    assert f"{inches(7) / 10:.1f}" + " cm finished" in "".join(
        token if isinstance(token, str) else token.text
        for part in spoken_of(peplum_recipe(pieces)) for line in part.lines for token in line
    )  # fmt: skip


def peplum_recipe(pieces):
    data = {"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}}
    return Recipe.model_validate(data | {"lower": {"kind": "peplum", "length": "7in", "pieces": pieces}})


def spoken_of(recipe):
    return spoken_parts(recipe, Unit.CM)


# 10: godets


def test_a_godet_stands_at_the_centre_back_and_marks_that_seam_alone():
    garment = made(lower={"kind": "straight", "length": 700}, trims=[{"kind": "godets", "count": 1, "height": 300}])
    marked = [(p.name, n.edge) for p in garment.pieces for n in p.notches if n.landmark == "godet tip"]
    assert marked == [("skirt back", "centre back"), ("godet", "left")]
    hem = next(w for w in garment.workings if w.label == "total hem added" or w.label == "hem added in all")
    assert hem.value == approx(pi / 3 * 300)


def test_dipped_hems_are_counted():
    """A dipped godet's hem is longer than the arc; a ruffle sewn to it is too."""
    lower = {"kind": "gores", "count": 4, "length": 900}
    godets = {"kind": "godets", "count": 4, "angle": 60, "height": 300, "dip": 45}
    garment = made(lower=lower, trims=[godets, {"kind": "hem_ruffle", "fullness": 2}])
    dipped = garment.piece("godet").edge("hem").drawn_length
    assert dipped > pi / 3 * 300 + 5
    gores = 4 * next(p for p in garment.pieces if p.name == "gore front").edge("hem").drawn_length
    ruffle = next(w for w in garment.seams if w.name == "hem ruffle seam")
    assert 2 * ruffle.length_a == approx(gores + 4 * dipped, abs=0.5)


def test_more_godets_than_seams_are_refused_with_ways_out():
    garment = made(lower={"kind": "straight", "length": 700}, trims=[{"kind": "godets", "count": 5, "height": 300}])
    [finding] = [f for f in garment.findings if f.code == "more-godets-than-seams"]
    assert finding.refuses
    assert [way.code for way in finding.remedies] == ["fewer", "slashes"]
    assert "Let 3 in" in finding.remedies[0].text(Unit.CM), "two side seams and the centre back"


def test_slashes_are_lines_a_godet_is_sewn_into():
    garment = made(
        lower={"kind": "straight", "length": 700},
        trims=[{"kind": "godets", "count": 6, "height": 250, "place": "slashes"}],
    )  # fmt: skip
    slashes = [m for p in garment.pieces for m in p.marks if m.kind is MarkKind.SLASH]
    assert len(slashes) == 3, "three in the half garment"
    assert [m.path.length for m in slashes] == approx([250] * 3)
    joins = [w for w in garment.joins if w.lower_name == "godet"]
    assert len(joins) == 6
    assert all(abs(w.difference) < 0.01 for w in joins)


# 11: spread


@pytest.mark.parametrize(("cuts", "spread"), [(2, 80), (3, 70), (4, 40)])
def test_cuts_of_a_twist_open_by_what_is_asked_after_smoothing(cuts, spread):
    """Trade 4.7: smoothing afterwards may not take fullness away; asked 2 × 8 cm, 16 cm are there."""
    flat = made(opening={"place": "side"}).piece("bodice front").edge("centre front").drawn_length
    garment = made(panels={"twist": cuts, "twist_spread": spread}, opening={"place": "side"})
    front = garment.piece("bodice front")
    assert front.edge("centre front").drawn_length - flat == approx(cuts * spread, abs=0.05)
    assert sum(mark.kind is MarkKind.SLASH for mark in front.marks) == cuts
    assert all(w.verdict.fits for w in garment.seams)


def test_the_lining_of_a_spread_front_is_cut_from_the_unspread_one():
    garment = made(panels={"twist": 2, "twist_spread": 80}, finish={"lining": "whole"}, opening={"place": "side"})
    flat = made(opening={"place": "side"}).piece("bodice front")
    lining = garment.piece("bodice front lining")
    assert lining.seam_line == flat.seam_line
    assert lining.on_fold
    assert all(w.verdict.fits for w in garment.seams)


# 12: the proportional block


def test_the_proportional_back_dart_lies_at_half_the_back_quarter_less_5_mm():
    """Bust 92, ease 6: the rectangle is 49 cm wide, its middle at 24.5; half of that less 0.5 is 11.75 cm."""
    figure = FIGURE | {"bust_girth": 920}
    dart = made("proportional", figure={"measures": figure}).piece("bodice back").darts_of("waist")[0]
    assert -dart.apex.x == approx(117.5, abs=0.01)


def test_a_darts_roof_follows_the_way_it_is_folded():
    """Folded shut, the dart's underlay ends on the cut line of the cloth it lies on: checked by turning it over."""
    for school, name, edge in (("quarters", "bodice back", "waist"), ("proportional", "bodice back", "shoulder")):
        piece = made(school).piece(name)
        [dart] = piece.darts_of(edge)
        near, far = piece.dart_legs(dart)
        onto_far = abs(far.x) < abs(near.x) if edge == "waist" else abs(far.x) > abs(near.x)
        onto = far if onto_far else near
        turn = Placement.mirror(dart.apex, onto)
        cut = piece.cut_line
        roof = onto.towards(near if onto is far else far, 0.25)
        up = (roof - dart.apex).unit
        [*_, met] = sorted(cut.crossings(Path.of(Line(dart.apex, roof + up * 200))), key=lambda place: place[0])[:1]
        peak = cut.point_at(met[0])
        under = turn.place(peak)
        assert outline(cut).exterior.distance(ShapelyPoint(*under)) < 0.05, school


# 13: trousers


def test_the_thigh_schools_own_number_is_drawn():
    """Trade 6: half the thigh and what was added; thigh 62 cm and 3 cm give a front crotch line of 34 cm."""
    figure = FIGURE | {"thigh_girth": 620}
    lower = {"kind": "trousers", "school": "thigh", "thigh_more": 30, "hip_ease": 40}
    front = made(figure={"measures": figure}, lower=lower).piece("trouser front")
    quarter = (HIP + 40) / 4
    fork = front.edge("inside leg").path.start
    assert fork.x == approx(-(310 + 30 - quarter), abs=0.01)


def test_the_knee_is_the_measured_one():
    for knee in (560, 600):
        front = made(figure={"measures": FIGURE | {"waist_to_knee": knee}}, lower={"kind": "trousers"}).piece(
            "trouser front"
        )
        straight = front.edge("inside leg").path.segments[-1]
        assert straight.start.y == approx(-knee, abs=0.01)


@pytest.mark.parametrize(("fork", "leg"), [(50, 38), (60, 20)])
def test_the_back_goes_further_by_what_is_asked_at_fork_mid_thigh_and_hem(fork, leg):
    garment = made(lower={"kind": "trousers", "back_crotch": fork, "back_leg": leg, "length": 1000})
    front, back = garment.piece("trouser front"), garment.piece("trouser back")
    ahead, behind = front.edge("inside leg").path, back.edge("inside leg").path
    # the back is drawn turned over
    assert behind.end.x + ahead.start.x == approx(fork, abs=0.01)
    knee = ahead.segments[-1].start.y
    level = (ahead.start.y + knee) / 2
    across = Path.through(Point(-3000, level), Point(3000, level))
    thigh = ahead.point_at(ahead.crossings(across)[0][0]).x, -behind.point_at(behind.crossings(across)[0][0]).x
    assert thigh[0] - thigh[1] == approx(leg, abs=0.01)
    assert next(w for w in garment.seams if w.name == "inside leg seam").difference == approx(0, abs=0.01)


def test_no_fork_is_said_with_ways_out():
    figure = FIGURE | {"thigh_girth": 470}
    garment = made(figure={"measures": figure}, lower={"kind": "trousers", "school": "thigh", "hip_ease": 100})
    assert "no-front-fork" in stops(garment)


# 15: a sentence says only what is


@pytest.mark.parametrize(
    ("rest", "said", "never"),
    [
        ({}, ("A yoke 8.0 cm deep, in front",), ("neckline is", "each opened", "buttons", "at each of")),
        ({"style": {"front_neck": "v"}}, ("is a V, in front, 15.0 cm deep,",), ("is as drafted",)),
        ({"style": {"wider": 20}}, ("is as drafted, in front, and opens 2.0 cm wider",), ("15.0 cm deep",)),
        ({"panels": {"twist": 2}}, ("2 cuts fan", "each opened by 7.0 cm"), ()),
        ({"panels": {"stand": 25}}, ("it takes 5 buttons",), ()),
        ({"style": {"top": "off_shoulder"}}, ("off the shoulder, cut 11.4 cm below the shoulder",), ()),
        ({"trims": [{"kind": "sleeve"}]}, ("Plain set-in sleeves",), ("A puff",)),
        ({"trims": [{"kind": "sleeve", "style": "puff"}]}, ("A puff is spread",), ()),
    ],
)
def test_a_sentence_says_only_what_is(rest, said, never):
    data = {"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "style": {"wider": 0}}
    data |= {"lower": {"kind": "circle"}, "panels": {"front_yoke": 80}} | rest
    text = " ".join(
        "".join(token if isinstance(token, str) else token.text for token in line)
        for part in spoken_of(Recipe.model_validate(data)) for line in part.lines
    )  # fmt: skip
    for words in said:
        assert words in text, words
    for words in never:
        assert words not in text, words
