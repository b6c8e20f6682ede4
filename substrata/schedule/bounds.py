"""What a plan costs at least, whatever its order: what the solver does not see by itself."""

from __future__ import annotations

from math import ceil

from substrata.schedule.problem import ROOM_C, Oven, Task


def least_on(oven: Oven, rows: list[Task]) -> int:
    """Minutes that an oven is on at least: what cannot share it comes one after the other, and it has to get as hot as the hottest.

    Stages that may share it, be it through others, are one group; a group takes as long as its longest, and as its trays one beside
    the other. Stages no two of which can be in it at once take as long as all of them. However they are ordered, all heating up
    together is at least from the room to the hottest stage.
    """
    hottest = max(task.temp_c for task in rows)
    apart = sum(task.minutes for task in _one_by_one(oven, rows))
    return max(_in_groups(oven, rows), apart) + oven.heating(max(hottest - oven.share_k, ROOM_C))


def _one_by_one(oven: Oven, rows: list[Task]) -> list[Task]:
    """Stages no two of which can be in an oven at once, taken by their length."""
    chosen: list[Task] = []
    for task in sorted(rows, key=lambda t: (-t.minutes, t.id)):
        if all(task.trays + other.trays > oven.trays or not task.shares(other, oven.share_k) for other in chosen):
            chosen.append(task)
    return chosen


def _in_groups(oven: Oven, rows: list[Task]) -> int:
    left, least = list(rows), 0
    while left:
        group = [left.pop()]
        for task in group:  # grows while it is gone through
            near = [other for other in left if task.shares(other, oven.share_k)]
            group += near
            left = [other for other in left if other not in near]
        filled = ceil(sum(task.minutes * task.trays for task in group) / oven.trays)
        least += max(filled, *(task.minutes for task in group))
    return least
