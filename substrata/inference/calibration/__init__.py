"""One learner for oven, hands, palate, measures and habits: a robust joint update from logged readings.

It does not apply what it learns (``evaluation/learned_biases.py``).
Begin with ``learning.py``; each block has its priors and its forecast.
"""
