"""Wrong passwords make the next try wait: longer each time, and only for the client that gave them.

A stranger who guesses makes nobody else wait: what is counted belongs to a client, alone and with the address it tried. Guesses
from very many clients are met by the length of passwords, by the second factor, and by a letter to the person.
"""

from dataclasses import dataclass
from datetime import timedelta
from hashlib import sha256

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from kitchen.models import SignInTries

FORGOTTEN_AFTER = timedelta(hours=1)
LONGEST_S = 60.0
# How many tries are free: of one address, and of all addresses together (an office behind one client).
FREE_OF_ONE, FREE_OF_ALL = 5, 25


@dataclass(frozen=True)
class Tries:
    """The tries of one client at one address."""

    address: str
    client: str

    def wait_s(self) -> float:
        """Seconds until the next try is heard; 0 now. A try that is heard counts until it proves right."""
        now = timezone.now()
        with transaction.atomic():
            rows = {key: self._row(key) for key in self._keys()}
            waits = [
                pause_s(row.count, free) - (now - row.last_at).total_seconds()
                for row, free in zip(rows.values(), (FREE_OF_ONE, FREE_OF_ALL), strict=True)
                if row.count >= free
            ]
            if max(waits, default=0.0) > 0:
                return max(waits)
            SignInTries.objects.filter(key__in=rows).update(count=F("count") + 1, last_at=now)
        return 0.0

    def right(self) -> None:
        """The password was right: what was counted of this address is forgotten, of all others only this try."""
        one, every = self._keys()
        SignInTries.objects.filter(key=one).delete()
        SignInTries.objects.filter(key=every, count__gt=0).update(count=F("count") - 1)

    def _keys(self) -> tuple[str, str]:
        one = f"{self.address.strip().lower()}\n{self.client}"
        return sha256(one.encode()).hexdigest(), sha256(self.client.encode()).hexdigest()

    @staticmethod
    def _row(key: str) -> SignInTries:
        row, _ = SignInTries.objects.get_or_create(key=key, defaults={"last_at": timezone.now()})
        row = SignInTries.objects.select_for_update().get(pk=row.pk)
        if timezone.now() - row.last_at > FORGOTTEN_AFTER:
            row.count = 0
            row.save(update_fields=["count"])
        return row


def pause_s(count: int, free: int) -> float:
    """Seconds to wait after so many wrong tries: none, then one, then twice as long each time."""
    return 0.0 if count < free else min(2.0 ** min(count - free, 10), LONGEST_S)


def forget_old_tries() -> int:
    """Drop what is too old to count; returns how many."""
    return SignInTries.objects.filter(last_at__lt=timezone.now() - FORGOTTEN_AFTER).delete()[0]
