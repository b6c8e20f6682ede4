"""The dough at rest: water fill, binder load, leavening, temperature, texture; ``handling/`` its consistency over time.

It does not know the oven.
Begin with ``water_fill.py``, ``binder.py`` and ``leavening.py``.
"""
