"""The inner loops of falling cloth, compiled: energy, forces and stiffness of triangles, and what a body pushes back.

They are compiled once, when the program is set up (``./hem``), and kept beside the module.
"""

from __future__ import annotations

from math import atan, sqrt

import numpy as np
from numba import njit

from gentle_hem.core.hang.mesh import Flags, Indices, Numbers

PUSHED = 0.003
"""Pushed along its threads, cloth gives way in folds that are finer than the triangles: it resists by such a share of
what it does when it is pulled."""


BAND = 96
"""Of a block so many rows are worked out together."""


@njit("f8(f8[:,::1], i8[:,::1], f8[:,:,::1], f8[::1], f8[:,::1])", cache=True)
def stretched(places: Numbers, triangles: Indices, slopes: Numbers, areas: Numbers, moduli: Numbers) -> float:
    """The energy of stretching (J): Green's strain along weft and warp and in shear."""
    whole = 0.0
    for t in range(len(triangles)):
        u0 = u1 = u2 = v0 = v1 = v2 = 0.0
        for k in range(3):
            p = triangles[t, k]
            sx, sy = slopes[t, k, 0], slopes[t, k, 1]
            x, y, z = places[p, 0], places[p, 1], places[p, 2]
            u0 += sx * x
            u1 += sx * y
            u2 += sx * z
            v0 += sy * x
            v1 += sy * y
            v2 += sy * z
        weft = (u0 * u0 + u1 * u1 + u2 * u2 - 1.0) / 2.0
        warp = (v0 * v0 + v1 * v1 + v2 * v2 - 1.0) / 2.0
        shear = u0 * v0 + u1 * v1 + u2 * v2
        a = moduli[t, 0] * (PUSHED if weft < 0.0 else 1.0)
        b = moduli[t, 1] * (PUSHED if warp < 0.0 else 1.0)
        whole += 0.5 * areas[t] * (a * weft * weft + b * warp * warp + moduli[t, 2] * shear * shear)
    return whole


@njit("void(f8[:,::1], i8[:,::1], f8[:,:,::1], f8[::1], f8[:,::1], i8[:,:,::1], f8[:,::1], f8[:,:,::1])", cache=True)
def stretching(
    places: Numbers, triangles: Indices, slopes: Numbers, areas: Numbers, moduli: Numbers, pairs: Indices,
    rise: Numbers, blocks: Numbers,
) -> None:  # fmt: skip
    """Adds how the energy of stretching rises with every coordinate, and how that rises with those of every pair of
    points, made so that no direction is unsteady: what pushes does not count there. ``pairs`` has −1 where the other
    order of the two points is the one that is kept.
    """
    along = np.empty((3, 3, 3))  # strain, corner, axis
    tense = np.empty((2, 2))
    pull = np.empty(3)
    stiff = np.empty(3)
    ways = np.empty((2, 3))
    for t in range(len(triangles)):
        ways[:] = 0.0
        for k in range(3):
            p = triangles[t, k]
            for i in range(3):
                ways[0, i] += slopes[t, k, 0] * places[p, i]
                ways[1, i] += slopes[t, k, 1] * places[p, i]
        weft, warp, shear = -0.5, -0.5, 0.0
        for i in range(3):
            weft += 0.5 * ways[0, i] * ways[0, i]
            warp += 0.5 * ways[1, i] * ways[1, i]
            shear += ways[0, i] * ways[1, i]
        stiff[0] = moduli[t, 0] * (PUSHED if weft < 0.0 else 1.0)
        stiff[1] = moduli[t, 1] * (PUSHED if warp < 0.0 else 1.0)
        stiff[2] = moduli[t, 2]
        pull[0], pull[1], pull[2] = stiff[0] * weft, stiff[1] * warp, stiff[2] * shear
        for k in range(3):
            sx, sy = slopes[t, k, 0], slopes[t, k, 1]
            for i in range(3):
                along[0, k, i] = sx * ways[0, i]
                along[1, k, i] = sy * ways[1, i]
                along[2, k, i] = sx * ways[1, i] + sy * ways[0, i]
        # the tension, without what pushes
        middle, half = (pull[0] + pull[1]) / 2.0, (pull[0] - pull[1]) / 2.0
        radius = sqrt(half * half + pull[2] * pull[2])
        high, low = max(middle + radius, 0.0), max(middle - radius, 0.0)
        mean = (high + low) / 2.0
        spread = (high - low) / 2.0 / (radius if radius > 0.0 else 1.0)
        tense[0, 0], tense[1, 1] = mean + spread * half, mean - spread * half
        tense[0, 1] = tense[1, 0] = spread * pull[2]
        area = areas[t]
        for k in range(3):
            p = triangles[t, k]
            for i in range(3):
                rise[p, i] += area * (
                    pull[0] * along[0, k, i] + pull[1] * along[1, k, i] + pull[2] * along[2, k, i]
                )  # fmt: skip
            for m in range(3):
                to = pairs[t, k, m]
                if to < 0:
                    continue
                same = 0.0
                for g in range(2):
                    for h in range(2):
                        same += slopes[t, k, g] * tense[g, h] * slopes[t, m, h]
                for i in range(3):
                    for j in range(3):
                        value = 0.0
                        for s in range(3):
                            value += stiff[s] * along[s, k, i] * along[s, m, j]
                        blocks[to, i, j] += area * value
                    blocks[to, i, i] += area * same


