"""What is read from a dress that hangs, in words: for those who cannot see it, and as its record."""

from __future__ import annotations

from gentle_hem.core.hang.as_steps import LEVEL_WITHIN
from gentle_hem.core.hang.reading import ARMHOLE, NECK, SEEN, TIGHT, HangReading, Walk
from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said, format_length
from gentle_hem.core.wear import LEAST_CLEARANCE

SLID = 15.0
"""A bodice that lies lower by more has slid down (mm)."""

NOTHING = 0.5
"""Less is left as it is (mm)."""

FLOOR_LENGTH = 80.0
"""A hem that hangs lower is in the way on stairs (mm), from memory."""


BOTH = "Her left and her right are not alike: each is hung as if the other were like it."


def said_cut(cut: float, unit: Said) -> str:
    """How much is cut off or added at a place of the hem, in words."""
    if abs(cut) < NOTHING:
        return "leave it"
    return f"cut off {format_length(cut, unit)}" if cut > 0 else f"add {format_length(-cut, unit)}"


def _walked(walk: Walk, unit: Said) -> list[str]:
    """How she walks in it, in words."""

    def long(value: float) -> str:
        return format_length(value, unit)

    made = []
    if walk.step is not None:
        enough = "she steps out freely" if walk.hem >= walk.step else "it needs a slit or vent, if it has none"
        made.append(f"The hem is {long(walk.hem)} round; a step there takes about {long(walk.step)}: {enough}.")
    if walk.lowest < LEAST_CLEARANCE:
        made.append(
            f"It comes down to {long(max(walk.lowest, 0.0))} above the floor {walk.where}: it is trodden on, and is a "
            "danger on stairs and escalators."
        )
    elif walk.lowest < FLOOR_LENGTH:
        made.append(
            f"Lowest it hangs {long(walk.lowest)} above the floor, {walk.where}: on stairs and escalators it has to be "
            "lifted."
        )
    return made


def figures(reading: HangReading, unit: Said) -> dict[str, str]:
    """What is set beside other dresses, said."""
    made = {}
    if reading.ribbon is not None and reading.walk is not None:
        drop = max(now - later for now, later in zip(reading.ribbon.now, reading.ribbon.later, strict=True))
        made = {
            "round the hem": format_length(reading.walk.hem, unit),
            "wide at the hem": format_length(reading.wide, unit),
            "folds": _folded(reading, unit).removeprefix("in "),
            "drops in two days": format_length(max(drop, 0.0), unit),
            "lowest above the floor": format_length(max(reading.walk.lowest, 0.0), unit),
        }
    return made


def _folded(reading: HangReading, unit: Said) -> str:
    """Its folds, in words."""
    if not reading.folds:
        return "without a fold"
    if reading.folds == 1:
        return f"in one fold {format_length(reading.deep, unit)} deep"
    return f"in {reading.folds} folds some {format_length(reading.deep, unit)} deep"


def said(reading: HangReading, unit: Said) -> list[str]:
    """The reading in words, for those who cannot see it, and as its record: what is alike on both sides once."""
    left = _said_of_side(reading, unit)
    if reading.right is None:
        return left
    right = _said_of_side(reading.right, unit)
    return [
        BOTH,
        *(sentence for sentence in left if sentence in right),
        *(_of_side("left", sentence) for sentence in left if sentence not in right),
        *(_of_side("right", sentence) for sentence in right if sentence not in left),
    ]


def _of_side(side: str, sentence: str) -> str:
    return f"Her {side}: {sentence[0].lower()}{sentence[1:]}"


def _said_of_side(reading: HangReading, unit: Said) -> list[str]:
    """What is said of one side, or of both where they are alike."""

    def long(value: float) -> str:
        return format_length(value, unit)

    made = []
    ribbon = reading.ribbon
    if ribbon is not None:
        made.append(
            f"The hem hangs {long(min(ribbon.now))} to {long(max(ribbon.now))} above the floor, and "
            f"{long(min(ribbon.later))} to {long(max(ribbon.later))} after two days."
        )
        drop = max(now - later for now, later in zip(ribbon.now, ribbon.later, strict=True))
        if drop > SEEN:
            made.append(f"It drops by up to {long(drop)} on the bias meanwhile.")
        if ribbon.uneven <= LEVEL_WITHIN:
            made.append("It is as even as it was asked.")
        else:
            made.append(f"Against what was asked it rises and falls by {long(ribbon.uneven)} all round: level it.")
        if reading.walk is not None:
            made += _walked(reading.walk, unit)
        if reading.levelling.why:
            made.append(reading.levelling.why)
        if reading.is_legs and reading.walk is not None:
            made.append(f"The hem of a leg is {long(reading.walk.hem)} round, {_folded(reading, unit)}.")
        else:
            made.append(f"At the hem it is {long(reading.wide)} wide, {_folded(reading, unit)}.")
    for level in reading.levels:
        strain = 100 * level.strain
        place = named(level.name)
        if level.strain > TIGHT:
            made.append(f"At the {place} it is tight: the cloth is stretched by {strain:.1f} %, most {level.where}.")
        elif level.room < NOTHING:
            made.append(f"At the {place} it lies on her without room, stretched by {max(strain, 0.0):.1f} %.")
        else:
            made.append(
                f"At the {place} it has {long(level.room)} of room, and is stretched by no more than "
                f"{max(strain, 0.0):.1f} %."
            )
    for gape in reading.gapes:
        made.append(
            f"The neck edge stands off her by {long(gape.off)} {gape.where}." if gape.edge == NECK
            else f"The armhole is {long(gape.off)} longer than she is round the arm's joint, with room to move: it "
            "gapes."
        )  # fmt: skip
        if gape.wedge > SEEN:
            made.append(f"A wedge of {long(gape.wedge)} pinched out of the {gape.edge} closes it.")
        elif gape.edge == ARMHOLE:
            made.append("That is more than a wedge takes out: raise it, or draft it anew.")
    if reading.drag:
        made.append(f"Most is pulled near the {named(reading.drag)}.")
    if reading.slid > SLID:
        held = "its straps held it: shorten them" if reading.on_straps else "her shape held it: a waist stay or straps"
        made.append(
            f"It has slid down by {long(reading.slid)}, until {held}"
            + (", or fit it closer." if reading.on_straps else " would keep it up.")
        )
    for name in reading.noted:
        made.append(f"How far {name} gives in two days is as you measured it, and not by its class.")
    if reading.is_held:
        made.append("Its bodice is only measured, so what hangs below is hung from her waist, held there.")
    if reading.left_out:
        made.append(f"Not hung with it: {', '.join(named(name) for name in reading.left_out)}.")
    return made
