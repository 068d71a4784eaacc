"""The drawn dress as paths, and dress.svg: front, side and back beside each other, a tenth of life.

front          side           back        one group each, class "view"; every line says what it is, and the piece
 ▟▙             ▟▌             ▟▙         and edge it stands for (data-piece, data-edge)
▟██▙           ▟█▌            ▟██▙
─────────────────────────────────────     the levels are groups of class "level": how high, how long round, and
                                          the slice itself as a closed path in mm
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import hypot
from typing import Any
from xml.sax.saxutils import escape, quoteattr

import numpy as np
import shapely

from gentle_hem.core.dressed import DrawnDress, Seen
from gentle_hem.core.dressed.inks import Drawn, Ink
from gentle_hem.core.dressed.views import Spot

FINE, COARSE = 0.6, 4.0
"""How far a drawn line may stray from the one that was worked out: on the bench, and in small (mm)."""

FOLD_WIDTH = 5.5
"""How wide a fold line ends at its foot; it begins as nothing (mm)."""

GAP = 120.0
SCALE = 0.1

STYLE = """
    .form { fill: #e4dac7; }
    .cloth { fill: #fffdf8; stroke: #2a2520; stroke-width: 6; }
    .inside { fill: #e4dac7; stroke: #2a2520; stroke-width: 4; }
    .paper { fill: none; stroke: #63594b; stroke-width: 4; stroke-dasharray: 14 9; }
    .seam, .dart, .mark { fill: none; stroke: #2a2520; stroke-width: 3; }
    .hem { fill: none; stroke: #2a2520; stroke-width: 6; }
    .zip { fill: none; stroke: #2a2520; stroke-width: 6; stroke-dasharray: 3 6; }
    .fold, .button { fill: #2a2520; }
    .level, .floor { fill: none; stroke: #8d8069; stroke-width: 3; }
    .level path { display: none; }
    path { stroke-linejoin: round; stroke-linecap: round; }
"""


@dataclass(frozen=True, slots=True)
class DressPath:
    """One line as SVG draws it, y down: what it is, its path, and what it stands for."""

    drawn: str
    d: str
    piece: str
    edge: str
    colour: str = ""
    """Of cloth: its colour, where it has one."""


def dress_paths(dress: DrawnDress, seen: Seen, stray: float = FINE) -> list[DressPath]:
    """The lines of a view in order, the farthest first."""
    inks = dress.views[seen]
    drawn = [(ink, _tapered(ink.spots) if ink.drawn is Drawn.FOLD else ink.spots) for ink in inks if len(ink.spots) > 1]
    if not drawn:
        return []
    places = np.concatenate([spots for _, spots in drawn])
    which = np.repeat(np.arange(len(drawn)), [len(spots) for _, spots in drawn])
    lines = shapely.simplify(shapely.linestrings(places, indices=which), stray, preserve_topology=False)
    kept, of_line = shapely.get_coordinates(lines, return_index=True)
    ends = np.searchsorted(of_line, np.arange(len(drawn) + 1)).tolist()
    texts = [f"{x} {-y}" for x, y in np.rint(kept).astype(int).tolist()]
    return [
        DressPath(
            ink.drawn.value,
            "M" + "L".join(texts[ends[k] : ends[k + 1]]) + ("Z" if ink.closed or ink.drawn is Drawn.FOLD else ""),
            ink.piece, ink.edge, dress.colours.get(ink.piece, "") if ink.drawn is Drawn.CLOTH else "",
        )
        for k, (ink, _) in enumerate(drawn)
    ]  # fmt: skip


TINT = 0.45
"""How strong a cloth's colour is drawn, so that ink is seen on the darkest."""


def tinted(colour: str) -> str:
    """A colour as it is drawn: mixed into white."""
    parts = (int(colour[k : k + 2], 16) for k in (1, 3, 5))
    return "#" + "".join(f"{round(255 - TINT * (255 - part)):02x}" for part in parts)


def _tapered(spots: Sequence[Spot]) -> list[Spot]:
    """A line as a sliver that begins as nothing and ends as wide as a pen: what a fold looks like."""
    left: list[Spot] = []
    right: list[Spot] = []
    for k, (x, y) in enumerate(spots):
        before, after = spots[max(k - 1, 0)], spots[min(k + 1, len(spots) - 1)]
        dx, dy = after[0] - before[0], after[1] - before[1]
        half = FOLD_WIDTH / 2 * k / (len(spots) - 1) / (hypot(dx, dy) or 1.0)
        left.append((x - dy * half, y + dx * half))
        right.append((x + dy * half, y - dx * half))
    return left + right[::-1]


def reach(inks: Iterable[Ink]) -> tuple[float, float]:
    """From where to where a view reaches across (mm)."""
    across = [x for ink in inks for x, _ in ink.spots]
    return (min(across), max(across)) if across else (0.0, 0.0)


def small_drawing(dress: DrawnDress) -> dict[str, Any]:
    """The dress from in front as a desk shows it: the box it is drawn in (mm, y down) and its lines."""
    inks = dress.views[Seen.FRONT]
    low, high = reach(inks)
    paths = dress_paths(dress, Seen.FRONT, COARSE)
    return {
        "box": [round(low) - 10, -round(dress.top) - 10, round(high - low) + 20, round(dress.top) + 60],
        "paths": [{"ink": path.drawn, "d": path.d, "colour": path.colour} for path in paths],
    }


def to_dress_svg(dress: DrawnDress, title: str) -> str:
    """dress.svg: the three views beside each other at a tenth of life, and the levels."""
    groups, at = [], GAP
    for seen in Seen:
        inks = dress.views[seen]
        low, high = reach(inks)
        groups.append(f'  <g class="view" id="{seen.value}" transform="translate({at - low:.0f} 0)">')
        for path in dress_paths(dress, seen):
            stands_for = f" data-piece={quoteattr(path.piece)}" if path.piece else ""
            stands_for += f" data-edge={quoteattr(path.edge)}" if path.edge else ""
            tint = f' style="fill: {tinted(path.colour)}"' if path.colour else ""
            groups.append(f'    <path class="{path.drawn}"{stands_for}{tint} d="{path.d}"/>')
        groups.append("  </g>")
        at += high - low + GAP
    for level in dress.levels:
        ring = "M" + "L".join(f"{x:.2f} {-y:.2f}" for x, y in level.slice) + "Z"
        groups.append(
            f'  <g class="level" data-name="{level.name}" data-height="{level.height:.2f}" '
            f'data-girth="{level.girth:.2f}"><path d="{ring}"/></g>'
        )
    tall = dress.top + 2 * GAP
    return "\n".join(
        [
            '<?xml version="1.0" encoding="UTF-8"?>',
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{at * SCALE:.1f}mm" height="{tall * SCALE:.1f}mm" '
            f'viewBox="0 {-(dress.top + GAP):.0f} {at:.0f} {tall:.0f}">',
            f"  <title>{escape(title)}</title>",
            f"  <style>{STYLE}  </style>",
            f'  <path class="floor" d="M0 0L{at:.0f} 0"/>',
            *groups,
            "</svg>",
            "",
        ]
    )
