"""Formulas with their versions and drafts."""

from django.contrib.auth.models import User
from django.contrib.postgres.indexes import GinIndex, OpClass
from django.db import models
from django.db.models.functions import Upper

from kitchen.models.kitchens import Kitchen


class Formula(models.Model):
    """A formula on the shelf: its name, and a small summary for the list."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="formulas")
    name = models.CharField(max_length=120)
    form = models.CharField(max_length=20)
    thumb = models.JSONField(default=dict)  # what the shelf draws: strata, net carbs, protein
    thumb_mark = models.CharField(max_length=40, default="")  # state of the science that made the thumb
    forked_from = models.ForeignKey("self", null=True, blank=True, on_delete=models.SET_NULL, related_name="forks")
    archived_at = models.DateTimeField(null=True, blank=True)
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    touched_at = models.DateTimeField()

    class Meta:
        indexes = [
            models.Index(fields=["kitchen", "-touched_at"], name="shelf_order"),
            # ILIKE over names of any length stays fast through trigrams of their upper case.
            GinIndex(OpClass(Upper("name"), name="gin_trgm_ops"), name="formula_name_letters"),
        ]

    def __str__(self) -> str:
        return self.name


class FormulaVersion(models.Model):
    """A version of a formula. Never changed, never removed while its formula lives."""

    formula = models.ForeignKey(Formula, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    note = models.CharField(max_length=500, blank=True)
    changes = models.JSONField(default=list)  # in words, from the version before
    author = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField()

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["formula", "number"], name="one_version_a_number")]

    def __str__(self) -> str:
        return f"{self.formula} v{self.number}"


class Draft(models.Model):
    """What is being edited; saves itself under an optimistic lock."""

    formula = models.OneToOneField(Formula, on_delete=models.CASCADE, related_name="draft")
    document = models.JSONField()
    lock = models.PositiveIntegerField(default=1)
    base_number = models.PositiveIntegerField(default=0)  # version it was edited from; 0 when there is none
    changed = models.BooleanField(default=True)  # differs from that version
    page = models.CharField(max_length=40, blank=True)  # the open page that saved it last
    updated_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        # Which drafts use a pack is asked whenever the pack changes.
        indexes = [GinIndex(OpClass("document", name="jsonb_path_ops"), name="draft_holds")]

    def __str__(self) -> str:
        return f"draft of {self.formula}"
