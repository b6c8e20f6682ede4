"""Runs as they really happened, entry by entry, and what was said of them."""

from django.contrib.auth.models import User
from django.contrib.postgres.fields import ArrayField
from django.db import models

from kitchen.models.formulas import Formula
from kitchen.models.kitchens import Kitchen


class Run(models.Model):
    """One bake: the formula as it was written then, its steps, and its verdict. What was done stands in its entries."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="runs")
    key = models.CharField(max_length=40)  # made by the device that began it, so that beginning twice is beginning once
    formula = models.ForeignKey(Formula, null=True, on_delete=models.SET_NULL, related_name="runs")
    number = models.PositiveIntegerField(default=0)  # version that it is; 0 for a draft that was changed since
    name = models.CharField(max_length=120)
    form = models.CharField(max_length=20)
    document = models.JSONField()
    plan = models.JSONField()  # steps, as the core told them when it began
    batches = models.FloatField(default=1.0)
    oven = models.CharField(max_length=40, blank=True, default="")
    started_at = models.DateTimeField()
    finished_at = models.DateTimeField(null=True, blank=True)
    verdict = models.JSONField(null=True)
    # What was told at once and not as entries: of a run that came from a file.
    told = models.JSONField(default=dict)
    # What lists show and filter by, kept beside the verdict.
    liked = models.CharField(max_length=8, blank=True, default="")
    faults = ArrayField(models.CharField(max_length=20), default=list)
    left_out = models.BooleanField(default=False)  # of all learning
    stock_taken = models.BooleanField(default=False)
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    touched_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-started_at", "-pk"]
        indexes = [
            models.Index(fields=["kitchen", "-started_at", "-id"], name="runs_of_a_kitchen"),
            models.Index(fields=["formula", "-started_at"], name="runs_of_a_formula"),
        ]
        constraints = [models.UniqueConstraint(fields=["kitchen", "key"], name="a_run_is_begun_once")]

    def __str__(self) -> str:
        return f"{self.name} on {self.started_at:%Y-%m-%d}"


class RunEntry(models.Model):
    """One thing that was done. Only ever added: what was wrong is undone by another entry."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="entries")
    key = models.CharField(max_length=60)  # made by the device: sent twice it is kept once
    at = models.DateTimeField()
    kind = models.CharField(max_length=12)
    what = models.CharField(max_length=120, blank=True, default="")
    value = models.FloatField(null=True)
    word = models.TextField(blank=True, default="")
    source = models.CharField(max_length=12, blank=True, default="")  # who or what gave the number
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["run", "key"], name="an_entry_is_kept_once")]

    def __str__(self) -> str:
        return f"{self.kind} {self.what} {self.value if self.value is not None else self.word}"


class RunPhoto(models.Model):
    """A photo of what came out, cut to size and without its metadata, and what it tells of the crust."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="photos")
    jpeg = models.BinaryField()
    lightness = models.FloatField()
    error = models.FloatField()
    evenness = models.FloatField()
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"photo of {self.run_id}"