FIRMER = 3.0
"""What is pressed down to her skin is pushed off harder, by up to so many times what it takes to press cloth there: so
what holds a whole dress up does not go into her."""


@njit("f8(f8, f8)", cache=True)
def sunk(deep: float, off: float) -> float:
    """The energy of what lies ``deep`` within ``off`` of a body, for each unit of how firm it is: with t = d ÷ off,
    off²·(½t² + f·(t − arctan t)). Its slope is off·(t + f·t² ÷ (1 + t²)): what begins deep inside is not thrown out.
    """
    t = deep / off
    return off * off * (0.5 * t * t + FIRMER * (t - atan(t)))


@njit("UniTuple(f8, 3)(f8[:,::1], i8, i8, f8, f8)", cache=True)
def along_rows(rows: Numbers, column: int, k: int, part: float, step: float) -> tuple[float, float, float]:
    """One of what is known of rows at a part of the way from row k to the next, how it rises there, and how that rises:
    the cubic spline through them, whose second differences are four columns further on.
    """
    low, high = rows[k, column], rows[k + 1, column]
    bent, bent_on, left = rows[k, column + 4] / 6.0, rows[k + 1, column + 4] / 6.0, 1.0 - part
    value = left * low + part * high + (left**3 - left) * bent + (part**3 - part) * bent_on
    slope = high - low - (3.0 * left * left - 1.0) * bent + (3.0 * part * part - 1.0) * bent_on
    return value, slope / step, 6.0 * (left * bent + part * bent_on) / (step * step)


