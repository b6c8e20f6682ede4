"""Refuse names that say nothing of their value: participles and function words, as ``ops/retired_names.toml`` lists them.

``python ops/retired_names.py`` names every place and ends with 1 when there is one.
"""

from __future__ import annotations

import ast
import re
import sys
import tomllib
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parent.parent
_PARTS = re.compile(r"[A-Z]?[a-z0-9]+|[A-Z]+(?![a-z])")


def names_in(tree: ast.AST) -> Iterator[tuple[int, str]]:
    """Yield every name that a module gives: functions, classes, arguments, fields and variables, with its line."""
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef | ast.ClassDef):
            yield node.lineno, node.name
        elif isinstance(node, ast.arg):
            yield node.lineno, node.arg
        elif isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store):
            yield node.lineno, node.id


def retired(name: str, words: frozenset[str]) -> bool:
    """Return True when a part of a name is a retired word, or its first part is ``of``."""
    parts = [part.lower() for part in _PARTS.findall(name)]
    return bool(words & set(parts)) or parts[:1] == ["of"]


def main() -> int:
    """Print the places with retired names and return the exit code."""
    rules = tomllib.loads((ROOT / "ops" / "retired_names.toml").read_text(encoding="utf8"))
    words, stored = frozenset(rules["words"]), frozenset(rules["stored"])
    places = [
        f"{path.relative_to(ROOT)}:{line}: {name}"
        for folder in rules["folders"]
        for path in sorted((ROOT / folder).rglob("*.py"))
        if "migrations" not in path.parts
        for line, name in names_in(ast.parse(path.read_text(encoding="utf8")))
        if name not in stored and retired(name, words)
    ]
    sys.stdout.write("".join(f"{place}\n" for place in places))
    return 1 if places else 0


if __name__ == "__main__":
    raise SystemExit(main())
