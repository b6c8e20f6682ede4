"""Who an e-mail address stands for."""

from django.contrib.auth.models import User

from kitchen.errors import Refused


def person_at(address: str) -> User:
    """The one person who signs in with an address.

    Raises:
        Refused: when nobody does, or when it cannot be told whose it is: a kitchen is never given to the first of several.
    """
    row = list(User.objects.filter(email__iexact=address.strip(), is_active=True)[:2]) if address.strip() else []
    if len(row) > 1:
        raise Refused(
            "more than one account uses this address",
            got=address[:80],
            allowed="an address of one account",
            remedy="ask them for another address",
            field="email",
        )
    if not row:
        raise Refused(
            "nobody has signed up with this address",
            got=address[:80],
            remedy="ask them to sign up first",
            field="email",
        )
    return row[0]
