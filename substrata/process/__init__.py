"""The physics, one folder for each step of the work: preparation, rheology, shaping, baking.

It does not know targets, warnings or people.
Begin with the folder of the step.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
