"""Plans of a day or more, and what was ticked off their shopping lists."""

from django.contrib.auth.models import User
from django.db import models

from kitchen.models.kitchens import Kitchen


class Plan(models.Model):
    """Several bakes with their deadlines, and the last answer of the solver."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="plans")
    name = models.CharField(max_length=120)
    on = models.DateField()  # the day of its first deadline
    document = models.JSONField()  # as the page keeps it: bakes name their formula
    planned = models.JSONField(null=True)  # the core's answer
    planned_from = models.JSONField(default=dict, blank=True)  # states of its formulas and ovens when it was planned
    planned_lock = models.PositiveIntegerField(default=0)  # of the document that it answers
    ticked = models.JSONField(default=list)  # ingredients that are in the bag
    reserved = models.JSONField(default=list)  # planned bakes that hold packs for it, by id
    feed = models.CharField(max_length=48, blank=True, default="")  # private address of its calendar; "" for none
    lock = models.PositiveIntegerField(default=1)
    updated_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    touched_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-on", "-pk"]
        indexes = [
            models.Index(fields=["kitchen", "-on", "-id"], name="plans_of_a_kitchen"),
            models.Index(fields=["feed"], name="plan_by_its_feed"),
        ]

    def __str__(self) -> str:
        return f"{self.name} on {self.on}"
