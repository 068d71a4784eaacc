"""No bodice yet: a dress that has been begun and not measured. Nothing is drawn, and nothing looks finished."""

from __future__ import annotations

from typing import ClassVar, Literal

from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import in_recipe, stop
from gentle_hem.core.parts import Allowances, BodiceMade, BodicePart, Opening
from gentle_hem.core.workings import Workings


class NoBodice(BodicePart):
    """There is no bodice yet."""

    title: ClassVar[str] = "No bodice yet"
    sentences: ClassVar[tuple[str, ...]] = (
        "There is no bodice yet. Measure the waist edges of one that fits, draft one from her measures, or bring in a "
        "block.",
    )

    kind: Literal["none"] = "none"

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        return BodiceMade(
            findings=(
                stop(
                    "no-bodice-yet",
                    "There is no bodice yet, so there is no edge to hang anything from. Measure the edges of one that "
                    "fits, draft one from measures, or bring in a block.",
                    *in_recipe("bodice"),
                ),
            )
        )
