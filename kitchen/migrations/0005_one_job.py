from datetime import timedelta

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models
from django.utils import timezone

STATES = [("waiting", "waiting"), ("running", "running"), ("done", "done"), ("failed", "failed"), ("stopped", "stopped")]


def maps_become_jobs(apps, schema_editor):
    """Maps that are drawn stay for a week; an import that was being worked on goes back to where it rested."""
    OvenMap, Job, Import = (apps.get_model("kitchen", name) for name in ("OvenMap", "Job", "PackImport"))
    until = timezone.now() + timedelta(days=7)
    for old in OvenMap.objects.iterator():
        state = old.state if old.state in ("done", "stopped") else "stopped"
        Job.objects.create(
            kitchen_id=old.kitchen_id, kind="oven-map", input={"document": old.document, "minutes": old.minutes}, state=state,
            total=old.total, done=old.done, result=old.result, created_by_id=old.created_by_id, kept_until=until,
        )
    Import.objects.filter(state="checking").update(state="matching")
    Import.objects.filter(state="saving").update(state="checked")


class Migration(migrations.Migration):
    dependencies = [("kitchen", "0004_addresses_given_back"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.RenameModel("Bake", "PlannedBake"),
        migrations.RenameModel("OvenBake", "LoggedBake"),
        migrations.RenameField("Formula", "card", "thumb"),
        migrations.RenameField("Formula", "card_mark", "thumb_mark"),
        migrations.CreateModel(
            name="Job",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(max_length=40)),
                ("input", models.JSONField(default=dict)),
                ("state", models.CharField(choices=STATES, default="waiting", max_length=10)),
                ("stop_asked", models.BooleanField(default=False)),
                ("total", models.PositiveIntegerField(default=0)),
                ("done", models.PositiveIntegerField(default=0)),
                ("result", models.JSONField(null=True)),
                ("problem", models.JSONField(null=True)),
                ("created_at", models.DateTimeField(auto_now_add=True)),
                ("kept_until", models.DateTimeField()),
                ("created_by", models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="+", to=settings.AUTH_USER_MODEL)),
                ("kitchen", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="jobs", to="kitchen.kitchen")),
            ],
            options={"ordering": ["-created_at", "-pk"], "indexes": [models.Index(fields=["kitchen", "-created_at"], name="jobs_of_a_kitchen")]},
        ),
        migrations.AddField(
            "PackImport", "job", models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="+", to="kitchen.job")
        ),
        migrations.RunPython(maps_become_jobs, migrations.RunPython.noop),
        migrations.RemoveField("PackImport", "done"),
        migrations.AlterField(
            "PackImport",
            "state",
            models.CharField(
                choices=[("matching", "columns to be matched"), ("checked", "checked"), ("saved", "saved"), ("stopped", "stopped")],
                default="matching",
                max_length=10,
            ),
        ),
        migrations.DeleteModel("OvenMap"),
    ]
