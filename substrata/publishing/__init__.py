"""What is handed on: recipe card, panels, label, premix bags, calendar, and every file format.

It does not compute figures.
Begin with ``recipe.py`` and ``recipe_formats.py``.
"""
