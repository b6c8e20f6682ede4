"""What is remembered. Every row belongs to a kitchen; versions are only ever added."""

from django.contrib.auth.models import User
from django.contrib.postgres.indexes import GinIndex, OpClass
from django.db import models
from django.db.models.functions import Upper


class Kitchen(models.Model):
    """A workspace that owns formulas; people belong to it with a role."""

    class Spoons(models.TextChoices):
        """Which cup and spoons a typed volume means."""

        US = "us", "US cup and spoons"
        METRIC = "metric", "250 mL cup, metric spoons"
        AUSTRALIAN = "australian", "250 mL cup, 20 mL tablespoon"

    class EggScheme(models.TextChoices):
        """Whose egg sizes."""

        US = "us", "US"
        EU = "eu", "EU"

    class Convention(models.TextChoices):
        """Which net-carb convention the brackets use."""

        US = "us", "US"
        EU = "eu", "EU"
        TOTAL = "total", "total carbohydrate"

    class PolyolRule(models.TextChoices):
        """How other polyols count."""

        HALF = "half", "half of other polyols"
        ENERGY = "energy", "1 - kcal/4 of each"

    class Units(models.TextChoices):
        """What the page shows."""

        METRIC = "metric", "g · °C · mm"
        US = "us", "oz · °F · in"

    name = models.CharField(max_length=80)
    spoons = models.CharField(max_length=12, choices=Spoons, default=Spoons.US)
    egg_scheme = models.CharField(max_length=4, choices=EggScheme, default=EggScheme.US)
    convention = models.CharField(max_length=8, choices=Convention, default=Convention.US)
    polyol_rule = models.CharField(max_length=8, choices=PolyolRule, default=PolyolRule.HALF)
    units = models.CharField(max_length=8, choices=Units, default=Units.METRIC)
    created_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """A person in a kitchen."""

    class Role(models.TextChoices):
        """What they may do."""

        OWNER = "owner", "owner"
        BAKER = "baker", "baker"
        VIEWER = "viewer", "viewer"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="memberships")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=8, choices=Role, default=Role.BAKER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["kitchen", "user"], name="one_membership_a_person")]

    def __str__(self) -> str:
        return f"{self.user} in {self.kitchen} as {self.role}"


class Formula(models.Model):
    """A formula on the shelf: its name, and a small summary for the list."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="formulas")
    name = models.CharField(max_length=120)
    form = models.CharField(max_length=20)
    card = models.JSONField(default=dict)  # what the shelf draws: strata, net carbs, protein
    card_mark = models.CharField(max_length=40, default="")  # state of the science that made the card
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
    updated_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    updated_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"draft of {self.formula}"


class AuditRow(models.Model):
    """Who did what, when."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="audit")
    user = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    action = models.CharField(max_length=40)
    formula = models.ForeignKey(Formula, null=True, on_delete=models.SET_NULL, related_name="+")
    detail = models.JSONField(default=dict)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at"]

    def __str__(self) -> str:
        return f"{self.action} by {self.user}"
