"""A run is its own reading of its oven."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("kitchen", "0020_readings_and_ids")]
    operations = [migrations.RemoveField(model_name="loggedbake", name="run")]
