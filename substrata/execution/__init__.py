"""A bake session: its protocol, its log, corrections by feel, pours, and the live forecast.

It does not learn (``inference``).
Begin with ``protocol.py`` and ``bake_log.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
