"""What many do at once: closed loops, two hundred clients, heavy bakes beside light requests, imports beside a change of settings.

Figures are told beside those of a bare request on the same machine. Starts servers and a worker on the cluster of the environment;
loops are bounded in count and time, and nothing but this machine is asked.
"""

import json
import os
import re
import subprocess
import sys
import time
from concurrent.futures import Future, ThreadPoolExecutor
from itertools import count

import numpy as np

from benchmarks.endpoint import Client, baker, serving, signed_up, working
from benchmarks.formulas import TWELVE_LINES

SECONDS = 12
LOOPS, CLIENTS, HEAVY, ROWS = 8, 200, 8, 10_000
# A whole loaf of the twelve lines, baked long and in many stages: about as much as a bake can cost.
LONG = TWELVE_LINES | {
    "form": {"kind": "free-loaf", "pieces": 1},
    "bake": {"stages": [{"kind": "bake", "minutes": 25, "oven_c": 150 + 5 * n} for n in range(8)]},
}


def own(port: int, cookies: dict[str, str]) -> Client:
    client = Client(port)
    client.cookies |= cookies
    return client


def repeated(port: int, cookies: dict[str, str], method: str, path: str, body: object, until: float) -> list[float]:
    """One after the other without a pause; how long each took, ms. Being told to wait counts as an answer."""
    client, times = own(port, cookies), []
    while time.monotonic() < until:
        start = time.perf_counter()
        try:
            client.call(method, path, body)
        except SystemExit as told:
            if "429" not in str(told) and "503" not in str(told):
                raise
        times.append(1000 * (time.perf_counter() - start))
    return times


def at_once(count_: int, *args: object) -> list[float]:
    with ThreadPoolExecutor(count_) as pool:
        until = time.monotonic() + SECONDS
        jobs = [pool.submit(repeated, *args, until) for _ in range(count_)]  # type: ignore[arg-type]  # as they stand
        return [ms for job in jobs for ms in job.result()]


def told(name: str, times: list[float], bare: float) -> None:
    p50, p95, most = np.percentile(times, (50, 95, 100))
    print(
        f"{name:44} {len(times):6} answers  p50 {p50:7.1f}  p95 {p95:7.1f}  most {most:7.1f} ms  p95 is {p95 / bare:6.1f} bare requests"
    )


def products(rows: int) -> str:
    """A file of products of our own making."""
    head = "name,brand,serving_g,energy_kcal,fat_g,carbohydrate_g,fibre_g,protein_g,salt_g"
    lines = (f"Almond flour {n},Mill {n % 97},100,{592 + n % 12},52,7,{9 + n % 3},21,0.02" for n in range(rows))
    return "\n".join((head, *lines))


def imported(port: int, cookies: dict[str, str], kitchen: str, rows: int) -> tuple[float, float]:
    """Seconds until a file has been looked at, and until its good rows are in the pantry."""
    client = own(port, cookies)
    begun = time.perf_counter()
    made = json.loads(client.call("POST", f"{kitchen}/imports", {"file_name": "packs.csv", "text": products(rows)}))
    matched = {key: made[key] for key in ("columns", "style", "per_100")}
    client.call("PUT", f"{kitchen}/imports/{made['id']}/columns", matched)
    seconds = []
    for kind in ("import-check", "import-save"):
        job = json.loads(client.call("POST", f"{kitchen}/jobs", {"kind": kind, "import_id": made["id"]}))
        for _ in count():
            state = json.loads(client.call("GET", f"{kitchen}/jobs/{job['id']}"))["state"]
            if state not in ("waiting", "running"):
                break
            time.sleep(0.1)
        seconds.append(time.perf_counter() - begun)
    return seconds[0], seconds[1]


