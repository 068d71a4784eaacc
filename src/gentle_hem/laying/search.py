"""A longer search for a short lay, run as a process: a job on standard input, better and better lays on its output.

job ──► what is laid freely ──────────► spyrrow: irregular nesting, seeded
        pinned, on a print, on the fold ──► our own placement, in other and other orders, seeded
                    │
                    └──► {"spots": […], "length": …}   one line for every shorter one
"""

from __future__ import annotations

import json
import random
import sys
import threading
import time
from collections.abc import Callable, Iterator
from typing import Any

from shapely import Polygon
from shapely.affinity import rotate, translate

from gentle_hem.core.cloth.asked import LayAsked, spots_of
from gentle_hem.core.cloth.lay import (
    HowLaid,
    Lay,
    OpenedFlat,
    Placed,
    laying,
    things_for,
)
from gentle_hem.core.cloth.squares import APART
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.replace import replace

SHORTER = 1.0
"""By how much a lay must be shorter to be worth saying (mm)."""

STRAY = 0.5
"""How far an outline is drawn beside itself while it is nested (mm); what comes of it is checked on the true ones."""

WORKERS = 2


def better_lays(garment: Garment, asked: LayAsked, width: float, how: HowLaid, length: float) -> Iterator[Lay]:
    """Lays that are shorter than ``length`` (mm), each than the one before, until the time that was asked is over."""
    found = _nested if how.is_free else in_other_orders
    for shorter in found(garment, asked, width, how):
        if shorter.length < length - SHORTER and not shorter.faults:
            length = shorter.length
            yield shorter


def _nested(garment: Garment, asked: LayAsked, width: float, how: HowLaid) -> Iterator[Lay]:
    """What spyrrow finds; its strip runs along x, our cloth along y."""
    import spyrrow

    ready = OpenedFlat(garment, asked.role, width, how, things_for(garment, asked.role, width, how))
    ways = [0.0] if how.one_way else [0.0, 180.0]
    items = []
    for k, thing in enumerate(ready.on.things):
        ring = thing.shape.simplify(STRAY).exterior.coords
        items.append(spyrrow.Item(str(k), [(y, x) for x, y in ring], 1, ways))
    if not items:
        return
    # it keeps half of what is left between pieces from its strip's edges as well; cloth may be cut to its selvedge
    strip = spyrrow.StripPackingInstance("lay", width + APART, items)
    config = spyrrow.StripPackingConfig(
        early_termination=True, total_computation_time=asked.seconds, num_workers=WORKERS, seed=asked.seed,
        min_items_separation=APART,
    )  # fmt: skip
    queue = spyrrow.ProgressQueue()
    solved: list[Any] = []
    solving = threading.Thread(target=lambda: solved.append(strip.solve(config, queue)), daemon=True)
    solving.start()
    feasible = (spyrrow.ReportType.ExplFeas, spyrrow.ReportType.CmprFeas, spyrrow.ReportType.Final)
    while solving.is_alive():
        solving.join(timeout=0.2)
        reports = [solution for kind, solution in queue.drain() if kind in feasible]
        if reports:
            yield _read(ready, min(reports, key=lambda solution: float(solution.width)))
    if not solved:
        raise RuntimeError("the nesting ended without an answer")
    yield _read(ready, solved[0])


def _read(ready: OpenedFlat, solution: Any) -> Lay:
    """A solution as a lay, on the true outlines, from the cut end."""
    placed = []
    for item in solution.placed_items:
        thing = ready.on.things[int(item.id)]
        flat = Polygon([(y, x) for x, y in thing.shape.exterior.coords])
        moved = translate(rotate(flat, item.rotation, origin=(0, 0)), *item.translation)
        outline = Polygon([(y, x) for x, y in moved.exterior.coords])
        placed.append(Placed(0, thing.name, outline, turned=90 < item.rotation % 360 < 270))
    foot = min(float(one.outline.bounds[1]) for one in placed)
    return ready.of([replace(one, outline=translate(one.outline, -APART / 2, -foot)) for one in placed])


def in_other_orders(
    garment: Garment, asked: LayAsked, width: float, how: HowLaid, clock: Callable[[], float] = time.monotonic
) -> Iterator[Lay]:
    """Our own placement in orders that differ a little from the best so far."""
    by_chance = random.Random(asked.seed)
    ready = laying(garment, asked.role, width, how)
    order = min(ready.orders, key=lambda one: ready.lay(one).length)
    length = ready.lay(order).length
    end = clock() + asked.seconds
    while clock() < end and len(order) > 1:
        other = list(order)
        for _ in range(by_chance.choice((1, 1, 2, 3))):
            moved = other.pop(by_chance.randrange(len(other)))
            other.insert(by_chance.randrange(len(other) + 1), moved)
        laid = ready.lay(other)
        if laid.length <= length:
            order, length = other, laid.length
            yield laid


def main() -> None:
    """Read a job, and print every better lay as it is found."""
    job = json.loads(sys.stdin.readline())
    asked = LayAsked.model_validate(job["asked"])
    recipe = read_recipe(job["recipe"])
    cloth = recipe.cloths.cloth(asked.role)
    width, how = asked.on(cloth)
    for laid in better_lays(make_up(recipe), asked, width, how, job["length"]):
        spots = [spot.model_dump(mode="json") for spot in spots_of(laid)]
        print(json.dumps({"spots": spots, "length": laid.length, "opened_from": laid.opened_from}), flush=True)
    print(json.dumps({"ended": True}), flush=True)


if __name__ == "__main__":
    main()
