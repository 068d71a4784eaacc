"""What a maker does to the pieces, one step after another: what a step acts on, and where.

part    bodice, lower                   on    front, back, both
edge    by what it is in the garment    share of its way: from the centre, from the neck, from the top

Named so, a step survives a change of measures. Steps are done in the order they stand, each on what the ones before it
left; one that cannot be done is a stop beside its own sentence, and nothing of it is done.
"""

from collections.abc import Callable, Container, Iterable, Iterator, Sequence
from functools import partial
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import BeforeValidator, Field, model_validator

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.open_out import OTHER, is_other
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, refused, warn
from gentle_hem.core.geometry import Point
from gentle_hem.core.parts import SHARE, RecipePart, read_share, share_between
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, share
from gentle_hem.core.what import Half, Layer, What

Side = Literal["front", "back", "both"]
Part = Literal["bodice", "lower"]
EdgeName = Literal[
    "neckline", "shoulder", "armhole", "side", "waist", "hem", "centre", "princess", "panel", "inside leg"
]
OneSide = Literal["both", "left", "right"]
Share = Annotated[float, BeforeValidator(read_share), share_between(0, 1), SHARE]

ON = choice("on", ("front", "front"), ("back", "back"), ("both", "front and back"))
PART = choice("part", ("bodice", "bodice"), ("lower", "lower part"))

SIDE = choice("side", ("both", "both sides"), ("left", "her left alone"), ("right", "her right alone"))


def edge_word(label: str) -> Word:
    """A live word for an edge."""
    return choice(
        label,
        ("neckline", "neckline"), ("shoulder", "shoulder"), ("armhole", "armhole"), ("side", "side"),
        ("waist", "waist"), ("hem", "hem"), ("centre", "centre"), ("princess", "princess seam"),
        ("panel", "panel seam"), ("inside leg", "inside leg"),
    )  # fmt: skip


def share_word(label: str) -> Word:
    """A live word for how far along an edge: from the centre or the neck, or from the top of an upright one."""
    return share(label, (0.25, "a quarter"), (1 / 3, "a third"), (0.5, "half"), (0.75, "three quarters"))


class PatternStep(RecipePart):
    """One thing done to the pieces of the bodice or of the lower part."""

    own_words: ClassVar[dict[str, Word]] = {"part": PART, "on": ON}
    styles: ClassVar[bool] = False
    """Whether it is a line of style, which a bodice that is only its measured edges is none the worse without."""

    sided: ClassVar[bool] = False
    """Whether it can be done on her left or her right alone."""

    part: Part = "bodice"
    on: Side = "front"
    side: OneSide = "both"
    off: bool = Field(False, description="Left off: it stays in the list and is not done.")

    @classmethod
    def __pydantic_init_subclass__(cls, **more: Any) -> None:
        """Each kind that can be done on one side says on which: beside front and back, or else at the end."""
        if cls.sided and "sentences" in cls.__dict__:
            first, *others = cls.sentences
            told = first.replace(", {on},", ", {on}, on {side},", 1)
            cls.sentences = (told if told != first else f"{first[:-1]}, on {{side}}.", *others)
            cls.words = {**cls.words, "side": SIDE}

    @model_validator(mode="after")
    def _on_what_sides(self) -> Self:
        if self.side != "both" and not self.sided:
            raise ValueError(f"{self.title.lower()} is done on both sides alike; leave the side out")
        return self

    @property
    def is_alike(self) -> bool:
        """Whether it leaves left and right alike."""
        return self.off or self.side == "both"

    def for_side(self, side: str) -> Self:
        """What it asks for on one side; left off where it is for the other alone."""
        return self if self.side in ("both", side) else self.model_copy(update={"off": True})

    def do(self, table: Table) -> None:
        """Do it to the pieces on the table. Raises CannotMake where it cannot be done."""
        raise TypeError(f"{type(self).__name__} does not say how it is done")

    @property
    def parts(self) -> tuple[Part, ...]:
        """The parts it is done to; one that links two is done to each of them when its turn comes there."""
        return (self.part,)

    @property
    def on_block(self) -> bool:
        """Whether it is done to the block before that is carried on down as a gown: what it is done to is gone then."""
        return False

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        """The edges it names, which light up on the sheet with its sentence."""
        return ()

    def lies_on(self, piece: Piece) -> list[str]:
        """The edges of a piece that it acts on, by their own names."""
        found = (edge_of(piece, name) for name in dict.fromkeys(self.edges))
        return [edge.name for edge in found if edge is not None]

    @property
    def halves(self) -> tuple[Half, ...]:
        return tuple(Half) if self.on == "both" else (Half(self.on),)


