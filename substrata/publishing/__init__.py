"""What is handed on: recipe card, panels, label, premix bags, calendar, and every file format.

It does not compute figures.
Begin with ``recipe.py`` and ``recipe_formats.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
