"""A backup is one file that proves itself: the database as it was at one moment, the letters of the outbox, and what to expect of both.

``python -m ops.keeping back-up FILE`` and ``python -m ops.keeping restore FILE [--replace]``; ``./backup`` and ``./restore`` find the
database first. PostgreSQL's own programs do the work; the connection is theirs too (``PGHOST``, ``PGPORT``, ``PGUSER``, ``PGPASSWORD``,
``PGDATABASE``).
"""

import argparse
import hashlib
import json
import os
import shutil
import subprocess
import sys
import tarfile
import tempfile
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import psycopg
from psycopg import sql

FORMAT = 1
DUMP, OUTBOX, MANIFEST = "database.dump", "outbox", "manifest.json"
# What is of the moment and not kept: who is signed in on which machine's cache, and how the workers are.
PASSING = frozenset({"cache", "procrastinate_workers"})


class Stopped(Exception):  # noqa: N818
    """What is wrong and what to do, in one sentence."""


def outbox() -> Path:
    """Return the folder that stands in for a mail server."""
    local = Path(os.environ.get("SUBSTRATA_LOCAL", ".local"))
    return Path(os.environ.get("SUBSTRATA_MAIL_FOLDER", local / "outbox"))


def contents(database: psycopg.Connection[Any]) -> dict[str, list[str]]:
    """Of every table the number of its rows and a sum over all that they hold, which no order changes."""
    names = database.execute("select tablename from pg_tables where schemaname = 'public' order by 1").fetchall()
    query = "select count(*)::text, coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text from {} t"
    return {
        name: list(database.execute(sql.SQL(query).format(sql.Identifier(name))).fetchone() or ())  # type: ignore[arg-type]
        for (name,) in names
        if name not in PASSING
    }


def back_up(file: Path) -> dict[str, Any]:
    """Write a backup; returns what it says of itself.

    Returns:
        The backup's manifest.

    Raises:
        Stopped: when the file is there already.
    """
    if file.exists():
        raise Stopped(f"{file} is there already: name another file.")
    with tempfile.TemporaryDirectory(dir=file.resolve().parent) as folder:
        dump = Path(folder) / DUMP
        with psycopg.connect() as database:
            database.isolation_level = psycopg.IsolationLevel.REPEATABLE_READ
            # Counted and dumped at one and the same moment, whatever is written meanwhile.
            snapshot = database.execute("select pg_export_snapshot()").fetchone()[0]  # type: ignore[index]
            _run("pg_dump", "-Fc", f"--snapshot={snapshot}", f"--file={dump}")
            tables = contents(database)
        letters = sorted(outbox().glob("*.eml")) if outbox().exists() else []
        manifest = {
            "substrata backup": FORMAT,
            "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
            "tables": tables,
            "files": {DUMP: _sum(dump)} | {f"{OUTBOX}/{f.name}": _sum(f) for f in letters},
        }
        (Path(folder) / MANIFEST).write_text(json.dumps(manifest, indent=1), encoding="utf8")
        half = Path(folder) / "half"
        with tarfile.open(half, "w") as tar:
            for name, path in (
                (MANIFEST, Path(folder) / MANIFEST),
                (DUMP, dump),
                *((f"{OUTBOX}/{f.name}", f) for f in letters),
            ):
                tar.add(path, name)
        half.chmod(0o600)  # it holds everything
        half.rename(file)
    return manifest