@njit("Tuple((f8, f8, f8, f8))(f8, f8, f8, f8[:,::1], f8, f8)", cache=True)
def beyond(x: float, y: float, z: float, rows: Numbers, low: float, step: float) -> tuple[float, float, float, float]:
    """How far a place lies outside a standing body (m, less than nothing inside), and the slope of that: on its surface
    the way straight out of it.

    ``rows`` are the body's level sections from ``low`` up, every ``step``: half its width, half its depth, how far
    forward its middle lies, and how far to the side; then how each of these bends there. With g = √(u² + v²), u and v
    the shares of half a section's width and depth, it is (g − 1) ÷ |∇g|: near its surface exact to first order. Its
    slope is exact everywhere and nowhere leaps, so that what is pushed off comes to rest.
    """
    at = (z - low) / step
    top = len(rows) - 1
    k = int(min(max(at, 0.0), float(top - 1)))
    part = at - k
    a, da, dda = along_rows(rows, 0, k, min(max(part, 0.0), 1.0), step)
    b, db, ddb = along_rows(rows, 1, k, min(max(part, 0.0), 1.0), step)
    c, dc, ddc = along_rows(rows, 2, k, min(max(part, 0.0), 1.0), step)
    d, dd, ddd = along_rows(rows, 3, k, min(max(part, 0.0), 1.0), step)
    if part < 0.0 or part > 1.0:  # above and below it goes on as it ends
        da = db = dc = dd = dda = ddb = ddc = ddd = 0.0
    u, v = (x - d) / a, (y - c) / b
    g = sqrt(u * u + v * v)
    if g < 1e-3:  # on its middle no way is the shortest: it is sent to her left
        u, v, g = 1e-3, 0.0, 1e-3
    uz, vz = -(dd + u * da) / a, -(dc + v * db) / b
    nx, ny, nz = u / (a * g), v / (b * g), (u * uz + v * vz) / g
    size = sqrt(nx * nx + ny * ny + nz * nz)
    far = (g - 1.0) / size
    # how ∇g changes: of a root of squares (Σ uᵢuⱼ + u·uᵢⱼ − gᵢgⱼ) ÷ g
    uzz, vzz = -(ddd + 2.0 * uz * da + u * dda) / a, -(ddc + 2.0 * vz * db + v * ddb) / b
    xx, yy, xy = (1.0 / (a * a) - nx * nx) / g, (1.0 / (b * b) - ny * ny) / g, -nx * ny / g
    xz = ((uz - u * da / a) / a - nx * nz) / g
    yz = ((vz - v * db / b) / b - ny * nz) / g
    zz = (uz * uz + vz * vz + u * uzz + v * vzz - nz * nz) / g
    by = far / size
    return (
        far, (nx - by * (xx * nx + xy * ny + xz * nz)) / size, (ny - by * (xy * nx + yy * ny + yz * nz)) / size,
        (nz - by * (xz * nx + yz * ny + zz * nz)) / size,
    )  # fmt: skip


@njit("f8[:,::1](f8[:,::1], f8[:,::1], f8, f8)", cache=True)
def beyond_all(places: Numbers, rows: Numbers, low: float, step: float) -> Numbers:
    """The same of many places: how far outside, and the way out."""
    made = np.empty((len(places), 4))
    for n in range(len(places)):
        made[n] = beyond(places[n, 0], places[n, 1], places[n, 2], rows, low, step)
    return made


FAR = 1e3
"""What has nothing beside it lies so far outside (m)."""


@njit("Tuple((f8, f8, f8, f8))(f8, f8, f8, f8[:,::1], f8, f8)", cache=True)
def beside(x: float, y: float, z: float, arm: Numbers, low: float, step: float) -> tuple[float, float, float, float]:
    """The same of an arm, which ends above and below."""
    if len(arm) == 0 or z < low or z > low + step * (len(arm) - 1):
        return FAR, 0.0, 0.0, 0.0
    return beyond(x, y, z, arm, low, step)


@njit("f8[:,::1](f8[:,::1], f8[:,::1], f8, f8)", cache=True)
def beside_all(places: Numbers, arm: Numbers, low: float, step: float) -> Numbers:
    """The same of many places beside an arm."""
    made = np.empty((len(places), 4))
    for n in range(len(places)):
        made[n] = beside(places[n, 0], places[n, 1], places[n, 2], arm, low, step)
    return made


@njit("f8(f8[:,::1], i8[:,::1], f8[:,::1], f8[::1], f8[:,::1], f8, f8, f8[:,::1], f8, b1[::1], f8, b1)", cache=True)
def pressed(
    places: Numbers, who: Indices, share: Numbers, firm: Numbers, rows: Numbers, low: float, step: float, arm: Numbers,
    arm_low: float, on_arm: Flags, off: float, middle: bool,
) -> float:  # fmt: skip
    """The energy of what is nearer to a body than ``off``, or to its arm where it is ``on_arm`` (J): of places that lie
    by ``share`` between three points; ``middle``: and of what has crossed the middle of the body, where her other side
    hangs.
    """
    whole = 0.0
    for n in range(len(who)):
        x = y = z = 0.0
        for k in range(3):
            x += share[n, k] * places[who[n, k], 0]
            y += share[n, k] * places[who[n, k], 1]
            z += share[n, k] * places[who[n, k], 2]
        far, _, _, _ = beyond(x, y, z, rows, low, step)
        if far < off:
            whole += firm[n] * sunk(off - far, off)
        if on_arm[n]:
            far, _, _, _ = beside(x, y, z, arm, arm_low, step)
            if far < off:
                whole += firm[n] * sunk(off - far, off)
        if middle and x < 0.0:
            whole += 0.5 * firm[n] * x * x
    return whole


