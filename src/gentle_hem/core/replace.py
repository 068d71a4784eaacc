"""A frozen value with some of its own changed: what ``dataclasses.replace`` does, in a fifth of the time.

A make-up changes a few hundred values, and looking every field over again each time costs a tenth of it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields
from functools import cache
from typing import Any, NamedTuple, TypeVar

T = TypeVar("T")

_new = object.__new__


def replace(one: T, /, **changes: Any) -> T:
    """The same value with some fields changed. Raises TypeError for a field it has not.

    What its class says it ``KEEPS`` (worked out once, from which fields) is kept where none of those is changed.
    """
    kind = type(one)
    known = _known(kind)  # type: ignore[arg-type]
    names = known.names
    if not names.issuperset(changes):
        raise TypeError(f"{kind.__name__} has no {', '.join(sorted(changes.keys() - names))}")
    made = _new(kind)
    if known.slots:
        for name, read, write in known.slots:
            write(made, changes[name] if name in changes else read(one))
    else:
        theirs, own = one.__dict__, made.__dict__
        own.update(theirs)
        for kept in theirs.keys() - names if len(theirs) > len(names) else ():
            needs = known.keeps.get(kept)
            if needs is None or not needs.isdisjoint(changes):
                del own[kept]
        own.update(changes)
    if known.looks_over:
        known.looks_over(made)
    return made


class _Known(NamedTuple):
    """What a class is made with, how that is read and written where it has slots, what it keeps and what looks it
    over.
    """

    names: frozenset[str]
    slots: tuple[tuple[str, Callable[[Any], Any], Callable[[Any, Any], None]], ...]
    keeps: dict[str, frozenset[str]]
    looks_over: Callable[[Any], None] | None


@cache
def _known(kind: type) -> _Known:
    names = tuple(field.name for field in fields(kind) if field.init)
    places = [(name, getattr(kind, name)) for name in names] if "__slots__" in kind.__dict__ else []
    slots = tuple((name, place.__get__, place.__set__) for name, place in places)
    return _Known(frozenset(names), slots, getattr(kind, "KEEPS", {}), getattr(kind, "__post_init__", None))
