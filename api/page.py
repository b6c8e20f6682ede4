"""The one page: index.html for every address that is neither API nor file."""

from functools import lru_cache
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

_NO_NONCE = 'nonce=""'
_NOT_BUILT = "<!doctype html><title>Substrata</title><p>The page is not built yet: run <code>./start</code>."


@lru_cache(maxsize=2)
def _built(file: Path, changed: float) -> str:
    return file.read_text(encoding="utf8")


@require_safe
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Serve the page, and set the cookie that its requests must repeat."""
    file = settings.WEB_DIST / "index.html"
    if not file.exists():
        return HttpResponse(_NOT_BUILT, status=503)
    text = _built(file, file.stat().st_mtime)
    # By it the component library's own styles are let through, and no other that is written into the page.
    response = HttpResponse(text.replace(_NO_NONCE, f'nonce="{request.csp_nonce}"', 1))  # type: ignore[attr-defined]  # of the policy's middleware
    response["Cache-Control"] = "no-cache"
    return response


@require_safe
def bench_worker(request: HttpRequest) -> HttpResponse:
    """Serve the page's worker from the root, so that it can stand in for the whole site while there is no network."""
    file = settings.WEB_DIST / "bench-worker.js"
    if not file.exists():
        return HttpResponse("the page is not built yet", status=404, content_type="text/plain")
    response = HttpResponse(_built(file, file.stat().st_mtime), content_type="text/javascript")
    response["Cache-Control"] = "no-cache"
    return response
