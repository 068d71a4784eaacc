"""The shape of the pieces as a cutter sees it, measured from the files with svgelements and plain arithmetic.

Nothing here asks the core about a line: the outlines are those of pieces.svg, what is sewn to what and where the darts
lie is read from garment.json. Trade 4.8 and 9.2: over a seam the two angles make 180°, at the centre an edge is square,
over a closed dart it has no corner, and a side or panel seam is one curve.
"""

import json
from cmath import phase, rect
from itertools import pairwise
from math import degrees
from pathlib import Path as File
from xml.etree import ElementTree

import pytest
import svgelements

from conftest import FIGURE
from figures import FIGURES, SCHOOLS
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.trim import TRIMS
from gentle_hem.formats.files import FILE_WRITERS, Order
from long import examples
from random_recipes import random_recipe

SEEN = 3.0
LEGS = 1.0
SAYING = ("turns-a-corner", "dart-legs-differ")
SVG = "{http://www.w3.org/2000/svg}"
RUNS_ON = {"waist", "hem", "armhole", "neckline"}
SMOOTH = RUNS_ON | {"side", "princess", "panel", "crotch", "sleeve cap", "inside leg"}
EXAMPLES = sorted((File(__file__).parents[2] / "examples").glob("*.recipe.json"))


def turned(a, b):
    """Degrees from one direction to another, anticlockwise."""
    return (degrees(phase(b) - phase(a)) + 180) % 360 - 180


class Piece:
    """A piece as it lies in the files: its outline's curves, parted at the ends of its edges."""

    def __init__(self, said, path):
        self.said = said
        parts = []
        for part in path:
            if isinstance(part, svgelements.Move):
                if parts and parts[-1].end != part.end:  # the next run of an outline drawn without its folds
                    parts.append(svgelements.Line(parts[-1].end, part.end))
            else:
                parts += part.as_cubic_curves(8) if isinstance(part, svgelements.Arc) else [part]
        if parts[-1].end != parts[0].start:  # an outline on the fold is drawn open: the fold itself closes it
            parts.append(svgelements.Line(parts[-1].end, parts[0].start))
        self.curves = [curve for part in parts if abs((curve := self._complex(part))[-1] - curve[0]) > 1e-6]
        places = [complex(*edge["points"][0]) for edge in said["edges"]]
        corners = [point for curve in self.curves for point in (curve[0], curve[-1])]
        # the sheet shifts a piece; the corner of its edges is found again by how far each lies from the first
        shift = min(
            (corner - places[0] for corner in corners),
            key=lambda by: sum(min(abs(c - p - by) for c in corners) for p in places),
        )
        starts = [min(range(len(self.curves)), key=lambda k, p=p: abs(self.curves[k][0] - p - shift)) for p in places]
        assert all(abs(self.curves[k][0] - p - shift) < 0.01 for k, p in zip(starts, places, strict=True))
        self.shift = shift
        self.edges = {}
        for k, edge in enumerate(said["edges"]):
            begin, end = starts[k], starts[(k + 1) % len(starts)]
            end += len(self.curves) if end <= begin else 0
            self.edges[edge["name"]] = [self.curves[i % len(self.curves)] for i in range(begin, end)]
        self.names = [edge["name"] for edge in said["edges"]]
        self.roles = {edge["name"]: edge["role"] for edge in said["edges"]}

    @staticmethod
    def _complex(part):
        """A curve's control points with y upwards."""
        points = [
            part.start,
            *(getattr(part, name) for name in ("control1", "control2") if hasattr(part, name)),
            part.end,
        ]
        return [complex(point.x, -point.y) for point in points]

    @staticmethod
    def leaves(curve):
        return next(point - curve[0] for point in curve[1:] if abs(point - curve[0]) > 1e-6)

    @staticmethod
    def arrives(curve):
        return next(curve[-1] - point for point in reversed(curve[:-1]) if abs(curve[-1] - point) > 1e-6)

    def angle(self, name, at_end):
        """The angle inside the piece where an edge ends or starts."""
        k = self.names.index(name)
        before, after = (name, self.names[(k + 1) % len(self.names)]) if at_end else (self.names[k - 1], name)
        return 180 - turned(self.arrives(self.edges[before][-1]), self.leaves(self.edges[after][0]))

    def beside(self, stretch, at_start):
        """The edge that runs on over an end of a sewn stretch, and which of its ends lies there."""
        k = self.names.index(stretch["edge"])
        if at_start != stretch["backwards"]:
            return self.names[k - 1], True
        return self.names[(k + 1) % len(self.names)], False

    def kinks(self):
        """Corners within edges, but for those at a dart's mouth, and over darts with their legs laid together."""
        for edge in self.said["edges"]:
            curves = self.edges[edge["name"]]
            mouths = []
            for dart in self.said["darts"]:
                if dart["edge"] != edge["name"]:
                    continue
                near_leg, far_leg = ([complex(*point) for point in leg] for leg in dart["legs"])
                closing = phase((near_leg[1] - near_leg[0]) / (far_leg[1] - far_leg[0]))
                near, into = place(curves, dart["at"], before=True)
                far, out = place(curves, dart["at"] + dart["intake"], before=False)
                mouths += [near, far]
                if not dart["pleat"]:
                    yield edge["name"], turned(into, out * rect(1, closing))
            for one, two in pairwise(curves):
                if edge["role"] in SMOOTH and all(abs(one[-1] - mouth) > 0.05 for mouth in mouths):
                    yield edge["name"], turned(self.arrives(one), self.leaves(two))


