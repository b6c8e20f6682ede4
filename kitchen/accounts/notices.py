"""What the accounts library tells: kept in the history, and a sign-in from a new place told by mail."""

from datetime import timedelta
from typing import Any

from allauth.account import signals as account
from allauth.account.adapter import get_adapter
from allauth.mfa import signals as second_factor
from allauth.usersessions.models import UserSession
from django.contrib.auth.models import User
from django.contrib.auth.signals import user_logged_out
from django.dispatch import receiver
from django.http import HttpRequest
from django.utils import timezone

from kitchen.services.access import record_account

PROOFS_HEARD = 5  # wrong codes of a person that are heard in five minutes (``ACCOUNT_RATE_LIMITS``)
_RECENT = timedelta(hours=1)


@receiver(account.user_logged_in)
def signed_in(request: HttpRequest, user: User, **_: Any) -> None:
    """Keep it; tell it where the person was never seen with this browser at this place."""
    record_account(user, "sign-in")
    others = UserSession.objects.filter(user=user).exclude(session_key=request.session.session_key or "")
    adapter = get_adapter(request)
    longest = UserSession._meta.get_field("user_agent").max_length  # noqa: SLF001 - Django's own way to a field
    here = {"ip": adapter.get_client_ip(request), "user_agent": adapter.get_http_user_agent(request)[:longest]}
    earlier = user.audit.filter(action="sign-in", refused=False, place=here["ip"]).count() > 1
    if others.exists() and not earlier and not others.filter(**here).exists():
        adapter.send_notification_mail("account/email/signed_in", user)


@receiver(user_logged_out)
def signed_out(user: User | None, **_: Any) -> None:
    """Keep it."""
    if user is not None:
        record_account(user, "sign-out")


@receiver(account.password_changed)
@receiver(account.password_reset)
def password_changed(user: User, **_: Any) -> None:
    """Keep it; the library writes to the person."""
    record_account(user, "password.change")


@receiver(account.email_changed)
def email_changed(user: User, to_email_address: Any, **_: Any) -> None:
    """Keep it."""
    record_account(user, "email.change", email=to_email_address.email)


@receiver(second_factor.authenticator_added)
def factor_added(user: User, authenticator: Any, **_: Any) -> None:
    """Keep it."""
    record_account(user, "second-factor.add", kind=authenticator.type)


@receiver(second_factor.authentication_failed)
def factor_failed(user: User, **_: Any) -> None:
    """Keep a wrong code in the history, and write to the person when the codes of five minutes are used up."""
    remember_wrong_proof(user, "second-factor")


def remember_wrong_proof(user: User, action: str) -> None:
    """Keep a wrong code or password of somebody who is half way in, and write to the person once they are many.

    Args:
        user: whose account it is.
        action: under which it stands in the history.
    """
    record_account(user, action, refused=True)
    recent = user.audit.filter(action=action, refused=True, at__gte=timezone.now() - _RECENT)
    if recent.count() == PROOFS_HEARD:
        get_adapter().send_notification_mail("account/email/many_codes", user, {"tries": PROOFS_HEARD})


@receiver(second_factor.authenticator_removed)
def factor_removed(user: User, authenticator: Any, **_: Any) -> None:
    """Keep it."""
    record_account(user, "second-factor.remove", kind=authenticator.type)
