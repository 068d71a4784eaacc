"""The style of a bodice, said in sentences and applied to a drafted block."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.block.shape import mirrored
from gentle_hem.core.findings import Finding, in_recipe, note, warn
from gentle_hem.core.parts import Made, RecipePart, between
from gentle_hem.core.pattern import Dart, EdgeRef, Piece, Seam
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.style.neckline import Neckline, neck_facing, with_neckline
from gentle_hem.core.style.pivot import pivot
from gentle_hem.core.units import Length

DartPlace = Literal["as_drafted", "waist", "side", "armhole", "shoulder", "neckline"]

PLACES = (
    ("as_drafted", "stays where it was drafted"),
    ("waist", "moves to the waist"),
    ("side", "moves to the side"),
    ("armhole", "moves to the armhole"),
    ("shoulder", "moves to the shoulder"),
    ("neckline", "moves to the neckline"),
)

SHARE_ALONG = {"side": 0.62, "armhole": 0.35, "shoulder": 0.5, "neckline": 0.5, "waist": 0.8}
"""Where along an edge's path a moved dart opens, unless another dart is there already."""

CLEAR_OF_DART = 12.0


class Style(RecipePart):
    """A V neckline, the bust dart moved to the waist, faced."""

    title: ClassVar[str] = "Style"
    sentences: ClassVar[tuple[str, ...]] = (
        "The front neckline is {front_neck}, {front_depth} deep; the back is {back_neck}, {back_depth} deep; both "
        "open {wider} wider at the shoulder.",
        "The bust dart {bust_dart}; the front waist dart {waist_dart}. The neck is {facing}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "front_neck": choice(
            "front neckline", ("as_drafted", "as drafted"), ("round", "round"), ("v", "a V"), ("square", "square"),
            ("scoop", "scooped"), ("sweetheart", "a sweetheart"),
        ),
        "front_depth": length("front neck depth"),
        "back_neck": choice(
            "back neckline", ("as_drafted", "as drafted"), ("round", "round"), ("v", "a V"), ("square", "square"),
            ("scoop", "scooped"),
        ),
        "back_depth": length("back neck depth"),
        "wider": length("neck opened at the shoulder"),
        "bust_dart": choice("bust dart", *PLACES),
        "waist_dart": choice("front waist dart", *PLACES),
        "facing": choice("neck finish", ("none", "not faced"), ("faced", "faced")),
    }  # fmt: skip

    front_neck: Neckline = Neckline.AS_DRAFTED
    front_depth: Annotated[Length, between(20, 600)] = 150.0
    back_neck: Literal["as_drafted", "round", "v", "square", "scoop"] = "as_drafted"
    back_depth: Annotated[Length, between(10, 600)] = 60.0
    wider: Annotated[Length, between(0, 150)] = 0.0
    bust_dart: DartPlace = "as_drafted"
    waist_dart: DartPlace = "as_drafted"
    facing: Literal["none", "faced"] = "none"

    @property
    def is_plain(self) -> bool:
        """Whether nothing at all is asked of the block."""
        return self == Style()

    def apply(self, bodice: Made) -> Made:
        """The bodice styled. A block that is only measured edges has nothing to style, and says so."""
        if self.is_plain:
            return bodice
        names = {piece.name: piece for piece in bodice.pieces}
        front, back = names["bodice front"], names["bodice back"]
        if front.bust_point is None:
            return bodice.also(
                [
                    note(
                        "style-needs-a-draft",
                        "Style lines need a drafted bodice; this one is only its measured edges.",
                        *in_recipe("bodice", "style"),
                    )
                ]
            )
        return _Styled(self, bodice, []).made(front, back)


@dataclass
class _Styled:
    """A bodice being styled, with the findings so far."""

    style: Style
    bodice: Made
    findings: list[Finding]

    def made(self, front: Piece, back: Piece) -> Made:
        style = self.style
        front = self._neck(front, Neckline(style.front_neck), style.front_depth, "front")
        back = mirrored(self._neck(mirrored(back), Neckline(style.back_neck), style.back_depth, "back"))
        extra: list[Piece] = []
        seams = list(self.bodice.seams)
        if style.facing == "faced":
            for piece, name in ((front, "front neck facing"), (back, "back neck facing")):
                facing = neck_facing(piece, name) if piece is front else self._back_facing(piece, name)
                if facing is None:
                    self.findings.append(
                        warn(
                            "facing-does-not-fit",
                            "No even facing fits the {piece}: a dart or the edge of the piece is in its way.",
                            *in_recipe("style.facing"),
                            piece=piece.name,
                        )
                    )
                    continue
                extra.append(facing)
                seams.append(Seam(f"{name} seam", (EdgeRef(piece.name, "neckline"),), (EdgeRef(name, "neckline"),)))
        for name, place in (("bust dart", style.bust_dart), ("front dart", style.waist_dart)):
            front = self._dart(front, name, place)
        pieces = (front, back, *extra)
        return replace(self.bodice, pieces=pieces, seams=tuple(seams)).also(self.findings)

    @staticmethod
    def _back_facing(piece: Piece, name: str) -> Piece | None:
        facing = neck_facing(mirrored(piece), name)
        return mirrored(facing) if facing else None

    def _neck(self, piece: Piece, shape: Neckline, depth: float, where: str) -> Piece:
        if shape is Neckline.AS_DRAFTED and not self.style.wider:
            return piece
        if shape is Neckline.AS_DRAFTED:
            shape = Neckline.ROUND
            depth = piece.edge("shoulder").path.end.y - piece.edge("neckline").path.end.y
        try:
            return with_neckline(piece, shape, depth, self.style.wider)
        except ValueError as used_up:
            self.findings.append(
                warn(
                    "neckline-too-large",
                    "The {where} neckline uses up {what}: make it shallower or narrower. It is left as drafted.",
                    *in_recipe(f"style.{where}_depth", "style.wider"),
                    where=where,
                    what=str(used_up),
                )
            )
            return piece

    def _dart(self, front: Piece, name: str, place: DartPlace) -> Piece:
        """The front with one of its darts moved, if it has it and it is asked for."""
        if place == "as_drafted" or front.bust_point is None:
            return front
        dart = next((d for d in front.darts if _called(d, name)), None)
        if dart is None:
            self.findings.append(
                note("no-such-dart", "This draft has no {name} to move.", *in_recipe("style"), name=name)
            )
            return front
        if dart.edge == place:
            return front
        at = _free_place(front, place)
        landmark = "front bust dart" if place == "waist" else name
        try:
            return pivot(front, dart, place, at, front.bust_point, landmark)
        except ValueError as wrong:
            self.findings.append(
                warn("dart-cannot-move", "The {name} cannot be moved there: {why}.", *in_recipe("style"),
                     name=name, why=str(wrong))
            )  # fmt: skip
            return front


def _called(dart: Dart, name: str) -> bool:
    """The bust dart is drafted at the side by one school and at the shoulder by another."""
    return dart.landmark == name or (name == "bust dart" and dart.landmark == "shoulder dart")


def _free_place(piece: Piece, edge_name: str) -> float:
    """A place along an edge for a new dart, clear of the darts already on it."""
    edge = piece.edge(edge_name)
    at = edge.drawn_length * SHARE_ALONG[edge_name]
    for dart in piece.darts_of(edge_name):
        if dart.at - CLEAR_OF_DART < at < dart.at + dart.intake + CLEAR_OF_DART:
            at = (dart.at + dart.intake + edge.drawn_length) / 2
    return at
