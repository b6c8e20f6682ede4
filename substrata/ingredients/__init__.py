"""Ingredients and packs: composition, behaviour, household measures, prices, stock and search.

It does not know formulas; an ingredient's process values are only stored here.
Begin with ``library.py`` and ``ingredient.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
