"""What docs/deploy.md says of backing up and restoring, done literally: its own lines, on an instance of ./start."""

import os
import re
import shutil
import signal
import subprocess
import time
from contextlib import suppress
from hashlib import sha256
from pathlib import Path
from urllib.request import urlopen

import psycopg
import pytest

from ops.keeping import contents

ROOT = Path(__file__).parents[2]
PAGE = (ROOT / "docs" / "deploy.md").read_text(encoding="utf8")


def lines_under(heading):
    """The lines of the shell block that follows a heading of the page."""
    return re.search(rf"### {heading}\n.*?```sh\n(.*?)```", PAGE, re.DOTALL).group(1).splitlines()


@pytest.fixture
def instance(tmp_path):
    """Run lines of shell as a baker would, with ./start's state in a folder of its own (set-up is taken over)."""
    local = Path(f"/var/tmp/substrata-backup-{os.getpid()}")  # noqa: S108 - PostgreSQL's own user has to enter it
    local.mkdir(mode=0o755)
    installed = Path(os.environ.get("SUBSTRATA_LOCAL", ROOT / ".local"))
    shutil.copytree(installed / "stamps", local / "stamps")
    packages = (ROOT / "requirements" / "base.txt").read_bytes()
    (local / "stamps" / "python-base").write_text(f"{sha256(packages).hexdigest()}  -\n")
    (local / "numba").symlink_to(installed / "numba")
    kept = {key: value for key, value in os.environ.items() if not key.startswith(("SUBSTRATA_", "PG", "NUMBA"))}
    environment = kept | {"SUBSTRATA_LOCAL": str(local)}

    def done(lines):
        lines = [line.replace("kitchen.backup", str(tmp_path / "kitchen.backup")) for line in lines]
        return subprocess.run(
            ["bash", "-ec", "\n".join(lines)],
            cwd=ROOT,
            env=environment,
            stdin=subprocess.DEVNULL,
            capture_output=True,
            text=True,
            check=False,
        )

    def run(lines):
        ended = done(lines)
        assert ended.returncode == 0, ended.stderr + ended.stdout
        return ended.stdout

    def refused(lines):
        ended = done(lines)
        assert ended.returncode == 1
        return ended.stderr

    run.environment, run.refused = environment, refused
    yield run
    run(["source ops/database.sh", 'pg_down "$HOME_PG"'])
    shutil.rmtree(local, ignore_errors=True)


def served(instance, meanwhile=lambda: None):
    """Serve with ./start until it says its address, and stop it."""
    with subprocess.Popen(
        ["./start", "--port", "24790"], cwd=ROOT, env=instance.environment, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, start_new_session=True,
    ) as server:  # fmt: skip
        said = []
        try:
            for line in server.stdout:
                said.append(line)
                if "Ctrl-C" in line:
                    break
            else:
                pytest.fail("".join(said))
            meanwhile()
        finally:
            # Not Ctrl-C: what a test runner starts in the background ignores it.
            with suppress(ProcessLookupError):  # it was stopped already
                os.killpg(server.pid, signal.SIGTERM)
            said.append(server.stdout.read())
    return "".join(said)


def held(instance):
    """Of every table the rows and the sum over what they hold, asked of the running database by the project's own query."""
    told = instance(["source ops/database.sh", 'echo "$PGHOST $PGPORT $PGUSER $PGPASSWORD"']).split()[-4:]
    host, port, user, password = told
    with psycopg.connect(host=host, port=port, user=user, password=password, dbname="substrata") as database:
        found = contents(database)
        # What the sum is worth: one letter in one row is another sum.
        before = found["kitchen_formula"]
        database.execute(
            "update kitchen_formula set name = name || '.' where id = (select min(id) from kitchen_formula)"
        )
        assert contents(database)["kitchen_formula"] != before
        database.rollback()
    # Starting asks the worker for fresh thumbs and clears what is due.
    return {table: rows for table, rows in found.items() if not table.startswith(("procrastinate_", "django_session"))}


def test_the_page_read_literally_brings_every_row_back_into_a_new_instance(instance, tmp_path):
    rows = {}

    def back_up():
        rows["before"] = held(instance)
        instance(lines_under("Back up"))

    assert "demo kitchen loaded" in served(instance, back_up)
    restore = lines_under("Restore")
    assert restore[-1] == "./start"
    again = instance.refused(restore[:-1])
    assert "holds something" in again
    damaged = bytearray((tmp_path / "kitchen.backup").read_bytes())
    damaged[len(damaged) // 2] ^= 1
    (tmp_path / "damaged.backup").write_bytes(damaged)
    assert "is damaged" in instance.refused([f"./restore {tmp_path}/damaged.backup --replace"])
    shutil.rmtree(Path(instance.environment["SUBSTRATA_LOCAL"]) / "pg")
    instance(restore[:-1])
    assert "demo kitchen loaded" not in served(instance, lambda: rows.update(after=held(instance)))
    assert rows["after"] == rows["before"]
    assert int(rows["before"]["kitchen_formula"][0]) >= 10


def running(local, words):
    """Processes of an instance whose command holds some words."""
    found = []
    for entry in Path("/proc").iterdir():
        try:
            command = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode() if entry.name.isdigit() else ""
            if words in command and f"SUBSTRATA_LOCAL={local}".encode() in (entry / "environ").read_bytes():
                found.append(int(entry.name))
        except OSError:
            continue
    return found


def ready(minutes=1.0):
    """Whether the instance can work (again) within some time."""
    until = time.monotonic() + 60 * minutes
    while time.monotonic() < until:
        try:
            with urlopen("http://127.0.0.1:24790/health/ready", timeout=5) as reply:
                return reply.status == 200
        except OSError:
            time.sleep(0.1)
    return False


def test_what_is_killed_comes_back_a_second_start_joins_and_stop_stops(instance):
    local = instance.environment["SUBSTRATA_LOCAL"]
    kills = ("config.serve", "skip-checks worker", "supervisord")

    def kill_and_look():
        assert ready()
        database = Path(local) / "pg" / "data" / "postmaster.pid"
        for victims in (*(running(local, words) for words in kills), [int(database.read_text().split()[0])]):
            assert victims
            for pid in victims:
                os.kill(pid, signal.SIGKILL)
            time.sleep(0.3)
            assert ready()
        # Another ./start joins; with other wishes it refuses; and --stop stops what the first has started.
        assert "runs already" in instance.refused(["timeout 20 ./start --port 24791"])
        said = instance(["timeout --signal=INT 2 ./start || true"])
        assert "it runs already, at http://localhost:24790" in said
        assert ready()
        assert "stopped" in instance(["./start --stop"])
        assert not running(local, "config.serve")

    said = served(instance, kill_and_look)
    assert "the supervisor has ended; it is started again" in said
    assert "nothing runs here" in instance(["./start --stop"])
