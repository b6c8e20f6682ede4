"""Weighed lines and every sum over them: propagation of uncertainty, cost, percentages, sub-recipes.

It does not know water, binder or heat.
Begin with ``weighed_lines.py`` and ``propagation.py``.
"""
