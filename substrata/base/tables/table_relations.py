"""How the shipped tables hang together (``relations.csv``): a row that one table wants of another stops the start by name.

``every``: each id has a row in the table. ``known``: each value in the table is an id; a cell may hold several words, may be
empty, and a word with a colon or an equals sign is looked up by what stands before it, or belongs to no table.
"""

from __future__ import annotations

from functools import cache

from substrata.base.errors import LibraryError
from substrata.base.tables.table_reader import Row, read_table


@cache
def check_relations() -> None:
    """Check every relation, once.

    Raises:
        LibraryError: naming the file and the row that is wanted.
    """
    for relation in read_table("relations.csv"):
        ids = {row.text(relation.text("ids_column")) for row in read_table(relation.text("ids_table"))}
        if relation.text("rule") == "every":
            _every(relation, ids)
        else:
            _known(relation, ids)


def _every(relation: Row, ids: set[str]) -> None:
    table, column = relation.text("table"), relation.text("column")
    present = {row.text(column) for row in read_table(table)}
    for missing in sorted(ids - present):
        raise LibraryError(
            f"{table}: no row for the {column} {missing}",
            got=f"{missing} in {relation.text('ids_table')} only",
            allowed=f"a row for every {relation.text('ids_column')}",
            remedy=f"add a row with {column} = {missing} to {table}",
            field=column,
        )


def _known(relation: Row, ids: set[str]) -> None:
    for row in read_table(relation.text("table")):
        for word in row.text(relation.text("column")).split():
            if word.partition("=")[0] not in ids and not word.startswith("role:"):
                raise row.error(
                    f"{relation.text('column')} is not known",
                    got=word,
                    allowed=f"a {relation.text('ids_column')} of {relation.text('ids_table')}",
                )
