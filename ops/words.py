"""Every string that a person reads, once: of the page and of the core. Read the list through before a release, as a baker would.

Usage: ``npm run words`` in ``web``, or ``python3 ops/words.py``.
"""

from __future__ import annotations

import ast
import html
import re
import sys
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
_SPOKEN = re.compile(r"[A-Za-z]{2,}[^A-Za-z]*\s+[^\s]*[A-Za-z]|^[A-Z][a-z]+$")
_TEXT = re.compile(r">([^<>{}]*(?:\{\{.*?\}\}[^<>{}]*)*)<", re.DOTALL)
_ATTRIBUTE = re.compile(r"\s(?:aria-label|title|placeholder|label|alt)=\"([^\"]+)\"")
_LITERAL = re.compile(r"'((?:[^'\\\n]|\\.)*)'|`([^`\n]*)`")


def of_the_page() -> Iterator[tuple[str, str]]:
    """File and string: the words of templates, and the literals of scripts that read like words."""
    for file in sorted((ROOT / "web" / "src").rglob("*")):
        if file.suffix not in (".vue", ".ts") or ".test." in file.name or {"generated", "testing"} & set(file.parts):
            continue
        text = re.sub(
            r"<style.*?</style>|/\*.*?\*/|^\s*import .*?$|//[^\n]*",
            "",
            file.read_text("utf8"),
            flags=re.DOTALL | re.MULTILINE,
        )
        script, mark, template = text.partition("<template>")
        if mark:
            for pattern in (_TEXT, _ATTRIBUTE):
                yield from ((file.name, found) for found in pattern.findall(template))
        for plain, patched in _LITERAL.findall(text if mark else script):
            yield file.name, plain or patched


def of_the_core() -> Iterator[tuple[str, str]]:
    """File and string: the literals of the core, the services and the API that are no docstrings."""
    for package in ("substrata", "kitchen", "api"):
        for file in sorted((ROOT / package).rglob("*.py")):
            if {"migrations", "demo"} & set(file.parts):
                continue
            tree = ast.parse(file.read_text("utf8"))
            silent = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
            for node in ast.walk(tree):
                if isinstance(node, ast.JoinedStr):
                    silent |= {id(part) for part in ast.walk(node) if part is not node}
                    yield (
                        file.name,
                        "".join(
                            str(p.value) if isinstance(p, ast.Constant) else "{" + ast.unparse(p).strip("f'{}\"") + "}"
                            for p in node.values
                        ),
                    )
            for node in ast.walk(tree):
                if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in silent:
                    yield file.name, node.value


def main() -> None:
    """Print them, by file."""
    seen: set[str] = set()
    for file, found in (*of_the_page(), *of_the_core()):
        words = re.sub(r"\s+", " ", html.unescape(found)).strip()
        if words not in seen and _SPOKEN.search(re.sub(r"\{.*?\}|\$\{.*?\}", "", words)):
            seen.add(words)
            sys.stdout.write(f"{file}: {words}\n")


if __name__ == "__main__":
    main()
