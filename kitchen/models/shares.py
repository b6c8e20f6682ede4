"""Cards that somebody without an account may read."""

from django.contrib.auth.models import User
from django.db import models

from kitchen.models.formulas import Formula
from kitchen.models.kitchens import Kitchen


class Share(models.Model):
    """A read-only card behind an address that nobody guesses; revoked by taking it away."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="shares")
    formula = models.ForeignKey(Formula, on_delete=models.CASCADE, related_name="shares")
    key = models.CharField(max_length=48, unique=True)
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-created_at"]
        constraints = [models.UniqueConstraint(fields=["formula"], name="one_share_a_formula")]

    def __str__(self) -> str:
        return f"{self.formula} shared"
