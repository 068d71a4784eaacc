"""Where lays are searched: one process each, two at a time; what they find is kept as it comes.

asked ──► kept as "searching" ──► process ──► shorter, kept ──► shorter, kept ──► "found"
                │                                                   │
                └── the program ends and starts again ──► searched again; what was kept stays until something is shorter
"""

from __future__ import annotations

import contextlib
import json
import logging
import subprocess
import threading
from collections.abc import Iterator
from typing import Any

from gentle_hem.laying.apart import begun, ended
from gentle_hem.store import Store
from gentle_hem.store.cloths import keep_shorter, keep_state, unfinished_lays
from gentle_hem.store.models import KeptLay

log = logging.getLogger("gentle_hem")

AT_ONCE = 2
"""How many lays are searched at the same time."""

SEARCH = ["-m", "gentle_hem.laying.search"]

BEAT = 10.0
"""How often whoever watches a search is told that it goes on (s)."""


class LayingRoom:
    """The searches that run, by the number of the lay that is kept."""

    def __init__(self, store: Store) -> None:
        self._store = store
        self._places = threading.BoundedSemaphore(AT_ONCE)
        self._running: dict[int, subprocess.Popen[str]] = {}
        self._asked: dict[int, int] = {}
        """How often each was asked for: only the last asking is searched."""
        self._changes: dict[int, int] = {}
        self._changed = threading.Condition()
        self._closed = False

    def open(self) -> None:
        """Search again what was being searched when the program ended."""
        with self._store.session() as session:
            waiting = unfinished_lays(session)
        for row in waiting:
            self.start(row)

    def close(self) -> None:
        """End every search; each is taken up again when the program next starts."""
        with self._changed:
            self._closed = True
            running = list(self._running.values())
            self._changed.notify_all()
        for process in running:
            process.kill()

    def begin_anew(self) -> None:
        """The records are others now: what ran is ended, and what they hold unfinished is searched."""
        with self._changed:
            asked = list(self._asked)
        for number in asked:
            self._end(number)
            self._tell(number)
        self.open()

    def start(self, row: KeptLay) -> None:
        """Search for a shorter lay than the one that is kept; a search under this number is ended first."""
        job = {"asked": row.asked, "recipe": row.recipe, "length": row.length}
        asking = self._end(row.id)
        threading.Thread(target=self._search, args=(row.id, asking, job), name=f"lay {row.id}", daemon=True).start()

    def stop(self, number: int) -> None:
        """End a search; what it has found stays."""
        with self._store.writing() as session:
            keep_state(session, number, "stopped")
        self._end(number)
        self._tell(number)

    def forget(self, number: int) -> None:
        """End a search whose lay has been laid anew by hand."""
        self._end(number)
        self._tell(number)

    def watch(self, number: int) -> Iterator[bool]:
        """Yields whenever a search has found something or ended, and every few seconds between (False)."""
        seen = -1
        while not self._closed:
            with self._changed:
                if self._changes.get(number, 0) == seen:
                    self._changed.wait(timeout=BEAT)
                now = self._changes.get(number, 0)
            yield now != seen
            seen = now

    def _search(self, number: int, asking: int, job: dict[str, Any]) -> None:
        with self._places:
            if not self._is_wanted(number, asking):
                return
            process = begun(SEARCH)
            with self._changed:
                self._running[number] = process
            try:
                is_done = self._follow(number, asking, process, job)
            finally:
                ended(process)
                with self._changed:
                    if self._running.get(number) is process:
                        del self._running[number]
        if self._is_wanted(number, asking):
            trouble = "" if is_done else "The search ended before its time; what it had found is kept."
            with self._store.writing() as session:
                keep_state(session, number, "found" if is_done else "failed", trouble)
            self._tell(number)

    def _follow(self, number: int, asking: int, process: subprocess.Popen[str], job: dict[str, Any]) -> bool:
        """Keep what a search finds; whether it came to its end."""
        assert process.stdin is not None
        assert process.stdout is not None
        assert process.stderr is not None
        with contextlib.suppress(BrokenPipeError):
            process.stdin.write(json.dumps(job) + "\n")
            process.stdin.flush()
        for line in process.stdout:
            said = json.loads(line)
            if said.get("ended"):
                return True
            if not self._is_wanted(number, asking):
                return False
            with self._store.writing() as session:
                keep_shorter(session, number, said["spots"], said["length"], said["opened_from"])
            self._tell(number)
        if process.wait() > 0:
            log.error("a search for a lay failed: %s", process.stderr.read()[-2000:])
        return False

    def _is_wanted(self, number: int, asking: int) -> bool:
        with self._changed:
            return not self._closed and self._asked.get(number) == asking

    def _end(self, number: int) -> int:
        """End a search, and count a new asking."""
        with self._changed:
            process = self._running.pop(number, None)
            self._asked[number] = self._asked.get(number, 0) + 1
            asking = self._asked[number]
        if process is not None:
            process.kill()
        return asking

    def _tell(self, number: int) -> None:
        with self._changed:
            self._changes[number] = self._changes.get(number, 0) + 1
            self._changed.notify_all()
