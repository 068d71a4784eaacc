"""Small drawings of what is seen at a fitting: the garment in a thin line, what is seen on it in a heavy one.

Three views, one box; y down, as a screen has it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

BOX = (100, 132)

_SHELL = (
    "M28 16L42 10M58 10L72 16M28 16C34 24 34 34 30 40L36 66M72 16C66 24 66 34 70 40L64 66M36 66Q50 69 64 66"
)  # fmt: skip
_SKIRT = "M36 66C30 76 28 84 28 92L26 122M64 66C70 76 72 84 72 92L74 122M26 122Q50 126 74 122"
FRONT = f"{_SHELL}M42 10C42 22 58 22 58 10{_SKIRT}"
BACK = f"{_SHELL}M42 10Q50 14 58 10M50 12V122{_SKIRT}"
SIDE = "M52 10C60 18 68 34 61 48L59 66C63 80 63 90 63 122M46 10C39 20 37 36 42 50L44 66C35 76 36 86 37 122H63M52 66V122"
TROUSERS = (
    "M36 40Q50 43 64 40M36 40C30 50 28 58 28 66L32 124H47L50 82L53 124H68L72 66C72 58 70 50 64 40M50 42V82"
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Drawn:
    """A view of the garment, and what is seen on it (SVG path data in ``BOX``)."""

    garment: str
    seen: str


DRAWN: Mapping[str, Drawn] = {
    "neck_stands_off": Drawn(FRONT, "M40 6C37 26 63 26 60 6M45 16L43 21M55 16L57 21"),
    "neck_cuts_in": Drawn(FRONT, "M43 18L36 26M50 20V30M57 18L64 26"),
    "neck_too_low": Drawn(FRONT, "M42 10C40 36 60 36 58 10"),
    "folds_under_back_neck": Drawn(BACK, "M38 18Q50 23 62 18M36 23Q50 28 64 23"),
    "folds_down_back": Drawn(BACK, "M43 24C45 36 42 48 44 60M57 24C55 36 58 48 56 60"),
    "bulge_at_zip": Drawn(BACK, "M38 54Q50 59 62 54M38 59Q50 64 62 59M46 64Q50 70 54 64"),
    "drag_from_tip": Drawn(FRONT, "M30 18L36 34M34 16L41 32M70 18L64 34M66 16L59 32"),
    "tip_stands_out": Drawn(FRONT, "M34 13L23 11L26 20M66 13L77 11L74 20"),
    "armhole_tight": Drawn(FRONT, "M32 36L41 31M31 40H43M32 43L41 47M68 36L59 31M69 40H57M68 43L59 47"),
    "armhole_gapes": Drawn(FRONT, "M30 20C43 26 42 35 32 38M70 20C57 26 58 35 68 38"),
    "folds_at_bust": Drawn(FRONT, "M32 42L45 38M33 47L45 40M37 18L45 35M68 42L55 38M67 47L55 40M63 18L55 35"),
    "side_tight": Drawn(FRONT, "M32 46H45M33 52H46M34 58H46M68 46H55M67 52H54M66 58H54"),
    "side_loose": Drawn(FRONT, "M30 41C22 50 24 60 35 66M70 41C78 50 76 60 65 66"),
    "waist_pulls_up": Drawn(FRONT, "M36 66Q50 56 64 66M43 76V65M40 69L43 65L46 69M57 76V65M54 69L57 65L60 69"),
    "bodice_long": Drawn(FRONT, "M35 56Q50 61 65 56M35 61Q50 66 65 61"),
    "folds_over_hip": Drawn(FRONT, "M34 76Q50 81 66 76M32 82Q50 88 68 82M31 88Q50 94 69 88"),
    "swings_forward": Drawn(SIDE, "M36 110L68 122M44 78L58 118"),
    "up_in_front": Drawn(SIDE, "M37 122L64 108M58 76L48 116"),
    "side_hangs_crooked": Drawn(SIDE, "M52 66C54 84 58 100 62 122"),
    "hem_low": Drawn(FRONT, "M26 128Q50 132 74 128M50 112V126M46 121L50 126L54 121"),
    "hem_high": Drawn(FRONT, "M27 108Q50 112 73 108M50 122V110M46 115L50 110L54 115"),
    "crotch_cuts": Drawn(TROUSERS, "M50 80L40 72M50 80L60 72M50 83L39 84M50 83L61 84"),
    "crotch_hangs": Drawn(TROUSERS, "M40 84Q50 96 60 84M38 90Q50 104 62 90"),
}
"""What is seen, by its code in the guide."""
