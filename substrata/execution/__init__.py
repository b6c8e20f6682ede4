"""A bake session: its protocol, its log, corrections by feel, pours, and the live forecast.

It does not learn (``inference``).
Begin with ``protocol.py`` and ``bake_log.py``.
"""
