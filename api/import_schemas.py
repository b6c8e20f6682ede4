"""What goes in and out while a file of products is on its way into the pantry."""

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import StringConstraints

from api.document_schemas import Text
from api.job_schemas import JobOut
from kitchen.models import PackImport
from kitchen.services.imports import MOST_BAD_KEPT, NO_TABLE, bad_row, preview


class ImportIn(Schema):
    """A file of products."""

    file_name: Annotated[str, StringConstraints(max_length=200)] = ""
    text: str


class MatchIn(Schema):
    """How the columns are to be read."""

    columns: list[Text]
    style: Text = ""
    per_100: bool


class BadRowOut(Schema):
    """A row that cannot be read."""

    number: int
    name: str
    what: str
    got: str
    allowed: str
    remedy: str
    field: str


class PreviewRow(Schema):
    """One of the first rows, as the file has it and as it is read."""

    number: int
    cells: list[str]
    name: str
    ingredient: str
    problem: BadRowOut | None


class ImportOut(Schema):
    """An import on its way."""

    id: int
    file_name: str
    kind: str
    state: str
    total: int
    good: int
    odd: int
    bad: list[BadRowOut]
    bad_kept: int
    headers: list[str]
    columns: list[str]
    style: str
    per_100: bool
    rows: list[PreviewRow]
    job: JobOut | None  # the last one
    created_at: datetime

    @classmethod
    def of(cls, found: PackImport) -> "ImportOut":
        """An import with its first rows."""
        resting = found.state in (PackImport.State.MATCHING, PackImport.State.CHECKED)
        table, read = preview(found) if resting else (NO_TABLE, [])
        rows = [
            PreviewRow(
                number=row.number,
                cells=[cell[:80] for cell in cells],
                name=row.name,
                ingredient=row.lot.ingredient if row.lot else "",
                problem=BadRowOut(**bad_row(row)) if row.problem else None,
            )
            for row, cells in zip(read, table.rows, strict=False)
        ]
        return cls(
            id=found.pk,
            file_name=found.file_name,
            kind=found.kind,
            state=found.state,
            total=found.total,
            good=found.good,
            odd=found.odd,
            bad=[BadRowOut(**row) for row in found.bad],
            bad_kept=MOST_BAD_KEPT,
            headers=list(table.headers),
            columns=found.fields,
            style=found.style,
            per_100=found.per_100,
            rows=rows,
            job=JobOut.of(found.job) if found.job else None,
            created_at=found.created_at,
        )
