"""The command line: the same core, JSON in, JSON out, ``--table`` for people.

``python -m substrata analyse F`` · ``card F`` · ``prep F`` · ``shape F`` · ``bake F`` · ``check-label L`` · ``import FILE`` ·
``balance F`` · ``swap F`` · ``reach F KEY`` · ``begin`` · ``steps F`` · ``feel F`` · ``why RUN`` · ``learn RUNS`` · ``plan P`` ·
``shopping P`` · ``export F --to STYLE`` · ``schema``. Bad input ends with exit code 2 and one line.
"""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any, NoReturn

from substrata import Dough, prep, shape
from substrata.base import Reader, SubstrataError, plain, reading, setting_options
from substrata.cli.balance_commands import add_balance_commands
from substrata.cli.document_files import document_of, read_bytes
from substrata.cli.execution_commands import add_execution_commands
from substrata.cli.inference_commands import add_inference_commands
from substrata.cli.number_arguments import count, number
from substrata.cli.plan_commands import add_plan_commands
from substrata.cli.publishing_commands import add_recipe_commands
from substrata.cli.settings_arguments import add_settings_arguments, settings_of
from substrata.evaluation import Analysis, analyse
from substrata.formula import (
    Formula,
    document_schema,
    file_recipe,
    import_text,
    read_document,
    with_phrases,
    write_document,
)
from substrata.ingredients import check_lot, load_library, read_lot, read_pack
from substrata.publishing import card

BAD_INPUT = 2


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    options = _parser().parse_args(arguments)
    try:
        command: Callable[[argparse.Namespace], str] = options.command
        with reading(_reader(options)):
            text = command(options)
        if text:
            print(text, flush=True)
    except BrokenPipeError:
        # Whoever reads has seen enough; nothing more is written, not even on the way out.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except SubstrataError as error:
        print(f"substrata: {error}", file=sys.stderr)
        return BAD_INPUT
    return 0


def _reader(options: argparse.Namespace) -> Reader:
    """Return in which units the texts of a command are read: those asked for, else those of its settings."""
    chosen = settings_of(options).units if getattr(options, "settings", None) else "metric"
    return Reader(units=options.units or chosen)


class _Parser(argparse.ArgumentParser):
    """Refuses in one line, as everything here."""

    def error(self, message: str) -> NoReturn:
        """Say it and end."""
        print(f"substrata: {message}; see {self.prog} --help", file=sys.stderr)
        raise SystemExit(BAD_INPUT)


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(prog="substrata", description=__doc__.partition("\n")[0] if __doc__ else None)
    parser.add_argument("--units", choices=setting_options()["units"], help="of all texts; else those of --settings")
    commands = parser.add_subparsers(required=True)
    judge = commands.add_parser("analyse", help="analyze a formula document")
    judge.add_argument("file", help="a *.substrata.json file, or - for standard input")
    judge.add_argument("--table", action="store_true", help="for people instead of JSON")
    add_settings_arguments(judge)
    judge.set_defaults(command=_analyse)
    handed = commands.add_parser("card", help="panels, statement, allergens and claims of a formula document")
    handed.add_argument("file", help="a *.substrata.json file, or - for standard input")
    add_settings_arguments(handed)
    handed.set_defaults(command=_card)
    before = commands.add_parser("prep", help="what is to be done before and while mixing a formula document")
    before.add_argument("file", help="a *.substrata.json file, or - for standard input")
    before.add_argument("--table", action="store_true", help="for people instead of JSON")
    before.set_defaults(command=_prep)
    shaped = commands.add_parser("shape", help="pieces, trays and pans of a formula document")
    shaped.add_argument("file", help="a *.substrata.json file, or - for standard input")
    shaped.add_argument("--table", action="store_true", help="for people instead of JSON")
    shaped.set_defaults(command=_shape)
    baked = commands.add_parser("bake", help="forecast the bake of a formula document")
    baked.add_argument("file", help="a *.substrata.json file, or - for standard input")
    baked.add_argument(
        "--offset",
        type=number(-80, 80, "K"),
        default=None,
        help="kelvin that this oven runs over its dial, when it is known",
    )
    baked.add_argument("--table", action="store_true", help="for people instead of JSON")
    baked.set_defaults(command=_bake)
    label = commands.add_parser("check-label", help="does a pack's label make sense, and what does it mean")
    label.add_argument("file", help="a *.pack.json file, or - for standard input")
    label.add_argument("--table", action="store_true", help="for people instead of JSON")
    label.set_defaults(command=_check_label)
    paste = commands.add_parser("import", help="read a list, a page, a table or a workbook into a document")
    paste.add_argument("file", help="a text, HTML, JSON, CSV or XLSX file, or - for standard input")
    paste.add_argument("--form", help="default: from the title, otherwise thin crust")
    paste.add_argument("--pieces", type=count(1, 10_000), help="default: from the list, otherwise the usual number")
    paste.add_argument("--table", action="store_true")
    paste.set_defaults(command=_import)
    add_balance_commands(commands)
    add_execution_commands(commands)
    add_inference_commands(commands)
    add_plan_commands(commands)
    add_recipe_commands(commands)
    commands.add_parser("schema", help="the JSON Schema of a formula document").set_defaults(command=_schema)
    return parser