@njit(
    "void(f8[:,::1], i8[:,::1], f8[:,::1], f8[::1], f8[:,::1], f8, f8, f8[:,::1], f8, b1[::1], f8, b1, i8[:,:,::1],"
    " f8[:,::1], f8[:,:,::1], f8[:,::1], f8, f8)",
    cache=True,
)
def pressing(
    places: Numbers, who: Indices, share: Numbers, firm: Numbers, rows: Numbers, low: float, step: float, arm: Numbers,
    arm_low: float, on_arm: Flags, off: float, middle: bool, pairs: Indices, rise: Numbers, blocks: Numbers,
    speeds: Numbers, rub: float, slow: float,
) -> None:  # fmt: skip
    """Adds what a body and its arm that are pressed on push back, and what her other side does, and how that rises.

    What slides on them with ``speeds`` is held back by ``rub`` times as much as it is pressed, over the length of
    the time step, and by less where it slides slower than ``slow`` (Coulomb's friction, smoothed): it is held back, and
    comes to rest by its shape.
    """
    way, past = np.empty(3), np.empty(3)
    for n in range(len(who)):
        x = y = z = 0.0
        for k in range(3):
            x += share[n, k] * places[who[n, k], 0]
            y += share[n, k] * places[who[n, k], 1]
            z += share[n, k] * places[who[n, k], 2]
        if middle and x < 0.0:
            for k in range(3):
                rise[who[n, k], 0] += firm[n] * share[n, k] * x
                for m in range(3):
                    to = pairs[n, k, m]
                    if to >= 0:
                        blocks[to, 0, 0] += firm[n] * share[n, k] * share[n, m]
        for body in range(2 if on_arm[n] else 1):
            if body == 0:
                far, way[0], way[1], way[2] = beyond(x, y, z, rows, low, step)
            else:
                far, way[0], way[1], way[2] = beside(x, y, z, arm, arm_low, step)
            if far >= off:
                continue
            deep = (off - far) / off
            over = 1.0 + deep * deep
            force = firm[n] * off * (deep + FIRMER * deep * deep / over)
            stiff = firm[n] * (1.0 + 2.0 * FIRMER * deep / (over * over))
            for k in range(3):
                if share[n, k] == 0.0:
                    continue
                for i in range(3):
                    rise[who[n, k], i] -= force * share[n, k] * way[i]
                for m in range(3):
                    to = pairs[n, k, m]
                    if to < 0 or share[n, m] == 0.0:
                        continue
                    for i in range(3):
                        for j in range(3):
                            blocks[to, i, j] += stiff * share[n, k] * share[n, m] * way[i] * way[j]
            if rub == 0.0:
                continue
            size = sqrt(way[0] * way[0] + way[1] * way[1] + way[2] * way[2])
            for i in range(3):
                way[i] /= size
            out = 0.0
            for i in range(3):
                past[i] = 0.0
                for k in range(3):
                    past[i] += share[n, k] * speeds[who[n, k], i]
                out += past[i] * way[i]
            along = 0.0
            for i in range(3):
                along += (past[i] - out * way[i]) ** 2
            held = rub * force / max(sqrt(along), slow)
            for k in range(3):
                for m in range(3):
                    to = pairs[n, k, m]
                    if to < 0 or share[n, k] == 0.0 or share[n, m] == 0.0:
                        continue
                    by = held * share[n, k] * share[n, m]
                    for i in range(3):
                        for j in range(3):
                            blocks[to, i, j] -= by * way[i] * way[j]
                        blocks[to, i, i] += by


