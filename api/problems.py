"""What the framework itself refuses, in the words of the rest: not found, not allowed, broken, and out of reach for a moment."""

import sys
from http import HTTPStatus

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from psycopg.errors import LockNotAvailable, QueryCanceled

AGAIN_S = 2
_AWAY = {
    "type": "about:blank",
    "title": "the database is temporarily unavailable",
    "status": 503,
    "remedy": "retrying automatically",
}
_TOO_LONG = {
    "type": "about:blank",
    "title": "this took too long and was stopped",
    "status": 503,
    "remedy": "try again in a moment; ask for less",
}
_BROKEN = {
    "type": "about:blank",
    "title": "something went wrong on the server",
    "status": 500,
    "remedy": "try again; if it keeps happening, contact the person who runs this server",
}


def problem_of(error: BaseException | None) -> JsonResponse:
    """Return an error that nobody expected, or a database that is away: that passes, and may be tried again."""
    away = isinstance(error, OperationalError | InterfaceError)
    slow = isinstance(error.__cause__, QueryCanceled | LockNotAvailable) if error else False
    shown = _TOO_LONG if slow else _AWAY if away else _BROKEN
    response = JsonResponse(shown, status=shown["status"], content_type="application/problem+json")
    if away:
        response["Retry-After"] = str(AGAIN_S)
    return response


def failed(request: HttpRequest) -> HttpResponse:
    """Django's handler of errors outside the API."""
    return problem_of(sys.exc_info()[1])


def as_problem(request: HttpRequest, response: HttpResponse) -> HttpResponse:
    """Return a refusal of the framework to an address of the API, as a problem; everything else as it is."""
    if (
        response.status_code < HTTPStatus.BAD_REQUEST
        or not request.path.startswith("/api/")
        or "json" in response.get("Content-Type", "")
    ):
        return response
    title = HTTPStatus(response.status_code).phrase.lower()
    shown = {"type": "about:blank", "title": title, "status": response.status_code}
    if response.status_code == HTTPStatus.METHOD_NOT_ALLOWED:
        shown |= {"got": request.method, "allowed": response.get("Allow", "")}
    problem_response = JsonResponse(shown, status=response.status_code, content_type="application/problem+json")
    if "Allow" in response:
        problem_response["Allow"] = response["Allow"]
    return problem_response