def _card(options: argparse.Namespace) -> str:
    result = card(read_document(document_of(options.file, "formula")), load_library(), settings_of(options))
    return json.dumps(plain(result), ensure_ascii=False, indent=1)


def _prep(options: argparse.Namespace) -> str:
    plan = prep(Dough(read_document(document_of(options.file, "formula")), load_library()))
    if not options.table:
        return json.dumps(plain(plan), ensure_ascii=False, indent=1)
    rows = []
    for place, result in enumerate(plan.tasks, 1):
        rows += [
            f"{place}. {result.title}: {result.text}",
            *(f"   {step}" for step in (*result.steps, *result.cautions)),
        ]
    return "\n".join(rows or ["nothing to prepare"])


def _shape(options: argparse.Namespace) -> str:
    plan = shape(Dough(read_document(document_of(options.file, "formula")), load_library()))
    if not options.table:
        return json.dumps(plain(plan) if plan else None, ensure_ascii=False, indent=1)
    return "\n".join(map(str, (plan.text, *plan.notes))) if plan else "no dough"


def _bake(options: argparse.Namespace) -> str:
    # Imported here: the compiled bake takes a second to load, and the other commands do not need it.
    from substrata import Dough, bake
    from substrata.process import OvenProfile

    known = options.offset is not None
    profile = OvenProfile(name="this oven", offset_k=options.offset, offset_sd=5.0, bakes=1) if known else OvenProfile()
    wish = bake(Dough(read_document(document_of(options.file, "formula")), load_library(), profile=profile))
    if not options.table:
        return json.dumps(plain(wish) if wish else None, ensure_ascii=False, indent=1)
    if wish is None:
        return "no dough"
    rows = [str(row) for row in (wish.text, *wish.flags, *wish.cautions)]
    return "\n".join([*rows, *(f"{w.name:28} {w.text}" for w in wish.what_ifs)])


def _check_label(options: argparse.Namespace) -> str:
    library = load_library()
    lot = read_lot(document_of(options.file, "pack"), key="pack")
    ingredient = library[lot.ingredient]
    check = check_lot(lot, ingredient, library)
    figures = read_pack(lot.label, ingredient) if lot.label else ()
    if not options.table:
        whole = {"passes": check.passes, "figures": [plain(f) for f in figures], **plain(check)}
        return json.dumps(whole, ensure_ascii=False, indent=1)
    rows = [f"likely: {check.mistake.text}"] if check.mistake else []
    rows += [f"{finding.severity}: {finding.text}" for finding in check.findings]
    rows += [
        f"{f.nutrient:16} {f.value:8.2f} ({f.spread.low:.2f}–{f.spread.high:.2f}) {f.origin}"
        for f in figures
        if f.value
    ]
    return "\n".join(rows or ["no label"])


