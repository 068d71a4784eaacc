"""Cloth first: how long, how full can it be from this width and this many metres? (trade 7.5, 12)"""

from __future__ import annotations

from math import ceil, pi, radians
from typing import Annotated, ClassVar, Literal

from pydantic import model_validator

from gentle_hem.core.cloth.first import Answer, Lying, circle_from_cloth, panels_from_cloth
from gentle_hem.core.findings import Finding, note, stop
from gentle_hem.core.geometry import Arc, Path, Point
from gentle_hem.core.parts import number_between
from gentle_hem.core.sums.sum import Sum, SumAllowance, SumLength, SumSeam, Value, asked
from gentle_hem.core.workings import Count, Ratio, Workings

SWEEPS = {"90": "quarter circle", "180": "half circle", "360": "full circle", "720": "double circle"}
IN_WORDS = {1: "one", 2: "two", 4: "four"}


class CircleFromClothSum(Sum):
    """Seam 70 cm, a full circle, cloth 150 cm wide and 3 m long."""

    name: ClassVar[str] = "circle_from_cloth"
    title: ClassVar[str] = "Circle from the cloth"
    purpose: ClassVar[str] = "How long a circle skirt this cloth gives, in one, two or four pieces."

    seam: SumSeam = asked("seam it is sewn to")
    cloth_width: SumLength = asked("usable cloth width", help="Between the selvedges.")
    cloth_length: SumLength = asked("length of the cloth", help="What you have: metres or yards.")
    sweep: Literal["90", "180", "360", "720"] = asked("how full", "choice", "360", **SWEEPS)
    side_allowance: SumAllowance = asked("side allowance", default=0.0)
    hem_allowance: SumAllowance = asked("hem allowance", default=0.0)

    def answers(self) -> dict[int, Answer]:
        """The largest laying for each number of pieces that can be proved."""
        found = {}
        for pieces in (1, 2, 4):
            answer = circle_from_cloth(
                float(self.sweep), pieces, self.cloth_width, self.cloth_length, self.side_allowance
            )
            if answer is not None:
                found[pieces] = answer
        return found

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        theta = radians(float(self.sweep))
        radius = notes.work("seam radius", self.seam / theta, "{seam} ÷ {sweep}", seam=self.seam, sweep=Ratio(theta))
        values: dict[str, Value] = {"seam_radius": radius}
        found: list[Finding] = []
        for pieces, answer in self.answers().items():
            word = IN_WORDS[pieces]
            outer = notes.work(
                f"largest cut radius in {word}",
                answer.radius,
                "the largest that fits {width} × {length}",
                rule="laid so that it can be proved",
                width=self.cloth_width,
                length=self.cloth_length,
            )
            long = outer - radius - self.hem_allowance
            if long <= 0:
                continue
            values[f"longest_in_{word}"] = notes.work(
                f"longest in {word}",
                long,
                "{largest_cut_radius} − {seam_radius} − {hem_allowance}",
                largest_cut_radius=outer,
                seam_radius=radius,
                hem_allowance=self.hem_allowance,
            )
        if len(values) == 1:
            found.append(
                stop(
                    "cloth-too-small",
                    "No flare of this fullness comes out of {width} × {length}; take fewer degrees or gathered panels.",
                    width=self.cloth_width,
                    length=self.cloth_length,
                )
            )
        return values, found

    def sketch(self) -> list[Path]:
        answers = self.answers()
        if not answers:
            return []
        best = max(answers.values(), key=lambda answer: answer.radius)
        w, y = self.cloth_width, self.cloth_length
        cloth = Path.through(Point(0, 0), Point(w, 0), Point(w, y), Point(0, y), Point(0, 0))
        return [cloth, *(_shown(lying, best.radius) for lying in best.laid)]


def _shown(lying: Lying, radius: float) -> Path:
    """The arc of a piece as it lies on the cloth."""
    centre = Point(lying.x, lying.y)
    upright, level = lying.left > -1e5 or lying.right < 1e5, lying.bottom > -1e5 or lying.top < 1e5
    if not upright and not level:
        return Path.of(Arc(centre, radius, 0.0, 2 * pi))
    turn = pi / 2 if upright and level else pi
    if upright:
        start = -pi / 2 if lying.left > -1e5 else pi / 2
        if level:
            start = 0.0 if lying.left > -1e5 else pi
    else:
        start = 0.0
    arc = Arc(centre, radius, start, turn)
    return Path.of(arc).then(Path.through(arc.end, centre, arc.start))


