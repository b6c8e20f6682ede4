"""What goes in and out of accounts, invitations and what is remembered of them."""

from datetime import datetime

from ninja import Schema

from api.document_schemas import Text
from kitchen.models import AuditRow, Invitation, Membership
from kitchen.services.history import text_of
from kitchen.services.invitations import masked


class InvitationIn(Schema):
    """Whom to ask in, as what."""

    email: Text
    role: Text


class InvitationOut(Schema):
    """Somebody who is asked in and has not come yet."""

    id: int
    email: str
    role: str
    valid_until: datetime

    @classmethod
    def from_service(cls, row: Invitation) -> "InvitationOut":
        """Build an invitation as its owner sees it."""
        return cls(id=row.pk, email=row.email, role=row.role, valid_until=row.valid_until)


class InvitationPreview(Schema):
    """An invitation as whoever has its link sees it."""

    kitchen: str
    role: str
    by: str
    email: str  # as its owner knows it again
    yours: bool  # the person signed in has this address
    signed_in: str  # as whom; "" when nobody is
    valid_until: datetime

    @classmethod
    def from_service(cls, row: Invitation, email: str) -> "InvitationPreview":
        """Build an invitation, seen by a person."""
        return cls(
            kitchen=row.kitchen.name,
            role=row.role,
            by=row.invited_by.email if row.invited_by else "",
            email=masked(row.email),
            yours=email.lower() == row.email,
            signed_in=email,
            valid_until=row.valid_until,
        )


class AcceptedOut(Schema):
    """The kitchen that one has come into."""

    kitchen_id: int

    @classmethod
    def from_service(cls, member: Membership) -> "AcceptedOut":
        """Build a membership that has just begun."""
        return cls(kitchen_id=member.kitchen_id)


class HistoryRow(Schema):
    """One thing that happened."""

    id: int
    at: datetime
    who: str
    action: str
    text: str
    place: str  # network address
    refused: bool

    @classmethod
    def from_service(cls, row: AuditRow) -> "HistoryRow":
        """Build a row of the history."""
        return cls(
            id=row.pk,
            at=row.at,
            who=row.user.email if row.user else "",
            action=row.action,
            text=text_of(row),
            place=row.place,
            refused=row.refused,
        )


class HistoryOut(Schema):
    """A page of what happened, newest first, and where the next one begins (0: there is none)."""

    rows: list[HistoryRow]
    before: int

    @classmethod
    def from_service(cls, rows: list[AuditRow], most: int) -> "HistoryOut":
        """Build a page."""
        return cls(rows=[HistoryRow.from_service(row) for row in rows], before=rows[-1].pk if len(rows) == most else 0)


class AccountClosingIn(Schema):
    """Whether the account is to end, and its password once more."""

    on: bool
    password: Text = ""


class AccountClosingOut(Schema):
    """When the account ends; nothing while it is kept."""

    erased_at: datetime | None


class LetterOut(Schema):
    """A letter in the folder that stands in for a mail server."""

    to: str
    subject: str
    text: str
    at: datetime
