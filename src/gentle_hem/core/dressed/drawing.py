"""The dress seen from one place, in lines of ink, the farthest first."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cutting.open_out import OTHER
from gentle_hem.core.dressed.details import collar, sleeves, straps, trousers
from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.hanging import Hung
from gentle_hem.core.dressed.inks import Drawn, Ink
from gentle_hem.core.dressed.lines import Lines
from gentle_hem.core.dressed.slices import Numbers
from gentle_hem.core.dressed.surface import Surface
from gentle_hem.core.dressed.upper import ABOVE
from gentle_hem.core.dressed.views import Seen, Spot, Sweep, project, stretches, sweeps
from gentle_hem.core.pattern import Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Half

SHOWS = 12.0
"""The hem behind is drawn where it hangs so far below the one in front (mm)."""

UPPER_EDGE = (Role.NECKLINE, Role.FREE, Role.SHOULDER, Role.ARMHOLE)
"""What bounds the upper part from above, from the centre outward."""

BUTTON = 7.0
"""A button's radius (mm)."""

GATHERS_RUN = (0.5, 0.16, 0.3, 0.22, 0.62, 0.18, 0.36, 0.26)
"""How far down a gathered part its gathers can be followed, by turns."""

DOWN_CENTRE = 0.5
"""A line that lies nearer to the middle than this is the same on both sides (mm)."""


@dataclass(frozen=True)
class _Looked:
    """Lines as they are seen from here, on one side."""

    lines: Lines
    across: Numbers
    height: Numbers
    seen: NDArray[np.bool_]

    def spots(self, first: int, last: int) -> list[Spot]:
        return list(zip(self.across[first:last].tolist(), self.height[first:last].tolist(), strict=True))


def _turned(ink: Ink) -> Ink:
    """A line once more, on the other side of the middle."""
    return replace(ink, spots=tuple((-across, height) for across, height in ink.spots))


