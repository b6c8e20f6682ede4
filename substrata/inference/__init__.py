"""What logged bakes tell: causes of a fault, the next test, learned parameters, comparison, crust colour.

It does not store bakes.
Begin with ``diagnosis/diagnosis.py`` and ``calibration/learning.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
