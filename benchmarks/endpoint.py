"""The analysis endpoint: wanted p95 20 ms on one connection, and 150 ms for each of forty bakers who edit at once.

Starts a server on the cluster of the environment.
"""

import http.client
import json
import os
import random
import re
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager

from benchmarks.formulas import TWELVE_LINES
from benchmarks.spread import line, timed

PASSWORD = "only-for-measuring"
BAKERS = 40


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Client:
    """A signed-in keep-alive connection."""

    def __init__(self, port: int) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", port)
        self.cookies: dict[str, str] = {}
        self.call("GET", "/")  # gives the token

    def call(self, method: str, path: str, body: object = None) -> bytes:
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()), "Content-Type": "application/json"}
        headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")
        text = json.dumps(body) if body is not None else None
        try:
            self.connection.request(method, path, text, headers)
            reply = self.connection.getresponse()
        except ConnectionError:  # an idle connection was closed: a browser opens another
            self.connection.close()
            self.connection.request(method, path, text, headers)
            reply = self.connection.getresponse()
        for value in reply.headers.get_all("Set-Cookie") or []:
            name, _, rest = value.partition("=")
            self.cookies[name] = rest.partition(";")[0]
        data = reply.read()
        if reply.status >= 400:
            raise SystemExit(f"{method} {path}: {reply.status} {data[:200]!r}")
        return data


# Somebody with a proved address and a kitchen, without a letter.
_PERSON = """
import sys, django
django.setup()
from allauth.account.models import EmailAddress
from django.contrib.auth.models import User
from kitchen.services.kitchens import open_kitchen
email, password = sys.argv[1:]
user = User.objects.create_user(email, email, password)
EmailAddress.objects.create(user=user, email=email, primary=True, verified=True)
open_kitchen(user, "Measured")
"""


@contextmanager
def serving() -> Iterator[int]:
    """The port of two processes, as ``./start`` runs them."""
    port = free_port()
    environment = os.environ | {"DJANGO_SETTINGS_MODULE": "config.settings"}
    subprocess.run([sys.executable, "manage.py", "prepare", "--no-demo"], check=True, env=environment)
    # Its own number, and its listening socket, as the supervisor gives them.
    at = socket.create_server(("127.0.0.1", port))
    servers = [
        subprocess.Popen(
            [sys.executable, "-m", "config.serve", "--socket"], env=environment, stdin=at, stderr=subprocess.DEVNULL
        )
        for _ in range(2)
    ]
    try:
        yield port
    finally:
        for server in servers:
            server.terminate()
            server.wait()
        at.close()


def signed_up(port: int) -> Client:
    """Somebody new, once the server answers."""
    for _ in range(100):
        try:
            client = Client(port)
            break
        except ConnectionError:
            time.sleep(0.2)
    email = f"measure{time.time_ns()}@example.com"
    subprocess.run(
        [sys.executable, "-c", _PERSON, email, PASSWORD],
        check=True,
        env=os.environ | {"DJANGO_SETTINGS_MODULE": "config.settings"},
    )
    client.call("POST", "/_allauth/browser/v1/auth/login", {"email": email, "password": PASSWORD})
    return client


def baker(port: int, cookies: dict[str, str], path: str, seed: int, until: float) -> list[float]:
    """Somebody who changes a weight about once a second; how long each answer took, ms."""
    client, chance, result = Client(port), random.Random(seed), []
    client.cookies |= cookies
    document = json.loads(json.dumps(TWELVE_LINES))
    while time.monotonic() < until:
        time.sleep(chance.expovariate(1.0))
        document["lines"][0]["grams"] = round(chance.uniform(50, 250), 1)
        start = time.perf_counter()
        client.call("POST", path, document)
        result.append(1000 * (time.perf_counter() - start))
    return result


def settling(port: int, cookies: dict[str, str], jobs: str, until: float) -> int:
    """Somebody who settles one formula after the other; how many were answered."""
    client, done = Client(port), 0
    client.cookies |= cookies
    wish = TWELVE_LINES | {"targets": {"net_carbs": {"low": None, "high": 3.0}}}
    while time.monotonic() < until:
        job = json.loads(client.call("POST", jobs, {"kind": "settle", "document": wish, "wish": {}}))["id"]
        while json.loads(client.call("GET", f"{jobs}/{job}"))["state"] in ("waiting", "running"):
            time.sleep(0.25)
        done += 1
    return done


@contextmanager
def working() -> Iterator[None]:
    """A worker as ``./start`` runs it."""
    command = [sys.executable, "manage.py", "procrastinate", "worker", "--concurrency", "1", "--queues", "quick"]
    worker = subprocess.Popen(command, stderr=subprocess.DEVNULL)
    try:
        yield
    finally:
        worker.terminate()
        worker.wait()


def main() -> None:
    with serving() as port:
        client = signed_up(port)
        kitchen = re.search(rb'"kitchens":\[\{"id":(\d+)', client.call("GET", "/api/me"))
        assert kitchen
        path = f"/api/kitchens/{int(kitchen[1])}/analyse"
        durations = timed(lambda: client.call("POST", path, TWELVE_LINES), 400)
        print(line("analysis endpoint, one connection", durations, 20.0))
        with ThreadPoolExecutor(BAKERS) as pool:
            until = time.monotonic() + 20
            jobs = [pool.submit(baker, port, client.cookies, path, seed, until) for seed in range(BAKERS)]
            all_of_them = sorted(ms for job in jobs for ms in job.result())
        print(line(f"the same, {BAKERS} bakers at once", all_of_them, 150.0), f"({len(all_of_them)} edits)")
        with working(), ThreadPoolExecutor(BAKERS + 1) as pool:
            until = time.monotonic() + 20
            settled = pool.submit(settling, port, client.cookies, path.replace("analyse", "jobs"), until)
            jobs = [pool.submit(baker, port, client.cookies, path, seed, until) for seed in range(BAKERS)]
            all_of_them = sorted(ms for job in jobs for ms in job.result())
            print(line("while one settles without a pause", all_of_them, 150.0), f"({settled.result()} settled)")


if __name__ == "__main__":
    main()
