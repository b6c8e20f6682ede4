"""The person behind a request."""

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.errors import AuthenticationError


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
