from .balancing import balance
from .blending import Quality, blend, lean
from .feasible_range import FeasibleRange, feasible_ranges
from .line_sweep import Sweep, sweep
from .pareto import POINTS, ParetoFront, axis_words, pareto_front
from .quick_fix_search import QuickFix, quick_fixes
from .request.balance_answer import BalanceAnswer, BalanceOption
from .request.balance_request import Wish, check_wish, read_wish, target_keys
from .request.exclusions import exclusions
from .request.guard_limits import balance_keeps
from .solutions.target_probability import SureStep, sure_steps
from .starter_formula import StarterFormula, begin

__all__ = [
    "POINTS",
    "BalanceAnswer",
    "BalanceOption",
    "FeasibleRange",
    "ParetoFront",
    "Quality",
    "QuickFix",
    "StarterFormula",
    "SureStep",
    "Sweep",
    "Wish",
    "axis_words",
    "balance",
    "balance_keeps",
    "begin",
    "blend",
    "check_wish",
    "exclusions",
    "feasible_ranges",
    "lean",
    "pareto_front",
    "quick_fixes",
    "read_wish",
    "sure_steps",
    "sweep",
    "target_keys",
]
