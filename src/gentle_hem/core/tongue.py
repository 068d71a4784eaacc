"""The names of the trade in the language they are spoken in; as they stand unless another language is chosen.

A name is what the program itself goes by (a piece, an edge, an input of a sum): it stays what it is in recipes and
files, and is turned only where it is spoken in a sentence. Sentences themselves are turned by gentle_hem.catalogue.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from functools import lru_cache

_spoken: dict[str, str] = {}


def speak_names(names: Mapping[str, str]) -> None:
    """From now on each name is spoken as ``names`` has it."""
    _spoken.clear()
    _spoken.update(names)
    _spoken.update({_capital(name): _capital(said) for name, said in names.items()})
    named.cache_clear()


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


@lru_cache(maxsize=4096)
def named(name: str) -> str:
    """A name as it is spoken: as a whole where it is known, else the longest names in it, one after the other."""
    if not _spoken:
        return name
    if name in _spoken:
        return _spoken[name]
    known = sorted((one for one in _spoken if one in name), key=len, reverse=True)
    if not known:
        return name
    parts = re.compile(
        rf"\{{[^{{}}]*\}}|\[[\w.=|,]+:|\b(?:{'|'.join(map(re.escape, known))})\b"
    )  # what waits in brackets stays
    return parts.sub(lambda found: _spoken.get(found.group(), found.group()), name)
