"""What a front has at its centre: a button stand, a keyhole, the cuts of a twist (trade 4.6, 4.7, 11)."""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.findings import in_recipe, note, warn
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Role
from gentle_hem.core.seams import seam_of_layers
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.steps.base import EdgeName
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.fronts import (
    BUTTON_THICKNESS,
    FACING_BESIDE,
    OFF_THE_RIDGE,
    button_levels,
    faced_with_stand,
    keyhole_facing,
    twisted,
    with_button_stand,
    with_buttonholes,
    with_keyhole,
)
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Layer, Panel


class ButtonStand(BodiceStep):
    """A button stand 2.5 cm wide with 5 buttons of 15 mm."""

    title: ClassVar[str] = "Button stand"
    sentences: ClassVar[tuple[str, ...]] = (
        "A button stand {width} wide; it takes {buttons} buttons of {button}, which {down}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "width": length("button stand", presets=((25.0, "2.5 cm"), (25.4, "1 in"))),
        "buttons": number("buttons", (5, "5"), (6, "6"), (8, "8"), (10, "10")),
        "button": length("button", presets=((11.0, "11 mm"), (15.0, "15 mm"), (19.05, "3/4 in"))),
        "down": choice(
            "how far the buttons go", ("bodice", "end above the waist seam"), ("skirt", "go on down the skirt"),
            help="Going on, they keep their spaces, the seam midway between two.",
        ),
    }  # fmt: skip

    kind: Literal["stand"] = "stand"
    on: Literal["front"] = "front"
    width: Annotated[Length, between(0, 60)] = 25.0
    buttons: Annotated[int, number_between(2, 40, "buttons")] = 5
    button: Annotated[Length, between(5, 60)] = 15.0
    down: Literal["bodice", "skirt"] = "bodice"

    @property
    def on_block(self) -> bool:
        return False

    @property
    def whole(self) -> tuple[Half, ...]:
        return ()

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("centre",)

    def draw(self, table: Styling) -> None:
        """A stand on every outer piece that reaches the centre front."""
        width = self.width
        fronts = [
            (piece, next(edge.path for edge in piece.edges if edge.role is Role.CENTRE_FRONT))
            for piece in table.pieces.values()
            if piece.what.layer is Layer.OUTER and any(edge.role is Role.CENTRE_FRONT for edge in piece.edges)
        ]
        if not fronts:
            raise CannotMake("no piece reaches the centre front any more")
        levels = self._levels(table, max(c.start.y for _, c in fronts), min(c.end.y for _, c in fronts))
        seams = [level for _, c in fronts for level in (c.start.y, c.end.y)]
        if any(abs(level - seam) < OFF_THE_RIDGE - 1e-6 for level in levels for seam in seams):
            table.findings.append(
                warn(
                    "button-on-a-seam",
                    "A button lies within {reach} of a seam across the front; take another number of buttons.",
                    *in_recipe("steps"), reach=OFF_THE_RIDGE,
                )
            )  # fmt: skip
        for piece, _ in fronts:
            table.put(with_button_stand(with_buttonholes(piece, levels, self.button), width, width + FACING_BESIDE))
        facing = table.pieces.get(table.front.as_layer(Layer.FACING).as_panel(Panel.NECK))
        if facing is not None:
            table.put(faced_with_stand(facing, width))
            front = next(p for p, _ in fronts if any(e.role is Role.NECKLINE for e in p.edges))
            table.put(table.pieces[front.what].with_edge("stand top", finished=None))
            table.seams.append(
                seam_of_layers("stand facing seam", (front.what, "stand top"), (facing.what, "stand top"))
            )
        there = {(what, edge.name) for what, piece in table.pieces.items() for edge in piece.edges}
        # a centre front seam is no seam any more: it is buttoned
        table.seams = [s for s in table.seams if all((x.piece, x.edge) in there for x in s.stretches)]

    def _levels(self, table: Styling, top: float, foot: float) -> list[float]:
        """Where the buttons lie, with their working."""
        count, notes = self.buttons, table.notes
        point = table.block[0].bust_point
        bust = point.y if point else (top + foot) / 2
        levels, spacing = button_levels(
            top, min(max(bust, foot + 40), top - 40), foot, count, goes_on=self.down == "skirt"
        )
        notes.work(
            "button spacing", spacing, "from {bust_to_seam}, bust to waist seam, in equal spaces",
            rule=f"one at the bust, one above the seam: {len(levels)} buttons", bust_to_seam=bust - foot,
        )  # fmt: skip
        if len(levels) != count:
            table.findings.append(
                note(
                    "buttons-in-equal-spaces",
                    "Equal spaces with a button at the bust and one above the waist seam take {drawn} buttons; {asked} "
                    "were asked.",
                    *in_recipe("steps"), drawn=str(len(levels)), asked=str(count),
                )
            )  # fmt: skip
        notes.work(
            "buttonhole", self.button + BUTTON_THICKNESS, "{button} + {thickness}", button=self.button,
            thickness=BUTTON_THICKNESS,
        )  # fmt: skip
        return levels


class Keyhole(BodiceStep):
    """A keyhole 11 cm high and 5.5 cm wide, 2.5 cm below the front neck."""

    title: ClassVar[str] = "Keyhole"
    sentences: ClassVar[tuple[str, ...]] = (
        "A keyhole {height} high and {width} wide, {on}, {bridge} below the neck, with its facing.",
    )
    words: ClassVar[dict[str, Word]] = {
        "on": choice("on", ("front", "in front"), ("back", "behind")), "height": length("height of the keyhole"),
        "width": length("width of the keyhole"), "bridge": length("below the neck edge"),
    }  # fmt: skip

    kind: Literal["keyhole"] = "keyhole"
    on: Literal["front", "back"] = "front"
    height: Annotated[Length, between(20, 400)] = 110.0
    width: Annotated[Length, between(10, 200)] = 55.0
    bridge: Annotated[Length, between(5, 150)] = 25.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("centre",)

    def draw(self, table: Styling) -> None:
        what = table.front if self.on == "front" else table.back
        if self.on == "back" and not table.pieces[what].on_fold:
            raise CannotMake("the back has a seam or an opening at its centre; leave a slit of it open instead")
        table.redraw(what, lambda p: with_keyhole(p, self.bridge, self.height, self.width))
        piece = table.pieces[what]
        table.put(keyhole_facing(piece) if self.on == "front" else mirrored(keyhole_facing(mirrored(piece))))


class Twist(BodiceStep):
    """A twist front: 3 cuts of 2¾ in."""

    title: ClassVar[str] = "Twist front"
    sentences: ClassVar[tuple[str, ...]] = (
        "The front is twisted: {cuts} cuts fan from its centre to the side and armhole, each opened by {spread}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "cuts": number("twist cuts", (2, "2"), (3, "3"), (4, "4")),
        "spread": length("each opened by", presets=((69.85, "2 3/4 in"), (76.2, "3 in"), (80.0, "8 cm"))),
    }  # fmt: skip

    kind: Literal["twist"] = "twist"
    on: Literal["front"] = "front"
    cuts: Annotated[int, number_between(1, 6, "cuts")] = 3
    spread: Annotated[Length, between(10, 120)] = 69.85

    @property
    def on_block(self) -> bool:
        return False

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return "centre", "armhole"

    def draw(self, table: Styling) -> None:
        if table.front not in table.pieces or table.front.as_panel(Panel.YOKE) in table.pieces:
            raise CannotMake("its cuts fan over the whole front; do it before the front is cut into panels")
        table.spread(table.front, lambda p: twisted(p, self.cuts, self.spread, table.allowances))
