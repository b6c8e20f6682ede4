from .bake_log import LogState, log_state, what_was_done
from .feel_advice import ALSO, FeelAdvice, feel
from .live_forecast import BakeReading, LiveBake, LiveForecast
from .pour_advice import PourAdvice, poured
from .protocol import bake_protocol
from .protocol_step import RunPlan
from .run_document import (
    MOST_ENTRIES,
    RUN_VERSION,
    Done,
    Entry,
    Run,
    Verdict,
    felt_words,
    moment_of,
    read_run,
    run_schema,
    write_run,
)

__all__ = [
    "ALSO",
    "MOST_ENTRIES",
    "RUN_VERSION",
    "BakeReading",
    "Done",
    "Entry",
    "FeelAdvice",
    "LiveBake",
    "LiveForecast",
    "LogState",
    "PourAdvice",
    "Run",
    "RunPlan",
    "Verdict",
    "bake_protocol",
    "feel",
    "felt_words",
    "log_state",
    "moment_of",
    "poured",
    "read_run",
    "run_schema",
    "what_was_done",
    "write_run",
]
