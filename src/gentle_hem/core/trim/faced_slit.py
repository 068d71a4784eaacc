"""A slit in the middle of the neck, or in the sleeves, with the facing it is turned with (trade 13: before the
shoulders), and its loops and buttons.

 neck ───┬───        the facing reaches as far beyond the slit as it is wide; stitched round the slit, cut,
         │ slit      turned; where there is a seam already it is left open instead
        ─┴─
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.parts import OpeningPlace, between, number_between
from gentle_hem.core.pattern import Edge, Finished, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of, seam_of_layers
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.steps.base import seen_from_centre
from gentle_hem.core.strips import bias_strip
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Layer, Panel, Section, Sign, What
from gentle_hem.core.workings import Count, Workings
from gentle_hem.core.workroom import Dressed

PLACES = {"back_neck": Half.BACK, "front_neck": Half.FRONT}

BUTTON_THICKNESS = 3.0

LOOP_WIDE = 25.0
"""A loop is sewn from a bias strip cut 2.5 cm wide: common practice."""

LOOP_MARK = 8.0
"""How long the line is drawn that says where a loop is caught (mm)."""

LEAST_LEFT = 30.0
"""A slit leaves at least so much of the centre below it (mm)."""


class FacedSlit(Trim):
    """A slit 12 cm long in the middle of the front neck, faced, with a loop and a button."""

    turn: ClassVar[Turn] = Turn.ON_WHAT_IS_THERE
    title: ClassVar[str] = "Faced slit"
    sentences: ClassVar[tuple[str, ...]] = (
        "A slit {height} long in {place}, faced {facing} round it[buttons:, with loops for {buttons} of {button}].",
        "[buttons=0:It takes {buttons}.]",
    )
    words: ClassVar[dict[str, Word]] = {
        "height": length("length of the slit"),
        "place": choice(
            "where it is cut", ("back_neck", "the middle of the back neck"),
            ("front_neck", "the middle of the front neck"), ("sleeve", "each sleeve, behind"),
        ),
        "facing": length("facing round it"),
        "buttons": number("buttons", (0, "no button"), (1, "1 button"), (3, "3 buttons"),
                          spoken=lambda n: "no button" if n == 0 else f"{n} button" + ("s" if n > 1 else "")),
        "button": length("diameter of a button"),
    }  # fmt: skip

    kind: Literal["faced_slit"] = "faced_slit"
    height: Annotated[Length, between(20, 600)] = 120.0
    place: Literal["back_neck", "front_neck", "sleeve"] = "front_neck"
    facing: Annotated[Length, between(15, 120)] = Field(40.0, description="Beyond the slit, at its sides and end.")
    buttons: Annotated[int, number_between(0, 30, "buttons")] = 1
    button: Annotated[Length, between(5, 60)] = 12.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("slit")
        slit = self._in_sleeve(dress) if self.place == "sleeve" else self._in_neck(dress)
        return self._looped(slit, 2 if self.place == "sleeve" else 1, notes)

    def _in_neck(self, dress: Dressed) -> Dressed:
        half = PLACES[self.place]
        piece = next(
            (
                seen_from_centre(one) for one in dress.outer_upper()
                if one.what.half is half and not one.what.other
                and any(e.role is Role.NECKLINE for e in one.edges) and any(e.role.is_centre for e in one.edges)
            ),
            None,
        )  # fmt: skip
        if piece is None:
            raise CannotMake(f"no piece reaches both the neck and the centre of the {half}")
        centre = next(e for e in piece.edges if e.role.is_centre)
        top = centre.path.start
        if centre.path.length < self.height + LEAST_LEFT:
            raise CannotMake(f"it is longer than the centre of the {piece.name}")
        if centre.path.between(0.0, self.height).box[2] - top.x > 0.5:
            raise CannotMake(f"the {centre.name} is not straight there")
        if not piece.on_fold:
            if ZIP_HALF.get(dress.opening.place) is half:
                raise CannotMake("the zip opens it there already")
            made = self._ending(piece, centre.name, self.height)
            made = replace(made, marks=(*piece.marks, *self._loop_marks(top, Point(0, -1), -1.0)))
            return _opened(dress.with_pieces([_back_again(made)]), 2 * self.height)
        _not_yet(piece)
        if any(w.layer is Layer.FACING and w.half is half and w.panel is Panel.NECK for w in dress.pieces):
            raise CannotMake("the neck has a facing of its own; bind the neck instead, together with the slit's facing")
        facing = self._neck_facing(piece, centre, half)
        slash = Mark(MarkKind.SLASH, Path.through(top, top - Point(0, self.height)), SLIT)
        marked = replace(piece, marks=(*piece.marks, slash, *self._loop_marks(top, Point(0, -1), 1.0)))
        facing = replace(facing, marks=(slash,))
        faced = dress.with_pieces([_back_again(marked), _back_again(facing)])
        seam = seam_of_layers(f"{half} slit facing seam", (piece.what, SLIT), (facing.what, SLIT))
        return _opened(faced.sewn(seam), 2 * self.height)

    def _neck_facing(self, piece: Piece, centre: Edge, half: Half) -> Piece:
        """The facing of a slit on the fold: its upper edge is the neck's own, and is finished together with it."""
        neck = piece.edges[piece.edges.index(centre) - 1]
        top, wide = centre.path.start, self.facing
        met = neck.path.crossings(Path.through(top + Point(wide, -500), top + Point(wide, 500)))
        if neck.role is not Role.NECKLINE or not met:
            raise CannotMake("the neck is narrower than the slit's facing; make the facing narrower")
        upper = neck.path.between(met[-1][0], neck.path.length)
        low = top.y - self.height - wide
        corner = Point(top.x + wide, low)
        edges = (
            Edge("foot", Role.FREE, Path.through(Point(top.x, low), corner)),
            Edge("outer edge", Role.FREE, Path.through(corner, upper.start)),
            Edge("neckline", Role.NECKLINE, upper, neck.allowance, finished=Finished.BOUND, pointed=neck.pointed),
            Edge(str(centre.role), centre.role, Path.through(top, Point(top.x, low))),
        )
        middle = top.x + wide / 2
        return Piece(
            What(piece.what.section, half, Panel.SLIT, Layer.FACING), edges, on_fold=True,
            grain=(Point(middle, top.y - 0.2 * self.height), Point(middle, low + 0.2 * self.height)),
            remark="stitched round the slit before it is cut",
        )  # fmt: skip

    def _in_sleeve(self, dress: Dressed) -> Dressed:
        sleeve = next((p for p in dress.pieces.values() if p.what.is_outer(Section.SLEEVE)), None)
        if sleeve is None:
            raise CannotMake("there is no sleeve; add the sleeve first")
        _not_yet(sleeve)
        hem = next((e for e in sleeve.edges if e.role is Role.HEM), None)
        if hem is None:
            raise CannotMake("the sleeve's edge is no hem that a slit could begin at")
        at = BEHIND * hem.drawn_length
        foot = hem.path.point_at(at)
        if min(at, hem.drawn_length - at) < self.facing + 5:
            raise CannotMake("the sleeve is too narrow for the slit's facing; make the facing narrower")
        top = foot + Point(0, self.height)
        if top.y > -5:
            raise CannotMake("it would reach up into the cap")
        wide = self.facing
        slash = Mark(MarkKind.SLASH, Path.through(top, foot), SLIT)
        a, b = foot - Point(wide, 0), foot + Point(wide, 0)
        c, d = b + Point(0, self.height + wide), a + Point(0, self.height + wide)
        edges = (
            Edge("hem", Role.HEM, Path.through(a, b), hem.allowance, turned=True),
            Edge("end", Role.FREE, Path.through(b, c)), Edge("top", Role.FREE, Path.through(c, d)),
            Edge("start", Role.FREE, Path.through(d, a)),
        )  # fmt: skip
        facing = Piece(
            What(Section.SLEEVE, panel=Panel.SLIT, layer=Layer.FACING), edges, cut=2, marks=(slash,),
            grain=(foot + Point(wide / 2, 0.2 * self.height), foot + Point(wide / 2, self.height)),
            remark="stitched round the slit before it is cut",
        )  # fmt: skip
        loops = self._loop_marks(foot, Point(0, 1), 1.0)
        marked = replace(sleeve, marks=(*sleeve.marks, slash, *loops))
        seam = seam_of_layers("sleeve slit facing seam", (sleeve.what, SLIT), (facing.what, SLIT))
        return dress.with_pieces([marked, facing]).sewn(seam)

    def _ending(self, piece: Piece, edge: str, at: float) -> Piece:
        end = Notch(edge, at, Sign("slit ends"), kind=NotchKind.SLIT_END)
        return replace(piece, notches=(*piece.notches, end))

    @property
    def _levels(self) -> list[float]:
        """How far down the slit each loop is caught: the first at the very edge, the rest in equal spaces."""
        return [self.height * k / self.buttons for k in range(self.buttons)]

    def _loop_marks(self, start: Point, way: Point, side: float) -> tuple[Mark, ...]:
        places = [start + way * max(level, 3.0) for level in self._levels]
        return tuple(Mark(MarkKind.LOOP, Path.through(place, place + Point(side * LOOP_MARK, 0))) for place in places)

    def _looped(self, dress: Dressed, slits: int, notes: Workings) -> Dressed:
        if not self.buttons:
            return dress
        loop = loop_long(self.button, notes)
        return with_loops(dress, slits * self.buttons, float(loop), notes)


