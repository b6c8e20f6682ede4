from .bake_comparison import RunsCompared, compared
from .calibration.learned_parameters import CalibrationState, Learned, Odd
from .calibration.learning import learn, lessons
from .calibration.oven_block import oven_of
from .crust_colour import MOST_BYTES, Reference, read_photo
from .diagnosis.cause_effects import CauseTable, cause_table
from .diagnosis.diagnosis import Diagnosis, diagnose
from .faults import fault_table
from .figure_history import HistoryFigure, RunPoint, over_time, run_figure_kinds

__all__ = [
    "MOST_BYTES",
    "CalibrationState",
    "CauseTable",
    "Diagnosis",
    "HistoryFigure",
    "Learned",
    "Odd",
    "Reference",
    "RunPoint",
    "RunsCompared",
    "cause_table",
    "compared",
    "diagnose",
    "fault_table",
    "learn",
    "lessons",
    "oven_of",
    "over_time",
    "read_photo",
    "run_figure_kinds",
]
