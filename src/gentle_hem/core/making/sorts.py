"""What sort of seam a seam is, from the roles of its edges and what its pieces are: never from what it is called.

Sorts stand in the order of the trade (13): darts and panels, shoulders, the lining alike, neck, armholes, the band,
the lower part, sides, waist; what is hung on an edge after the edge is there.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from gentle_hem.core.making.operation import Work
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.seams import Seam, Stretch
from gentle_hem.core.what import Layer, Panel, Section, What


class Sort(StrEnum):
    """What a seam does in the garment."""

    MADE_UP = "made up"
    """A small part's own seam: a collar's top, a strap's, a ruffle's join."""
    PANEL = "panel"
    SLIT = "slit"
    PATCH = "patch"
    """A pocket or a flap on its place."""
    INSERT = "insert"
    """Something set in along a line drawn on a piece."""
    SHOULDER = "shoulder"
    BIB = "bib"
    STRAP = "strap"
    LACED = "laced"
    COLLAR = "collar"
    CASING = "casing"
    FACING = "facing"
    BINDING = "binding"
    SLEEVE = "sleeve"
    BAND = "band"
    TIER = "tier"
    POCKET = "pocket"
    CENTRE = "centre"
    CROTCH = "crotch"
    INSIDE_LEG = "inside leg"
    UNDERARM = "underarm"
    SIDE = "side"
    WAIST = "waist"
    GODET = "godet"
    IN_SIDE = "in the side seam"
    CAPE = "cape"
    LINING = "lining"
    """A lining on the outer's own edge."""
    TRIM = "trim"
    """A ruffle or flounce on a hem."""


@dataclass(frozen=True, slots=True)
class Way:
    """How a sort of seam is sewn: its place in the usual order, how it is pressed, and its time.

    ``minutes`` once and ``by_metre``: common practice, from memory, until the maker's own are known.
    """

    rank: float
    press: str
    minutes: float = 6.0
    by_metre: float = 8.0
    work: Work = Work.SEAM


OPEN = "Press it open."
WAYS: Mapping[Sort, Way] = {
    Sort.MADE_UP: Way(7.0, "", 8, 8),
    Sort.PANEL: Way(5.0, "Snip into the curves and press it open over a ham.", 8, 10),
    Sort.SLIT: Way(5.2, "Cut between the stitching lines to the last stitch, turn and press.", 15, 10, Work.EDGE),
    Sort.PATCH: Way(5.4, "Press its edges under first, over a card.", 12, 12, Work.POCKETS),
    Sort.INSERT: Way(5.6, "Press it down, and the cloth above it up.", 8, 10),
    Sort.SHOULDER: Way(6.0, OPEN, 4, 8),
    Sort.BIB: Way(6.2, "Press it towards the bib.", 6, 8),
    Sort.STRAP: Way(9.0, "", 6, 8),
    Sort.LACED: Way(9.1, "Press it towards the bodice.", 10, 12),
    Sort.COLLAR: Way(9.2, "Snip the neck edge, press it into the collar.", 20, 15),
    Sort.CASING: Way(18.4, "Try the elastic on, sides basted, before its ends are caught.", 15, 15),
    Sort.FACING: Way(9.4, "Trim, notch the curves, understitch on the facing and press it in.", 10, 15, Work.EDGE),
    Sort.BINDING: Way(9.6, "Fold it over the edge and sew it down inside.", 10, 20, Work.EDGE),
    Sort.SLEEVE: Way(10.0, "Press the cap alone, over a sleeve board; the seam lies into the sleeve.", 15, 12,
                     Work.SET_IN),
    Sort.BAND: Way(11.0, "Press it into the band.", 8, 10),
    Sort.TIER: Way(12.0, "Press it up, away from the gathers.", 8, 10),
    Sort.POCKET: Way(12.2, "Press the bag away from the opening.", 6, 10, Work.POCKETS),
    Sort.CENTRE: Way(12.4, OPEN, 4, 8),
    Sort.CROTCH: Way(14.4, "Sew the curve twice; press it open above the curve only.", 8, 10),
    Sort.INSIDE_LEG: Way(14.2, OPEN, 4, 8),
    Sort.UNDERARM: Way(13.2, OPEN, 4, 8),
    Sort.SIDE: Way(13.0, OPEN, 4, 8),
    Sort.GODET: Way(14.6, "Press the point flat, the seams away from the godet.", 15, 10, Work.SET_IN),
    Sort.IN_SIDE: Way(12.8, "", 6, 10),
    Sort.WAIST: Way(17.0, "Press it up, into the bodice.", 12, 12),
    Sort.CAPE: Way(18.6, "Press it down under the cape.", 10, 12),
    Sort.LINING: Way(9.5, "Understitch on the lining where the machine reaches.", 10, 15),
    Sort.TRIM: Way(20.4, "Press it up, away from the hem.", 10, 12),
}  # fmt: skip

