# ruff: noqa: E402 - Django is set up before anything of it is imported
"""Requests drawn from the contract, right and wrong, at every endpoint: no 500, no answer over 5 s, and every refusal a problem.

``python -m benchmarks.fuzz [SECONDS] [SEED]``, against the database of the environment (not one that anybody needs).
"""

import collections
import json
import os
import random
import sys
import time
from pathlib import Path

from kitchen.services.access import membership

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
os.environ["SUBSTRATA_HOSTS"] = "testserver"

import django

django.setup()

import schemathesis
from django.contrib.auth.models import User
from django.core.management import call_command
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import seed as seeded
from schemathesis.core import NotSet

from api.heavy import budgets
from kitchen.services.formulas import create_formula
from kitchen.services.kitchens import open_kitchen
from tests.conftest import sample

CONTRACT = Path(__file__).parents[1] / "api" / "openapi.json"
SLOW_S = 5.0


def main() -> None:
    seconds, seed = (float(sys.argv[1]) if len(sys.argv) > 1 else 120.0), int(sys.argv[2]) if len(sys.argv) > 2 else 1
    call_command("migrate", verbosity=0)
    call_command("createcachetable", verbosity=0)
    name = f"fuzz{time.time_ns()}"
    user = User.objects.create_user(name, f"{name}@example.com", "a-long-password")
    kitchen = open_kitchen(user, "Fuzzed").kitchen
    formula = create_formula(membership(user, kitchen.pk), sample()).formula
    client = Client(raise_request_exception=False)
    client.force_login(user)
    schema = schemathesis.openapi.from_path(str(CONTRACT))
    operations = [result.ok() for result in schema.get_all_operations()]
    statuses: collections.Counter[int] = collections.Counter()
    found: list[str] = []
    slowest = (0.0, "")
    begun, each = time.monotonic(), random.Random(seed)

    def send(case) -> None:
        nonlocal slowest
        budgets.forget()
        # Its own kitchen mostly: what is found nowhere says little.
        values = {"kitchen_id": kitchen.pk, "formula_id": formula.pk} if each.random() < 0.9 else {}
        path = case.operation.path.format(**{**(case.path_parameters or {}), **values})
        if path.endswith(f"/kitchens/{kitchen.pk}/closing") or path == "/api/account/closing":
            return
        body = (
            b"" if case.body is None or isinstance(case.body, NotSet) else json.dumps(case.body, default=str).encode()
        )
        start = time.monotonic()
        reply = client.generic(
            case.operation.method.upper(), path, body, content_type="application/json", query_params=case.query or {}
        )
        took = time.monotonic() - start
        statuses[reply.status_code] += 1
        slowest = max(slowest, (took, f"{case.operation.method} {case.operation.path}"))
        said = f"{case.operation.method} {path} {dict(case.query or {})} {body[:300]!r}"
        if reply.status_code >= 500 or took > SLOW_S:
            found.append(f"{reply.status_code} in {took:.1f} s: {said}")
        elif reply.status_code >= 400 and reply["Content-Type"] != "application/problem+json":
            found.append(f"{reply.status_code} is no problem: {said}")

    turn = 0
    while time.monotonic() - begun < seconds and len(found) < 20:
        turn += 1
        each.shuffle(operations)
        for operation in operations:
            if time.monotonic() - begun > seconds:
                break
            run = given(operation.as_strategy())(send)
            run = settings(
                max_examples=30,
                deadline=None,
                database=None,
                phases=[Phase.generate],
                suppress_health_check=list(HealthCheck),
            )(run)
            seeded(seed * 1000 + turn)(run)()
    print(f"{sum(statuses.values())} requests at {len(operations)} endpoints: {dict(sorted(statuses.items()))}")
    print(f"slowest {slowest[0]:.2f} s: {slowest[1]}")
    print("\n".join(found) or "nothing found")
    kitchen.delete()
    user.delete()
    sys.exit(bool(found))


if __name__ == "__main__":
    main()
