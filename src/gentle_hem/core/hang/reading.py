"""What a maker reads from a dress that hangs: its hem all round, its folds, where it is tight and where it has room.

          ╭──╮    ╭──╮          the hem ribbon: how high the hem is above the floor, all round, as a smooth curve:
   ───────╯  ╰────╯  ╰────      as asked, as it hangs, and after two days on the bias
   CF      bias   side  … CB

Lengths in mm; heights above the floor she stands on, in her shoes.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.signal import find_peaks

from gentle_hem.core.block.looks import MOST_WEDGE
from gentle_hem.core.garment import Garment
from gentle_hem.core.hang.as_steps import Levelling, levelling, pinched
from gentle_hem.core.hang.dress import NOT_GROWN, Grown, HungDress
from gentle_hem.core.hang.mesh import Flags, Numbers
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.steps.level_hem import AROUND
from gentle_hem.core.two_sides import OneSide
from gentle_hem.core.wear import step_sweep
from gentle_hem.core.what import Half, Section

RIBBON = 65
"""A hem is drawn through so many places."""

WAVES = 4
"""The smooth curve of a hem has so many waves at most from the centre front to the centre back."""

FOLD = 0.008
"""What stands out less at the hem is no fold (m)."""

STEEPEST = 0.35
"""A hem that stands nearly level is not cut by more than its height divided by so much."""

BAND = 0.03
"""How far from a level what is read there may lie (m)."""

BELOW_CROTCH = 30.0
"""A thigh is measured so far below the crotch (mm)."""

UPPER_ARM = 0.32
"""An upper arm is measured so far down the arm, as a share of its length."""

TIGHT, CLOSE = 0.02, 0.003
"""Cloth strained by more that lies nearer to her is tight (and m)."""

GAPES = 6.0
"""An edge that stands off further gapes (mm)."""

ARM_MOVES = 25.0
"""An armhole without a sleeve is so much longer than she is there, so as not to cut in (mm; trade 16, from memory)."""

SEEN = 2.0
"""A hem that drops by less has not dropped (mm)."""


AROUND_SAID = (
    "at the centre front", "an eighth round", "a quarter round", "three eighths round", "half-way round",
    "five eighths round", "three quarters round", "seven eighths round", "at the centre back",
)  # fmt: skip
"""The places a hem is levelled at, in words."""

AROUND_LEG = (
    "inside the leg", "in front, toward the inside", "at the front crease", "in front, toward the outside",
    "at the outside", "behind, toward the outside", "at the back crease", "behind, toward the inside",
    "inside the leg",
)  # fmt: skip
"""The same round a leg."""


@dataclass(frozen=True)
class HemRibbon:
    """How high a hem is from the centre front to the centre back, at even shares of its way."""

    asked: tuple[float, ...]
    now: tuple[float, ...]
    later: tuple[float, ...]
    cut: tuple[float, ...]
    """How much to cut off along the cloth at even places (less than nothing: to add), so that it hangs as asked after
    two days."""

    @property
    def uneven(self) -> float:
        """By how much it rises and falls against what was asked, after two days."""
        off = np.array(self.later) - np.array(self.asked)
        return float(off.max() - off.min())


@dataclass(frozen=True)
class BodyLevel:
    """What is read at a level of her: how long round the cloth is and she is, and how strained it is at most."""

    name: str
    height: float
    cloth: float
    body: float
    strain: float
    where: str

    @property
    def room(self) -> float:
        return self.cloth - self.body


NECK, ARMHOLE = "neck edge", "armhole"


@dataclass(frozen=True)
class Gape:
    """A neck edge that stands off, or an armhole too long for her: by how much (of a neck edge how far it stands off at
    most, of an armhole how much longer it is all round than she is there), and the wedge that closes it: nothing where
    one does not.
    """

    edge: str
    off: float
    wedge: float
    where: str
    step: dict[str, Any] | None = None
    """The step that pinches it out of the front; None where it is no front's, or cannot be done."""


@dataclass(frozen=True)
class Walk:
    """How she walks in it: how long its hem is all round and how high it hangs after two days, with her shoes on, what
    a step takes there (an estimate; None where it is too short to hinder), and where it hangs lowest.
    """

    hem: float
    high: float
    step: float | None
    lowest: float
    where: str


