"""Invitations into kitchens, letters on their way, wrong passwords, accounts that are to end."""

from django.contrib.auth.models import User
from django.db import models

from kitchen.models.kitchens import Kitchen, Membership


class Invitation(models.Model):
    """A person asked into a kitchen; nobody is in it before they accept."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="invitations")
    email = models.EmailField()  # in small letters
    role = models.CharField(max_length=8, choices=Membership.Role)
    key_hash = models.CharField(max_length=64, unique=True)  # SHA-256 of the key in the letter, which is kept nowhere
    invited_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    invited_at = models.DateTimeField(auto_now_add=True)
    valid_until = models.DateTimeField()

    class Meta:
        ordering = ["-invited_at", "-pk"]
        constraints = [models.UniqueConstraint(fields=["kitchen", "email"], name="one_invitation_an_address")]

    def __str__(self) -> str:
        return f"{self.email} asked into {self.kitchen} as {self.role}"


class Letter(models.Model):
    """A mail that the worker hands on. Its words are forgotten once it is sent: they may hold a code."""

    to = models.EmailField()
    subject = models.CharField(max_length=200)
    message = models.BinaryField()  # RFC 5322, empty once sent
    tries = models.PositiveSmallIntegerField(default=0)
    trouble = models.CharField(max_length=200, blank=True)  # why it was not taken, the last time
    written_at = models.DateTimeField(auto_now_add=True)
    sent_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-written_at", "-pk"]

    def __str__(self) -> str:
        return f"{self.subject} to {self.to}"


class SignInTries(models.Model):
    """Wrong passwords of one client, for one address or for all."""

    key = models.CharField(max_length=64, unique=True)  # a hash: neither address nor client is kept
    count = models.PositiveIntegerField(default=0)
    last_at = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.count} tries"


class Closing(models.Model):
    """An account that its person wants to end, and may keep until its day has come."""

    user = models.OneToOneField(User, on_delete=models.CASCADE, related_name="closing")
    asked_at = models.DateTimeField(auto_now_add=True)
    erased_at = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.user} ends on {self.erased_at:%Y-%m-%d}"
