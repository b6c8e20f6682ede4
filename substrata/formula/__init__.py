"""A formula and its open document: lines, targets, form, bake settings.

It does not know what a dough does; ``batch/`` weighs the lines, ``exchange/`` reads and compares.
Begin with ``formula.py`` and ``formula_document.py``.
"""
