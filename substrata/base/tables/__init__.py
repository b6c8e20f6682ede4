"""The shipped CSV tables of ``substrata/data``: reading, relations between them, and the science mark.

It does not know what a row means.
Begin with ``table_reader.py``.
"""
