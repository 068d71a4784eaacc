"""Do the measures agree with each other? (trade 3.3)

Rules of thumb for adults, common practice throughout. Each is a finding with the numbers in it, never
a block: people are not averages.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import Any

from gentle_hem.core.figure import MEASURES, READINGS_AGREE, Figure, MeasureKey
from gentle_hem.core.findings import Finding, in_recipe, warn
from gentle_hem.core.population import against_the_population
from gentle_hem.core.units import inches

GIRTHS: tuple[MeasureKey, ...] = ("bust_girth", "waist_girth", "hip_girth", "upper_bust_girth", "under_bust_girth")


def agreement(figure: Figure) -> list[Finding]:
    """Every place where two measures do not look like one person's."""
    return [
        *_simulated(figure), *_readings(figure), *_units(figure), *_girths(figure), *_lengths(figure),
        *against_the_population(figure),
    ]  # fmt: skip


def _disagree(code: str, template: str, *keys: MeasureKey, **values: Any) -> Finding:
    return warn(code, template, *in_recipe(*(f"figure.measures.{key}" for key in keys)), **values)


def _simulated(figure: Figure) -> Iterator[Finding]:
    """A reading of the stand-in tape is nobody's measure."""
    for key in figure.simulated:
        if key in figure.measures:
            yield _disagree(
                "simulated-reading", f"The {MEASURES[key]} of {{reading}} is a reading of the simulated tape; take it "
                "on the person before you cut.", key, reading=figure.measures[key],
            )  # fmt: skip


def _readings(figure: Figure) -> Iterator[Finding]:
    """Two readings more than 1 cm apart: take a third."""
    for key, second in figure.second.items():
        first = figure.measures.get(key)
        if first is not None and abs(first - second) > READINGS_AGREE:
            yield _disagree(
                "readings-apart", f"Two readings of the {MEASURES[key]} are {{gap}} apart, {{first}} and {{second}}; "
                "take a third.", key, gap=abs(first - second), first=first, second=second,
            )  # fmt: skip


def _units(figure: Figure) -> Iterator[Finding]:
    """Girths below 30 cm or above 80 in are almost always the other unit (trade 3.2)."""
    for key in GIRTHS:
        girth = figure.get(key)
        if girth is not None and (girth < 300 or girth > inches(80)):
            other = girth * 2.54 if girth < 300 else girth / 2.54
            yield _disagree(
                "measure-in-other-unit",
                f"The {MEASURES[key]} of {{girth}} looks like the other unit; was {{other}} meant?",
                key, girth=girth, other=other,
            )  # fmt: skip


def _girths(figure: Figure) -> Iterator[Finding]:
    bust, waist, hip = (figure.get(key) for key in ("bust_girth", "waist_girth", "hip_girth"))
    under, upper, span = (figure.get(key) for key in ("under_bust_girth", "upper_bust_girth", "bust_span"))
    if bust and under and not 80 <= bust - under <= 250:
        yield _disagree(
            "under-bust-and-bust",
            "The bust of {bust} and the under-bust of {under} are {gap} apart; 8 to 25 cm is usual.",
            "bust_girth", "under_bust_girth", bust=bust, under=under, gap=abs(bust - under),
        )  # fmt: skip
    if bust and upper and not (-50 <= upper - bust <= 0 or (under and under <= upper <= bust)):
        yield _disagree(
            "upper-bust-and-bust",
            "The upper bust of {upper} does not lie between the under-bust and the bust of {bust}.",
            "upper_bust_girth", "bust_girth", upper=upper, bust=bust,
        )  # fmt: skip
    if waist and hip and waist >= hip:
        yield _disagree(
            "waist-not-below-hip", "The waist of {waist} is no smaller than the hip of {hip}; nearly always it is.",
            "waist_girth", "hip_girth", waist=waist, hip=hip,
        )  # fmt: skip
    if waist and bust and waist >= bust:
        yield _disagree(
            "waist-not-below-bust", "The waist of {waist} is no smaller than the bust of {bust}; nearly always it is.",
            "waist_girth", "bust_girth", waist=waist, bust=bust,
        )  # fmt: skip
    if bust and span and not bust / 6 <= span <= bust / 4.3:
        yield _disagree(
            "bust-span-and-bust",
            "A bust span of {span} does not go with a bust of {bust}; {least} to {most} is usual.",
            "bust_span", "bust_girth", span=span, bust=bust, least=bust / 6, most=bust / 4.3,
        )  # fmt: skip


def _lengths(figure: Figure) -> Iterator[Finding]:
    front, back = figure.get("front_waist_length"), figure.get("back_waist_length")
    drop, crotch = figure.get("waist_to_hip"), figure.get("crotch_depth")
    knee, floor = figure.get("waist_to_knee"), figure.get("waist_to_floor")
    if front and back and front <= back:
        yield _disagree(
            "front-not-longer-than-back",
            "The front waist length of {front} is not longer than the back's {back}; the bust makes it longer.",
            "front_waist_length", "back_waist_length", front=front, back=back,
        )  # fmt: skip
    elif front and back and front - back > inches(3):
        yield _disagree(
            "front-much-longer-than-back",
            "The front waist length is {gap} longer than the back's; 2 to 4 cm is usual, up to 3 in on full busts.",
            "front_waist_length", "back_waist_length", gap=front - back,
        )  # fmt: skip
    levels: tuple[MeasureKey, ...] = ("shoulder_to_bust_point", "shoulder_to_under_bust", "front_waist_length")
    down = [(key, value) for key in levels if (value := figure.get(key))]
    for (upper_key, higher), (lower_key, lower) in pairwise(down):
        if higher >= lower:
            yield _disagree(
                "levels-out-of-order",
                f"The {MEASURES[upper_key]} of {{higher}} should be shorter than the "
                f"{MEASURES[lower_key]} of {{lower}}.",
                upper_key, lower_key, higher=higher, lower=lower,
            )  # fmt: skip
    if drop and not 150 <= drop <= inches(10):
        yield _disagree(
            "waist-to-hip-unusual", "Waist to hip of {drop}: 7 in on small statures to 10 in is usual.",
            "waist_to_hip", drop=drop,
        )  # fmt: skip
    if drop and crotch and not 10 <= crotch - drop <= 50:
        yield _disagree(
            "crotch-and-hip-levels", "The crotch depth of {crotch} should lie 1 to 5 cm below the hip level of {drop}.",
            "crotch_depth", "waist_to_hip", crotch=crotch, drop=drop,
        )  # fmt: skip
    if knee and floor and not 0.54 <= knee / floor <= 0.60:
        yield _disagree(
            "knee-level", "Waist to knee of {knee} does not go with waist to floor of {floor}; "
            "{least} to {most} is usual.",
            "waist_to_knee", "waist_to_floor", knee=knee, floor=floor, least=0.54 * floor, most=0.60 * floor,
        )  # fmt: skip
