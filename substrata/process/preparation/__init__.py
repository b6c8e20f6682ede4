"""Drying, melting, warming, gelling, blending and activating yeast, before and while mixing.

It does not know the order of work (``evaluation/forecasts``).
Begin with ``vegetable_stages.py`` or ``dough_cooling.py``.
"""
