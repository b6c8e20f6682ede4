"""What a baker should be told besides the brackets: faults in the making, label traps, cautions.

``act`` asks for a change, ``note`` informs, ``caution`` concerns health and safety and defers to
clinicians and local rules.
"""

from __future__ import annotations

from typing import get_args

from substrata.evaluation.analysis.dough_warnings import MAKING_RULES
from substrata.evaluation.analysis.ingredient_warnings import PANTRY_RULES
from substrata.evaluation.analysis.warning_inputs import DoughWarning, Severity, WarningInputs


def warnings(inputs: WarningInputs) -> tuple[DoughWarning, ...]:
    """All warnings, the ones to act on first."""
    rows = [warning for rule in (*MAKING_RULES, *PANTRY_RULES) for warning in rule(inputs)]
    order = get_args(Severity)
    return tuple(sorted(rows, key=lambda warning: order.index(warning.severity)))
