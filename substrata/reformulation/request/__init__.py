"""What is asked of a balance, what may be excluded, the guard limits, and the record of the answer.

It does not solve.
Begin with ``balance_request.py``.
"""
