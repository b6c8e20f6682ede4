"""How well a kitchen's oven and its minutes are forecast after 0, 1, 3, 5 and 10 bakes, through the services that a baker uses.

``python -m benchmarks.oven_learning [--kitchens 16] [--seed 5]``; needs a database (``SUBSTRATA_DB_*``), and takes back all that it
writes. A kitchen has an oven of its own (12 K), convection, thickness and browning, bakes four formulas in turn and logs the weight
before and after, the core, a color and the moments; then the forecast of a formula in that oven, as the Oven station answers it,
is held against the minutes at which it is done in the true oven. What the forecast misses by itself is not in it: truth and
forecast share a model.
"""

from __future__ import annotations

import argparse
from collections import defaultdict
from datetime import UTC, datetime, timedelta
from math import exp, log

import django
import numpy as np

from kitchen.services.access import membership

django.setup()

from django.contrib.auth.models import User  # noqa: E402
from django.db import transaction  # noqa: E402

from kitchen.models import Job, Kitchen, Oven  # noqa: E402
from kitchen.services import formulas, kitchens, ovens, runs  # noqa: E402
from kitchen.services.jobs import run_job  # noqa: E402
from substrata import load_library, write_document  # noqa: E402
from substrata.evaluation.dough import Dough  # noqa: E402
from substrata.execution.run_document import Done  # noqa: E402
from substrata.inference.as_made_forecast import as_done  # noqa: E402
from substrata.inference.bake_figures import PLACE, run_figures  # noqa: E402
from substrata.inference.making import Making, baked_case, make  # noqa: E402
from substrata.process.baking.oven_questions import coarse  # noqa: E402
from tests.support.demo_doughs import demo_formulas  # noqa: E402

BAKES = (0, 1, 3, 5, 10)
START = datetime(2026, 5, 1, 6, tzinfo=UTC)


def drawn(rng: np.random.Generator) -> Making:
    """The oven of a kitchen, which nobody knows."""
    return Making(
        oven_k=rng.normal() * 12,
        convection=exp(rng.normal() * 0.15),
        thickness=exp(rng.normal() * 0.12),
        browning=exp(rng.normal() * 0.25),
    )


def log_of(rng: np.random.Generator, number: int, figures: np.ndarray, minutes: float) -> list[dict[str, object]]:
    """The entries that the Run station would have kept of a bake."""
    rows = [
        ("moment", "mixed", None, 5.0), ("moment", "shaped", None, 15.0), ("moment", "in", None, 30.0),
        ("measured", "weight_in_g", 1000.0, 30.0), ("moment", "out", None, 30.0 + minutes),
        ("measured", "weight_out_g", 1000 * (1 - float(figures[PLACE["loss"]]) + rng.normal() * 0.014), 31.0 + minutes),
        ("measured", "core_c", float(figures[PLACE["core"]]) + rng.normal() * 2.5, 30.0 + minutes),
    ]  # fmt: skip
    start = START + timedelta(days=number)
    return [
        {"id": f"{number}-{n}", "at": (start + timedelta(minutes=at)).isoformat(), "kind": kind, "what": what, "value": value}
        for n, (kind, what, value, at) in enumerate(rows)
    ]  # fmt: skip


def learn(kitchen: Kitchen) -> None:
    """What the worker does with the newest question of what the bakes teach."""
    asked = Job.objects.filter(kitchen=kitchen, kind="learn", state=Job.State.WAITING).order_by("-pk")
    for job in asked[1:]:
        job.delete()
    for job in asked[:1]:
        run_job(job.pk)


def measure(rng: np.random.Generator, errors: dict, covered: dict) -> None:
    """One kitchen, from its first bake to its tenth."""
    library = load_library()
    chosen = rng.choice([f for f in demo_formulas() if f.form != "doughnut"], 4, replace=False)
    truth = drawn(rng)
    user = User.objects.create_user(f"b{rng.integers(1e9)}", password=None)
    kitchen = kitchens.open_kitchen(user, "Measured").kitchen
    oven = ovens.add_oven(membership(user, kitchen.pk), "Deck")
    rows, real, plain, ready = [], [], [], []
    for formula in chosen:
        document = write_document(formula) | {"bake": {"oven": oven.key}}
        rows.append(formulas.create_formula(membership(user, kitchen.pk), document).formula)
        dough = Dough(formula, library)
        told = as_done(dough, Done())
        plain.append(told)
        real.append(run_figures(dough, truth, told.marks))
        ready.append(coarse(baked_case(make(dough, truth), truth)).ready)
    for bakes in range(max(BAKES) + 1):
        if bakes in BAKES:
            learn(kitchen)
            profile = ovens.profile_of(Oven.objects.get(pk=oven.pk))
            errors["offset, K", bakes].append(profile.offset_k - truth.oven_k)
            covered["offset, K", bakes].append(abs(profile.offset_k - truth.oven_k) <= profile.half_90_k)
            for row, true in zip(rows, ready, strict=True):
                forecast = ovens.bake_document(membership(user, kitchen.pk), row.draft.document).forecast
                if forecast is None or forecast.ready_min is None or true is None:
                    continue
                errors["ln minutes", bakes].append(log(forecast.ready_min.best / true))
                covered["ln minutes", bakes].append(forecast.ready_min.low <= true <= forecast.ready_min.high)
        which = bakes % 4
        run = runs.start_run(
            membership(user, kitchen.pk),
            rows[which].pk,
            f"r{bakes}",
            started_at=(START + timedelta(days=bakes)).isoformat(),
        )
        runs.write_entries(
            membership(user, kitchen.pk), run.pk, log_of(rng, bakes, real[which], plain[which].marks.minutes)
        )
        runs.finish_run(membership(user, kitchen.pk), run.pk)
        gold = 82 * exp(-0.187 * Dough(chosen[which], library).case.wish_factor)
        color = int(np.clip(round((gold - real[which][PLACE["top"]]) / 6 + rng.normal() * 0.7), -2, 2))
        runs.give_verdict(membership(user, kitchen.pk), run.pk, {"liked": "good", "colour": color})


def main() -> None:
    """Print root mean squares and how often the 90 % range holds the truth."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kitchens", type=int, default=16)
    parser.add_argument("--seed", type=int, default=5)
    options = parser.parse_args()
    rng = np.random.default_rng(options.seed)
    errors: dict = defaultdict(list)
    covered: dict = defaultdict(list)
    for _ in range(options.kitchens):
        with transaction.atomic():
            measure(rng, errors, covered)
            transaction.set_rollback(True)
    for what in ("offset, K", "ln minutes"):
        print(what, "  ".join(
            f"{n}: {np.sqrt(np.mean(np.square(errors[what, n]))):.3g} ({100 * np.mean(covered[what, n]):.0f} %)" for n in BAKES
        ))  # fmt: skip


if __name__ == "__main__":
    main()
