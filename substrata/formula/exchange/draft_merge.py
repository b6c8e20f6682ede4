"""Apply a change that was proposed for an older state of a formula to its present state, and name what stands in the way."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

_MISSING = object()
_IDENTITY = ("uid", "name", "notes", "provenance")  # what a proposal never changes
_WEIGHT = ("grams", "entered")


@dataclass(frozen=True, kw_only=True)
class MergeConflict:
    """Something that was changed since, and that the proposal changes too."""

    what: str  # "bake oven_c", "the line water"
    present: str
    proposed: str


@dataclass(frozen=True, kw_only=True)
class Merged:
    """The present formula with the proposed change."""

    document: dict[str, Any]
    conflicts: tuple[MergeConflict, ...]  # places where the change of the proposal stands in the document


def merge_change(base: Mapping[str, Any], proposed: Mapping[str, Any], present: Mapping[str, Any]) -> Merged:
    """Apply what differs between two documents to a third.

    Lines are paired by id; a weight that is proposed is taken as a factor of the weight that the line has now.

    Args:
        base: the formula as it was when the change was proposed.
        proposed: the same with the change.
        present: the formula as it is now; what was changed in it since stays.

    Returns:
        The merged document and the conflicts.
    """
    conflicts: list[MergeConflict] = []
    merged = _objects(base, proposed, present, "", conflicts)
    merged["lines"] = _lines(
        base.get("lines") or [], proposed.get("lines") or [], present.get("lines") or [], conflicts
    )
    for key in _IDENTITY:
        merged.pop(key, None)
        if key in present:
            merged[key] = present[key]
    return Merged(document=merged, conflicts=tuple(conflicts))


def _objects(
    base: Mapping[str, Any],
    proposed: Mapping[str, Any],
    present: Mapping[str, Any],
    where: str,
    conflicts: list[MergeConflict],
) -> dict[str, Any]:
    """Merge two levels of plain fields."""
    result = dict(present)
    for key in dict.fromkeys((*base, *proposed)):
        if not where and key in ("lines", *_IDENTITY):
            continue
        old, new, now = (document.get(key, _MISSING) for document in (base, proposed, present))
        if new in (old, now):
            continue
        name = f"{where} {key}".strip().replace("_", " ")
        if all(isinstance(document, Mapping) for document in (old, new, now)):
            result[key] = _objects(old, new, now, name, conflicts)
            continue
        if now != old:
            conflicts.append(MergeConflict(what=name, present=_described(now), proposed=_described(new)))
        if new is _MISSING:
            result.pop(key, None)
        else:
            result[key] = new
    return result


def _lines(
    base: list[dict[str, Any]],
    proposed: list[dict[str, Any]],
    present: list[dict[str, Any]],
    conflicts: list[MergeConflict],
) -> list[dict[str, Any]]:
    old, new = ({line["id"]: line for line in lines} for lines in (base, proposed))
    result = []
    for line in present:
        before, after = old.get(line["id"]), new.get(line["id"])
        if before is None or before == after:
            result.append(line)
        elif after is None:
            if line != before:
                conflicts.append(MergeConflict(what=_line(line), present=_weight(line), proposed="removed"))
        else:
            result.append(_merge_line(before, after, line, conflicts))
    here = {line["id"] for line in present}
    for line in proposed:
        if line["id"] in here:
            continue
        if line["id"] not in old:
            result.append(line)
        elif line != old[line["id"]]:
            # It was taken out since: the change has nothing to change.
            conflicts.append(MergeConflict(what=_line(line), present="removed", proposed=_weight(line)))
    return result


def _merge_line(
    before: dict[str, Any], after: dict[str, Any], now: dict[str, Any], conflicts: list[MergeConflict]
) -> dict[str, Any]:
    old, new, here = ({k: v for k, v in version.items() if k not in _WEIGHT} for version in (before, after, now))
    result = {**now, **_objects(old, new, here, _line(now), conflicts)}
    was, proposed_g, weighs = (_grams(version) for version in (before, after, now))
    if was == proposed_g or was is None or proposed_g is None or weighs is None:
        return result
    if weighs == was or not was:
        return result | {key: after.get(key) for key in _WEIGHT}
    share = round(weighs * proposed_g / was, 2)
    return result | {"grams": share, "entered": f"{share:g} g"}


def _grams(line: Mapping[str, Any]) -> float | None:
    grams = line.get("grams")
    return float(grams) if isinstance(grams, int | float) else None


def _line(line: Mapping[str, Any]) -> str:
    return f"the line {str(line.get('ingredient', '')).replace('-', ' ')}"


def _weight(line: Mapping[str, Any]) -> str:
    grams = line.get("grams")
    return f"{grams:g} g" if isinstance(grams, int | float) else str(line.get("entered", ""))


def _described(value: object) -> str:
    if value is _MISSING or value is None:
        return "nothing"
    return f"{value:g}" if isinstance(value, int | float) and not isinstance(value, bool) else str(value)[:60]
