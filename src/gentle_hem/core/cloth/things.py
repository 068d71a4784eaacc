"""What is laid on one cloth: everything that is cut from it, each as it is cut, its grain along the cloth.

piece on the fold ──► opened out        pair ──► the paper, and the paper turned over
strip too wide    ──► in widths, joined           bias ──► its grain at 45°
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from math import ceil, pi

import numpy as np
import shapely
from shapely import Point, Polygon
from shapely.affinity import rotate, scale, translate

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import CutPiece, cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.pattern import Piece
from gentle_hem.core.what import What

JOINED = 10.0
"""What a join between two widths takes of each (mm): common practice."""

STRIP = 0.985
"""What fills so much of its own box is a strip, and may be cut in widths and joined."""

STRAY = 0.4
"""How far a curve may be drawn beside itself for the lay (mm)."""


class Lie(StrEnum):
    """How a thing lies to the grain of the cloth."""

    ALONG = "along the grain"
    BIAS = "on the bias"
    CROSSWISE = "crosswise"


TURNS = {Lie.ALONG: 0.0, Lie.BIAS: -45.0, Lie.CROSSWISE: -90.0}
"""How far the grain drawn on the paper is turned from the cloth's own (degrees)."""


@dataclass(frozen=True, slots=True)
class Anchor:
    """A place of a thing that must fall on a print: where it is, and where on the repeat (mm) it is to fall."""

    x: float
    y: float
    across: float | None = None
    """How far from where the repeat begins across the cloth; None: anywhere."""
    along: float | None = None


@dataclass(frozen=True, slots=True)
class Thing:
    """One thing to be laid: its outline, its lower left corner at (0, 0), x across the cloth and y along it (mm)."""

    name: str
    shape: Polygon
    anchor: Anchor | None = None
    on_border: bool = False
    """Whether its left, which is its hem, lies on the selvedge that has the border."""


@dataclass(frozen=True, slots=True)
class TooWide:
    """A piece that goes on this cloth in no way its grain allows, and how wide it is (mm)."""

    name: str
    across: float


@dataclass(frozen=True, slots=True)
class Joined:
    """A strip that is wider than the cloth, and in how many widths of it that is cut and joined."""

    name: str
    across: float
    widths: int


class Why(StrEnum):
    """Why a print, a border or a pin cannot be kept to."""

    BENT = "its hem bends by {by}, and a border is straight"
    TOO_LONG = "with its hem on the border it reaches {by} across, and the cloth is not so wide"
    GONE = "it was pinned, and is not cut from this cloth any more; its pin holds nothing"
    FOLDED = "on folded cloth the layer below is not seen; lay it opened flat to match it or to lie on the border"
    APART = "the print misses by {by} over it, as its pieces are matched over their other seams already"


@dataclass(frozen=True, slots=True)
class Unmatched:
    """A piece or a seam that a print, a border or a pin cannot be kept to, and by how much (mm)."""

    name: str
    why: Why
    by: float


@dataclass(frozen=True, slots=True)
class Cornered:
    """A piece that is wider than the cloth, with corners joined on: how many, and how far its joins lie from its
    middle, where it is whole, or else from its other side (mm).
    """

    name: str
    corners: int
    join: float
    from_middle: bool


@dataclass(frozen=True, slots=True)
class OnCloth:
    """Everything that is cut from one cloth: what is laid, which strips were cut in widths, what does not go on it."""

    things: tuple[Thing, ...]
    joined: tuple[Joined, ...] = ()
    too_wide: tuple[TooWide, ...] = ()
    refused: tuple[Unmatched, ...] = ()
    cornered: tuple[Cornered, ...] = ()


def on_cloth(
    garment: Garment, role: ClothRole, width: float, lies: Mapping[str, Lie] | None = None, *, corners: bool = False
) -> OnCloth:
    """Everything cut from one cloth of a usable width (mm). ``lies``: what does not lie along the grain, by name;
    ``corners``: what is too wide has its corners cut apart and joined on.
    """
    cut = [one for one in cut_pieces(garment) if one.cloth is role]
    return laid_one_by_one(cut, garment, width, lies or {}, corners=corners)


def laid_one_by_one(
    cut: Iterable[CutPiece], garment: Garment, width: float, lies: Mapping[str, Lie], *, corners: bool
) -> OnCloth:
    """Things that are cut from one layer of cloth, each as wide as it is, in widths, or with corners joined on."""
    pieces = {piece.what: piece for piece in garment.pieces}
    things: list[Thing] = []
    joined: list[Joined] = []
    too_wide: list[TooWide] = []
    cornered: list[Cornered] = []
    for one in cut:
        shape = as_it_lies(one, pieces[one.piece], lies.get(one.name, Lie.ALONG))
        across = across_of(shape)
        if across <= width:
            things.append(Thing(one.name, shape))
        elif is_strip(shape) and width > 4 * JOINED:
            count, parts = in_widths(shape, width)
            joined.append(Joined(one.name, across, count))
            things += [Thing(f"{one.name}, {k} of {count}", part) for k, part in enumerate(parts, 1)]
        elif corners and (parted := with_corners(one, shape, width)):
            things += parted[0]
            cornered.append(parted[1])
        else:
            too_wide.append(TooWide(one.name, across))
    return OnCloth(tuple(things), tuple(joined), tuple(too_wide), cornered=tuple(cornered))


