"""``plan`` and ``shopping`` on the command line."""

from __future__ import annotations

import argparse
import json
from collections.abc import Mapping
from datetime import datetime
from pathlib import Path
from typing import Any

import substrata
from substrata import Dough, load_library, read_plan
from substrata.base import plain
from substrata.cli.document_files import document_of
from substrata.cli.number_arguments import number
from substrata.scheduling import Plan, ShoppingRow, plan_schema, shopping


def add_plan_commands(commands: Any) -> None:
    """Add them to the parser's commands."""
    plan = commands.add_parser("plan", help="plan several bakes for the people and ovens you have")
    plan.add_argument("file", help="a plan document, or - for standard input; a bake's formula may be a file beside it")
    plan.add_argument("--seconds", type=number(0.1, 300, "s"), default=10.0, help="search time limit")
    plan.add_argument("--table", action="store_true", help="for people instead of JSON")
    plan.set_defaults(command=_plan)
    buy = commands.add_parser("shopping", help="shopping list for the bakes of a plan document")
    buy.add_argument("file", help="a plan document, or - for standard input")
    buy.add_argument("--table", action="store_true", help="for people instead of JSON")
    buy.set_defaults(command=_shopping)
    commands.add_parser("plan-schema", help="the JSON Schema of a plan document").set_defaults(
        command=lambda _: json.dumps(plan_schema(), ensure_ascii=False, indent=1)
    )


def _read(file: str) -> Plan:
    document = document_of(file, "plan")
    bakes = document.get("bakes")
    if isinstance(bakes, list):
        document = {**document, "bakes": [_with_formula(bake, file) for bake in bakes]}
    return read_plan(document)


def _with_formula(bake: Any, file: str) -> Any:
    """Replace the name of a formula file beside the plan by the formula it holds."""
    if not isinstance(bake, Mapping) or not isinstance(bake.get("formula"), str):
        return bake
    beside = Path(bake["formula"]) if file == "-" else Path(file).parent / bake["formula"]
    return {**bake, "formula": document_of(str(beside), "formula")}


def _plan(options: argparse.Namespace) -> str:
    plan = _read(options.file)
    answer = substrata.plan(plan, load_library(), seconds=options.seconds)
    if options.table:
        rows = [str(answer.text), ""]
        for task in answer.tasks:
            look = (
                f"  check from {task.check:%H:%M}, out by {task.surely:%H:%M} at the latest"
                if task.check and task.surely
                else ""
            )
            rows.append(f"{task.start:%a %H:%M}–{task.end:%H:%M}  {task.text}{look}")
        rows += [
            "",
            *(f"tight: {entry.text}" for entry in answer.tight),
            *(f"this would help: {entry.text}" for entry in answer.helps),
        ]
        return "\n".join(rows)
    plan_json = plain(answer)
    plan_json["tasks"] = [
        {
            **task,
            "uses": [*task["uses"], *([task["oven"]] if task["oven"] else []), *(["hands"] if task["hands"] else [])],
        }
        for task in plan_json["tasks"]
    ]
    plan_json["steps"] = [
        {"start": task["start"], "bake": task["bake"], "text": task["text"]}
        for task in plan_json["tasks"]
        if task["hands"]
    ]
    plan_json["shopping"] = [plain(row) for row in _rows(plan)]
    return json.dumps(plan_json, ensure_ascii=False, indent=1, default=_time)


def _time(value: Any) -> str:
    if isinstance(value, datetime):
        return value.isoformat()
    raise TypeError(str(type(value)))


def _rows(plan: Plan) -> tuple[ShoppingRow, ...]:
    library = load_library()
    return shopping([(bake.formula.name, Dough(bake.formula, library), bake.batches) for bake in plan.bakes], library)


def _shopping(options: argparse.Namespace) -> str:
    rows = _rows(_read(options.file))
    if not options.table:
        return json.dumps([plain(row) for row in rows], ensure_ascii=False, indent=1)
    lines: list[str] = []
    for row in rows:
        if not lines or f"{row.section.upper()}" not in lines:
            lines += ["", row.section.upper()]
        lines.append(f"  {row.text} ({', '.join(row.bakes)})")
    return "\n".join(lines).strip()
