"""A cloth that is too narrow or too short: what else can be made of it, each way laid and so priced.

too wide a piece ──► more pieces · fewer degrees · less full · shorter · a joined corner · crosswise
too little cloth ──► the same, until it is enough
the cloth first  ──► every kind of lower part, as long as this cloth makes it on this figure (trade 7.5, 12)
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from pydantic import ValidationError

from gentle_hem.core.cloth.asked import Folding, LayAsked
from gentle_hem.core.cloth.bought import bought
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import Lay, lay, laying, length_of, placed_flat, things_for
from gentle_hem.core.cloth.squares import in_orders
from gentle_hem.core.cloth.things import Lie
from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed, with_step
from gentle_hem.core.steps.princess import PrincessSeam
from gentle_hem.core.units import Tape, Unit, format_length, inches, plain

DEGREES = (540.0, 450.0, 360.0, 270.0, 240.0, 180.0, 150.0, 120.0, 90.0)
FULLNESSES = (3.0, 2.5, 2.0, 1.75, 1.5, 1.25)
PIECES = (2, 4, 8)
SHORTEST = 150.0
"""No way makes a lower part shorter than this (mm)."""

HALVINGS = 7


@dataclass(frozen=True)
class WayOut:
    """One way to cut a dress from a cloth: what is changed of the dress or of its lay, and the lay it comes to."""

    text: str
    recipe: Recipe
    garment: Garment
    laid: Lay
    changes: dict[str, Any] | None = None
    asked: LayAsked | None = None


@dataclass(frozen=True)
class _Bench:
    """A dress, a cloth, and whether what is tried can be cut from it."""

    recipe: Recipe
    asked: LayAsked
    cloth: Cloth
    tape: Tape

    @cached_property
    def stops(self) -> set[str]:
        return _stops(make_up(self.recipe))

    def with_changes(self, text: str, changes: dict[str, Any]) -> WayOut | None:
        """The dress with some words changed, where it can be made and then be cut from the cloth."""
        try:
            recipe = changed(self.recipe, changes)
        except (ValidationError, KeyError):
            return None
        garment = make_up(recipe)
        if _stops(garment) - self.stops:
            return None
        width, how = self.asked.on(self.cloth)
        laid = lay(garment, self.asked.role, width, how)
        return WayOut(text, recipe, garment, laid, changes=changes) if self.fits(laid) else None

    def laid_as(self, text: str, asked: LayAsked) -> WayOut | None:
        """The dress as it is, laid another way, where it is then cut from the cloth."""
        garment = make_up(self.recipe)
        width, how = asked.on(self.cloth)
        laid = lay(garment, asked.role, width, how)
        return WayOut(text, self.recipe, garment, laid, asked=asked) if self.fits(laid) else None

    def fits(self, laid: Lay) -> bool:
        if laid.too_wide or laid.faults or not laid.placed:
            return False
        left = bought(laid.length, self.cloth, self.tape, self.asked.safety).left
        return left is None or left >= 0

    def goes_on(self, changes: dict[str, Any]) -> bool:
        """Quickly, by one placement: whether a dress can be made and goes on the cloth."""
        try:
            garment = make_up(changed(self.recipe, changes))
        except (ValidationError, KeyError):
            return False
        if _stops(garment) - self.stops:
            return False
        width, how = self.asked.on(self.cloth)
        if self.asked.folding is not Folding.FLAT:
            return self.fits(lay(garment, self.asked.role, width, how))
        on = things_for(garment, self.asked.role, width, how)
        if on.too_wide or not on.things:
            return False
        length = length_of(placed_flat(in_orders(on.things)[0], width, how)) if self.cloth.in_hand is not None else 0.0
        left = bought(length, self.cloth, self.tape, self.asked.safety).left
        return left is None or left >= 0

    def longest(self, change: Callable[[float], dict[str, Any]], most: float) -> float | None:
        """The greatest length (mm) that goes on the cloth, on a whole mark of the tape; None where not even the least
        does.
        """
        step = 5.0 if self.tape.unit is Unit.CM else inches(1 / 4)
        low, high = int(SHORTEST // step) + 1, int(most / step + 1e-6)
        if self.goes_on(change(high * step)):
            return high * step
        if not self.goes_on(change(low * step)):
            return None
        while high - low > 1:
            middle = (low + high) // 2
            low, high = (middle, high) if self.goes_on(change(middle * step)) else (low, middle)
        return low * step


def _stops(garment: Garment) -> set[str]:
    return {finding.code for finding in garment.findings if finding.severity is Severity.STOP}


def ways_out(recipe: Recipe, asked: LayAsked, cloth: Cloth, tape: Tape) -> list[WayOut]:
    """Every way that is tried and can be cut, the one that takes least cloth first. Each has been made and laid."""
    bench = _Bench(recipe, asked, cloth, tape)
    found = [way for way in _tried(bench) if way is not None]
    return sorted(found, key=lambda way: way.laid.length)


def _tried(bench: _Bench) -> Iterator[WayOut | None]:
    lower, tape = bench.recipe.lower, bench.tape
    words = lower.model_dump()
    pieces = words.get("pieces")
    if isinstance(pieces, int):
        for more in PIECES:
            if more > pieces:
                yield bench.with_changes(f"cut its lower part in {more} pieces", {"lower.pieces": more})
    if isinstance(words.get("count"), int):
        for more in (words["count"] + 2, words["count"] + 4):
            yield bench.with_changes(f"cut it in {more} gores", {"lower.count": more})
    sweep = words.get("sweep")
    if isinstance(sweep, float | int):
        fewer = [degrees for degrees in DEGREES if degrees < sweep - 1][:3]
        for degrees in fewer:
            yield bench.with_changes(f"{plain(degrees)}° in the place of {plain(sweep)}°", {"lower.sweep": degrees})
    full = words.get("fullness")
    if isinstance(full, float | int):
        for times in [times for times in FULLNESSES if times < full - 0.01][:2]:
            yield bench.with_changes(
                f"{tape.number(plain(times, 2))} times as full, in the place of {tape.number(plain(full, 2))}",
                {"lower.fullness": times},
            )
    hem = words.get("hem_sweep")
    if isinstance(hem, float | int):
        for share in (0.85, 0.7):
            narrow = round(hem * share / 10) * 10.0
            yield bench.with_changes(f"a hem of {format_length(narrow, tape)} all round", {"lower.hem_sweep": narrow})
    yield from _in_panels(bench)
    for k, trim in enumerate(bench.recipe.trims):
        rings = trim.model_dump().get("rings")
        if isinstance(rings, int):
            for more in (rings + 1, rings + 2):
                title = trim.title[:1].lower() + trim.title[1:]
                yield bench.with_changes(f"cut the {title} in {more} rings", {f"trims.{k}.rings": more})
    length = words.get("length")
    if isinstance(length, float | int) and length > SHORTEST:
        best = bench.longest(lambda long: {"lower.length": long}, length)
        if best is not None and best < length - 1:
            yield bench.with_changes(f"{format_length(best, tape)} long", {"lower.length": best})
    if bench.asked.folding is Folding.FLAT:
        width, how = bench.asked.on(bench.cloth)
        wide = laying(make_up(bench.recipe), bench.asked.role, width, how).too_wide
        if wide:
            yield bench.laid_as("join its corners on", bench.asked.model_copy(update={"corners": True}))
            across = {**bench.asked.lies, **{one.name: Lie.CROSSWISE for one in wide}}
            if bench.cloth.nap == "none":
                yield bench.laid_as("lay what is too wide crosswise", bench.asked.model_copy(update={"lies": across}))


def _in_panels(bench: _Bench) -> Iterator[WayOut | None]:
    """A gown cut in one with princess seams: twice as many panels, each half as wide."""
    if not isinstance(bench.recipe.lower, Gown) or any(isinstance(step, PrincessSeam) for step in bench.recipe.steps):
        return
    for start, words in (("shoulder", "from the shoulder"), ("armhole", "from the armhole")):
        panels = with_step(bench.recipe, {"kind": "princess", "on": "both", "start": start})
        yield bench.with_changes(f"cut it in panels, with princess seams {words}", panels)


@dataclass(frozen=True)
class CanBeMade:
    """A kind of lower part, and how long this cloth makes it on this figure (mm); None: not at all."""

    title: str
    length: float | None
    lower: dict[str, Any]


KINDS: tuple[tuple[str, dict[str, Any]], ...] = (
    ("full circle", {"kind": "circle", "sweep": 360, "pieces": 2}),
    ("full circle in four", {"kind": "circle", "sweep": 360, "pieces": 4}),
    ("three-quarter circle", {"kind": "circle", "sweep": 270, "pieces": 2}),
    ("half circle", {"kind": "circle", "sweep": 180, "pieces": 2}),
    ("gathered twice", {"kind": "gathered", "fullness": 2}),
    ("gathered one and a half times", {"kind": "gathered", "fullness": 1.5}),
    ("six gores", {"kind": "gores", "count": 6}),
    ("A-line", {"kind": "a_line"}),
    ("straight", {"kind": "straight"}),
)

USUAL_FLOOR = 1050.0


def can_be_made(recipe: Recipe, asked: LayAsked, cloth: Cloth, tape: Tape) -> list[CanBeMade]:
    """What lower parts this cloth makes under this bodice, each as long as it goes, down to the floor at most."""
    bench = _Bench(recipe, asked, cloth, tape)
    floor = recipe.figure.measures.get("waist_to_floor") or USUAL_FLOOR
    made = []
    for title, part in KINDS:
        best = bench.longest(lambda long, part=part: {"lower": {**part, "length": long}}, floor)  # type: ignore[misc]
        made.append(CanBeMade(title, best, {**part, "length": best or SHORTEST}))
    return made
