"""Hand work to the queue by its name, so that services need not know the worker."""

from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued


def defer_refresh() -> None:
    """Ask for fresh shelf cards; once is enough while a request is waiting."""
    try:
        app.configure_task("kitchen.refresh_shelf", queueing_lock="refresh_shelf").defer()
    except AlreadyEnqueued:
        return


def defer_import(import_id: int) -> None:
    """Ask for the background part of an import."""
    app.configure_task("kitchen.run_import", lock=f"import {import_id}").defer(import_id=import_id)


def defer_map(map_id: int) -> None:
    """Ask for a map of temperature and thickness."""
    app.configure_task("kitchen.run_oven_map", lock=f"map {map_id}").defer(map_id=map_id)
