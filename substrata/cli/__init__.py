"""The command line: one file for each group of commands, JSON in, JSON out, ``--table`` for people.

It computes nothing.
Begin with ``main.py``.
"""
