"""Errors, units, amounts, uncertainty, tables, compiled loops and settings: what every other room stands on.

It knows nothing of ingredients or doughs.
Begin with ``tables/table_reader.py`` (shipped CSV tables), ``uncertainty.py`` and ``documents/``.
"""
