"""The open plan document, its planning and replanning, manual moves, and the answer.

It does not solve (``solver``).
Begin with ``planning.py``.
"""
