"""Load and remove the demo kitchen. Everything in it is invented."""

import json
from datetime import date, datetime, timedelta
from importlib.resources import files
from typing import Any

from allauth.account.models import EmailAddress
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from kitchen.demo.runs import load_runs
from kitchen.models import Draft, Eater, Formula, FormulaVersion, Job, Kitchen, Membership
from kitchen.services.access import membership
from kitchen.services.formulas import create_formula, save_version
from kitchen.services.jobs import run_job
from kitchen.services.judging import core_settings, library_of, shelf_thumb, thumb_mark
from kitchen.services.oven_readings import BakeReadings, log_bake
from kitchen.services.ovens import add_oven
from kitchen.services.packs import create_lot
from kitchen.services.pans import set_pans
from kitchen.services.parts import part_of
from kitchen.services.plans import create_plan, start_plan
from kitchen.services.stock import plan_bake
from kitchen.services.trials import LEARN
from substrata import load_library, read_document, write_document
from substrata.formula import Line, differences, weigh_line

DEMO_NAME = "The Saturday stall"
BAKER, PARTNER = "baker@example.com", "partner@example.com"
EATERS = (
    ("Strict day", {"net_carbs": 20.0, "cheese": 113.0, "sodium": 2300.0}),
    ("Easy day", {"net_carbs": 50.0, "saturates": 30.0, "energy": 2000.0}),
)
DEMO_PASSWORD = "rye-free-and-easy"  # noqa: S105 - printed by ./start, for the demo on loopback only


def demo_formulas() -> list[dict[str, Any]]:
    """Return the shipped formulas with their versions."""
    text = files("kitchen.demo").joinpath("formulas.json").read_text(encoding="utf8")
    row: list[dict[str, Any]] = json.loads(text)
    return row


def demo_packs() -> list[dict[str, Any]]:
    """Return the shipped packs; days are counted from today."""
    text = files("kitchen.demo").joinpath("packs.json").read_text(encoding="utf8")
    row: list[dict[str, Any]] = json.loads(text)
    return row


def demo_document(
    formula: dict[str, Any], version: dict[str, Any], kitchen: Kitchen, packs: dict[str, str] | None = None
) -> dict[str, Any]:
    """Return a version of a demo formula as a document, weighed by the kitchen's own measures.

    Args:
        formula: its entry.
        version: one of its versions.
        kitchen: whose measures.
        packs: ingredient -> key of the pack that its lines are taken from.
    """
    library, settings = load_library(), core_settings(kitchen)
    lines = []
    counts: dict[str, int] = {}
    for ingredient, entered, *more in version["lines"]:
        counts[ingredient] = counts.get(ingredient, 0) + 1
        key = ingredient if counts[ingredient] == 1 else f"{ingredient}-{counts[ingredient]}"
        grams = weigh_line(Line(id=key, ingredient=ingredient, entered=entered), library, settings).grams.value
        lines.append(
            {
                "id": key,
                "ingredient": ingredient,
                "lot": (packs or {}).get(ingredient, ""),
                "entered": entered,
                "grams": round(grams, 1),
                **(more[0] if more else {}),
            }
        )
    return write_document(
        read_document(
            {
                "name": formula["name"],
                "notes": formula["notes"],
                "lines": lines,
                "form": {"kind": formula["form"], "pieces": formula["pieces"], "size": formula.get("size", {})},
                "targets": version.get("targets", {}),
                "bake": {"oven": "back-oven", **formula.get("bake", {})},
            }
        )
    )


# What the two saw in their own oven: formula, minutes, share of the weight that was lost (invented).
LOGGED = (("Mustard twists", 13.0, 0.093), ("Lemon shortbread coins", 15.5, 0.061), ("Dark seed loaf", 51.0, 0.108))
KITCHEN_PAN = {"name": "Long grey tray", "kind": "tray", "length_mm": 480, "width_mm": 330, "height_mm": 20}


