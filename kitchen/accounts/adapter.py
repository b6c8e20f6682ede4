"""What the accounts library asks of this house."""

from contextlib import suppress
from datetime import timedelta
from math import ceil
from typing import Any

from allauth.account.adapter import DefaultAccountAdapter
from allauth.account.models import EmailAddress
from django.contrib.auth.models import AbstractBaseUser, User
from django.core.exceptions import ImproperlyConfigured, ValidationError
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from django.utils.crypto import get_random_string

from kitchen.accounts.tries import Tries
from kitchen.services.access import record_account
from kitchen.services.kitchens import open_kitchen

NAME = "Substrata"
# After so many wrong passwords within an hour the person is told.
_NOTICE_AFTER = 20


class Accounts(DefaultAccountAdapter):  # type: ignore[misc]  # the library ships no types
    """Waits that grow after wrong passwords; mail in the words of the house."""

    def authenticate(self, request: HttpRequest, **credentials: Any) -> AbstractBaseUser | None:
        """Look at an address and its password, unless this client has to wait.

        Returns:
            The user; None where the password is wrong.

        Raises:
            ValidationError: with the seconds to wait.
        """
        address = str(credentials.get("email") or credentials.get("username") or "")
        tries = Tries(address, self.get_client_ip(request))
        wait = tries.wait_s()
        if wait > 0:
            seconds = ceil(wait)
            raise ValidationError(
                f"Too many attempts from this network. Wait {seconds} s, then try again.",
                code="too_many_login_attempts",
            )
        user: AbstractBaseUser | None = super().authenticate(request, **credentials)
        if user is not None:
            tries.right()
        else:
            tries.wrong()
            self._remember_wrong(address)
        return user

    def _remember_wrong(self, address: str) -> None:
        known = User.objects.filter(email__iexact=address.strip()).first()
        if known is None:
            return
        record_account(known, "sign-in", refused=True)
        hour = timezone.now() - timedelta(hours=1)
        if known.audit.filter(action="sign-in", refused=True, at__gte=hour).count() == _NOTICE_AFTER:
            self.send_notification_mail("account/email/many_tries", known, {"tries": _NOTICE_AFTER})

    def get_client_ip(self, request: HttpRequest) -> str:
        """Where a request comes from; one that has not passed all the proxies that are trusted speaks for itself."""
        with suppress(ImproperlyConfigured):
            return str(super().get_client_ip(request))
        return str(request.META.get("REMOTE_ADDR", ""))

    def send_account_already_exists_mail(self, email: str) -> None:
        """Write to somebody whose address was signed up once more, after the work that a new address takes.

        Without it the time of the answer tells who has an account.
        """
        _sign_up_and_forget()
        super().send_account_already_exists_mail(email)

    def pre_authenticate(self, request: HttpRequest, **credentials: Any) -> None:
        """Nothing: the library's own count would let a stranger lock an address."""

    def format_email_subject(self, subject: str) -> str:
        """Return a subject as it is: whom it is from stands beside it."""
        return subject

    def send_mail(self, template_prefix: str, email: str, context: dict[str, Any]) -> None:
        """Write a letter under the name of the house."""
        super().send_mail(template_prefix, email, {**context, "house": NAME})


class _ForgottenError(Exception):
    """Ends a transaction whose work is not wanted."""


def _sign_up_and_forget() -> None:
    """Do what a new address costs (a hashed password, a person, a kitchen), and take it back."""
    name = get_random_string(24)
    with suppress(_ForgottenError), transaction.atomic():
        user = User(username=name, email=f"{name}@nobody.invalid")
        user.set_password(name)
        user.save()
        EmailAddress.objects.create(user=user, email=user.email, primary=True)
        open_kitchen(user, name)
        raise _ForgottenError
