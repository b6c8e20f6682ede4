import subprocess
import sys

BLOCKED = """
import importlib, pkgutil, sys
for name in ("django", "ninja", "pydantic", "psycopg", "allauth"):
    sys.modules[name] = None
import substrata
for module in pkgutil.walk_packages(substrata.__path__, "substrata."):
    if not module.name.endswith("__main__"):
        importlib.import_module(module.name)
from substrata import analyse, load_library, read_document
print(len(load_library()))
"""


def test_the_whole_core_runs_with_the_web_framework_blocked():
    run = subprocess.run([sys.executable, "-c", BLOCKED], capture_output=True, text=True, check=False)
    assert run.returncode == 0, run.stderr
    assert int(run.stdout) >= 130
