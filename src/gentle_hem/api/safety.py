"""Body measures are personal: only pages served from this machine may ask."""

from __future__ import annotations

from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Receive, Scope, Send

from gentle_hem.api.problems import problem

HOME = {"127.0.0.1", "localhost"}

LARGEST_BODY = 4 * 1024 * 1024
"""No recipe or block comes near four megabytes."""


class OnlyFromHere:
    """Refuses foreign Host and Origin headers, and bodies too large to be meant."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http":
            headers = Headers(scope=scope)
            host = urlsplit(f"//{headers.get('host', '')}").hostname
            origin = headers.get("origin")
            if host not in HOME or (origin and urlsplit(origin).hostname not in HOME):
                refusal = problem(403, "Not from here", "This program answers only pages opened on this machine.")
                await refusal(scope, receive, send)
                return
            size = headers.get("content-length", "0")
            if size.isdigit() and int(size) > LARGEST_BODY:
                await problem(413, "Too large", "What was sent is larger than 4 MB.")(scope, receive, send)
                return
        await self.app(scope, receive, send)
