"""Several bakes, people, ovens and deadlines: tasks, a plan, its robustness, replanning, purchasing.

It does not know a calendar or the wall clock.
Begin with ``schedule_problem.py`` and ``plans/planning.py``.
"""

import lazy_loader

# The face of the room: what is named in the stub is loaded when it is first used.
__getattr__, __dir__, __all__ = lazy_loader.attach_stub(__name__, __file__)
