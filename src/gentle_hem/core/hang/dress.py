"""A dress hung: sewn, put on her form, and let fall until it is at rest; then once more as it hangs after two days.

coarse ──► at rest ──► fine, begun where the coarse one lies ──► at rest ──► softer on the bias ──► after 48 h
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from gentle_hem.core.cloth.cloths import Drape
from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.surface import Folds
from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.hang.mesh import Numbers
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.pieces import CannotHang, is_unlike
from gentle_hem.core.hang.rest import Falling, Rest
from gentle_hem.core.hang.sewing import Sewing
from gentle_hem.core.hang.sewn import Lain, Sewn
from gentle_hem.core.hang.stand import Stand, fitted
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.two_sides import OneSide

COARSE, FINE = 40.0, 25.0
"""How long the sides of the triangles are (mm): first, and at last."""

MOST_COARSE, MOST_TRIANGLES = 3000, 4200
"""A half with more triangles, first and at last, is hung in larger ones."""

THICK_COARSE, FIRM_COARSE = 0.006, 4e6
"""In large triangles layers keep so far off each other (m), so that small ones lie in them without crossing; and she is
so much softer (N a m² for each m)."""

DRAG = 4.0

ROUGHLY = Rest(settled=2e-4, step=2.0, drag=DRAG, most_steps=400)
AT_REST = replace(ROUGHLY, settled=1e-4, first=0.04, shortest=0.25)
A_LITTLE_MORE = replace(AT_REST, first=0.3)
"""When it is at rest: first in large triangles, then in small ones, then once more after two days. What holds small
triangles up is what they press on, as hard in a shorter step: there it does not become shorter."""

CREEPS = {Drape.LIMP: 4.0, Drape.SOFT: 3.0, Drape.CRISP: 2.0, Drape.UNSAID: 3.0}
"""How many times as far cloth has given on the bias after two days as at once, from memory: so that a circle of soft
cloth has dropped by one to three hundredths of its length, one of limp cloth by more (trade 16, practice)."""

Grown = Mapping[str, tuple[float, float]]
"""By the name of a cloth, a length (m) and by which share it has grown on the bias, as its maker has measured."""

NOT_GROWN: Grown = {}

SIDES: tuple[OneSide, OneSide] = ("left", "right")

Tell = Callable[[Sewn, Numbers], None]
"""Told how it lies from time to time; may raise to end it."""


@dataclass(frozen=True)
class HungDress:
    """A dress at rest: how it is sewn, and where its points are now and after two days (m)."""

    sewn: Sewn
    now: Numbers
    later: Numbers
    right: HungDress | None = None
    """Her right, seen as in a mirror; None where it is as her left."""

    @property
    def stand(self) -> Stand:
        """Her form."""
        return self.sewn.stand

    def off(self, places: Numbers) -> Numbers:
        """How far outside of her the middles of its triangles lie when its points lie at ``places`` (m); outside of her
        arm only where they may touch it.
        """
        triangles = self.sewn.net.triangles
        middles = places[triangles].mean(axis=1)
        made: Numbers = np.where(
            self.sewn.on_arm[triangles].all(axis=1), self.stand.far(middles), self.stand.armless.far(middles)
        )
        return made


AS_THEY_FALL = Folds(lambda cloth, held, girth, long: girth / 1000 / Fabric.of(cloth).fold(long / 1000), 0.5)
"""Gathers begin in as many folds as their cloth makes at the foot: few where it is stiff, many where it is limp."""


def hang(
    recipe: Recipe, garment: Garment, tell: Tell = lambda sewn, places: None, fine: float = FINE,
    coarse: float = COARSE, lain: Lain | None = None, grown: Grown = NOT_GROWN,
) -> HungDress:  # fmt: skip
    """What a recipe makes, hung on its figure, both sides where they are not alike; it begins as the same pieces have
    ``lain`` before, where that is told. A cloth that has ``grown`` by its maker's notes gives as far as that, and not
    as its class does. Raises CannotHang, and NotAtRest where it does not come to rest.
    """
    stopped = next((f for f in garment.findings if f.severity is Severity.STOP), None)
    if stopped is not None:
        raise CannotHang(f"It cannot be cut yet, so it is not hung. {stopped.text(recipe.unit)}")
    dressing = Dressing(recipe, garment.seamed or garment, fitted(recipe.figure), AS_THEY_FALL)
    if not is_unlike(dressing):
        return _hung(recipe, dressing, None, tell, fine, coarse, lain, grown)
    left, right = (
        _hung(recipe, dressed_on(recipe, side), side, tell, fine, coarse, lain if side == "left" else None, grown)
        for side in SIDES
    )
    return replace(left, right=right)


def dressed_on(recipe: Recipe, side: OneSide) -> Dressing:
    """What a recipe makes put on, both sides as one of them is asked for."""
    garment = make_up(recipe, side)
    return Dressing(recipe, garment.seamed or garment, fitted(recipe.figure), AS_THEY_FALL)


def _hung(
    recipe: Recipe, dressing: Dressing, side: OneSide | None, tell: Tell, fine: float, coarse: float,
    lain: Lain | None, grown: Grown,
) -> HungDress:  # fmt: skip
    """What is put on hung: both her sides, or one of them as if the other were like it."""
    first = Sewing(recipe, dressing, coarse, side).sewn()
    many = len(first.net.triangles) / MOST_COARSE
    if many > 1:  # trains and tiers of many metres
        coarse *= many**0.5
        first = Sewing(recipe, dressing, coarse, side).sewn()
    fine = max(fine, coarse * (len(first.net.triangles) / MOST_TRIANGLES) ** 0.5)
    if lain is None or not first.is_like(lain):
        tell(first, first.start)
        net = _given(first, recipe, grown, later=False)
        falling = Falling(net, first.held, first.stand, first.where, THICK_COARSE, FIRM_COARSE, first.on_arm)
        lain = first.lain(falling.fallen(first.start, ROUGHLY, lambda at, _: tell(first, at)).places)
    sewn = Sewing(recipe, dressing, fine, side).sewn()
    start = sewn.carried(lain)
    tell(sewn, start)
    net = _given(sewn, recipe, grown, later=False)
    falling = Falling(net, sewn.held, sewn.stand, sewn.where, on_arm=sewn.on_arm)
    rest = falling.fallen(start, AT_REST, lambda at, _: tell(sewn, at))
    later = replace(falling, net=_given(sewn, recipe, grown, later=True)).fallen(rest.places, A_LITTLE_MORE).places
    return HungDress(sewn, rest.places, later)


def _given(sewn: Sewn, recipe: Recipe, grown: Grown, *, later: bool) -> Net:
    """The net as its cloths give on the bias, now or after two days: what has ``grown`` by its maker's notes as far as
    that, and at once no further.
    """
    made = []
    for k, sheet in enumerate(sewn.sheets):
        cloth = recipe.cloths.cloth(sheet.role)
        fabric = sewn.net.fabrics[sewn.net.fabric[int(np.argmax(sewn.sheet_of == k))]]
        noted = fabric.grown(*grown[cloth.name]) if cloth.name in grown else None
        if noted is None:
            made.append(replace(fabric, shear=fabric.shear / CREEPS[cloth.drape]) if later else fabric)
        else:
            made.append(noted if later or noted.shear > fabric.shear else fabric)
    return replace(sewn.net, fabrics=tuple(made), fabric=sewn.sheet_of)
