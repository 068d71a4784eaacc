"""Errors as problem+json (RFC 9457): one sentence for people, and the field each one belongs to."""

import json
import logging
import traceback
from collections.abc import Mapping, Sequence
from pathlib import PurePath
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse, Response
from pydantic import BaseModel, ValidationError
from sqlalchemy.exc import DBAPIError
from starlette.exceptions import HTTPException

from gentle_hem.core.refusals import field_path, sentence
from gentle_hem.core.sums.sum import SumError
from gentle_hem.core.units import LengthError
from gentle_hem.store.trouble import NotABackup, StoreTrouble, sentence_for

log = logging.getLogger("gentle_hem")


class FieldProblem(BaseModel):
    field: str
    text: str


class Problem(BaseModel):
    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


class ProblemResponse(JSONResponse):
    """A problem, whatever letters were typed: what no file can hold is written as a question mark."""

    media_type = "application/problem+json"

    def render(self, content: Any) -> bytes:
        return json.dumps(content, ensure_ascii=False, separators=(",", ":")).encode("utf-8", errors="replace")


def problem(
    status: int, title: str, detail: str, errors: Sequence[FieldProblem] = (), more: Mapping[str, Any] | None = None
) -> Response:
    body = Problem(title=title, status=status, detail=detail, errors=list(errors))
    return ProblemResponse({**body.model_dump(), **(more or {})}, status_code=status)


class Stale(Exception):  # noqa: N818  (it is not an error of the program)
    """A save that began from an older version than the newest: what is there now, and how it differs."""

    def __init__(self, detail: str, more: dict[str, Any]) -> None:
        super().__init__(detail)
        self.more = more


def field_problems(errors: Sequence[Any]) -> list[FieldProblem]:
    return [FieldProblem(field=field_path(error["loc"]), text=sentence(error)) for error in errors]


def _unreadable(errors: Sequence[Any]) -> Response:
    found = field_problems(errors)
    first = found[0]
    detail = f"{first.field}: {first.text}" if first.field else first.text
    return problem(422, "Something cannot be read", detail, found)


def fault(error: BaseException) -> Response:
    """An error nobody foresaw: said as a fault of the program, logged by its place alone.

    Neither the message nor what was being worked on is written down: both may hold measures or names.
    """
    frames = traceback.extract_tb(error.__traceback__)
    where = " < ".join(f"{PurePath(frame.filename).name}:{frame.lineno}" for frame in reversed(frames[-6:]))
    log.error("fault: %s at %s", type(error).__name__, where)
    return problem(
        500, "A fault of the program",
        f"A fault of the program, not of what you typed ({type(error).__name__} at {where.split(' < ')[0]}). What you "
        "typed is still here; undo the last change, or send this sentence to whoever looks after the program.",
    )  # fmt: skip


def install(app: FastAPI) -> None:
    """Every error of the API leaves as problem+json."""

    @app.exception_handler(RequestValidationError)
    async def _request(_: Request, error: RequestValidationError) -> Response:
        return _unreadable(error.errors())

    @app.exception_handler(ValidationError)
    async def _recipe(_: Request, error: ValidationError) -> Response:
        return _unreadable(error.errors())

    @app.exception_handler(SumError)
    async def _sum(_: Request, error: SumError) -> Response:
        found = [FieldProblem(field=name, text=text) for name, text in error.problems.items()]
        return problem(422, "Something cannot be read", str(error), found)

    @app.exception_handler(LengthError)
    async def _length(_: Request, error: LengthError) -> Response:
        return problem(422, "Something cannot be read", str(error))

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> Response:
        return problem(error.status_code, "Not possible", str(error.detail))

    @app.exception_handler(Stale)
    async def _stale(_: Request, error: Stale) -> Response:
        return problem(409, "Saved elsewhere since", str(error), more=error.more)

    @app.exception_handler(NotABackup)
    async def _no_backup(_: Request, error: NotABackup) -> Response:
        return problem(422, "Not a backup", str(error))

    @app.exception_handler(StoreTrouble)
    async def _trouble(_: Request, error: StoreTrouble) -> Response:
        return problem(503, "Not kept", str(error))

    @app.exception_handler(DBAPIError)
    async def _records(request: Request, error: DBAPIError) -> Response:
        said = sentence_for(error, request.app.state.store.file)
        return problem(503, "Not kept", said) if said else fault(error)
