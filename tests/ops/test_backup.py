"""What docs/deploy.md says of backing up, done: a dump, an empty database, and the same kitchen again."""

import os
import subprocess
from pathlib import Path

import psycopg
import pytest
from django.db import connection

from kitchen.demo.load import load_demo
from kitchen.models import Formula, OvenBake

COPY = "substrata_restored"


def tool(name, *arguments):
    """Run one of PostgreSQL's own programs against the test's server."""
    here = connection.settings_dict
    newest = max(Path("/usr/lib/postgresql").glob("*/bin"), key=lambda found: int(found.parent.name))
    environment = os.environ | {"PGHOST": here["HOST"], "PGPORT": str(here["PORT"]), "PGUSER": here["USER"], "PGPASSWORD": here["PASSWORD"]}  # fmt: skip
    done = subprocess.run([newest / name, *arguments], env=environment, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr


@pytest.fixture
def restored():
    """A connection to an empty database beside the test's own."""
    tool("dropdb", "--if-exists", COPY)
    tool("createdb", COPY)
    yield COPY
    tool("dropdb", "--force", COPY)


def rows(cursor):
    """Every table with its number of rows and a digest over all of them."""
    cursor.execute("select tablename from pg_tables where schemaname = 'public' order by 1")
    found = {}
    for (name,) in cursor.fetchall():
        cursor.execute(f"select count(*), md5(string_agg(t::text, '|' order by t::text)) from public.\"{name}\" t")  # noqa: S608 - names of our own tables
        found[name] = cursor.fetchone()
    return found


@pytest.mark.django_db(transaction=True)
def test_a_dumped_kitchen_comes_back_whole(restored, tmp_path):
    load_demo()
    here = connection.settings_dict
    dump = tmp_path / "substrata.dump"
    tool("pg_dump", "-Fc", "--file", str(dump), here["NAME"])
    tool("pg_restore", "-d", restored, str(dump))
    with connection.cursor() as cursor:
        before = rows(cursor)
    with psycopg.connect(
        host=here["HOST"], port=here["PORT"], user=here["USER"], password=here["PASSWORD"], dbname=restored
    ) as other:
        assert rows(other.cursor()) == before
    assert before[Formula._meta.db_table][0] >= 10
    assert before[OvenBake._meta.db_table][0] == 3
