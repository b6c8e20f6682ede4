"""One solution as changes, effects, side effects, alternatives and the probability of its targets.

It does not solve.
Begin with ``solution.py``.
"""
