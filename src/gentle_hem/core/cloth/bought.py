"""How much of a cloth is bought for a lay: for what it shrinks, with what the maker adds, rounded up (trade 12).

taken ÷ (1 − shrinkage) × (1 + safety) ──► rounded up to 10 cm or 1/8 yd ──► × price a metre
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import Lay
from gentle_hem.core.units import Tape, Unit, format_length, inches, plain

METRE_STEP = 100.0
YARD = inches(36)
"""In what steps cloth is asked for: 10 cm, or an eighth of a yard (trade 12)."""


@dataclass(frozen=True, slots=True)
class Bought:
    """What is asked for in the shop, what it costs, and what stays over of what is in hand."""

    length: float
    text: str
    working: str
    cost: float | None
    left: float | None
    """What stays of the cloth in hand (mm); negative: so much is missing; None: it is not said how much there is."""


@dataclass(frozen=True, slots=True)
class LaidCloth:
    """A cloth, how it is laid, and what is bought of it."""

    lay: Lay
    cloth: Cloth
    bought: Bought


def bought(taken: float, cloth: Cloth, tape: Tape, safety: float = 0.0) -> Bought:
    """What is bought for a stretch of cloth (mm) that is taken, ``safety`` per cent more."""
    needed = taken / (1 - cloth.shrinks / 100) * (1 + safety / 100)
    step = METRE_STEP if tape.unit is Unit.CM else YARD / 8
    length = ceil(needed / step - 1e-9) * step
    parts = [format_length(taken, tape)]
    if cloth.shrinks:
        parts.append(f"÷ (1 − {tape.number(plain(cloth.shrinks, 1))} %) for shrinking")
    if safety:
        parts.append(f"+ {tape.number(plain(safety, 1))} % to be safe")
    cost = None if cloth.price is None else cloth.price * length / 1000
    return Bought(
        length, shop_length(length, tape), f"{' '.join(parts)}, rounded up to {shop_length(length, tape)}", cost,
        None if cloth.in_hand is None else cloth.in_hand - needed,
    )  # fmt: skip


def shop_length(length: float, tape: Tape) -> str:
    """A length as it is asked for: "1.50 m", "1 3/4 yd"; not rounded further than to a centimetre or an eighth."""
    if tape.unit is Unit.CM:
        return f"{tape.number(f'{length / 1000:.2f}')} m"
    whole, part = divmod(round(length / YARD * 8), 8)
    fraction = {0: "", 2: "1/4", 4: "1/2", 6: "3/4"}.get(part, f"{part}/8")
    return " ".join(word for word in (str(whole) if whole or not part else "", fraction) if word) + " yd"
