"""The real program, started as a person would, for tests that kill it, restart it or look at it."""

import os
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
from contextlib import closing, contextmanager
from functools import cache
from pathlib import Path

import httpx

from gentle_hem.demo import fill
from gentle_hem.store import Store
from gentle_hem.store.backup import FILE_NAME


def free_port():
    with socket.socket() as trial:
        trial.bind(("127.0.0.1", 0))
        return trial.getsockname()[1]


@cache
def _studio():
    """The demo studio's records as a file, made once."""
    folder = tempfile.TemporaryDirectory()
    store = Store(Path(folder.name))
    fill(store)
    store.close()
    return folder, store.file


def lay_studio(file):
    """The demo studio's records in the place of whatever is in a records file, the program running over it or not."""
    _, studio = _studio()
    with closing(sqlite3.connect(studio)) as fresh, closing(sqlite3.connect(file, timeout=10)) as records:
        fresh.backup(records)


def filled(folder):
    """A store with the demo studio's records."""
    Store(folder).close()
    lay_studio(folder / FILE_NAME)
    return Store(folder)


class Server:
    """``hem run`` over a folder, on a port of its own; without a folder, ``hem demo``."""

    def __init__(self, folder=None, *more, language=None):
        self.folder, self.port, self.more = folder, free_port(), more
        self.env = {**os.environ, **({"GENTLE_HEM_LANGUAGE": str(language)} if language else {})}
        self.url = f"http://127.0.0.1:{self.port}"
        self.process = None

    def start(self):
        command = [
            sys.executable,
            "-m",
            "gentle_hem.cli",
            *(("run", "--data", str(self.folder)) if self.folder else ("demo",)),
            "--port",
            str(self.port),
            *self.more,
        ]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=self.env)
        line = self.process.stdout.readline()
        assert self.url in line, line
        return self

    def kill(self):
        self.process.kill()
        self.process.wait()
        self.process.stdout.close()

    def stop(self):
        self.process.terminate()
        self.process.wait()
        self.process.stdout.close()

    def restart(self):
        self.stop()
        return self.start()


@contextmanager
def running(folder=None, language=None):
    server = Server(folder, language=language).start()
    try:
        yield server
    finally:
        if server.process.poll() is None:
            server.stop()


def wait_until(check, seconds=10):
    """Repeat a check until it is true; AssertionError when it never is."""
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        if check():
            return
        time.sleep(0.03)
    raise AssertionError("waited in vain")


def get(server, path):
    return httpx.get(server.url + path, timeout=10).raise_for_status().json()
