"""A recipe as a workbook: ingredients, method, figures."""

from __future__ import annotations

import io
from typing import Any

from substrata.publishing.recipe import Recipe
from substrata.publishing.recipe_formats import COLUMNS, ingredient_rows


def as_xlsx(recipe: Recipe) -> bytes:
    """Return the workbook."""
    from openpyxl import Workbook
    from openpyxl.styles import Font

    book = Workbook()
    first = book.active
    first.title = "Ingredients"
    _filled(first, [list(COLUMNS), *ingredient_rows(recipe)])
    steps: list[list[Any]] = [[n, step.title, step.text] for n, step in enumerate(recipe.steps, 1)]
    _filled(
        book.create_sheet("Method"),
        [["step", "part", "what"], *steps],
    )
    figures: list[list[Any]] = [["figure", "per piece", "per 100 g"], *([*row] for row in recipe.figures)]
    _filled(book.create_sheet("Figures"), figures)
    if recipe.variants:
        _filled(book.create_sheet("Variants"), [["variant", "what"], *([v.name, str(v.text)] for v in recipe.variants)])
    about: list[list[Any]] = [
        ["name", recipe.name],
        ["makes", str(recipe.yields)],
        ["pieces", recipe.pieces],
        ["keeping", str(recipe.keeping.text)],
    ]
    _filled(book.create_sheet("About"), about)
    for sheet in book.worksheets:
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for letter, width in (("A", 18), ("B", 34), ("C", 60 if sheet.title == "Method" else 14), ("D", 18), ("E", 30)):
            sheet.column_dimensions[letter].width = width
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _filled(sheet: Any, rows: list[list[Any]]) -> None:
    for r, row in enumerate(rows, 1):
        for c, value in enumerate(row, 1):
            cell = sheet.cell(row=r, column=c)
            cell.value = value
            if isinstance(value, str):
                cell.data_type = "s"  # text, whatever it begins with
