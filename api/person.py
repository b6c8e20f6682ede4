"""The person behind a request."""

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.errors import AuthenticationError

from kitchen.models import Membership
from kitchen.services.access import membership
from substrata.base import Reader, read_by


def person(request: HttpRequest) -> User:
    """Who is signed in.

    Returns:
        The signed-in user.

    Raises:
        AuthenticationError: when nobody is; every router asks for a session first, so this is a second lock.
    """
    if not isinstance(request.user, User):
        raise AuthenticationError
    return request.user


def kitchen_member(request: HttpRequest, kitchen_id: int, right: str = "view") -> Membership:
    """Return the membership of who is signed in; messages are read in that kitchen's units from here on.

    Args:
        request: a request with a session.
        kitchen_id: the kitchen of its path.
        right: what the request wants to do, as ``stock.edit``; services ask again for the right that they need.

    Returns:
        The person with their role in that kitchen.

    Raises:
        NotFound: when the kitchen is not theirs.
        Forbidden: when their role does not allow it.
    """
    member = membership(person(request), kitchen_id, right)
    read_by(Reader(units=member.kitchen.units))
    return member
