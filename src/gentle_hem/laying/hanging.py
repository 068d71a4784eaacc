"""Where dresses are hung: one process each, one at a time; how each lies is told as it falls.

asked ──► process ──► {"shape"} ──► {"places"} ──► {"places"} … ──► {"shape"} … ──► {"rest"}      or {"refused"}
             │
             └── stopped: the process is ended; nothing of it is kept
"""

from __future__ import annotations

import hashlib
import json
import logging
import select
import subprocess
import sys
import threading
import time
from base64 import b64decode, b64encode
from collections import OrderedDict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from gentle_hem.laying.apart import begun, ended

log = logging.getLogger("gentle_hem")

HANG = ["-m", "gentle_hem.laying.hanging"]

EVERY = 0.4
"""How often a dress that falls is told of (s)."""

BEAT = 10.0
"""How often whoever watches is told that it goes on (s)."""

LONGEST = 240.0
"""A dress that has not come to rest after so long is given up (s)."""

KEPT = 12
"""Of how many dresses what came of them is kept."""

WAITS = 600.0
"""A process that is ready for the next dress waits for it so long (s)."""

NOT_HUNG = frozenset({"name", "unit"})
"""What of a recipe is not sewn: the same dress in another unit is hung once."""

RESTLESS = "This dress was let fall and did not come to rest; nothing is read from it."

State = Literal["falling", "rest", "refused", "failed", "stopped"]


Grown = Mapping[str, tuple[float, float]]
"""What was measured of cloths, by name: a length (m) and by which share it grew on the bias."""


def key_of(recipe: dict[str, Any], grown: Grown) -> str:
    """What is the same for two recipes that hang alike."""
    hung: dict[str, Any] = {part: value for part, value in recipe.items() if part not in NOT_HUNG}
    hung["grown"] = grown
    return hashlib.sha256(json.dumps(hung, sort_keys=True).encode()).hexdigest()


@dataclass
class Hanging:
    """A dress that is being hung, or was."""

    number: int
    key: str
    state: State = "falling"
    trouble: str = ""
    shape: dict[str, Any] | None = None
    places: list[int] | None = None
    right: dict[str, Any] = field(default_factory=dict)
    """The shape and the places of her right, where it is another than her left."""
    rest: dict[str, Any] | None = None
    lain: list[Any] | None = field(default=None, repr=False)
    """How its pieces lie at rest: what a like one begins from."""
    pictures: dict[str, bytes] = field(default_factory=dict, repr=False)
    """By the side it is seen from, as PNG; once it is at rest."""
    shapes: int = 0
    """How many shapes have been told: a new one is told whole."""
    changes: int = 0
    process: subprocess.Popen[str] | None = field(default=None, repr=False)


class HangingRoom:
    """Dresses that are hung, by number; the same recipe is hung once."""

    def __init__(self) -> None:
        self._changed = threading.Condition()
        self._one = threading.Semaphore(1)
        self._known: OrderedDict[int, Hanging] = OrderedDict()
        self._last = 0
        self._closed = False
        self._ready: subprocess.Popen[str] | None = None

    def start(self, recipe: dict[str, Any], grown: Grown, after: int | None = None) -> Hanging:
        """Hang what a recipe makes, of cloths that have ``grown``, from how the one with the number ``after`` lies,
        where that is known and has the same pieces; what was hung already, or is being hung, is answered.
        """
        key = key_of(recipe, grown)
        with self._changed:
            for known in self._known.values():
                if known.key == key and known.state in ("falling", "rest", "refused"):
                    self._known.move_to_end(known.number)
                    return known
            before = self._known.get(after) if after is not None else None
            job = {"recipe": recipe, "grown": grown, "lain": before.lain if before else None}
            self._last += 1
            made = self._known[self._last] = Hanging(self._last, key)
            done = [one.number for one in self._known.values() if one.state != "falling"]
            for number in done[: max(len(self._known) - KEPT, 0)]:
                del self._known[number]
        threading.Thread(target=self._hang, args=(made, job), name=f"hang {made.number}", daemon=True).start()
        return made

    def make_ready(self) -> None:
        """Begin a process that will hang the next dress: what it works with takes it seconds to read in."""
        with self._changed:
            if self._closed or (self._ready is not None and self._ready.poll() is None):
                return
            if self._ready is not None:
                ended(self._ready)
            self._ready = begun(HANG)

    def of(self, number: int) -> Hanging | None:
        """The dress with this number; None when it is not kept any more."""
        with self._changed:
            return self._known.get(number)

    def stop(self, made: Hanging) -> None:
        """End the falling of a dress."""
        with self._changed:
            if made.state == "falling":
                made.state = "stopped"
            self._end(made)
            self._tell(made)

    def close(self) -> None:
        """End all of them."""
        with self._changed:
            self._closed = True
            for made in self._known.values():
                self._end(made)
            if self._ready is not None:
                ended(self._ready)
            self._changed.notify_all()

    def watch(self, made: Hanging) -> Iterator[bool]:
        """Yields whenever there is news of a dress, and every few seconds between (False), until it is at an end."""
        seen = -1
        while not self._closed:
            with self._changed:
                if made.changes == seen and made.state == "falling":
                    self._changed.wait(timeout=BEAT)
                news, seen = made.changes != seen, made.changes
                ended = made.state != "falling"
            yield news
            if ended:
                return

    def _hang(self, made: Hanging, job: dict[str, Any]) -> None:
        with self._one:
            with self._changed:
                if made.state != "falling" or self._closed:
                    return
                ready, self._ready = self._ready, None
                made.process = process = ready if ready is not None and ready.poll() is None else begun(HANG)
            late = threading.Timer(LONGEST, process.kill)
            late.start()
            try:
                assert process.stdin is not None
                assert process.stdout is not None
                assert process.stderr is not None
                process.stdin.write(json.dumps(job))
                process.stdin.close()
                for line in process.stdout:
                    self._take(made, json.loads(line))
                code = process.wait()
                trouble = process.stderr.read() if code > 0 else ""
            except BrokenPipeError:
                code = process.wait()
                trouble = "its process ended before it was told what to hang"
            finally:
                late.cancel()
                ended(process)
        self.make_ready()
        with self._changed:
            if made.state == "falling":  # it ended without an answer
                made.state, made.trouble = "failed", RESTLESS if code < 0 else "Hanging this dress failed."
                if code > 0:
                    log.error("hanging a dress ended with %s: %s", code, trouble[-2000:])
                self._tell(made)

    def _take(self, made: Hanging, told: dict[str, Any]) -> None:
        with self._changed:
            if made.state != "falling":
                return
            if told.get("of") == "right":
                made.right |= {name: told[name] for name in ("shape", "places") if name in told}
            else:
                made.shape, made.places = told.get("shape", made.shape), told.get("places", made.places)
            made.shapes += "shape" in told
            if "rest" in told:
                made.rest, made.state, made.lain = told["rest"], "rest", told["lain"]
                made.pictures = {view: b64decode(png) for view, png in told["pictures"].items()}
            if "refused" in told:
                made.state, made.trouble = "refused", told["refused"]
            self._tell(made)

    def _tell(self, made: Hanging) -> None:
        made.changes += 1
        self._changed.notify_all()

    def _end(self, made: Hanging) -> None:
        if made.process is not None and made.process.poll() is None:
            made.process.kill()


