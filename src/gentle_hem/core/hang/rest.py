"""Cloth let fall until it is at rest.

energy    stretch, compression and shear of every triangle by its own warp and weft · bending over every inner edge
          · its weight · what a body it lies on pushes back · layers that push each other off
step      implicit Euler: the least of energy + inertia, by one Newton step and a line search that never lets it rise
at rest   when nothing moves faster than a millimetre a second and the forces left over are nothing beside its weight

What holds it is energy and not a constraint, so that at rest no step is left in where it hangs: the same whatever the
time step was (the tests halve it). Stretch is measured by Green's strain. Bending is ½ G ∫ κ², with the curvature of
every triangle that of the quadratic surface through it and its neighbours; cloth that is bent is hardly stretched, so
it is measured along the axes of the flat cloth, and its matrix is the same all the way down.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from scipy.sparse import csr_matrix

from gentle_hem.core.hang import kernels
from gentle_hem.core.hang.fabric import GRAVITY
from gentle_hem.core.hang.factor import NOT_JOINED, Pattern
from gentle_hem.core.hang.layers import THICK, Layers, Pushing
from gentle_hem.core.hang.mesh import Flags, Indices, Numbers
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.stand import Stand

FIRST_STEP, LONGEST_STEP, LONGER = 0.01, 0.32, 1.4
"""Time steps (s): the first, the longest, and how much longer each is than the one before while all goes well."""

DRAG = 2.0
"""How much of its speed cloth loses to the air (1/s); it changes how soon it rests and not where."""

LOOKED_BACK, SECONDS = 5, 1.5
"""Whether cloth has settled is seen over so many steps, and so long."""

TAKEN = 0.25
"""Of a step that is taken to less than this share the next is half as long; while all are, nothing has settled: it is
held up."""

SHORTEST_STEP, HARDLY = 0.0005, 0.02
"""No step becomes shorter than this for that (s); nor than what is asked, unless less than such a share is taken."""

MOST_STEPS = 600

JAMMED, LOOSENED = 1e-6, 1e-4
"""Layers that come so near each other hold each other up for good: they are jammed (m). All about them is made smoother
then until nothing is nearer than the other."""

HELD_UP, LOOSENED_ALL = 12, 0.25
"""Cloth that could only be let fall in the shortest steps so many times is jammed as well: it is made smoother until
layers lie such a share of what they keep apart from each other."""

JOINED_ANEW, LACKING = 5, 0.03
"""Layers that have come together are brought into the matrix after so many steps at the soonest, and if they are more
than such a share of all that push each other; until then each point of theirs is held for itself."""


@dataclass(frozen=True, slots=True)
class Rest:
    """When cloth is at rest."""

    still: float = 0.001
    """Nothing moves faster than this (m/s) …"""
    balanced: float = 1e-3
    """… and what force is left over is less than this share of the weight of a point …"""
    settled: float | None = None
    """… or else, over five steps and a second and a half, it gives up no more energy than lifts all of it by so much
    (m)."""
    step: float = LONGEST_STEP
    """The longest time step (s)."""
    shortest: float = SHORTEST_STEP
    first: float = FIRST_STEP
    drag: float = DRAG
    most_steps: int = MOST_STEPS


AT_REST = Rest()

OFF = 0.0005
"""Cloth lies so far off what it lies on (m)."""

FIRM = 1e7
"""How hard what is nearer is pushed off (N a m² for each m nearer): a bodice under tension comes nearer by less than a
tenth of a millimetre."""

ARMS_FIRMER = 3.0
"""What her arm touches is pushed off so many times as hard: a cape's edge may hold up the whole dress there."""

RUBS, SLOW = 0.3, 0.01
"""How hard cloth is to slide on the form, as a share of how hard it is pressed (from memory); and the speed below which
it is less hard (m/s)."""

Watch = Callable[[Numbers, int], None]
"""Told where the points are after each step, and how many there were; may raise to end it."""


class NotAtRest(RuntimeError):  # noqa: N818  (it is what cloth is)
    """Cloth that did not come to rest in the steps it was given."""


@dataclass(frozen=True)
class Fallen:
    """Cloth at rest: where its points are (m, z up), how many steps it took, and its energy after each (J), or after
    each since what had jammed was loosened.
    """

    places: Numbers
    steps: int
    energies: tuple[float, ...] = field(repr=False, default=())


