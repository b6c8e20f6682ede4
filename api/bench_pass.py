"""A minute's pass to the analysis endpoint, so that a dragging finger does not ask the database who it is.

The endpoint keeps nothing and shows nothing but figures of the document it was sent; what a kitchen decides
there is only by which conventions they are made. So a signed cookie that holds these choices for one person
and one kitchen stands in for the session for a minute; without it the session and the membership are looked
up as everywhere else, and a new pass is handed out.
"""

from dataclasses import asdict, dataclass, replace
from typing import Any

from django.core import signing
from django.http import HttpRequest, HttpResponse
from ninja.security.session import SessionAuth

from api.person import person
from kitchen.services.access import membership
from kitchen.services.judging import core_settings, kitchen_lessons
from substrata import Settings
from substrata.quantities.pans import Pan
from substrata.settings import Eater

COOKIE = "bench"
SECONDS = 60
_SALT = "substrata.bench"


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
    """The kitchen's choices, and whether a new pass should be handed out.

    Raises:
        NotFound: when the kitchen is not the person's.
    """
    known = _read(request)
    if known is not None and known.kitchen_id == kitchen_id:
        return known, False
    kitchen = membership(person(request), kitchen_id).kitchen
    kitchen_lessons(kitchen.pk, kitchen.revision)  # at hand for the requests that come with the pass
    return BenchPass(kitchen_id=kitchen_id, revision=kitchen.revision, settings=core_settings(kitchen)), True


def hand_out(response: HttpResponse, held: BenchPass, *, secure: bool) -> None:
    """Put a fresh pass into the response."""
    # Lessons are long, and looked up again by the kitchen's revision.
    brief = replace(held, settings=replace(held.settings, lessons=()))
    value = signing.dumps(asdict(brief), salt=_SALT, compress=True)
    response.set_cookie(
        COOKIE, value, max_age=SECONDS, path="/api/kitchens", httponly=True, samesite="Strict", secure=secure
    )


def forget_pass(response: HttpResponse) -> None:
    """Forget the pass: the kitchen's choices have changed."""
    response.delete_cookie(COOKIE, path="/api/kitchens", samesite="Strict")


def _read(request: HttpRequest) -> BenchPass | None:
    value = request.COOKIES.get(COOKIE)
    if not value:
        return None
    try:
        held = signing.loads(value, salt=_SALT, max_age=SECONDS)
        eaters = tuple(
            Eater(name=eater["name"], budgets=tuple((key, amount) for key, amount in eater["budgets"]))
            for eater in held["settings"].pop("eaters")
        )
        pans = tuple(Pan(**pan) for pan in held["settings"].pop("pans"))
        del held["settings"]["lessons"]
        lessons = kitchen_lessons(held["kitchen_id"], held["revision"])
        settings = Settings(**held["settings"], eaters=eaters, pans=pans, lessons=lessons)
        return BenchPass(kitchen_id=held["kitchen_id"], revision=held["revision"], settings=settings)
    except (signing.BadSignature, KeyError, TypeError):
        return None
