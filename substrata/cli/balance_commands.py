"""``balance``, ``swap``, ``reach`` and ``begin`` on the command line."""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from substrata import Dough, Wish, balance, begin, load_library, read_document
from substrata.base import FormulaError, Settings, plain
from substrata.cli.balance_text import beginnings_json, read_targets, settlement_json, settlement_table
from substrata.cli.document_files import document_of
from substrata.cli.number_arguments import count
from substrata.reformulation import BalanceAnswer, exclusions, feasible_ranges, target_keys

_SUREST = 0.5  # standard deviations
_FREEDOMS = ("pieces", "thickness", "mass")


def add_balance_commands(commands: Any) -> None:
    """Add them to the parser's commands."""
    settled = commands.add_parser("balance", help="balance a formula: reach its targets with the least change")
    _file(settled)
    settled.add_argument("--target", action="append", default=[], help="net_carbs<=3, protein>=8; may be repeated")
    settled.add_argument("--handling", default="", help="target handling class at shaping")
    settled.add_argument("--lock", action="append", default=[], metavar="LINE", help="do not change this ingredient")
    settled.add_argument("--texture", action="append", default=[], help="crisp>=7; may be repeated")
    settled.add_argument("--minutes-most", type=float, help="longest baking time")
    settled.add_argument("--thickness-most", type=float, metavar="MM", help="greatest thickness")
    settled.add_argument("--without", action="append", default=[], help=", ".join(exclusions()))
    settled.add_argument("--keep", action="append", default=[], choices=_FREEDOMS, help="is not changed (default)")
    settled.add_argument("--free", action="append", default=[], choices=_FREEDOMS, help="may change too")
    settled.add_argument("--surest", action="store_true", help="stay half a standard deviation inside the targets")
    settled.add_argument("--nothing-new", action="store_true", help="add no new ingredient")
    settled.add_argument("--saved", help="the last saved version, against which the change is measured")
    settled.set_defaults(command=_balance)
    swapped = commands.add_parser("swap", help="exclude an ingredient and balance again")
    _file(swapped)
    swapped.add_argument("--without", action="append", required=True, help=", ".join(exclusions()))
    swapped.add_argument("--target", action="append", default=[])
    swapped.set_defaults(command=_swap)
    ends = commands.add_parser("reach", help="lowest and highest value of a quantity with all other targets met")
    ends.add_argument("file", help="a *.substrata.json file, or - for standard input")
    ends.add_argument("key", help="net_carbs, protein, …")
    ends.set_defaults(command=_reach)
    start = commands.add_parser("begin", help="starter formulas for a shape with different flours")
    start.add_argument("--form", required=True)
    start.add_argument("--target", action="append", default=[])
    start.add_argument("--without", action="append", default=[])
    start.add_argument("--pieces", type=count(1, 10_000))
    start.add_argument("--table", action="store_true", help="for people instead of JSON")
    start.set_defaults(command=_begin)


def _file(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("file", help="a *.substrata.json file, or - for standard input")
    parser.add_argument("--table", action="store_true", help="for people instead of JSON")


def _balance(options: argparse.Namespace) -> str:
    formula = read_document(document_of(options.file, "formula"))
    saved = read_document(document_of(options.saved, "formula")) if options.saved else None
    free = set(options.free) - set(options.keep)
    wish = Wish(
        targets=read_targets(options.target),
        handling=options.handling,
        texture=read_targets(options.texture, "texture"),
        minutes_most=options.minutes_most,
        thickness_most=options.thickness_most,
        without=tuple(options.without),
        locked=tuple(_line(formula.lines, lock) for lock in options.lock),
        margin=_SUREST if options.surest else 0.0,
        may_bring=not options.nothing_new,
        may_change_mass="mass" in free,
        may_change_pieces="pieces" in free,
        may_change_thickness="thickness" in free,
    )
    with _quiet():
        answer = balance(Dough(formula, load_library()), wish, saved=saved)
    return _answer_text(answer, options)


def _line(lines: Any, name: str) -> str:
    """Return the id of a line, given its id or its ingredient."""
    line_id = next((line.id for line in lines if name in (line.id, line.ingredient)), None)
    if line_id is None:
        raise FormulaError(
            "line not found",
            got=name[:60],
            allowed=", ".join(line.id for line in lines),
            remedy="give the id of a line in the formula",
            field="lock",
        )
    return str(line_id)


def _swap(options: argparse.Namespace) -> str:
    formula = read_document(document_of(options.file, "formula"))
    wish = Wish(targets=read_targets(options.target), without=tuple(options.without))
    with _quiet():
        answer = balance(Dough(formula, load_library()), wish)
    return _answer_text(answer, options)


def _answer_text(answer: BalanceAnswer, options: argparse.Namespace) -> str:
    if options.table:
        return settlement_table(answer)
    return json.dumps(plain(settlement_json(answer)), ensure_ascii=False, indent=1)


def _reach(options: argparse.Namespace) -> str:
    if options.key not in target_keys():
        raise FormulaError(
            "quantity not found",
            got=options.key[:60],
            allowed=", ".join(target_keys()),
            remedy="choose one of these",
            field="key",
        )
    formula = read_document(document_of(options.file, "formula"))
    with _quiet():
        ends = feasible_ranges(formula, load_library(), Settings(), (options.key,))
    answer = plain(ends[0]) if ends else {"key": options.key, "now": None, "low": None, "high": None}
    return json.dumps(plain(answer), ensure_ascii=False, indent=1)


def _begin(options: argparse.Namespace) -> str:
    with _quiet():
        starters = begin(
            options.form,
            load_library(),
            Settings(),
            targets=read_targets(options.target),
            without=tuple(options.without),
            pieces=options.pieces,
        )
    if not options.table:
        return json.dumps(plain(beginnings_json(starters)), ensure_ascii=False, indent=1)
    rows = []
    for b in starters:
        rows += ["", f"{b.skeleton.name}. {b.text}"]
        rows += [f"  {line.ingredient:24} {line.grams:7.1f} g" for line in b.formula.lines if line.grams is not None]
    return "\n".join(rows or ["no starter formula works without that ingredient"])


@contextmanager
def _quiet() -> Iterator[None]:
    """Keep the solver's messages off standard output, where the answers go."""
    try:
        out = sys.__stdout__.fileno() if sys.__stdout__ else 1
        sys.stdout.flush()
        original = os.dup(out)
    except (OSError, ValueError):
        yield
        return
    try:
        os.dup2(2, out)
        yield
    finally:
        os.dup2(original, out)
        os.close(original)