@dataclass
class _Course:
    """How it has fallen since it began, or since what had jammed was loosened: its energy at first and after each step
    (J), how long it had fallen then (s), and how much of each step was taken.
    """

    energies: list[float]
    times: list[float] = field(default_factory=lambda: [0.0])
    shares: list[float] = field(default_factory=lambda: [1.0])

    def taken(self, energy: float, step: float, share: float) -> None:
        """Note a step."""
        self.energies.append(energy)
        self.times.append(self.times[-1] + step)
        self.shares.append(share)

    @property
    def is_held_up(self) -> bool:
        """Whether many steps have been hardly longer than the shortest."""
        return len(self.times) > HELD_UP and self.times[-1] - self.times[-1 - HELD_UP] < 2 * HELD_UP * SHORTEST_STEP

    def has_settled(self, within: float) -> bool:
        """Whether it has given up less energy than that (J) over the steps and the time that are looked back."""
        last = len(self.times) - 1
        before = min(int(np.searchsorted(self.times, self.times[-1] - SECONDS, "right")) - 1, last - LOOKED_BACK)
        calm = before >= 0 and self.energies[before] - self.energies[-1] < within
        return calm and max(self.shares[-LOOKED_BACK:]) >= TAKEN


@dataclass(frozen=True)
class Falling:
    """Sewn cloth, which coordinates of its points are held where they are, and what it may come to lie on."""

    net: Net
    held: Numbers
    """By point and axis: 1 where it is held, 0 where it is free."""
    stand: Stand | None = None
    where: Numbers | None = None
    """Places to take the cloth apart by; as it was cut, if nothing is said."""
    thick: float = THICK
    """Layers of it that are nearer push each other off (m)."""
    firm: float = FIRM
    """How hard what is nearer to the body is pushed off (N a m² for each m nearer)."""
    on_arm: Flags | None = None
    """By point, whether it may come to lie on her arm; none does, if nothing is said."""

    @classmethod
    def held_at(cls, net: Net, points: Indices, stand: Stand | None = None) -> Falling:
        """Cloth some of whose points are held altogether."""
        held = np.zeros((net.count, 3))
        held[points] = 1.0
        return cls(net, held, stand)

    @cached_property
    def layers(self) -> Layers:
        """How it lies on itself."""
        return Layers(self.net, self.thick)

    @cached_property
    def _joined(self) -> csr_matrix:
        """Which points share a force: those of a triangle, and those that bend together."""
        t = self.net.triangles
        ones = np.ones(9 * len(t))
        of = csr_matrix(
            (ones, (np.repeat(t, 3, axis=1).ravel(), np.tile(t, (1, 3)).ravel())), shape=(self.net.count,) * 2
        )
        return (of + abs(self.net.bending)).tocsr()

    @cached_property
    def _touching(self) -> tuple[Indices, Numbers, Numbers, Flags]:
        """The places of the cloth that may touch: its points, the middles of sides and of triangles; each between
        which three points by which shares, how hard it is pushed off (N/m), and whether by her arm as well.
        """
        t, areas = self.net.triangles, self.net.areas
        sides = np.concatenate((t[:, (0, 1)], t[:, (1, 2)], t[:, (2, 0)]))
        sides.sort(axis=1)
        sides, which = np.unique(sides, axis=0, return_inverse=True)
        beside = np.bincount(which.ravel(), weights=np.tile(areas, 3) / 3)
        points = np.arange(self.net.count)
        who = np.concatenate((np.repeat(points[:, None], 3, 1), sides[:, (0, 1, 1)], t))
        share = np.concatenate((
            np.tile((1.0, 0.0, 0.0), (len(points), 1)), np.tile((0.5, 0.5, 0.0), (len(sides), 1)),
            np.full((len(t), 3), 1 / 3),
        ))  # fmt: skip
        firm = (self.firm / 3 * np.concatenate((self.net.spread, beside, areas))).astype(np.float64)
        sleeve = np.zeros(self.net.count, dtype=bool) if self.on_arm is None else self.on_arm
        on_arm: Flags = np.logical_and.reduce(sleeve[who], axis=1)
        firm[on_arm] *= ARMS_FIRMER
        return np.ascontiguousarray(who, dtype=np.int64), share.astype(np.float64), firm, on_arm

    def _bent(self, places: Numbers) -> float:
        return 0.5 * float((places * (self.net.bending @ places)).sum())

    def energy(self, places: Numbers, pairs: Indices | None = None) -> float:
        """Of stretching, bending, height, of what is pressed on, and of the pairs of layers that push (J)."""
        net = self.net
        whole = kernels.stretched(places, net.triangles, net.slopes, net.areas, net.moduli) + self._bent(places)
        if self.stand is not None:
            stand, (who, share, firm, on_arm) = self.stand, self._touching
            whole += kernels.pressed(
                places, who, share, firm, stand.curved, stand.low, stand.step, stand.curved_arm, stand.arm_low,
                on_arm, OFF, True,
            )  # fmt: skip
        if pairs is not None:
            whole += self.layers.energy(places, pairs)
        return float(whole + GRAVITY * (net.masses * places[:, 2]).sum())

    def _matrix(self, joined: csr_matrix) -> Matrix:
        where = self.net.laid if self.where is None else self.where
        return Matrix(self, Pattern(joined, where))

    @cached_property
    def plain(self) -> Matrix:
        """The matrix without any layers that push."""
        return self._matrix(self._joined)

    def joined_by(self, who: Indices) -> Matrix:
        """The matrix with points that are joined four by four as well."""
        count = self.net.count
        pairs = (np.repeat(who, 4, axis=1).ravel(), np.tile(who, (1, 4)).ravel())
        return self._matrix((self._joined + csr_matrix((np.ones(len(pairs[0])), pairs), shape=(count,) * 2)).tocsr())

    def forces(
        self, places: Numbers, speeds: Numbers | None = None, step: float = 1.0, matrix: Matrix | None = None,
        pushing: Pushing | None = None,
    ) -> tuple[Numbers, Numbers]:  # fmt: skip
        """How the energy rises with every coordinate (N), and how that rises, by pairs of points: with what rubs on
        the body, if it slides with ``speeds``, over a time step, and with layers that push each other; bending is not
        in the second.
        """
        net, matrix = self.net, matrix or self.plain
        rise = net.bending @ places
        rise[:, 2] += GRAVITY * net.masses
        blocks = np.zeros((len(matrix.pattern.rows), 3, 3))
        kernels.stretching(places, net.triangles, net.slopes, net.areas, net.moduli, matrix.corners, rise, blocks)
        if self.stand is not None:
            stand, (who, share, firm, on_arm) = self.stand, self._touching
            kernels.pressing(
                places, who, share, firm, stand.curved, stand.low, stand.step, stand.curved_arm, stand.arm_low,
                on_arm, OFF, True, matrix.touching, rise, blocks, places if speeds is None else speeds,
                0.0 if speeds is None else RUBS / step, SLOW,
            )  # fmt: skip
        if pushing is not None:
            pushing.add(matrix.pairs(pushing.who), matrix.alone, rise, blocks)
        return rise, blocks

    def fallen(self, start: Numbers, rest: Rest = AT_REST, watch: Watch | None = None) -> Fallen:
        """From a start (m, z up) until it is at rest. Raises NotAtRest after too many steps."""
        net, matrix, layers = self.net, self.plain, self.layers
        free = 1.0 - self.held
        masses = net.masses[:, None]
        lifted = GRAVITY * float(net.masses.sum())
        weight = lifted / net.count
        places, speeds, step = layers.untangled(start, self.held), np.zeros_like(start), min(rest.first, rest.step)
        tangled = layers.tangled(places)
        pairs, joined_at = layers.near(places, places, tangled), -JOINED_ANEW
        course = _Course([self.energy(places, pairs)])
        for count in range(1, rest.most_steps + 1):
            pushing = layers.pushing(places, pairs)
            if count - joined_at >= JOINED_ANEW and matrix.lacking(pushing) > LACKING:
                matrix, joined_at = self.joined_by(layers.closest(places)), count
            rise, blocks = self.forces(places, speeds, step, matrix, pushing)
            wanted = (-rise + masses * speeds / step) * free
            toward = matrix.solved(blocks, masses * (1 / step**2 + rest.drag / step), wanted)
            tangled = layers.tangled(places) if tangled.any() else tangled
            pairs = layers.near(places, places + toward, tangled)
            way = layers.free(places, toward, pairs)[:, None]
            moved, share = self._let_down(places, way * toward, speeds, step, rest.drag, pairs)
            if share == 0.0:  # held back point by point it may lead upward; held back as one it does not
                least = float(way.min())
                moved, share = self._let_down(places, least * toward, speeds, step, rest.drag, pairs)
                share *= least  # a step that is hardly taken is made shorter, and nothing is at rest by it
            speeds, places = (moved - places) / step, moved
            apart = self._jammed(places, pairs, share, course)
            if apart:
                places, speeds, share = layers.untangled(places, self.held, apart), np.zeros_like(places), 0.0
                tangled = layers.tangled(places)
                pairs, step = layers.near(places, places, tangled), min(rest.first, rest.step)
                course = _Course([self.energy(places, pairs)])
            else:
                speeds, whole = self._no_faster(speeds, self.energy(places, pairs), course.energies[-1])
                course.taken(whole, step, share)
            if watch is not None:
                watch(places, count)
            if rest.settled is not None and course.has_settled(lifted * rest.settled):
                return Fallen(places, count, tuple(course.energies))
            if np.abs(speeds).max() < rest.still and step >= rest.step / 2:
                left, _ = self.forces(places, matrix=matrix, pushing=layers.pushing(places, pairs))
                if np.abs(left * free).max() < rest.balanced * weight:
                    return Fallen(places, count, tuple(course.energies))
            if share == 1.0:
                step = min(step * LONGER, rest.step)
            elif share < TAKEN:
                step = max(step / 2, min(rest.shortest if share > HARDLY else SHORTEST_STEP, step))
        raise NotAtRest(f"the cloth still moves after {rest.most_steps} steps")

    def _jammed(self, places: Numbers, pairs: Indices, share: float, course: _Course) -> float:
        """How far apart layers are made (m) that hold each other up for good; nothing while none do."""
        if share >= TAKEN:
            return 0.0
        if self.layers.is_jammed(places, pairs, JAMMED):
            return LOOSENED
        return LOOSENED_ALL * self.thick if course.is_held_up else 0.0

    def _no_faster(self, speeds: Numbers, energy: float, before: float) -> tuple[Numbers, float]:
        """Speeds at which the whole energy is no more than it was before, and what it is then: where the energy is not
        convex, a long step alone does not see to it.
        """
        moving = self._kinetic(speeds)
        most = max(before - energy, 0.0)
        if moving <= most:
            return speeds, energy + moving
        return speeds * (most / moving) ** 0.5, energy + most

    def _kinetic(self, speeds: Numbers) -> float:
        return 0.5 * float((self.net.masses[:, None] * speeds**2).sum())

    def _let_down(
        self, places: Numbers, toward: Numbers, speeds: Numbers, step: float, drag: float, pairs: Indices
    ) -> tuple[Numbers, float]:
        """The places after a step, and how much of it was taken: as much as lets energy and inertia together down."""

        def cost(moved: Numbers) -> float:
            by = moved - places
            inertia = ((by - step * speeds) ** 2 / step**2 + drag / step * by**2) * self.net.masses[:, None]
            return self.energy(moved, pairs) + 0.5 * float(inertia.sum())

        before, share = cost(places), 1.0
        while share > 1e-4:
            moved = places + share * toward
            if cost(moved) <= before:
                return moved, share
            share /= 2
        return places, 0.0


