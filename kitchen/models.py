"""What is remembered. Every row belongs to a kitchen; versions are only ever added."""

from django.contrib.auth.models import User
from django.contrib.postgres.fields import ArrayField
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
    currency = models.CharField(max_length=3, default="USD")  # ISO 4217
    coconut_is_nut = models.BooleanField(default=False)
    xanthan_is_grain = models.BooleanField(default=False)
    pans = models.JSONField(default=list, blank=True)  # own pans and trays
    # Counts every change of choices, packs and eaters, so that what was computed from them is known to be old.
    revision = models.PositiveIntegerField(default=1)
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

    class Meta:
        # Which drafts use a pack is asked whenever the pack changes.
        indexes = [GinIndex(OpClass("document", name="jsonb_path_ops"), name="draft_holds")]

    def __str__(self) -> str:
        return f"draft of {self.formula}"


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


class Bake(models.Model):
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

    bake = models.ForeignKey(Bake, on_delete=models.CASCADE, related_name="picks")
    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="picks")
    line = models.CharField(max_length=40)
    grams = models.FloatField()

    def __str__(self) -> str:
        return f"{self.grams:g} g of {self.lot}"


class StockMove(models.Model):
    """A change of what is on hand. Only ever added."""

    class Kind(models.TextChoices):
        """Why."""

        RECEIVED = "received", "received"
        COUNTED = "counted", "counted"
        USED = "used", "used"

    lot = models.ForeignKey(Lot, on_delete=models.CASCADE, related_name="moves")
    kind = models.CharField(max_length=10, choices=Kind)
    grams = models.FloatField()  # change of what is on hand
    bake = models.ForeignKey(Bake, null=True, on_delete=models.SET_NULL, related_name="moves")
    user = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self) -> str:
        return f"{self.kind} {self.grams:g} g"


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


class PackImport(models.Model):
    """A file of products on its way into the pantry: read, matched, checked in the background, kept at once."""

    class State(models.TextChoices):
        """Where it stands."""

        MATCHING = "matching", "columns to be matched"
        CHECKING = "checking", "being checked"
        CHECKED = "checked", "checked"
        SAVING = "saving", "being kept"
        SAVED = "saved", "kept"
        STOPPED = "stopped", "stopped"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="pack_imports")
    file_name = models.CharField(max_length=200)
    kind = models.CharField(max_length=4)
    text = models.TextField()
    fields = models.JSONField(default=list)  # one a column
    style = models.CharField(max_length=2, blank=True, default="")
    per_100 = models.BooleanField(default=True)
    state = models.CharField(max_length=10, choices=State, default=State.MATCHING)
    total = models.PositiveIntegerField(default=0)
    done = models.PositiveIntegerField(default=0)
    good = models.PositiveIntegerField(default=0)
    odd = models.PositiveIntegerField(default=0)  # good rows whose label does not make sense
    bad = models.JSONField(default=list)  # rows that cannot be read, by number
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.file_name


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


class Oven(models.Model):
    """A real oven of the kitchen. What is known of it is learned from its logged bakes."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="ovens")
    key = models.CharField(max_length=40)  # what documents name it by
    name = models.CharField(max_length=80)
    altitude_m = models.FloatField(default=0.0)
    archived = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["kitchen", "key"], name="oven_key_once_a_kitchen")]

    def __str__(self) -> str:
        return self.name


class OvenBake(models.Model):
    """One bake as it was logged, and what it says of the oven's offset. Never changed, only taken back."""

    oven = models.ForeignKey(Oven, on_delete=models.CASCADE, related_name="bakes")
    formula_name = models.CharField(max_length=120)
    minutes = models.FloatField(null=True)
    before_g = models.FloatField(null=True)
    after_g = models.FloatField(null=True)
    probe_c = models.FloatField(null=True)
    readings = models.JSONField(default=list)  # [offset, sd] pairs, kelvin
    logged_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    logged_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-logged_at", "-pk"]

    def __str__(self) -> str:
        return f"{self.formula_name} in {self.oven_id}"


class OvenMap(models.Model):
    """Temperature times thickness of one bake, computed in the background."""

    class State(models.TextChoices):
        """Where it stands."""

        WAITING = "waiting", "waiting"
        RUNNING = "running", "being baked"
        DONE = "done", "done"
        STOPPED = "stopped", "stopped"

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="oven_maps")
    document = models.JSONField()
    minutes = models.FloatField()
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    total = models.PositiveIntegerField(default=0)
    done = models.PositiveIntegerField(default=0)
    result = models.JSONField(null=True)
    created_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return f"map {self.pk}"