def _oven(member: Membership, now: datetime) -> None:
    """Create an oven that three bakes have taught, the one every formula is baked in, and a tray."""
    oven = add_oven(member, "Back oven")
    for number, (name, minutes, lost) in enumerate(LOGGED):
        document = member.kitchen.formulas.get(name=name).draft.document
        before = round(sum(line["grams"] for line in document["lines"]), 0)
        readings = BakeReadings(minutes=minutes, before_g=before, after_g=round(before * (1 - lost), 0))
        created = log_bake(member, oven.pk, document, readings)
        type(created).objects.filter(pk=created.pk).update(logged_at=now - timedelta(days=9 - 3 * number))
    set_pans(member, [KITCHEN_PAN])


@transaction.atomic
def load_demo() -> Kitchen:
    """Make the demo kitchen with its two people and their formulas."""
    kitchen = Kitchen.objects.create(name=DEMO_NAME)
    baker, partner = _person(BAKER), _person(PARTNER)
    Membership.objects.create(kitchen=kitchen, user=baker, role=Membership.Role.OWNER)
    Membership.objects.create(kitchen=kitchen, user=partner, role=Membership.Role.BAKER)
    now = timezone.now()
    packs = _packs(membership(baker, kitchen.pk), now.date())
    for number, entry in enumerate(demo_formulas()):
        _formula(kitchen, entry, (baker, partner)[number % 2], now, packs)
    Eater.objects.bulk_create(
        Eater(kitchen=kitchen, order=n, name=name, budgets=b) for n, (name, b) in enumerate(EATERS)
    )
    _in_halves(membership(baker, kitchen.pk))
    _oven(membership(baker, kitchen.pk), now)
    load_runs(kitchen, baker, partner, now)
    # What its bakes teach is known from the first look; what was asked for after each of them is answered by the last.
    learning_job = Job.objects.filter(kitchen=kitchen, kind=LEARN).order_by("-pk")
    Job.objects.filter(pk__in=[job.pk for job in learning_job[1:]]).delete()
    run_job(learning_job[0].pk)
    _market_day(membership(baker, kitchen.pk), now.date())
    flatbread = kitchen.formulas.get(name="Celeriac flatbread")
    plan_bake(membership(baker, kitchen.pk), flatbread.pk, 2, now.date() + timedelta(days=2))
    return kitchen


SAUCE = {
    "name": "Pepper and tomato sauce",
    "form": {"kind": "cracker", "pieces": 1},
    "notes": "Cooked thick: what is wet makes a crust soggy.",
    # A part is no dough: nothing is wanted of it.
    "targets": {"net_carbs": {"low": None, "high": None}, "salt": {"low": None, "high": None}},
    "lines": {"tomato-passata": 260, "bell-pepper": 90, "olive-oil": 18, "salt": 3},
}
HALVES = {
    "name": "Crust in two halves",
    "form": {"kind": "thin-crust", "pieces": 8},
    "notes": "One half for those who like it plain.",
    "lines": {
        "mozzarella": 190,
        "cream-cheese": 35,
        "egg": 50,
        "sunflower-flour": 95,
        "psyllium-powder": 7,
        "baking-powder": 5,
        "salt": 1,
    },
}
TOPPED = {"gouda": 70, "cheddar": 80, "mushroom": 90}  # the first for the plain half
SAUCE_G = 110


def _in_halves(member: Membership) -> None:
    """Create a crust of two varieties whose sauce is a formula of its own (invented)."""

    def written(document: dict[str, Any], *more: dict[str, Any], **other: Any) -> dict[str, Any]:
        lines = [
            {"id": key, "ingredient": key, "grams": grams, "entered": f"{grams} g"}
            for key, grams in document["lines"].items()
        ]
        return write_document(read_document({**document, "lines": [*lines, *more], **other}))

    sauce = create_formula(member, written(SAUCE)).formula
    save_version(member, sauce.pk, 1, "Peppers in, a third less water.")
    part = part_of(member, sauce.pk, 0)
    on_top = [
        {"id": key, "ingredient": key, "grams": grams, "entered": f"{grams} g", "role": "topping"}
        for key, grams in TOPPED.items()
    ]
    line = {
        "id": "sauce",
        "ingredient": "part",
        "grams": SAUCE_G,
        "entered": f"{SAUCE_G} g",
        "role": "topping",
        "part": part.part,
    }
    plain, *laden = TOPPED
    crust = create_formula(
        member,
        written(
            HALVES,
            *on_top,
            line,
            sorts=[
                {"name": "plain", "pieces": 4, "lines": [plain]},
                {"name": "laden", "pieces": 4, "lines": [*laden, "sauce"]},
            ],
            bake={
                "oven": "back-oven",
                "oven_c": 205,
                "stages": [{"kind": "bake", "minutes": 8}, {"kind": "top"}, {"kind": "bake"}],
            },
        ),
    ).formula
    save_version(member, crust.pk, 1, "The laden half stays in longer.")


