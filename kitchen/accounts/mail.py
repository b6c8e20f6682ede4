"""Letters: written to the database with what they belong to, handed on by the worker, so that no request waits for a mail server.

Without a mail server they are carried to a folder (``MAIL_FOLDER``), which stands in for everybody's letter box and can be looked
at on the page *Outbox*.
"""

from collections.abc import Sequence
from contextlib import suppress
from datetime import datetime, timedelta
from email import message_from_bytes, policy
from email.message import EmailMessage as ParsedMessage
from itertools import count
from pathlib import Path
from time import time_ns

from django.conf import settings
from django.core.mail import EmailMessage, get_connection
from django.core.mail.backends.base import BaseEmailBackend
from django.db import transaction
from django.utils import timezone

from kitchen.models import Letter
from kitchen.queue import defer_letters

MOST_TRIES = 8
RETENTION = timedelta(days=30)
MOST_IN_FOLDER = 200
_count = count()  # letters of one process may be written within one tick of the clock


class Letters(BaseEmailBackend):
    """Django's mail backend: keep the letters and ask the worker to carry them."""

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Keep letters; returns how many."""
        for message in email_messages:
            for to in message.recipients():
                Letter.objects.create(to=to, subject=message.subject[:200], message=message.message().as_bytes())
        transaction.on_commit(defer_letters)
        return len(email_messages)


class Folder(BaseEmailBackend):
    """A mail server's stand-in: each letter a file of its own (RFC 5322, ``.eml``), named so that the names sort as they were written."""

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Write letters to ``MAIL_FOLDER``; returns how many. Raises: OSError where it cannot be written to."""
        folder = Path(settings.MAIL_FOLDER)
        folder.mkdir(parents=True, exist_ok=True)
        for message in email_messages:
            file = folder / f"{time_ns():020d}-{next(_count):09d}.eml"
            half = file.with_suffix(".part")
            half.write_bytes(message.message().as_bytes())
            half.rename(file)  # whoever looks into the folder sees whole letters
        return len(email_messages)


class _Written(EmailMessage):
    """A letter that was written before."""

    def __init__(self, letter: Letter) -> None:
        super().__init__(subject=letter.subject, to=[letter.to], from_email=settings.DEFAULT_FROM_EMAIL)
        self._written = message_from_bytes(bytes(letter.message), policy=policy.SMTP)

    def message(self, *, policy: object = None) -> ParsedMessage:  # noqa: ARG002
        return self._written


def carry_letters() -> int:
    """Hand on what waits, oldest first; returns how many were taken. What is refused waits for the next time, at most so often."""
    sent = 0
    for pk in Letter.objects.filter(sent_at=None, tries__lt=MOST_TRIES).order_by("pk").values_list("pk", flat=True):
        with transaction.atomic():
            letter = Letter.objects.select_for_update(skip_locked=True).filter(pk=pk, sent_at=None).first()
            if letter is None:
                continue
            letter.tries += 1
            try:
                get_connection(settings.MAIL_CARRIER).send_messages([_Written(letter)])
            except OSError as error:  # what smtplib raises is one too
                letter.trouble = str(error)[:200]
            else:
                letter.sent_at, letter.message, letter.trouble = timezone.now(), b"", ""
                sent += 1
            letter.save()
    return sent


def forget_old_letters() -> int:
    """Drop what was sent or given up long ago; returns how many."""
    folder = Path(settings.MAIL_FOLDER)
    for file in sorted(folder.glob("*.eml"), reverse=True)[MOST_IN_FOLDER:] if folder.exists() else ():
        with suppress(OSError):
            file.unlink()
    return Letter.objects.filter(written_at__lt=timezone.now() - RETENTION).delete()[0]


def outbox() -> list[dict[str, str | datetime]]:
    """Return what lies in the folder that stands in for a mail server, newest first: to, subject, text, at."""
    folder = Path(settings.MAIL_FOLDER)
    rows = []
    for file in sorted(folder.glob("*.eml"), reverse=True)[:MOST_IN_FOLDER] if folder.exists() else ():
        with suppress(OSError):
            at = datetime.fromtimestamp(file.stat().st_mtime, tz=timezone.get_current_timezone())
            rows.append({**_read(file.read_bytes()), "at": at})
    return rows


def _read(message: bytes) -> dict[str, str | datetime]:
    parsed = message_from_bytes(message, policy=policy.default)
    body = parsed.get_body(("plain",))
    text = body.get_content() if body is not None else ""
    return {"to": str(parsed["To"]), "subject": str(parsed["Subject"]), "text": str(text).strip()}
