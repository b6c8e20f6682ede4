"""How loops over plain numbers are compiled: the oven's, and a dough's handling in all its draws.

The compiler takes a fifth of a second to load, and a process that has just been started has other things to do first: it is loaded
when something compiled is called for the first time, and then all of it is.
"""

from __future__ import annotations

import hashlib
import sys
from collections.abc import Callable
from functools import partial, update_wrapper
from pathlib import Path
from threading import RLock
from typing import Any

# The cache notices a change of the file an entry stands in, not of what it calls: it is kept apart by the text of them all.
_CORE = Path(__file__).parent.parent
_COMPILED = ("quantities/compiled", "dough/mixture", "oven/properties", "oven/equations", "oven/integrator")
# Sums may be put in another order and divisions be turned into products; what is no number stays one.
_ALWAYS: dict[str, Any] = {"error_model": "numpy", "fastmath": {"contract", "arcp", "nsz", "reassoc"}}
_lock = RLock()
_waiting: list[Later] = []


class Later:
    """A function that is compiled when it, or another of them, is first called."""

    def __init__(self, function: Callable[..., Any], **how: Any) -> None:
        update_wrapper(self, function)
        self.py_func, self.how = function, how
        self.compiled: Any = None
        _waiting.append(self)

    def __call__(self, *args: Any) -> Any:
        """Call it, compiled."""
        if self.compiled is None:
            _compile()
        return self.compiled(*args)


def _compile() -> None:
    """Load the compiler, and put what it makes in the place of everything that waits for it."""
    with _lock:
        from numba import config, njit

        text = b"".join((_CORE / f"{name}.py").read_bytes() for name in _COMPILED)
        kept = Path(getattr(config, "CACHE_DIR", "") or _CORE / "oven" / "__pycache__")
        mark = hashlib.sha256(text).hexdigest()[:12]
        if kept.name != mark:
            setattr(config, "CACHE_DIR", str(kept / mark))  # noqa: B010  numba types none of its settings
        made = [*_waiting]
        for one in made:
            one.compiled = njit(**_ALWAYS, **one.how)(one.py_func)
        # What calls another one finds it by its name, and has to find it compiled.
        for module in {sys.modules[one.__module__] for one in made}:
            for name, value in vars(module).items():
                if isinstance(value, Later) and value.compiled is not None:
                    setattr(module, name, value.compiled)
        del _waiting[: len(made)]


entry = partial(Later, cache=True, nogil=True)
part = partial(Later, forceinline=True)  # not cached: what comes from the cache cannot be inlined