@dataclass(frozen=True)
class HangReading:
    """All of it."""

    ribbon: HemRibbon | None
    walk: Walk | None
    levelling: Levelling
    folds: int
    deep: float
    wide: float
    levels: tuple[BodyLevel, ...]
    gapes: tuple[Gape, ...]
    drag: str
    slid: float
    """How far what is above the waist has slid down (mm)."""
    left_out: tuple[str, ...]
    is_held: bool
    side: OneSide | None
    """Which of her sides it is, where her right is another than her left."""
    noted: tuple[str, ...] = ()
    """The cloths whose maker has measured how far they grow on the bias."""
    is_legs: bool = False
    """Whether it ends in legs: the hem of her left one is read, from the inside over the front to the inside."""
    on_straps: bool = False
    """Whether it hangs from straps."""
    right: HangReading | None = None
    """Her right, where it is another."""

    @property
    def places(self) -> tuple[str, ...]:
        """The places its hem is read at, in words."""
        return AROUND_LEG if self.is_legs else AROUND_SAID


UNLIKE = "Her left and her right are not alike: level its hem at a fitting."
ON_LEGS = "Each leg has a hem of its own: level it at a fitting."


def read(dress: HungDress, recipe: Recipe, garment: Garment, grown: Grown = NOT_GROWN) -> HangReading:
    """A hung dress read, ``grown`` what its maker had measured of its cloths when it was hung."""
    heel = recipe.figure.get("heel_height") or 0.0
    ribbon = hem_ribbon(dress, heel) if len(dress.sewn.hem) > 3 else None
    level_by = Levelling()
    if ribbon is not None:
        by_hand = ON_LEGS if dress.sewn.is_legs else UNLIKE if dress.sewn.side else ""
        level_by = Levelling(why=by_hand) if by_hand else levelling(recipe, garment, ribbon.cut)
    folds, deep = _folds(dress)
    hem = dress.now[dress.sewn.hem]
    tight = strained(dress)
    form = dress.stand.form
    asked = [("bust", form.bust), ("waist", form.waist), ("hip", form.hip)]
    if dress.sewn.is_legs:
        asked += [("thigh", form.crotch - BELOW_CROTCH), ("knee", form.knee)]
    levels = tuple(
        level for name, height in asked
        if (level := _at_level(dress, name, height, tight)) is not None
    )  # fmt: skip
    arm = _at_arm(dress, tight)
    levels += () if arm is None else (arm,)
    walk = None if ribbon is None else _walk(dress, recipe, ribbon, heel)
    return HangReading(
        ribbon, walk, level_by, folds, deep, 2000 * float(hem[:, 0].max()) if len(hem) else 0.0, levels,
        tuple(of for of in (_neck(dress, recipe, garment), _armhole(dress, recipe, garment)) if of is not None),
        _drag(dress, tight), _slid(dress), dress.sewn.left_out, dress.sewn.is_held,
        dress.sewn.side, tuple(sorted(_names(dress, recipe) & set(grown))), dress.sewn.is_legs,
        any(sheet.is_strap for sheet in dress.sewn.sheets),
        None if dress.right is None else read(dress.right, recipe, make_up(recipe, "right"), grown),
    )  # fmt: skip


def _names(dress: HungDress, recipe: Recipe) -> set[str]:
    """What the cloths it is cut of are called."""
    return {recipe.cloths.cloth(sheet.role).name for sheet in dress.sewn.sheets}


# the hem


