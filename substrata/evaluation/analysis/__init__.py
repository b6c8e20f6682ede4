"""The analysis of a formula: figures against their target ranges, warnings and the summary.

It does not change a formula.
Begin with ``analyse.py``.
"""
