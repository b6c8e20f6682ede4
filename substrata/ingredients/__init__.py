"""Ingredients and packs: composition, behaviour, household measures, prices, stock and search.

It does not know formulas; an ingredient's process values are only stored here.
Begin with ``library.py`` and ``ingredient.py``.
"""
