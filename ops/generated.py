"""Write the committed generated files, or check that they are up to date (``--check``).

* ``api/openapi.json``: the contract of the API
* ``web/src/api/generated/schema.d.ts``: the page's types, from the contract
* ``docs/formats/*.schema.json``: the open documents of a formula, a pack, a run and a plan
"""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def openapi() -> str:
    """Return the contract as sorted JSON."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    sys.path.insert(0, str(ROOT))
    import django

    django.setup()
    from api.app import api

    return json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, sort_keys=True, ensure_ascii=False) + "\n"


def document_schemas() -> dict[str, str]:
    """Return the JSON Schemas of the open documents, by file."""
    from substrata.base import settings_schema
    from substrata.execution import run_schema
    from substrata.formula import document_schema
    from substrata.ingredients import pack_schema
    from substrata.scheduling import plan_schema

    schemas = {
        "formula": document_schema(),
        "pack": pack_schema(),
        "run": run_schema(),
        "plan": plan_schema(),
        "settings": settings_schema(),
    }
    return {
        f"docs/formats/{name}.schema.json": json.dumps(schema, indent=1, ensure_ascii=False) + "\n"
        for name, schema in schemas.items()
    }


def page_types(contract: str) -> str:
    """TypeScript types of the contract."""
    with tempfile.TemporaryDirectory() as folder:
        source, target = Path(folder) / "openapi.json", Path(folder) / "schema.d.ts"
        source.write_text(contract, encoding="utf8")
        npx = shutil.which("npx") or "npx"
        command = [npx, "--no-install", "openapi-typescript", str(source), "-o", str(target)]
        subprocess.run(command, cwd=ROOT / "web", check=True, capture_output=True)  # noqa: S603 - our own arguments
        return target.read_text(encoding="utf8")


def main() -> int:
    """Write or check; returns the exit code."""
    contract = openapi()
    files = {"api/openapi.json": contract} | document_schemas()
    # The types follow from the contract, so they are made only when Node's packages are there.
    if (ROOT / "web" / "node_modules").exists():
        files["web/src/api/generated/schema.d.ts"] = page_types(contract)
    stale = []
    for name, text in files.items():
        path = ROOT / name
        if path.exists() and path.read_text(encoding="utf8") == text:
            continue
        stale.append(name)
        if "--check" not in sys.argv:
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_text(text, encoding="utf8")
    if stale:
        print(("out of date: " if "--check" in sys.argv else "written: ") + ", ".join(stale))
    return 1 if stale and "--check" in sys.argv else 0


if __name__ == "__main__":
    raise SystemExit(main())
