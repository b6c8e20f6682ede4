"""What goes in and out while a file of products is on its way into the pantry."""

from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import StringConstraints

from api.document_schemas import Text
from api.job_schemas import JobOut
from kitchen.models import PackImport
from kitchen.services.imports import MAX_BAD_ROWS, NO_TABLE, bad_row, preview


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
    def from_service(cls, imported: PackImport) -> "ImportOut":
        """Build an import with its first rows."""
        resting = imported.state in (PackImport.State.MATCHING, PackImport.State.CHECKED)
        table, read = preview(imported) if resting else (NO_TABLE, [])
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
            id=imported.pk,
            file_name=imported.file_name,
            kind=imported.kind,
            state=imported.state,
            total=imported.total,
            good=imported.good,
            odd=imported.odd,
            bad=[BadRowOut(**row) for row in imported.bad],
            bad_kept=MAX_BAD_ROWS,
            headers=list(table.headers),
            columns=imported.fields,
            style=imported.style,
            per_100=imported.per_100,
            rows=rows,
            job=JobOut.from_service(imported.job) if imported.job else None,
            created_at=imported.created_at,
        )
