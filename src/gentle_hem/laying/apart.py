"""What is worked out in a process apart, told a line at a time: how one is begun, and how it is ended."""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys
from collections.abc import Sequence


def one_core() -> dict[str, str]:
    """What such a process is begun in: the others have the rest of the machine."""
    return {**os.environ, "OPENBLAS_NUM_THREADS": "1"}


def begun(module: Sequence[str]) -> subprocess.Popen[str]:
    """A process of ours, told and telling by its pipes."""
    return subprocess.Popen(
        [sys.executable, *module], stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True,
        env=one_core(),
    )  # fmt: skip


def ended(process: subprocess.Popen[str]) -> None:
    """A process ended, if it has not by itself, and its pipes closed."""
    process.kill()
    process.wait()
    for pipe in (process.stdin, process.stdout, process.stderr):
        if pipe is not None:
            with contextlib.suppress(OSError):
                pipe.close()
