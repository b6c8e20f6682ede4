"""``export`` on the command line."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path
from typing import Any

from substrata import Dough, load_library, read_document, recipe
from substrata.base import FormulaError
from substrata.cli.document_files import document_of
from substrata.cli.number_arguments import number
from substrata.cli.settings_arguments import add_settings_arguments, settings_of
from substrata.publishing import PAPERS, TEXT_STYLES, Recipe, as_pdf, recipe_html, written

_BYTES = ("xlsx", "pdf", "png")


def add_recipe_commands(commands: Any) -> None:
    """Add it to the parser's commands."""
    out = commands.add_parser("export", help="a formula as a recipe to hand on")
    out.add_argument("file", help="a *.substrata.json file, or - for standard input")
    out.add_argument("--to", required=True, choices=[*TEXT_STYLES, "html", *_BYTES])
    out.add_argument(
        "--out", help="file to write; asked for xlsx, pdf and png unless standard output is a file or a pipe"
    )
    out.add_argument("--batches", type=number(0.05, 200), default=1.0)
    out.add_argument("--paper", choices=PAPERS, default="a4")
    add_settings_arguments(out)
    out.set_defaults(command=_export)


def _export(options: argparse.Namespace) -> str:
    dough = Dough(read_document(document_of(options.file, "formula")), load_library(), settings_of(options))
    card = recipe(dough, batches=options.batches)
    if options.to in _BYTES:
        data = _bytes(dough, card, options)
        if options.out:
            _written_file(options.out, data)
            return f"written: {options.out}"
        if sys.stdout.isatty():
            raise FormulaError(
                "this format cannot be printed to the terminal",
                got=options.to,
                allowed="--out FILE",
                remedy="name a file",
                field="--out",
            )
        sys.stdout.buffer.write(data)
        return ""
    text = recipe_html(card, options.paper) if options.to == "html" else written(card, options.to)
    if options.out:
        _written_file(options.out, text.encode("utf8"))
        return f"written: {options.out}"
    return text.rstrip("\n")


def _bytes(dough: Dough, recipe: Recipe, options: argparse.Namespace) -> bytes:
    # Loaded here: not every export needs a workbook or a picture.
    from substrata.publishing import as_xlsx, core_png

    if options.to == "png":
        return core_png(dough)
    return as_xlsx(recipe) if options.to == "xlsx" else as_pdf(recipe_html(recipe, options.paper))


def _written_file(file: str, data: bytes) -> None:
    try:
        Path(file).write_bytes(data)
    except OSError as error:
        raise FormulaError(
            "the file cannot be written", got=str(error)[:120], allowed="a place to write to", field="--out"
        ) from error
