"""The cloths of a dress by their roles: what each is like, and which pieces are cut from it.

outer ─── bodice, lower part, sleeves …        weight and drape say how full it gathers (trade 8)
contrast ─ whatever is said to be              stretch across says what a girth may be short of the body
lining, interfacing                            width and nap say how it is laid
"""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.parts import RecipePart, between, number_between
from gentle_hem.core.sentences import Word, choice, length, percent
from gentle_hem.core.units import Length
from gentle_hem.core.what import Layer, Panel, Section, What


class Weight(StrEnum):
    """A cloth's weight class; unsaid until it is chosen."""

    UNSAID = "unsaid"
    NET = "net"
    LIGHT = "light"
    MEDIUM = "medium"
    HEAVY = "heavy"


class Drape(StrEnum):
    """How a cloth falls."""

    UNSAID = "unsaid"
    LIMP = "limp"
    SOFT = "soft"
    CRISP = "crisp"


Stretch = Annotated[float, number_between(0, 100, "per cent of stretch")]


class Cloth(RecipePart):
    """A cloth: its width, its stretch, its weight and drape, and whether it has a right way up."""

    width: Annotated[Length, between(200, 5000)] | None = Field(None, description="Between the selvedges.")
    across: Stretch = Field(0.0, description="How much it stretches across, per cent; it goes round the body.")
    along: Stretch = Field(0.0, description="How much it stretches along the selvedge, per cent.")
    weight: Weight = Weight.UNSAID
    drape: Drape = Drape.UNSAID
    nap: Literal["none", "one_way"] = Field("none", description="A pile or a print that has one right way up.")
    name: Annotated[str, Field(max_length=80)] = Field("", description="What it is called on the shelf.")
    selvedge: Annotated[Length, between(0, 100)] = Field(0.0, description="On either side (mm of its width).")
    in_hand: Annotated[Length, between(0, 500_000)] | None = Field(None, description="How much of it is in the house.")
    price: Annotated[float, number_between(0, 100_000, "a metre")] | None = Field(
        None, description="What a metre costs."
    )
    shrinks: Annotated[float, number_between(0, 30, "per cent")] = Field(
        0.0, description="How much shorter it is once it is washed, per cent."
    )
    repeat_along: Annotated[Length, between(5, 2000)] | None = Field(
        None, description="After how far along it a print or stripe comes again."
    )
    repeat_across: Annotated[Length, between(5, 2000)] | None = Field(None, description="And after how far across.")
    border: Annotated[Length, between(10, 1500)] | None = Field(
        None, description="How wide the border along one selvedge is, where it has one."
    )
    colour: Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")] | None = Field(
        None, description="For the drawing, #rrggbb."
    )


STRETCHES = ((0.0, "not at all"), (5.0, "5 %"), (15.0, "15 %"), (30.0, "30 %"))


def _words(role: str) -> dict[str, Word]:
    return {
        f"{role}.weight": choice(
            f"weight of the {role} cloth", (Weight.UNSAID, "of any weight"), (Weight.NET, "net"),
            (Weight.LIGHT, "light"), (Weight.MEDIUM, "of medium weight"), (Weight.HEAVY, "heavy"),
        ),
        f"{role}.drape": choice(
            f"drape of the {role} cloth", (Drape.UNSAID, "falling anyhow"), (Drape.LIMP, "limp"), (Drape.SOFT, "soft"),
            (Drape.CRISP, "crisp"),
        ),
        f"{role}.width": length(f"width of the {role} cloth", without="any width"),
        f"{role}.nap": choice(f"way up of the {role} cloth", ("none", "laid either way"), ("one_way", "laid one way")),
        f"{role}.across": percent(f"stretch of the {role} cloth across", *STRETCHES),
        f"{role}.along": percent(f"stretch of the {role} cloth along", *STRETCHES),
    }  # fmt: skip


CONTRASTED: dict[str, tuple[Section, ...]] = {
    "none": (),
    "bands": (Section.WAISTBAND, Section.COLLAR, Section.NECK_BAND, Section.BELT, Section.TAB),
    "sleeves": (Section.SLEEVE,),
    "trims": (Section.RUFFLE, Section.FLOUNCE, Section.GODET, Section.CAPE),
    "lower": (Section.SKIRT, Section.PEPLUM, Section.TROUSERS),
}
"""What may be cut from the contrast, by section; yokes and midriffs are panels."""

CONTRAST_PANELS = (Panel.YOKE, Panel.MIDRIFF, Panel.BIB)


class Cloths(RecipePart):
    """One cloth for all, of which nothing is said yet."""

    title: ClassVar[str] = "Cloths"
    sentences: ClassVar[tuple[str, ...]] = (
        "The outer cloth is {outer.weight}, {outer.drape}, {outer.width} wide, {outer.nap}; it stretches "
        "{outer.across} across and {outer.along} along.",
        "From a contrast are cut {contrast_for}[contrast_for:; it is {contrast.weight}, {contrast.drape}, "
        "{contrast.width} wide, {contrast.nap}, and stretches {contrast.across} across and {contrast.along} along].",
        "The lining is {lining.width} wide and stretches {lining.across} across; the interfacing is "
        "{interfacing.width} wide.",
    )
    words: ClassVar[dict[str, Word]] = {
        **_words("outer"),
        "contrast_for": choice(
            "what is cut from a contrast", ("none", "no pieces"), ("bands", "the bands, collars and belts"),
            ("yokes", "the yokes and midriffs"), ("sleeves", "the sleeves"),
            ("trims", "the ruffles, flounces, godets and capes"), ("lower", "the lower part"),
        ),
        **_words("contrast"),
        "lining.width": length("width of the lining", without="any width"),
        "lining.across": percent("stretch of the lining across", *STRETCHES),
        "interfacing.width": length("width of the interfacing", without="any width"),
    }  # fmt: skip

    outer: Cloth = Field(default_factory=Cloth)
    contrast: Cloth = Field(default_factory=Cloth)
    contrast_for: Literal["none", "bands", "yokes", "sleeves", "trims", "lower"] = "none"
    lining: Cloth = Field(default_factory=Cloth)
    interfacing: Cloth = Field(default_factory=Cloth)

    def role_of(self, what: What) -> ClothRole:
        """The cloth a piece is cut from."""
        if what.layer is Layer.LINING:
            return ClothRole.LINING
        if what.layer is Layer.INTERFACING:
            return ClothRole.INTERFACING
        if self.contrast_for == "yokes":
            return ClothRole.CONTRAST if what.panel in CONTRAST_PANELS else ClothRole.OUTER
        return ClothRole.CONTRAST if what.section in CONTRASTED[self.contrast_for] else ClothRole.OUTER

    def cloth(self, role: ClothRole) -> Cloth:
        """What a cloth is like."""
        cloths = {
            ClothRole.CONTRAST: self.contrast, ClothRole.LINING: self.lining, ClothRole.INTERFACING: self.interfacing
        }  # fmt: skip
        return cloths.get(role, self.outer)

    def of(self, what: What) -> Cloth:
        """The cloth a piece is cut from, as it is."""
        return self.cloth(self.role_of(what))
