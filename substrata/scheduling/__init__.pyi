from .plans.bake_list import MOST_TEXT, BakeRow, read_bakes, write_bakes
from .plans.manual_moves import MoveConflict, conflicts, slipped
from .plans.plan_answer import Planned
from .plans.plan_document import Plan, PlannedBake, PlannedOven, plan_schema, read_plan, write_plan
from .plans.planning import make_plan
from .plans.planning_case import planning_case
from .purchasing import Pack, ShoppingRow, shopping
from .schedule_problem import Placed
from .solver.search_effort import Effort
from .tasks.kitchen_things import Thing, things

__all__ = [
    "MOST_TEXT",
    "BakeRow",
    "Effort",
    "MoveConflict",
    "Pack",
    "Placed",
    "Plan",
    "Planned",
    "PlannedBake",
    "PlannedOven",
    "ShoppingRow",
    "Thing",
    "conflicts",
    "make_plan",
    "plan_schema",
    "planning_case",
    "read_bakes",
    "read_plan",
    "shopping",
    "slipped",
    "things",
    "write_bakes",
    "write_plan",
]