class Matrix:
    """The matrix of a step: which points share a force, and which number each pair of them has."""

    def __init__(self, falling: Falling, pattern: Pattern) -> None:
        net = falling.net
        self.pattern, self._held = pattern, falling.held
        bending = net.bending.tocoo()
        kept = pattern.rank[bending.row] >= pattern.rank[bending.col]
        self._bent_at, self._bent = pattern.pair(bending.row[kept], bending.col[kept]), bending.data[kept]
        self.alone = pattern.pair(np.arange(net.count), np.arange(net.count))
        free = 1.0 - falling.held
        self._apart = free[pattern.rows][:, :, None] * free[pattern.columns][:, None, :]
        self.corners, self.touching = self.pairs(net.triangles), self.pairs(falling._touching[0])

    def pairs(self, who: Indices) -> Indices:
        """By some points together and two of them the number of the pair, −1 where the other order is the one that is
        kept; of one point with itself it is always kept; NOT_JOINED where they share no force here.
        """
        size, pattern = who.shape[1], self.pattern
        made = np.empty((len(who), size, size), dtype=np.int64)
        for k in range(size):
            for m in range(size):
                pair = pattern.pair(who[:, k], who[:, m])
                later = pattern.rank[who[:, k]] >= pattern.rank[who[:, m]]
                made[:, k, m] = np.where(later | (pair == NOT_JOINED), pair, -1)
        return made

    def lacking(self, pushing: Pushing) -> float:
        """The share of the layers pushing each other whose points share no force here."""
        return float((self.pairs(pushing.who) == NOT_JOINED).any(axis=(1, 2)).mean()) if len(pushing.who) else 0.0

    def solved(self, blocks: Numbers, inertia: Numbers, wanted: Numbers) -> Numbers:
        """How far every point goes: ``blocks`` is how the forces rise, without bending, ``inertia`` what holds back
        each point by itself.
        """
        axes = np.arange(3)
        blocks[self._bent_at[:, None], axes, axes] += self._bent[:, None]
        blocks[self.alone[:, None], axes, axes] += inertia
        blocks *= self._apart
        blocks[self.alone[:, None], axes, axes] += self._held
        made: Numbers = self.pattern.solved(blocks, wanted.ravel()).reshape(-1, 3)
        return made
