"""``Dough``: one dough, worked out once, with its target ranges, figures, varieties and keeping.

It does not search for better amounts (``reformulation``).
Begin with ``dough.py``; ``analysis/`` has warnings and summary, ``forecasts/`` preparation, shape and bake.
"""
