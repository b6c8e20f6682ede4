"""How a dough handles over resting minutes and temperature, in an ensemble of parameter draws.

It does not know which handling a form needs (``target_handling.py`` above).
Begin with ``handling_forecast.py``; the compiled loop is ``mixture_loops.py``.
"""
