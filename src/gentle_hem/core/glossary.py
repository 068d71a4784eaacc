"""The words of the trade, each in two sentences and, where a line says more, a small drawing; with its doubles.

The words are those of the handbook, section 2, and the regional doubles it lists; what a measure is and how it is taken
comes from the measuring table.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from gentle_hem.core.figure import MEASURES
from gentle_hem.core.measuring import TABS

BOX = (120, 80)
"""Width and height of the small drawings; y down."""


@dataclass(frozen=True, slots=True)
class Term:
    """A word: what else it is called, what it means, and strokes that show it (SVG path data in ``BOX``; dashed ones
    are stitching lines).
    """

    name: str
    means: str
    also: tuple[str, ...] = ()
    solid: str = ""
    dashed: str = ""


FRONT = "M20 76V14L38 6L56 16C54 34 60 40 70 44L66 76Z"
SECTOR = "M60 6m-14 0A14 14 0 0 0 74 6L112 6A52 70 0 0 1 8 6Z"

TERMS = (
    Term(
        "allowance",
        "What is cut beyond the stitching line so that a seam can be sewn and pressed. It is wide enough to "
        "hold and, where a fitting may ask for it, to let out.",
        ("joining allowance", "seam allowance", "turnings"),
        "M16 12H104V68H16Z",
        "M26 22H94V58H26Z",
    ),
    Term(
        "A-line",
        "A skirt that widens straight from hip to hem, like the letter. It is shaped to the waist by darts "
        "and at its sides.",
        (),
        "M42 8H78L104 72H16Z",
    ),
    Term(
        "apex",
        "The point a dart or a princess seam is aimed at, over the bust or the fullest part. A dart ends a "
        "little short of it, so that it does not make a cone.",
        ("bust point",),
        FRONT + "M44 76L48 46L52 76",
    ),
    Term(
        "armhole",
        "The edge a sleeve is sewn to, or that is faced or bound where there is none. Its depth is found from"
        " the bust, and differently by each school.",
        ("armscye",),
        FRONT,
    ),
    Term(
        "balance mark",
        "A short mark on both edges of a seam that must come together when it is sewn. Single in front, "
        "double behind.",
        ("notch",),
        "M10 40H110M40 40V52M80 40V28M86 40V28",
    ),
    Term(
        "band",
        "A strip or shaped piece between bodice and lower part. Its upper edge meets the one, its lower the "
        "other.",
        ("waistband", "midriff"),
        "M20 28H100V48H20Z",
    ),
    Term(
        "basque",
        "A bodice that goes on below the waist, often to a point in front. What hangs from it is drawn to its"
        " edge.",
        (),
        "M34 8H86V44L60 70L34 44Z",
    ),
    Term(
        "bias",
        "The direction at 45° between warp and weft, where cloth gives most. Bias parts hang for a day or two"
        " before their hem is levelled.",
        (),
        "M14 14H106V66H14ZM30 66L82 14",
    ),
    Term(
        "block",
        "The fitted basic pattern without any style, from which every dress of one person is cut. It is kept,"
        " and copied for each dress.",
        ("sloper",),
        FRONT,
    ),
    Term(
        "by its measured edges",
        "The bodice is not drawn: its waist edge is measured with a tape between centre, dart and side. That "
        "is enough to hang any lower part from it.",
        (),
        "M16 24H104V64H16Z",
    ),
    Term(
        "by proportion",
        "A draft by shares of the bust: a quarter here, a sixth there, with few measures of the body. Quick, "
        "and right for figures near the middle of the table.",
        ("proportional",),
        FRONT,
    ),
    Term(
        "by quarters",
        "A draft on the folded cloth or paper: a quarter of each girth with its ease, from a line for each "
        "level. Front and back are drawn alike and then made different.",
        (),
        FRONT,
    ),
    Term(
        "by two lengths",
        "A draft that takes the front and the back waist length as they measure. What the front is longer "
        "goes into the bust dart, so that the side seams meet.",
        (),
        FRONT + "M68 52L46 48L67 60",
    ),
    Term(
        "body-length frame",
        "A draft in a frame as long as the body length and as wide as half the bust. The places are squared "
        "out from its corners.",
        (),
        "M30 6H90V76H30ZM30 30H90M30 52H90",
    ),
    Term(
        "casing",
        "A tunnel that elastic or a cord is drawn through. The cloth is gathered by what runs in it.",
    ),
    Term(
        "centre front",
        "The line down the middle of the front, where a half pattern is laid on the fold. The back has one "
        "too, and often the opening lies there.",
        ("CF", "centre back", "CB"),
    ),
    Term(
        "circle",
        "A skirt cut as a ring or a part of one: a full circle, a half, a quarter, any sweep. Its radius is "
        "the seam divided by the sweep.",
        ("flare",),
        SECTOR,
    ),
    Term(
        "cut line",
        "Where the scissors go: the stitching line with its allowance. On paper it is the outer, heavy line.",
    ),
    Term(
        "dart",
        "A wedge stitched away so that flat cloth fits a body; it has an apex, two legs and an intake. Its "
        "intake must be added where the edge is measured.",
        (),
        "M16 14H104V66H16ZM52 66L60 26L68 66",
    ),
    Term(
        "ease",
        "What a garment measures more than the body. Also: the little by which a longer edge is sewn to a "
        "shorter one without folds; 1 % in any cloth, up to 3 % in pliable wool.",
    ),
    Term(
        "facing",
        "A piece of the same shape as an edge, sewn to it and turned inside. It finishes necklines, armholes "
        "and shaped hems.",
        (),
        FRONT,
        "M20 30L42 16",
    ),
    Term(
        "flounce",
        "A ring cut from cloth: its inner edge is sewn on, and its outer falls in waves without gathers. So "
        "many rings are cut as the seam is long.",
        ("circular ruffle",),
        "M60 40m-34 0A34 34 0 1 0 94 40A34 34 0 1 0 26 40"
        "M60 40m-14 0A14 14 0 1 0 74 40A14 14 0 1 0 46 40M74 40H94",
    ),
    Term(
        "fold",
        "The folded edge of cloth or paper on which a half piece is laid, so that it comes out whole. It "
        "takes no allowance.",
        (),
        "M24 8V72M24 8H96V72H24",
    ),
    Term(
        "fullness",
        "How many times as long an edge is cut as the seam it is gathered to. Below 1.15 it looks like a "
        "mistake; 1.5 to 2 is usual, 3 for thin cloth.",
    ),
    Term(
        "gathers",
        "A longer edge drawn up on a thread to the length of a shorter one. Quarter marks on both keep the "
        "fullness even.",
        ("gathered", "shirring"),
        "M10 24H110M10 24C14 44 18 44 22 24C26 44 30 44 34 24C38 44 42 44 46 24C50 44 54 44 58 24"
        "C62 44 66 44 70 24C74 44 78 44 82 24C86 44 90 44 94 24C98 44 102 44 106 24",
    ),
    Term(
        "godet",
        "A wedge let into a seam or a slit from the hem up, so that the hem swings. Its sides are as long as "
        "the slit.",
        (),
        "M20 8H100V72H20ZM60 30L42 72M60 30L78 72",
    ),
    Term(
        "gore",
        "One of several like panels a skirt is cut in, narrow at the waist and wide at the hem. The more it "
        "flares below a level, the more like a trumpet it hangs.",
        ("gored",),
        "M48 8H72L92 72H28Z",
    ),
    Term(
        "gown cut in one",
        "Bodice and skirt as single panels without a waist seam. The waist is shaped by long darts or "
        "princess seams.",
        (),
        "M44 4H76L72 30L96 76H24L48 30Z",
    ),
    Term(
        "grain",
        "The direction of the warp, drawn as an arrow; pieces are laid with it along the selvedge. Off its "
        "grain a piece twists.",
        ("grain line",),
        "M20 8H100V72H20ZM60 18V62M56 24L60 18L64 24M56 56L60 62L64 56",
    ),
    Term(
        "handkerchief",
        "A square with a hole at its middle, whose corners hang as points. It is shortest at the flats and "
        "longest at the corners.",
        (),
        "M60 4L116 40L60 76L4 40ZM60 40m-8 0A8 8 0 1 0 68 40A8 8 0 1 0 52 40",
    ),
    Term(
        "hem",
        "The lower edge, turned up or faced. A curved one takes a narrow turning only, because the turned "
        "edge is longer.",
    ),
    Term(
        "high-low",
        "A flare shorter in front than behind, its hem a smooth curve between. The sides are half-way.",
        (),
        "M46 6H74L104 50C80 40 60 76 16 70Z",
    ),
    Term(
        "intake",
        "How wide a dart is at its mouth: what it takes out of the edge. The edge is drawn so much longer.",
    ),
    Term(
        "interfacing",
        "A layer that stiffens facings, collars, bands and button stands. It is cut without its seam "
        "allowance, or a little smaller.",
    ),
    Term(
        "lining",
        "A second garment of thin cloth inside the first. It is cut from the pieces before they were spread, "
        "a little shorter at the hem.",
    ),
    Term(
        "neckline",
        "The edge round the neck, as drawn: round, square, V, sweetheart, boat. What it takes from the "
        "shoulder is said, so that straps and sleeves still lie.",
        (),
        FRONT,
    ),
    Term(
        "nap",
        "A pile or a one-way print, so that all pieces are laid in one direction. It takes more cloth.",
        ("one-way",),
    ),
    Term(
        "opening",
        "How the dress is got into: a zip at the back or the side, buttons, lacing, or over the head. It is "
        "as long as what must pass through it.",
    ),
    Term(
        "peplum",
        "A short flare from the waist to the hip, on a blouse or over a skirt. Its seam is the bodice's "
        "waist.",
        (),
        "M40 6H80L82 30L104 58H16L38 30Z",
    ),
    Term(
        "pinafore",
        "A skirt with a bib and straps, worn over a blouse. The bib is sewn to the band.",
        ("jumper with bib",),
        "M44 30H76V44H44ZM46 30L42 4M74 30L78 4M40 44H80L98 76H22Z",
    ),
    Term(
        "pivot",
        "A dart moved round its apex into another edge: closed here, it opens there. Its angle stays, and "
        "every stitched length.",
    ),
    Term(
        "placket",
        "The opening of a sleeve or a blouse, with its strip.",
    ),
    Term(
        "pleat",
        "A fold of cloth laid over itself and held at the seam. Three times the width lies in one.",
        ("pleated",),
        "M10 20H110M30 20V70M50 20V70M70 20V70M90 20V70",
    ),
    Term(
        "princess seam",
        "A seam from shoulder or armhole over the bust to waist or hem, which takes the darts into it. Its "
        "panels are shaped on both sides.",
        ("princess",),
        FRONT + "M34 8C40 30 44 44 44 76",
    ),
    Term(
        "ruffle",
        "A strip gathered to an edge. Its fullness is how many times as long it is cut.",
        ("frill",),
    ),
    Term(
        "slash and spread",
        "A piece cut along lines and opened by so much, hinged or parallel, to give it fullness. Its other "
        "edges keep their length.",
        ("spread",),
        "M20 8H60L104 72H76L56 8L48 72H20Z",
    ),
    Term(
        "slit",
        "A seam left open from the hem, for the step. A vent is one whose edges overlap.",
        ("vent",),
    ),
    Term(
        "stitching line",
        "Where it is sewn; all lengths are measured along it. The cut edge is longer or shorter on a curve.",
        ("seam line",),
        "",
        "M16 40C40 20 80 20 104 40",
    ),
    Term(
        "strap",
        "A strip over the shoulder that holds the top. Its length comes from the shoulder it replaces.",
        ("mono-strap", "one-shoulder"),
    ),
    Term(
        "suppression",
        "The shaping taken out between bust and waist, by darts and at the sides.",
    ),
    Term(
        "sweep",
        "How far a hem measures round, or through how many degrees a flare goes: 360 is a full circle. The "
        "more sweep, the more folds.",
        (),
        SECTOR,
    ),
    Term(
        "tier",
        "One of several gathered strips, each sewn to the hem of the one above. Each is longer round than the"
        " last by the fullness.",
        ("tiered",),
        "M44 6H76V26H44ZM36 26H84V50H36ZM24 50H96V76H24Z",
    ),
    Term(
        "true",
        "Draw seams and edges so that they run on smoothly where pieces meet, over closed darts too. A cutter"
        " trues a pattern before she cuts.",
        ("truing",),
    ),
    Term(
        "waist seam",
        "Where bodice and lower part are sewn together. Both edges are measured, darts closed, and must meet,"
        " or be eased, gathered or pleated by intent.",
    ),
    Term(
        "walk",
        "Measure one edge along its mate, from mark to mark. A seam walks when both are as long as they are "
        "meant to be.",
    ),
    Term(
        "yoke",
        "A fitted piece at the shoulder or the hip, from which the rest hangs. Its lower edge is measured as "
        "any seam is.",
        (),
        "M20 10L44 4H76L100 10V30H20Z",
    ),
    Term(
        "zip",
        "The usual opening. It ends so far below the waist that the hip passes, and its allowance is never "
        "part of the seam's length.",
    ),
)  # fmt: skip

MEASURES_ALSO = {
    "front_waist_length": ("front half length", "half length", "shoulder to waist"), "bust_span": ("point to point",),
    "back_waist_length": ("back half length",), "under_bust_girth": ("tummy line", "under-bust line"),
    "crotch_depth": ("rise",),
}  # fmt: skip


@cache
def terms() -> tuple[Term, ...]:
    """Every word and every measure, in the order of the alphabet."""
    takings = {taking.key: taking.how for group in TABS.values() for taking in group}
    measures = (
        Term(label, takings.get(key, "") or "A measure of the body, on the tape.", MEASURES_ALSO.get(key, ()))
        for key, label in MEASURES.items()
    )
    return tuple(sorted((*TERMS, *measures), key=lambda term: term.name.lower()))


def about(label: str) -> Term | None:
    """The word that a label is about: the longest name or double that stands in it whole; None where there is none."""
    said = f" {re.sub(r'[^a-z0-9-]+', ' ', label.lower())} "
    found = [
        (len(name), term)
        for term in terms()
        for name in (term.name, *term.also)
        if re.search(rf" {re.escape(name.lower())}(s|es)? ", said)
    ]
    return max(found, key=lambda one: one[0])[1] if found else None
