"""Background work in the PostgreSQL queue. The worker looks for tasks in a module of this name."""

from procrastinate.contrib.django import app

from kitchen.services.formulas import refresh_cards

_BATCH = 200


@app.task(name="kitchen.refresh_shelf", queueing_lock="refresh_shelf")  # type: ignore[untyped-decorator]  # the library ships no types
def refresh_shelf() -> int:
    """Bring every shelf card up to the present science, a batch at a time."""
    made = 0
    while done := refresh_cards(_BATCH):
        made += done
    return made
