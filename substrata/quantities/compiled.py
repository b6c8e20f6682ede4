"""How loops over plain numbers are compiled: the oven's, and a dough's handling in all its draws."""

from __future__ import annotations

import hashlib
from functools import partial
from pathlib import Path

from numba import config, njit

# The cache notices a change of the file an entry stands in, not of what it calls: it is kept apart by the text of them all.
_CORE = Path(__file__).parent.parent
_COMPILED = ("quantities/compiled", "dough/mixture", "oven/properties", "oven/equations", "oven/integrator")
_TEXT = b"".join((_CORE / f"{name}.py").read_bytes() for name in _COMPILED)
_KEPT = Path(getattr(config, "CACHE_DIR", "") or _CORE / "oven" / "__pycache__")
setattr(config, "CACHE_DIR", str(_KEPT / hashlib.sha256(_TEXT).hexdigest()[:12]))  # noqa: B010  numba types none of its settings

# Sums may be put in another order and divisions be turned into products; what is no number stays one.
_compiled = partial(njit, error_model="numpy", fastmath={"contract", "arcp", "nsz", "reassoc"})
entry = _compiled(cache=True, nogil=True)
part = _compiled(forceinline=True)  # not cached: what comes from the cache cannot be inlined
