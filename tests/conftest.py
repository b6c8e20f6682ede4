import io
import os

import pytest
from django.contrib.auth.models import User
from hypothesis import HealthCheck, settings

from kitchen.models import Membership
from kitchen.services.kitchens import open_kitchen
from substrata import Settings, analyse, load_library, read_document
from tests.support.doughs import document
from tests.support.messages import compare_by_words
from tests.support.seeds import LONG

# No test is timed: a busy machine is no defect. The gate tries the same examples every time, so that what was green
# stays green; `HYPOTHESIS_PROFILE=explore` draws new and more ones, and what it finds becomes a test.
settings.register_profile(
    "gate",
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow],
    derandomize=True,
    max_examples=100 if LONG else 40,
)
settings.register_profile("explore", deadline=None, suppress_health_check=[HealthCheck.too_slow], max_examples=1000)
compare_by_words()
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "gate"))


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


@pytest.fixture
def said(capsys, monkeypatch):
    """Run a command line: its exit code, what it printed, what it complained of."""
    from substrata.cli.main import main

    def run(*arguments, stdin=""):
        monkeypatch.setattr("sys.stdin", io.StringIO(stdin))
        code = main(arguments)
        captured = capsys.readouterr()
        return code, captured.out, captured.err

    return run


@pytest.fixture
def judged():
    """Analyse grams by ingredient."""

    def judge(form="thin-crust", pieces=6, settings=None, targets=None, **lines):
        made = document(form, pieces, **lines) | {"targets": targets or {}}
        return analyse(read_document(made), load_library(), settings or Settings())

    return judge


@pytest.fixture
def bracket():
    """One bracket of an analysis by key."""
    return lambda analysis, key: next(b for b in analysis.brackets if b.key == key)
