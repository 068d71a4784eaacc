"""Shapes that a block should not have, each said with what to do (trade 4.4, 4.5, 4.8).

armhole   so large for its bust that it gapes        pinch a wedge out of it, or raise it
side      so short that the arm lifts the dress      raise the armhole
dart      so wide that no pressing hides it          take it in two, or give some of it to the side
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, warn
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.what import Half

MOST_ARMHOLE = 0.52
"""An armhole is usually 0.40-0.50 of the bust girth: from memory. A larger one gapes."""

LEAST_SIDE = 75.0
"""A bodice side shorter than this lifts with the arm (mm): from memory."""

WIDEST_WAIST_DART = 60.0
"""A waist dart wider than this puckers at its point and is taken in two (mm): from memory."""

MOST_WEDGE = 38.0
"""Up to 1½ in is pinched out of an armhole: common practice (trade 4.4)."""


def looked_over(
    pieces: Iterable[Piece], figure: Figure, taste: bool, pinched: Callable[[float], dict[str, Any]]
) -> list[Finding]:
    """What a cutter would say of a drafted bodice's shape. ``taste``: whether its block has words for the armhole;
    ``pinched`` is the change of the recipe that takes so much out of the front armhole.
    """
    pieces = list(pieces)
    found = [*_armhole(pieces, figure, taste, pinched)]
    for piece in pieces:
        for edge in piece.edges:
            if edge.role is Role.SIDE and piece.stitched_length(edge.name) < LEAST_SIDE:
                found.append(
                    warn(
                        "side-too-short",
                        "The side of the {piece} is only {side} long, and the dress would lift with the arm: raise the "
                        "armhole, or measure the waist lengths again.",
                        Place(piece=piece.name, edge=edge.name),
                        *in_recipe(*(("bodice.armhole_lower",) if taste else ())),
                        piece=piece.name, side=piece.stitched_length(edge.name),
                    )
                )  # fmt: skip
        for dart in piece.darts_of("waist"):
            if not dart.pleat and dart.intake > WIDEST_WAIST_DART:
                found.append(
                    warn(
                        "dart-too-wide",
                        "The waist dart of the {piece} takes {intake}, and a dart of more than {most} puckers at its "
                        "point: give some of it to the side, or take it in a princess seam.",
                        Place(piece=piece.name, edge=dart.edge), piece=piece.name, intake=dart.intake,
                        most=WIDEST_WAIST_DART,
                    )
                )  # fmt: skip
    return found


def _armhole(
    pieces: list[Piece], figure: Figure, taste: bool, pinched: Callable[[float], dict[str, Any]]
) -> list[Finding]:
    bust = figure.get("bust_girth")
    halves = {piece.what.half for piece in pieces for edge in piece.edges if edge.role is Role.ARMHOLE}
    if bust is None or halves != set(Half):
        return []
    hole = sum(p.stitched_length(e.name) for p in pieces for e in p.edges if e.role is Role.ARMHOLE)
    over = hole - MOST_ARMHOLE * bust
    if over <= 0:
        return []
    wedge = min(over, MOST_WEDGE)
    ways = [Remedy("wedge", "Pinch {wedge} out of the front armhole", pinched(wedge), "", {"wedge": wedge})]
    if taste:
        ways.append(Remedy("raise", "Raise the armhole by {up}", {"bodice.armhole_lower": -20.0}, values={"up": 20.0}))
    return [
        warn(
            "armhole-too-large",
            "The armhole measures {hole} round, {share} of the bust; more than about a half gapes at the front. Pinch "
            "a wedge out of it towards the bust point, or raise it.",
            *in_recipe("steps"), remedies=tuple(ways), hole=hole, share=f"{hole / bust:.2f}",
        )
    ]  # fmt: skip
