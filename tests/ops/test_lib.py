"""The shell functions behind ./start and ./check, against real clusters in a folder of their own."""

import os
import shutil
import signal
import socketserver
import subprocess
from pathlib import Path
from threading import Thread

import pytest

ROOT = Path(__file__).parents[2]
PORT = 54601


@pytest.fixture
def shell(tmp_path):
    """Run lines of shell with the library loaded and its state in a temporary folder."""
    # PostgreSQL's own user has to enter every folder on the way.
    local = Path(f"/var/tmp/substrata-test-{os.getpid()}-{tmp_path.name}")  # noqa: S108
    local.mkdir(mode=0o755)

    def run(lines, check=True):
        script = f"set -euo pipefail\ncd {ROOT}\nsource ops/lib.sh\nneed_postgres\nHOME_PG=$(pg_home pg)\n{lines}"
        environment = os.environ | {"SUBSTRATA_LOCAL": str(local)}
        done = subprocess.run(["bash", "-c", script], capture_output=True, text=True, env=environment, check=False)
        assert not check or done.returncode == 0, done.stderr
        return done

    yield run
    run("pg_down $HOME_PG", check=False)
    shutil.rmtree(local, ignore_errors=True)


UP = f"pg_make $HOME_PG; pg_up $HOME_PG {PORT}; "
ASK = '"$PG_BIN/psql" "host=127.0.0.1 port=$DB_PORT user=substrata password=$SUBSTRATA_DB_PASSWORD dbname=substrata" -Atc "select 7"'


def postmaster(shell):
    return int(shell("head -1 $HOME_PG/data/postmaster.pid").stdout.split()[0])


def test_a_cluster_is_made_once_started_once_and_asks_for_its_password(shell):
    assert shell(UP + "echo started=$PG_STARTED; " + ASK).stdout.split()[-2:] == ["started=1", "7"]
    first = postmaster(shell)
    assert shell(UP + "echo started=$PG_STARTED; " + ASK).stdout.split() == ["started=0", "7"]
    assert postmaster(shell) == first
    wrong = ASK.replace("$SUBSTRATA_DB_PASSWORD", "guess")
    assert shell(UP + wrong, check=False).returncode != 0


def test_a_killed_database_comes_back_with_its_data(shell):
    shell(UP + ASK.replace("select 7", "create table kept as select 42 as n"))
    os.kill(postmaster(shell), signal.SIGKILL)
    assert shell(UP + ASK.replace("select 7", "select n from kept")).stdout.split()[-1] == "42"


def test_a_stale_pid_file_of_another_process_does_not_stop_it(shell):
    shell(UP)
    shell("pg_down $HOME_PG")
    # The number of a process that lives, and is no database.
    pid_file = shell("echo $HOME_PG/data/postmaster.pid").stdout.strip()
    shell(
        f"printf '%s\\n' {os.getpid()} $HOME_PG/data 1 {PORT} /tmp 127.0.0.1 ' 1 1' ready > {pid_file}; chown --reference=$HOME_PG/data {pid_file}"
    )
    assert shell(UP + ASK).stdout.split()[-1] == "7"


def test_a_busy_port_is_passed_over(shell):
    listener = subprocess.Popen(
        ["python3", "-m", "http.server", str(PORT), "--bind", "127.0.0.1"], stderr=subprocess.DEVNULL
    )
    try:
        shell(f"for _ in $(seq 50); do port_busy {PORT} && break; sleep 0.1; done")
        assert int(shell(UP + "echo $DB_PORT").stdout.split()[-1]) > PORT
    finally:
        listener.kill()
        listener.wait()


def test_an_unknown_option_is_refused_before_anything_is_started():
    for command, code in (
        (["./start", "--fly"], 1),
        (["./start", "--port", "x"], 1),
        (["./check", "--fly"], 2),
        (["./start", "--help"], 0),
    ):
        assert subprocess.run(command, cwd=ROOT, capture_output=True, check=False).returncode == code


@pytest.mark.parametrize(("answer", "serves"), [(b"HTTP/1.0 200 OK\r\n\r\n", True), (None, False)])
def test_a_port_serves_when_it_answers_and_not_when_it_only_gives_back_what_it_is_sent(shell, answer, serves):
    """A connection that meets itself hears its own words; ./start took that for its server once in thousands of starts."""

    class Handler(socketserver.StreamRequestHandler):
        def handle(self):
            asked = self.rfile.readline()
            self.wfile.write(answer or asked)

    with socketserver.TCPServer(("127.0.0.1", 0), Handler) as server:
        Thread(target=server.serve_forever, daemon=True).start()
        port = server.server_address[1]
        assert ("yes" in shell(f"serves {port} && echo yes || echo no").stdout) == serves
        server.shutdown()
