"""A minute's pass to the analysis endpoint, so that a dragging finger does not ask the database for everything each time.

The endpoint keeps nothing and shows nothing but figures of the document it was sent; what a kitchen decides there is only by which
conventions they are made. The pass says who asks in which kitchen at which of its revisions, and is good only beside the session
that it was made for. One question, by keys, tells with each request whether that session, the membership and the revision are still
as they were: signing out, being taken out and any change of the kitchen end it at once. The choices themselves never leave the server.
"""

from dataclasses import dataclass
from functools import lru_cache
from hashlib import sha256
from typing import Any

from django.conf import settings as django_settings
from django.contrib.sessions.models import Session
from django.core import signing
from django.db import connection
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja.security.session import SessionAuth

from api.person import kitchen_member, person
from kitchen.models import Kitchen, Membership
from kitchen.services.judging import core_settings
from substrata import Settings
from substrata.base import Reader, read_by

COOKIE = "bench"
SECONDS = 60
_SALT = "substrata.bench"
_HELD = 64  # kitchens whose choices are at hand
# Written out: putting it together anew takes the mapper five times as long as the database takes to answer.
_AS_IT_WAS = f"""
    SELECT 1 FROM {Membership._meta.db_table} m JOIN {Kitchen._meta.db_table} k ON k.id = m.kitchen_id
    WHERE m.user_id = %s AND m.kitchen_id = %s AND k.revision = %s
    AND EXISTS (SELECT 1 FROM {Session._meta.db_table} s WHERE s.session_key = %s AND s.expire_date > %s)
"""  # noqa: S608, SLF001 - the models' own names of their tables


@dataclass(frozen=True, kw_only=True)
class BenchPass:
    """By which choices a kitchen's documents are judged."""

    kitchen_id: int
    revision: int  # of the kitchen: tells which state of its packs is meant
    settings: Settings


class BenchAuth(SessionAuth):
    """A valid pass for the kitchen of the address, else the session. Requests are CSRF-checked either way."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Whoever may ask for an analysis; None refuses."""
        return _read(request) or super().authenticate(request, key)


def choices(request: HttpRequest, kitchen_id: int) -> tuple[BenchPass, bool]:
    """Return the kitchen's choices, and whether a new pass should be handed out.

    Raises:
        NotFound: when the kitchen is not the person's.
    """
    known = _read(request)
    if known is not None and known.kitchen_id == kitchen_id:
        read_by(Reader(units=known.settings.units))
        return known, False
    kitchen = kitchen_member(request, kitchen_id).kitchen
    return BenchPass(kitchen_id=kitchen_id, revision=kitchen.revision, settings=core_settings(kitchen)), True


@lru_cache(maxsize=_HELD)
def _choices_at(kitchen_id: int, revision: int) -> Settings:
    return core_settings(Kitchen.objects.get(pk=kitchen_id))


def hand_out(request: HttpRequest, response: HttpResponse, held: BenchPass) -> None:
    """Put a fresh pass into the response."""
    value = signing.dumps([person(request).pk, held.kitchen_id, held.revision, _marked(request)], salt=_SALT)
    response.set_cookie(
        COOKIE,
        value,
        max_age=SECONDS,
        path="/api/kitchens",
        httponly=True,
        samesite="Strict",
        secure=request.is_secure(),
    )


def forget_pass(response: HttpResponse) -> None:
    """Forget the pass: the kitchen's choices have changed."""
    response.delete_cookie(COOKIE, path="/api/kitchens", samesite="Strict")


def _session_key(request: HttpRequest) -> str:
    return request.COOKIES.get(django_settings.SESSION_COOKIE_NAME, "")


def _marked(request: HttpRequest) -> str:
    """Return the session as a mark from which it cannot be told."""
    return sha256(_session_key(request).encode()).hexdigest()[:24]


def _read(request: HttpRequest) -> BenchPass | None:
    """Read the pass of a request, looked at once."""
    known: BenchPass | None
    if hasattr(request, "_bench_pass"):
        known = request._bench_pass  # noqa: SLF001 - kept on the request that it belongs to
        return known
    known = _checked(request)
    request._bench_pass = known  # type: ignore[attr-defined]  # noqa: SLF001
    return known


def _checked(request: HttpRequest) -> BenchPass | None:
    value = request.COOKIES.get(COOKIE)
    if not value:
        return None
    try:
        user_id, kitchen_id, revision, mark = signing.loads(value, salt=_SALT, max_age=SECONDS)
    except (signing.BadSignature, ValueError, TypeError):
        return None
    if mark != _marked(request):
        return None
    with connection.cursor() as cursor:
        cursor.execute(_AS_IT_WAS, [user_id, kitchen_id, revision, _session_key(request), timezone.now()])
        if cursor.fetchone() is None:
            return None
    return BenchPass(kitchen_id=kitchen_id, revision=revision, settings=_choices_at(kitchen_id, revision))
