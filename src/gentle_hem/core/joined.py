"""The last thing done to a made garment: pieces that are cut in one over a seam between them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import Finding, Place
from gentle_hem.core.garment import Garment
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.steps.base import not_done
from gentle_hem.core.steps.join import Became, JoinPieces, after
from gentle_hem.core.workroom import Dressed


def is_joined(recipe: Recipe) -> bool:
    """Whether anything is asked to be cut in one."""
    return any(isinstance(step, JoinPieces) and not step.off for step in recipe.steps)


def joined_up(dress: Dressed, recipe: Recipe) -> tuple[Dressed, Became]:
    """The garment with what is to be cut in one in one, and what the edges became that it had before."""
    became: Became = {}
    for place, step in enumerate(recipe.steps):
        if not isinstance(step, JoinPieces) or step.off:
            continue
        try:
            dress, now = step.joins(dress)
        except CannotMake as wrong:
            dress = dress.also(not_done(place, step, wrong.why))
            continue
        became = after(became, now)
    return replace(dress, findings=tuple(_said(dress.findings, named(became)))), became


Named = Mapping[tuple[str, str], tuple[str, str] | None]
"""What became of an edge, by the names of pieces; of a piece itself where no edge is named."""


def named(became: Became) -> Named:
    """The same by the names of pieces."""
    edges = {
        (old.name, edge): None if new is None else (new.piece.name, new.edge) for (old, edge), new in became.items()
    }
    whole = {(old.name, ""): (new.piece.name, "") for (old, _), new in became.items() if new is not None}
    return {**edges, **whole}


def _said(findings: Iterable[Finding], names: Named) -> Iterable[Finding]:
    """Findings, the places they point at called as they are now."""

    def now(place: Place) -> Place:
        new = names.get((place.piece, place.edge)) or names.get((place.piece, ""))
        return place if new is None else replace(place, piece=new[0], edge=new[1])

    for found in findings:
        yield replace(found, at=tuple(map(now, found.at))) if any(place.piece for place in found.at) else found


def lights_up(step: JoinPieces, garment: Garment) -> list[Place]:
    """Where a joining is seen on the sheet: its seam is gone, so all round the pieces that it made."""
    if garment.seamed is None:
        return []
    gone = {place for place, now in garment.became.items() if now is None}
    made = [
        garment.became[piece.name, ""] for piece in garment.seamed.pieces for edge in piece.edges
        if edge.role.value == step.seam and (piece.name, edge.name) in gone
    ]  # fmt: skip
    names = {now[0] for now in made if now is not None}
    return [Place(piece=p.name, edge=edge.name) for p in garment.pieces if p.name in names for edge in p.edges]