def _analyse(options: argparse.Namespace) -> str:
    document = document_of(options.file, "formula")
    judged = analyse(read_document(document), load_library(), settings_of(options))
    return _table(judged) if options.table else json.dumps(cli_json(judged), ensure_ascii=False, indent=1)


def cli_json(judged: Analysis) -> dict[str, Any]:
    """Return the analysis as plain JSON values, with the piece's figures and the binder under their short names."""
    whole: dict[str, Any] = plain(judged)
    whole["binder"] |= {"window": whole["binder"]["matrix"]["window"], "heat_set_share": whole["binder"]["heat_set"]}
    forecast = judged.handling
    whole["handling_forecast"] = whole["handling"]
    whole["handling"] = [
        {
            "minutes": point.minutes,
            "temperature_c": point.temperature_c,
            "consistency": point.consistency,
            "class": point.class_name,
            "probability": point.probability,
        }
        for point in (forecast.minutes if forecast else ())
    ]
    piece = judged.nutrition.piece
    names = {"fibre": "fibre_g", "protein": "protein_g", "fat": "fat_g", "net_carbs": "net_carbs_g"}
    names |= {"total_carbs": "total_carbs_g", "energy": "energy_kcal", "sodium": "sodium_mg"}
    whole["per_piece"] = {
        word: {side: getattr(getattr(piece, key), side) for side in ("value", "low", "high")}
        for key, word in names.items()
    }
    # A bill has no range; without any price there is no cost to tell.
    price = judged.cost.piece if judged.cost.priced_share else None
    whole["per_piece"]["cost"] = {"value": price, "low": price, "high": price}
    return whole


def _table(judged: Analysis) -> str:
    rows = ["".join(str(phrase.text) for phrase in judged.summary), ""]
    rows += [
        f"{line.code}  {line.name:36} {line.grams:8.1f} g {_percent(line.bakers_percent)}" for line in judged.lines
    ]
    rows += [f"    {'dough':36} {judged.totals.dough_g:8.1f} g", ""]
    for bracket in judged.brackets:
        estimate = bracket.estimate
        span = f"{estimate.low:.{bracket.decimals}f}–{estimate.high:.{bracket.decimals}f}"
        value = f"{estimate.value:.{bracket.decimals}f}"
        rows.append(f"{bracket.label:15} {value:>7} ({span:>13}) {bracket.unit:18} {bracket.state:5} {bracket.note}")
    rows += [f"{warning.severity}: {warning.text}" for warning in judged.warnings]
    rows += [f"left out: line {problem.line}: {problem.what}; got {problem.got}" for problem in judged.problems]
    return "\n".join([*rows, "", f"net carbs: {judged.basis.convention_rule}", f"energy: {judged.basis.energy_method}"])


def _percent(share: float | None) -> str:
    return f"{share:7.1f} %" if share is not None else "      –"


def _import(options: argparse.Namespace) -> str:
    recipe = file_recipe(read_bytes(options.file), options.file)
    if recipe.document is not None:
        return json.dumps(write_document(read_document(recipe.document)), ensure_ascii=False, indent=1)
    for key in recipe.unread:
        print(f"not imported: {key}", file=sys.stderr)
    pasted = import_text(recipe.text, load_library())
    for part in pasted:
        if part.problem:
            near = f" (nearest: {', '.join(part.nearest)})" if part.nearest else ""
            print(f"line {part.number}: {part.problem.what}: {part.text}{near}", file=sys.stderr)
    lines = tuple(line for part in pasted for line in part.lines)
    formula = with_phrases(Formula(name="Imported", form="thin-crust", pieces=1, lines=lines), pasted)
    if options.form is not None:
        formula = replace(formula, form=options.form)
    if options.pieces is not None:
        formula = replace(formula, pieces=options.pieces)
    if options.table:
        return _table(analyse(formula, load_library()))
    return json.dumps(write_document(formula), ensure_ascii=False, indent=1)


def _schema(_: argparse.Namespace) -> str:
    return json.dumps(document_schema(), ensure_ascii=False, indent=1)