def restore(file: Path, *, replace: bool) -> dict[str, Any]:
    """Bring a backup back: into a database beside the present one, looked through there, and only then in its place.

    Returns:
        The restored backup's manifest.

    Raises:
        Stopped: when the file is not whole, the database holds something, or somebody uses it.
    """
    name = os.environ["PGDATABASE"]
    with tempfile.TemporaryDirectory() as folder:
        manifest = _unpacked(file, Path(folder))
        with psycopg.connect(dbname=name) as present:
            held = present.execute("select count(*) from pg_tables where schemaname = 'public'").fetchone()[0]  # type: ignore[index]
            users = present.execute(
                "select count(*) from pg_stat_activity where datname = %s and pid <> pg_backend_pid()", [name]
            ).fetchone()[0]  # type: ignore[index]
        if held and not replace:
            raise Stopped(
                f"the database “{name}” holds something: stop, or say --replace to put it aside under another name."
            )
        if users:
            raise Stopped("somebody uses the database: stop ./start (or the server and its workers) first.")
        stamp = f"{datetime.now(UTC):%Y%m%d_%H%M%S}"
        beside, aside = f"{name}_restored_{stamp}", f"{name}_before_{stamp}"
        with psycopg.connect(dbname="postgres", autocommit=True) as server:
            server.execute(sql.SQL("create database {}").format(sql.Identifier(beside)))
            try:
                _run("pg_restore", "--exit-on-error", "--no-owner", f"--dbname={beside}", str(Path(folder) / DUMP))
                with psycopg.connect(dbname=beside) as restored:
                    _compared(contents(restored), manifest["tables"])
            except Exception:
                server.execute(sql.SQL("drop database {}").format(sql.Identifier(beside)))
                raise
            rename = sql.SQL("alter database {} rename to {}")
            if held:
                server.execute(rename.format(sql.Identifier(name), sql.Identifier(aside)))
            else:
                server.execute(sql.SQL("drop database {}").format(sql.Identifier(name)))
            server.execute(rename.format(sql.Identifier(beside), sql.Identifier(name)))
        for letter in (Path(folder) / OUTBOX).glob("*.eml"):
            outbox().mkdir(parents=True, exist_ok=True)
            (outbox() / letter.name).write_bytes(letter.read_bytes())
    return manifest | {"aside": aside if held else ""}


def _taken_out(tar: tarfile.TarFile, folder: Path) -> None:
    """Plain files alone, and none outside the folder: Debian's Python does not know the filter that later ones have for it."""
    for member in tar.getmembers():
        place = (folder / member.name).resolve()
        if member.isdir():
            continue
        source = tar.extractfile(member) if member.isfile() else None
        if source is None or not place.is_relative_to(folder.resolve()):
            raise tarfile.TarError(f"{member.name} is no file of a backup")
        place.parent.mkdir(parents=True, exist_ok=True)
        with source, place.open("wb") as out:
            shutil.copyfileobj(source, out)


def _unpacked(file: Path, folder: Path) -> dict[str, Any]:
    try:
        with tarfile.open(file) as tar:
            _taken_out(tar, folder)
        manifest: dict[str, Any] = json.loads((folder / MANIFEST).read_text(encoding="utf8"))
        wrong = [name for name, wanted in manifest["files"].items() if _sum(folder / name) != wanted]
    except (OSError, tarfile.TarError, ValueError, KeyError) as error:
        raise Stopped(f"{file} is no backup of Substrata, or not a whole one ({error}).") from None
    if manifest.get("substrata backup") != FORMAT:
        raise Stopped(
            f"{file} is of another format ({manifest.get('substrata backup')}): restore it with the version that made it."
        )
    if wrong:
        raise Stopped(f"{file} is damaged ({', '.join(wrong)}): take another backup.")
    return manifest


def _compared(restored: dict[str, list[str]], wanted: dict[str, list[str]]) -> None:
    wrong = sorted(name for name in {*restored, *wanted} if restored.get(name) != wanted.get(name))
    if wrong:
        raise Stopped(f"what was restored is not what was backed up ({', '.join(wrong)}): nothing was changed.")


def _sum(path: Path) -> str:
    with path.open("rb") as stream:
        return hashlib.file_digest(stream, "sha256").hexdigest()


def _run(*command: str) -> None:
    done = subprocess.run(command, capture_output=True, text=True, check=False)  # noqa: S603 - our own arguments
    if done.returncode:
        raise Stopped(f"{command[0]}: {done.stderr.strip()[-400:]}")


def main() -> int:
    """Do what the command line says; 1 with a sentence where it cannot be done."""
    parser = argparse.ArgumentParser(description="Back a kitchen up, or bring it back.")
    parser.add_argument("what", choices=("back-up", "restore"))
    parser.add_argument("file", type=Path)
    parser.add_argument("--replace", action="store_true", help="put what the database holds aside")
    given = parser.parse_args()
    try:
        told = back_up(given.file) if given.what == "back-up" else restore(given.file, replace=given.replace)
    except (Stopped, psycopg.Error) as error:
        print(f"substrata: {str(error).strip()}", file=sys.stderr)
        return 1
    rows = sum(int(count) for count, _ in told["tables"].values())
    done = "backed up" if given.what == "back-up" else "restored and compared"
    print(
        f"· {done}: {rows} rows in {len(told['tables'])} tables, {len(told['files']) - 1} letters ({told['made_at']})"
    )
    if told.get("aside"):
        print(f"· what was there before is the database {told['aside']}: drop it when you need it no more")
    return 0


if __name__ == "__main__":
    sys.exit(main())