class GatherFromClothSum(Sum):
    """Seam 70 cm, cloth 140 cm wide and 3 m long, panels 62 cm long."""

    name: ClassVar[str] = "gather_from_cloth"
    title: ClassVar[str] = "Gathers from the cloth"
    purpose: ClassVar[str] = "How full, or how long, a gathered skirt this cloth gives in whole widths."

    seam: SumSeam = asked("seam it is gathered to")
    cloth_width: SumLength = asked("usable cloth width", help="Between the selvedges.")
    cloth_length: SumLength = asked("length of the cloth", help="What you have: metres or yards.")
    length: SumLength | None = asked("wanted length", default=None, help="Then it answers how full.")
    fullness: Annotated[float, number_between(1, 12, "times fullness")] | None = asked(
        "wanted fullness", "ratio", None, help="Then it answers how long."
    )
    side_allowance: SumAllowance = asked("side allowance", default=0.0)
    join_allowance: SumAllowance = asked("waist allowance", default=0.0)
    hem_allowance: SumAllowance = asked("hem allowance", default=0.0)

    @model_validator(mode="after")
    def _one_of_them(self) -> GatherFromClothSum:
        if (self.length is None) == (self.fullness is None):
            raise ValueError("Give the wanted length or the wanted fullness; the other is the answer.")
        return self

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        extra = self.join_allowance + self.hem_allowance
        usable = notes.work(
            "usable panel width",
            self.cloth_width - 2 * self.side_allowance,
            "{cloth_width} − 2 × {side_allowance}",
            cloth_width=self.cloth_width,
            side_allowance=self.side_allowance,
        )
        if usable <= 0:
            return {}, [stop("cloth-narrower-than-joins", "The side allowances use up the cloth's width.")]
        if self.length is not None:
            height = self.length + extra
            count = panels_from_cloth(self.cloth_width, self.cloth_length, self.side_allowance, height)
            panels = notes.work(
                "panels",
                Count(count),
                "{cloth_length} ÷ ({length} + {allowances}), whole panels",
                rounding="down to whole panels",
                cloth_length=self.cloth_length,
                length=self.length,
                allowances=extra,
            )
            if count == 0:
                return {"panels": panels}, [
                    stop(
                        "cloth-too-short",
                        "Not one panel of {height} comes out of {cloth}.",
                        height=height,
                        cloth=self.cloth_length,
                    )
                ]
            full = notes.work(
                "fullness",
                Ratio(count * usable / self.seam),
                "{panels} × {usable} ÷ {seam}",
                panels=panels,
                usable=usable,
                seam=self.seam,
            )
            found = [] if full >= 1 else [stop("cloth-too-small", "The panels are narrower than the seam.")]
            return {"panels": panels, "fullness": full, "length": notes.work("length", self.length, "as asked")}, found
        wanted = self.fullness or 1.0
        count = max(1, ceil(self.seam * wanted / usable - 1e-9))
        panels = notes.work(
            "panels",
            Count(count),
            "{seam} × {fullness} ÷ {usable}, rounded up",
            rounding="up to whole panels",
            seam=self.seam,
            fullness=Ratio(wanted),
            usable=usable,
        )
        long = notes.work(
            "length",
            self.cloth_length / count - extra,
            "{cloth_length} ÷ {panels} − {allowances}",
            cloth_length=self.cloth_length,
            panels=panels,
            allowances=extra,
        )
        if long <= 0:
            return {"panels": panels}, [
                stop("cloth-too-short", "Nothing is left of {panels} panels between their allowances.", panels=panels)
            ]
        actual = notes.work(
            "fullness",
            Ratio(count * usable / self.seam),
            "{panels} × {usable} ÷ {seam}",
            panels=panels,
            usable=usable,
            seam=self.seam,
        )
        found = [note("whole-widths", "Whole widths give a fullness of {actual}.", actual=actual)]
        return {"panels": panels, "fullness": actual, "length": long}, found

    def sketch(self) -> list[Path]:
        height = (self.length or 0.0) + self.join_allowance + self.hem_allowance
        if self.length is None:
            usable = self.cloth_width - 2 * self.side_allowance
            count = max(1, ceil(self.seam * (self.fullness or 1.0) / max(usable, 1.0) - 1e-9))
            height = self.cloth_length / count
        else:
            count = panels_from_cloth(self.cloth_width, self.cloth_length, self.side_allowance, max(height, 1.0))
        w, y = self.cloth_width, self.cloth_length
        cloth = Path.through(Point(0, 0), Point(w, 0), Point(w, y), Point(0, y), Point(0, 0))
        return [
            cloth,
            *(Path.through(Point(0, k * height), Point(w, k * height)) for k in range(1, min(count, 60) + 1)),
        ]
