"""A list of bakes as a table: any order of columns, any of three separators, and a clear word for what cannot be read."""

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from substrata.base.errors import FormulaError
from substrata.scheduling.plans.bake_list import BakeRow, read_bakes, write_bakes


@pytest.mark.parametrize("parted", [",", ";", "\t"])
def test_columns_are_known_by_their_names(parted):
    head = ["Batches", "Ready by", "note", "Bake"]
    rows = [["2", "2026-11-28 14:00", "x", "Rolls"], ["", "2026-11-28T09:30", "", "Lemon coins"]]
    text = "\ufeff" + "\n".join(parted.join(row) for row in (head, *rows)) + "\n\n"
    told = read_bakes(text)
    assert [(r.formula, r.ready, r.batches, r.fresh_h) for r in told] == [
        ("Rolls", "2026-11-28T14:00", 2.0, None),
        ("Lemon coins", "2026-11-28T09:30", 1.0, None),
    ]


NAMES = st.text(
    st.characters(codec="utf8", exclude_characters="\r\n\0", exclude_categories=("C", "Z")), min_size=1, max_size=20
)


@given(
    st.lists(
        st.builds(
            BakeRow,
            row=st.just(0),
            formula=NAMES.filter(lambda name: name[0] not in "=+-@'"),
            ready=st.datetimes().map(lambda at: at.isoformat(timespec="minutes")),
            batches=st.sampled_from([0.5, 1.0, 2.25]),
            fresh_h=st.sampled_from([None, 3.0]),
        ),
        min_size=1,
        max_size=24,
    )
)
def test_what_is_written_is_read_again(rows):
    told = read_bakes(write_bakes(rows))
    assert [vars(r) | {"row": 0} for r in told] == [vars(r) for r in rows]
    # And by the standard library's own reader.
    assert len(list(csv.DictReader(io.StringIO(write_bakes(rows))))) == len(rows)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "no columns"),
        ("a,b\n1,2", "no columns"),
        ("formula,ready", "bakes in one plan"),
        ("formula,ready\nRolls,tomorrow", "row 2"),
        ("formula,ready\nRolls,2026-11-28\n,2026-11-28", "row 3: no formula"),
        ("formula,ready,batches\nRolls,2026-11-28,many", "row 2: the number"),
        ("formula,ready,batches\nRolls,2026-11-28,999", "row 2: too many batches"),
        ("formula,ready,fresh\nRolls,2026-11-28,-1", "row 2: the number"),
        ("formula,ready\n" + "Rolls,2026-11-28\n" * 30, "bakes in one plan"),
        ("x" * 300_000, "too long"),
        ('"' + "x" * 190_000, "not a table"),
    ],
)
def test_what_cannot_be_read_says_where(text, words):
    with pytest.raises(FormulaError) as error:
        read_bakes(text)
    assert words in str(error.value)
    assert error.value.field == "text"


@pytest.mark.parametrize("end", ["\r\n", "\r", "\n"])
def test_lines_may_end_as_any_machine_ends_them(end):
    told = read_bakes(f"formula,ready{end}Rolls,2026-11-28 14:00{end}Loaf,2026-11-28 15:00")
    assert [row.formula for row in told] == ["Rolls", "Loaf"]
