"""The optimiser: amounts that meet the targets with the fewest changes, conflicts, fronts, starters and quick fixes.

It does not know screens or sessions.
Begin with ``balancing.py``; ``program/`` has the problem, ``solutions/`` the answers, ``request/`` what is asked.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
