"""Two application hosts before one database, and workers on a third: what is shared holds, whichever of them is asked.

``python -m benchmarks.hosts [ROUNDS]``, against the database of the environment. Each host is a server of its own on a loopback
address of its own (127.0.0.2 and 127.0.0.3), so that nothing but the database is common to them.
"""

import http.client
import json
import os
import re
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager

from benchmarks.endpoint import Client, free_port, signed_up, working
from benchmarks.formulas import TWELVE_LINES

HOSTS = ("127.0.0.2", "127.0.0.3")


class Host(Client):
    """Somebody at one of the hosts, with the cookies that a name in front of both would give."""

    def __init__(self, address: str, port: int, cookies: dict[str, str]) -> None:
        self.connection = http.client.HTTPConnection(address, port)
        self.cookies = cookies

    def refusal(self, method: str, path: str, body: object = None) -> str:
        """What is said in refusing, its status first; nothing when it was not refused."""
        try:
            self.call(method, path, body)
        except SystemExit as told:
            return str(told).partition(": ")[2]
        return ""

    def refused(self, method: str, path: str, body: object = None) -> int:
        """The status of a refusal; 0 when it was none."""
        return int(self.refusal(method, path, body)[:3] or 0)


@contextmanager
def hosts(port: int) -> Iterator[None]:
    environment = os.environ | {
        "DJANGO_SETTINGS_MODULE": "config.settings",
        "SUBSTRATA_HOSTS": ",".join((*HOSTS, "127.0.0.1")),
    }
    subprocess.run([sys.executable, "manage.py", "prepare", "--no-demo"], check=True, env=environment)
    servers = [
        subprocess.Popen(
            [sys.executable, "-m", "config.serve", "--host", host, "--port", str(port)],
            env=environment | {"SUBSTRATA_LOCAL": f"/tmp/substrata-host-{host}"},
            stderr=subprocess.DEVNULL,
        )
        for host in ("127.0.0.1", *HOSTS)  # the first only for signing up
    ]
    try:
        yield
    finally:
        for server in servers:
            server.terminate()
            server.wait()


def check(name: str, held: bool, counted: dict[str, list[bool]]) -> None:
    counted.setdefault(name, []).append(held)


def one_round(one: Host, two: Host, kitchen: str, counted: dict[str, list[bool]]) -> None:
    made = json.loads(one.call("POST", f"{kitchen}/formulas", TWELVE_LINES))
    place = f"{kitchen}/formulas/{made['id']}"
    shown = json.loads(two.call("GET", place))
    check("a formula of one is seen by the other", shown["document"]["lines"] == made["document"]["lines"], counted)
    body = {"document": shown["document"] | {"notes": "by two"}, "lock": shown["lock"], "page": "two"}
    saved = json.loads(two.call("PUT", f"{place}/draft", body))
    stale = {"document": made["document"] | {"notes": "by one"}, "lock": made["lock"], "page": "one"}
    check("a stale draft is a conflict at the other", one.refused("PUT", f"{place}/draft", stale) == 409, counted)
    again = json.loads(one.call("PUT", f"{place}/draft", body | {"document": saved["document"]}))
    check("a lost answer, asked for again at the other, is none", again["document"]["notes"] == "by two", counted)
    one.call("POST", f"{kitchen}/analyse", TWELVE_LINES)
    check(
        "the minute's pass of one is good at the other",
        not two.refused("POST", f"{kitchen}/analyse", TWELVE_LINES),
        counted,
    )
    before = json.loads(two.call("POST", f"{kitchen}/analyse", TWELVE_LINES))["basis"]["convention"]
    wanted = "total" if before != "total" else "us"
    one.call("PATCH", kitchen, {"convention": wanted})
    after = json.loads(two.call("POST", f"{kitchen}/analyse", TWELVE_LINES))["basis"]["convention"]
    check("a change at one is judged by at the other at once", after == wanted, counted)
    wish = TWELVE_LINES | {"targets": {"net_carbs": {"low": None, "high": 3.0}}}
    job = json.loads(one.call("POST", f"{kitchen}/jobs", {"kind": "settle", "document": wish, "wish": {}}))["id"]
    until = time.monotonic() + 60
    while (state := json.loads(two.call("GET", f"{kitchen}/jobs/{job}"))["state"]) in (
        "waiting",
        "running",
    ) and time.monotonic() < until:
        time.sleep(0.1)
    check("a job of one, done by a third, is followed at the other", state == "done", counted)


def main() -> None:
    rounds, port, counted = int(sys.argv[1]) if len(sys.argv) > 1 else 10, free_port(), {}
    with hosts(port), working():
        person = signed_up(port)
        found = re.search(rb'"kitchens":\[\{"id":(\d+)', person.call("GET", "/api/me"))
        assert found
        kitchen = f"/api/kitchens/{int(found[1])}"
        one, two = (Host(address, port, dict(person.cookies)) for address in HOSTS)
        for _ in range(rounds):
            one_round(one, two, kitchen, counted)
        wrong = {"email": "nobody@example.com", "password": "not-this-one-either"}
        told = [(one, two)[n % 2].refusal("POST", "/_allauth/browser/v1/auth/login", wrong) for n in range(12)]
        check("wrong passwords at both are counted together", any("Too many" in words for words in told[:8]), counted)
        check("signed in at both", not one.refused("GET", "/api/me") and not two.refused("GET", "/api/me"), counted)
        one.refused("DELETE", "/_allauth/browser/v1/auth/session")  # answered with 401: nobody is signed in any more
        check("signed out at one is signed out at the other", two.refused("GET", "/api/me") == 401, counted)
    for name, held in counted.items():
        print(f"{name:62} {sum(held):3} of {len(held)}")


if __name__ == "__main__":
    main()
