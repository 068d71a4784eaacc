"""A value that is worked out once and kept with what it belongs to."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar, overload

T = TypeVar("T")


class worked_once(Generic[T]):  # noqa: N801  (it is written as a decorator)
    """``functools.cached_property`` without the lock that Python 3.11 takes each time, which costs more than most of
    what a segment works out. Two threads may both work it out; they find the same.

    >>> class Round:
    ...     @worked_once
    ...     def girth(self):
    ...         print("measured")
    ...         return 6.28
    >>> one = Round()
    >>> one.girth, one.girth
    measured
    (6.28, 6.28)
    """

    def __init__(self, work: Callable[[Any], T]) -> None:
        self.work = work
        self.name = work.__name__
        self.__doc__ = work.__doc__

    @overload
    def __get__(self, owner: None, kind: type) -> worked_once[T]: ...

    @overload
    def __get__(self, owner: object, kind: type) -> T: ...

    def __get__(self, owner: object | None, kind: type) -> worked_once[T] | T:
        if owner is None:
            return self
        value = owner.__dict__[self.name] = self.work(owner)
        return value
