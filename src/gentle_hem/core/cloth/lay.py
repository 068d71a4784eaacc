"""The lay: everything that is cut from one cloth placed on it, opened flat, and how much of it that takes.

selvedge ┌──────────────────────────┐
         │  ╭────╮   ╱╲      ┌────┐ │      each piece along the grain; turned end for end
         │  │  1 │  ╱ 2╲     │ 3  │ │      only where the cloth has no way up
         │  ╰────╯ ╱____╲    └────┘ │
selvedge └──────────────────────────┘
         cut end ───► along

Our own placement: the largest first, each as near the cut end as it goes, then as near the selvedge; holes are used. It
is drawn on squares of which a piece takes every one that it touches, so that no two can overlap.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import ceil, pi

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import Polygon
from shapely.affinity import rotate, scale, translate

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import CutPiece, cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.pattern import Piece
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.what import What

SQUARE = 6.0
"""The side of a square of the cloth (mm)."""

APART = 3.0
"""So much at least is left between two pieces, for the shears (mm)."""

JOINED = 10.0
"""What a join between two widths takes of each (mm): common practice."""

STRIP = 0.985
"""What fills so much of its own box is a strip, and may be cut in widths and joined."""

STRAY = 0.4
"""How far a curve may be drawn beside itself for the lay (mm)."""

USUAL_WIDTH = 1400.0
NARROWER = {ClothRole.INTERFACING: 900.0}
"""Between the selvedges where nothing is said, and of which cloths less (mm): common practice."""

Mask = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Placed:
    """One thing on the cloth: its outline in mm, x from the selvedge, y from the cut end."""

    number: int
    name: str
    outline: Polygon
    turned: bool
    """Whether it lies end for end."""

    @property
    def from_selvedge(self) -> float:
        return float(self.outline.bounds[0])

    @property
    def from_cut_end(self) -> float:
        return float(self.outline.bounds[1])


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


@dataclass(frozen=True, slots=True)
class Lay:
    """A cloth laid: how long a stretch of it is taken, what lies where, and what does not go on it."""

    role: ClothRole
    width: float
    length: float
    placed: tuple[Placed, ...]
    joined: tuple[Joined, ...]
    too_wide: tuple[TooWide, ...]

    @property
    def use(self) -> float:
        """The share of the stretch that is pieces."""
        area = sum(one.outline.area for one in self.placed)
        return area / (self.width * self.length) if self.length else 0.0


def lays(garment: Garment, cloth_of: Callable[[ClothRole], Cloth]) -> list[Lay]:
    """Every cloth of a garment laid, opened flat, each as wide as it is said to be or usually is."""
    cut = cut_pieces(garment)
    roles = [role for role in ClothRole if any(one.cloth is role for one in cut)]
    made = []
    for role in roles:
        cloth = cloth_of(role)
        width = cloth.width or NARROWER.get(role, USUAL_WIDTH)
        made.append(lay(garment, role, width, one_way=cloth.nap == "one_way"))
    return made


def to_buy(length: float, unit: Unit) -> str:
    """How much cloth to ask for: metres rounded up to 5 cm, yards rounded up to an eighth."""
    if unit is Unit.CM:
        return f"{ceil(length / 50 - 1e-9) * 0.05:.2f} m"
    eighths = ceil(length / inches(36) * 8 - 1e-9)
    whole, part = divmod(eighths, 8)
    fraction = {0: "", 2: "1/4", 4: "1/2", 6: "3/4"}.get(part, f"{part}/8")
    return " ".join(word for word in (str(whole) if whole or not part else "", fraction) if word) + " yd"


def lay(garment: Garment, role: ClothRole, width: float, *, one_way: bool = False) -> Lay:
    """What is cut from one cloth placed on it, opened flat. ``one_way``: nothing is turned end for end."""
    pieces = {piece.what: piece for piece in garment.pieces}
    things: list[tuple[str, Polygon]] = []
    joined: list[Joined] = []
    too_wide: list[TooWide] = []
    for one in cut_pieces(garment):
        if one.cloth is not role:
            continue
        shape = along_the_grain(one, pieces)
        across = _across(shape)
        if across <= width:
            things.append((one.name, shape))
        elif shape.area > STRIP * shape.envelope.area and width > 4 * JOINED:
            count, parts = in_widths(shape, width)
            joined.append(Joined(one.name, across, count))
            things += [(f"{one.name}, {k} of {count}", part) for k, part in enumerate(parts, 1)]
        else:
            too_wide.append(TooWide(one.name, across))
    orders: list[Callable[[tuple[str, Polygon]], float]] = [
        lambda thing: -thing[1].area, lambda thing: thing[1].bounds[1] - thing[1].bounds[3],
    ]  # fmt: skip
    tried = [_placed(sorted(things, key=order), width, one_way) for order in orders]
    best = min(tried, key=_length)
    names = [name for name, _ in things]
    numbered = sorted(best, key=lambda one: names.index(one.name))
    placed = tuple(Placed(k, one.name, one.outline, one.turned) for k, one in enumerate(numbered, 1))
    return Lay(role, width, _length(placed), placed, tuple(joined), tuple(too_wide))


def in_widths(strip: Polygon, width: float) -> tuple[int, list[Polygon]]:
    """A strip wider than the cloth cut in as few like parts as go on it, each with an allowance where it is joined."""
    across, high = _across(strip), float(strip.bounds[3] - strip.bounds[1])
    count = ceil((across - 2 * JOINED) / (width - 2 * JOINED) - 1e-9)
    each = (across + 2 * JOINED * (count - 1)) / count
    return count, [shapely.box(0, 0, each, high)] * count


def along_the_grain(one: CutPiece, pieces: dict[What, Piece]) -> Polygon:
    """A thing as it is cut, its grain along the cloth: opened out where it is cut on the fold, turned over where it is
    the other half of a pair.
    """
    piece = pieces[one.piece]
    shape = Polygon([tuple(place) for place in piece.cut_line.flatten(STRAY)]).buffer(0)
    if one.on_fold:
        shape = _opened(piece, shape)
    start, end = piece.grain
    grain = np.arctan2(end.y - start.y, end.x - start.x)
    if one.turned_over != piece.turned_over:
        shape, grain = scale(shape, -1, 1, origin=(0, 0)), pi - grain
    turned = rotate(shape, pi / 2 - grain, origin=(0, 0), use_radians=True)
    left, foot, _, _ = turned.bounds
    return translate(turned, -left, -foot)


def _opened(piece: Piece, half: Polygon) -> Polygon:
    """A half and its mirror image over the fold, as one."""
    fold = next(edge.path for edge in piece.edges if edge.role.is_centre and edge.allowance == 0)
    a, b = fold.start, fold.end
    turn = np.arctan2(b.y - a.y, b.x - a.x)
    upright = rotate(half, -turn, origin=(a.x, a.y), use_radians=True)
    other = scale(upright, 1, -1, origin=(a.x, a.y))
    whole = shapely.union(upright.buffer(0.01), other.buffer(0.01)).buffer(-0.01)
    back = rotate(whole, turn, origin=(a.x, a.y), use_radians=True)
    return max(back.geoms, key=lambda part: part.area) if hasattr(back, "geoms") else back


def _across(shape: Polygon) -> float:
    return float(shape.bounds[2] - shape.bounds[0])


def _length(placed: Sequence[Placed]) -> float:
    return max((float(one.outline.bounds[3]) for one in placed), default=0.0)


def _placed(things: Sequence[tuple[str, Polygon]], width: float, one_way: bool) -> list[Placed]:
    """The things in this order, each as near the cut end as it goes, then as near the selvedge."""
    columns = int(width // SQUARE)
    taken = np.zeros((0, columns), dtype=bool)
    placed: list[Placed] = []
    masks: dict[bytes, tuple[Polygon, Mask]] = {}
    for name, shape in things:
        ways = []
        for turned in (False,) if one_way else (False, True):
            lying = rotate(shape, 180) if turned else shape
            left, foot, _, _ = lying.bounds
            lying = translate(lying, -left, -foot)
            key = lying.wkb
            if key not in masks:
                masks[key] = lying, _squares(lying, columns)
            mask = masks[key][1]
            row, column = _first_free(taken, mask)
            ways.append((row + mask.shape[0], row, column, turned, lying, mask))
        _, row, column, turned, lying, mask = min(ways, key=lambda way: way[:4])
        needed = row + mask.shape[0]
        if needed > len(taken):
            taken = np.vstack([taken, np.zeros((needed - len(taken), columns), dtype=bool)])
        taken[row:needed, column : column + mask.shape[1]] |= mask
        wide = _across(lying)
        x = min(column * SQUARE, width - wide)  # the last square of a cloth may be cut by its selvedge
        placed.append(Placed(0, name, translate(lying, x, row * SQUARE), turned))
    return placed


def _squares(shape: Polygon, columns: int) -> Mask:
    """The squares a shape touches, with what is left round it; from its own lower left corner."""
    _, _, right, top = shape.bounds
    wide = min(ceil((right + APART) / SQUARE), columns)
    high = ceil((top + APART) / SQUARE)
    near = shape.buffer(APART + SQUARE * 0.5 * 2**0.5)
    shapely.prepare(near)
    x, y = np.meshgrid((np.arange(wide) + 0.5) * SQUARE, (np.arange(high) + 0.5) * SQUARE)
    made: Mask = shapely.contains_xy(near, x, y)
    return made


def _first_free(taken: Mask, mask: Mask) -> tuple[int, int]:
    """The place nearest the cut end, then the selvedge, where no square of a mask is taken."""
    from scipy.signal import fftconvolve  # here, to keep scipy out of the start

    rows, columns = taken.shape
    high = len(mask)
    if not rows:
        return 0, 0
    room = np.vstack([taken, np.zeros((high, columns), dtype=bool)]).astype(np.float32)
    over = fftconvolve(room, mask[::-1, ::-1].astype(np.float32), mode="valid")
    free = over < 0.5
    row = int(np.argmax(free.any(axis=1)))
    return row, int(np.argmax(free[row]))
