"""A password asked for once more before something that cannot be taken back."""

from allauth.core import ratelimit
from django.contrib.auth.models import User
from django.http import HttpRequest

from kitchen.accounts.notices import remember_wrong_proof
from kitchen.errors import Forbidden


def prove_by_password(request: HttpRequest, user: User, password: str) -> None:
    """Check a person's password; wrong ones count together with wrong codes of the second factor.

    Args:
        request: in which it came.
        user: whose it has to be.
        password: that was typed.

    Raises:
        Forbidden: when it is wrong, or when too many were.
    """
    key = f"mfa-auth-user-{user.pk}"  # the library's own key for codes: one count for both
    if not ratelimit.consume(request, action="login_failed", key=key):
        raise Forbidden("too many wrong tries", remedy="wait five minutes, then try again", field="password")
    if not user.check_password(password):
        remember_wrong_proof(user, "account.close")
        raise Forbidden("wrong password", remedy="type it again", field="password")
    ratelimit.clear(request, action="login_failed", key=key)
