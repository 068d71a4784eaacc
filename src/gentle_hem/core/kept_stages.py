"""What the first stages of the last few garments came to, so that only what was changed is made again while typing.

    the same block, measures, allowances … ──► the same bodice, its workings, and which measures it asked for

A stage is a pure function, so a kept one is as good as one made anew; what it wrote in the margin is written again.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from gentle_hem.core.figure import MeasureKey, WatchedFigure
from gentle_hem.core.workings import Working, Workings

Made = TypeVar("Made")

MOST = 12
"""So many are kept: a garment being typed, its neighbours and its previews."""


@dataclass(frozen=True, slots=True)
class _Kept:
    stage: str
    given: tuple[Any, ...]
    made: Any
    lines: tuple[Working, ...]
    asked: frozenset[MeasureKey]


_kept: tuple[_Kept, ...] = ()
"""The newest first. It is replaced whole, never changed, so that two threads may look and keep at once."""


def once(
    stage: str, given: tuple[Any, ...], figure: WatchedFigure, notes: Workings, work: Callable[[Workings], Made]
) -> Made:
    """What ``work`` makes of what is ``given``: made before, if that was kept, or made now. ``work`` is handed the
    margin to write in, and asks the figure, which is part of what is given whether it is named there or not.
    """
    global _kept
    given = (figure.as_taken, *given)
    for kept in _kept:
        if kept.stage == stage and kept.given == given:
            notes.lines.extend(kept.lines)
            figure.asked_for(kept.asked)
            made: Made = kept.made
            return made
    before = figure.begin_anew()
    own = Workings(topic=notes.topic)
    try:
        made = work(own)
    finally:
        asked = figure.begin_anew()
        figure.asked_for(before | asked)
        notes.lines.extend(own.lines)
    _kept = (_Kept(stage, given, made, tuple(own.lines), asked), *_kept[: MOST - 1])
    return made


def forget() -> None:
    """Keep nothing: for measuring how long a whole garment takes."""
    global _kept
    _kept = ()
