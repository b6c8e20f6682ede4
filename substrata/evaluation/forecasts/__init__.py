"""Forecasts of preparation, shaping and baking for people: minutes, weights, settings, methods.

It does not know what was really done (``execution``).
Begin with ``bake_forecast.py``.
"""