@njit("void(f8[:,::1], i8[:,::1], f8[::1], f8[:,::1], f8[:,::1], f8[:,:,::1])", cache=True)
def painted(
    at: Numbers, triangles: Indices, shade: Numbers, colours: Numbers, near: Numbers, picture: Numbers
) -> None:  # fmt: skip
    """Triangles painted into a picture (rows, columns, red green blue and cover): ``at`` is the column, the row and
    how near each point is, ``shade`` how light it is there; what is farther than what is painted already is hidden.
    """
    high, wide = near.shape
    for t in range(len(triangles)):
        i, j, k = triangles[t, 0], triangles[t, 1], triangles[t, 2]
        ax, ay, bx, by, cx, cy = at[i, 0], at[i, 1], at[j, 0], at[j, 1], at[k, 0], at[k, 1]
        whole = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay)
        if abs(whole) < 1e-12:
            continue
        for row in range(max(int(min(ay, by, cy)), 0), min(int(max(ay, by, cy)) + 1, high - 1) + 1):
            for column in range(max(int(min(ax, bx, cx)), 0), min(int(max(ax, bx, cx)) + 1, wide - 1) + 1):
                x, y = column + 0.5, row + 0.5
                u = ((bx - x) * (cy - y) - (cx - x) * (by - y)) / whole
                v = ((cx - x) * (ay - y) - (ax - x) * (cy - y)) / whole
                w = 1.0 - u - v
                if u < 0.0 or v < 0.0 or w < 0.0:
                    continue
                toward = u * at[i, 2] + v * at[j, 2] + w * at[k, 2]
                if toward <= near[row, column]:
                    continue
                near[row, column] = toward
                light = u * shade[i] + v * shade[j] + w * shade[k]
                for m in range(3):
                    picture[row, column, m] = light * colours[t, m]
                picture[row, column, 3] = 1.0


@njit("void(f8[:,::1], i8[:,::1], f8[::1], f8[:,::1], f8[:,:,::1])", cache=True)
def inked(at: Numbers, pairs: Indices, ink: Numbers, near: Numbers, picture: Numbers) -> None:
    """Lines between pairs of points inked into a picture, two pixels broad, where nothing is nearer."""
    high, wide = near.shape
    for n in range(len(pairs)):
        p, q = pairs[n, 0], pairs[n, 1]
        x, y, toward = at[p, 0], at[p, 1], at[p, 2]
        dx, dy, dz = at[q, 0] - x, at[q, 1] - y, at[q, 2] - toward
        count = int(2.0 * max(abs(dx), abs(dy))) + 1
        for k in range(count + 1):
            part = k / count
            column, row = int(x + part * dx), int(y + part * dy)
            for r in range(max(row, 0), min(row + 2, high)):
                for c in range(max(column, 0), min(column + 2, wide)):
                    if toward + part * dz < near[r, c]:
                        continue
                    for m in range(3):
                        picture[r, c, m] = ink[m]
                    picture[r, c, 3] = 1.0


@njit("f8[:,::1](f8[:,::1])", cache=True)
def _rooted(full: Numbers) -> Numbers:
    """The inverse of the lower root of a symmetric block, of which only the lower half is read. Raises LinAlgError
    where it has none.
    """
    size = len(full)
    root = np.linalg.cholesky(full)
    made = np.zeros((size, size))
    for i in range(size):
        under = 1.0 / root[i, i]
        for k in range(i):
            by = root[i, k] * under
            if by != 0.0:
                for j in range(k + 1):
                    made[i, j] -= by * made[k, j]
        made[i, i] = under
    return made


