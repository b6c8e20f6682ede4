from .analysis.analyse import Analysis, analyse, analyse_dough
from .analysis.figure_changes import FigureChange, changes
from .analysis.target_states import FigureMeaning, figure_meanings
from .dough import Dough
from .forecasts.bake_forecast import BakeForecast, forecast_bake
from .forecasts.preparation_forecast import plan_preparation
from .forecasts.preparation_task import PrepPlan
from .forecasts.shape_forecast import ShapePlan, plan_shape
from .forecasts.warm_up import warm_in_background
from .keeping import Keeping
from .scaling import Scaled, ScaleWish, scale
from .target_ranges import fails
from .varieties import variety_formula

__all__ = [
    "Analysis",
    "BakeForecast",
    "Dough",
    "FigureChange",
    "FigureMeaning",
    "Keeping",
    "PrepPlan",
    "ScaleWish",
    "Scaled",
    "ShapePlan",
    "analyse",
    "analyse_dough",
    "changes",
    "fails",
    "figure_meanings",
    "forecast_bake",
    "plan_preparation",
    "plan_shape",
    "scale",
    "variety_formula",
    "warm_in_background",
]
