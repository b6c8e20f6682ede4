"""``why`` and ``learn`` on the command line."""

from __future__ import annotations

import argparse
import json
from collections.abc import Sequence
from typing import Any

from substrata import learn, load_library, read_run, why
from substrata.base import FormulaError, plain
from substrata.cli.document_files import document_of, read_text
from substrata.execution import Run, run_schema


def add_inference_commands(commands: Any) -> None:
    """Add them to the parser's commands."""
    why_parser = commands.add_parser("why", help="possible causes of a bake's faults, and what to try next")
    why_parser.add_argument("file", help="a *.run.json file with its verdict, or - for standard input")
    why_parser.add_argument("--good-before", action="store_true", help="this version was good before")
    why_parser.add_argument("--table", action="store_true", help="for people instead of JSON")
    why_parser.set_defaults(command=_why)
    taught = commands.add_parser("learn", help="what bakes reveal about an oven, handling, and taste")
    taught.add_argument("files", nargs="+", help="*.run.json files, or one file with a list of runs")
    taught.add_argument("--off", action="append", default=[], choices=["oven", "hands", "palate"])
    taught.add_argument("--table", action="store_true", help="for people instead of JSON")
    taught.set_defaults(command=_learn)
    commands.add_parser("run-schema", help="the JSON Schema of a run document").set_defaults(command=_schema)


def _why(options: argparse.Namespace) -> str:
    run = read_run(document_of(options.file, "run"))
    if run.verdict is None:
        raise FormulaError(
            "this bake has no rating yet",
            got="a run without one",
            allowed='faults, colour and scores under "verdict"',
            remedy="rate the bake first",
            field="verdict",
        )
    diagnosis_ = why(run, load_library(), proven=options.good_before)
    if not options.table:
        return json.dumps(plain(diagnosis_), ensure_ascii=False, indent=1)
    rows = [str(diagnosis_.text), "", "The formula as written"]
    rows += [f"  {f.probability_text:15} {f.words}: {'; '.join(map(str, f.evidence))}" for f in diagnosis_.formula] or [
        "  no likely cause"
    ]
    rows += ["", "In the making"]
    rows += [
        f"  {c.probability_text:15} {c.words}: {'; '.join(map(str, (*c.evidence, *c.against)))}"
        for c in diagnosis_.making
    ]
    rows += [
        "",
        "Questions that separate the causes",
        *(f"  {q.text}" for q in diagnosis_.questions),
        *(f"  {c.text}" for c in diagnosis_.checks),
    ]
    rows += ["", "Next time"]
    rows += [f"  {n.text}{': ' if n.edits else ''}{', '.join(map(str, n.edits))}" for n in diagnosis_.next]
    return "\n".join(rows)


def _learn(options: argparse.Namespace) -> str:
    runs = [run for file in options.files for run in read_runs(file)]
    state = learn(runs, load_library(), off=options.off)
    if options.table:
        rows = [str(parameter.text) for parameter in state.learned]
        rows += [
            f"bake {odd.run} hardly fits the others ({odd.block}): it counts {100 * odd.trust:.0f} %"
            for odd in state.odd
        ]
        return "\n".join(rows or ["nothing learned yet"])
    answer = {
        "runs": state.runs,
        "learned": [
            {
                "key": parameter.key,
                "block": parameter.block,
                "words": parameter.words,
                "unit": parameter.unit,
                "prior": {"value": parameter.prior, "sd": parameter.prior_sd},
                "posterior": {"value": parameter.posterior, "sd": parameter.posterior_sd},
                "trials": list(parameter.trials),
                "text": parameter.text,
            }
            for parameter in state.learned
        ],
        "odd": [plain(odd) for odd in state.odd],
    }
    return json.dumps(answer, ensure_ascii=False, indent=1)


def read_runs(file: str) -> Sequence[Run]:
    """Read the runs of a file: one document, a list of them, or an object with ``runs``.

    Returns:
        The runs in the order of the file.

    Raises:
        FormulaError: when it holds none.
    """
    try:
        whole = json.loads(read_text(file))
    except ValueError as error:
        raise FormulaError("the file is not JSON", got=str(error), allowed="run documents") from error
    rows = whole.get("runs", [whole]) if isinstance(whole, dict) else whole
    if not isinstance(rows, list) or not all(isinstance(row, dict) for row in rows):
        raise FormulaError("the file holds no runs", got=type(rows).__name__, allowed="a run, or a list of runs")
    return [read_run(row) for row in rows]


def _schema(_: argparse.Namespace) -> str:
    return json.dumps(run_schema(), ensure_ascii=False, indent=1)
