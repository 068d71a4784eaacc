"""The waist seam: both edges unrolled from centre front to centre back and laid one above the other.

    bodice   CF ───────── dart ───────────── side ──────── dart ─────── CB
               │            │                  ╲              ╲          ╲
    lower    CF ───────── dart ───────────────── side ──────── dart ─────── CB

Lengths are those of the half garment, on the stitching line, darts closed. D = lower − bodice.
"""

from __future__ import annotations

import itertools
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, note, stop, warn
from gentle_hem.core.pattern import Dart, EdgeRef, Piece, Verdict
from gentle_hem.core.walk import GATHERED_FROM, verdict_on
from gentle_hem.core.workings import Percent

CENTRE_FRONT = "centre front"
FRONT_DART = "front dart"
SIDE_SEAM = "side seam"
BACK_DART = "back dart"
CENTRE_BACK = "centre back"

FRONT_PRINCESS = "front princess seam"
BACK_PRINCESS = "back princess seam"


def is_shaping(landmark: str) -> bool:
    """Whether a landmark is a dart or a princess seam: a place to put a dart of the lower part under."""
    return "dart" in landmark or "princess" in landmark


INVISIBLE_OFFSET = 3.0
"""A landmark off by up to 3 mm is not seen, common practice (trade 9.1)."""

ACCEPTABLE_OFFSET = 6.0
"""Up to 6 mm passes on prints that hide it; more must be moved, common practice (trade 9.1)."""


@dataclass(frozen=True, slots=True)
class Landmark:
    """A named place along an unrolled edge: its distance from the centre front, darts closed."""

    name: str
    at: float


@dataclass(frozen=True, slots=True)
class Unrolled:
    """One side of a join laid out straight, from its first landmark to its last."""

    landmarks: tuple[Landmark, ...]
    runs: tuple[tuple[str, str, float], ...] = ()
    """The edges it is made of, in order: piece, edge, stitched length."""

    @property
    def length(self) -> float:
        return self.landmarks[-1].at

    def drawn_up(self, fullness: float) -> Unrolled:
        """The edge as it lies once it is gathered to a ``fullness``-th of its length."""
        if fullness == 1.0:
            return self
        return Unrolled(
            tuple(Landmark(mark.name, mark.at / fullness) for mark in self.landmarks),
            tuple((piece, edge, length / fullness) for piece, edge, length in self.runs),
        )

    def at(self, name: str) -> float | None:
        """Distance of a landmark from the start; None when this edge does not have it."""
        for mark in self.landmarks:
            if mark.name == name:
                return mark.at
        return None

    def between(self, first: str, last: str) -> float:
        """Length from one landmark to another; KeyError when either is missing."""
        start, end = self.at(first), self.at(last)
        if start is None or end is None:
            raise KeyError(f"no {first if start is None else last} on this edge")
        return end - start

    def darts(self) -> tuple[Landmark, ...]:
        """The darts and princess seams met on the way."""
        return tuple(mark for mark in self.landmarks if is_shaping(mark.name))


def unroll(refs: tuple[EdgeRef, ...], pieces: Mapping[str, Piece], corners: tuple[str, ...]) -> Unrolled:
    """Lay edges end to end. ``corners`` names the places where they begin, meet and end.

    Darts and notches with a landmark become landmarks; a dart, being closed, is one place.
    """
    found = [Landmark(corners[0], 0.0)]
    runs = []
    start = 0.0
    for ref, corner in zip(refs, corners[1:], strict=True):
        piece = pieces[ref.piece]
        drawn = piece.edge(ref.edge).drawn_length
        darts = piece.darts_of(ref.edge)
        marks = [(dart.at + dart.intake / 2, dart.landmark) for dart in darts]
        marks += [(n.at, n.landmark) for n in piece.notches if n.edge == ref.edge and n.landmark]
        for at, name in sorted(marks, reverse=ref.backwards):
            closed = _closed(at, darts)
            whole = drawn - sum(dart.intake for dart in darts)
            found.append(Landmark(name, start + (whole - closed if ref.backwards else closed)))
        length = piece.stitched_length(ref.edge)
        runs.append((ref.piece, ref.edge, length))
        start += length
        found.append(Landmark(corner, start))
    return Unrolled(tuple(found), tuple(runs))


def _closed(at: float, darts: tuple[Dart, ...]) -> float:
    """A length along an edge as it becomes when the darts before it are closed."""
    taken = 0.0
    for dart in darts:
        taken += min(max(at - dart.at, 0.0), dart.intake)
    return at - taken


@dataclass(frozen=True, slots=True)
class Tie:
    """One landmark of the join: where it lies above and below, and how far apart."""

    name: str
    upper: float
    lower: float

    @property
    def offset(self) -> float:
        return self.lower - self.upper


@dataclass(frozen=True, slots=True)
class Section:
    """From one tied landmark to the next: lengths above and below."""

    start: str
    end: str
    upper: float
    lower: float

    @property
    def difference(self) -> float:
        return self.lower - self.upper


