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
        rows: table -> (column, value of the row to copy, cells that differ), or a list of them; every row with the value is copied.
    """
    shutil.copytree(DATA, folder / "data")
    for table, copies in rows.items():
        path = folder / "data" / table
        text = path.read_text(encoding="utf8")
        for column, like, cells in copies if isinstance(copies, list) else [copies]:
            alike = [row for row in tables.rows_of(text, table) if row.text(column) == like]
            new = [",".join(f'"{cell}"' for cell in {**row.cells, **cells}.values()) + "\n" for row in alike]
            path.write_text(path.read_text(encoding="utf8") + "".join(new), encoding="utf8")
    with monkeypatch.context() as patch:
        patch.setattr(tables, "files", lambda _: folder)
        forget_tables()
        yield
    forget_tables()
