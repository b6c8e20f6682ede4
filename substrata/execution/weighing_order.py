"""What is weighed in which order."""

from __future__ import annotations

from substrata.base.messages.message import Wording
from substrata.base.tables.table_reader import read_table
from substrata.base.tables.table_texts import table_text
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import FRYING, WeighedLine
from substrata.process.rheology.phases import phase_of


def weighing_order(dough: Dough) -> tuple[tuple[WeighedLine, str, Wording], ...]:
    """Return the lines in the order in which they are weighed, each with its bowl and a note; frying fat is not weighed."""
    rows = [row for row in read_table("weighing_order.csv") if row.text("dough_kind") in (dough.kind, "*")]
    remaining = [w for w in dough.batch.lines if w.role != FRYING and w.grams.value > 0]
    ordered = []
    for row in rows:
        roles = row.text("roles").split()
        here = [w for w in remaining if w.role in roles or (row.text("soft_dairy") and _is_soft(w))]
        positions = {w.line.id: roles.index(w.role) if w.role in roles else len(roles) for w in here}
        # Large amounts first: what is spilled into them weighs little.
        concerned = row.text("note_roles").split()
        for w in sorted(here, key=lambda w: (positions[w.line.id] if row.text("by_role") else 0, -w.grams.value)):
            ordered.append((w, row.text("bowl"), table_text(row.text("note")) if w.role in concerned else ""))
            remaining.remove(w)
    return (*ordered, *((w, "aside", "") for w in remaining))


def _is_soft(w: WeighedLine) -> bool:
    """Ricotta is whisked with the eggs where grated cheese goes among the flour."""
    return w.role == "cheese" and phase_of(w).name == "soft"
