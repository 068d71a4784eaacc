"""Two states of one dress laid over each other: every piece that is another, and by how much each of its edges is.

Pieces of both are drawn where the draft puts them, so what has not been moved lies on itself.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from gentle_hem.core.garment import Garment
from gentle_hem.core.pattern import Piece

SAME = 0.05
"""Outlines and lengths nearer than this (mm) are the same."""


@dataclass(frozen=True, slots=True)
class EdgeThen:
    """An edge's length as it is sewn, before and now (mm); None where it is not there."""

    name: str
    before: float | None
    now: float | None

    @property
    def difference(self) -> float | None:
        """By how much it is longer now; None where it was not there, or is not."""
        return None if self.before is None or self.now is None else self.now - self.before


@dataclass(frozen=True, slots=True)
class PieceThen:
    """A piece before and now; one of them is None where it is new, or is no more."""

    name: str
    before: Piece | None
    now: Piece | None
    edges: tuple[EdgeThen, ...]


@dataclass(frozen=True, slots=True)
class Overlaid:
    """The pieces that are another, and how many are the same."""

    changed: tuple[PieceThen, ...]
    same: int


def overlaid(before: Garment, now: Garment) -> Overlaid:
    """What of a dress is another than it was."""
    then, there = ({piece.what: piece for piece in made.pieces} for made in (before, now))
    pairs = [(then.get(what), there.get(what)) for what in dict.fromkeys([*there, *then])]
    changed = tuple(_piece(was, is_) for was, is_ in pairs if was is None or is_ is None or _moved(was, is_))
    return Overlaid(changed, len(pairs) - len(changed))


def _moved(before: Piece, now: Piece) -> bool:
    """Whether a piece is drawn otherwise than it was."""
    if [edge.name for edge in before.edges] != [edge.name for edge in now.edges]:
        return True
    if before.cut_line.box != now.cut_line.box and any(
        abs(a - b) > SAME for a, b in zip(before.cut_line.box, now.cut_line.box, strict=True)
    ):
        return True
    return any(
        one.path.point_at(one.path.length * share).distance(other.path.point_at(other.path.length * share)) > SAME
        for one, other in zip(before.edges, now.edges, strict=True)
        for share in (0.0, 0.25, 0.5, 0.75, 1.0)
    ) or any(one.intake != other.intake for one, other in zip(before.darts, now.darts, strict=False))


def _piece(before: Piece | None, now: Piece | None) -> PieceThen:
    either = now or before
    assert either is not None
    return PieceThen(either.name, before, now, tuple(_edges(before, now)))


def _edges(before: Piece | None, now: Piece | None) -> Iterator[EdgeThen]:
    was, is_ = (
        {edge.name: piece.stitched_length(edge.name) for edge in piece.edges} if piece else {}
        for piece in (before, now)
    )
    for name in dict.fromkeys([*is_, *was]):
        edge = EdgeThen(name, was.get(name), is_.get(name))
        if edge.difference is None or abs(edge.difference) > SAME:
            yield edge
