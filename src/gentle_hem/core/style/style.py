"""The style of a bodice applied to a drafted block.

contour ─► neckline ─► facing ─► darts ─► top ─► carried down ─► waist line ─► centre front ─► panels
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.carry import Below, carried_down, pointed_at_both_ends, trued_at_side
from gentle_hem.core.cutting.centre import seamed_at_centre
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.drafting import Step
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Remedy, in_recipe, note, refused, warn
from gentle_hem.core.parts import Allowances, BodiceMade
from gentle_hem.core.pattern import Dart, Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of_layers
from gentle_hem.core.steps.base import PatternStep, not_taken, seen_from_centre, take
from gentle_hem.core.style.contour import Contour, under_bust_level
from gentle_hem.core.style.darts import as_pleat, merged_into_waist, narrowed, shortened
from gentle_hem.core.style.facings import neck_facings, top_facings
from gentle_hem.core.style.fronts import (
    BUTTON_THICKNESS,
    FACING_BESIDE,
    OFF_THE_RIDGE,
    button_levels,
    faced_with_stand,
    keyhole_facing,
    pointed_waist,
    twisted,
    with_button_stand,
    with_buttonholes,
    with_keyhole,
)
from gentle_hem.core.style.neckline import Neckline, with_neckline
from gentle_hem.core.style.panels import (
    PrincessFrom,
    cut_under_bust,
    midriff_joined,
    princess,
    yoke,
)
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.style.tops import Top, draw_top, sew_straps, straps
from gentle_hem.core.style.words import DartPlace, Panels, Style
from gentle_hem.core.what import (
    BACK_PRINCESS,
    BUST_DART,
    FRONT_DART,
    FRONT_PRINCESS,
    SHOULDER_DART,
    Half,
    Layer,
    Panel,
    Sign,
)
from gentle_hem.core.workings import Workings

SHARE_ALONG = {
    "side": 0.62, "armhole": 0.35, "shoulder": 0.5, "neckline": 0.5, "waist": 0.8, "centre front": 0.5
}  # fmt: skip
"""Where along an edge's path a moved dart opens, unless another dart is there already."""

CLEAR_OF_DART = 12.0

SAID_FROM = 3.0
"""What is trued by less than this is not worth saying (mm)."""

DART_ABOVE_HIP = {Half.FRONT: 50.8, Half.BACK: 25.4}
"""A dart carried below the waist ends 2 in above the hip at the front, 1 in at the back: common practice
(trade 4.1)."""


USUAL = {
    f"{place}.{name}": field.default
    for place, part in (("style", Style), ("panels", Panels))
    for name, field in part.model_fields.items()
}
"""Every word of the style as it is when nothing is asked."""


def style_bodice(
    bodice: BodiceMade,
    figure: Figure,
    allowances: Allowances,
    notes: Workings,
    style: Style,
    panels: Panels,
    contour: Contour,
    carry: Callable[[Piece], Below] | None = None,
    steps: Sequence[PatternStep] = (),
) -> BodiceMade:
    """The bodice styled, then the steps done to it. ``carry`` says how each half goes on below the waist when the
    garment is cut in one; then the steps for the lower part are done to it too.

    A bodice that is only measured edges has nothing to style, and says so.
    """
    asked = [step for step in steps if "bodice" in step.parts or carry is not None]
    plain = style == Style() and panels == Panels() and contour == Contour() and carry is None and not asked
    if plain:
        return _trued_block(bodice)
    if all(piece.bust_point is None for piece in bodice.pieces):
        return bodice.also(
            [
                note(
                    "style-needs-a-draft",
                    "Style lines need a drafted bodice; this one is only its measured edges.",
                    *in_recipe("bodice", "style"),
                ),
                *not_taken(steps, ("bodice",), "steps need a drafted bodice, and this one is only its measured edges"),
            ]
        )
    return _Styled(
        style, panels, contour, steps, figure, notes.about("bodice"),
        Styling.of(bodice, allowances, bodice.pieces[0].what.section, USUAL, figure, notes.about("bodice")),
    ).made(carry)  # fmt: skip


