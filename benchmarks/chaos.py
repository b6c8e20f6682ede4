"""Kills in random order while six people edit and three jobs at a time work: nothing acknowledged is lost, everything comes back by itself.

``python -m benchmarks.chaos [KILLS] [SEED]`` starts an instance of its own with ``./start``, state and all, in a folder that it removes.
"""

import http.client
import json
import os
import random
import shutil
import signal
import subprocess
import sys
import threading
import time
from hashlib import sha256
from pathlib import Path

ROOT = Path(__file__).parents[1]
PORT = 8790
EDITORS, JOBS = 6, 3
WHO = {"email": "baker@example.com", "password": "rye-free-and-easy"}
AWAY = (ConnectionError, http.client.HTTPException, OSError)


class Client:
    """Somebody signed in, who asks again while nobody answers."""

    def __init__(self) -> None:
        self.cookies: dict[str, str] = {}
        self.until("GET", "/sign-in")
        self.until("POST", "/_allauth/browser/v1/auth/login", WHO)

    def once(self, method: str, path: str, body: object = None) -> tuple[int, bytes]:
        connection = http.client.HTTPConnection("127.0.0.1", PORT, timeout=10)
        try:
            cookies = "; ".join(f"{k}={v}" for k, v in self.cookies.items())
            headers = {
                "Cookie": cookies,
                "Content-Type": "application/json",
                "X-CSRFToken": self.cookies.get("csrftoken", ""),
            }
            connection.request(method, path, json.dumps(body) if body is not None else None, headers)
            reply = connection.getresponse()
            for value in reply.headers.get_all("Set-Cookie") or []:
                name, _, rest = value.partition("=")
                self.cookies[name] = rest.partition(";")[0]
            return reply.status, reply.read()
        finally:
            connection.close()

    def until(self, method: str, path: str, body: object = None) -> bytes:
        for _ in range(400):
            try:
                status, data = self.once(method, path, body)
            except AWAY:
                status, data = 0, b""
            if 200 <= status < 300:
                return data
            if 400 <= status < 500 and status != 429:
                raise RuntimeError(f"{method} {path}: {status} {data[:300]!r}")
            time.sleep(0.1)
        raise RuntimeError(f"{method} {path}: no answer")


class Instance:
    """``./start`` with state of its own."""

    def __init__(self) -> None:
        self.local = Path(f"/var/tmp/substrata-chaos-{os.getpid()}")
        installed = Path(os.environ.get("SUBSTRATA_LOCAL", ROOT / ".local"))
        self.local.mkdir(mode=0o755)
        shutil.copytree(installed / "stamps", self.local / "stamps")
        packages = (ROOT / "requirements" / "base.txt").read_bytes()
        (self.local / "stamps" / "python-base").write_text(f"{sha256(packages).hexdigest()}  -\n")
        (self.local / "numba").symlink_to(installed / "numba")
        kept = {k: v for k, v in os.environ.items() if not k.startswith(("SUBSTRATA_", "PG", "NUMBA"))}
        self.environment = kept | {"SUBSTRATA_LOCAL": str(self.local)}
        self.begin("--port", str(PORT))

    def begin(self, *options: str) -> None:
        self.shell = subprocess.Popen(
            ["./start", *options], cwd=ROOT, env=self.environment, stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, start_new_session=True,
        )  # fmt: skip

    def parts(self) -> dict[str, list[int]]:
        """What runs of it, by name."""
        found: dict[str, list[int]] = {}
        for entry in Path("/proc").iterdir():
            if not entry.name.isdigit():
                continue
            try:
                own = f"SUBSTRATA_LOCAL={self.local}".encode() in (entry / "environ").read_bytes()
                words = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode()
            except OSError:
                continue
            names = {
                "config.serve": "server",
                "--skip-checks worker": "worker",
                "supervisord": "supervisor",
                "devices.simulate": "devices",
                "watch_database": "watch",
            }
            for part, name in names.items():
                if own and part in words:
                    found.setdefault(name, []).append(int(entry.name))
        pid = self.local / "pg" / "data" / "postmaster.pid"
        if pid.exists() and (number := pid.read_text().split()[:1]) and Path(f"/proc/{number[0]}").exists():
            found["database"] = [int(number[0])]
        return found

    def end(self) -> None:
        subprocess.run(["./start", "--stop"], cwd=ROOT, env=self.environment, capture_output=True, check=False)
        if self.shell.poll() is None:
            os.killpg(self.shell.pid, signal.SIGTERM)
            self.shell.wait(20)
        shutil.rmtree(self.local, ignore_errors=True)


