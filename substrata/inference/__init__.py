"""What logged bakes tell: causes of a fault, the next test, learned parameters, comparison, crust colour.

It does not store bakes.
Begin with ``diagnosis/diagnosis.py`` and ``calibration/learning.py``.
"""