@dataclass(frozen=True, slots=True)
class JoinReport:
    """A join, measured: both edges, the ties, the sections, and ways to close what is open."""

    name: str
    upper: Unrolled
    lower: Unrolled
    ease: float
    verdict: Verdict
    remedies: tuple[Remedy, ...] = ()
    fullness: float = 1.0
    """How many times as long the lower edge is cut; it is shown as it lies once gathered or pleated."""
    manner: str = "flat"
    upper_name: str = "bodice"
    lower_name: str = "skirt"

    @property
    def times(self) -> int:
        """How many times the whole garment has what is laid out here: a join from the centre front is a half."""
        return 2 if self.upper.landmarks[0].name == CENTRE_FRONT else 1

    @property
    def difference(self) -> float:
        """Lower minus bodice, half garment."""
        return self.lower.length - self.upper.length

    @property
    def open_difference(self) -> float:
        """What is left to close once the intended ease is taken up, half garment."""
        over = self.difference
        return over - min(max(over, min(0.0, self.ease)), max(0.0, self.ease))

    @property
    def ties(self) -> tuple[Tie, ...]:
        """Landmarks that both edges have, in order along the upper."""
        tied = []
        for mark in self.upper.landmarks:
            below = self.lower.at(mark.name)
            if below is not None:
                tied.append(Tie(mark.name, mark.at, below))
        return tuple(tied)

    @property
    def sections(self) -> tuple[Section, ...]:
        ties = self.ties
        return tuple(Section(a.name, b.name, b.upper - a.upper, b.lower - a.lower) for a, b in itertools.pairwise(ties))


EASE_FIRM = 0.01
EASE_PLIABLE = 0.03
"""Ease a seam takes without folds: 1 % on firm cloth, up to 3 % on pliable wool or crepe, common
practice (trade 9.1)."""


def compare(
    name: str, upper: Unrolled, lower: Unrolled, ease: float, *, fullness: float = 1.0, manner: str = "flat",
    names: tuple[str, str] = ("bodice", "skirt"),
) -> JoinReport:  # fmt: skip
    """Lay two edges against each other. ``ease`` is meant for the whole garment, so half is taken here.

    An edge cut ``fullness`` times as long is shown as it lies once gathered.
    """
    half = ease / 2
    laid = lower.drawn_up(fullness)
    verdict = verdict_on(laid.length - upper.length, half)
    if verdict.fits and fullness > GATHERED_FROM:
        verdict = Verdict.GATHERED
    return JoinReport(name, upper, laid, half, verdict, (), fullness, manner, *names)


def ease_remedy(report: JoinReport, planned: float, pin: Mapping[str, Any]) -> Remedy | None:
    """Sewing the longer edge onto the shorter without folds; None beyond what cloth allows.

    ``planned`` is the ease already planned; ``pin`` are the changes that hold the lower edge as it is.
    """
    whole = 2 * (report.difference - report.ease)
    share = abs(whole) / (2 * min(report.upper.length, report.lower.length))
    if share > EASE_PLIABLE:
        return None
    longer = report.lower_name if whole > 0 else report.upper_name
    cloth = "any cloth takes this" if share <= EASE_FIRM else "pliable wool or crepe only"
    return Remedy(
        "ease",
        "Ease {amount} of the " + longer + " in along the seam",
        {**pin, "join.ease": planned + whole},
        "{share} of the seam; " + cloth,
        {"amount": abs(whole), "share": Percent(share * 100)},
    )


def findings_for(report: JoinReport) -> list[Finding]:
    """Whether the join meets, in total and at each landmark, in a sentence each."""
    found: list[Finding] = []
    first, last = report.upper.landmarks[0].name, report.upper.landmarks[-1].name
    places = tuple(Place(piece=piece, edge=edge) for piece, edge, _ in report.upper.runs + report.lower.runs)
    if report.verdict in (Verdict.LONGER, Verdict.SHORTER):
        found.append(
            stop(
                "waist-does-not-meet" if report.name == "waist seam" else "join-does-not-meet",
                "The {seam} does not meet: the {above} measures {upper} and the {below} {lower}, so the {below} is "
                "{gap} too " + ("long" if report.difference > 0 else "short") + " all round.",
                *places,
                *in_recipe("lower.seam"),
                remedies=report.remedies,
                seam=report.name,
                above=report.upper_name,
                below=report.lower_name,
                upper=report.times * report.upper.length,
                lower=report.times * report.lower.length,
                gap=report.times * abs(report.difference),
            )
        )
        return found
    if report.fullness > GATHERED_FROM:
        return found  # gathers are shared out between the marks
    for tie in report.ties:
        off = abs(tie.offset)
        if tie.name in (first, last) or off <= INVISIBLE_OFFSET:
            continue
        say = warn if off > ACCEPTABLE_OFFSET else note
        found.append(
            say(
                "landmark-does-not-meet",
                "The {mark} of the {below} lies {gap} "
                + ("behind" if tie.offset > 0 else "before")
                + " that of the {above}; "
                + ("move it." if off > ACCEPTABLE_OFFSET else "a busy print hides it."),
                *places,
                mark=tie.name,
                above=report.upper_name,
                below=report.lower_name,
                gap=off,
            )
        )
    return found
