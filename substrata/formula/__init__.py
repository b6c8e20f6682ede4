"""A formula and its open document: lines, targets, form, bake settings.

It does not know what a dough does; ``batch/`` weighs the lines, ``exchange/`` reads and compares.
Begin with ``formula.py`` and ``formula_document.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