def legs_differ(dart):
    """By how much one leg of a dart is longer than the other."""
    near, far = (sum(abs(complex(*b) - complex(*a)) for a, b in pairwise(leg)) for leg in dart["legs"])
    return near - far


def at_share(curve, t):
    """The place at a share of a curve's parameter, by halving between its control points."""
    points = list(curve)
    while len(points) > 1:
        points = [a + (b - a) * t for a, b in pairwise(points)]
    return points[0]


def lengths(curve):
    """How far along a curve each of 200 places lies, by their chords."""
    points = [at_share(curve, k / 200) for k in range(201)]
    found = [0.0]
    for a, b in pairwise(points):
        found.append(found[-1] + abs(b - a))
    return found


def place(curves, at, *, before):
    """The place so far along an edge and the direction there: of what comes before it, or of what goes on."""
    for k, curve in enumerate(curves):
        along = lengths(curve)
        if at < along[-1] - 0.02 or k == len(curves) - 1 or (before and at < along[-1] + 0.02):
            if at < 0.02:
                return curve[0], Piece.leaves(curve)
            if at > along[-1] - 0.02:
                return curve[-1], Piece.arrives(curve)
            share = next(i for i, length in enumerate(along) if length >= at)
            t = (share - (along[share] - at) / (along[share] - along[share - 1])) / 200
            return at_share(curve, t), at_share(curve, t + 1e-4) - at_share(curve, t - 1e-4)
        at -= along[-1]
    raise AssertionError("an edge has no curves")


def pieces_of(recipe, garment):
    """What garment.json says, and every piece that is cut from cloth as it lies in the drawing."""
    order = Order(recipe, garment)
    said = json.loads(FILE_WRITERS["garment.json"](order))
    outlines = {
        group.get("id"): svgelements.Path(
            " ".join(path.get("d") for path in group.iter(f"{SVG}path") if path.get("class") == "seam-line")
        )
        for group in ElementTree.fromstring(FILE_WRITERS["pieces.svg"](order)).iter(f"{SVG}g")
    }
    return said, {
        p["name"]: Piece(p, outlines[p["name"]])
        for p in said["pieces"]
        if p["material"] not in ("lining", "interfacing") and all(e["role"] != "template" for e in p["edges"])
    }


