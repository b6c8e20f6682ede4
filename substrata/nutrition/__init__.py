"""Net carbohydrate, panels, ingredient statement, allergens, claims, daily limits and water activity of a batch.

It does not know the oven model; baked weights are passed in.
Begin with ``net_carbs.py`` and ``nutrition_facts.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