class Drawing:
    """One view of a garment put on."""

    def __init__(self, dressing: Dressing, seen: Seen) -> None:
        self.dress, self.seen = dressing, seen
        self.form = dressing.form
        self.facing = {Seen.FRONT: Half.FRONT, Seen.BACK: Half.BACK}.get(seen)
        self._bounds: dict[int, _Looked] = {}

    def inks(self) -> Iterator[Ink]:
        lines = self.form.side_lines() if self.seen is Seen.SIDE else self.form.front_lines()
        for line in lines:
            yield Ink(Drawn.FORM, tuple(line), closed=True)
        hung = list(zip(self.dress.hung, self.dress.hung_lines, strict=True))
        for part, there in sorted((one for one in hung if not one[0].over), key=lambda one: -one[0].below):
            yield from self._part(part, there)
        yield from trousers(self.dress, self.seen)
        arms = self._armholes()
        if self.seen is not Seen.SIDE:
            yield from sleeves(self.dress, self.seen, arms)
        if self.dress.surface is not None:
            near, far = self._necks()
            yield from collar(self.dress, far, Drawn.INSIDE)
            yield from self._upper(self.dress.surface)
            yield from collar(self.dress, near, Drawn.CLOTH)
            yield from straps(self.dress, self.seen)
        if self.seen is Seen.SIDE:
            yield from sleeves(self.dress, self.seen, arms)
        for part, there in hung:
            if part.over:
                yield from self._part(part, there)

    # surfaces

    def _part(self, part: Hung, lines: Sequence[Lines]) -> Iterator[Ink]:
        surface = part.surface
        low, high = part.shares
        half = Half.BACK if (low + high) / 2 > 0.5 else Half.FRONT
        if (low, high) != (0.0, 1.0) and self.facing not in (None, half):
            return
        ways = sweeps(surface, self.seen)
        name = part.patches[0].piece.name
        cloth = Drawn.PAPER if part.patches[0].piece.cloth is ClothRole.PAPER else Drawn.CLOTH
        yield from self._behind(surface, ways)
        yield Ink(cloth, tuple(_outline(ways)), closed=True, piece=name)
        yield from self._folds(surface, ways)
        yield from self._inked(lines, ways)
        for way in ways:
            for run in way.runs(-1):
                yield Ink(Drawn.HEM, tuple(run), piece=name, edge=part.patches[-1].lower[-1])

    def _behind(self, surface: Surface, ways: Sequence[Sweep]) -> Iterator[Ink]:
        """The inside of the cloth behind, where it hangs lower than the cloth in front."""
        behind: list[Spot] = []
        for way in ways:
            half = surface.side(-way.sign if self.seen is Seen.SIDE else way.sign)
            across, height = project(self.seen, half.x[-1], half.y[-1], half.z[-1])
            order = slice(None) if self.seen is Seen.BACK else slice(None, None, -1)
            if self.seen is Seen.SIDE:
                order = slice(None, None, -1 if way.columns[-1] == 0 else 1)
                middle = len(across) // 2
                across, height = (of[: middle + 1] if way.columns[-1] == 0 else of[middle:] for of in (across, height))
            out, height = across[order], height[order]
            seen = out * way.towards >= np.maximum.accumulate(out * way.towards)
            line = list(zip(out[seen].tolist(), height[seen].tolist(), strict=True))
            behind += line if way.towards > 0 else line[::-1]
        in_front = [*ways[0].row(-1)[::-1], *ways[1].row(-1)]
        if min(height for _, height in behind) < min(height for _, height in in_front) - SHOWS:
            yield Ink(Drawn.INSIDE, (*behind, *in_front[::-1]), closed=True)

    def _folds(self, surface: Surface, ways: Sequence[Sweep]) -> Iterator[Ink]:
        found: list[Ink] = []
        for way in ways:
            if way.turned_over:
                yield from [
                    replace(ink, spots=tuple((-across, height) for across, height in ink.spots)) for ink in found
                ]
                continue
            found = [Ink(Drawn.FOLD, tuple(line)) for line in way.folds(surface.phase)]
            if surface.gathered and surface.phase is not None:
                found += self._gathers(surface.phase, way)
            yield from found

    def _gathers(self, phase: Numbers, way: Sweep) -> Iterator[Ink]:
        """Short lines down from a gathered seam, one long and one short by turns."""
        last = int(np.argmax(way.across[0] * way.towards))
        at = phase[way.columns[: last + 1]]
        numbers = np.arange(np.ceil(at.min() * 2), at.max() * 2 + 1)
        columns = np.abs(at[None, :] - numbers[:, None] / 2).argmin(axis=1).tolist()
        for number, column in zip(numbers.astype(int).tolist(), columns, strict=True):
            deep = max(2, round(way.across.shape[0] * GATHERS_RUN[number % len(GATHERS_RUN)]))
            seen = way.visible[:deep, column]
            rows = deep if seen.all() else int(np.argmin(seen))
            if rows > 1:
                across, height = way.across[:rows, column].tolist(), way.height[:rows, column].tolist()
                yield Ink(Drawn.FOLD, tuple(zip(across[::-1], height[::-1], strict=True)))

    def _look(self, lines: Lines, sign: int, way: Sweep | None = None) -> _Looked:
        """Lines on one side as they are seen, and which of their places are in sight of a way outward."""
        across, height = project(self.seen, sign * lines.x, lines.y, lines.z)
        if way is None:
            return _Looked(lines, across, height, np.zeros(len(across), dtype=bool))
        step = 1 if way.columns[-1] > way.columns[0] else -1
        place = np.round((lines.columns - way.columns[0]) * step).astype(int)
        row = np.minimum(np.round(lines.rows).astype(int), way.visible.shape[0] - 1)
        last = len(way.columns) - 1
        seen = (place >= 0) & (place <= last) & way.visible[row, np.minimum(np.maximum(place, 0), last)]
        return _Looked(lines, across, height, seen)

    def _inked(self, all_lines: Sequence[Lines], ways: Sequence[Sweep]) -> Iterator[Ink]:
        """The lines that can be seen."""
        down_centre: dict[tuple[Drawn, str], int] = {}
        """Lines of either side that lie down the centre, and of which side they were drawn: once is enough."""
        for lines in all_lines:
            beside: list[Ink] = []  # what is on one side alone, and so once more on the other
            for k, way in enumerate(ways):
                if way.sign not in lines.signs:
                    continue
                if way.turned_over and len(lines.signs) > 1:
                    yield from (_turned(ink) for ink in beside)
                    continue
                looked = self._look(lines, way.sign, way)
                for line in lines.lines:
                    if line.drawn is None:
                        continue
                    part = slice(line.first, line.last)
                    if line.drawn is Drawn.BUTTON:
                        if k == 0 and self.facing is line.half:
                            yield self._button(looked, part)
                        continue
                    shared = bool((lines.x[part] < DOWN_CENTRE).all())
                    if k and shared and ways[0].sign != way.sign and ways[0].sign in lines.signs:
                        continue
                    if (
                        shared
                        and down_centre.setdefault((line.drawn, line.edge.removesuffix(OTHER)), way.sign) != way.sign
                    ):
                        continue
                    for first, last in stretches(looked.seen[part]):
                        spots = tuple(looked.spots(line.first + first, line.first + last))
                        ink = Ink(line.drawn, spots, piece=line.piece, edge=line.edge)
                        if not shared:
                            beside.append(ink)
                        yield ink

    def _button(self, looked: _Looked, part: slice) -> Ink:
        height, turn = float(looked.height[part].mean()), np.linspace(0, 2 * np.pi, 13)
        return Ink(
            Drawn.BUTTON,
            tuple((BUTTON * float(np.cos(t)), height + BUTTON * float(np.sin(t))) for t in turn), closed=True,
        )  # fmt: skip

    # the upper part

    def _upper(self, surface: Surface) -> Iterator[Ink]:
        ways = sweeps(surface, self.seen)
        paper = all(p.cloth is ClothRole.PAPER for u in self.dress.uppers.values() for h in u.halves.values()
                    for p in h.pieces.values())  # fmt: skip
        cloth = Drawn.PAPER if paper else Drawn.CLOTH
        name = next(p.name for h in self.dress.uppers[1].halves.values() for p in h.pieces.values())
        if not paper:
            if not any(not part.over for part in self.dress.hung):
                yield from self._behind(surface, ways)
            yield from self._far_side()
        yield Ink(cloth, tuple(self._upper_outline(ways)), closed=True, piece=name)
        if self.seen is Seen.SIDE:
            yield from self._armhole()
        yield from self._folds(surface, ways)
        yield from self._inked(self.dress.lines, ways)
        for way in ways:
            for run in way.runs(-1):
                yield Ink(Drawn.HEM, tuple(run), False, *self.dress.foot_edge)

    def _chain(self, half: Half, sign: int, roles: Sequence[Role]) -> list[Spot]:
        """The edges that bound a half from above, from the centre outward, as they are seen."""
        looked = self._bounds.get(sign)
        if looked is None:
            lines = next(lines for lines in self.dress.lines if sign in lines.signs)
            looked = self._bounds[sign] = self._look(lines, sign)
        spots: list[Spot] = []
        for role in roles:
            found = []
            for line in looked.lines.lines:
                if line.role is not role or line.half is not half:
                    continue
                part = slice(line.first, line.last)
                share, z = looked.lines.shares[part], looked.lines.z[part]
                outward = share if half is Half.FRONT else 1 - share
                down = role is Role.ARMHOLE
                there = looked.spots(line.first, line.last)
                backwards = z[0] < z[-1] if down else outward[0] > outward[-1]
                place = -float(z.mean()) if down else float(outward.mean())
                found.append((place, there[::-1] if backwards else there))
            for _, there in sorted(found, key=lambda one: one[0]):
                spots += there
        return spots

    def _upper_outline(self, ways: Sequence[Sweep]) -> list[Spot]:
        if self.seen is Seen.SIDE:
            front, back = (self._chain(half, -1, UPPER_EDGE[:2]) for half in Half)
            return _closed_by(ways, front + back[::-1])
        assert self.facing is not None
        left, right = (self._chain(self.facing, way.sign, UPPER_EDGE) for way in ways)
        return _closed_by(ways, list(reversed(left)) + right)

    def _far_side(self) -> Iterator[Ink]:
        """The half behind, seen past the neck in front."""
        if self.facing is None:
            return
        other = Half.BACK if self.facing is Half.FRONT else Half.FRONT
        spots: list[Spot] = []
        for sign in (-1, 1) if self.seen is Seen.FRONT else (1, -1):
            line = self._chain(other, sign, UPPER_EDGE)
            spots += list(reversed(line)) if not spots else line
        if len(spots) > 3:
            yield Ink(Drawn.INSIDE, tuple(spots), closed=True)

    def _armholes(self) -> dict[int, list[Spot]]:
        """The armholes as they are seen, from the shoulder tip down."""
        if self.dress.surface is None:
            return {}
        if self.facing is None:
            both = [self._chain(half, -1, (Role.ARMHOLE,)) for half in Half]
            return {-1: both[0] + both[1][::-1]} if all(both) else {}
        return {
            sign: line for sign in self.dress.uppers if (line := self._chain(self.facing, sign, (Role.ARMHOLE,)))
        }  # fmt: skip

    def _necks(self) -> tuple[list[Spot], list[Spot]]:
        """The neck edge that is near, from left to right, and the one beyond."""
        roles = (Role.NECKLINE,)
        if self.facing is None:
            return self._chain(Half.FRONT, -1, roles) + self._chain(Half.BACK, -1, roles)[::-1], []
        made = []
        for half in (self.facing, Half.BACK if self.facing is Half.FRONT else Half.FRONT):
            first, second = (-1, 1) if self.seen is Seen.FRONT else (1, -1)
            line = self._chain(half, first, roles)[::-1]
            made.append(line + self._chain(half, second, roles))
        return made[0], made[1]

    def _armhole(self) -> Iterator[Ink]:
        front, back = (self._chain(half, -1, (Role.ARMHOLE,)) for half in Half)
        if front and back:
            yield Ink(Drawn.INSIDE, tuple(front + list(reversed(back))), closed=True, edge="armhole")


def _outline(ways: Sequence[Sweep]) -> list[Spot]:
    """Round what is seen of a surface."""
    left, right = ways
    top = [*reversed(left.row(0)), *right.row(0)]
    return [*top, *right.outline(), *reversed(right.row(-1)), *left.row(-1), *reversed(left.outline())]


def _closed_by(ways: Sequence[Sweep], top: list[Spot]) -> list[Spot]:
    """An upper edge closed by the outline from the underarm, or the end of that edge, down."""
    left, right = ways
    if not top:
        return _outline(ways)
    down_right = [spot for spot in right.outline()[ABOVE:] if spot[1] <= top[-1][1] + 1]
    down_left = [spot for spot in left.outline()[ABOVE:] if spot[1] <= top[0][1] + 1]
    return [*top, *down_right, *reversed(right.row(-1)), *left.row(-1), *reversed(down_left)]