def corners(recipe):
    """Every place where an edge should run on: its name, by how many degrees it does not, whether a finding says so."""
    garment = make_up(recipe)
    said, drawn = pieces_of(recipe, garment)
    told = {(place["piece"], place["edge"]) for f in said["findings"] if f["code"] in SAYING for place in f["at"]}
    pointed = {(p.name, e.name) for p in garment.pieces for e in p.edges if e.pointed}
    for name, piece in drawn.items():
        for edge, off in piece.kinks():
            if (name, edge) not in pointed:
                yield name, edge, off, (name, edge) in told
        for dart in piece.said["darts"]:
            seen = abs(legs_differ(dart)) > LEGS
            yield name, f"dart on the {dart['edge']}", 90 if seen else 0, (name, dart["edge"]) in told
    layer = {p.name: p.what.layer for p in garment.pieces}
    for seam in said["seams"]:
        if len({layer[side["piece"]] for run in "ab" for side in seam[run]}) > 1:
            continue  # a facing lies on its piece instead of going on from it
        for at_start, index in ((True, 0), (False, -1)):
            ends = []
            for side in (seam["a"][index], seam["b"][index]):
                if side["piece"] in drawn and side["edge"] in drawn[side["piece"]].edges:
                    edge, at_end = drawn[side["piece"]].beside(side, at_start)
                    ends.append((side["piece"], edge, drawn[side["piece"]].angle(edge, at_end), side))
            if len(ends) < 2 or not all(whole(end[3], drawn) for end in ends):
                continue
            (a, edge, one, _), (b, other, two, _) = ends
            role = drawn[a].roles[edge]
            if role not in RUNS_ON or role != drawn[b].roles[other] or max(abs(one - 90), abs(two - 90)) > 65:
                continue
            if seam["a"] == seam["b"] and (a, edge) in pointed:
                continue
            yield a, edge, one + two - 180, (a, edge) in told or (b, other) in told


def whole(stretch, drawn):
    """Whether a stretch is all of its edge."""
    edge = next(e for e in drawn[stretch["piece"]].said["edges"] if e["name"] == stretch["edge"])
    return stretch["start"] == 0 and abs(stretch["end"] - edge["drawn_length"]) < 0.01


def looked_over(recipes):
    """How many places were measured, and which have a corner: said by a finding, and not said."""
    count, told, untold = 0, [], []
    for name, recipe in recipes:
        for piece, edge, off, is_told in corners(recipe):
            count += 1
            if abs(off) > SEEN + 0.1:
                (told if is_told else untold).append((name, piece, edge, round(off, 1)))
    return count, told, untold


def dress(school, lower, **rest):
    recipe = {"figure": {"measures": FIGURE}, "bodice": {"kind": school}, "lower": {"kind": lower}}
    return Recipe.model_validate(recipe | rest)


def test_no_example_has_a_corner():
    count, told, untold = looked_over((p.name, Recipe.model_validate_json(p.read_text())) for p in EXAMPLES)
    assert count > 500
    assert told == untold == []


def test_every_school_on_every_figure_is_trued():
    """Every school on every size of the table and the odd figures, with a straight skirt that has darts of its own."""
    recipes = [
        (f"{school} {figure}", dress(school, "straight", figure={"measures": measures}))
        for school in SCHOOLS
        for figure, measures in list(FIGURES.items())[:: examples(2, 1)]
    ]
    count, told, untold = looked_over(recipes)
    assert untold == []
    assert len(told) <= 0.02 * count, told


LOWER = ["straight", "a_line", "gores", "trousers", "gown", "circle", "pleated", "tiered", "gathered", "high_low"]
STYLES = [
    {"style": {"front_neck": "v"}}, {"style": {"front_neck": "round", "back_neck": "v"}},
    {"style": {"bust_dart": "shoulder"}}, {"style": {"bust_dart": "armhole"}}, {"style": {"bust_dart": "waist"}},
    {"panels": {"front_princess": "shoulder", "back_princess": "shoulder"}},
    {"panels": {"front_princess": "armhole", "back_princess": "armhole"}},
    {"panels": {"ends": "midriff"}}, {"panels": {"ends": "dropped", "depth": 80}}, {"contour": {"zip_taken": 19}},
]  # fmt: skip


def test_every_lower_part_under_every_style_line_is_trued():
    recipes = [
        (f"{school} {lower} {style}", dress(school, lower, **style))
        for k, style in enumerate(STYLES)
        for school, lower in zip(["two_lengths", "quarters", "proportional"] * 4, LOWER[k:] + LOWER[:k], strict=False)
    ][:: examples(2, 1)]
    count, told, untold = looked_over(recipes)
    assert untold == []
    assert len(told) <= 0.02 * count, told


