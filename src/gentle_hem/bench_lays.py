"""How much cloth the search saves against a plain placement, on ten of the demo's dresses."""

from __future__ import annotations

from collections.abc import Iterator
from statistics import median

from gentle_hem.core.cloth.asked import Folding, LayAsked
from gentle_hem.core.cloth.lay import HowLaid, lay, length_of, placed_flat, things_for
from gentle_hem.core.cloth.on_fold import OnFold
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.squares import in_orders
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.demo.studio import recipe_of, works
from gentle_hem.laying.search import better_lays

DRESSES = 10
LONG, LONG_DRESSES = 120, 3
"""How long the long searches are (s), and how many are made."""


def plain(garment: Garment, width: float, how: HowLaid) -> float:
    """Bottom-left, plainly: the largest first, each where it lies lowest and then leftmost, none turned."""
    things = things_for(garment, ClothRole.OUTER, width, how).things
    return length_of(placed_flat(in_orders(things)[0], width, HowLaid(one_way=True)))


def plain_on_fold(garment: Garment, width: float) -> float:
    """The same on a folded cloth."""
    ready = OnFold.ready(garment, ClothRole.OUTER, width, HowLaid(folded=width / 2, one_way=True))
    return ready.lay(ready.orders[0]).length


def searched(garment: Garment, asked: LayAsked, width: float, how: HowLaid) -> float:
    """The shortest that is found in the time asked (mm)."""
    own = lay(garment, ClothRole.OUTER, width, how).length
    return min([own, *(found.length for found in better_lays(garment, asked, width, how, own))])


def _dresses() -> Iterator[tuple[str, Recipe, Garment]]:
    """The demo's dresses that are cut in most pieces."""
    made = [(work.title, recipe, make_up(recipe)) for recipe, work in ((recipe_of(p, w), w) for p, w in works())]
    yield from sorted(made, key=lambda one: -len(cut_pieces(one[2])))[:DRESSES]


def main() -> None:
    """Print the table."""
    print(f"\n{'cloth (mm)':<34} {'plain':>7} {'own':>7} {'10 s':>7} {'saved':>7} {'120 s':>7} {'over':>6}"
          f" {'fold, plain':>12} {'fold':>7}")  # fmt: skip
    saved, over = [], []
    for k, (title, recipe, garment) in enumerate(_dresses()):
        cloth = recipe.cloths.outer
        asked = LayAsked(seconds=10)
        width, how = asked.on(cloth)
        how = HowLaid(one_way=how.one_way)
        low, own = plain(garment, width, how), lay(garment, ClothRole.OUTER, width, how).length
        ten = searched(garment, asked, width, how)
        saved.append(1 - ten / low)
        long = ""
        if k < LONG_DRESSES:
            best = min(ten, searched(garment, LayAsked(seconds=LONG), width, how))
            over.append(ten / best - 1)
            long = f"{best:.0f}"
        _, on_fold = LayAsked(folding=Folding.SELVEDGES).on(cloth)
        fold = lay(garment, ClothRole.OUTER, width, on_fold).length
        fold_plain = plain_on_fold(garment, width)
        assert fold <= fold_plain
        print(f"{title:<34} {low:>7.0f} {own:>7.0f} {ten:>7.0f} {saved[-1]:>7.1%} {long:>7}"
              f" {f'{over[-1]:.1%}' if long else '':>6} {fold_plain:>12.0f} {fold:>7.0f}", flush=True)  # fmt: skip
    print(
        f"saved on the median {median(saved):.1%} (goal 10 %); over the long search at most {max(over):.1%} (goal 3 %)"
    )


if __name__ == "__main__":
    main()
