"""How large a request may be: small everywhere, but for a file of products, formulas or a kitchen."""

import re
from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse, JsonResponse

_FILES = re.compile(r"/api/kitchens/\d+/(?:imports|file|read-file|runs-file)")
_PHOTOS = re.compile(r"/api/kitchens/\d+/runs/\d+/photos")


def body_limits(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Refuse a body that says it is larger than its address takes, before anything reads it.

    Django itself stops reading at ``DATA_UPLOAD_MAX_MEMORY_SIZE``, whatever a request says of its length.

    Returns:
        The handler with the check before it.
    """

    def limited(request: HttpRequest) -> HttpResponse:
        most = settings.SMALL_BODY_SIZE
        if _FILES.fullmatch(request.path):
            most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        elif _PHOTOS.fullmatch(request.path):
            most = settings.PHOTO_BODY_SIZE
        text = request.META.get("CONTENT_LENGTH") or "0"
        if text.isdigit() and int(text) > most:
            problem = {
                "type": "about:blank",
                "title": "the request is too large",
                "status": 413,
                "got": f"{int(text) / 1e6:.1f} MB",
            }
            problem |= {"allowed": f"up to {most / 1e6:.0f} MB", "remedy": "send less"}
            return JsonResponse(problem, status=413, content_type="application/problem+json")
        return get_response(request)

    return limited
