"""Formulas from pasted lists, pages, tables and workbooks; differences and merges of two versions.

It does not judge a formula.
Begin with ``text_import.py`` and ``recipe_file.py``.
"""