def main() -> None:
    """Read a recipe and how it lay before, hang what it makes, and print how it lies as it falls."""
    from dataclasses import asdict

    import numpy as np

    from gentle_hem.core.hang.dress import hang
    from gentle_hem.core.hang.finer import Finer
    from gentle_hem.core.hang.mesh import Numbers
    from gentle_hem.core.hang.pictures import as_png, pictured
    from gentle_hem.core.hang.pieces import CannotHang
    from gentle_hem.core.hang.reading import read, strained
    from gentle_hem.core.hang.rest import NotAtRest
    from gentle_hem.core.hang.sewn import Sewn
    from gentle_hem.core.hang.shown import in_hundredths, in_mm, shape_of
    from gentle_hem.core.make_up import make_up
    from gentle_hem.core.recipe import read_recipe

    ready, _, _ = select.select([sys.stdin], [], [], WAITS)
    if not ready:
        return
    job = json.loads(sys.stdin.read())
    recipe = read_recipe(job["recipe"])
    before = job["lain"] and {
        (name, part, number): (np.array(laid), np.array(places)) for name, part, number, laid, places in job["lain"]
    }
    garment = make_up(recipe)
    begun_with: list[Sewn] = []
    told_at = 0.0

    def say(told: dict[str, Any]) -> None:
        print(json.dumps(told, separators=(",", ":")), flush=True)

    def tell(sewn: Sewn, places: Numbers) -> None:
        nonlocal told_at
        of = sewn.side or "left"
        if not begun_with or begun_with[-1] is not sewn:
            begun_with.append(sewn)
            say({"of": of, "shape": shape_of(Finer.whole(sewn), recipe), "places": in_mm(places)})
        elif time.monotonic() - told_at >= EVERY:
            say({"of": of, "places": in_mm(places)})
        else:
            return
        told_at = time.monotonic()

    try:
        dress = hang(recipe, garment, tell, lain=before, grown=job["grown"])
    except CannotHang as why:
        say({"refused": str(why)})
    except NotAtRest:
        say({"refused": RESTLESS})
    else:
        sides = {"left": dress, **({"right": dress.right} if dress.right else {})}
        drawn = {side: Finer.of(of.sewn, of.now) for side, of in sides.items()}
        shown = {
            side: {**({"shape": shape_of(drawn[side], recipe)} if drawn[side].is_finer else {}),
                   "places": in_mm(drawn[side].lain(of.now))} for side, of in sides.items()
        }  # fmt: skip
        if dress.right is not None:
            say({"of": "right", **shown["right"]})
        say({
            **shown["left"],
            "rest": {"later": {side: in_mm(drawn[side].lain(of.later)) for side, of in sides.items()},
                     "ways": {side: in_hundredths(drawn[side].ways(of.now)) for side, of in sides.items()},
                     "ways_later": {side: in_hundredths(drawn[side].ways(of.later)) for side, of in sides.items()},
                     "strains": {side: np.round(1000 * strained(of)).astype(int)[drawn[side].part_of].tolist()
                                 for side, of in sides.items()},
                     "reading": asdict(read(dress, recipe, garment, job["grown"]))},
            "lain": [[*key, np.round(laid, 5).tolist(), np.round(at, 5).tolist()]
                     for key, (laid, at) in dress.sewn.lain(dress.now).items()],
            "pictures": {view: b64encode(png).decode() for view, png in as_png(pictured(dress, recipe))},
        })  # fmt: skip


if __name__ == "__main__":
    main()
