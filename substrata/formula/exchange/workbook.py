"""Read the first sheet of a workbook in a process of its own, which sees nothing but that sheet and its strings.

A workbook of a few kilobytes can unpack to styles or names that keep a library busy for a minute. So the parts that are not
needed are never opened, those that are needed have a limit each, and the process has limits of time and memory.
"""

from __future__ import annotations

import io
import json
import re
import resource
import subprocess
import sys
import zipfile
from pathlib import PurePosixPath

from substrata.base.errors import FormulaError

MOST_ROWS, MOST_COLUMNS = 400, 40
_MOST_SHEET = 20_000_000  # bytes of the sheet, and of the strings, unpacked
_MOST_NAMES = 300_000  # bytes of the parts that say which sheet is the first
_MOST_CELL = 2000  # characters
_SECONDS = 10
_MEMORY = 700_000_000  # bytes of address space: the library itself takes a third
_MAIN = "application/vnd.openxmlformats-officedocument.spreadsheetml"
_RELATION = "http://schemas.openxmlformats.org/officeDocument/2006/relationships"
_SHEET_NS = "http://schemas.openxmlformats.org/spreadsheetml/2006/main"


def read_first_sheet(data: bytes) -> list[list[str]]:
    """Read the cells of a workbook's first sheet as text.

    Args:
        data: the file.

    Returns:
        Up to 401 rows of up to 40 cells.

    Returns:
        Rows of cells.

    Raises:
        FormulaError: when it is no workbook, or too much for a recipe.
    """
    try:
        done = subprocess.run(
            [sys.executable, "-m", "substrata.formula.exchange.workbook"],
            input=data,
            capture_output=True,
            timeout=_SECONDS,
            check=False,
        )
    except subprocess.TimeoutExpired as error:
        raise _refused(f"more than {_SECONDS} s of work") from error
    if done.returncode != 0:
        complaint = done.stderr.decode("utf8", "replace").strip().splitlines()
        raise _refused(complaint[-1][:80] if complaint else "it stopped")
    rows: list[list[str]] = json.loads(done.stdout)
    return rows


def _limit() -> None:
    """Limit the memory and the processor time of this process."""
    resource.setrlimit(resource.RLIMIT_AS, (_MEMORY, _MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (_SECONDS, _SECONDS))


def _refused(got: str) -> FormulaError:
    return FormulaError(
        "the workbook cannot be read",
        got=got,
        allowed="an XLSX file with one sheet of ingredients",
        remedy="save the sheet as CSV and send that",
        field="file",
    )


def bare_workbook(data: bytes) -> bytes:
    """Make a workbook of the first sheet and its strings alone.

    Args:
        data: of a workbook.

    Returns:
        The bytes of the reduced workbook.

    Raises:
        ValueError: when a part is missing or too large.
        zipfile.BadZipFile: when it is no packed file.
    """
    with zipfile.ZipFile(io.BytesIO(data)) as packed:
        sheet = _part(packed, _first_sheet(packed), _MOST_SHEET)
        has_strings = "xl/sharedStrings.xml" in packed.namelist()
        strings = _part(packed, "xl/sharedStrings.xml", _MOST_SHEET) if has_strings else None
    result = io.BytesIO()
    with zipfile.ZipFile(result, "w", zipfile.ZIP_STORED) as bare:
        types = f'<Override PartName="/xl/worksheets/sheet1.xml" ContentType="{_MAIN}.worksheet+xml"/>'
        relations = f'<Relationship Id="rId1" Type="{_RELATION}/worksheet" Target="worksheets/sheet1.xml"/>'
        if strings is not None:
            bare.writestr("xl/sharedStrings.xml", strings)
            types += f'<Override PartName="/xl/sharedStrings.xml" ContentType="{_MAIN}.sharedStrings+xml"/>'
            relations += f'<Relationship Id="rId2" Type="{_RELATION}/sharedStrings" Target="sharedStrings.xml"/>'
        package = "http://schemas.openxmlformats.org/package/2006"
        bare.writestr(
            "[Content_Types].xml",
            f'<Types xmlns="{package}/content-types"><Default Extension="rels" ContentType='
            f'"application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>'
            f'<Override PartName="/xl/workbook.xml" ContentType="{_MAIN}.sheet.main+xml"/>{types}</Types>',
        )
        bare.writestr(
            "_rels/.rels",
            f'<Relationships xmlns="{package}/relationships"><Relationship Id="rId1" Type="{_RELATION}/officeDocument" '
            f'Target="xl/workbook.xml"/></Relationships>',
        )
        bare.writestr(
            "xl/_rels/workbook.xml.rels",
            f'<Relationships xmlns="{package}/relationships">{relations}</Relationships>',
        )
        bare.writestr(
            "xl/workbook.xml",
            f'<workbook xmlns="{_SHEET_NS}" xmlns:r="{_RELATION}"><sheets><sheet name="Sheet" sheetId="1" r:id="rId1"/>'
            f"</sheets></workbook>",
        )
        bare.writestr("xl/worksheets/sheet1.xml", sheet)
    return result.getvalue()


def _part(packed: zipfile.ZipFile, name: str, most: int) -> bytes:
    """Unpack a part, and no more of it than is allowed: the size that a file tells of itself may be a lie."""
    with packed.open(name) as part:
        content = part.read(most + 1)
    if len(content) > most:
        raise ValueError(f"{PurePosixPath(name).name}: more than {most:,} bytes")
    return content


def _first_sheet(packed: zipfile.ZipFile) -> str:
    """Find the part of the first sheet that the workbook lists."""
    book = _part(packed, "xl/workbook.xml", _MOST_NAMES).decode("utf8", "replace")
    links = _part(packed, "xl/_rels/workbook.xml.rels", _MOST_NAMES).decode("utf8", "replace")
    listed = re.search(r"<(?:\w+:)?sheet\b[^>]*?\br?:?id=\"(\w+)\"", book)
    relation = listed.group(1) if listed else ""
    for link in re.findall(r"<(?:\w+:)?Relationship\b[^>]*>", links):
        if re.search(rf'\bId="{re.escape(relation)}"', link) and (target := re.search(r'\bTarget="([^"]+)"', link)):
            path = target.group(1)
            return path.lstrip("/") if path.startswith("/") else f"xl/{path}"
    raise ValueError("it lists no sheet")


def _cell(value: object) -> str:
    return "" if value is None else f"{value:g}" if isinstance(value, float) else str(value)[:_MOST_CELL]


def main() -> None:
    """Read a workbook from the standard input and print its rows as JSON; for ``read_first_sheet``."""
    _limit()
    from openpyxl import load_workbook

    try:
        book = load_workbook(io.BytesIO(bare_workbook(sys.stdin.buffer.read())), read_only=True, data_only=True)
        rows = book.worksheets[0].iter_rows(max_row=MOST_ROWS + 1, max_col=MOST_COLUMNS, values_only=True)
        json.dump([[_cell(value) for value in row] for row in rows], sys.stdout)
    except Exception as error:  # noqa: BLE001 - the library's own refusals are of many kinds
        sys.exit(f"{type(error).__name__}: {error}"[:200])


if __name__ == "__main__":
    main()
