"""The door: where the program answers other machines too, nobody comes in without the passphrase.

a request ──► is it from where it may be? ──► has it the cookie? ──► the program
                                                    │ no
                                                    └──► the door's page: one passphrase, tried slowly

The passphrase is kept as an Argon2 hash (RFC 9106) beside the records; the cookie is signed with a key that is made
anew with every passphrase, so a new one locks out whoever was in. What passes over the network is not encrypted by the
program: that is for a TLS proxy before it, and both the command and the page say so.
"""

import html
import json
import math
import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from ipaddress import ip_address
from pathlib import Path

from argon2 import PasswordHasher
from argon2.exceptions import VerificationError
from itsdangerous import BadSignature, TimestampSigner
from starlette.concurrency import run_in_threadpool
from starlette.requests import Request
from starlette.responses import HTMLResponse, RedirectResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from gentle_hem.api.problems import problem
from gentle_hem.store.backup import PRIVATE_FILE

COOKIE = "gentle-hem"
OPEN_FOR = 12 * 3600
"""How long the door stays open for whoever knew the passphrase (s)."""

SHORTEST = 8
"""A passphrase has at least so many letters (NIST SP 800-63B, from memory)."""

LONGEST = 200
TRIES, WITHIN = 5, 60.0
"""So many wrong tries from one address within so long (s); then it waits."""

TRIES_OF_ALL = 30
"""So many from everywhere together."""

NOT_ENCRYPTED = (
    "What passes between this machine and another is not encrypted unless it is put behind TLS: on a network that is "
    "not your own, others may read it."
)

HOME = {"127.0.0.1", "localhost", "::1"}


@dataclass(frozen=True, slots=True)
class Place:
    """Where the program answers: the address it is bound to, and the name a TLS proxy before it passes on."""

    bind: str = "127.0.0.1"
    name: str = ""

    @property
    def is_home(self) -> bool:
        """Whether it answers this machine alone."""
        return self.bind in HOME and not self.name

    def knows(self, host: str | None) -> bool:
        """Whether it answers under a name: a foreign one may be a page's trick to be taken for it."""
        if host is None:
            return False
        return host in HOME or bool(self.name and host == self.name) or (not self.is_home and self._is_bound_to(host))

    def _is_bound_to(self, host: str) -> bool:
        try:
            everywhere = ip_address(self.bind).is_unspecified
            ip_address(host)
        except ValueError:
            return host == self.bind
        return everywhere or host == self.bind

    def origins(self, host: str) -> set[str]:
        """Where its own pages come from, asked under a host."""
        own = {f"http://{host}"}
        return own | {f"https://{host}"} if self.name and host.split(":")[0] == self.name else own


HOMELY = Place()
"""This machine alone."""


class TooShort(ValueError):  # noqa: N818  (it is what a passphrase is)
    """A passphrase that is easily guessed; the sentence says what is accepted."""


def _file(folder: Path) -> Path:
    return folder / "passphrase.json"


def choose_passphrase(folder: Path, passphrase: str) -> None:
    """The passphrase from now on; whoever was in is out. Raises TooShort with a sentence."""
    if not SHORTEST <= len(passphrase) <= LONGEST:
        raise TooShort(f"A passphrase has {SHORTEST} to {LONGEST} letters; four words of no one sentence are good.")
    part = _file(folder).with_suffix(".part")
    part.touch(PRIVATE_FILE)
    part.write_text(json.dumps({"hash": PasswordHasher().hash(passphrase), "key": secrets.token_hex(32)}))
    part.replace(_file(folder))


class Door:
    """Who may come in. Nobody can while no passphrase is chosen."""

    def __init__(self, folder: Path, now: Callable[[], float] = time.monotonic) -> None:
        kept = json.loads(_file(folder).read_text()) if _file(folder).exists() else {}
        self._hash: str = kept.get("hash", "")
        self._signer = TimestampSigner(kept.get("key") or secrets.token_hex(32), salt="gentle-hem.door")
        self._now = now
        self._lock = threading.Lock()
        self._wrong = _Wrong()

    @property
    def has_passphrase(self) -> bool:
        return bool(self._hash)

    def wait(self, address: str) -> int:
        """How long somebody at an address must wait before trying again (s); 0: not at all."""
        with self._lock:
            return self._wrong.wait(address, self._now())

    def opens(self, address: str, passphrase: str) -> bool:
        """Whether the passphrase is right. One is tried at a time, and a wrong one is counted."""
        with self._lock:
            if self._wrong.wait(address, self._now()):
                return False
            try:
                right = bool(self._hash) and PasswordHasher().verify(self._hash, passphrase[:LONGEST])
            except VerificationError:
                right = False
            if not right:
                self._wrong.count(address, self._now())
            return right

    def pass_(self) -> str:
        """What whoever came in carries."""
        return self._signer.sign(secrets.token_hex(8)).decode()

    def lets_in(self, carried: str) -> bool:
        """Whether what somebody carries was given here, and not too long ago."""
        try:
            self._signer.unsign(carried, max_age=OPEN_FOR)
        except BadSignature:
            return False
        return True


