"""One map from every refusal to problem+json (RFC 9457), down to the line and the field."""

from collections.abc import Callable
from itertools import pairwise
from typing import Any

from django.contrib.auth.models import User
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError

from kitchen.errors import Conflict, Forbidden, KitchenError
from kitchen.services.history import record_refusal
from substrata.base import SubstrataError


class ProblemOut(Schema):
    """What every refusal looks like."""

    type: str = "about:blank"
    title: str
    status: int
    got: str = ""
    allowed: str = ""
    remedy: str = ""
    line: str | None = None
    field: str | None = None
    current: dict[str, Any] | None = None


_TOO_MUCH = ProblemOut(title="too many requests at the same time", status=413, remedy="send less")


def connect(api: NinjaAPI) -> None:
    """Answer every known error of the API with a problem."""

    def answer(request: HttpRequest, problem: ProblemOut) -> HttpResponse:
        response = api.create_response(request, problem.model_dump(exclude_none=True), status=problem.status)
        response["Content-Type"] = "application/problem+json"
        return response

    def core(request: HttpRequest, error: SubstrataError) -> HttpResponse:
        return answer(request, _refusal_problem(error, 422, line=error.line))

    def kitchen(request: HttpRequest, error: KitchenError) -> HttpResponse:
        current = error.current if isinstance(error, Conflict) else None
        # What somebody of the kitchen may see and not do is shown to its owners.
        place = request.resolver_match
        kitchen_id = place.kwargs.get("kitchen_id") if place else None
        if isinstance(error, Forbidden) and place and kitchen_id and isinstance(request.user, User):
            record_refusal(request.user, kitchen_id, f"{request.method} {place.route}")
        return answer(request, _refusal_problem(error, error.status, current=current))

    def validation(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return answer(request, _validation_problem(error.errors))

    def signed_out(request: HttpRequest, _: AuthenticationError) -> HttpResponse:
        return answer(request, ProblemOut(title="you are signed out", status=401, remedy="sign in"))

    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        return answer(request, _http_problem(error))

    def large(request: HttpRequest, _: RequestDataTooBig) -> HttpResponse:
        return answer(request, _TOO_MUCH)

    handlers: dict[type[Exception], Callable[..., HttpResponse]] = {
        SubstrataError: core,
        KitchenError: kitchen,
        ValidationError: validation,
        AuthenticationError: signed_out,
        HttpError: http,
        RequestDataTooBig: large,
    }
    for error, handler in handlers.items():
        api.add_exception_handler(error, handler)


def _http_problem(error: HttpError) -> ProblemOut:
    """Return a refusal of the framework; its parser wraps what stopped it, and a body too large to read is not one that cannot be read."""
    cause = error.__context__
    if isinstance(cause, RequestDataTooBig):
        return _TOO_MUCH
    if isinstance(cause, KitchenError):
        return _refusal_problem(cause, cause.status)
    return ProblemOut(title=str(error), status=error.status_code)


def _refusal_problem(error: SubstrataError | KitchenError, status: int, **more: Any) -> ProblemOut:
    """Return a refusal of the core or the kitchen: the same four things under the same names."""
    return ProblemOut(
        title=error.what,
        status=status,
        got=error.got,
        allowed=error.allowed,
        remedy=error.remedy,
        field=error.field,
        **more,
    )


def _validation_problem(errors: list[dict[str, Any]]) -> ProblemOut:
    """Return the first type error of a request, placed at its line and field."""
    first = errors[0]
    place = [part for part in first["loc"] if part not in ("body", "payload", "query", "path")]
    line = next((str(b) for a, b in pairwise(place) if a == "lines" and isinstance(b, int)), None)
    return ProblemOut(
        title=f"{'.'.join(map(str, place)) or 'the request'} cannot be read",
        status=422,
        got=repr(first.get("input"))[:60] if "input" in first else "",
        allowed=first["msg"],
        remedy="correct it and send again",
        line=f"line {int(line) + 1}" if line is not None else None,
        field=str(place[-1]) if place else None,
    )