def take(
    steps: Sequence[PatternStep], parts: Container[str], table: Table,
    which: Callable[[PatternStep], bool] = lambda step: True,
) -> None:  # fmt: skip
    """The steps for some parts, in order, done to what lies on the table; only those ``which`` picks."""
    for place, step in _asked(steps, parts):
        if not which(step):
            continue
        before = len(table.findings)
        table.attempt(partial(_done, step, table), partial(not_done, place, step))
        table.findings[before:] = [_of_step(found, place) for found in table.findings[before:]]


def _done(step: PatternStep, table: Table) -> None:
    """A step done. Raises CannotMake where the centre of a piece lies on the fold of the cloth, and would bend or stand
    aslant there.
    """
    stood = {what: _stands(piece) for what, piece in table.pieces.items()}
    whole = {what: piece for what, piece in table.pieces.items() if _is_whole(piece)}
    step.do(table)
    _say_one_side(step, table, [what for what, piece in whole.items() if table.pieces.get(what) != piece])
    for what, piece in table.pieces.items():
        stands, before = _stands(piece), stood.get(what)
        aslant = stands and before and abs(stands.cross(before)) > ASLANT
        if piece.fold_bends > BENT or aslant:
            raise CannotMake(
                f"the centre of the {piece.name} lies on the fold of the cloth, which is straight, and would not be so "
                "any more; put a seam down it first"
            )


def _say_one_side(step: PatternStep, table: Table, changed: Sequence[What]) -> None:
    """A step on a piece that is whole by now is done on her left, whose edges have their plain names. Raises
    CannotMake where it was asked of her right.
    """
    if not changed or not step.sided:
        return
    name = table.pieces[changed[0]].name if changed[0] in table.pieces else changed[0].name
    if step.side == "right":
        raise CannotMake(f"the {name} is cut whole by now, and this would be done on her left; move it before that")
    if step.side == "both":
        table.findings.append(
            warn(
                "done-on-her-left", "The {piece} is cut whole by now: {step} is done on her left alone. Move it before "
                "what opens the piece out, and it is done on both sides.",
                Place(recipe="steps"), Place(piece=name), piece=name, step=step.title.lower(),
            )
        )  # fmt: skip


def _is_whole(piece: Piece) -> bool:
    """Whether it is both sides in one, the edges of her right called so."""
    return any(is_other(edge.name) for edge in piece.edges)


BENT, ASLANT = 0.05, 1e-3
"""A fold that is further from straight (mm), or turned by more (radians), cannot be cut on the fold."""


def _stands(piece: Piece) -> Point | None:
    """The direction of a piece's fold; None where it has none."""
    return None if piece.fold is None else (piece.fold.path.end - piece.fold.path.start).unit


def _of_step(found: Finding, place: int) -> Finding:
    """What was found while a step was done, with its place in the recipe."""
    return replace(found, at=tuple(replace(p, recipe=f"steps.{place}") if p.recipe == "steps" else p for p in found.at))


def not_taken(
    steps: Sequence[PatternStep], parts: Container[str], why: str,
    which: Callable[[PatternStep], bool] = lambda step: True,
) -> list[Finding]:  # fmt: skip
    """What is said of steps for parts that nothing can be done to."""
    return [not_done(place, step, why) for place, step in _asked(steps, parts) if which(step)]


def _asked(steps: Sequence[PatternStep], parts: Container[str]) -> Iterator[tuple[int, PatternStep]]:
    return (
        (place, step) for place, step in enumerate(steps) if not step.off and any(part in parts for part in step.parts)
    )