def smooth(shares: Numbers, values: Numbers, at: Numbers) -> Numbers:
    """A curve through values at shares from 0 to 1, without corners at either end, at other shares: waves fitted by
    least squares, so that single folds do not show.
    """
    waves = min(WAVES, max(len(shares) // 3, 1))
    terms = np.cos(np.pi * np.outer(shares, np.arange(waves + 1)))
    fitted = np.linalg.lstsq(terms, values, rcond=None)[0]
    made: Numbers = np.cos(np.pi * np.outer(at, np.arange(waves + 1))) @ fitted
    return made


def along_hem(dress: HungDress) -> Numbers:
    """How far along the hem its points lie, as it hangs: shares from the centre front to the centre back."""
    rest = dress.now[dress.sewn.hem]
    far = np.concatenate(([0.0], np.cumsum(np.linalg.norm(np.diff(rest, axis=0), axis=1))))
    made: Numbers = far / far[-1]
    return made


def hem_ribbon(dress: HungDress, heel: float) -> HemRibbon:
    """The hem of a hung dress, all round."""
    hem, shares = dress.sewn.hem, along_hem(dress)
    at = np.linspace(0, 1, RIBBON)
    asked, now, later = (
        smooth(shares, 1000 * of[hem, 2] + heel, at) for of in (dress.sewn.start, dress.now, dress.later)
    )
    steep = smooth(shares, _steepness(dress), at)
    cut = (asked - later) / np.maximum(steep, STEEPEST)
    places = np.linspace(0, RIBBON - 1, len(AROUND)).astype(int)
    return HemRibbon(*(tuple(of.tolist()) for of in (asked, now, later, cut[places])))


def _steepness(dress: HungDress) -> Numbers:
    """How much lower the hem is by point for each mm that it is longer: how steep the cloth above it falls."""
    net, z = dress.sewn.net, dress.later
    on_hem = np.isin(net.triangles, dress.sewn.hem)
    found = {int(p): [0.0, 0] for p in dress.sewn.hem}
    for t in np.flatnonzero(on_hem.sum(axis=1) == 2):
        k = int(np.flatnonzero(~on_hem[t])[0])
        a, b, c = (net.flat[t, (k + m) % 3] for m in (1, 2, 0))
        pa, pb, pc = (z[net.triangles[t, (k + m) % 3]] for m in (1, 2, 0))
        edge = b - a
        share = float((c - a) @ edge / (edge @ edge))
        high = float(np.hypot(*(c - a - share * edge)))
        fall = float((pc - pa - share * (pb - pa))[2]) / max(high, 1e-6)
        for p in (net.triangles[t, (k + 1) % 3], net.triangles[t, (k + 2) % 3]):
            found[int(p)][0] += fall
            found[int(p)][1] += 1
    return np.array([found[int(p)][0] / max(found[int(p)][1], 1) for p in dress.sewn.hem])


def _walk(dress: HungDress, recipe: Recipe, ribbon: HemRibbon, heel: float) -> Walk:
    hem, is_legs = dress.later[dress.sewn.hem], dress.sewn.is_legs
    long = (1000 if is_legs else 2000) * float(np.linalg.norm(np.diff(hem, axis=0), axis=1).sum())
    high, low = float(np.mean(ribbon.later)), int(np.argmin(ribbon.later))
    step = None if is_legs else step_sweep(recipe.figure, high - heel)
    places = AROUND_LEG if is_legs else AROUND_SAID
    at = places[round(low / (RIBBON - 1) * (len(places) - 1))]
    return Walk(long, high, None if step is None else float(step), ribbon.later[low], at)


def _folds(dress: HungDress) -> tuple[int, float]:
    """How many folds stand out at the hem all round her, and how deep they are (mm)."""
    hem = dress.now[dress.sewn.hem]
    if len(hem) < 5:
        return 0, 0.0
    whole = hem[:-1] if dress.sewn.is_legs else np.concatenate((hem, (hem * [-1, 1, 1])[-2:0:-1]))
    middle = whole.mean(axis=0)
    out = np.hypot(whole[:, 0] - middle[0], whole[:, 1] - middle[1])
    twice = np.concatenate((out, out))
    peaks, of = find_peaks(twice, prominence=FOLD)
    half = (peaks >= len(out) // 2) & (peaks < len(out) // 2 + len(out))
    deep = of["prominences"][half]
    return int(half.sum()), 1000 * float(deep.mean()) if len(deep) else 0.0


# her body


def strained(dress: HungDress) -> Numbers:
    """By triangle, how far it is stretched along its warp or its weft, whichever is more (1: twice as long); on the
    bias cloth gives without being tight.
    """
    net = dress.sewn.net
    corners = dress.now[net.triangles]
    weft, warp = (np.einsum("tki,tk->ti", corners, net.slopes[:, :, k]) for k in (0, 1))
    made: Numbers = np.maximum(np.linalg.norm(weft, axis=1), np.linalg.norm(warp, axis=1)) - 1
    return made


def _at_level(dress: HungDress, name: str, height: float, strains: Numbers) -> BodyLevel | None:
    """What is read at a height; None where the cloth does not go round her there, or round her leg."""
    plane = _Plane(np.array([dress.stand.leg_middle(height), 0.0, height / 1000]), np.array([0.0, 0.0, 1.0]))
    on_her = ~np.array([sheet.beside or sheet.is_sleeve for sheet in dress.sewn.sheets])[dress.sewn.sheet_of]
    return _read_round(dress, name, plane, on_her, strains, dress.stand.girth(height))


def _at_arm(dress: HungDress, strains: Numbers) -> BodyLevel | None:
    """What is read round her upper arm; None without a sleeve that reaches so far."""
    arm = dress.stand.left_arm
    if arm is None:
        return None
    place = (arm.start + UPPER_ARM * arm.long * arm.down) / 1000
    is_sleeve = np.array([sheet.is_sleeve for sheet in dress.sewn.sheets])[dress.sewn.sheet_of]
    plane = _Plane(place, arm.down / np.linalg.norm(arm.down))
    return _read_round(dress, "upper arm", plane, is_sleeve, strains, arm.girths[0])


@dataclass(frozen=True)
class _Plane:
    """A plane she is measured in: a place of it in the middle of what is measured (m), and the way out of it."""

    middle: Numbers
    way: Numbers

    def off(self, places: Numbers) -> Numbers:
        made: Numbers = (places - self.middle) @ self.way
        return made

    def turn(self, places: Numbers) -> Numbers:
        """How far round the middle places lie (radians), from the front."""
        aside = np.cross([0.0, 1.0, 0.0], self.way)
        made: Numbers = np.arctan2((places - self.middle) @ aside, (places - self.middle)[:, 1])
        return made


def _read_round(
    dress: HungDress, name: str, plane: _Plane, of: Flags, strains: Numbers, body: float
) -> BodyLevel | None:  # fmt: skip
    """What is read in a plane of some triangles; None where they do not go round, or half round her middle."""
    is_half = abs(plane.middle[0]) < 1e-9
    turns, mm = (np.pi, 2000) if is_half else (2 * np.pi, 1000)
    corners = dress.now[dress.sewn.net.triangles]
    near = (np.abs(plane.off(corners.mean(axis=1))) < BAND) & of
    if not near.any():
        return None
    off = plane.off(corners)
    long, turn = 0.0, 0.0
    for t in np.flatnonzero((off.min(axis=1) <= 0) & (off.max(axis=1) >= 0) & of):
        ends = []
        for k in range(3):
            p, q, a, b = corners[t, k], corners[t, (k + 1) % 3], off[t, k], off[t, (k + 1) % 3]
            if a * b < 0:
                ends.append(p - (q - p) * a / (b - a))
        if len(ends) == 2:
            long += float(np.linalg.norm(ends[1] - ends[0]))
            by = abs(float(np.diff(plane.turn(np.array(ends)))[0]))
            turn += min(by, 2 * np.pi - by)
    if turn < 0.95 * turns:
        return None
    lies = near & (dress.off(dress.now) < CLOSE)
    strain = float(np.quantile(strains[lies], 0.9)) if lies.any() else 0.0
    most = int(np.argmax(np.where(near, strains, -1)))
    where = _where(corners[most].mean(axis=0) - (0.0 if is_half else plane.middle))
    return BodyLevel(name, 1000 * plane.middle[2], mm * long, body, strain, where)


def _where(place: Numbers) -> str:
    """Where round her a place lies, in words."""
    turn = float(np.degrees(np.arctan2(place[0], place[1])))
    return "in front" if turn < 50 else "at the side" if turn < 130 else "behind"


def _neck(dress: HungDress, recipe: Recipe, garment: Garment) -> Gape | None:
    """The neck edge that stands off furthest; None where it lies on her, or a collar stands up from it."""
    found: list[tuple[Gape, Piece, str]] = []
    collars = {p.name for p in garment.pieces if p.what.section is Section.COLLAR}
    stands = [sheet.points for sheet in dress.sewn.sheets if sheet.name in collars]
    with_collar = set(np.concatenate(stands).tolist()) if stands else set()
    for (piece, edge), points in dress.sewn.edges.items():
        if with_collar & set(points.tolist()):  # what stands up from it lies round her neck
            continue
        made = next((p for p in garment.pieces if p.name == piece), None)
        if made is None or made.at_edge(edge) is None or made.edge(edge).role is not Role.NECKLINE or min(points) < 0:
            continue
        places = dress.now[points]
        onto = dress.stand.armless.onto(places)
        off = np.linalg.norm(places - onto, axis=1) * np.sign(dress.stand.armless.far(places))
        long, lies = (float(np.linalg.norm(np.diff(of, axis=0), axis=1).sum()) for of in (places, onto))
        where = _where(places[int(off.argmax())])
        found.append((Gape(NECK, 1000 * float(off.max()), 1000 * max(long - lies, 0.0), where), made, edge))
    worst, piece_of, at = max(found, key=lambda one: one[0].off, default=(None, None, ""))
    if worst is None or piece_of is None or worst.off <= GAPES:
        return None
    is_front = piece_of.what.half is Half.FRONT and worst.wedge > SEEN and dress.sewn.side is None
    return replace(worst, step=pinched(recipe, garment, piece_of.name, at, worst.wedge)) if is_front else worst


def _armhole(dress: HungDress, recipe: Recipe, garment: Garment) -> Gape | None:
    """An armhole without a sleeve that is longer than she is round the arm's joint, as far down as it goes, with the
    room an arm needs; None where it is not, or that was not measured. It is read by the tape and not off her form,
    whose arm's joint no measure shapes.
    """
    girth = recipe.figure.get("armhole_girth")
    if girth is None or any(p.what.is_outer(Section.SLEEVE) or p.what.is_outer(Section.CAPE) for p in garment.pieces):
        return None
    edges = {
        key: points for key, points in dress.sewn.edges.items()
        for made in garment.pieces
        if made.name == key[0] and made.at_edge(key[1]) is not None and made.edge(key[1]).role is Role.ARMHOLE
    }  # fmt: skip
    fronts = [key for key in edges if garment.piece(key[0]).what.half is Half.FRONT]
    if not fronts or len(fronts) == len(edges):
        return None
    places = [dress.now[points] for points in edges.values()]
    high, low = (1000 * float(of(np.concatenate(places)[:, 2])) for of in (np.max, np.min))
    round_it = 1000 * sum(float(np.linalg.norm(np.diff(of, axis=0), axis=1).sum()) for of in places)
    lower = max(high - low - girth / 2, 0.0)  # on either side of it, an armhole that comes down further is longer by it
    much = round_it - girth - 2 * lower - ARM_MOVES
    if much <= GAPES:
        return None
    if much > MOST_WEDGE:
        return Gape(ARMHOLE, much, 0.0, "in front")
    is_one = len(fronts) == 1 and dress.sewn.side is None
    step = pinched(recipe, garment, *fronts[0], much, "armhole") if is_one else None
    return Gape(ARMHOLE, much, much, "in front", step)


def _drag(dress: HungDress, strains: Numbers) -> str:
    """The seam that the most strained cloth lies at; nothing where none is tight."""
    net = dress.sewn.net
    most = int(np.argmax(strains))
    if strains[most] < TIGHT:
        return ""
    place = dress.now[net.triangles[most]].mean(axis=0)
    seams = [(name, float(np.linalg.norm(dress.now[points] - place, axis=1).min())) for name, points in dress.sewn.seams
             if name and len(points)]  # fmt: skip
    return min(seams, key=lambda one: one[1], default=("", 0.0))[0]


def _slid(dress: HungDress) -> float:
    """How far the upper part lies lower than it was put on (mm)."""
    points = [sheet.points for sheet in dress.sewn.sheets if sheet.key[1] < 0]
    if not points:
        return 0.0
    upper = np.unique(np.concatenate(points))
    return 1000 * float((dress.sewn.start - dress.now)[upper, 2].mean())
