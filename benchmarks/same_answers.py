"""Record what core, services and API answer, by value, and compare it after a change of the structure.

``python -m benchmarks.same_answers keep FILE`` before the change, ``… compare FILE`` after it. An answer is the sequence of
its values, numbers to nine decimals, without the names of its fields: a field may be renamed, a value may not change.
The API's part needs the database of the environment (see ``check``) and is left out by ``--core``.
"""

import argparse
import gzip
import json
import os
from collections.abc import Callable, Iterator
from dataclasses import asdict
from datetime import date, datetime
from pathlib import Path
from typing import Any

from substrata import Dough, Settings, analyse, bake, load_library, prep, read_document, shape
from substrata.base.errors import SubstrataError
from substrata.base.settings import Eater
from substrata.execution.protocol import bake_protocol
from substrata.execution.run_document import read_run
from substrata.formula.formula_document import write_document
from substrata.inference.calibration.learning import learn
from substrata.inference.diagnosis.diagnosis import diagnose
from substrata.publishing.card_panels import card
from substrata.publishing.recipe import recipe_of
from substrata.reformulation.balancing import balance
from substrata.scheduling.plans.plan_document import read_plan
from substrata.scheduling.plans.planning import make_plan
from substrata.scheduling.plans.planning_case import planning_case
from substrata.scheduling.solver.search_effort import Effort
from tests.support.documents import demo_documents, differences, random_document, random_plan, random_run, values

RANDOM = 200


PLANS = 50


RUNS = 50


_EATER = Eater(name="One", budgets={"net_carbs": 30.0, "energy": 2000.0})


STATIONS: dict[str, Callable[..., Any]] = {
    "analyse": analyse,
    "card": card,
    "prep": lambda f, l, s: prep(Dough(f, l, s)),
    "shape": lambda f, l, s: shape(Dough(f, l, s)),
    "bake": lambda f, l, s: bake(Dough(f, l, s)),
}


Asks = Iterator[tuple[str, Callable[[], Any]]]


def _stations() -> Asks:
    """Every station of every document."""
    library = load_library()
    documents = dict(demo_documents()) | {f"random {n}": random_document(n) for n in range(RANDOM)}
    for number, (name, document) in enumerate(documents.items()):
        formula = read_document(document)
        settings = Settings(eaters=(_EATER,), convention=("us", "eu", "total")[number % 3])
        for station, ask in STATIONS.items():
            yield f"{name}/{station}", lambda ask=ask, f=formula, s=settings: ask(f, library, s)
        yield f"{name}/document", lambda f=formula: write_document(f)
        yield f"{name}/steps", lambda f=formula, s=settings: bake_protocol(Dough(f, library, s))
        yield f"{name}/recipe", lambda f=formula, s=settings: recipe_of(Dough(f, library, s))
        if number % 8 == 0:
            yield f"{name}/balance", lambda f=formula, s=settings: balance(f, library, s)


def _runs() -> Asks:
    """Diagnoses of runs, and what they teach together."""
    library = load_library()
    runs = [read_run(random_run(number)) for number in range(RUNS)]
    for number, run in enumerate(runs):
        yield f"run {number}", lambda run=run: diagnose(Dough(run.formula, library), run)
    yield "learned", lambda: learn(runs[:12], library)


def _plans() -> Asks:
    """Plans, sought by work and not by the clock, so that they are the same each time."""
    library = load_library()
    for number in range(PLANS):
        plan = read_plan(random_plan(number))
        yield (
            f"plan {number}",
            lambda plan=plan: make_plan(
                planning_case(plan, library), effort=Effort(seconds=0.4, workers=1, steady=True)
            ),
        )


def _plain(answer: Any) -> Any:
    """JSON of an answer's dataclasses: moments as strings, arrays and sets as lists."""
    if hasattr(answer, "__dataclass_fields__"):
        answer = asdict(answer)
    return json.loads(json.dumps(answer, default=_json))


def _json(value: Any) -> Any:
    if isinstance(value, date | datetime):
        return value.isoformat()
    return value.tolist() if hasattr(value, "tolist") else sorted(value)


