"""What docs/deploy.md says of backing up and restoring, done literally: its own lines, on an instance of ./start."""

import os
import re
import shutil
import signal
import subprocess
from pathlib import Path

import psycopg
import pytest

ROOT = Path(__file__).parents[2]
PAGE = (ROOT / "docs" / "deploy.md").read_text(encoding="utf8")
COUNTED = ("kitchen_formula", "kitchen_formulaversion", "kitchen_loggedbake", "kitchen_lot", "auth_user")


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
    shutil.copy(local / "stamps" / "python-dev", local / "stamps" / "python-base")
    (local / "numba").symlink_to(installed / "numba")
    kept = {key: value for key, value in os.environ.items() if not key.startswith(("SUBSTRATA_", "PG", "NUMBA"))}
    environment = kept | {"SUBSTRATA_LOCAL": str(local)}

    def run(lines):
        lines = [line.replace("kitchen.dump", str(tmp_path / "kitchen.dump")) for line in lines]
        done = subprocess.run(
            ["bash", "-ec", "\n".join(lines)],
            cwd=ROOT,
            env=environment,
            stdin=subprocess.DEVNULL,
            capture_output=True,
            text=True,
            check=False,
        )
        assert done.returncode == 0, done.stderr + done.stdout
        return done.stdout

    run.environment = environment
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


def counted(instance):
    """Rows of the tables that matter, asked of the running database."""
    told = instance(["source ops/database.sh", 'echo "$PGHOST $PGPORT $PGUSER $PGPASSWORD"']).split()[-4:]
    host, port, user, password = told
    with psycopg.connect(host=host, port=port, user=user, password=password, dbname="substrata") as database:
        return {table: database.execute(f"select count(*) from {table}").fetchone()[0] for table in COUNTED}  # noqa: S608 - our own names


def test_the_page_read_literally_brings_a_kitchen_back(instance):
    rows = {}

    def back_up():
        rows["before"] = counted(instance)
        instance(lines_under("Back up"))

    assert "demo kitchen loaded" in served(instance, back_up)
    restore = lines_under("Restore")
    assert restore[-1] == "./start"
    instance(restore[:-1])
    assert "demo kitchen loaded" not in served(instance, lambda: rows.update(after=counted(instance)))
    assert rows["after"] == rows["before"]
    assert rows["before"]["kitchen_formula"] >= 10