def not_done(place: int, step: PatternStep, why: str) -> Finding:
    """What is said of a step that cannot be done."""
    where = f"steps.{place}"
    return refused(
        "step-not-done", "This cannot be done: {step}. {why}.", *in_recipe(where),
        remedies=(Remedy("leave-off", "Leave it off", {f"{where}.off": True}),),
        step=step.title.lower(), why=why[:1].upper() + why[1:],
    )  # fmt: skip


def acted_on(step: PatternStep, pieces: Iterable[Piece]) -> list[Place]:
    """Where a step acts, on the pieces as they have become: the edges it names, of the halves it is done to."""
    found = []
    for piece in pieces:
        what = piece.what
        of_part = any(what.section.is_upper if part == "bodice" else what.section.is_lower for part in step.parts)
        if what.layer is not Layer.OUTER or what.half not in step.halves or not of_part:
            continue
        found += [Place(piece=piece.name, edge=name) for name in _of_its_side(step, piece, step.lies_on(piece))]
    return found


def _of_its_side(step: PatternStep, piece: Piece, names: Iterable[str]) -> list[str]:
    """The edges on the side that a step is done to: a whole piece has those of its right once more."""
    if not _is_whole(piece):
        is_right = piece.what.other
        return [] if step.side == ("left" if is_right else "right") and _is_apart(piece) else list(names)
    left = [name for name in names if not is_other(name)]
    right = [name + OTHER for name in left if piece.at_edge(name + OTHER) is not None]
    return (left if step.side != "right" else []) + (right if step.side != "left" else [])


def _is_apart(piece: Piece) -> bool:
    """Whether it is one of a pair that is cut apart."""
    return piece.what.other or (piece.cut == 1 and not piece.on_fold)


def the_pieces(table: Table, half: Half, edge: str) -> list[What]:
    """The outer pieces of a half that have such an edge, the one nearest the centre first. Raises CannotMake."""
    found = [
        what
        for what, piece in table.pieces.items()
        if what.half is half and what.layer is Layer.OUTER and not what.other and edge_of(piece, edge) is not None
    ]
    if not found:
        raise CannotMake(f"the {half} has no {edge} there")
    return sorted(found, key=lambda what: min(abs(place.x) for place in table.pieces[what].seam_line.flatten(5.0)))


def edge_of(piece: Piece, edge: str) -> Edge | None:
    """A piece's edge by what it is in the garment; None where it has none."""
    roles = (Role.CENTRE_FRONT, Role.CENTRE_BACK) if edge == "centre" else (Role(edge),)
    return next((one for one in piece.edges if one.role in roles), None)


def the_edge(piece: Piece, edge: str) -> Edge:
    """The same. Raises CannotMake where there is none."""
    found = edge_of(piece, edge)
    if found is None:
        raise CannotMake(f"the {piece.name} has no {edge}")
    return found


UPRIGHT = frozenset({"armhole", "side", "centre", "princess", "panel", "inside leg"})


def runs_from_start(edge: Edge, name: str) -> bool:
    """Whether a share of an edge is counted from its path's start: from the top of an upright edge, else from the
    centre or the neck. The piece lies with its centre on the left.
    """
    start, end = edge.path.start, edge.path.end
    return start.y >= end.y if name in UPRIGHT else start.x <= end.x


def along(edge: Edge, name: str, share: float) -> float:
    """How far along an edge's path a share of its way lies, mm."""
    return edge.drawn_length * (share if runs_from_start(edge, name) else 1 - share)


def on_each(table: Table, halves: tuple[Half, ...], edge: str, change: Callable[[Piece], Piece]) -> None:
    """Redraw the piece of each half that has an edge, as if its centre were on its left."""
    for half in halves:
        table.redraw(the_pieces(table, half, edge)[0], change)


def seen_from_centre(piece: Piece) -> Piece:
    """A piece as it lies with its centre on the left."""
    return mirrored(piece) if piece.what.half is Half.BACK else piece
