"""Needle, thread, iron and marking tool by cloth, and the cautions that belong to what is done (trade 12, 14).

All of it common practice, from memory; a scrap of the cloth itself decides.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from gentle_hem.core.cloth.cloths import Cloth, Drape, Weight
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.garment import Garment
from gentle_hem.core.making.operation import Closure, Operation, Work
from gentle_hem.core.making.other_work import is_flared
from gentle_hem.core.pattern import MarkKind, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.what import Layer, Panel, Section


class Tool(StrEnum):
    """What a hint is about."""

    NEEDLE = "needle and thread"
    PRESS = "iron"
    MARK = "marking"
    CUT = "cutting"


@dataclass(frozen=True, slots=True)
class Hint:
    """A hint for a cloth: what it is about, and which."""

    tool: Tool
    text: str


NEEDLES = {
    Weight.NET: "Needle 60 or 70, fine polyester thread, a longer stitch; tissue paper under the seam.",
    Weight.LIGHT: "Needle 60 or 70, sharp; fine thread, stitch 2 mm, the thread ends held at the start.",
    Weight.MEDIUM: "Needle 80, all-purpose thread, stitch 2.5 mm.",
    Weight.HEAVY: "Needle 90 or 100, strong thread, stitch 3 mm; thick crossings flattened first.",
    Weight.UNSAID: "Needle 80 and stitch 2.5 mm to begin with; try both on a scrap of the same layers.",
}
PRESSED = {
    Weight.NET: "Barely warm, dry, through paper: net melts.",
    Weight.LIGHT: "Cool to warm, dry, through a cloth; paper strips under the allowances.",
    Weight.MEDIUM: "Warm with steam, through a cloth on the right side.",
    Weight.HEAVY: "Hot with steam and a damp cloth, then left to cool flat under a clapper.",
    Weight.UNSAID: "Try heat and steam on a scrap first.",
}
MARKED = {
    Weight.NET: "Coloured thread; chalk does not hold.",
    Weight.LIGHT: "Thread tacks of silk, or a fine chalk edge; no wheel.",
    Weight.MEDIUM: "Chalk, or wheel and carbon, on the wrong side.",
    Weight.HEAVY: "Chalk or tailor's tacks; a wheel does not reach through.",
    Weight.UNSAID: "Chalk on the wrong side.",
}
STRETCHES = 10.0
"""A cloth that stretches by so many per cent across is sewn with a ballpoint needle and a narrow zigzag."""


def hints_for(cloth: Cloth) -> Iterator[Hint]:
    """What to sew, press and mark a cloth with."""
    needle = NEEDLES[cloth.weight]
    if max(cloth.across, cloth.along) >= STRETCHES:
        needle = "Ballpoint needle and a narrow zigzag, or the seams give way; " + needle[:1].lower() + needle[1:]
    yield Hint(Tool.NEEDLE, needle)
    press = PRESSED[cloth.weight]
    if cloth.nap == "one_way":
        press += " A pile is steamed face down over a towel, never pressed flat."
    yield Hint(Tool.PRESS, press)
    yield Hint(Tool.MARK, MARKED[cloth.weight] + " Whatever marks is tried off the face first.")
    if cloth.drape is Drape.LIMP:
        yield Hint(Tool.CUT, "Cut single on paper, pinned in the allowances: it slips.")


class Caution(StrEnum):
    """A caution, said once where the risk is (trade 14)."""

    BLADES = "Cut away from the body, and cap the rotary blade whenever it is put down."
    POSTURE = "A long cutting day: raise the table, change feet, and rest every half hour."
    PINS = "Count the pins in and out."
    NEEDLE = "Fingers clear of the needle; foot off the pedal while threading."
    IRON = "Steam burns: the face and the other hand clear of it; the iron off before you leave."
    FUMES = "Fusing gives off fumes: open a window. Sprays and solvents only in moving air, away from any flame."
    FLAME = "A full or net skirt catches fire from candles and heaters: keep it well away, and say so to the wearer."
    STAIRS = "A floor-length hem on stairs and escalators: show the wearer how to lift it."
    TIGHT = "Laced tight it hinders breathing: the wearer must be able to take a full breath and to get out alone."
    CHILD = (
        "For a child: no cords or drawstrings at neck and hood, no small buttons that come off, and nightwear under "
        "the flammability rules. Local rules apply, and this program is not one."
    )


BY_WORK: dict[Work, tuple[Caution, ...]] = {
    Work.CUT: (Caution.BLADES, Caution.POSTURE),
    Work.FUSE: (Caution.FUMES, Caution.IRON),
    Work.DARTS: (Caution.NEEDLE, Caution.IRON),
    Work.SEAM: (Caution.NEEDLE, Caution.PINS),
    Work.FIT: (Caution.PINS,),
    Work.PRESS: (Caution.IRON, Caution.PINS),
}
"""Where each is said; only where it comes up first, that it does not nag."""

FULL_SWEEP = 3500.0
"""A hem so wide all round swings out beyond the wearer's sight (mm)."""

LOW_HEM = 120.0
"""A hem that hangs nearer to the floor than this is trodden on where it is uneven (mm)."""


def cautions_by_operation(operations: Iterable[Operation]) -> dict[str, tuple[Caution, ...]]:
    """The cautions to be said at each operation, each where it comes up first."""
    said: set[Caution] = set()
    found: dict[str, tuple[Caution, ...]] = {}
    for one in operations:
        new = tuple(caution for caution in BY_WORK.get(one.work, ()) if caution not in said)
        said.update(new)
        if new:
            found[one.key] = new
    return found


def cautions_for_the_wearer(garment: Garment, recipe: Recipe, operations: Sequence[Operation]) -> tuple[Caution, ...]:
    """What the finished dress itself asks of who wears it."""
    sweep = sum(
        edge.drawn_length * piece.cut * (2 if piece.on_fold else 1)
        for piece in garment.pieces
        if piece.what.layer is Layer.OUTER and piece.cloth is not ClothRole.PAPER
        and piece.what.section is not Section.SLEEVE
        for edge in piece.edges
        if edge.role is Role.HEM and (edge.finished or is_flared(piece))
    )  # fmt: skip
    net = Weight.NET in (recipe.cloths.outer.weight, recipe.cloths.contrast.weight)
    floor = recipe.figure.get("waist_to_floor")
    long = max(_hangs(garment))
    found = []
    if sweep > FULL_SWEEP or net:
        found.append(Caution.FLAME)
    if floor is not None and long > floor - LOW_HEM:
        found.append(Caution.STAIRS)
    if any(Closure.LACING in one.closures for one in operations):
        found.append(Caution.TIGHT)
    corded = any(p.what.panel is Panel.LACING or any(m.kind is MarkKind.LOOP for m in p.marks) for p in garment.pieces)
    buttoned = any(Closure.BUTTONS in one.closures for one in operations)
    if corded or buttoned:
        found.append(Caution.CHILD)
    return tuple(found)


def _hangs(garment: Garment) -> Iterator[float]:
    """How far below the waist each outer piece below it reaches, tier under tier."""
    tiers: dict[int, float] = {}
    for piece in garment.pieces:
        if piece.what.layer is Layer.OUTER and piece.what.section.is_lower:
            box = piece.seam_line.box
            tiers[piece.what.number] = max(tiers.get(piece.what.number, 0.0), box[3] - box[1])
    yield sum(tiers.values())
    for half, level in garment.waists.items():
        for piece in garment.pieces:
            if piece.what.is_outer(Section.GOWN, half=half):
                yield level - piece.seam_line.box[1]
