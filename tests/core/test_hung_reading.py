"""What is read from a dress that hangs, and what is made of it: front and back unlike on purpose."""

import numpy as np
import pytest
from pytest import approx
from shapely import LineString

from conftest import FIGURE
from dresses import made, recipe, refusal
from gentle_hem.core.estimates import Measures
from gentle_hem.core.findings import Severity
from gentle_hem.core.hang.as_steps import Levelling, levelling, pinched
from gentle_hem.core.hang.dress import CREEPS, _given, hang
from gentle_hem.core.hang.fabric import GRAVITY, Fabric
from gentle_hem.core.hang.fullness import beside, say_full
from gentle_hem.core.hang.in_words import _walked, figures, said
from gentle_hem.core.hang.layers import Layers
from gentle_hem.core.hang.pieces import CannotHang
from gentle_hem.core.hang.reading import _where, hem_ribbon, read, smooth, strained
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import Recipe, changed, read_recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.steps.level_hem import AROUND
from gentle_hem.core.units import Tape, Unit
from gentle_hem.core.wear import leg_girth_at, step_sweep
from gentle_hem.core.what import Layer
from gentle_hem.core.workings import Workings
from hung import around, example, hung_roughly, sewn

# what is read


def test_a_hem_is_smoothed_over_its_folds():
    """A wave of four from the centre front to the centre back stays, folds of thirty go."""
    shares = np.linspace(0, 1, 200)
    slow, quick = 5 * np.cos(4 * np.pi * shares), 3 * np.cos(30 * np.pi * shares)
    at = np.linspace(0, 1, 33)
    assert smooth(shares, 400 + slow + quick, at) == approx(400 + 5 * np.cos(4 * np.pi * at), abs=0.2)


def test_gathers_of_limp_cloth_fall_in_more_folds_than_those_of_crisp_cloth():
    """The same gathered skirt in two cloths: common practice."""
    folds = []
    for drape in ("limp", "crisp"):
        cloth = {"name": "a cloth", "weight": "light", "drape": drape}
        of = recipe(lower={"kind": "gathered", "fullness": 2.0, "length": 600.0}, cloths={"outer": cloth})
        folds.append(read(hung_roughly(of), of, make_up(of)).folds)
    assert folds[0] >= folds[1] + 2


