"""Several bakes, people, ovens and deadlines: tasks, a plan, its robustness, replanning, purchasing.

It does not know a calendar or the wall clock.
Begin with ``schedule_problem.py`` and ``plans/planning.py``.
"""
