"""Percentiles of timings, in milliseconds."""

from collections.abc import Callable
from time import perf_counter


def timed(call: Callable[[], object], times: int, warm: int = 20) -> list[float]:
    """Run a call and return its sorted durations, ms."""
    for _ in range(warm):
        call()
    rows = []
    for _ in range(times):
        start = perf_counter()
        call()
        rows.append(1000 * (perf_counter() - start))
    return sorted(rows)


def line(name: str, durations: list[float], wanted: float) -> str:
    """One line: median, 95th percentile, and their ratio to what is wanted."""
    p50, p95 = durations[len(durations) // 2], durations[int(len(durations) * 0.95)]
    return f"{name:34} p50 {p50:6.2f} ms   p95 {p95:6.2f} ms   p95 is {p95 / wanted:4.2f} of the wanted {wanted:g} ms"
