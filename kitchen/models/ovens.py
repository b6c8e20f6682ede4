"""Ovens and the bakes that were logged in them."""

from django.contrib.auth.models import User
from django.db import models

from kitchen.models.kitchens import Kitchen


class Oven(models.Model):
    """A real oven of the kitchen. What is known of it is learned from its logged bakes."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="ovens")
    key = models.CharField(max_length=40)  # what documents name it by
    name = models.CharField(max_length=80)
    altitude_m = models.FloatField(default=0.0)
    archived = models.BooleanField(default=False)
    # What its bakes have taught, as the core's profile: always worked out anew from their readings, never edited.
    learned = models.JSONField(default=dict, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["kitchen", "key"], name="oven_key_once_a_kitchen")]

    def __str__(self) -> str:
        return self.name


class LoggedBake(models.Model):
    """The readings of one bake that was not logged step by step. Never changed, only deleted."""

    oven = models.ForeignKey(Oven, on_delete=models.CASCADE, related_name="bakes")
    formula_name = models.CharField(max_length=120)
    minutes = models.FloatField(null=True)
    before_g = models.FloatField(null=True)
    after_g = models.FloatField(null=True)
    probe_c = models.FloatField(null=True)
    # The formula as it was baked; none in what an earlier release kept.
    document = models.JSONField(null=True, blank=True)
    # What such an earlier release made of it: [offset, sd] pairs, kelvin.
    readings = models.JSONField(default=list, blank=True)
    logged_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    logged_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-logged_at", "-pk"]

    def __str__(self) -> str:
        return f"{self.formula_name} in {self.oven_id}"
