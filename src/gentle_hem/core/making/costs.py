"""What a dress costs: its cloth from the lay, its notions from the pattern, the hours from the plan.

cloth       length bought × price a metre
notions     how many × price of one
hours       worked and still to be worked × her rate
extras      as they are said
            ─────────────────────────────
            together, and what the workroom adds
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from gentle_hem.core.making.notions import Needed, Notion
from gentle_hem.core.units import Tape, format_length, plain


class Sort(StrEnum):
    """What a line is for."""

    CLOTH = "cloth"
    NOTION = "notion"
    HOURS = "hours"
    EXTRA = "extra"


@dataclass(frozen=True, slots=True)
class Line:
    """One line: what, how much of it, and what it comes to; None where a price is not said yet."""

    key: str
    sort: Sort
    what: str
    working: str
    price: float | None
    amount: float | None


@dataclass(frozen=True, slots=True)
class OfCloth:
    """A cloth as it is bought: what it is called, how much, as it is said, and what it comes to."""

    role: str
    name: str
    length: str
    price: float | None
    cost: float | None


@dataclass(frozen=True, slots=True)
class Extra:
    """Something else that is paid for."""

    what: str
    amount: float


@dataclass(frozen=True, slots=True)
class Said:
    """What the maker says of the costs of a dress."""

    rate: float | None = None
    """What an hour of hers costs."""
    prices: Mapping[str, float] = field(default_factory=dict)
    """Of notions, by their keys."""
    hours: float | None = None
    """How many hours are counted, where it is not those of the plan."""
    extras: Sequence[Extra] = ()
    adds: float = 0.0
    """What the workroom adds to all of it, per cent."""


@dataclass(frozen=True, slots=True)
class Costs:
    """The lines, what they come to, and how many have no price yet."""

    lines: tuple[Line, ...]
    together: float
    added: float
    unpriced: int

    @property
    def total(self) -> float:
        return self.together + self.added

    def of(self, *sorts: Sort) -> float:
        """What the lines of some sorts come to."""
        return sum(line.amount or 0.0 for line in self.lines if line.sort in sorts)


def costs(
    cloths: Sequence[OfCloth], needed: Sequence[Needed], worked: float, left: float, said: Said, tape: Tape
) -> Costs:
    """What a dress costs; ``worked`` and ``left`` are minutes at the bench, done and still to be done."""
    lines = [_cloth(one, tape) for one in cloths]
    lines += [_notion(place, one, said, tape) for place, one in enumerate(needed)]
    lines.append(_hours(worked, left, said, tape))
    lines += [Line(f"extra {k}", Sort.EXTRA, one.what, "", None, one.amount) for k, one in enumerate(said.extras)]
    together = sum(line.amount or 0.0 for line in lines)
    unpriced = sum(line.amount is None for line in lines)
    return Costs(tuple(lines), together, together * said.adds / 100, unpriced)


def money(amount: float, tape: Tape) -> str:
    """An amount as it is written, to a hundredth."""
    return tape.number(f"{amount:.2f}")


def _cloth(one: OfCloth, tape: Tape) -> Line:
    working = one.length if one.price is None else f"{one.length} at {money(one.price, tape)} a metre"
    return Line(f"cloth {one.role}", Sort.CLOTH, one.name, working, one.price, one.cost)


NAMES = {
    Notion.ZIP: "Zip", Notion.HOOK: "Hook and eye", Notion.BUTTONS: "Buttons", Notion.CORD: "Lacing cord",
    Notion.BONES: "Bones", Notion.ELASTIC: "Elastic",
}  # fmt: skip


def _notion(place: int, one: Needed, said: Said, tape: Tape) -> Line:
    key = f"{one.notion} {place}" if one.notion is Notion.ELASTIC else str(one.notion)
    long = f" of {format_length(one.length, tape)}" if one.length is not None else ""
    price = said.prices.get(key)
    working = f"{one.count}{long}" + ("" if price is None else f" at {money(price, tape)}")
    return Line(key, Sort.NOTION, NAMES[one.notion], working, price, None if price is None else price * one.count)


def _hours(worked: float, left: float, said: Said, tape: Tape) -> Line:
    def hours(count: float) -> str:
        return f"{tape.number(plain(count, 1))} h"

    counted = (worked + left) / 60 if said.hours is None else said.hours
    parts = f"{hours(worked / 60)} worked, {hours(left / 60)} to do"
    working = parts if said.hours is None else f"{hours(counted)} counted ({parts})"
    if said.rate is not None:
        working += f", at {money(said.rate, tape)} an hour"
    return Line("hours", Sort.HOURS, "Work", working, said.rate, None if said.rate is None else counted * said.rate)
