"""The words of the trade: all of them, and the one a label is about."""

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from gentle_hem.core.glossary import BOX, Term, about, terms

words = APIRouter(prefix="/api", tags=["words"])


class TermOut(BaseModel):
    """A word, its doubles, two sentences, and strokes in a box (y down)."""

    name: str
    also: list[str]
    means: str
    solid: str
    dashed: str
    width: int
    height: int


def _out(term: Term) -> TermOut:
    return TermOut(
        name=term.name, also=list(term.also), means=term.means, solid=term.solid, dashed=term.dashed,
        width=BOX[0], height=BOX[1],
    )  # fmt: skip


@words.get("/words")
def every_word() -> list[TermOut]:
    """Every word and every measure, in the order of the alphabet."""
    return [_out(term) for term in terms()]


@words.get("/words/about")
def word_about(label: Annotated[str, Query(max_length=200)]) -> list[TermOut]:
    """The word that a label is about; nothing where there is none."""
    term = about(label)
    return [] if term is None else [_out(term)]
