"""The shipped tables with rows of a test's own, for a while: what is added by data alone."""

import shutil
import sys
from contextlib import contextmanager
from pathlib import Path

from substrata.base.tables import table_reader as tables

DATA = Path(tables.__file__).parents[2] / "data"


def forget_tables():
    """Whatever the core has read of its tables is read anew."""
    for name, module in list(sys.modules.items()):
        if name.startswith("substrata"):
            for value in list(vars(module).values()):
                if hasattr(value, "cache_clear"):
                    value.cache_clear()


@contextmanager
def grown(folder, monkeypatch, rows):
    """More rows in some tables: table -> a row like another, with other cells.

    Args:
        folder: an empty one.
        monkeypatch: pytest's.
        rows: table -> (column, value of the row to copy, cells that differ); without a value the copied row is left out.
    """
    shutil.copytree(DATA, folder / "data")
    for table, (column, like, cells) in rows.items():
        path = folder / "data" / table
        text = path.read_text(encoding="utf8")
        row = next(r for r in tables.rows_of(text, table) if r.text(column) == like)
        made = {**row.cells, **cells}
        path.write_text(text + ",".join(f'"{cell}"' for cell in made.values()) + "\n", encoding="utf8")
    with monkeypatch.context() as patch:
        patch.setattr(tables, "files", lambda _: folder)
        forget_tables()
        yield
    forget_tables()