def _trued_block(bodice: BodiceMade) -> BodiceMade:
    """A block trued, with a last step of its draft that says so; one brought in is the maker's own, and stays."""
    if not bodice.draft:
        return bodice
    steps = []
    pieces = true.of_part(bodice.pieces, bodice.seams)
    for before, after in zip(bodice.pieces, pieces, strict=True):
        drawn = after if after.what.half is Half.FRONT else mirrored(after)
        anew = tuple(drawn.edge(e.name).path for e in before.edges if after.edge(e.name).path != e.path)
        if anew and before.what.half:
            steps.append(Step(before.what.half.value, TRUED, {}, anew))
    return replace(bodice, pieces=pieces, draft=(*bodice.draft, *steps))


TRUED = (
    "Fold the darts and draw the waist and the side once more, smooth over the folds and square where they meet the "
    "seams and the centre; each stays as long as it was."
)


class _Styled:
    """A bodice being styled, line by line."""

    def __init__(
        self, style: Style, panels: Panels, contour: Contour, steps: Sequence[PatternStep], figure: Figure,
        notes: Workings, table: Styling,
    ) -> None:  # fmt: skip
        self.style, self.panels, self.contour, self.steps = style, panels, contour, steps
        self.figure, self.notes, self.table = figure, notes, table

    def made(self, carry: Callable[[Piece], Below] | None) -> BodiceMade:
        table, style, panels = self.table, self.style, self.panels
        self.contour.draw(table, self.figure, self.notes, in_one=style.top is Top.ONE_SHOULDER)
        self._necks()
        block = table.pieces[table.front], table.pieces[table.back]
        self.block = block[0]
        self.bust_point = self.block.bust_point
        if style.facing == "faced" and style.top is Top.SHOULDERS:
            neck_facings(table, style.facing_width)
        self._darts()
        if style.top is Top.ONE_SHOULDER and (carry is not None or panels.ends in ("basque", "dropped")):
            # drawn from a half, it would be carried down on one side alone
            what = "cut in one" if carry is not None else "carried on below the waist"
            ways: tuple[Remedy, ...] = (
                Remedy("both-shoulders", "Give it both its shoulders", {"style.top": Top.SHOULDERS.value}),
            )
            table.findings.append(
                refused("one-shoulder-carried-down", "A one-shoulder top {what} cannot be drawn; it has both its "
                        "shoulders here. Join it at the waist for one shoulder.", *in_recipe("style.top"),
                        remedies=ways, what=what)
            )  # fmt: skip
        elif style.top is not Top.SHOULDERS:
            words = {Top.HALTER: "halter", Top.ONE_SHOULDER: "one-shoulder top", Top.OFF_SHOULDER: "off-shoulder top"}
            table.style(
                words.get(style.top, "strapless top"), "style.top",
                lambda: draw_top(table, style.top, style.top_taken, style.strap_width, style.bare_below),
            )  # fmt: skip
            if style.facing == "faced" and table.top_is_bare:
                table.style("facing of the top", "style.facing", lambda: top_facings(table, style.facing_width))
        if style.straps != "none":
            table.style(
                "straps", "style.straps",
                lambda: straps(
                    table, style.straps, style.strap_width, table.allowances.panel, block, style.strap_ends
                ),
            )  # fmt: skip
        if style.keyhole == "keyhole":
            table.style("keyhole", "style.keyhole", self._keyhole)
        if carry is not None:
            take(self.steps, ("bodice",), table, lambda step: step.on_block)
            table.style("part below the waist", "lower.length", lambda: self._carry(carry))
        else:
            self._ends()
        if panels.twist:
            table.style("twist", "panels.twist", self._twist)
        for half, depth in ((table.front, panels.front_yoke), (table.back, panels.back_yoke)):
            if depth:
                table.style(
                    f"{half.half} yoke",
                    f"panels.{half.half}_yoke",
                    lambda w=half, d=depth: yoke(table, w, d),  # type: ignore[misc]
                )
        for half, start, corner in (
            (table.front, panels.front_princess, FRONT_PRINCESS), (table.back, panels.back_princess, BACK_PRINCESS)
        ):  # fmt: skip
            if start is not PrincessFrom.NONE:
                table.style(
                    corner, f"panels.{half.half}_princess",
                    lambda w=half, s=start, c=corner: princess(table, w, s, c),  # type: ignore[misc]
                )  # fmt: skip
        if style.straps != "none":
            sew_straps(table)
        if panels.stand:
            table.style("button stand", "panels.stand", self._stand)
        if carry is not None:
            take(self.steps, ("bodice", "lower"), table, lambda step: not step.on_block or step.part == "lower")
        else:
            take(self.steps, ("bodice",), table)
        for piece in list(table.pieces.values()):
            table.put(pointed_at_both_ends(piece))
        table.true()
        return table.made()

    def _carry(self, carry: Callable[[Piece], Below]) -> None:
        table, halves = self.table, (self.table.front, self.table.back)
        for what in halves:
            table.redraw(what, lambda p: carried_down(p, carry(p)))
        front, back = (table.pieces[what].stitched_length("side") for what in halves)
        longer = table.front if front > back else table.back
        over = abs(front - back)
        table.redraw(longer, lambda p: trued_at_side(p, over))
        self._waists_notched_alike()
        if over > SAID_FROM:
            table.findings.append(
                note(
                    "sides-trued",
                    "The side of the {piece} is longer by {over} from its own shape; it is made as much shorter at its "
                    "lower end, so that the side seams walk.",
                    *in_recipe("lower.hip_shift"),
                    piece=longer.name,
                    over=over,
                )
            )

    def _waists_notched_alike(self) -> None:
        """The waist notched at one distance from the underarm on both sides, where the blocks' own sides differ by a
        hair.
        """
        table = self.table
        found = {}
        for what in (table.front, table.back):
            piece = seen_from_centre(table.pieces[what])
            path = piece.edge("side").path
            notches = [n for n in piece.notches if n.edge == "side"]
            half = what.half
            if not notches or half is None or half not in table.waists:
                return
            notch = min(notches, key=lambda n: abs(path.point_at(n.at).y - table.waists[half]))
            found[what] = notch, path.length - notch.at
        down = [from_top for _, from_top in found.values()]
        if 0 < abs(down[0] - down[1]) <= SAID_FROM:
            both = sum(down) / 2
            for what, (notch, _) in found.items():
                table.redraw(what, lambda p, n=notch: _notched_from_top(p, n, both))  # type: ignore[misc]

    def _ends(self) -> None:
        table, panels = self.table, self.panels
        if panels.ends == "basque":
            table.style("basque", "panels.ends", self._basque)
        elif panels.ends == "dropped":
            table.style("dropped waist", "panels.ends", self._drop)
        elif panels.ends in ("under_bust", "midriff"):
            table.style("line under the bust", "panels.ends", self._under_bust)

    def _basque(self) -> None:
        self.table.redraw(self.table.front, lambda p: pointed_waist(p, self.panels.depth))
        self.table.point = self.panels.depth

    def _drop(self) -> None:
        self._carry(self._dropped)
        self.table.level = self.panels.depth

    def _dropped(self, piece: Piece) -> Below:
        """A dropped waist follows the hip with 2 cm of ease on each quarter's way to it."""
        measures = Measures(self.figure, self.notes)
        hip, drop = measures.take("hip_girth"), measures.take("waist_to_hip")
        width = hip / 4 + 10
        assert piece.what.half is not None
        dart = max(drop - DART_ABOVE_HIP[piece.what.half], self.panels.depth * 0.5)
        return Below(self.panels.depth, drop, width, width, dart)

    def _under_bust(self) -> None:
        table = self.table
        front, back = table.pieces[table.front], table.pieces[table.back]
        level = under_bust_level(self.block, self.figure)
        above_waist = level - front.edge("waist").path.end.y
        keep = self.panels.ends == "midriff"
        cut_under_bust(table, table.front, level, keep)
        # the back is cut where the side seams, both walked from the waist, meet the front's line
        cut = front.edge("side").drawn_length - table.pieces[table.front].edge("side").drawn_length
        cut_under_bust(table, table.back, self._at_side(back, cut), keep)
        if keep:
            midriff_joined(table)
        else:
            table.level = -above_waist

    @staticmethod
    def _at_side(back: Piece, cut: float) -> float:
        """The level at which a line cuts so much off the back's side seam, as the front's cuts off its own."""
        side = mirrored(back).edge("side").path
        if not 0 < cut < side.length:
            raise CannotMake("the line does not meet the back's side seam")
        return side.point_at(cut).y

    def _necks(self) -> None:
        style, table = self.style, self.table
        for what, shape, depth in (
            (table.front, Neckline(style.front_neck), style.front_depth),
            (table.back, Neckline(style.back_neck), style.back_depth),
        ):
            table.redraw(what, lambda p, s=shape, d=depth: self._neck(p, s, d))  # type: ignore[misc]

    def _neck(self, piece: Piece, shape: Neckline, depth: float) -> Piece:
        if shape is Neckline.AS_DRAFTED and not self.style.wider:
            return piece
        if shape is Neckline.AS_DRAFTED:
            shape = Neckline.ROUND
            depth = piece.edge("shoulder").path.end.y - piece.edge("neckline").path.end.y
        try:
            return with_neckline(piece, shape, depth, self.style.wider)
        except CannotMake as used_up:
            self.table.findings.append(
                refused(
                    "neckline-too-large",
                    "The {where} neckline uses up {what}: make it shallower or narrower. It is left as drafted.",
                    *in_recipe(f"style.{piece.what.half}_depth", "style.wider"),
                    where=str(piece.what.half),
                    what=str(used_up),
                )
            )
            return piece

    def _darts(self) -> None:
        style, table = self.style, self.table
        if style.bust_dart == "merged":
            table.style("merged dart", "style.bust_dart", self._merge)
        else:
            table.put(self._dart(table.pieces[table.front], BUST_DART, style.bust_dart))
        table.put(self._dart(table.pieces[table.front], FRONT_DART, style.waist_dart))
        if style.narrower:
            table.style("narrower dart", "style.narrower", lambda: self._on_waist_dart(narrowed, style.narrower))
        if style.dart_short is not None:
            table.style("shorter dart", "style.dart_short", lambda: self._on_waist_dart(shortened, style.dart_short))
        if style.stitched == "pleat":
            for what in (table.front, table.back):
                table.redraw(what, _pleated)

    def _stand(self) -> None:
        """A stand on every outer piece that reaches the centre front."""
        width, panels = self.panels.stand, self.panels
        fronts = [
            (piece, next(edge.path for edge in piece.edges if edge.role is Role.CENTRE_FRONT))
            for piece in self.table.pieces.values()
            if piece.what.layer is Layer.OUTER and any(edge.role is Role.CENTRE_FRONT for edge in piece.edges)
        ]
        if not fronts:
            raise CannotMake("no piece reaches the centre front any more")
        levels = self._button_levels(max(c.start.y for _, c in fronts), min(c.end.y for _, c in fronts))
        seams = [level for _, c in fronts for level in (c.start.y, c.end.y)]
        if any(abs(level - seam) < OFF_THE_RIDGE - 1e-6 for level in levels for seam in seams):
            self.table.findings.append(
                warn(
                    "button-on-a-seam",
                    "A button lies within {reach} of a seam across the front; take another number of buttons.",
                    *in_recipe("panels.buttons"),
                    reach=OFF_THE_RIDGE,
                )
            )
        for piece, _ in fronts:
            self.table.put(
                with_button_stand(with_buttonholes(piece, levels, panels.button), width, width + FACING_BESIDE)
            )
        facing = self.table.pieces.get(self.table.front.as_layer(Layer.FACING).as_panel(Panel.NECK))
        if facing is not None:
            self.table.put(faced_with_stand(facing, width))
            front = next(p for p, _ in fronts if any(e.role is Role.NECKLINE for e in p.edges))
            self.table.put(self.table.pieces[front.what].with_edge("stand top", finished=None))
            self.table.seams.append(
                seam_of_layers("stand facing seam", (front.what, "stand top"), (facing.what, "stand top"))
            )
        there = {(what, edge.name) for what, piece in self.table.pieces.items() for edge in piece.edges}
        # a centre front seam is no seam any more: it is buttoned
        self.table.seams = [s for s in self.table.seams if all((x.piece, x.edge) in there for x in s.stretches)]

    def _button_levels(self, top: float, foot: float) -> list[float]:
        """Where the buttons lie, with their working."""
        count = self.panels.buttons
        bust = self.bust_point.y if self.bust_point else (top + foot) / 2
        levels, spacing = button_levels(top, min(max(bust, foot + 40), top - 40), foot, count,
                                        goes_on=self.panels.down == "skirt")  # fmt: skip
        self.notes.work(
            "button spacing", spacing, "from {bust_to_seam}, bust to waist seam, in equal spaces",
            rule=f"one at the bust, one above the seam: {len(levels)} buttons", bust_to_seam=bust - foot,
        )  # fmt: skip
        if len(levels) != count:
            self.table.findings.append(
                note(
                    "buttons-in-equal-spaces",
                    "Equal spaces with a button at the bust and one above the waist seam take {drawn} buttons; {asked} "
                    "were asked.",
                    *in_recipe("panels.buttons"),
                    drawn=str(len(levels)),
                    asked=str(count),
                )
            )
        self.notes.work(
            "buttonhole", self.panels.button + BUTTON_THICKNESS, "{button} + {thickness}",
            button=self.panels.button, thickness=BUTTON_THICKNESS,
        )  # fmt: skip
        return levels

    def _twist(self) -> None:
        table, panels = self.table, self.panels
        if panels.front_yoke or panels.front_princess is not PrincessFrom.NONE:
            raise CannotMake("its cuts fan over the whole front; take the front's yoke or princess seam out")
        table.spread(table.front, lambda p: twisted(p, panels.twist, panels.twist_spread, table.allowances))

    def _keyhole(self) -> None:
        self.table.redraw(self.table.front, lambda p: with_keyhole(p, 25.0, 110.0, 55.0))
        self.table.put(keyhole_facing(self.table.pieces[self.table.front]))

    def _merge(self) -> None:
        front = self.table.pieces[self.table.front]
        dart = next((d for d in front.darts if _called(d, BUST_DART)), None)
        if dart is None:
            raise CannotMake("this draft has no bust dart")
        self.table.put(merged_into_waist(front, dart))

    def _on_waist_dart(self, change: Callable[..., Piece], amount: float | None) -> None:
        def draw(piece: Piece) -> Piece:
            darts = piece.darts_of("waist")
            if not darts:
                raise CannotMake("there is no dart on the front waist")
            return change(piece, darts[0], amount)

        self.table.redraw(self.table.front, draw)

    def _dart(self, front: Piece, name: Sign, place: DartPlace) -> Piece:
        """The front with one of its darts moved, if it has it and it is asked for."""
        if place in ("as_drafted", "merged") or front.bust_point is None:
            return front
        dart = next((d for d in front.darts if _called(d, name)), None)
        if dart is None:
            self.table.findings.append(
                note("no-such-dart", "This draft has no {name} to move.", *in_recipe("style"), name=name)
            )
            return front
        if dart.edge == place:
            return front
        at = _free_place(front, place)
        landmark = Sign.shaped(Half.FRONT, "bust dart") if place == "waist" else name
        try:
            moved = pivot(front, dart, place, at, front.bust_point, landmark)
        except CannotMake as wrong:
            self.table.findings.append(
                refused("dart-cannot-move", "The {name} cannot be moved there: {why}.", *in_recipe("style"),
                     name=name, why=str(wrong))
            )  # fmt: skip
            return front
        return seamed_at_centre(moved, self.table.allowances.panel) if place == "centre front" else moved


def _notched_from_top(piece: Piece, notch: Notch, down: float) -> Piece:
    at = piece.edge(notch.edge).drawn_length - down
    return replace(piece, notches=tuple(replace(n, at=at) if n is notch else n for n in piece.notches))


def _pleated(piece: Piece) -> Piece:
    for dart in piece.darts_of("waist"):
        piece = as_pleat(piece, dart)
    return piece


def _called(dart: Dart, name: Sign) -> bool:
    """The bust dart is drafted at the side by one school and at the shoulder by another."""
    return dart.landmark == name or (name == BUST_DART and dart.landmark == SHOULDER_DART)


def _free_place(piece: Piece, edge_name: str) -> float:
    """A place along an edge for a new dart, clear of the darts already on it."""
    edge = piece.edge(edge_name)
    at = edge.drawn_length * SHARE_ALONG[edge_name]
    for dart in piece.darts_of(edge_name):
        if dart.at - CLEAR_OF_DART < at < dart.at + dart.intake + CLEAR_OF_DART:
            at = (dart.at + dart.intake + edge.drawn_length) / 2
    return at
