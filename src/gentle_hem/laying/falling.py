"""How a cloth falls, worked out in a process of its own: it takes some seconds, and whoever else asks is answered.

cloth ──► process ──► drape test at rest, as lines to be drawn ──► kept for every cloth that falls alike
"""

from __future__ import annotations

import json
import subprocess
import sys
import threading
from collections import OrderedDict
from dataclasses import asdict, dataclass

from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.laying.apart import one_core

LONGEST = 90.0
"""How long one cloth is waited for (s); it takes six on a free core."""

KEPT = 64
"""Of how many cloths the answer is kept."""

FALL = ["-m", "gentle_hem.laying.falling"]

RESTS_NOT = 7
"""The exit code of a process whose cloth did not come to rest."""

RESTLESS = "This cloth was let fall and did not come to rest; nothing is shown of it."

Line = list[tuple[float, float]]


class DoesNotRest(RuntimeError):  # noqa: N818  (it is what cloth does)
    """A cloth that was let fall and did not come to rest, or whose falling was ended."""


@dataclass(frozen=True)
class Fall:
    """A round of cloth let fall over a round support: what is measured, and its lines in mm, y down."""

    coefficient: float
    folds: int
    bending_length: float
    """In mm."""
    support: float
    above: Line
    """Its edge from above, closed."""
    near: Line
    far: Line
    """From the side its edge nearer and farther than its middle, from left to right."""
    hangs: float
    """How far below the support it hangs at most (mm)."""


class FallingRoom:
    """Cloths let fall, one at a time; what came of one is kept for all that are like it."""

    def __init__(self) -> None:
        self._one = threading.Lock()
        self._known: OrderedDict[Fabric, Fall] = OrderedDict()

    def fall(self, fabric: Fabric) -> Fall:
        """How a cloth falls. Raises DoesNotRest."""
        with self._one:
            if fabric not in self._known:
                self._known[fabric] = _apart(fabric)
            self._known.move_to_end(fabric)
            while len(self._known) > KEPT:
                self._known.popitem(last=False)
            return self._known[fabric]


def _apart(fabric: Fabric) -> Fall:
    try:
        told = subprocess.run(
            [sys.executable, *FALL], input=json.dumps(asdict(fabric)), capture_output=True, text=True, timeout=LONGEST,
            check=False, env=one_core(),
        )  # fmt: skip
    except subprocess.TimeoutExpired as late:
        raise DoesNotRest(RESTLESS) from late
    if told.returncode == RESTS_NOT:
        raise DoesNotRest(RESTLESS)
    if told.returncode:  # a fault of ours is no restless cloth
        raise RuntimeError(f"letting a cloth fall ended with {told.returncode}: {told.stderr[-2000:]}")
    return Fall(**json.loads(told.stdout))


def fallen(fabric: Fabric) -> Fall:
    """A cloth let fall, here and now."""
    from gentle_hem.core.hang.drape import (
        SUPPORT,
        draped,
    )  # here: scipy is slow to read in, and only the process needs it

    rest = draped(fabric)
    x, y, z = (1000 * rest.edge).T
    # from its leftmost place round in front to its rightmost, and from there round behind
    left, right = int(x.argmin()), int(x.argmax())
    order = [(left + k) % len(x) for k in range(len(x))]
    turn = order.index(right)
    halves = [order[: turn + 1], [*order[turn:], left][::-1]]
    halves.sort(key=lambda half: float(y[half].mean()))

    def line(half: list[int]) -> Line:
        return [(round(float(x[k]), 1), round(float(-z[k]), 1)) for k in half]

    return Fall(
        rest.coefficient, rest.folds, 1000 * fabric.bending_length, 1000 * SUPPORT,
        [(round(float(a), 1), round(float(-b), 1)) for a, b in zip(x, y, strict=True)], line(halves[0]),
        line(halves[1]), round(float(-z.min()), 1),
    )  # fmt: skip


def main() -> None:
    """Read a cloth, and print how it falls; RESTS_NOT is answered where it does not come to rest."""
    from gentle_hem.core.hang.rest import NotAtRest

    try:
        print(json.dumps(asdict(fallen(Fabric(**json.loads(sys.stdin.read()))))))
    except NotAtRest:
        sys.exit(RESTS_NOT)


if __name__ == "__main__":
    main()
