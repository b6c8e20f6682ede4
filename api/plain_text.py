"""No text with a NUL in it, which no database keeps: refused at the door, wherever it stands in a request. And headers of every answer."""

from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse

from api.problems import as_problem

_REFUSED = {
    "type": "about:blank",
    "title": "the request holds a character that cannot be kept",
    "status": 422,
    "got": "NUL",
    "allowed": "text without control characters",
    "remedy": "take it out and send again",
}
# What a page of doughs asks of a device: the screen kept awake, a scale and a thermometer.
_PERMISSIONS = "camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=(self), screen-wake-lock=(self)"


def plain_text(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Refuse a NUL in an address; keep answers of the API out of every cache."""

    def checked(request: HttpRequest) -> HttpResponse:
        address = f"{request.path}?{request.META.get('QUERY_STRING', '')}"
        if "\x00" in address or "%00" in address:
            return JsonResponse(_REFUSED, status=422, content_type="application/problem+json")
        response = as_problem(request, get_response(request))
        if request.path.startswith(("/api/", "/_allauth/")):
            response.headers.setdefault("Cache-Control", "no-store")
        response.headers.setdefault("Permissions-Policy", _PERMISSIONS)
        return response

    return checked


def has_nul(value: Any) -> bool:
    """Whether a NUL stands anywhere in what JSON holds."""
    if isinstance(value, str):
        return "\x00" in value
    if isinstance(value, dict):
        return any("\x00" in key or has_nul(entry) for key, entry in value.items())
    return isinstance(value, list) and any(map(has_nul, value))
