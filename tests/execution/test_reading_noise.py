"""One table says how far a reading may be off; whoever lays a reading beside a forecast reads it there."""

import ast
import shutil
from pathlib import Path

import pytest

from substrata.base.errors import LibraryError
from substrata.base.tables import table_reader
from substrata.execution.reading_noise import reading_noise
from substrata.inference.calibration.oven_block import _remains
from tests.support.growing import DATA, forget_tables

CORE = Path(__file__).parents[2] / "substrata"


def test_an_instrument_and_what_a_formula_differs_add_as_variances():
    core = reading_noise("core")
    assert core.total == pytest.approx((core.sd**2 + core.remains**2) ** 0.5)
    assert core.total > core.sd > 0
    with pytest.raises(LibraryError, match="no such reading"):
        reading_noise("smell")


def test_every_kind_is_read_by_somebody_and_by_learning_and_diagnosis_alike():
    texts = {path.name: path.read_text(encoding="utf8") for path in CORE.rglob("*.py")}
    kinds = {row.text("reading") for row in table_reader.read_table("readings_noise.csv")}
    strings = {
        node.value for text in texts.values() for node in ast.walk(ast.parse(text)) if isinstance(node, ast.Constant)
    }
    assert kinds <= strings
    for reader in ("oven_block.py", "posterior.py", "live_forecast.py"):
        assert "reading_noise(" in texts[reader]


def test_a_number_that_is_changed_in_the_table_is_changed_for_the_learner(tmp_path, monkeypatch):
    shutil.copytree(DATA, tmp_path / "data")
    table = tmp_path / "data" / "readings_noise.csv"
    table.write_text(table.read_text(encoding="utf8").replace("core,3,1.5", "core,3,2.5"), encoding="utf8")
    before = _remains()["core"]
    monkeypatch.setattr(table_reader, "files", lambda _: tmp_path)
    forget_tables()
    after = _remains()["core"], reading_noise("core").remains
    monkeypatch.undo()
    forget_tables()
    assert (before, after) == (1.5, (2.5, 2.5))
