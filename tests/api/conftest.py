import json

import pytest
from django.test import Client

from kitchen.services import formulas
from kitchen.services.access import membership
from tests.conftest import sample


class Caller:
    """A client that speaks JSON."""

    def __init__(self, user=None, **client):
        self.client = Client(**client)
        if user:
            self.client.force_login(user)

    def __call__(self, method, path, body=None):
        data = json.dumps(body) if body is not None else None
        return self.client.generic(method, path, data or "", content_type="application/json")


@pytest.fixture
def caller(people):
    return lambda who: Caller(people.get(who))


@pytest.fixture
def made(people, kitchen):
    return formulas.create_formula(membership(people["baker"], kitchen.pk), sample()).formula


@pytest.fixture
def at(kitchen, made):
    return f"/api/kitchens/{kitchen.pk}/formulas/{made.pk}"
