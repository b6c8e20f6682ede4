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
FREE_PER_CLIENT, FREE_PER_ADDRESS = 5, 25


@dataclass(frozen=True)
class Tries:
    """The tries of one client at one address."""

    address: str
    client: str

    def wait_s(self) -> float:
        """Seconds until the next try is heard; 0 now. Once tries are no longer free, one is heard at a time."""
        now = timezone.now()
        with transaction.atomic():
            rows = [
                (row, pause_s(row.count, free))
                for row, free in zip(self._rows(), (FREE_PER_CLIENT, FREE_PER_ADDRESS), strict=True)
                if row.count >= free
            ]
            wait = max((pause - (now - row.last_at).total_seconds() for row, pause in rows), default=0.0)
            if wait <= 0:
                SignInTries.objects.filter(pk__in=[row.pk for row, _ in rows]).update(last_at=now)
        return max(wait, 0.0)

    def wrong(self) -> None:
        """Count a wrong password, for this address and for all."""
        with transaction.atomic():
            keys = [row.key for row in self._rows()]
            SignInTries.objects.filter(key__in=keys).update(count=F("count") + 1, last_at=timezone.now())

    def right(self) -> None:
        """Clear the count of this address after a right password."""
        # Not taken away: somebody who signs in at the same moment may be waiting for the row.
        SignInTries.objects.filter(key=self._keys()[0]).update(count=0)

    def _keys(self) -> tuple[str, str]:
        pair = f"{self.address.strip().lower()}\n{self.client}"
        return sha256(pair.encode()).hexdigest(), sha256(self.client.encode()).hexdigest()

    def _rows(self) -> list[SignInTries]:
        """Both counts, locked, in the order of their keys; what is too old to count is none."""
        now = timezone.now()
        keys = self._keys()
        fresh = [SignInTries(key=key, last_at=now) for key in keys]
        SignInTries.objects.bulk_create(fresh, ignore_conflicts=True)
        rows = SignInTries.objects.select_for_update().filter(key__in=keys).order_by("pk").in_bulk(field_name="key")
        for row in rows.values():
            if now - row.last_at > FORGOTTEN_AFTER:
                row.count = 0
                row.save(update_fields=["count"])
        # One that was forgotten in this very moment counts as a new one.
        return [rows.get(row.key, row) for row in fresh]


def pause_s(count: int, free: int) -> float:
    """Seconds to wait after so many wrong tries: none, then one, then twice as long each time."""
    return 0.0 if count < free else min(2.0 ** min(count - free, 10), LONGEST_S)


def forget_old_tries() -> int:
    """Drop what is too old to count; returns how many."""
    return SignInTries.objects.filter(last_at__lt=timezone.now() - FORGOTTEN_AFTER).delete()[0]
