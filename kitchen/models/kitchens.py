"""Kitchens, the people in them, their eaters, and who did what."""

from django.contrib.auth.models import User
from django.db import models


class Kitchen(models.Model):
    """A workspace that owns formulas; people belong to it with a role."""

    class Spoons(models.TextChoices):
        """Which cup and spoons a typed volume means."""

        US = "us", "US cup and spoons"
        METRIC = "metric", "metric, 250 mL cup"
        AUSTRALIAN = "australian", "Australian, 20 mL tablespoon"

    class EggScheme(models.TextChoices):
        """Whose egg sizes."""

        US = "us", "US (large 50 g)"
        EU = "eu", "EU (L 60 g)"

    class Convention(models.TextChoices):
        """Which net-carb convention the brackets use."""

        US = "us", "US"
        EU = "eu", "EU"
        TOTAL = "total", "total carbohydrate"

    class PolyolRule(models.TextChoices):
        """How other polyols count."""

        HALF = "half", "half of other polyols"
        ENERGY = "energy", "1 − kcal/4 of each"

    class Units(models.TextChoices):
        """What the page shows."""

        METRIC = "metric", "g · °C · mm"
        US = "us", "oz · °F · in"

    class Devices(models.TextChoices):
        """Which scale and thermometers a kitchen reads."""

        NONE = "", "none"
        HERE = "here", "those at this server"
        SIMULATED = "simulated", "simulated ones, to try it out"

    # Fields that are the core's settings of the same name.
    SETTINGS = (
        "spoons", "egg_scheme", "convention", "polyol_rule", "units", "currency", "coconut_is_nut", "xanthan_is_grain", "low_salt",
    )  # fmt: skip

    name = models.CharField(max_length=80)
    spoons = models.CharField(max_length=12, choices=Spoons, default=Spoons.US)
    egg_scheme = models.CharField(max_length=4, choices=EggScheme, default=EggScheme.US)
    convention = models.CharField(max_length=8, choices=Convention, default=Convention.US)
    polyol_rule = models.CharField(max_length=8, choices=PolyolRule, default=PolyolRule.HALF)
    units = models.CharField(max_length=8, choices=Units, default=Units.METRIC)
    currency = models.CharField(max_length=3, default="USD")  # ISO 4217
    coconut_is_nut = models.BooleanField(default=False)
    xanthan_is_grain = models.BooleanField(default=False)
    low_salt = models.BooleanField(default=False)
    devices = models.CharField(max_length=10, choices=Devices, default=Devices.NONE, blank=True)
    pans = models.JSONField(default=list, blank=True)  # own pans and trays
    # What its runs have taught its forecasts, as the core's lessons: always worked out anew from the runs, never edited.
    lessons = models.JSONField(default=list, blank=True)
    learned_by = models.CharField(max_length=20, blank=True, default="")  # release of the science that learned last
    lessons_off = models.JSONField(default=list, blank=True)  # blocks that its forecasts leave alone
    learns_from = models.DateTimeField(null=True, blank=True)  # runs before it teach nothing any more
    # When it is erased with all that it holds; until then an owner may keep it.
    erased_at = models.DateTimeField(null=True, blank=True)
    # Whose account it ends with, where its end was not announced by itself.
    closed_with = models.ForeignKey(User, null=True, blank=True, on_delete=models.SET_NULL, related_name="+")
    # Counts every change of choices, packs and eaters, so that what was computed from them is known to be old.
    revision = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            # A scale and its thermometers stand in one kitchen.
            models.UniqueConstraint(fields=["devices"], condition=~models.Q(devices=""), name="devices_of_one_kitchen"),
        ]

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


class Eater(models.Model):
    """Somebody's daily budgets."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="eaters")
    name = models.CharField(max_length=40)
    budgets = models.JSONField(default=dict)  # budget key -> amount a day
    order = models.PositiveSmallIntegerField(default=0)

    class Meta:
        ordering = ["order", "pk"]

    def __str__(self) -> str:
        return self.name


class AuditRow(models.Model):
    """Who did what, when and from where, in a kitchen or, without one, with their account."""

    kitchen = models.ForeignKey(Kitchen, null=True, on_delete=models.CASCADE, related_name="audit")
    user = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="audit")
    action = models.CharField(max_length=40)
    formula = models.ForeignKey("kitchen.Formula", null=True, on_delete=models.SET_NULL, related_name="+")
    detail = models.JSONField(default=dict)
    place = models.CharField(
        max_length=45, blank=True
    )  # the client's network address; "" for what the house does itself
    refused = models.BooleanField(default=False)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [
            models.Index(fields=["kitchen", "-at"], name="history_of_a_kitchen"),
            models.Index(fields=["user", "-at"], name="history_of_a_person"),
        ]

    def __str__(self) -> str:
        return f"{self.action} by {self.user}"
