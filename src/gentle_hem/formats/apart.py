"""Files from outside are read in a process of their own, which may take so long and so much memory, and can be killed.

    the program ──job──► a reader, one file each ──► what it found, or one sentence
                         2 s · 120 MB · no files, no network asked

Once a file has been read, the next reader waits ready, so that its start costs nobody time.
"""

from __future__ import annotations

import contextlib
import json
import os
import signal
import subprocess
import sys
import threading
from typing import Any

LONGEST = 2.0
"""How much work one file may be to read (s)."""

WAITED = 6.0
"""How long one file is waited for on a busy machine (s)."""

LONGEST_PHOTO, WAITED_PHOTO = 10.0, 30.0
"""The same of a photograph, which is larger and more work."""

PHOTOGRAPHS = ("photo", "picture")
"""Jobs that read a photograph: of a paper piece, or to be kept."""

START = 20.0
"""How long a reader may take to start on a busy machine (s)."""

AT_ONCE = 2
"""How many files are read at the same time."""


class NotReadError(ValueError):
    """A file that was not read; the sentence says why and what would be."""


class ReadingRoom:
    """Readers, one for each file, the next one always ready."""

    def __init__(self) -> None:
        self._spare: subprocess.Popen[bytes] | None = None
        self._lock = threading.Lock()
        self._places = threading.BoundedSemaphore(AT_ONCE)
        self._closed = False

    def open(self) -> None:
        """Have a reader ready before the next file comes."""
        threading.Thread(target=self._make_spare, daemon=True).start()

    def close(self) -> None:
        with self._lock:
            self._closed = True
            spare, self._spare = self._spare, None
        if spare is not None:
            _end(spare)

    def read(self, kind: str, name: str, content: bytes, **more: Any) -> Any:
        """What a reader finds in a file. Raises NotReadError with a sentence."""
        with self._places:
            reader = self._take()
            try:
                return self._answer(reader, kind, name, content, more)
            finally:
                _end(reader)
                self.open()

    def _answer(self, reader: subprocess.Popen[bytes], kind: str, name: str, content: bytes, more: Any) -> Any:
        job = json.dumps({"kind": kind, "name": name, "size": len(content), **more}).encode() + b"\n" + content
        try:
            said, _ = reader.communicate(job, timeout=WAITED_PHOTO if kind in PHOTOGRAPHS else WAITED)
        except subprocess.TimeoutExpired:
            reader.kill()
            said = b""
        if reader.returncode in (None, -signal.SIGPROF):
            raise NotReadError(
                f"{name} takes longer than {LONGEST_PHOTO:g} seconds to read. Save it smaller and send it again."
                if kind in PHOTOGRAPHS
                else f"{name} takes longer than {LONGEST:g} seconds to read. Leave out everything but the lines of the "
                "pieces and send it again."
            )
        try:
            answer = json.loads(said)
        except ValueError:
            raise NotReadError(
                f"{name} could not be read: it asks for more memory than a block is worth. Leave out everything but "
                "the lines of the pieces and send it again."
            ) from None
        if "sentence" in answer:
            raise NotReadError(answer["sentence"])
        return answer["found"]

    def _take(self) -> subprocess.Popen[bytes]:
        with self._lock:
            reader, self._spare = self._spare, None
        return reader or _start()

    def _make_spare(self) -> None:
        reader = _start()
        with self._lock:
            if self._spare is None and not self._closed:
                self._spare = reader
                return
        _end(reader)


def _start() -> subprocess.Popen[bytes]:
    """A reader that has said it is ready."""
    reader = subprocess.Popen(
        [sys.executable, "-m", "gentle_hem.formats.reader"],
        stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
        env={**os.environ, "OPENBLAS_NUM_THREADS": "1"},
    )  # fmt: skip
    late = threading.Timer(START, reader.kill)
    late.start()
    try:
        assert reader.stdout is not None
        if reader.stdout.readline() != b"ready\n":
            raise RuntimeError("the reader of files did not start")
    finally:
        late.cancel()
    return reader


def _end(reader: subprocess.Popen[bytes]) -> None:
    reader.kill()
    for pipe in (reader.stdin, reader.stdout):
        if pipe is not None:
            with contextlib.suppress(OSError):
                pipe.close()
    reader.wait()
