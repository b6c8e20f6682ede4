"""A person who signs up finds a kitchen of their own."""

from typing import Any

from allauth.account.signals import user_signed_up
from django.contrib.auth.models import User
from django.dispatch import receiver

from kitchen.services.kitchens import open_kitchen


@receiver(user_signed_up)
def first_kitchen(user: User, **_: Any) -> None:
    """Open a kitchen named after the address."""
    name = user.email.partition("@")[0].replace(".", " ").title() or "My"
    open_kitchen(user, f"{name}'s kitchen"[:80])
