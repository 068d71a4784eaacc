"""Body measures are personal: only pages served from this machine may ask, and nothing they are sent goes further."""

from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from gentle_hem.api.door import Place
from gentle_hem.api.problems import fault, problem
from gentle_hem.limits import (
    LARGEST_BACKUP,
    LARGEST_BACKUP_SAID,
    LARGEST_PHOTO,
    LARGEST_PHOTO_SAID,
    LARGEST_SAID,
    LARGEST_UPLOAD,
)

HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=()",
    # the drawn pages place their popovers with style attributes
    "Content-Security-Policy": "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; "
    "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
}


class TooLarge(Exception):  # noqa: N818  (it is not an error of the program)
    """More was sent than is accepted."""


class OnlyFromHere:
    """Refuses foreign hosts, origins and pages, and bodies too large to be meant; answers faults itself."""

    def __init__(self, app: ASGIApp, place: Place) -> None:
        self.app, self._place = app, place

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        started = over = False

        async def guarded(message: Message) -> None:
            nonlocal started
            if over and not started:  # whatever is made of half a body, it was too large
                started = True
                await too_large(scope, receive, send)
                return
            if over:
                return
            if message["type"] == "http.response.start":
                started = True
                made = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    made.setdefault(name, value)
                if scope["path"].startswith("/api"):
                    made.setdefault("Cache-Control", "no-store")
            await send(message)

        if not is_from_here(headers, scope["path"], self._place):
            refusal = problem(403, "Not from here", NOT_FROM_HERE)
            await refusal(scope, receive, guarded)
            return
        size, taken = headers.get("content-length", "0"), 0
        most, said = LARGER.get(scope["path"].rpartition("/")[2], (LARGEST_UPLOAD, LARGEST_SAID))
        too_large = problem(413, "Too large", f"What was sent is larger than {said}.")
        if size.isdigit() and int(size) > most:
            await too_large(scope, receive, guarded)
            return

        async def counted() -> Message:
            nonlocal taken, over
            message = await receive()
            taken += len(message.get("body", b""))
            over = taken > most
            if over:
                raise TooLarge
            return message

        try:
            await self.app(scope, counted, guarded)
        except TooLarge:
            if not started:
                await too_large(scope, receive, guarded)
        except Exception as error:
            answer = fault(error)
            if not started:
                await answer(scope, receive, guarded)


NOT_FROM_HERE = "This program answers only pages of its own, under the address it was started on."

LARGER = {
    "photo": (LARGEST_PHOTO, LARGEST_PHOTO_SAID),
    "photographs": (LARGEST_PHOTO, LARGEST_PHOTO_SAID),
    "bring-back": (LARGEST_BACKUP, LARGEST_BACKUP_SAID),
}
"""Where something is sent that is larger than anything else, by the last word of its address."""


def is_from_here(headers: Headers, path: str, place: Place) -> bool:
    """Whether a request comes from one of the program's own pages, or from no page at all."""
    host = headers.get("host", "")
    try:
        name = urlsplit(f"//{host}").hostname
    except ValueError:
        return False
    if not place.knows(name):
        return False
    origin = headers.get("origin")
    if origin and origin not in place.origins(host):
        return False
    # another page may link here, but not ask in a page's name
    return not path.startswith("/api") or headers.get("sec-fetch-site", "none") in ("none", "same-origin")
