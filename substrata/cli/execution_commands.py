"""``steps`` and ``feel`` on the command line."""

from __future__ import annotations

import argparse
import json
from typing import Any

from substrata import Dough, load_library, read_document, steps
from substrata.base import plain
from substrata.cli.document_files import document_of
from substrata.cli.number_arguments import number
from substrata.execution import ALSO, feel, felt_words


def add_execution_commands(commands: Any) -> None:
    """Add them to the parser's commands."""
    done = commands.add_parser("steps", help="list the steps of a bake")
    done.add_argument("file", help="a *.substrata.json file, or - for standard input")
    done.add_argument("--batches", type=number(0.05, 200), default=1.0)
    done.add_argument("--table", action="store_true", help="for people instead of JSON")
    done.set_defaults(command=_steps)
    felt = commands.add_parser("feel", help="what to do with a dough as it is felt")
    felt.add_argument("file", help="a *.substrata.json file, or - for standard input")
    felt.add_argument("--class", dest="felt", required=True, help=", ".join((*felt_words(), *ALSO)))
    felt.add_argument("--minute", type=number(0, 100_000, "min"), help="after mixing; else the form's usual rest")
    felt.add_argument("--temperature", type=number(-20, 100, "°C"), help="of the dough, °C")
    felt.add_argument("--batches", type=number(0.05, 200), default=1.0)
    felt.add_argument("--dry-air", action="store_true", help="heated or desert air")
    felt.add_argument("--table", action="store_true", help="for people instead of JSON")
    felt.set_defaults(command=_feel)


def _dough(file: str) -> Dough:
    return Dough(read_document(document_of(file, "formula")), load_library())


def _steps(options: argparse.Namespace) -> str:
    plan = steps(_dough(options.file), batches=options.batches)
    if not options.table:
        return json.dumps([plain(step) for step in plan.steps], ensure_ascii=False, indent=1)
    rows = [str(plan.text)]
    group = ""
    for step in plan.steps:
        if step.group != group:
            group = step.group
            rows += ["", group.upper()]
        minutes = f"{step.minutes:.0f} min" if step.minutes else ""
        details = "; ".join(part for part in map(str, (step.target, step.measure, minutes, step.sign)) if part)
        rows.append(f"  {step.text}{': ' if details else ''}{details}")
        rows += [f"    ! {caution}" for caution in step.cautions]
    return "\n".join(rows)


def _feel(options: argparse.Namespace) -> str:
    advice = feel(
        _dough(options.file),
        class_name=options.felt,
        minute=options.minute,
        temperature_c=options.temperature,
        batches=options.batches,
        dry_air=options.dry_air,
    )
    return str(advice.text) if options.table else json.dumps(plain(advice), ensure_ascii=False, indent=1)