# What the two bring to the market, with its batches (invented).
MARKET = (
    ("Market rolls, egg-free", 2),
    ("Hazelnut caraway crackers", 1),
    ("Pumpkin tin loaf", 1),
    ("Mustard twists", 1),
    ("Crust in two halves", 1),
)


def _market_day(member: Membership, today: date) -> None:
    """Create the plan of the coming Saturday: five bakes out of one oven."""
    saturday = today + timedelta(days=(5 - today.weekday()) % 7 or 7)
    ids = dict(member.kitchen.formulas.values_list("name", "pk"))
    document = {
        "name": "Saturday market",
        "start": f"{saturday}T05:00",
        "people": 1,
        "ovens": [{"name": "Back oven", "trays": 2}],
        "bakes": [
            {"formula_id": ids[name], "id": str(n), "due": f"{saturday}T14:00", "batches": batches}
            for n, (name, batches) in enumerate(MARKET, 1)
        ],
    }
    plan = create_plan(member, document)
    start_plan(member, plan.pk)


def remove_demo() -> None:
    """Take the demo kitchen and its people away; other kitchens stay."""
    Kitchen.objects.filter(name=DEMO_NAME, memberships__user__email=BAKER).delete()
    User.objects.filter(email__in=(BAKER, PARTNER), memberships__isnull=True).delete()


def _person(email: str) -> User:
    user, created = User.objects.get_or_create(email=email, defaults={"username": email.partition("@")[0] + "-demo"})
    if created:
        user.set_password(DEMO_PASSWORD)
        user.save()
        EmailAddress.objects.create(user=user, email=email, primary=True, verified=True)
    return user


def _packs(member: Membership, today: date) -> dict[str, str]:
    """Fill the pantry; returns the first pack of every ingredient by its key."""
    table: dict[str, str] = {}
    for entry in demo_packs():
        days = {"use_by": entry["use_by_days"], "bought_on": entry["bought_days"] and -entry["bought_days"]}
        dates = {field: (today + timedelta(days=n)).isoformat() for field, n in days.items() if n}
        created = create_lot(member, entry["document"] | dates, entry["on_hand_g"]).lot
        table.setdefault(created.ingredient, created.key)
    return table


def _formula(kitchen: Kitchen, entry: dict[str, Any], author: User, now: datetime, packs: dict[str, str]) -> None:
    """Create a formula with its versions; an entry's "draft" is its unsaved state.

    An entry with "packs" takes its last version and its draft from the packs of the pantry.
    """
    last = len(entry["versions"]) - 1
    used = packs if entry.get("packs") else {}
    documents = [
        demo_document(entry, version, kitchen, used if number == last else None)
        for number, version in enumerate(entry["versions"])
    ]
    edited = demo_document(entry, entry["draft"], kitchen, used) if "draft" in entry else documents[-1]
    touched = now - timedelta(days=entry["versions"][-1]["days"])
    formula = Formula.objects.create(
        kitchen=kitchen,
        name=entry["name"],
        form=entry["form"],
        thumb=shelf_thumb(kitchen, edited),
        thumb_mark=thumb_mark(kitchen),
        created_by=author,
        touched_at=touched,
    )
    previous = None
    for number, (version, document) in enumerate(zip(entry["versions"], documents, strict=True), 1):
        changes: list[str] = []
        if previous:
            settings = core_settings(kitchen)
            library = library_of(kitchen, previous, document)
            changes = [c.text for c in differences(read_document(previous), read_document(document), library, settings)]
        FormulaVersion.objects.create(
            formula=formula,
            number=number,
            document=document,
            note=version["note"],
            changes=changes,
            author=author,
            created_at=now - timedelta(days=version["days"]),
        )
        previous = document
    Draft.objects.create(
        formula=formula, document=edited, base_number=len(documents), changed="draft" in entry, updated_by=author
    )
