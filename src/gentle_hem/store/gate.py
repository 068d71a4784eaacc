"""The gate of the records: as many units of work as like at a time, or one thing that must be alone."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from gentle_hem.store.trouble import StoreTrouble

PATIENCE = 15.0
"""How long somebody waits at the gate (s)."""


class Gate:
    """Whoever must be alone waits until nobody is inside; those who come after wait for it.

    While it waits, others still come in: a unit of work may need another before it can end.
    """

    def __init__(self) -> None:
        self._changed = threading.Condition()
        self._inside = 0
        self._shut = False

    @contextmanager
    def through(self) -> Iterator[None]:
        """One of many. Raises StoreTrouble when it stays shut."""
        with self._changed:
            if not self._changed.wait_for(lambda: not self._shut, PATIENCE):
                raise StoreTrouble("Your records are being replaced; it is tried again when that is done.")
            self._inside += 1
        try:
            yield
        finally:
            with self._changed:
                self._inside -= 1
                self._changed.notify_all()

    @contextmanager
    def alone(self) -> Iterator[None]:
        """The only one. Raises StoreTrouble when those inside do not come to an end."""
        with self._changed:
            if not self._changed.wait_for(lambda: not self._shut and self._inside == 0, PATIENCE):
                raise StoreTrouble("Work goes on in your records and does not end. Nothing was changed; try again.")
            self._shut = True
        try:
            yield
        finally:
            with self._changed:
                self._shut = False
                self._changed.notify_all()