def with_corners(one: CutPiece, shape: Polygon, width: float) -> tuple[list[Thing], Cornered] | None:
    """A thing wider than the cloth with what is over cut apart along the grain, an allowance on both sides of every
    join: on either side of one that is opened out, else on the side where less is cut off. None where a corner would
    be wider than the cloth itself, or what is left would fall apart.
    """
    across, high = across_of(shape), float(shape.bounds[3])

    def between(left: float, right: float) -> list[Polygon]:
        part = shape.intersection(shapely.box(left, -1, right, high + 1))
        parts = getattr(part, "geoms", [part])
        return [one for one in parts if isinstance(one, Polygon) and one.area > 1]

    if one.on_fold:
        at = (across - width) / 2 + JOINED
        main = between(at - JOINED, across - at + JOINED)
        off = between(0, at + JOINED) + between(across - at - JOINED, across)
        cornered = Cornered(one.name, len(off), across / 2 - at, from_middle=True)
    else:
        at = width - JOINED
        sides = [(between(0, width), between(at - JOINED, across)),
                 (between(across - width, across), between(0, across - at + JOINED))]  # fmt: skip
        main, off = min(sides, key=lambda side: sum(part.area for part in side[1]))
        cornered = Cornered(one.name, len(off), at, from_middle=False)
    if len(main) != 1 or not off or max(across_of(part) for part in off) > width:
        return None
    named = [(one.name, main[0]), *((f"{one.name}, corner {k}", part) for k, part in enumerate(off, 1))]
    return [Thing(name, translate(part, -part.bounds[0], -part.bounds[1])) for name, part in named], cornered


def is_strip(shape: Polygon) -> bool:
    """Whether a shape is so nearly a rectangle that it may be cut in widths."""
    return bool(shape.area > STRIP * shape.envelope.area)


def in_widths(strip: Polygon, width: float) -> tuple[int, list[Polygon]]:
    """A strip wider than the cloth cut in as few like parts as go on it, each with an allowance where it is joined."""
    across, high = across_of(strip), float(strip.bounds[3] - strip.bounds[1])
    count = ceil((across - 2 * JOINED) / (width - 2 * JOINED) - 1e-9)
    each = (across + 2 * JOINED * (count - 1)) / count
    return count, [shapely.box(0, 0, each, high)] * count


@dataclass(frozen=True, slots=True)
class Lying:
    """How the paper of a piece is brought onto the cloth: mirrored or not, turned, and moved."""

    mirrored: bool
    turn: float
    """Radians, about the paper's own zero, after it is mirrored."""
    dx: float
    dy: float

    def place(self, x: float, y: float) -> tuple[float, float]:
        """Where a place of the paper comes to lie."""
        point = rotate(Point(-x if self.mirrored else x, y), self.turn, origin=(0, 0), use_radians=True)
        return float(point.x + self.dx), float(point.y + self.dy)


def as_it_lies(one: CutPiece, piece: Piece, lie: Lie = Lie.ALONG) -> Polygon:
    """A thing as it is cut, its grain along the cloth: opened out where it is cut on the fold, turned over where it is
    the other half of a pair; its lower left corner at (0, 0).
    """
    return laid_down(one, piece, lie)[0]


def laid_down(one: CutPiece, piece: Piece, lie: Lie = Lie.ALONG) -> tuple[Polygon, Lying]:
    """The same, and how the paper came there."""
    shape = paper_of(piece)
    if one.on_fold:
        shape = opened(piece, shape)
    start, end = piece.grain
    grain = np.arctan2(end.y - start.y, end.x - start.x)
    mirrored = one.turned_over != piece.turned_over
    if mirrored:
        shape, grain = scale(shape, -1, 1, origin=(0, 0)), pi - grain
    turn = float(pi / 2 - grain + np.radians(TURNS[lie]))
    turned = rotate(shape, turn, origin=(0, 0), use_radians=True)
    left, foot, _, _ = turned.bounds
    return translate(turned, -left, -foot), Lying(mirrored, turn, -left, -foot)


def paper_of(piece: Piece) -> Polygon:
    """The cut line of a piece as it is drawn."""
    return Polygon([tuple(place) for place in piece.cut_line.flatten(STRAY)]).buffer(0)


def opened(piece: Piece, half: Polygon) -> Polygon:
    """A half and its mirror image over the fold, as one."""
    fold = fold_of(piece)
    a, b = fold
    turn = np.arctan2(b[1] - a[1], b[0] - a[0])
    upright = rotate(half, -turn, origin=a, use_radians=True)
    other = scale(upright, 1, -1, origin=a)
    whole = shapely.union(upright.buffer(0.01), other.buffer(0.01)).buffer(-0.01)
    back = rotate(whole, turn, origin=a, use_radians=True)
    return max(back.geoms, key=lambda part: part.area) if hasattr(back, "geoms") else back


def fold_of(piece: Piece) -> tuple[tuple[float, float], tuple[float, float]]:
    """The two ends of the fold of a piece that is drawn as its half."""
    assert piece.fold is not None
    path = piece.fold.path
    return (path.start.x, path.start.y), (path.end.x, path.end.y)


def across_of(shape: Polygon) -> float:
    """How far a shape reaches across the cloth (mm)."""
    return float(shape.bounds[2] - shape.bounds[0])


def of_piece(garment: Garment, name: str) -> tuple[CutPiece, Piece]:
    """The thing of this name and the piece it is cut from; KeyError where there is none."""
    pieces: dict[What, Piece] = {piece.what: piece for piece in garment.pieces}
    for one in cut_pieces(garment):
        if one.name == name:
            return one, pieces[one.piece]
    raise KeyError(name)
