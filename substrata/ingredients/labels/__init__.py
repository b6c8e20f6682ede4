"""The print on a pack: nutrition panels read, checked and converted into composition.

It does not know what a pack is used for.
Begin with ``pack_reading.py`` and ``label_check.py``.
"""
