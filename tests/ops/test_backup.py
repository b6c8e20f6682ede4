"""What docs/deploy.md says of backing up and restoring, done literally: its own lines, on an instance of ./start."""

import os
import re
import shutil
import signal
import subprocess
from hashlib import sha256
from pathlib import Path

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
        ["./start", "--port", "54790"], cwd=ROOT, env=instance.environment, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, start_new_session=True,
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
            os.killpg(server.pid, signal.SIGTERM)
            server.stdout.read()
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
