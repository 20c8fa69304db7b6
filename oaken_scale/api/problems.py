"""Errors as RFC 9457 problem documents: the field, what was wrong, what would be right."""

import sqlite3
from collections.abc import Iterable
from math import ceil, isfinite
from typing import Any, Final

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from oaken_scale.core.changes.typed_part import UnusualError
from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.formats.apart import BusyError
from oaken_scale.formats.wording import field_faults
from oaken_scale.workshop.doorkeeper import WrongCodeError
from oaken_scale.workshop.refused import (
    FullError,
    HungError,
    InUseError,
    NoSuchError,
    NothingLeftError,
    OutOfDateError,
    RefusedError,
    TakenError,
    TooManyError,
)

STATUS: Final[dict[type[RefusedError], int]] = {
    NoSuchError: 404,
    TakenError: 409,
    HungError: 409,
    InUseError: 409,
    FullError: 409,
    NothingLeftError: 409,
    OutOfDateError: 412,
    TooManyError: 429,
    WrongCodeError: 422,
}
"""What the workshop refuses, as HTTP says it."""

MEDIA_TYPE: Final = "application/problem+json"


class AmountSaid(BaseModel):
    """An amount in a base unit: g, mm, dm2, gf or g/dm2; a bare number without one."""

    value: float
    unit: str


class FieldFault(BaseModel):
    """One field that was wrong: in words with base units, and as a text with the names and the
    amounts that go where ``{}`` stands, for whoever shows other units; without any it is plain.
    Words that stand ``alone`` come after a colon."""

    field: str
    words: str
    text: str
    facts: list[str | AmountSaid] = []
    alone: bool = False

    @classmethod
    def of(cls, fault: Fault) -> "FieldFault":
        """A fault as the API tells it."""
        facts = [
            AmountSaid(value=each.value, unit=each.unit)
            if isinstance(each, Amount) and isfinite(each.value)
            else str(each)
            for each in fault.facts
        ]
        return cls(
            field=fault.field, words=fault.words, text=fault.text, facts=facts, alone=fault.alone
        )


class Problem(BaseModel):
    """A problem document (RFC 9457), with the fields that were wrong."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    faults: list[FieldFault] = []


class ProblemError(Exception):
    """A request that cannot be done; answered with a problem document."""

    def __init__(self, status: int, title: str, detail: str, field: str | None = None) -> None:
        """Keep what the document will say."""
        super().__init__(detail)
        self.status, self.title, self.detail = status, title, detail
        self.faults = [Fault(field, detail)] if field else []


def no_such(what: str, id: str) -> ProblemError:
    """The thing that a path names is not there."""
    return ProblemError(404, f"No such {what}", f'there is no {what} "{id}"')


def documented(*statuses: int) -> dict[int | str, dict[str, Any]]:
    """OpenAPI entries for the problems that an operation may answer with."""
    content = {MEDIA_TYPE: {"schema": {"$ref": "#/components/schemas/Problem"}}}
    return {
        status: {"model": Problem, "content": content, "description": "Problem"}
        for status in (422, *statuses)
    }


def answer(status: int, title: str, detail: str, faults: Iterable[Fault] = ()) -> JSONResponse:
    """A problem document as a response."""
    problem = Problem(
        title=title,
        status=status,
        detail=detail,
        faults=[FieldFault.of(fault) for fault in faults],
    )
    return JSONResponse(problem.model_dump(), status_code=status, media_type=MEDIA_TYPE)


def _refused(faults: tuple[Fault, ...]) -> JSONResponse:
    detail = "; ".join(fault.sentence for fault in faults[:5])
    return answer(422, "That cannot be right", detail, faults)


def install(app: FastAPI) -> None:
    """Answer every error of the application with a problem document."""

    @app.exception_handler(ProblemError)
    def _problem(_: Request, error: ProblemError) -> JSONResponse:
        return answer(error.status, error.title, error.detail, error.faults)

    @app.exception_handler(RefusedError)
    def _not_done(_: Request, error: RefusedError) -> JSONResponse:
        faults = [Fault(error.field, error.detail)] if error.field else []
        response = answer(STATUS[type(error)], error.title, error.detail, faults)
        if isinstance(error, TooManyError):
            response.headers["Retry-After"] = str(ceil(error.wait_s))
        return response

    @app.exception_handler(RequestValidationError)
    def _invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        return _refused(field_faults(error.errors(), drop=("body", "query", "path", "header")))

    @app.exception_handler(BuildFaultError)
    def _faulty(_: Request, error: BuildFaultError) -> JSONResponse:
        return _refused(error.faults)

    @app.exception_handler(UnusualError)
    def _unusual(_: Request, error: UnusualError) -> JSONResponse:
        words = "; ".join(fault.words for fault in error.faults)
        return answer(409, "Is that meant?", words, error.faults)

    @app.exception_handler(HTTPException)
    def _http(_: Request, error: HTTPException) -> JSONResponse:
        words = str(error.detail)
        unread = error.status_code == 400 and "body" in words
        faults = [Fault("body", "is no JSON in UTF-8 that can be read; send a JSON object")]
        response = answer(error.status_code, words, words, faults if unread else ())
        response.headers.update(error.headers or {})
        return response

    @app.exception_handler(BusyError)
    def _waiting(_: Request, error: BusyError) -> JSONResponse:
        return answer(503, "Busy reading", f"{error}; nothing was changed")

    @app.exception_handler(sqlite3.DatabaseError)
    def _damaged(_: Request, error: sqlite3.DatabaseError) -> JSONResponse:
        words = (
            f"the database cannot be read here ({error}); nothing was changed; stop the workshop "
            "and start it again, and it is opened as far as it can be read"
        )
        return answer(503, "The database is damaged", words)

    @app.exception_handler(sqlite3.IntegrityError)
    def _unfit(_: Request, error: sqlite3.IntegrityError) -> JSONResponse:
        words = f"what was sent does not fit together ({error}); nothing was changed"
        return answer(422, "That cannot be right", words)

    @app.exception_handler(sqlite3.OperationalError)
    def _busy(_: Request, error: sqlite3.OperationalError) -> JSONResponse:
        words = f"the database could not be written ({error}); nothing was changed, try again"
        return answer(503, "The database is not ready", words)
