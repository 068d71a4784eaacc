"""The style of a bodice, said in sentences: its tops, necklines and darts, and its panels and where it ends."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.parts import RecipePart, between, number_between
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.style.neckline import Neckline
from gentle_hem.core.style.panels import PrincessFrom
from gentle_hem.core.style.tops import Top
from gentle_hem.core.units import Length

DartPlace = Literal["as_drafted", "waist", "side", "armhole", "shoulder", "neckline", "centre front", "merged"]

PLACES = (
    ("as_drafted", "stays where it was drafted"),
    ("waist", "moves to the waist"),
    ("side", "moves to the side"),
    ("armhole", "moves to the armhole"),
    ("shoulder", "moves to the shoulder"),
    ("neckline", "moves to the neckline"),
    ("centre front", "moves to the centre front"),
)


FACING_WIDTH = 45.0
"""Facings are 1½-2 in wide where nothing else is said: common practice (trade 11)."""


class Style(RecipePart):
    """A V neckline, the bust dart moved to the waist, faced."""

    title: ClassVar[str] = "Style"
    sentences: ClassVar[tuple[str, ...]] = (
        "The front neckline is {front_neck}[front_neck:, {front_depth} deep]; the back is {back_neck}"
        "[back_neck:, {back_depth} deep]; both open {wider} wider at the shoulder.",
        "It is held by {top}[top=off_shoulder:, cut {top_taken} below the shoulder]"
        "[top=one_shoulder:, the bare side {bare_below} below the underarm], {straps}"
        "[straps,top=halter: {strap_width} wide][straps:, their ends {strap_ends}].",
        "The bust dart {bust_dart}; the front waist dart {waist_dart}, made {narrower} narrower, its point "
        "{dart_short}; waist darts are {stitched}.",
        "The neck is {facing}[facing=faced: {facing_width} wide], {keyhole}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "front_neck": choice(
            "front neckline", ("as_drafted", "as drafted"), ("round", "round"), ("v", "a V"), ("square", "square"),
            ("scoop", "scooped"), ("sweetheart", "a sweetheart"),
        ),
        "front_depth": length("front neck depth"),
        "back_neck": choice(
            "back neckline", ("as_drafted", "as drafted"), ("round", "round"), ("v", "a V"), ("square", "square"),
            ("scoop", "scooped"),
        ),
        "back_depth": length("back neck depth", help="A low back is a deep V or scoop."),
        "wider": length("neck opened at the shoulder", nothing="no"),
        "top": choice(
            "what holds it up", ("shoulders", "both shoulders"), ("halter", "a halter"),
            ("one_shoulder", "one shoulder"), ("off_shoulder", "the arms, off the shoulder"),
            ("strapless", "nothing, strapless"),
        ),
        "top_taken": length("taken off the top", help="4 to 5 in for an off-shoulder neckline."),
        "bare_below": length("bare side below the underarm"),
        "straps": choice(
            "straps", ("none", "no straps"), ("straight", "straight straps"),
            ("criss_cross", "straps that cross behind"), ("crossed_front", "straps that cross in front"),
        ),
        "strap_ends": choice(
            "ends of the straps", ("square", "square"), ("shaped", "shaped to the edges they are sewn to")
        ),
        "strap_width": length("strap width"),
        "bust_dart": choice("bust dart", *PLACES, ("merged", "is merged into the waist dart")),
        "waist_dart": choice("front waist dart", *PLACES),
        "narrower": length("waist dart narrower by", nothing="no"),
        "dart_short": length(
            "point short of the bust point", without="where it was drafted",
            presets=((25.4, "1 in short"), (25.0, "2.5 cm short"), (30.0, "3 cm short")),
        ),
        "stitched": choice("waist darts", ("stitched", "stitched"), ("pleat", "left open as pleats")),
        "facing": choice("neck finish", ("none", "not faced"), ("faced", "faced")),
        "facing_width": length("facing width", presets=((38.1, "1 1/2 in"), (50.0, "5 cm"))),
        "keyhole": choice("keyhole", ("none", "without a keyhole"), ("keyhole", "with a keyhole at the front")),
    }  # fmt: skip

    front_neck: Neckline = Neckline.AS_DRAFTED
    front_depth: Annotated[Length, between(20, 600)] = 150.0
    back_neck: Literal["as_drafted", "round", "v", "square", "scoop"] = "as_drafted"
    back_depth: Annotated[Length, between(10, 600)] = 60.0
    wider: Annotated[Length, between(0, 150)] = 0.0
    top: Top = Top.SHOULDERS
    top_taken: Annotated[Length, between(40, 250)] = 114.3
    bare_below: Annotated[Length, between(0, 250)] = 15.0
    straps: Literal["none", "straight", "criss_cross", "crossed_front"] = "none"
    strap_width: Annotated[Length, between(10, 150)] = 60.0
    strap_ends: Literal["square", "shaped"] = "square"
    bust_dart: DartPlace = "as_drafted"
    waist_dart: DartPlace = "as_drafted"
    narrower: Annotated[Length, between(0, 60)] = 0.0
    dart_short: Annotated[Length, between(0, 80)] | None = None
    stitched: Literal["stitched", "pleat"] = "stitched"
    facing: Literal["none", "faced"] = "none"
    facing_width: Annotated[Length, between(20, 120)] = FACING_WIDTH
    keyhole: Literal["none", "keyhole"] = "none"


class Panels(RecipePart):
    """Princess seams from the armhole, ending at the waist."""

    title: ClassVar[str] = "Panels and waist line"
    sentences: ClassVar[tuple[str, ...]] = (
        "It ends {ends}[ends=basque|dropped:, {depth} deep].",
        "Princess seams: {front_princess} in front, {back_princess} behind. Yokes: {front_yoke} in front, "
        "{back_yoke} behind.",
        "Button stand: {stand}[stand:; it takes {buttons} buttons of {button}, which {down}]. Cuts of a twist at the "
        "centre front: {twist}[twist:, each opened by {twist_spread}].",
    )
    words: ClassVar[dict[str, Word]] = {
        "ends": choice(
            "where the bodice ends", ("waist", "at the waist"), ("under_bust", "under the bust"),
            ("midriff", "at the waist, with a midriff under the bust"), ("basque", "in a point below the waist"),
            ("dropped", "below the waist"),
        ),
        "depth": length("depth below the waist", help="5 in is typical for a pointed basque."),
        "front_princess": choice("front princess seam", *(
            ("none", "none"), ("shoulder", "from the shoulder"), ("neckline", "from the neckline"),
            ("armhole", "from the armhole"))),
        "back_princess": choice("back princess seam", *(
            ("none", "none"), ("shoulder", "from the shoulder"), ("neckline", "from the neckline"),
            ("armhole", "from the armhole"))),
        "front_yoke": length(
            "front yoke", presets=((0.0, "no yoke"),), help="From the shoulder at the neck.", nothing="none"
        ),
        "back_yoke": length(
            "back yoke", presets=((0.0, "no yoke"),), help="From the shoulder at the neck.", nothing="none"
        ),
        "stand": length("button stand", presets=((0.0, "no stand"), (25.0, "2.5 cm"), (25.4, "1 in")),
                        nothing="none"),
        "buttons": number("buttons", (5, "5"), (6, "6"), (8, "8"), (10, "10")),
        "button": length("button", presets=((11.0, "11 mm"), (15.0, "15 mm"), (19.05, "3/4 in"))),
        "down": choice(
            "how far the buttons go", ("bodice", "end above the waist seam"), ("skirt", "go on down the skirt"),
            help="Going on, they keep their spaces, the seam midway between two.",
        ),
        "twist": number("twist cuts", (0, "none"), (2, "2"), (3, "3"), (4, "4")),
        "twist_spread": length("each opened by", presets=((69.85, "2 3/4 in"), (76.2, "3 in"), (80.0, "8 cm"))),
    }  # fmt: skip

    ends: Literal["waist", "under_bust", "midriff", "basque", "dropped"] = "waist"
    depth: Annotated[Length, between(10, 300)] = 127.0
    front_princess: PrincessFrom = PrincessFrom.NONE
    back_princess: PrincessFrom = PrincessFrom.NONE
    front_yoke: Annotated[Length, between(0, 300)] = 0.0
    back_yoke: Annotated[Length, between(0, 300)] = 0.0
    stand: Annotated[Length, between(0, 60)] = 0.0
    buttons: Annotated[int, number_between(2, 40, "buttons")] = 5
    button: Annotated[Length, between(5, 60)] = Field(15.0, description="A button's diameter.")
    down: Literal["bodice", "skirt"] = "bodice"
    twist: Annotated[int, number_between(0, 6, "cuts")] = Field(0, description="Cuts of a twist front; 0: none.")
    twist_spread: Annotated[Length, between(10, 120)] = 69.85