@dataclass(slots=True)
class _Wrong:
    """Wrong tries of the last minute, by address."""

    at: dict[str, list[float]] = field(default_factory=dict)

    def count(self, address: str, now: float) -> None:
        self._forget(now)
        self.at.setdefault(address, []).append(now)

    def wait(self, address: str, now: float) -> int:
        self._forget(now)
        here = self.at.get(address, [])
        everywhere = sorted(one for tries in self.at.values() for one in tries)
        for tries, most in ((here, TRIES), (everywhere, TRIES_OF_ALL)):
            if len(tries) >= most:
                return max(math.ceil(tries[-most] + WITHIN - now), 1)
        return 0

    def _forget(self, now: float) -> None:
        kept = {address: [one for one in tries if one > now - WITHIN] for address, tries in self.at.items()}
        self.at = {address: tries for address, tries in kept.items() if tries}


class AtTheDoor:
    """Lets through whoever carries the cookie; all others see the door and nothing else."""

    def __init__(self, app: ASGIApp, door: Door, place: Place) -> None:
        self.app, self._door, self._place = app, door, place

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        request = Request(scope, receive)
        is_in = self._door.lets_in(request.cookies.get(COOKIE, ""))
        if scope["path"] == ENTER and request.method == "POST":
            answer = await self._enter(request)
        elif scope["path"] == LEAVE and request.method == "POST":
            answer = Response(status_code=204)
            answer.delete_cookie(COOKIE, path="/")
        elif is_in:
            await self.app(scope, receive, send)
            return
        elif scope["path"].startswith("/api"):
            answer = problem(401, "The door is locked", "Type the passphrase first: open the page anew.")
        else:
            answer = _shown("", 401, self._place)
        await answer(scope, receive, send)

    async def _enter(self, request: Request) -> Response:
        address = request.client.host if request.client else ""
        async with request.form(max_files=0, max_fields=2, max_part_size=4 * LONGEST) as form:
            passphrase = str(form.get("passphrase", ""))
        if wait := self._door.wait(address):
            return self._too_often(wait)
        if not await run_in_threadpool(self._door.opens, address, passphrase):
            if wait := self._door.wait(address):
                return self._too_often(wait)
            return _shown("That is not the passphrase.", 401, self._place)
        answer = RedirectResponse("/", 303)
        answer.set_cookie(
            COOKIE, self._door.pass_(), max_age=OPEN_FOR, path="/", httponly=True, samesite="strict",
            secure=bool(self._place.name),
        )  # fmt: skip
        return answer

    def _too_often(self, wait: int) -> Response:
        said = f"Too many wrong tries. Try again in {wait} {'second' if wait == 1 else 'seconds'}."
        answer = _shown(said, 429, self._place)
        answer.headers["Retry-After"] = str(wait)
        return answer


ENTER, LEAVE = "/enter", "/leave"

PAGE = """<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Gentle Hem</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<style>
body {{ margin: 0; background: #ece5d8; color: #26211b; font: 18px/1.4 Georgia, serif; }}
main {{ max-width: 24rem; margin: 16vh auto 0; padding: 0 1.5rem; }}
h1 {{ font-style: italic; font-weight: 400; font-size: 2rem; margin: 0 0 1.2rem; }}
label {{ display: block; }}
input {{ width: 100%; box-sizing: border-box; font: inherit; padding: .4rem .5rem; margin: .2rem 0 .8rem;
  border: 1px solid #6d6456; background: #fbf8f2; color: inherit; }}
button {{ font: inherit; padding: .4rem 1rem; border: 1px solid #6d6456; background: #fbf8f2; color: inherit; }}
.wrong {{ color: #a02c16; font-weight: 600; }}
small {{ display: block; margin-top: 2rem; color: #5c5347; }}
</style></head>
<body><main><h1>Gentle Hem</h1>{said}
<form method="post" action="/enter"><label>Passphrase
<input type="password" name="passphrase" autocomplete="current-password" autofocus required maxlength="200"></label>
<button type="submit">Come in</button></form>
<small>{warning}</small></main></body></html>
"""


def _shown(said: str, status: int, place: Place) -> Response:
    """The door, with what is to be said of the last try."""
    line = f'<p class="wrong" role="alert">{html.escape(said)}</p>' if said else ""
    page = PAGE.format(said=line, warning="" if place.name else NOT_ENCRYPTED)
    # without a referrer a browser does not say where the form it sends came from
    return HTMLResponse(page, status, {"Cache-Control": "no-store", "Referrer-Policy": "same-origin"})
