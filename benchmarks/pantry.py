"""A pantry of 10,000 packs: wanted 100 ms a search, and an import of as many as a background job."""

import os
from time import perf_counter

import django

from kitchen.services.access import membership

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from django.db import transaction  # noqa: E402

from benchmarks.spread import line, timed  # noqa: E402
from kitchen.models import Lot  # noqa: E402
from kitchen.services import imports, pantry  # noqa: E402
from kitchen.services.jobs import Progress  # noqa: E402
from kitchen.services.kitchens import open_kitchen  # noqa: E402
from kitchen.services.pantry import PantryQuery  # noqa: E402

ROWS = 10_000
KINDS = (
    "blanched almond flour",
    "coconut flour",
    "psyllium husk powder",
    "salted butter",
    "cheddar",
    "golden flax meal",
    "tapioca starch",
)
HEAD = "name,serving size,calories,total fat (g),total carbohydrate (g),dietary fiber (g),protein (g),price,pack size\n"


def measure():
    from django.contrib.auth.models import User

    user = User.objects.create_user("bench", "bench@kitchen.test", "x")
    kitchen = open_kitchen(user, "Bench").kitchen
    text = HEAD + "".join(f"Brand {n} {KINDS[n % len(KINDS)]},28 g,160,14,6,3,6,8.9,454 g\n" for n in range(ROWS))
    result = imports.start_import(membership(user, kitchen.pk), "many.csv", text)
    for step, begin, run in (
        ("check", imports.start_check, imports.run_check),
        ("save", imports.start_save, imports.run_save),
    ):
        start = perf_counter()
        job = begin(user, kitchen.pk, result.pk)
        run(job, Progress(job))
        print(f"import of {ROWS} packs, {step:5}        {perf_counter() - start:6.1f} s")
    print(f"packs kept                        {Lot.objects.filter(kitchen=kitchen).count()}")
    for word in ("almond", "brand 7", "xyz", ""):
        seen = timed(lambda word=word: pantry.find(membership(user, kitchen.pk), PantryQuery(search=word)), 30)
        print(line(f"pantry of {ROWS}, “{word}”", seen, 100.0))


if __name__ == "__main__":
    with transaction.atomic():
        measure()
        transaction.set_rollback(True)  # leave the database as it was
