from collections import defaultdict

from django.db import migrations


def give_back(apps, schema_editor):
    """An address that several accounts use goes back to the account that signed up with it; the others lose it.

    Until 0.3.0 a signed-in person could add a stranger's address to their own account and sign for it. An account's
    first address is the one it was opened with.
    """
    Address = apps.get_model("account", "EmailAddress")
    User = apps.get_model("auth", "User")
    own = {}  # account -> the address it was opened with
    accounts = defaultdict(set)
    for row in Address.objects.order_by("pk"):
        own.setdefault(row.user_id, row.email)
        accounts[row.email.lower()].add(row.user_id)
    for address, users in accounts.items():
        for user in users:
            if own[user].lower() == address:
                continue
            Address.objects.filter(user_id=user, email__iexact=address).delete()
            Address.objects.filter(user_id=user, email__iexact=own[user]).update(primary=True)
            User.objects.filter(pk=user).update(email=own[user])


class Migration(migrations.Migration):
    dependencies = [("kitchen", "0003_ovens"), ("account", "0009_emailaddress_unique_primary_email")]
    operations = [migrations.RunPython(give_back, migrations.RunPython.noop)]
