"""Strips cut on the bias: bindings, loops. A long one is cut as several alike, joined to the length that is needed."""

from __future__ import annotations

from math import ceil

from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.seams import Run, Stretch
from gentle_hem.core.what import What
from gentle_hem.core.workings import Worked

LONGEST = 600.0
"""No strip is drawn longer than this (mm): it is cut across the cloth as often as it needs, and joined."""


def bias_strip(what: What, long: float, wide: float, remark: str, *, times: int = 1) -> Piece:
    """A strip cut on the bias, ``long`` when its parts are joined, ``times`` over: its allowances are in its width."""
    parts = max(ceil(long / LONGEST - 1e-9), 1)
    each = long / parts
    a, b, c, d = Point(0, 0), Point(each, 0), Point(each, wide), Point(0, wide)
    edges = (
        Edge("edge", Role.FREE, Path.through(a, b)), Edge("end", Role.FREE, Path.through(b, c)),
        Edge("top", Role.FREE, Path.through(c, d)), Edge("start", Role.FREE, Path.through(d, a)),
    )  # fmt: skip
    reach = 0.35 * min(each, wide)
    middle = Point(each / 2, wide / 2)
    grain = middle - Point(reach, reach), middle + Point(reach, reach)
    joined = f"{remark}; cut on the bias" + (f", {parts} joined to {'each' if times > 1 else 'one'}" * (parts > 1))
    return Piece(what, edges, cut=parts * times, alike=parts * times > 1, remark=joined, grain=grain)


def along_strip(piece: Piece, long: float, called: str, why: Worked) -> Run:
    """So much of a strip's edge, from its start, over as many of its parts as it takes."""
    each = piece.edge("edge").drawn_length
    whole = int(long / each + 1e-9)
    stretches = [Stretch(piece.what, "edge")] * whole
    if long - whole * each > 1e-6:
        stretches.append(Stretch(piece.what, "edge", end=long - whole * each))
    return Run(tuple(stretches), called=called, why=why)
