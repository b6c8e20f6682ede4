"""Dataclasses that take their fields at once stay what they were."""

from dataclasses import FrozenInstanceError, asdict, dataclass, field, replace

import pytest

from substrata.base.bulk_dataclass import in_bulk


@in_bulk
@dataclass(frozen=True, kw_only=True)
class Row:
    name: str
    grams: float
    lines: tuple[str, ...] = ()


def test_it_is_frozen_compared_copied_and_written_as_before():
    row = Row(name="psyllium", grams=12.0)
    assert row == Row(name="psyllium", grams=12.0, lines=())
    assert replace(row, grams=13.0).grams == 13.0
    assert asdict(row) == {"name": "psyllium", "grams": 12.0, "lines": ()}
    assert hash(row) == hash(Row(name="psyllium", grams=12.0))
    with pytest.raises(FrozenInstanceError):
        row.grams = 14.0


def test_a_field_that_would_be_missed_is_refused():
    @dataclass(frozen=True, kw_only=True)
    class Made:
        lines: list = field(default_factory=list)

    @dataclass(frozen=True)
    class Unnamed:
        name: str

    for cls in (Made, Unnamed):
        with pytest.raises(TypeError, match="must be named"):
            in_bulk(cls)
