"""Causes, evidence and the posterior of a rated bake, and the next test.

It does not learn parameters.
Begin with ``diagnosis.py``.
"""
