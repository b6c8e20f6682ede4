"""Plans that hold when forecasts are late: quantiles, time to spare, simulated days.

It does not know formulas.
Begin with ``robust_plan.py``.
"""
