"""The bake of one dough: its case in numbers, its stages, when it is done, and what the settings change.

It does not know targets, protocols or learning.
Begin with ``bake_case.py`` and ``bake_simulation.py``.
"""
