"""Walking the seams: one edge measured along its mate, stitching line on stitching line.

a   |────────────|──────|
b   |─────────────|──────|        b − a − ease = what is over
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from gentle_hem.core.findings import Finding, Place, stop
from gentle_hem.core.pattern import EdgeRef, Piece, Seam, Verdict

SEAM_TOLERANCE = 1.5
"""Plain seams are equal within 1.5 mm (1/16 in), common practice (trade 9.1)."""


GATHERED_FROM = 1.001


@dataclass(frozen=True, slots=True)
class Walked:
    """A seam measured: both lengths, what is over beyond the ease, and the verdict."""

    seam: Seam
    length_a: float
    length_b: float
    verdict: Verdict

    @property
    def difference(self) -> float:
        return self.length_b / self.seam.fullness - self.length_a


def length_of(refs: tuple[EdgeRef, ...], pieces: Mapping[str, Piece]) -> float:
    """Stitched length of edges end to end."""
    return sum(pieces[ref.piece].stitched_length(ref.edge) for ref in refs)


def verdict_on(difference: float, ease: float) -> Verdict:
    """What a difference b − a means when an ease of ``ease`` was meant."""
    low, high = min(0.0, ease) - SEAM_TOLERANCE, max(0.0, ease) + SEAM_TOLERANCE
    if difference > high:
        return Verdict.LONGER
    if difference < low:
        return Verdict.SHORTER
    return Verdict.MEETS if abs(difference) <= SEAM_TOLERANCE else Verdict.EASED


def walk(seam: Seam, pieces: Mapping[str, Piece]) -> Walked:
    """Measure both sides of a seam and judge it."""
    a, b = length_of(seam.a, pieces), length_of(seam.b, pieces)
    verdict = verdict_on(b / seam.fullness - a, seam.ease)
    if verdict.fits and seam.fullness > GATHERED_FROM:
        verdict = Verdict.GATHERED
    return Walked(seam, a, b, verdict)


def finding_for(walked: Walked) -> Finding | None:
    """The finding for a seam that does not walk; None when it does."""
    if walked.verdict.fits:
        return None
    refs = walked.seam.a + walked.seam.b
    places = tuple(Place(piece=ref.piece, edge=ref.edge) for ref in refs)
    return stop(
        "seam-does-not-walk",
        "The {seam} does not walk: {first} measures {a}, {second} measures {b}; the difference is {gap}.",
        *places,
        seam=walked.seam.name,
        first=walked.seam.a[0].piece,
        second=walked.seam.b[0].piece,
        a=walked.length_a,
        b=walked.length_b,
        gap=abs(walked.difference),
    )