def core_answers() -> dict[str, list[Any]]:
    """The values of everything that the core is asked; a refusal is its sentence."""
    table: dict[str, list[Any]] = {}
    for asks in (_stations(), _runs(), _plans()):
        for name, ask in asks:
            try:
                table[name] = values(_plain(ask()))
            except SubstrataError as refusal:
                table[name] = [str(refusal)]
    return table


def api_answers() -> dict[str, list[Any]]:
    """The values of the API's answers over the demo kitchen, in a database made for it."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    import django

    django.setup()
    from django.conf import settings
    from django.test import Client
    from django.test.utils import setup_databases, setup_test_environment, teardown_databases

    setup_test_environment()
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    databases = setup_databases(verbosity=0, interactive=False)
    try:
        from kitchen.demo.load import load_demo

        demo = load_demo()
        client = Client()
        client.force_login(demo.memberships.get(role="owner").user)
        return {name: values(answer) for name, answer in _api(demo, client)}
    finally:
        teardown_databases(databases, verbosity=0)


def _api(demo: Any, client: Any) -> Iterator[tuple[str, Any]]:
    """Addresses and what they answer."""
    root = f"/api/kitchens/{demo.pk}"

    def call(method: str, path: str, body: Any = None) -> Any:
        data = json.dumps(body) if body is not None else ""
        reply = client.generic(method, path, data, content_type="application/json")
        return [reply.status_code, json.loads(reply.content) if reply.content[:1] in b"[{" else len(reply.content) > 0]

    yield "words", call("GET", "/api/words")
    for end in (
        "formulas",
        "pantry?limit=200",
        "stock",
        "bakes",
        "ovens",
        "members",
        "eaters",
        "house-formulas",
        "plans",
        "runs",
        "runs-line?figure=loss",
    ):
        yield end, call("GET", f"{root}/{end}")
    for formula in demo.formulas.order_by("pk"):
        one = f"{root}/formulas/{formula.pk}"
        for end in ("", "/versions", "/part"):
            yield f"{formula.name}{end}", call("GET", f"{one}{end}")
        document = call("GET", one)[1].get("document")
        if document is None:
            continue
        bodies: dict[str, Any] = {
            "analyse": document, "shape": document, "card": document, "cheaper": document, "remedies": {"document": document},
            "prep": {"document": document}, "bake": {"document": document}, "recipe": {"document": document},
            "what-if": {"document": document, "line": document["lines"][0]["id"]}, "scale": {"document": document, "factor": 1.7},
            "premix-bags": {"document": document, "bags": 3, "made_on": "2026-06-06"},
            "label": {"document": document, "style": "us", "baked_on": "2026-06-06"},
        }  # fmt: skip
        for end, body in bodies.items():
            yield f"{formula.name} {end}", call("POST", f"{root}/{end}", body)
    for run in demo.runs.order_by("pk"):
        for end in ("",):
            yield f"run {run.pk}{end}", call("GET", f"{root}/runs/{run.pk}{end}")
    for ingredient in ("almond-flour", "mozzarella", "egg", "erythritol"):
        yield ingredient, call("GET", f"{root}/ingredients/{ingredient}")


def main() -> int:
    """Keep or compare; returns the exit code."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("what", choices=["keep", "compare"])
    parser.add_argument("file", type=Path)
    parser.add_argument("--core", action="store_true", help="without the API")
    options = parser.parse_args()
    answers = core_answers() | ({} if options.core else api_answers())
    if options.what == "keep":
        options.file.write_bytes(gzip.compress(json.dumps(answers).encode()))
        print(f"{len(answers)} answers, {sum(map(len, answers.values()))} values")
        return 0
    before = {name: values(answer) for name, answer in json.loads(gzip.decompress(options.file.read_bytes())).items()}
    if options.core:
        before = {name: answer for name, answer in before.items() if name in answers}
    result = list(differences(before, answers))
    print("\n".join(result[:40]) or "every answer is as it was")
    print(f"{len(result)} differences in {len(answers)} answers")
    return 1 if result else 0


if __name__ == "__main__":
    raise SystemExit(main())
