"""The runs of the demo: an oven that runs hot, a warm kitchen, a bag of meal that drinks more. All of it is invented."""

import json
from datetime import datetime, timedelta
from importlib.resources import files
from typing import Any

from django.contrib.auth.models import User

from kitchen.models import Formula, Kitchen, Run, RunEntry
from kitchen.services.access import membership
from kitchen.services.ovens import dough_in, named_profile
from kitchen.services.runs import give_verdict
from substrata import read_document
from substrata.base import plain
from substrata.execution import bake_protocol


def load_runs(kitchen: Kitchen, baker: User, partner: User, now: datetime) -> None:
    """Create runs with their weights, feel and ratings, as the bake station would have stored them."""
    text = files("kitchen.demo").joinpath("runs.json").read_text(encoding="utf8")
    member = membership(baker, kitchen.pk)
    plans: dict[str, dict[str, Any]] = {}
    for number, entry in enumerate(json.loads(text)):
        formula = Formula.objects.get(kitchen=kitchen, name=entry["formula"])
        version = formula.versions.filter(number=entry["version"]).first() if "version" in entry else None
        document = version.document if version else formula.draft.document
        key = f"{formula.pk}:{version.number if version else 0}"
        if key not in plans:
            read = read_document(document)
            plans[key] = plain(bake_protocol(dough_in(member, read, document, named_profile(member, read.bake.oven))))
        started = now - timedelta(days=entry["days_ago"], hours=3)
        run = Run.objects.create(
            kitchen=kitchen,
            key=f"demo-{number}",
            formula=formula,
            number=version.number if version else formula.draft.base_number,
            name=formula.name,
            form=formula.form,
            document=document,
            plan=plans[key],
            oven=str(document.get("bake", {}).get("oven", "")),
            started_at=started,
            finished_at=started + timedelta(hours=2),
            stock_taken=True,
            created_by=(baker, partner)[number % 2],
        )
        RunEntry.objects.bulk_create(_entries(run, entry, document, started, (baker, partner)[number % 2]))
        give_verdict(member, run.pk, entry["verdict"])


def _entries(
    run: Run, example: dict[str, Any], document: dict[str, Any], started: datetime, by: User
) -> list[RunEntry]:
    """Return what the station would have kept: weights first, then moments and measures in their order."""
    weights = {line["id"]: line["grams"] for line in document["lines"]} | example.get("grams", {})
    whole = sum(weights.values())
    mixed = 12.0
    shaped = mixed + example["rest"]
    into = shaped + 14
    out = into + example["minutes"]
    rows: list[tuple[str, str, float | None, str, float]] = [
        ("weighed", line, grams, example.get("filled", {}).get(line, ""), n * 0.6)
        for n, (line, grams) in enumerate(weights.items())
    ]
    rows += [("moment", "mixed", None, "", mixed), ("felt", "", None, example["felt"], shaped - 1)]
    rows += [("moment", "shaped", None, "", shaped), ("moment", "in", None, "", into), ("moment", "out", None, "", out)]
    for field, key, minute in (
        ("dough_c", "dough_c", mixed),
        ("oven_c", "oven_c", into),
        ("probe_c", "probe_c", into - 1),
        ("core_c", "core", out),
        ("squeezed_g", "squeezed", 2.0),
    ):
        if key in example:
            rows.append(("measured", field, example[key], "", minute))
    rows += [("measured", "weight_in_g", round(whole), "", into), ("measured", "weight_out_g", round(whole * (1 - example["lost"])), "", out)]  # fmt: skip
    rows += [("done" if yes else "skipped", step, None, "", out) for step, yes in example["steps"].items()]
    if "new_pack" in example:
        rows.append(("new_pack", example["new_pack"], None, "", 1.0))
    return [
        RunEntry(
            run=run,
            key=f"demo-{n}",
            at=started + timedelta(minutes=minute),
            kind=kind,
            what=what,
            value=value,
            word=word,
            by=by,
        )
        for n, (kind, what, value, word, minute) in enumerate(rows)
    ]