def test_heels_lift_the_hem_and_a_dress_that_cannot_be_cut_is_not_hung():
    of = recipe()
    dress = hung_roughly(of)
    flat, high = hem_ribbon(dress, 0.0), hem_ribbon(dress, 65.0)
    assert np.array(high.now) - np.array(flat.now) == approx(np.full(len(flat.now), 65.0))
    assert flat.cut == approx(high.cut)
    # a point of the hem is as high as it is read, but for its folds
    assert np.mean(flat.now) == approx(1000 * dress.now[dress.sewn.hem, 2].mean(), abs=3)
    # what hangs lower than it was asked is cut off; the first of it is the front's
    assert np.sign(flat.cut) == approx(np.sign(np.array(flat.asked) - flat.later)[:: len(flat.now) // 8])
    z, third = 1000 * dress.now[dress.sewn.hem, 2], len(dress.sewn.hem) // 3
    assert np.mean(flat.now[:22]) == approx(z[:third].mean(), abs=2)
    assert dress.now[dress.sewn.hem[0], 1] > 0 > dress.now[dress.sewn.hem[-1], 1]
    stopped = recipe(steps=[{"kind": "level_hem", "centre_front": 149.0}], lower={"kind": "gores"})
    with pytest.raises(CannotHang, match="It cannot be cut yet, so it is not hung"):
        hang(stopped, make_up(stopped))


def test_room_and_the_length_round_her_are_what_a_tape_would_say():
    """At the hip of a straight skirt with ease, by shapely: the cloth cut at that height."""
    of = recipe(lower={"kind": "straight"})
    dress = hung_roughly(of)
    [hip] = [level for level in read(dress, of, make_up(of)).levels if level.name == "hip"]
    z, long = hip.height / 1000, 0.0
    for corners in dress.now[dress.sewn.net.triangles]:
        low, high = corners[:, 2].min(), corners[:, 2].max()
        if low < z < high:
            sides = zip(corners, np.roll(corners, -1, 0), strict=True)
            cut = [a + (b - a) * (z - a[2]) / (b[2] - a[2]) for a, b in sides if (a[2] - z) * (b[2] - z) < 0]
            long += LineString(cut).length
    assert hip.cloth == approx(2000 * long, rel=0.02)
    assert hip.body == approx(around(dress.stand, hip.height), abs=1.0)
    assert 0 < hip.room < 120


def test_a_full_circle_drops_on_the_bias_at_two_places_of_each_half():
    """Common practice: a full circle drops where it hangs on the bias, half-way between the grains."""
    of = example("full-circle")
    dress = hang(of, make_up(of))
    ribbon = hem_ribbon(dress, 0.0)
    # it is as the pictures are made, so it is looked at as closely as that: no face in her, no layer through another
    assert (dress.off(dress.now) < 0).mean() < 0.001
    layers = Layers(dress.sewn.net)
    assert not layers.tangled(dress.now).any()
    assert not layers.tangled(dress.later).any()
    for lies in (ribbon.now, ribbon.later):
        low = np.array(ribbon.asked) - np.array(lies)
        quarter, half = len(low) // 4, len(low) // 2
        for biased, straight in ((quarter, 0), (quarter, half), (3 * quarter, half), (3 * quarter, len(low) - 1)):
            assert low[biased - 6 : biased + 7].max() > low[straight] + 1.0
        assert in_four_places(low) > 2.0
    assert max(now - later for now, later in zip(ribbon.now, ribbon.later, strict=True)) > 2.0


def in_four_places(low):
    """How much lower a hem hangs four times all round, at the bias (mm)."""
    return -2 * np.mean(low * np.cos(4 * np.pi * (np.arange(len(low)) + 0.5) / len(low)))


def test_a_straight_skirt_drops_on_the_bias_nowhere():
    of = example("straight-waistband")
    ribbon = hem_ribbon(hang(of, make_up(of), fine=32.0), 0.0)
    low = np.array(ribbon.asked) - np.array(ribbon.now)
    assert abs(in_four_places(low)) < 1.5
    assert abs(in_four_places(np.array(ribbon.now) - np.array(ribbon.later))) < 0.4


def test_a_neck_edge_that_stands_off_is_read_with_the_wedge_that_closes_it():
    """The front's neck edge drawn off her by 8 mm: so much longer than what it lies on as a wider curve is."""
    of = recipe()
    dress, garment = hung_roughly(of), make_up(of)
    points, behind = (dress.sewn.edges[piece, "neckline"] for piece in ("bodice front", "bodice back"))
    drawn = dress.now.copy()
    for edge in (points, behind, points):
        drawn[edge] -= dress.stand.far(drawn[edge])[:, None] * dress.stand.out(drawn[edge])
    assert read(replace(dress, now=drawn), of, garment).gapes == ()
    on = dress.stand.onto(drawn[points])
    assert abs(dress.stand.far(on)).max() < 1e-5
    drawn[points] = on + 0.008 * dress.stand.out(on)
    [gape] = read(replace(dress, now=drawn), of, garment).gapes
    assert gape.off == approx(8.0, abs=2.0)
    assert gape.where in ("in front", "at the side")
    long, lies = (np.linalg.norm(np.diff(of, axis=0), axis=1).sum() for of in (drawn[points], on))
    # back onto her it does not come by the same ways, where her neck goes over into her shoulder
    assert gape.wedge == approx(1000 * (long - lies), rel=0.25)
    assert gape.wedge > 2.0
    assert gape.step["kind"] == "wedge"
    before, after = (
        make_up(one).piece("bodice front").stitched_length("neckline")
        for one in (of, replace_steps(of, gape.step))
    )  # fmt: skip
    assert before - after == approx(gape.wedge, abs=0.5)
    # behind there is no such step, and what is too much for it is not offered
    drawn = dress.now.copy()
    drawn[behind] += 0.03 * dress.stand.out(drawn[behind])
    [back] = read(replace(dress, now=drawn), of, garment).gapes
    assert back.where != "in front"
    assert back.step is None
    assert pinched(of, garment, "bodice front", "neckline", 60.0) is None


def test_an_armhole_longer_than_she_is_there_gapes_and_is_pinched_out_of_the_front():
    """By the tape: its two edges, of 204 and 193 mm, hang over 138 of height. Half her girth there, 345 or less, is as
    far as she goes down; what is lower counts on both sides.
    """
    of = example("drafted-quarters")
    dress = hung_roughly(of)
    hung = [dress.now[dress.sewn.edges[piece, "armhole"]] for piece in ("bodice front", "bodice back")]
    round_it = 1000 * sum(float(np.linalg.norm(np.diff(edge, axis=0), axis=1).sum()) for edge in hung)
    assert round_it == approx(204 + 193, abs=12)

    def gapes(girth, **more):
        measured = changed(of, {**({} if girth is None else {"figure.measures.armhole_girth": girth}), **more})
        garment = make_up(measured)
        return [gape for gape in read(dress, measured, garment).gapes if gape.edge == "armhole"], measured, garment

    assert gapes(None)[0] == []
    assert gapes(round_it - 28)[0] == []  # what an arm needs to move, and a little
    [gape], measured, garment = gapes(round_it - 43)
    assert gape.off == approx(18.0, abs=0.1)
    assert gape.wedge == gape.off
    assert (gape.step["kind"], gape.step["edge"]) == ("wedge", "armhole")
    before, after = (
        one.piece("bodice front").stitched_length("armhole")
        for one in (garment, make_up(replace_steps(measured, gape.step)))
    )
    assert before - after == approx(gape.wedge, abs=0.5)
    words = said(read(dress, measured, garment), Tape(Unit.CM))
    assert "The armhole is 1.8 cm longer than she is round the arm's joint, with room to move: it gapes." in words
    assert "A wedge of 1.8 cm pinched out of the armhole closes it." in words
    assert gapes(round_it - 62)[0][0].step is None  # drawn smooth again, so wide a wedge does not take out so much
    [lower], measured, garment = gapes(250.0)
    high = 1000 * float(np.ptp(np.concatenate(hung)[:, 2]))
    assert lower.off == approx(round_it - 250 - 25 - 2 * (high - 125), abs=0.1)
    assert lower.wedge == 0.0  # so much is never pinched out of one place
    words = said(read(dress, measured, garment), Tape(Unit.CM))
    assert "That is more than a wedge takes out: raise it, or draft it anew." in words
    # a sleeve is sewn into it, whether it is hung or not
    sleeve = changed(measured, {"trims": [{"kind": "sleeve"}]})
    assert all(gape.edge != "armhole" for gape in read(dress, sleeve, make_up(sleeve)).gapes)


def replace_steps(of, step):
    """The recipe with one more step."""
    return Recipe.model_validate({**of.model_dump(mode="json"), "steps": [step]})


# how she walks in it, and other fullnesses


def test_how_she_walks_in_it_is_read_from_its_hem_as_it_hangs():
    """A step takes 2 · 0.41 · height · (ℓ − h) ÷ ℓ and one leg round, at the height the hem hangs without her heels."""
    figure = {"measures": {**FIGURE, "heel_height": 60.0, "height": 1680.0, "inside_leg": 780.0}}
    of = recipe(lower={"kind": "straight", "length": 700.0}, figure=figure)
    dress, garment = hung_roughly(of), make_up(of)
    walk = read(dress, of, garment).walk
    hems = sum(e.drawn_length for p in garment.pieces if p.name in dress.sewn.pieces for e in p.edges
               if e.role is Role.HEM)  # fmt: skip
    assert walk.hem == approx(2 * hems, rel=0.01)
    bare = walk.high - 60.0
    legs = leg_girth_at(bare, Measures(of.figure, Workings()))
    assert walk.step == approx(2 * 0.41 * 1680 * (780 - bare) / 780 + legs, rel=1e-6)
    assert walk.hem < walk.step
    words = said(read(dress, of, garment), Tape(Unit.CM))
    assert any(sentence.endswith("it needs a slit or vent, if it has none.") for sentence in words)
    assert not any("stairs" in sentence for sentence in words)
    # a short skirt hinders no step, and one down to the floor is in the way on stairs
    assert step_sweep(of.figure, 0.76 * 780) is None
    assert step_sweep(of.figure, 0.74 * 780) > 0
    low = replace(walk, lowest=30.0, where="at the centre back")
    assert "Lowest it hangs 3.0 cm above the floor, at the centre back" in _walked(low, Tape(Unit.CM))[1]
    assert "trodden on" in _walked(replace(low, lowest=5.0), Tape(Unit.CM))[1]
    assert _walked(replace(low, hem=5000.0, lowest=300.0), Tape(Unit.CM))[0].endswith("she steps out freely.")


def test_what_is_set_beside_other_dresses_is_what_is_read():
    of = recipe(lower={"kind": "circle", "sweep": 180.0})
    reading = read(hung_roughly(of), of, make_up(of))
    found = figures(reading, Tape(Unit.CM))
    assert found["round the hem"] == f"{reading.walk.hem / 10:.1f} cm"
    assert found["wide at the hem"] == f"{reading.wide / 10:.1f} cm"
    assert found["folds"].startswith(f"{reading.folds} folds")
    assert found["lowest above the floor"] == f"{min(reading.ribbon.later) / 10:.1f} cm"
    assert figures(replace(reading, ribbon=None), Tape(Unit.CM)) == {}


@pytest.mark.parametrize(
    ("lower", "field", "wanted"),
    [
        ({"kind": "circle", "sweep": 180.0}, "sweep", ("quarter circle", "three-quarter circle")),
        ({"kind": "circle", "sweep": 360.0}, "sweep", ("half circle", "three-quarter circle")),
        ({"kind": "circle", "sweep": 360.0, "fullness": 2.0}, "fullness",
         ("one and a half times the seam", "2.5 times the seam")),
        ({"kind": "gathered", "fullness": 1.5}, "fullness", ("twice the seam", "2.5 times the seam")),
        ({"kind": "gores", "hem_sweep": 2400.0}, "hem_sweep", ("180.0 cm round the hem", "324.0 cm round the hem")),
        ({"kind": "a_line", "flare": 80.0}, "flare", ("6.0 cm of flare a side", "11.0 cm of flare a side")),
        ({"kind": "straight"}, "", ()),
    ],
)  # fmt: skip
def test_the_nearest_usual_fullnesses_are_hung_beside_it(lower, field, wanted):
    of = recipe(lower=lower)
    found = beside(of, Tape(Unit.CM))
    assert tuple(one.said for one in found) == wanted
    for one in found:
        assert not [f for f in make_up(one.recipe).findings if f.severity is Severity.STOP]
        assert replace_in(one.recipe, field, getattr(of.lower, field)) == of.model_dump(mode="json")
    assert bool(say_full(of, Tape(Unit.CM))) == bool(wanted)


def replace_in(of, field, value):
    """What a recipe says, with one word of its lower part put back."""
    made = of.model_dump(mode="json")
    made["lower"][field] = value
    return made


def test_a_fullness_that_cannot_be_cut_is_not_hung_beside_it():
    """Circles of a waist so wide and cloth so narrow: only what lies on it."""
    of = recipe(lower={"kind": "circle", "sweep": 90.0, "length": 600.0})
    stops = {
        sweep: any(f.severity is Severity.STOP for f in make_up(recipe(lower={**of.lower.model_dump(), "sweep": sweep}))
                   .findings)
        for sweep in (180.0, 270.0, 360.0, 720.0)
    }  # fmt: skip
    usual = [sweep for sweep, stopped in stops.items() if not stopped][:2]
    assert [one.recipe.lower.sweep for one in beside(of, Tape(Unit.CM))] == usual


# a levelled hem


def straight(*steps):
    return made(steps=list(steps), lower={"kind": "straight", "length": 600.0, "hem": 40.0})


def edge(garment, piece, name):
    return garment.piece(piece).edge(name).path


def test_a_hem_levelled_by_as_much_all_round_is_a_skirt_that_is_shorter_by_that():
    plain, cut = straight(), straight({"kind": "level_hem", **dict.fromkeys(AROUND, 12.0)})
    for piece, centre in (("skirt front", "centre front"), ("skirt back", "centre back")):
        assert edge(cut, piece, centre).length == approx(edge(plain, piece, centre).length - 12, abs=0.01)
        assert edge(cut, piece, "side").length == approx(edge(plain, piece, "side").length - 12, abs=0.01)
        hem = LineString([(p.x, p.y) for p in edge(plain, piece, "hem").flatten(0.1)])
        for place in edge(cut, piece, "hem").flatten(1.0)[1:-1]:
            assert hem.distance(LineString([(place.x, place.y), (place.x, place.y + 0.01)])) == approx(12, abs=0.3)


def test_a_hem_is_levelled_by_more_behind_than_in_front():
    cut = {"centre_front": -10.0, "half_way": 4.0, "centre_back": 22.0}
    plain, done = straight(), straight({"kind": "level_hem", **cut})
    for piece, centre, by in (("skirt front", "centre front", -10), ("skirt back", "centre back", 22)):
        assert edge(done, piece, centre).length == approx(edge(plain, piece, centre).length - by, abs=0.01)
        assert edge(done, piece, "side").length == approx(edge(plain, piece, "side").length - 4, abs=0.01)
    assert not [f for f in done.findings if f.severity == "stop"]
    assert all(walked.verdict.fits for walked in done.seams)


def test_gores_that_are_all_alike_cannot_be_levelled_one_by_one():
    found = refusal("step-not-done", steps=[{"kind": "level_hem", "centre_front": 5.0}], lower={"kind": "gores"})
    assert "is cut alike" in found.values["why"]


def test_a_hem_that_hangs_as_asked_wants_no_step_and_another_gets_what_was_read():
    of = recipe()
    garment = make_up(of)
    assert levelling(of, garment, (5.0,) * 9) == Levelling()
    step = levelling(of, garment, (9.0, *range(8))).step
    assert [step[name] for name in AROUND] == [9.0, *map(float, range(8))]


@pytest.mark.parametrize(
    ("name", "why"),
    [
        ("mermaid-gown", "has no hem there"), ("trumpet-gores", "is cut alike"),
        ("jumpsuit", "Each leg has a hem of its own"),
    ],
)  # fmt: skip
def test_a_levelled_hem_is_not_offered_where_it_cannot_be_done_and_it_is_said_why(name, why):
    of = example(name)
    found = levelling(of, make_up(of), (12.0,) * 9)
    assert found.step is None
    assert why in found.why


def test_a_hem_that_hangs_a_hand_lower_than_asked_is_not_levelled():
    of = recipe()
    found = levelling(of, make_up(of), (160.0,) * 9)
    assert found.step is None
    assert "too far from what was asked" in found.why


def test_only_the_lowest_tier_is_levelled():
    of = example("tiered")
    document = of.model_dump(mode="json")
    step = levelling(of, make_up(of), (10.0,) * 9).step
    before, after = make_up(of), make_up(read_recipe({**document, "steps": [*document["steps"], step]}))
    shorter = {
        piece.name for piece in before.pieces
        if piece.what.layer is Layer.OUTER and after.piece(piece.name).edges != piece.edges
    }  # fmt: skip
    assert shorter == {"tier 3 front", "tier 3 back"}


def test_a_cloth_that_grew_by_its_makers_tape_drops_as_far_as_that():
    """Half a circle of a cloth that was measured to grow little, and of one that grew much: all else is alike."""
    of = recipe(lower={"kind": "circle", "sweep": 180.0}, cloths={"outer": {"name": "Sea crepe", "drape": "soft"}})
    garment, drops = make_up(of), {}
    for share in (0.002, 0.03):
        grown = {"Sea crepe": (0.8, share), "Another": (0.8, 0.3)}
        dress = hang(of, garment, fine=40.0, grown=grown)
        reading = read(dress, of, garment, grown)
        assert reading.noted == ("Sea crepe",)
        drops[share] = max(n - at for n, at in zip(reading.ribbon.now, reading.ribbon.later, strict=True))
    assert -1.0 < drops[0.002] < 2.0  # no less than at once: it gives no further at once than it has in two days
    assert drops[0.03] > drops[0.002] + 4.0
    assert read(dress, of, garment).noted == ()


def test_two_cloths_alike_by_class_give_each_by_its_own_notes():
    """The skirt's is measured, the bodice's is not, and a collar is stiffer than either: each as its own cloth is."""
    of = changed(example("pleated-inches"), {
        "cloths.outer.name": "Calm", "cloths.contrast.name": "Loose", "cloths.contrast_for": "lower",
    })  # fmt: skip
    parts = sewn(of)
    nets = {later: _given(parts, of, {"Loose": (0.8, 0.04)}, later=later) for later in (False, True)}
    usual = Fabric.of(of.cloths.outer)
    shears = {
        (sheet.name, later): net.fabrics[k].shear for later, net in nets.items() for k, sheet in enumerate(parts.sheets)
    }  # fmt: skip
    assert shears["skirt front", True] == usual.grown(0.8, 0.04).shear
    assert shears["skirt front", False] == usual.shear
    assert shears["bodice front", True] == usual.shear / CREEPS[of.cloths.outer.drape]
    collar = next(k for k, sheet in enumerate(parts.sheets) if sheet.name == "stand collar")
    assert nets[False].fabrics[collar].bending > nets[False].fabrics[0].bending
    assert (nets[True].moduli[parts.sheet_of == collar, 2] == shears["stand collar", True]).all()
    stiff = _given(parts, of, {"Loose": (0.8, 0.0)}, later=False)
    skirt = next(k for k, sheet in enumerate(parts.sheets) if sheet.name == "skirt front")
    assert stiff.fabrics[skirt].shear > usual.shear


def test_where_round_her_something_lies_and_how_it_folds_is_read():
    assert [_where(np.array(place)) for place in ((0.02, 0.1, 1), (0.1, 0.0, 1), (0.02, -0.1, 1))] == [
        "in front", "at the side", "behind",
    ]  # fmt: skip
    dress = hung_roughly(example("full-circle"))
    hem = dress.sewn.hem
    turn = np.linspace(0, np.pi, len(hem))
    out = 0.3 + 0.02 * np.cos(10 * turn)  # ten folds all round, 4 cm deep, 64 cm wide at the most
    places = dress.now.copy()
    places[hem] = np.column_stack((out * np.sin(turn), out * np.cos(turn), np.full(len(hem), 0.4)))
    of = example("full-circle")
    reading = read(replace(dress, now=places), of, make_up(of))
    assert reading.folds == 10
    assert reading.deep == approx(40, abs=6)
    assert reading.wide == approx(2000 * (out * np.sin(turn)).max())


def test_a_levelled_hem_hung_again_is_level():
    of = example("drafted-quarters")
    first = read(hang(of, make_up(of), fine=32.0), of, make_up(of))
    assert first.ribbon.uneven > 6
    document = of.model_dump(mode="json")
    again = read_recipe({**document, "steps": [*document["steps"], first.levelling.step]})
    ribbon = hem_ribbon(hang(again, make_up(again), fine=32.0), 0.0)
    off = np.array(ribbon.later) - np.array(first.ribbon.asked)
    assert off.max() - off.min() < 6.0


def test_a_longer_skirt_begins_as_the_shorter_one_lies():
    of = recipe()
    dress = hung_roughly(of)
    longer = sewn(recipe(lower={"kind": "straight", "length": 700.0}))
    start = longer.carried(dress.sewn.lain(dress.now))
    upper = [sheet for sheet in longer.sheets if sheet.key[1] < 0]
    assert upper
    for sheet in upper:  # the bodice has the same pieces: it begins where it lay
        laid, places = dress.sewn.lain(dress.now)[sheet.key]
        for place, at in zip(sheet.laid[:20], start[sheet.points[:20]], strict=True):
            near = int(np.argmin(np.hypot(*(laid - place).T)))
            assert np.linalg.norm(places[near] - at) < 0.05
    # drawn out over the same height: no triangle is crushed
    assert start[longer.hem, 2].mean() == approx(dress.now[dress.sewn.hem, 2].mean(), abs=0.01)
    sides = np.linalg.norm(start[longer.net.triangles] - start[np.roll(longer.net.triangles, 1, axis=1)], axis=2)
    cut = np.linalg.norm(longer.net.flat - np.roll(longer.net.flat, 1, axis=1), axis=2)
    assert np.quantile(sides / cut, 0.02) > 0.5
    at_hem = np.isin(longer.net.triangles, longer.hem).any(axis=1)
    assert np.median((sides / cut)[at_hem]) > 0.75
    for much in (950.0, 400.0):  # so much longer or shorter it would lie crumpled
        other = sewn(recipe(lower={"kind": "straight", "length": much}))
        assert not other.is_like(dress.sewn.lain(dress.now))
    # a fuller one has another outline, and would begin drawn out of shape
    half = hung_roughly(recipe(lower={"kind": "circle", "sweep": 180.0}))
    fuller = sewn(recipe(lower={"kind": "circle", "sweep": 270.0}))
    same = sewn(recipe(lower={"kind": "circle", "sweep": 180.0, "length": 660.0}))
    assert not fuller.is_like(half.sewn.lain(half.now))
    assert same.is_like(half.sewn.lain(half.now))
    assert longer.is_like(dress.sewn.lain(dress.now))
    assert not same.is_like({("bodice front", -1, 0): (np.zeros((3, 2)), np.zeros((3, 3)))})


def test_it_weighs_what_its_cloth_weighs():
    of = example("straight-waistband")
    parts = sewn(of)
    assert parts.net.masses.sum() == approx(parts.net.areas.sum() * Fabric.of(of.cloths.outer).weight)
    assert strained(hung_roughly(of)).shape == parts.net.areas.shape
    assert approx(9.81) == GRAVITY
