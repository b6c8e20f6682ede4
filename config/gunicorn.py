"""Gunicorn: load the science before the first request, and collect garbage rarely."""

import gc
from typing import Any


def when_ready(server: Any) -> None:  # noqa: ARG001 - gunicorn's signature
    """Read the library once in the parent; its pages are shared by the workers and never collected."""
    from substrata import load_library

    load_library()
    gc.collect()
    gc.freeze()


def post_fork(server: Any, worker: Any) -> None:  # noqa: ARG001
    """An analysis makes thousands of small short-lived values: the usual 700 would collect many times in each."""
    gc.set_threshold(50_000, 20, 50)
    from substrata.stations.warm_oven import warm_in_background

    warm_in_background()
