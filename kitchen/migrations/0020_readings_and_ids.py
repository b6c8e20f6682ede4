"""Stable ids of formulas, readings in place of computed offsets, and kitchens that a wrong reading had broken."""

from math import isfinite
from uuid import uuid4

from django.db import migrations


def give_ids(apps, schema_editor):
    """Each formula's draft, versions and bakes carry one id, by which its lessons know it whatever it is called."""
    for formula in apps.get_model("kitchen", "Formula").objects.iterator():
        uid = uuid4().hex
        for name, key in (("Draft", "formula"), ("FormulaVersion", "formula"), ("Run", "formula")):
            rows = apps.get_model("kitchen", name).objects.filter(**{key: formula})
            for row in rows.iterator():
                if not row.document.get("uid"):
                    row.document["uid"] = uid
                    row.save(update_fields=["document"])


def keep_readings(apps, schema_editor):
    """What runs said of their ovens is learned from the runs; what cannot be a reading is healed or taken away."""
    logged = apps.get_model("kitchen", "LoggedBake").objects
    logged.exclude(run=None).delete()
    for row in logged.iterator():
        row.readings = [
            [min(max(float(offset), -60.0), 60.0), min(max(float(sd), 1.0), 60.0)]
            for offset, sd in (pair for pair in row.readings if isinstance(pair, list) and len(pair) == 2)
            if type(offset) in (int, float) and type(sd) in (int, float) and isfinite(offset) and isfinite(sd)
        ]
        row.save(update_fields=["readings"])
    for oven in apps.get_model("kitchen", "Oven").objects.iterator():
        if not (isfinite(oven.altitude_m) and -400 <= oven.altitude_m <= 5000):
            oven.altitude_m = 0.0
            oven.save(update_fields=["altitude_m"])


class Migration(migrations.Migration):
    dependencies = [("kitchen", "0019_one_oven")]
    operations = [
        migrations.RunPython(give_ids, migrations.RunPython.noop),
        migrations.RunPython(keep_readings, migrations.RunPython.noop),
    ]
