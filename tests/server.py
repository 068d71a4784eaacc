"""The real program, started as a person would, for tests that kill it, restart it or look at it."""

import socket
import subprocess
import sys
import time
from contextlib import contextmanager

import httpx


def free_port():
    with socket.socket() as trial:
        trial.bind(("127.0.0.1", 0))
        return trial.getsockname()[1]


class Server:
    """``hem run`` over a folder, on a port of its own; without a folder, ``hem demo``."""

    def __init__(self, folder=None):
        self.folder, self.port = folder, free_port()
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
        ]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
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
def running(folder=None):
    server = Server(folder).start()
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
