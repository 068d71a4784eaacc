"""A hung dress pictured from in front, from the side and from behind: cloth in its colour on her form, inked along its
edges; nothing behind it.

The same as is seen on screen, drawn without one, so that it can stand on the desk and on paper.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from gentle_hem.core.hang import kernels
from gentle_hem.core.hang.dress import HungDress
from gentle_hem.core.hang.finer import Finer, outward
from gentle_hem.core.hang.mesh import Indices, Numbers
from gentle_hem.core.recipe import Recipe

Pixels = NDArray[np.uint8]

VIEWS = {"front": 0.0, "side": np.pi / 2, "back": np.pi}
"""How far round to her left she is seen from (radians)."""

WIDE, HIGH, FINER = 420, 640, 2
"""How large a picture is (pixels), and how many times as fine it is drawn at first."""

ROOM = 0.03
"""So much of it is left free all round, as a share of how high it is."""

FORM, PLAIN, INK = (0.80, 0.76, 0.69), (0.93, 0.90, 0.84), (0.16, 0.14, 0.12)
"""Her form, cloth whose colour is not said, and the lines (of 1)."""

LIGHT, SHADE = np.array([-0.5, 0.45, 0.74]), 0.45
"""Where the light comes from: right, up and toward who looks; and what is left of it in the shade."""

UNDER, OVER = 0.005, 0.004
"""Her form is drawn so much smaller, and lines so much nearer, so that cloth that lies on her is seen (m)."""

ROUND = 48


def pictured(dress: HungDress, recipe: Recipe) -> dict[str, Pixels]:
    """By view, a picture: rows of pixels from the top, red, green, blue and how much covers what is behind (0–255)."""
    cloth, lines = _cloth(dress, recipe)
    form = _form(dress)
    top = dress.stand.low + dress.stand.step * len(dress.stand.rows)
    # three pictures of one dress are drawn to one scale
    wide = max(
        float(np.abs(_seen(places, turn)[:, 0]).max()) for places, *_ in (cloth, form) for turn in VIEWS.values()
    )
    scale = min((1 - 2 * ROOM) * HIGH / top, (0.5 - ROOM) * WIDE / wide) * FINER
    return {name: _picture(turn, scale, cloth, form, lines) for name, turn in VIEWS.items()}


Body = tuple[Numbers, Indices, Numbers, Numbers]
"""Points (m), triangles, the way out at each point, and what colour each triangle is."""


def _cloth(dress: HungDress, recipe: Recipe) -> tuple[Body, Indices]:
    """The cloth of both her sides, and the lines it is inked with."""
    bodies: list[Body] = []
    lines: list[Indices] = []
    before = 0
    for side, sign in ((dress, 1.0), (dress.right or dress, -1.0)):
        sewn, turned = side.sewn, np.array([sign, 1.0, 1.0])
        made = Finer.of(sewn, side.now)
        at = made.lain(side.now)
        colours = [_colour(recipe.cloths.cloth(sheet.role).colour) for sheet in sewn.sheets]
        ways = made.ways(side.now)
        bodies.append((at * turned, made.triangles + before, ways * turned, np.array(colours)[made.sheet_of]))
        lines.append(made.lines + before)
        before += len(at)
    places, triangles, ways, tints = (np.concatenate(of) for of in zip(*bodies, strict=True))
    return (places, triangles, ways, tints), np.concatenate(lines)


def _colour(said: str | None) -> tuple[float, float, float]:
    """A colour said as #rrggbb, a little faded as chalk and ink are."""
    if not said:
        return PLAIN
    red, green, blue = (int(said[k : k + 2], 16) / 255 for k in (1, 3, 5))
    return (0.2 + 0.8 * red, 0.2 + 0.8 * green, 0.2 + 0.8 * blue)


def _form(dress: HungDress) -> Body:
    """Her form, from its level sections."""
    stand = dress.stand
    bodies = [(stand.rows, stand.low)] + ([(stand.arm, stand.arm_low)] if len(stand.arm) else [])
    points: list[Numbers] = []
    corners: list[Indices] = []
    count = 0
    turn = np.linspace(0, 2 * np.pi, ROUND, endpoint=False)
    for rows, low in bodies:
        height = low + stand.step * np.arange(len(rows))
        wide, deep = (np.maximum(rows[:, k] - UNDER, 1e-3) for k in (0, 1))
        left = np.stack((
            rows[:, 3, None] + wide[:, None] * np.sin(turn), rows[:, 2, None] + deep[:, None] * np.cos(turn),
            np.repeat(height[:, None], ROUND, axis=1),
        ), axis=2).reshape(-1, 3)  # fmt: skip
        grid = np.arange(len(rows) * ROUND).reshape(len(rows), ROUND)
        a, b = grid[:-1], np.roll(grid[:-1], -1, axis=1)
        c, d = grid[1:], np.roll(grid[1:], -1, axis=1)
        faces = np.concatenate((np.stack((a, b, c), axis=-1), np.stack((b, d, c), axis=-1))).reshape(-1, 3)
        for side in (1.0, -1.0) if rows[:, 3].any() else (1.0,):
            points.append(left * [side, 1.0, 1.0])
            corners.append(faces + count)
            count += len(left)
    at, t = np.concatenate(points), np.concatenate(corners)
    return at, t, outward(at, t), np.tile(FORM, (len(t), 1))


def _seen(places: Numbers, turn: float) -> Numbers:
    """Places as they are seen from so far round to her left: to the right, up, and toward who looks (m)."""
    x, y, z = places.T
    made: Numbers = np.stack((x * np.cos(turn) - y * np.sin(turn), z, x * np.sin(turn) + y * np.cos(turn)), axis=1)
    return made


def _picture(turn: float, scale: float, cloth: Body, form: Body, lines: Indices) -> Pixels:
    wide, high = WIDE * FINER, HIGH * FINER
    picture, near = np.zeros((high, wide, 4)), np.full((high, wide), -np.inf)
    light = LIGHT / np.linalg.norm(LIGHT)

    def drawn(places: Numbers) -> Numbers:
        right, up, toward = _seen(places, turn).T
        return np.stack((wide / 2 + scale * right, high * (1 - ROOM) - scale * up, toward), axis=1)

    for places, triangles, out, colours in (form, cloth):
        way = _seen(out, turn)
        lit = np.abs(np.where(way[:, 2:] < 0, -way, way) @ light)  # cloth is seen from both its sides
        shade = SHADE + (1 - SHADE) * lit
        kernels.painted(
            drawn(places), np.ascontiguousarray(triangles), shade, np.ascontiguousarray(colours), near, picture
        )
    both = drawn(cloth[0])
    both[:, 2] += OVER
    kernels.inked(both, np.ascontiguousarray(lines), np.array(INK), near, picture)
    # fine pixels put together, what is empty among them weighing nothing
    parts = picture.reshape(HIGH, FINER, WIDE, FINER, 4)
    covered = parts[..., 3:].mean(axis=(1, 3))
    colour = (parts[..., :3] * parts[..., 3:]).mean(axis=(1, 3)) / np.maximum(covered, 1e-9)
    made: Pixels = np.round(255 * np.concatenate((colour, covered), axis=2)).astype(np.uint8)
    return made


def as_png(pictures: dict[str, Pixels]) -> Iterator[tuple[str, bytes]]:
    """Pictures as PNG files, by view."""
    from io import BytesIO

    from PIL import Image  # here, since nothing else of the core needs it

    for name, pixels in pictures.items():
        file = BytesIO()
        Image.fromarray(pixels).save(file, "PNG")
        yield name, file.getvalue()
