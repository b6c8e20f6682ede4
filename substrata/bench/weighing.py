"""What is weighed in which order, and with which spoon what is small."""

from __future__ import annotations

from substrata.batch.weighed import FRYING, WeighedLine
from substrata.context.dough import Dough
from substrata.errors import AmountError
from substrata.pantry.weigh import weigh
from substrata.quantities.amount import parse_amount
from substrata.quantities.tables import read_table
from substrata.settings import Settings

_SPOONED_G = 12.0  # up to it a kitchen measure is told besides the grams (common practice)
_EIGHTHS = (0.125, 0.25, 0.5, 0.75, 1.0, 1.5, 2.0, 2.5, 3.0)
_FRACTIONS = {0.125: "⅛", 0.25: "¼", 0.5: "½", 0.75: "¾", 1.0: "1", 1.5: "1½", 2.0: "2", 2.5: "2½", 3.0: "3"}


def weighing_order(dough: Dough) -> tuple[tuple[WeighedLine, str, str], ...]:
    """The lines in the order in which they are weighed, each with its bowl and a note; frying fat is not weighed."""
    rows = [row for row in read_table("weighing_order.csv") if row.text("dough_kind") in (dough.kind, "*")]
    left = [w for w in dough.batch.lines if w.role != FRYING and w.grams.value > 0]
    ordered = []
    for row in rows:
        roles = row.text("roles").split()
        here = [w for w in left if w.role in roles]
        # Large amounts first: what is spilled into them weighs little.
        for w in sorted(here, key=lambda w: (roles.index(w.role) if row.text("note") else 0, -w.grams.value)):
            ordered.append((w, row.text("bowl"), row.text("note")))
            left.remove(w)
    return (*ordered, *((w, "aside", "") for w in left))


def spoons(line: WeighedLine, grams: float, settings: Settings) -> str:
    """A kitchen measure for a small weight, as near as spoons come; "" where a spoon tells nothing.

    Args:
        line: what is weighed.
        grams: how much.
        settings: the kitchen's spoons.
    """
    if grams > _SPOONED_G or line.role in ("egg", "cheese", "vegetable", "liquid"):
        return ""
    for name in ("tsp", "tbsp"):
        try:
            each = weigh(parse_amount(f"1 {name}"), line.ingredient, settings).value
        except AmountError:
            return ""
        number = grams / each
        if number > _EIGHTHS[-1] and name == "tsp":
            continue
        near = min(_EIGHTHS, key=lambda eighth: abs(eighth - number))
        if abs(near - number) > 0.2 * number:
            return ""
        return f"{'about ' if abs(near - number) > 0.05 * number else ''}{_FRACTIONS[near]} {name}"
    return ""
