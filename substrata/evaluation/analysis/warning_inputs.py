"""One warning, and what warnings are drawn from."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from substrata.base.messages.message import Wording
from substrata.evaluation.analysis.target_states import TargetState
from substrata.evaluation.dough import Dough
from substrata.nutrition.hidden_amounts import Hidden, hidden

Severity = Literal["act", "note", "caution"]  # asks for a change; informs; concerns health and safety


@dataclass(frozen=True, kw_only=True)
class DoughWarning:
    """One thing to know, with the lines it is about."""

    code: str
    severity: Severity
    text: Wording
    lines: tuple[str, ...] = ()


@dataclass(frozen=True, kw_only=True)
class WarningInputs:
    """What the warnings are drawn from."""

    dough: Dough
    net_carbs: TargetState

    @cached_property
    def hidden(self) -> tuple[Hidden, ...]:
        """What zeros on labels can hide."""
        return hidden(self.dough.batch, self.dough.formula.pieces)
