"""A schedule of tasks: constraint program, list schedule, proofs and an independent check.

It does not know formulas.
Begin with ``solve.py``; only ``cp_model.py`` names the solver's library.
"""
