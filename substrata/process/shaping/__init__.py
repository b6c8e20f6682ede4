"""From dough mass to pieces on trays: thickness, size, count, layout.

It does not know baking.
Begin with ``piece.py``.
"""
