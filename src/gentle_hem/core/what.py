"""What a piece is in the garment: a value, from which its name is derived for people.

    section     bodice, gown, skirt …         the part of the garment it belongs to
    half        front, back                   or neither, or both
    panel       centre, side, yoke, gore …    which panel of the section
    layer       outer, facing, lining …       what it is a layer of
    number      1, 2 …                        which tier, or which of several alike

Nothing asks what a piece is called; it is asked what it is.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from functools import lru_cache

from gentle_hem.core.replace import replace


class Section(StrEnum):
    """Which section of the garment a piece belongs to."""

    BODICE = "bodice"
    GOWN = "gown"
    """A bodice carried on down to the hem: there is no section below it."""
    WAISTBAND = "waistband"
    HIP_YOKE = "yoke"
    SKIRT = "skirt"
    PEPLUM = "peplum"
    TROUSERS = "trouser"
    SLEEVE = "sleeve"
    COLLAR = "stand collar"
    RUFFLE = "ruffle"
    FLOUNCE = "flounce"
    GODET = "godet"
    NECK_BAND = "neck band"
    CAPE = "cape"
    CASING = "elastic casing"
    BELT = "belt band"
    BINDING = "bias binding"
    LOOPS = "loop strip"
    POCKET = "pocket"
    TAB = "tab"

    @property
    def is_upper(self) -> bool:
        """Whether it is what a bodice is drafted for: the bodice, or the gown it is carried on into."""
        return self in (Section.BODICE, Section.GOWN)

    @property
    def is_lower(self) -> bool:
        """Whether it hangs below the waist seam."""
        return self in (Section.SKIRT, Section.PEPLUM, Section.TROUSERS, Section.HIP_YOKE)

    @property
    def is_trim(self) -> bool:
        """Whether it is added to a garment that is there already."""
        return not (self.is_upper or self.is_lower or self is Section.WAISTBAND)


class Half(StrEnum):
    """In front or behind."""

    FRONT = "front"
    BACK = "back"

    @classmethod
    def of(cls, is_front: bool) -> Half:
        return cls.FRONT if is_front else cls.BACK


class Sign(str):
    """A place that is matched over a seam: its name, its half, whether the cloth is shaped there and by a seam.

    >>> FRONT_DART, FRONT_DART.half, FRONT_DART.shaping
    ('front dart', <Half.FRONT: 'front'>, True)
    """

    __slots__ = ("half", "seam", "shaping")
    half: Half | None
    shaping: bool
    seam: bool

    def __new__(cls, name: str = "", half: Half | None = None, shaping: bool = False, *, seam: bool = False) -> Sign:
        made = super().__new__(cls, name)
        made.half, made.shaping, made.seam = half, shaping, seam
        return made

    @classmethod
    def shaped(cls, half: Half, what: str) -> Sign:
        """A dart or pleat of a half, called after it: "front dart"."""
        return cls(f"{half} {what}", half, True)

    @classmethod
    def seamed(cls, half: Half, what: str) -> Sign:
        """A seam down a half, called after it: "front princess seam"."""
        return cls(f"{half} {what}", half, True, seam=True)

    def on_the_other_side(self) -> Sign:
        """The same place on the other half of a whole piece."""
        return Sign(f"{self} other", self.half, self.shaping, seam=self.seam)


UNNAMED = Sign()
CENTRE_FRONT, CENTRE_BACK = Sign("centre front"), Sign("centre back")
SIDE_SEAM = Sign("side seam")
FRONT_DART, BACK_DART = Sign.shaped(Half.FRONT, "dart"), Sign.shaped(Half.BACK, "dart")
BUST_DART = Sign("bust dart", Half.FRONT, shaping=True)
SHOULDER_DART = Sign("shoulder dart", Half.FRONT, shaping=True)
FRONT_PRINCESS = Sign.seamed(Half.FRONT, "princess seam")
BACK_PRINCESS = Sign.seamed(Half.BACK, "princess seam")
WAIST_CORNERS = (CENTRE_FRONT, SIDE_SEAM, CENTRE_BACK)
"""The places of an edge that runs from the centre front to the centre back, one piece to each half."""


class Panel(StrEnum):
    """Which panel of its section a piece is."""

    WHOLE = "whole"
    CENTRE = "centre"
    SIDE = "side"
    YOKE = "yoke"
    MIDRIFF = "midriff"
    BIB = "bib"
    STRAP = "strap"
    NECK = "neck"
    TOP = "top"
    KEYHOLE = "keyhole"
    GORE = "gore"
    CENTRE_GORE = "gore centre"
    TIER = "tier"
    HEM = "hem"
    RING = "ring"
    SPIRAL = "spiral"
    SIDE_RING = "side ring"
    SLEEVE_RING = "sleeve ring"
    SEAM_RING = "seam ring"
    SLIT = "slit"
    FLAP = "flap"
    BAG = "bag"
    LACING = "lacing"
    MODESTY = "modesty"
    ROLL = "roll"
    SPAN = "span"


class Layer(StrEnum):
    """What a piece is a layer of."""

    OUTER = "outer"
    FACING = "facing"
    LINING = "lining"
    INTERFACING = "interfacing"


@dataclass(frozen=True, slots=True)
class What:
    """What a piece is in the garment; pieces, seams and files know it by this value."""

    section: Section
    half: Half | None = None
    """None for a piece that lies in front and behind, or in neither."""
    panel: Panel = Panel.WHOLE
    layer: Layer = Layer.OUTER
    number: int = 1
    other: bool = False
    """Whether it is the other half of a garment that is not alike left and right."""
    _hash: int = field(init=False, compare=False, repr=False)

    def __post_init__(self) -> None:
        # pieces are looked up by it thousands of times in a make-up, so it is worked out once
        known = (self.section, self.half, self.panel, self.layer, self.number, self.other)
        object.__setattr__(self, "_hash", hash(known))

    def __hash__(self) -> int:
        return self._hash

    @property
    def name(self) -> str:
        """What people call it: "bodice side front", "tier 2 back", "front neck facing"."""
        return _called(self)

    def in_section(self, section: Section) -> What:
        return replace(self, section=section)

    def as_layer(self, layer: Layer) -> What:
        return replace(self, layer=layer)

    def as_panel(self, panel: Panel) -> What:
        return replace(self, panel=panel)

    def is_outer(self, *sections: Section, half: Half | None = None) -> bool:
        """Whether it is an outer piece of one of these sections, and of one half where one is named."""
        return self.layer is Layer.OUTER and self.section in sections and half in (None, self.half)

    def is_outer_upper(self, half: Half | None = None) -> bool:
        """Whether it is an outer piece of the bodice or of a gown cut in one, and of one half where one is named."""
        return self.layer is Layer.OUTER and self.section.is_upper and half in (None, self.half)


OF_ITS_OWN = {
    Panel.STRAP: "strap",
    Panel.BIB: "bib",
    Panel.KEYHOLE: "keyhole facing",
    Panel.RING: "flounce ring",
    Panel.SPIRAL: "spiral flounce",
    Panel.SIDE_RING: "side ruffle ring",
    Panel.SLEEVE_RING: "sleeve ruffle ring",
    Panel.SEAM_RING: "ruffle ring",
    Panel.ROLL: "roll collar",
    Panel.SPAN: "cape facing",
}
"""Panels whose name says all."""


@lru_cache(maxsize=4096)
def _called(what: What) -> str:
    half = what.half.value if what.half else ""
    panel, section = what.panel, what.section.value
    if panel is Panel.RING and section == Section.PEPLUM:
        name = f"inserted peplum {half}"
    elif panel in OF_ITS_OWN:
        name = OF_ITS_OWN[panel]
    elif panel in (Panel.YOKE, Panel.MIDRIFF) and what.section.is_upper:
        name = f"{half} {panel}"
    elif panel in (Panel.NECK, Panel.TOP):
        name = f"{half} {panel} facing"
    elif panel in (Panel.LACING, Panel.MODESTY):
        name = f"{half} " + ("lacing strip" if panel is Panel.LACING else "lacing panel")
    elif panel is Panel.SLIT:
        name = f"{half or section} slit facing"
    elif panel in (Panel.GORE, Panel.CENTRE_GORE):
        name = f"{panel} {half}"
    elif panel is Panel.TIER:
        name = f"tier {what.number} {half}"
    elif what.section is Section.RUFFLE:
        name = f"{panel} ruffle"
    elif panel is Panel.WHOLE:
        name = f"{section} {half}"
    else:
        name = f"{section} {panel} {half}"
    name = name.strip() + (" other" if what.other else "")
    if what.number > 1 and panel is not Panel.TIER:
        name += f" {what.number}"
    if what.layer in (Layer.LINING, Layer.INTERFACING):
        name += f" {what.layer}"
    return name


BODICE_FRONT, BODICE_BACK = What(Section.BODICE, Half.FRONT), What(Section.BODICE, Half.BACK)
SKIRT_FRONT, SKIRT_BACK = What(Section.SKIRT, Half.FRONT), What(Section.SKIRT, Half.BACK)
