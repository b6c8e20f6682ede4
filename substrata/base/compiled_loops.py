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

# Sums may be put in another order and divisions be turned into products; what is no number stays one.
_ALWAYS: dict[str, Any] = {"error_model": "numpy", "fastmath": {"contract", "arcp", "nsz", "reassoc"}}
_lock = RLock()
_waiting: list[Later] = []


class Later:
    """A function that is compiled when it, or another of them, is first called."""

    def __init__(self, function: Callable[..., Any], **options: Any) -> None:
        update_wrapper(self, function)
        self.py_func, self.options = function, options
        self.compiled: Any = None
        _waiting.append(self)

    def __call__(self, *args: Any) -> Any:
        """Call it, compiled."""
        if self.compiled is None:
            _compile()
        return self.compiled(*args)


def _compile() -> None:
    """Load the compiler and replace every waiting function by its compiled form."""
    with _lock:
        from numba import config, njit

        pending = [*_waiting]
        root = Path(getattr(config, "CACHE_DIR", "") or Path(__file__).parent / "__pycache__")
        try:
            for function in pending:
                # Set for each function: numba reads the folder when a function is made cacheable.
                setattr(config, "CACHE_DIR", str(root / _source_mark(function)))  # noqa: B010  numba types none of its settings
                function.compiled = njit(**_ALWAYS, **function.options)(function.py_func)
        finally:
            setattr(config, "CACHE_DIR", str(root))  # noqa: B010
        # A compiled function finds its callees by name in its module and has to find them compiled.
        for module in {sys.modules[function.__module__] for function in pending}:
            for name, value in vars(module).items():
                if isinstance(value, Later) and value.compiled is not None:
                    setattr(module, name, value.compiled)
        del _waiting[: len(pending)]


def _source_mark(function: Later) -> str:
    """Return a hash of the source files of a function and of every decorated function it can call.

    Numba's cache notices a change of the file that an entry stands in, not of the files it calls.
    """
    modules, frontier = {function.__module__}, [function.__module__]
    while frontier:
        # A waiting function and a compiled one both keep what they were written as.
        callees = [value.py_func for value in vars(sys.modules[frontier.pop()]).values() if hasattr(value, "py_func")]
        new = {callee.__module__ for callee in callees} - modules
        modules |= new
        frontier += new
    paths = [Path(str(sys.modules[name].__file__)) for name in sorted(modules)]
    return hashlib.sha256(b"".join(path.read_bytes() for path in (Path(__file__), *paths))).hexdigest()[:12]


entry = partial(Later, cache=True, nogil=True)
part = partial(Later, forceinline=True)  # not cached: what comes from the cache cannot be inlined
