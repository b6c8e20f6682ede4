"""Tasks of one bake from its forecasts, and the things of a kitchen that they occupy.

It does not place tasks.
Begin with ``bake_tasks.py``.
"""