def edit(place: str, number: int, stop: threading.Event, told: dict[int, int], errors: list[str]) -> None:
    """Count up in the notes of one formula; what was acknowledged is remembered."""
    client = Client()
    shown = json.loads(client.until("GET", place))
    lock, document, count = shown["lock"], shown["document"], 0
    while not stop.is_set():
        count += 1
        body = {"document": document | {"notes": f"count {count}"}, "lock": lock, "page": f"editor {number}"}
        try:
            status, data = client.once("PUT", f"{place}/draft", body)
        except AWAY:
            status, data = 0, b""
        if status == 200:
            lock, told[number] = json.loads(data)["lock"], count
        elif status not in (0, 500, 502, 503):
            errors.append(f"edit: {status} {data[:200]!r}")
        elif status == 500:
            errors.append("a 500")
        time.sleep(0.2)


def work(kitchen: str, document: dict, stop: threading.Event, done: list[str]) -> None:
    """One map after the other; what came of each."""
    client, minutes = Client(), 10.0
    while not stop.is_set():
        minutes += 0.5 + random.random()
        asked = json.loads(
            client.until(
                "POST", f"{kitchen}/jobs", {"kind": "oven-map", "document": document, "minutes": round(minutes, 2)}
            )
        )
        calm = None
        while True:
            # Under fire a job is begun again and again; once the kills are over it has to end.
            calm = calm or (time.monotonic() if stop.is_set() else None)
            state = json.loads(client.until("GET", f"{kitchen}/jobs/{asked['id']}"))["state"]
            if state not in ("waiting", "running") or (calm and time.monotonic() - calm > 120):
                done.append(state)
                break
            time.sleep(0.5)


def back(client: Client, instance: Instance, name: str = "nothing") -> float:
    """Seconds until it can work again."""
    begun = time.monotonic()
    while time.monotonic() - begun < 60:
        try:
            if client.once("GET", "/health/ready")[0] == 200:
                return time.monotonic() - begun
        except AWAY:
            pass
        time.sleep(0.05)
    raise SystemExit(f"it did not come back within a minute after {name} was killed; there is {instance.parts()}")


def main() -> None:
    kills, seed = (int(a) for a in (*sys.argv[1:], "100", "7")[:2]) if len(sys.argv) != 2 else (int(sys.argv[1]), 7)
    chance = random.Random(seed)
    instance = Instance()
    try:
        client = Client()
        me = json.loads(client.until("GET", "/api/me"))
        kitchen = f"/api/kitchens/{me['kitchens'][0]['id']}"
        formulas = [f["id"] for f in json.loads(client.until("GET", f"{kitchen}/formulas"))["items"]][:EDITORS]
        document = json.loads(client.until("GET", f"{kitchen}/formulas/{formulas[0]}"))["document"]
        stop, told, errors, done = threading.Event(), {}, [], []
        threads = [
            threading.Thread(target=edit, args=(f"{kitchen}/formulas/{f}", n, stop, told, errors))
            for n, f in enumerate(formulas)
        ]
        threads += [threading.Thread(target=work, args=(kitchen, document, stop, done)) for _ in range(JOBS)]
        for thread in threads:
            thread.start()
        while len(told) < EDITORS:
            time.sleep(0.2)
        killed: dict[str, list[float]] = {}
        for number in range(kills):
            parts = instance.parts()
            # ./start itself once; what it leaves behind goes on.
            name = "start" if number == kills // 2 else chance.choice(sorted(parts))
            victim = instance.shell.pid if name == "start" else chance.choice(parts[name])
            try:
                os.kill(victim, signal.SIGKILL)
            except ProcessLookupError:
                continue
            time.sleep(0.05)
            killed.setdefault(name, []).append(back(client, instance, name))
            if name == "start":
                instance.shell.wait()
                # Somebody types ./start again: it joins what runs.
                instance.begin()
            time.sleep(chance.uniform(0.2, 1.5))
        stop.set()
        for thread in threads:
            thread.join(240)
        back(client, instance)
        lost = 0
        for number, formula in enumerate(formulas):
            notes = json.loads(client.until("GET", f"{kitchen}/formulas/{formula}"))["document"]["notes"]
            lost += max(
                told.get(number, 0) - (int(notes.removeprefix("count ")) if notes.startswith("count ") else 0), 0
            )
        time.sleep(6)
        present = {name: len(pids) for name, pids in instance.parts().items()}
        for name, waits in sorted(killed.items()):
            waits.sort()
            print(
                f"{name:11} killed {len(waits):3}   ready again after median {waits[len(waits) // 2]:5.2f} s, most {waits[-1]:5.2f} s"
            )
        print(
            f"edits acknowledged {sum(told.values())}, lost {lost}; jobs {len(done)}: {sorted(set(done))}; odd answers {sorted(set(errors))}"
        )
        print(f"at the end there are {present}")
    finally:
        instance.end()


if __name__ == "__main__":
    main()
