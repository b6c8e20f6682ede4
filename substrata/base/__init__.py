"""Errors, units, amounts, uncertainty, tables, compiled loops and settings: what every other room stands on.

It knows nothing of ingredients or doughs.
Begin with ``tables/table_reader.py`` (shipped CSV tables), ``uncertainty.py`` and ``documents/``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
