"""Script that the bench needs on a first load, gzipped: wanted 250 kB."""

import gzip
import re
from pathlib import Path

DIST = Path(__file__).resolve().parent.parent / "web" / "dist"
WANTED_KB = 250


def script_of_first_load() -> int:
    """Bytes, gzipped, of the entry, and every script it or the bench imports at once."""
    todo = re.findall(r'(?:src|href)="/static/(assets/[^"]+\.js)"', (DIST / "index.html").read_text(encoding="utf8"))
    todo += [f"assets/{p.name}" for p in (DIST / "assets").glob("*View-*.js") if p.name.startswith(("Bench", "Shelf"))]
    seen: set[str] = set()
    while todo:
        name = todo.pop()
        if name in seen:
            continue
        seen.add(name)
        text = (DIST / name).read_text(encoding="utf8")
        todo += [f"assets/{result}" for result in re.findall(r'from"\./([^"]+\.js)"', text)]
        todo += [f"assets/{result}" for result in re.findall(r'import"\./([^"]+\.js)"', text)]
    return sum(len(gzip.compress((DIST / name).read_bytes(), 9)) for name in seen)


if __name__ == "__main__":
    kilobytes = script_of_first_load() / 1000
    print(
        f"first load, script gzipped         {kilobytes:.0f} kB, {kilobytes / WANTED_KB:.2f} of the wanted {WANTED_KB} kB"
    )