SLIT = "slit"
"""The name of the line it is cut along, which its facing is sewn round."""

BEHIND = 0.75
"""A sleeve's slit lies behind, three quarters along its hem: over the elbow's outer side."""

ZIP_HALF = {OpeningPlace.CENTRE_BACK: Half.BACK, OpeningPlace.CENTRE_FRONT: Half.FRONT}


def _not_yet(piece: Piece) -> None:
    """Raises CannotMake where a piece has a slit there already."""
    if any(mark.name == SLIT for mark in piece.marks):
        raise CannotMake(f"the {piece.name} has a slit there already")


def loop_long(button: float, notes: Workings) -> float:
    """A loop as cut: once round the button's width and thickness, and its two ends in the seam."""
    return notes.work(
        "a loop", 2 * (button + BUTTON_THICKNESS) + 2 * LOOP_END, "2 × ({button} + {thickness}) + 2 × {end}",
        rule="tried on the button", button=button, thickness=BUTTON_THICKNESS, end=LOOP_END,
    )  # fmt: skip


LOOP_END = 10.0
"""As much of each end of a loop is caught in the seam (mm)."""


def with_loops(dress: Dressed, loops: int, each: float, notes: Workings) -> Dressed:
    """The garment with the bias strip its loops are cut from."""
    long = notes.work("loop strip", loops * each, "{loops} × {loop}", loops=Count(loops), loop=each)
    what = dress.free(What(Section.LOOPS))
    piece = bias_strip(what, float(long), LOOP_WIDE, "sewn to a tube and cut into the loops")
    return dress.with_pieces([piece]).sewn(seam_of(f"{what.name} seam", (what, "edge"), (what, "top")))


def _back_again(piece: Piece) -> Piece:
    """A piece that was seen with its centre on the left, as it lies in the garment."""
    return mirrored(piece) if piece.what.half is Half.BACK else piece


def _opened(dress: Dressed, more: float) -> Dressed:
    return replace(dress, neck_opened=dress.neck_opened + more)
