"""The optimiser: amounts that meet the targets with the fewest changes, conflicts, fronts, starters and quick fixes.

It does not know screens or sessions.
Begin with ``balance.py``; ``program/`` has the problem, ``solutions/`` the answers, ``request/`` what is asked.
"""
