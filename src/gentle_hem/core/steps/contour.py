"""Contours of the block: the back zip's hollow, wedges pinched out to the bust point, the hollow under the bust
(trade 4.3, 4.4).
"""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Piece
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.contour import ZipRun, centre_pinched, hollowed, pinched, taken_in_at_back, under_bust_level
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length, inches

SEEN = 0.05
"""Millimetres: less than this is not said of a line's length."""


class ZipContour(BodiceStep):
    """The centre back taken in ¾ in at the waist for the zip, given back at the side."""

    title: ClassVar[str] = "Contour under the zip"
    sentences: ClassVar[tuple[str, ...]] = (
        "Under the zip the centre back is taken in {taken} at the waist[taken:, {run}, and {give_back}; the back dart "
        "is placed {dart}]. The bodice is made {drop} shorter there.",
    )
    words: ClassVar[dict[str, Word]] = {
        "taken": length(
            "taken in at centre back", presets=((inches(0.5), "50 %, 1/2 in"), (inches(0.75), "75 %, 3/4 in"),
                                                (inches(1), "100 %, 1 in")),
            help="So that the zip does not bulge in the hollow of the back.", nothing="nothing"),
        "run": choice("where the contour runs", ("half", "from the chest line"), ("full", "from the neck")),
        "give_back": choice("given back", ("side", "given back at the side"), ("none", "not given back")),
        "dart": choice(
            "where the back dart is placed", ("old", "from the old centre line"), ("new", "from the new one"),
            help="From the new line it moves in as far as the centre does, its middle still upright.",
        ),
        "drop": length(
            "shorter at centre back", nothing="no", help="Its waist edge lies that much higher over the hollow."
        ),
    }  # fmt: skip

    kind: Literal["zip_contour"] = "zip_contour"
    on: Literal["back"] = "back"
    taken: Annotated[Length, between(0, 40)] = inches(0.75)
    run: ZipRun = ZipRun.HALF
    give_back: Literal["side", "none"] = "side"
    dart: Literal["old", "new"] = "old"
    drop: Annotated[Length, between(0, 30)] = 0.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return "centre", "waist"

    def draw(self, table: Styling) -> None:
        before = table.pieces[table.back].stitched_length("waist")
        table.redraw(
            table.back,
            lambda p: taken_in_at_back(
                p, self.taken, self.run, self.drop, side_out=self.taken * (self.give_back == "side"),
                dart_out=self.taken * (self.dart == "new"),
            ),
        )  # fmt: skip
        table.is_block()
        after = table.pieces[table.back].stitched_length("waist")
        back = self.taken if self.give_back == "side" else 0.0
        slanted = after - (before - self.taken + back)
        given = table.notes.work(
            "back waist after the zip contour", after,
            "{back_waist} − {taken_in} + {given_back}" + (" + {by_its_slant}" if slanted > SEEN else ""),
            rule="the zip allowance follows the new line",
            back_waist=before, taken_in=self.taken, given_back=back, by_its_slant=slanted,
        )  # fmt: skip
        if self.give_back == "none":
            table.findings.append(
                note(
                    "contour-not-given-back",
                    "The zip contour takes {taken} out of each half of the back and is not given back: the back waist "
                    "is {left} on each half.",
                    *in_recipe("steps"), taken=self.taken, left=float(given),
                )
            )  # fmt: skip


SHARES = {"neckline": 0.5, "armhole": 0.45}
"""Where along a front edge a wedge to the bust point is taken."""

NEAR_CENTRE = 0.8
"""Where along a neckline, from the shoulder, a wedge for the centre is taken that is closed into the waist dart."""


class Wedge(BodiceStep):
    """A wedge of ¼ in pinched out of the front neckline to the bust point."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Pinch closer at the front"
    sentences: ClassVar[tuple[str, ...]] = (
        "Closer than the block, {amount} is pinched out of the front {edge}[edge=centre:, {closed}].",
    )
    words: ClassVar[dict[str, Word]] = {
        "edge": choice("where it is taken", ("neckline", "neckline"), ("armhole", "armhole"), ("centre", "centre")),
        "amount": length("pinched out", presets=((inches(0.25), "1/4 in"), (inches(0.5), "1/2 in"))),
        "closed": choice(
            "how it is closed", ("seam", "and sewn in a seam down the centre"),
            ("dart", "and closed into the waist dart, so that the front stays in one"),
        ),
    }  # fmt: skip

    kind: Literal["wedge"] = "wedge"
    on: Literal["front"] = "front"
    edge: Literal["neckline", "armhole", "centre"] = "neckline"
    amount: Annotated[Length, between(0, 40)] = inches(0.25)
    closed: Literal["seam", "dart"] = "seam"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge,)

    def draw(self, table: Styling) -> None:
        table.redraw(table.front, self._pinched)
        table.is_block()

    def _pinched(self, piece: Piece) -> Piece:
        if self.edge != "centre":
            return pinched(piece, self.edge, SHARES[self.edge], self.amount)
        if self.closed == "dart":
            return pinched(piece, "neckline", NEAR_CENTRE, self.amount / 2)
        return centre_pinched(piece, self.amount)


class UnderBust(BodiceStep):
    """The front waist dart widened under the bust until the bodice lies close there."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Close under the bust"
    sentences: ClassVar[tuple[str, ...]] = (
        "Under the bust the front lies close: what it has more than a quarter of the body there goes into its dart.",
    )
    words: ClassVar[dict[str, Word]] = {}

    kind: Literal["under_bust"] = "under_bust"
    on: Literal["front"] = "front"

    def draw(self, table: Styling) -> None:
        girth = table.figure.get("under_bust_girth")
        if girth is None:
            raise CannotMake("the under-bust girth was not measured")
        target = table.notes.work(
            "under the bust, a quarter", girth / 4, "{under_bust_girth} ÷ 4", under_bust_girth=girth
        )
        level = under_bust_level(table.pieces[table.front], table.figure)
        taken = [0.0]

        def close(piece: Piece) -> Piece:
            made, taken[0] = hollowed(piece, level, float(target))
            return made

        table.redraw(table.front, close)
        table.is_block()
        table.notes.work(
            "taken under the bust", taken[0], "what the pattern has there − {target}",
            rule="split between the dart's legs", target=float(target),
        )  # fmt: skip
