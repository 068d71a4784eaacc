"""Seams of cuts: both sides unrolled, and which places of them lie on each other.

a   ├──┬──┬──┤├──┬──┬──┬──┤      both sides have the same points between the places where stretches and darts
b   ├───┬───┬───┤├──┬──┬──┤      begin and end; where two of those lie near each other they are one
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from gentle_hem.core.hang.cuts import HAIR, Cut
from gentle_hem.core.join import closed, opened
from gentle_hem.core.seams import Stretch
from gentle_hem.core.walk import Walked

SAME = 6.0
"""Breaks of two sides of a seam that lie nearer along it are one place (mm)."""

THERE = 0.5
"""Ties that lie nearer are one (mm)."""


@dataclass(frozen=True)
class Spot:
    """A place on the edge of a cut."""

    cut: Cut
    edge: str
    at: float

    @property
    def point(self) -> int | None:
        """The point it has become; None where it was cut off beyond the centre."""
        return self.cut.ids.get((self.edge, self.at))


class Side:
    """One side of a seam, unrolled: stretches of cuts end to end, darts closed."""

    def __init__(self, parts: Sequence[tuple[Cut, Stretch]]) -> None:
        self._parts: list[tuple[Cut, Stretch, float, float, float]] = []
        self.breaks = [0.0]
        """Where stretches end, and where darts close (mm)."""
        start = 0.0
        for cut, stretch in parts:
            path, darts = cut.piece.edge(stretch.edge).path, cut.piece.darts_of(stretch.edge)
            end = path.length if stretch.end is None else min(stretch.end, path.length)
            low, high = closed(stretch.start, darts), closed(end, darts)
            self._parts.append((cut, stretch, start, low, high))
            for at in (closed(dart.at, darts) for dart in darts):
                if low + 1 < at < high - 1:
                    self.breaks.append(start + (high - at if stretch.backwards else at - low))
            start += high - low
            self.breaks.append(start)
        self.breaks.sort()
        self.length = start

    @property
    def cuts(self) -> list[Cut]:
        """What it runs along."""
        return [cut for cut, *_ in self._parts]

    def spots(self, along: float) -> list[Spot]:
        """The places that lie at a length along it: two where a dart closes or stretches meet."""
        found = []
        for cut, stretch, start, low, high in self._parts:
            inside = along - start
            if not -1e-6 <= inside <= high - low + 1e-6:
                continue
            at = min(max(high - inside if stretch.backwards else low + inside, low), high)
            darts = cut.piece.darts_of(stretch.edge)
            dart = next((d for d in darts if abs(closed(d.at, darts) - at) < HAIR), None)
            places = [opened(at, darts)] if dart is None else [dart.at, dart.at + dart.intake]
            long = cut.piece.edge(stretch.edge).path.length
            found += [Spot(cut, stretch.edge, cut.at(stretch.edge, min(max(p, 0.0), long))) for p in places]
        return found


def _rising(ties: Iterable[tuple[float, float]]) -> list[tuple[float, float]]:
    """Ties in order, without those that would run back."""
    made: list[tuple[float, float]] = []
    for tie in sorted(ties):
        if not made or (tie[0] > made[-1][0] + THERE and tie[1] > made[-1][1] + THERE):
            made.append(tie)
    return made


def ties(one: Side, other: Side, walked: Walked | None) -> list[tuple[float, float]]:
    """The places of two sides that lie on each other: their ends, what is named on both, and wherever either has a
    break.
    """
    end = (one.length, other.length)
    made = [(0.0, 0.0)]
    if walked is not None:
        for mark in walked.upper.landmarks[1:-1]:
            at = walked.lower.at(mark.name) if mark.name else None
            if at is not None:
                made.append((mark.at / walked.upper.length * one.length, at / walked.lower.length * other.length))
    made = [tie for tie in _rising(made) if tie[0] < end[0] - THERE and tie[1] < end[1] - THERE] + [end]
    full = max(other.length / max(one.length, 1e-9), 1.0)
    for s in one.breaks:
        near = min(made, key=lambda tie: abs(tie[0] - s))
        if abs(near[0] - s) < SAME:
            made[made.index(near)] = (s, near[1])
            continue
        there = float(np.interp(s, [a for a, _ in made], [b for _, b in made]))
        made = sorted([*made, (s, there)])
    for s in other.breaks:
        near = min(made, key=lambda tie: abs(tie[1] - s))
        if abs(near[1] - s) < SAME * full:
            made[made.index(near)] = (near[0], s)
            continue
        there = float(np.interp(s, [b for _, b in made], [a for a, _ in made]))
        made = sorted([*made, (there, s)])
    return made
