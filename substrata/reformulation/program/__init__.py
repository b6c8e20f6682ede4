"""The mixed-integer program: candidate batch, linear rows, linearisation, rounds, check by the full model.

It does not word an answer.
Begin with ``milp.py`` and ``successive_linearisation.py``.
"""