SMALL = (
    Section.COLLAR, Section.RUFFLE, Section.FLOUNCE, Section.NECK_BAND, Section.CAPE, Section.CASING, Section.BELT,
    Section.BINDING, Section.LOOPS, Section.POCKET, Section.GODET, Section.TAB,
)  # fmt: skip
"""Sections whose own seams are sewn before they are set on anything."""

SMALL_PANELS = (
    Panel.STRAP, Panel.LACING, Panel.MODESTY, Panel.RING, Panel.SIDE_RING, Panel.SLEEVE_RING, Panel.SEAM_RING,
    Panel.SPIRAL,
)  # fmt: skip
TURNED_OUT = (Section.COLLAR, Section.NECK_BAND, Section.BELT, Section.LOOPS, Section.TAB)
TURNED_PANELS = (Panel.STRAP, Panel.FLAP, Panel.MODESTY)
"""What is sewn double and turned out; other small parts are joined flat."""

SET_ON: Mapping[Section, Sort] = {
    Section.COLLAR: Sort.COLLAR, Section.NECK_BAND: Sort.COLLAR, Section.CASING: Sort.COLLAR,
    Section.BINDING: Sort.BINDING, Section.CAPE: Sort.CAPE, Section.GODET: Sort.GODET, Section.SLEEVE: Sort.SLEEVE,
    Section.WAISTBAND: Sort.BAND,
}  # fmt: skip
"""What a seam is that sets a section onto another."""


def pressed(sort: Sort, what: What) -> str:
    """How a seam on a piece is pressed."""
    if sort is not Sort.MADE_UP:
        return WAYS[sort].press
    turned = what.section in TURNED_OUT or what.panel in TURNED_PANELS
    return "Trim the corners, turn it out and press the seam to its edge." if turned else OPEN


def sort_of(seam: Seam, pieces: Mapping[What, Piece]) -> Sort:
    """What sort of seam it is."""
    a, b = seam.a.stretches[0], seam.b.stretches[0]
    if a.piece.layer is not b.piece.layer:
        return _between_layers(b.piece)
    if (a.piece.section, a.piece.number, _small(a.piece)) == (b.piece.section, b.piece.number, _small(b.piece)):
        return _within(a, b, pieces)
    return _onto(a, b, pieces)


def _between_layers(over: What) -> Sort:
    if over.layer is Layer.LINING:
        return Sort.LINING
    return Sort.SLIT if over.panel in (Panel.SLIT, Panel.KEYHOLE) else Sort.FACING


def _small(what: What) -> Panel | None:
    """The panel of a section that is a small part of its own."""
    return what.panel if what.panel in (*SMALL_PANELS, Panel.BIB, Panel.FLAP, Panel.BAG) else None


def _within(a: Stretch, b: Stretch, pieces: Mapping[What, Piece]) -> Sort:
    if a.piece.section in SMALL or _small(a.piece):
        return Sort.MADE_UP
    role, other = _role(a, pieces), _role(b, pieces)
    if Role.SHOULDER in (role, other):
        return Sort.SHOULDER
    if role is Role.SIDE and other is Role.SIDE and a.piece.half is not b.piece.half:
        return Sort.SIDE
    if role.is_centre:
        return Sort.CROTCH if a.piece.section is Section.TROUSERS else Sort.CENTRE
    return {Role.INSIDE_LEG: Sort.INSIDE_LEG, Role.UNDERARM: Sort.UNDERARM}.get(role, Sort.PANEL)


def _onto(a: Stretch, b: Stretch, pieces: Mapping[What, Piece]) -> Sort:
    section, panel, role = b.piece.section, b.piece.panel, _role(a, pieces)
    drawn = pieces[a.piece].at_edge(a.edge) is None
    if section is Section.POCKET:
        return Sort.PATCH if drawn else Sort.POCKET
    if drawn:
        return Sort.INSERT
    if section is Section.CASING and role is Role.WAIST:
        return Sort.CASING
    if panel is Panel.BIB:
        return Sort.BIB
    if panel is Panel.STRAP:
        return Sort.STRAP
    if panel is Panel.LACING:
        return Sort.LACED
    if section in SET_ON:
        return SET_ON[section]
    if role is Role.HEM:
        return Sort.TIER if panel is Panel.TIER else Sort.TRIM
    if role is Role.SIDE:
        return Sort.IN_SIDE
    if section is Section.HIP_YOKE:
        return Sort.BAND
    if section is Section.RUFFLE or section is Section.FLOUNCE:
        return Sort.TRIM
    return Sort.WAIST


def _role(stretch: Stretch, pieces: Mapping[What, Piece]) -> Role:
    return pieces[stretch.piece].edge(stretch.edge).role
