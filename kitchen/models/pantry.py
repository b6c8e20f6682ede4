"""Packs, what is on hand of them, the bakes that will take from them, and files of products."""

from django.contrib.auth.models import User
from django.contrib.postgres.fields import ArrayField
from django.contrib.postgres.indexes import GinIndex, OpClass
from django.db import models
from django.db.models.functions import Upper

from kitchen.models.formulas import Formula
from kitchen.models.jobs import Job
from kitchen.models.kitchens import Kitchen


class Lot(models.Model):
    """A bought pack. Its document is the open pack format; the columns beside it are for finding it."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="lots")
    key = models.CharField(max_length=32, unique=True)
    ingredient = models.CharField(max_length=60)
    name = models.CharField(max_length=120)
    role = models.CharField(max_length=12)
    flags = ArrayField(models.CharField(max_length=20), default=list)  # of the ingredient and the pack together
    document = models.JSONField()
    trouble = models.CharField(max_length=8, blank=True, default="")  # worst finding of the label check
    on_hand_g = models.FloatField(default=0.0)
    use_by = models.DateField(null=True, blank=True)
    bought_on = models.DateField(null=True, blank=True)
    lock = models.PositiveIntegerField(default=1)
    archived_at = models.DateTimeField(null=True, blank=True)
    updated_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    touched_at = models.DateTimeField()

    class Meta:
        indexes = [
            models.Index(fields=["kitchen", "-touched_at", "-id"], name="pantry_order"),
            models.Index(fields=["kitchen", "ingredient"], name="packs_of_an_ingredient"),
            GinIndex(OpClass(Upper("name"), name="gin_trgm_ops"), name="lot_name_letters"),
        ]

    def __str__(self) -> str:
        return self.name


class PlannedBake(models.Model):
    """A bake that is planned or done: what it takes out of which packs."""

    class State(models.TextChoices):
        """Where it stands."""

        PLANNED = "planned", "planned"
        DONE = "done", "done"
        CANCELLED = "cancelled", "cancelled"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="bakes")
    formula = models.ForeignKey(Formula, null=True, on_delete=models.SET_NULL, related_name="bakes")
    name = models.CharField(max_length=120)  # of the formula as it was then
    batches = models.FloatField()
    on = models.DateField()
    state = models.CharField(max_length=10, choices=State, default=State.PLANNED)
    shortages = models.JSONField(default=list)  # what no pack held when it was planned
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["kitchen", "state", "on"], name="bakes_to_come")]

    def __str__(self) -> str:
        return f"{self.name} on {self.on}"


class BakePick(models.Model):
    """Grams that a bake takes out of one pack."""

    bake = models.ForeignKey(PlannedBake, on_delete=models.CASCADE, related_name="picks")
    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="picks")
    line = models.CharField(max_length=40)
    grams = models.FloatField()

    def __str__(self) -> str:
        return f"{self.grams:g} g of {self.lot}"


class StockMove(models.Model):
    """A change of what is on hand. Only ever added."""

    class Kind(models.TextChoices):
        """What changed the amount on hand."""

        RECEIVED = "received", "received"
        COUNTED = "counted", "counted"
        USED = "used", "used"

    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="moves")
    kind = models.CharField(max_length=10, choices=Kind)
    grams = models.FloatField()  # change of what is on hand
    bake = models.ForeignKey(PlannedBake, null=True, on_delete=models.SET_NULL, related_name="moves")
    user = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.kind} {self.grams:g} g"


class PackImport(models.Model):
    """A file of products on its way into the pantry: its columns are matched, then jobs check its rows and put them away."""

    class State(models.TextChoices):
        """Where it stands between two jobs."""

        MATCHING = "matching", "columns to be matched"
        CHECKED = "checked", "checked"
        SAVED = "saved", "saved"
        STOPPED = "stopped", "stopped"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="pack_imports")
    file_name = models.CharField(max_length=200)
    kind = models.CharField(max_length=4)
    text = models.TextField()
    fields = models.JSONField(default=list)  # one a column
    style = models.CharField(max_length=2, blank=True, default="")
    per_100 = models.BooleanField(default=True)
    state = models.CharField(max_length=10, choices=State, default=State.MATCHING)
    job = models.ForeignKey(Job, null=True, on_delete=models.SET_NULL, related_name="+")  # the last one
    total = models.PositiveIntegerField(default=0)
    good = models.PositiveIntegerField(default=0)
    odd = models.PositiveIntegerField(default=0)  # good rows whose label does not make sense
    bad = models.JSONField(default=list)  # rows that cannot be read, by number
    troubles = models.JSONField(default=dict)  # of every row that is not plainly good: odd, wrong or bad, by number
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.file_name
