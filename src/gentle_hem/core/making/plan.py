"""The making plan: the operations of a garment in the order in which one works them down (trade 13)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from gentle_hem.core.garment import Garment
from gentle_hem.core.making.operation import Before, Operation, School, Work
from gentle_hem.core.making.other_work import (
    FITTING,
    FITTING_FLAT,
    at_the_end,
    closures,
    darts,
    edges_finished,
    preparation,
    taken_by_zip,
)
from gentle_hem.core.making.precedence import Precedence, in_order
from gentle_hem.core.making.seam_work import Sewn, gather_operation, gathering, seam_operations
from gentle_hem.core.recipe import Recipe


@dataclass(frozen=True, slots=True)
class Plan:
    """The operations in order, and what must come before what."""

    school: School
    """The order it is sewn together in: where the lower part has no side seams, the sides always come first."""
    operations: tuple[Operation, ...]
    before: tuple[Before, ...]

    @property
    def minutes(self) -> float:
        """Work of the hands in all."""
        return sum(one.minutes for one in self.operations)

    def reasons(self, key: str) -> tuple[Before, ...]:
        """What must be done before an operation, but for what that itself must wait for; the fitting, which waits for
        nearly all, hides nothing.
        """
        fittings = {one.key for one in self.operations if one.work is Work.FIT}
        firsts = {pair.first: pair for pair in self.before if pair.then == key}
        through = {pair.first for pair in self.before if pair.then in firsts and pair.then not in fittings}
        return tuple(pair for first, pair in firsts.items() if first not in through)


def plan_of(garment: Garment, recipe: Recipe, school: School = School.SIDES_FIRST) -> Plan:
    """The making plan of a garment: every seam, dart, finished edge and closure in exactly one operation."""
    known = _known(garment, recipe, school)
    if school is School.WAIST_FIRST and not known.lies_flat():
        return plan_of(garment, recipe, School.SIDES_FIRST)
    before = known.all()
    return Plan(school, tuple(in_order(known.operations, before)), before)


def _known(garment: Garment, recipe: Recipe, school: School) -> Precedence:
    """All there is to do, and what is known of its order."""
    pieces = {piece.what: piece for piece in garment.pieces}
    taken = taken_by_zip(garment, recipe)
    operations = [*preparation(garment), *darts(garment)]
    sewn: dict[str, tuple[Sewn, ...]] = {}
    for operation, seams in seam_operations(garment, recipe, school, {one.walked.name for one in taken}):
        operations += [gather_operation(one, pieces, operation.rank) for one in seams if gathering(one)]
        operations.append(operation)
        sewn[operation.key] = seams
    operations += edges_finished(garment)
    for closure in closures(garment, recipe):
        operations.append(closure)
        if closure.seams:
            sewn[closure.key] = taken
    operations += at_the_end(garment, FITTING_FLAT if school is School.WAIST_FIRST else FITTING)
    return Precedence(operations, sewn, pieces, school)


def at_her_pace(plan: Plan, pace: Mapping[Work, float]) -> Mapping[str, float]:
    """The minutes of each operation at the maker's own pace: her time over the usual, by the kind of work."""
    return {one.key: one.minutes * pace.get(one.work, 1.0) for one in plan.operations}
