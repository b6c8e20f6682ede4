import pytest
from django.contrib.auth.models import User
from hypothesis import HealthCheck, settings

from kitchen.models import Membership
from kitchen.services.kitchens import open_kitchen

# No test is timed: a busy machine is no defect.
settings.register_profile("untimed", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("untimed")


@pytest.fixture(autouse=True)
def _quick_passwords(settings):  # the fixture of pytest-django, not hypothesis
    """Slow hashing is for real passwords; sign-in itself is tested all the same."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


ROLES = ("owner", "baker", "viewer", "outsider")


def sample(name="Rolls", pieces=6, **lines):
    """A formula document of grams by ingredient; ``_`` stands for ``-``."""
    weights = lines or {"almond_flour": 150, "psyllium_powder": 20, "egg": 100, "water": 150, "salt": 4}
    return {
        "substrata": 1,
        "name": name,
        "notes": "",
        "form": {"kind": "bun", "pieces": pieces, "serving_pieces": 1},
        "lines": [
            {"id": key, "ingredient": key.replace("_", "-"), "grams": grams, "entered": f"{grams} g"}
            for key, grams in weights.items()
        ],
        "targets": {},
    }


@pytest.fixture
def people(db):
    """One kitchen with an owner, a baker and a viewer, and an outsider with a kitchen of their own."""
    users = {role: User.objects.create_user(role, f"{role}@kitchen.test", "a-long-password") for role in ROLES}
    owner = open_kitchen(users["owner"], "The corner kitchen")
    open_kitchen(users["outsider"], "Elsewhere")
    for role in ("baker", "viewer"):
        Membership.objects.create(kitchen=owner.kitchen, user=users[role], role=role)
    return users


@pytest.fixture
def kitchen(people):
    return people["owner"].memberships.get().kitchen
