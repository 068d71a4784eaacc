"""Errors as problem+json (RFC 9457): one sentence for people, and the field each one belongs to."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ValidationError
from starlette.exceptions import HTTPException

from gentle_hem.core.refusals import field_path, sentence
from gentle_hem.core.sums.sum import SumError
from gentle_hem.core.units import LengthError


class FieldProblem(BaseModel):
    field: str
    text: str


class Problem(BaseModel):
    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


def problem(status: int, title: str, detail: str, errors: Sequence[FieldProblem] = ()) -> JSONResponse:
    body = Problem(title=title, status=status, detail=detail, errors=list(errors))
    return JSONResponse(body.model_dump(), status_code=status, media_type="application/problem+json")


def field_problems(errors: Sequence[Any]) -> list[FieldProblem]:
    return [FieldProblem(field=field_path(error["loc"]), text=sentence(error)) for error in errors]


def _unreadable(errors: Sequence[Any]) -> JSONResponse:
    found = field_problems(errors)
    first = found[0]
    detail = f"{first.field}: {first.text}" if first.field else first.text
    return problem(422, "Something cannot be read", detail, found)


def install(app: FastAPI) -> None:
    """Every error of the API leaves as problem+json."""

    @app.exception_handler(RequestValidationError)
    async def _request(_: Request, error: RequestValidationError) -> JSONResponse:
        return _unreadable(error.errors())

    @app.exception_handler(ValidationError)
    async def _recipe(_: Request, error: ValidationError) -> JSONResponse:
        return _unreadable(error.errors())

    @app.exception_handler(SumError)
    async def _sum(_: Request, error: SumError) -> JSONResponse:
        found = [FieldProblem(field=name, text=text) for name, text in error.problems.items()]
        return problem(422, "Something cannot be read", str(error), found)

    @app.exception_handler(LengthError)
    async def _length(_: Request, error: LengthError) -> JSONResponse:
        return problem(422, "Something cannot be read", str(error))

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, "Not possible", str(error.detail))
