"""Background work in the PostgreSQL queue. The worker looks for tasks in a module of this name."""

from procrastinate.contrib.django import app

from kitchen.services.formulas import refresh_cards
from kitchen.services.imports import run_import
from kitchen.services.ovens import run_map

_BATCH = 200


@app.task(name="kitchen.refresh_shelf", queueing_lock="refresh_shelf")  # type: ignore[untyped-decorator]  # the library ships no types
def refresh_shelf() -> int:
    """Bring every shelf card up to the present science, a batch at a time."""
    made = 0
    while done := refresh_cards(_BATCH):
        made += done
    return made


@app.task(name="kitchen.run_import")  # type: ignore[untyped-decorator]
def import_packs(import_id: int) -> None:
    """Check the rows of a product file, or keep them."""
    run_import(import_id)


@app.task(name="kitchen.run_oven_map")  # type: ignore[untyped-decorator]
def oven_map(map_id: int) -> None:
    """Bake the map of one formula, a row at a time."""
    run_map(map_id)