@pytest.mark.parametrize(
    ("mood", "seeds"), [("plain", range(examples(36, 80))), ("plausible", range(examples(24, 50)))]
)
def test_nothing_random_has_a_corner_in_silence(mood, seeds):
    """Every school, lower part, trim, neckline, dart place, panel and combination of style lines by chance."""
    count, told, untold = looked_over((f"{mood} {seed}", random_recipe(seed, mood)) for seed in seeds)
    assert count > 25 * len(seeds)
    assert untold == []
    assert len(told) <= 0.01 * count, told


def test_every_trim_and_band_on_every_school_has_no_corner():
    recipes = [
        (
            f"{school} {trim.model_fields['kind'].default}",
            dress(school, lower, trims=[{"kind": trim.model_fields["kind"].default}]),
        )
        for school, lower in zip(SCHOOLS, ["straight", "gown", "circle", "gores", "gathered"], strict=True)
        for trim in TRIMS
    ][:: examples(2, 1)]
    count, told, untold = looked_over(recipes)
    assert untold == []
    assert len(told) <= 0.02 * count, told


def bends(curve):
    """Curvature of a curve at 17 places, 1/mm, positive where it turns left: from its control points by arithmetic."""
    if len(curve) == 2:
        return [0.0] * 17
    a, b, c, d = curve
    found = []
    for k in range(17):
        t = min(max(k / 16, 1e-3), 1 - 1e-3)
        first = 3 * ((b - a) * (1 - t) ** 2 + 2 * (c - b) * (1 - t) * t + (d - c) * t * t)
        second = 6 * ((c - 2 * b + a) * (1 - t) + (d - 2 * c + b) * t)
        found.append((first.conjugate() * second).imag / abs(first) ** 3)
    return found


TURNS = {"armhole": 2, "sleeve cap": 1, "princess": 4, "centre front": 0, "centre back": 1}
"""How often each curve may turn the other way. An armhole: hollow, and out again to the shoulder tip. A princess: over
the shoulder, over the bust, in at the waist. A crotch behind leans the other way above its J."""

FLAT = 1 / 400
"""A bend of a larger circle than 40 cm is straight to the eye (1/mm)."""

JUMP = 1 / 25
"""Where one curve meets the next, its bend changes by no more than from a straight line to a 2.5 cm circle (1/mm)."""


@pytest.mark.parametrize("school", SCHOOLS)
def test_curves_turn_as_often_as_they_should_and_their_bend_never_jumps(school):
    """Numbers of the curvature plots: armhole, cap, crotch and princess, of every second figure."""
    seen = set()
    for figure, measures in list(FIGURES.items())[::2]:
        for more in ({"lower": "trousers"}, {"lower": "straight", "panels": PANELLED}):
            recipe = dress(school, figure={"measures": measures}, trims=[{"kind": "sleeve"}],
                           opening={"place": "side"}, **more)  # fmt: skip
            for name, edge, role, curves in curves_of(recipe):
                at = (school, figure, name, edge)
                bent = [bends(curve) for curve in curves]
                seen.add(role)
                signs = [bend > 0 for bend in (b for each in bent for b in each) if abs(bend) > FLAT]
                assert sum(a != b for a, b in pairwise(signs)) <= TURNS[role], at
                jumps = [abs(one[-1] - two[0]) for one, two in pairwise(bent)]
                assert max(jumps, default=0.0) <= JUMP, at
    assert seen == set(TURNS)


PANELLED = {"front_princess": "armhole", "back_princess": "shoulder"}


def curves_of(recipe):
    """The armholes, caps, princess seams and crotches of a garment, as curves of the drawing."""
    garment = make_up(recipe)
    if any(finding.code in ("armhole-too-large", "cap-does-not-fit") for finding in garment.findings):
        return  # it is said that this is no shape for a block
    for name, piece in pieces_of(recipe, garment)[1].items():
        for edge, curves in piece.edges.items():
            role = piece.roles[edge]
            if role in ("armhole", "sleeve cap", "princess") or (role.startswith("centre") and "trouser" in name):
                yield name, edge, role, curves
