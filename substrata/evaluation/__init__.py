"""``Dough``: one dough, worked out once, with its target ranges, figures, varieties and keeping.

It does not search for better amounts (``reformulation``).
Begin with ``dough.py``; ``analysis/`` has warnings and summary, ``forecasts/`` preparation, shape and bake.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
