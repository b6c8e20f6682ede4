"""The analysis endpoint on one connection: wanted p95 20 ms. Starts a server on the cluster of the environment."""

import http.client
import json
import os
import re
import socket
import subprocess
import sys
import time

from benchmarks.formulas import TWELVE_LINES
from benchmarks.spread import line, timed

PASSWORD = "only-for-measuring"


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Client:
    """A signed-in keep-alive connection."""

    def __init__(self, port: int) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", port)
        self.cookies: dict[str, str] = {}
        self.call("GET", "/")

    def call(self, method: str, path: str, body: object = None) -> bytes:
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()), "Content-Type": "application/json"}
        headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")
        self.connection.request(method, path, json.dumps(body) if body is not None else None, headers)
        reply = self.connection.getresponse()
        for value in reply.headers.get_all("Set-Cookie") or []:
            name, _, rest = value.partition("=")
            self.cookies[name] = rest.partition(";")[0]
        data = reply.read()
        if reply.status >= 400:
            raise SystemExit(f"{method} {path}: {reply.status} {data[:200]!r}")
        return data


def main() -> None:
    port = free_port()
    environment = os.environ | {"DJANGO_SETTINGS_MODULE": "config.settings"}
    subprocess.run([sys.executable, "manage.py", "prepare", "--no-demo"], check=True, env=environment)
    server = subprocess.Popen(
        [sys.executable, "-m", "gunicorn", "config.wsgi", "--worker-class", "gthread", "--workers", "2", "--threads", "4",
         "--bind", f"127.0.0.1:{port}", "--preload", "--config", "config/gunicorn.py"],
        env=environment, stderr=subprocess.DEVNULL,
    )  # fmt: skip
    try:
        for _ in range(100):
            try:
                client = Client(port)
                break
            except ConnectionError:
                time.sleep(0.2)
        email = f"measure{time.time_ns()}@example.com"
        client.call("POST", "/_allauth/browser/v1/auth/signup", {"email": email, "password": PASSWORD})
        kitchen = re.search(rb'"kitchens":\[\{"id":(\d+)', client.call("GET", "/api/me"))
        assert kitchen
        path = f"/api/kitchens/{int(kitchen[1])}/analyse"
        durations = timed(lambda: client.call("POST", path, TWELVE_LINES), 400)
        print(line("analysis endpoint, one connection", durations, 20.0))
    finally:
        server.terminate()
        server.wait()


if __name__ == "__main__":
    main()
