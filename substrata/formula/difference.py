"""What changed between two versions, in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from substrata.errors import SubstrataError
from substrata.formula.form import Window, form_of
from substrata.formula.formula import Formula, Line, LinePrep, Mix
from substrata.formula.weighed import weigh_line
from substrata.pantry.library import Library
from substrata.settings import Settings

Kind = Literal["added", "removed", "grams", "swapped", "form", "target", "text"]


@dataclass(frozen=True, kw_only=True)
class Change:
    """One difference."""

    kind: Kind
    text: str  # "Psyllium husk powder 27 → 32 g, + 18.5 %"
    line: str | None = None


def differences(before: Formula, after: Formula, library: Library, settings: Settings) -> tuple[Change, ...]:
    """Changes from one formula to another, lines first.

    Lines are paired by id, else by ingredient.
    """
    return (*_line_changes(before, after, library, settings), *_frame_changes(before, after))


def _line_changes(before: Formula, after: Formula, library: Library, settings: Settings) -> list[Change]:
    pairs = _paired(before.lines, after.lines)
    paired_old = {old.id for old, _ in pairs}
    new_of = {new.id: old for old, new in pairs}
    changes = []
    for new in after.lines:
        if new.id in new_of:
            change = _compare(new_of[new.id], new, library, settings)
            if change:
                changes.append(change)
        else:
            grams = _weight(new, library, settings)
            changes.append(Change(kind="added", line=new.id, text=f"{_name(new, library)} added{_with(grams)}"))
    for old in before.lines:
        if old.id not in paired_old:
            grams = _weight(old, library, settings)
            changes.append(Change(kind="removed", line=old.id, text=f"{_name(old, library)} taken out{_with(grams)}"))
    return changes


def _paired(before: Sequence[Line], after: Sequence[Line]) -> list[tuple[Line, Line]]:
    old_by_id = {line.id: line for line in before}
    pairs = [(old_by_id[new.id], new) for new in after if new.id in old_by_id]
    used_old, used_new = {old.id for old, _ in pairs}, {new.id for _, new in pairs}
    for new in after:
        if new.id in used_new:
            continue
        match = next((o for o in before if o.id not in used_old and o.ingredient == new.ingredient), None)
        if match:
            pairs.append((match, new))
            used_old.add(match.id)
    return pairs


def _compare(old: Line, new: Line, library: Library, settings: Settings) -> Change | None:
    name = _name(new, library)
    was, now = _weight(old, library, settings), _weight(new, library, settings)
    if old.ingredient != new.ingredient:
        return Change(kind="swapped", line=new.id, text=f"{_name(old, library)}{_with(was)} → {name}{_with(now)}")
    if old.lot != new.lot:
        weights = "" if was == now else f"{_with(was)} →{_with(now).removeprefix(',')}"
        packs = f"{_pack(old, library)} → {_pack(new, library)}"
        return Change(kind="swapped", line=new.id, text=f"{name}: {packs}{weights}")
    if was is not None and now is not None and abs(was - now) > 0.05:
        share = f", {'+' if now > was else '−'} {abs(now / was - 1):.0%}".replace("%", " %") if was else ""
        return Change(kind="grams", line=new.id, text=f"{name} {_short(was)} → {_short(now)} g{share}")
    return _text_change(old, new, name)


def _text_change(old: Line, new: Line, name: str) -> Change | None:
    """What is written about a line that weighs the same."""
    if old.entered != new.entered:
        measured = f"{name}: measured as {old.entered or 'grams'} → {new.entered or 'grams'}"
        return Change(kind="text", line=new.id, text=measured)
    if old.locked != new.locked:
        return Change(kind="text", line=new.id, text=f"{name} {'locked' if new.locked else 'unlocked'}")
    for field, word in (("role", "role"), ("treatment", "treatment"), ("note", "note"), ("stage", "stage")):
        before, after = getattr(old, field), getattr(new, field)
        if before != after:
            return Change(kind="text", line=new.id, text=f"{name}: {word} {before or 'none'} → {after or 'none'}")
    if old.temperature_c != new.temperature_c:
        degrees = f"{_degrees(old.temperature_c)} → {_degrees(new.temperature_c)}"
        return Change(kind="text", line=new.id, text=f"{name}: goes in {degrees}")
    if old.prep != new.prep:
        return Change(kind="text", line=new.id, text=f"{name}: {_drying(old.prep)} → {_drying(new.prep)}")
    return None


def _degrees(temperature_c: float | None) -> str:
    return "as usual" if temperature_c is None else f"at {temperature_c:g} °C"


def _drying(prep: LinePrep | None) -> str:
    """How it is dried, in a few words."""
    if prep is None or not prep.steps:
        return "as it is"
    start = f", from {prep.start_g:g} g" if prep.start_g else ""
    return f"{', '.join(step.act for step in prep.steps)}{start}{', weighed' if prep.weighed else ''}"


def _frame_changes(before: Formula, after: Formula) -> list[Change]:
    changes = []
    if before.form != after.form:
        changes.append(Change(kind="form", text=f"{form_of(before.form).name} → {form_of(after.form).name.lower()}"))
    if before.pieces != after.pieces:
        changes.append(Change(kind="form", text=f"{before.pieces} → {after.pieces} pieces"))
    if before.serving_pieces != after.serving_pieces:
        changes.append(Change(kind="form", text=f"{before.serving_pieces} → {after.serving_pieces} pieces at once"))
    kept = {line.id for line in before.lines} & {line.id for line in after.lines}
    if [l.id for l in before.lines if l.id in kept] != [l.id for l in after.lines if l.id in kept]:
        changes.append(Change(kind="text", text="lines in another order"))
    for key in sorted({*before.targets, *after.targets}):
        was, now = before.targets.get(key), after.targets.get(key)
        if was != now:
            word = key.replace("_", " ")
            changes.append(Change(kind="target", text=f"target {word} {_bounds(was)} → {_bounds(now)}"))
    if before.name != after.name:
        changes.append(Change(kind="text", text=f"name “{before.name}” → “{after.name}”"))
    if before.mix != after.mix:
        changes.append(Change(kind="text", text=f"mixed {_mixing(before.mix)} → {_mixing(after.mix)}"))
    changes += _settings("bake", _bake_said(before), _bake_said(after))
    changes += _settings("size", _size_said(before), _size_said(after))
    changes += _settings("prep", before.prep, after.prep)
    if before.notes != after.notes:
        changes.append(Change(kind="text", text="notes rewritten"))
    return changes


def _bake_said(formula: Formula) -> dict[str, object]:
    bake = formula.bake
    named: dict[str, object] = {
        "moisture percent": bake.moisture_percent,
        "oven c": bake.oven_c,
        "dough c": bake.dough_c,
    }
    named |= {"fan": 1.0 if bake.fan else None, "trays": float(bake.trays), "altitude m": bake.altitude_m}
    stages = ", ".join(f"{s.kind} {s.minutes:g}" if s.minutes else s.kind for s in bake.stages)
    return named | {
        "fried or baked": bake.fried or None,
        "frying fat": bake.frying_fat or None,
        "ware": bake.ware or None,
        "oven": bake.oven or None,
        "stages": stages or None,
    }


def _size_said(formula: Formula) -> dict[str, object]:
    size = formula.size
    return {
        "held": size.held or None,
        "thickness mm": size.thickness_mm,
        "length mm": size.length_mm,
        "pan": size.pan or None,
        "tray": size.tray or None,
        "gap mm": size.gap_mm,
        "hole mm": size.hole_mm,
    }


def _settings(where: str, before: Mapping[str, object], after: Mapping[str, object]) -> list[Change]:
    """What is set otherwise, a change for each."""
    keys = [key for key in {**before, **after} if before.get(key) != after.get(key)]
    return [
        Change(kind="text", text=f"{where}: {key.replace('_', ' ')} {_said(before.get(key))} → {_said(after.get(key))}")
        for key in sorted(keys)
    ]


def _said(value: object) -> str:
    return "as usual" if value is None else f"{value:g}" if isinstance(value, float) else str(value)


def _mixing(mix: Mix) -> str:
    warm = f"at {mix.temperature_c:g} °C" if mix.temperature_c is not None else ""
    cheese = f"cheese {mix.cheese}" if mix.cheese else ""
    return ", ".join(filter(None, (warm, cheese, mix.work))) or "as usual"


def _bounds(window: Window | None) -> str:
    if window is None:
        return "house window"
    low, high = (f"{side:g}" if side is not None else "" for side in (window.low, window.high))
    return f"{low}–{high}" if low and high else (f"≥ {low}" if low else f"≤ {high}" if high else "open")


def _name(line: Line, library: Library) -> str:
    return library[line.ingredient].name if line.ingredient in library else line.ingredient


def _pack(line: Line, library: Library) -> str:
    if not line.lot:
        return "reference"
    pack = library[line.lot].pack if line.lot in library else None
    return pack.name if pack else "another kitchen's pack"


def _weight(line: Line, library: Library, settings: Settings) -> float | None:
    try:
        return weigh_line(line, library, settings).grams.value
    except SubstrataError:
        return None


def _with(grams: float | None) -> str:
    return f", {_short(grams)} g" if grams is not None else ""


def _short(grams: float) -> str:
    return f"{grams:.1f}".removesuffix(".0") if grams < 20 else f"{grams:.0f}"
