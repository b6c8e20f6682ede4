"""Baker's percentages: every line as a share of the dry base."""

from __future__ import annotations

from substrata.formula.batch.batch_lines import Batch


def bakers_percent(batch: Batch) -> list[float | None]:
    """Percent of the dry base, a line each; None for all when there is no dry base.

    The dry base is every line of role base, fibre or binder, and is 100 %.

    Returns:
        Percent by line; None where undefined.
    """
    base = batch.dry_base_g
    return [float(100 * grams / base) if base > 0 else None for grams in batch.grams]
