"""What the quarter schools leave to taste, each with the value they usually draw (trade 4.1, 4.5).

armhole      hollow in front and behind, its level raised or lowered
shoulder     its tip out or in; the back neck as wide as the front's, or its own
waist darts  where they stand, how near the bust they end, how their intake is shared to their two sides
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import BeforeValidator, Field

from gentle_hem.core.parts import SHARE, BodicePart, between, read_share, share_between
from gentle_hem.core.sentences import Word, choice, length, share
from gentle_hem.core.units import Length, inches

HOLLOWS = (inches(0.75), inches(0.25))
"""How far the armhole of front and back comes in at its middle: common practice."""

SHORT_OF_BUST_POINT = inches(1)
"""A dart stops 1 in short of the bust point, or it makes a spike: common practice (trade 4.1, 4.5)."""

Hollow = Annotated[Length, between(0, 60)]
FromCentre = Annotated[Length, between(20, 220)]
Share = Annotated[float, BeforeValidator(read_share), share_between(0.2, 0.8), SHARE]


class Tasted(BodicePart):
    """The choices of taste of a block drafted in a frame."""

    TASTE: ClassVar[tuple[str, ...]] = (
        "The armhole comes in {front_hollow} in front and {back_hollow} behind and lies {armhole_lower} lower; the "
        "shoulder tip goes {shoulder_out} further out; the back neck is {back_neck_width} wide.",
        "The waist darts stand {front_dart_at} from the centre in front and {back_dart_at} behind, {dart_share} of "
        "each on the centre's side; the front's ends {dart_short} below the bust point, the back's {back_dart_top}.",
    )
    TASTE_WORDS: ClassVar[dict[str, Word]] = {
        "front_hollow": length("hollow of the front armhole"),
        "back_hollow": length("hollow of the back armhole"),
        "armhole_lower": length("armhole lowered", nothing="no", help="Less than nothing raises it."),
        "shoulder_out": length("shoulder tip further out", nothing="no", help="Less than nothing brings it in."),
        "back_neck_width": length("back neck width", without="as"),
        "front_dart_at": length("front waist dart from the centre", without="half the bust span"),
        "back_dart_at": length("back waist dart from the centre", without="half the bust span"),
        "dart_share": share("intake on the centre's side", (0.5, "half")),
        "dart_short": length("short of the bust point", nothing="no"),
        "back_dart_top": choice(
            "the back dart's top", ("bust", "as high as the front's"), ("chest", "at the chest line")
        ),
    }

    front_hollow: Hollow = HOLLOWS[0]
    back_hollow: Hollow = HOLLOWS[1]
    armhole_lower: Annotated[Length, between(-60, 80)] = 0.0
    shoulder_out: Annotated[Length, between(-60, 40)] = 0.0
    back_neck_width: Annotated[Length, between(40, 200)] | None = Field(
        None, description="Nothing: as wide as the front's."
    )
    front_dart_at: FromCentre | None = None
    back_dart_at: FromCentre | None = None
    dart_share: Share = 0.5
    dart_short: Annotated[Length, between(0, 120)] = SHORT_OF_BUST_POINT
    back_dart_top: Literal["bust", "chest"] = "bust"

    @property
    def hollows(self) -> tuple[float, float]:
        """Front and back, mm."""
        return self.front_hollow, self.back_hollow

    @property
    def dart_places(self) -> tuple[float | None, float | None]:
        """Front and back, mm from the centre; None: half the bust span."""
        return self.front_dart_at, self.back_dart_at