@njit(
    "void(f8[:,:,::1], i8[::1], i8[::1], i8[::1], i8[::1], i8[::1], i8[::1], i8[::1], i8[::1], i8[::1], i8[::1],"
    " i8[::1], f8[::1], i8, i8)",
    cache=True,
    nogil=True,
)
def take_apart(
    blocks: Numbers, owns: Indices, starts: Indices, pair_starts: Indices, pairs: Indices, rows: Indices,
    columns: Indices, part_starts: Indices, parts: Indices, map_starts: Indices, maps: Indices,
    matrix_starts: Indices, matrices: Numbers, first: int, last: int,
) -> None:  # fmt: skip
    """Takes a matrix apart, front by front from a first to before a last one; fronts below them are done. Raises
    LinAlgError where it gives way in some direction.
    """
    for f in range(first, last):
        size, own = 3 * (starts[f + 1] - starts[f]), 3 * owns[f]
        full = matrices[matrix_starts[f] : matrix_starts[f + 1]].reshape(size, size)
        full[:] = 0.0
        for n in range(pair_starts[f], pair_starts[f + 1]):
            r, c = 3 * rows[n], 3 * columns[n]
            for i in range(3):
                for j in range(3):
                    full[r + i, c + j] = blocks[pairs[n], i, j]
        for q in range(part_starts[f], part_starts[f + 1]):
            part = parts[q]
            below, gone = 3 * (starts[part + 1] - starts[part]), 3 * owns[part]
            theirs = matrices[matrix_starts[part] : matrix_starts[part + 1]].reshape(below, below)
            to = maps[map_starts[q] : map_starts[q + 1]]
            for i in range(len(to)):
                for j in range(i + 1):  # both lists are in the order of elimination: below its diagonal it stays so
                    r, c = 3 * to[i], 3 * to[j]
                    for a in range(3):
                        for b in range(3):
                            full[r + a, c + b] += theirs[gone + 3 * i + a, gone + 3 * j + b]
        corner = _rooted(np.ascontiguousarray(full[:own, :own]))
        full[:own, :own] = corner
        if size > own:
            under = np.dot(np.ascontiguousarray(full[own:, :own]), corner.T)
            full[own:, :own] = under
            for first_row in range(0, size - own, BAND):  # of what is left only the lower half is read
                end = min(first_row + BAND, size - own)
                full[own + first_row : own + end, own : own + end] -= np.dot(under[first_row:end], under[:end].T)


@njit("void(f8[::1], i8[::1], f8[::1])", cache=True)
def _taken_in(x: Numbers, points: Indices, here: Numbers) -> None:
    """The three values of each point, one after the other."""
    for k in range(len(points)):
        for i in range(3):
            here[3 * k + i] = x[3 * points[k] + i]


@njit("void(f8[::1], i8[::1], f8[::1])", cache=True)
def _put_back(x: Numbers, points: Indices, here: Numbers) -> None:
    """The same, put back."""
    for k in range(len(points)):
        for i in range(3):
            x[3 * points[k] + i] = here[3 * k + i]


@njit(
    "void(i8[::1], i8[::1], i8[::1], i8[::1], f8[::1], f8[::1])",
    cache=True,
)
def solve_apart(
    owns: Indices, starts: Indices, points: Indices, matrix_starts: Indices, matrices: Numbers, x: Numbers
) -> None:
    """Solves what was taken apart: ``x`` is the right side and becomes the answer."""
    count = len(owns)
    longest = 3 * np.diff(starts).max()
    here = np.empty(longest)
    for f in range(count):
        size, own = 3 * (starts[f + 1] - starts[f]), 3 * owns[f]
        full = matrices[matrix_starts[f] : matrix_starts[f + 1]].reshape(size, size)
        _taken_in(x, points[starts[f] : starts[f + 1]], here)
        for i in range(own - 1, -1, -1):
            by = 0.0
            for j in range(i + 1):
                by += full[i, j] * here[j]
            here[i] = by
        for i in range(own, size):
            by = 0.0
            for j in range(own):
                by += full[i, j] * here[j]
            here[i] -= by
        _put_back(x, points[starts[f] : starts[f + 1]], here)
    for f in range(count - 1, -1, -1):
        size, own = 3 * (starts[f + 1] - starts[f]), 3 * owns[f]
        full = matrices[matrix_starts[f] : matrix_starts[f + 1]].reshape(size, size)
        _taken_in(x, points[starts[f] : starts[f + 1]], here)
        for i in range(own, size):
            by = here[i]
            for j in range(own):
                here[j] -= full[i, j] * by
        for i in range(own):  # row by row, as it lies in memory
            by = here[i]
            here[i] = 0.0
            for j in range(i + 1):
                here[j] += full[i, j] * by
        _put_back(x, points[starts[f] : starts[f + 1]], here)