# So many formulas of one kitchen, copied from the first by the database itself.
_FORMULAS = """
import sys, django
django.setup()
from django.db import connection
from kitchen.models import Kitchen
from kitchen.services.formulas import create_formula
from benchmarks.formulas import TWELVE_LINES
kitchen, rows = Kitchen.objects.get(pk=int(sys.argv[1])), int(sys.argv[2])
made = create_formula(kitchen.memberships.get().user, kitchen.pk, TWELVE_LINES).formula
with connection.cursor() as cursor:
    cursor.execute(
        "with made as (insert into kitchen_formula (kitchen_id, name, form, thumb, thumb_mark, created_at, touched_at)"
        " select kitchen_id, name || n, form, thumb, thumb_mark, now(), now() from kitchen_formula, generate_series(1, %s) n where id = %s"
        " returning id) insert into kitchen_draft (formula_id, document, lock, base_number, changed, page, updated_at)"
        " select made.id, d.document, d.lock, 0, true, d.page, now() from made, kitchen_draft d where d.formula_id = %s",
        [rows - 1, made.pk, made.pk],
    )
"""


def beside_a_change(port: int, owner: Client, path: str) -> tuple[float, float]:
    """Another kitchen's row, while ten thousand formulas of this one are drawn anew: seconds until it is in, and of the shelf's first page."""
    kitchen = path.rpartition("/")[2]
    here = os.environ | {"DJANGO_SETTINGS_MODULE": "config.settings"}
    subprocess.run([sys.executable, "-c", _FORMULAS, kitchen, str(ROWS)], check=True, env=here)
    other = signed_up(port)
    found = re.search(rb'"kitchens":\[\{"id":(\d+)', other.call("GET", "/api/me"))
    assert found
    owner.call("PATCH", path, {"convention": "total"})
    begun = time.perf_counter()
    owner.call("GET", f"{path}/formulas")
    shelf = time.perf_counter() - begun
    return imported(port, other.cookies, f"/api/kitchens/{int(found[1])}", 1)[1], shelf


def main() -> None:
    with serving() as port:
        client = signed_up(port)
        found = re.search(rb'"kitchens":\[\{"id":(\d+)', client.call("GET", "/api/me"))
        assert found
        kitchen, cookies = f"/api/kitchens/{int(found[1])}", client.cookies
        bare_times = []
        for _ in range(300):
            start = time.perf_counter()
            client.call("GET", "/health/live")
            bare_times.append(1000 * (time.perf_counter() - start))
        bare = float(np.percentile(bare_times, 95))
        told("a bare request", bare_times, bare)
        times = at_once(LOOPS, port, cookies, "POST", f"{kitchen}/analyse", TWELVE_LINES)
        told(f"analyses, {LOOPS} in closed loops", times, bare)
        print(f"  {len(times) / SECONDS:.0f} analyses a second")
        with ThreadPoolExecutor(CLIENTS) as pool:
            until = time.monotonic() + SECONDS
            jobs = [pool.submit(baker, port, cookies, f"{kitchen}/analyse", n, until) for n in range(CLIENTS)]
            edits = [job.result() for job in jobs]
        told(f"{CLIENTS} clients, an edit a second each", [ms for own_ in edits for ms in own_], bare)
        print(f"  answers each: least {min(map(len, edits))}, most {max(map(len, edits))}")
        with ThreadPoolExecutor(HEAVY + 1) as pool:
            until = time.monotonic() + SECONDS
            bakes: list[Future[list[float]]] = [
                pool.submit(repeated, port, cookies, "POST", f"{kitchen}/bake", {"document": LONG}, until)
                for _ in range(HEAVY)
            ]
            beside = pool.submit(repeated, port, cookies, "GET", "/api/me", None, until)
            told(f"/api/me beside {HEAVY} long bakes", beside.result(), bare)
            told("  the bakes", [ms for job in bakes for ms in job.result()], bare)
        with working():
            one = imported(port, cookies, kitchen, 1)
            many = imported(port, cookies, kitchen, ROWS)
            beside, shelf = beside_a_change(port, client, kitchen)
        print(
            f"import of a row {one[1]:.1f} s; of {ROWS} rows: looked at {many[0]:.1f} s, in the pantry {many[1]:.1f} s"
        )
        print(
            f"while {ROWS} formulas are drawn anew: another kitchen's row {beside:.1f} s, their shelf {1000 * shelf:.0f} ms"
        )


if __name__ == "__main__":
    main()
