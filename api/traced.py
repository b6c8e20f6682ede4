"""From where a request comes, for the history that services keep."""

from collections.abc import Callable

from allauth.account.adapter import get_adapter
from django.http import HttpRequest, HttpResponse

from kitchen.services.trace import client


def traced(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Tell the services the client's address for as long as a request lasts."""

    def requested(request: HttpRequest) -> HttpResponse:
        held = client.set(get_adapter(request).get_client_ip(request)[:45])
        try:
            return get_response(request)
        finally:
            client.reset(held)

    return requested
