"""What changed between two versions, in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from substrata.base.documents.field_kinds import AS_USUAL, Number
from substrata.base.documents.records import described_differences
from substrata.base.errors import SubstrataError
from substrata.base.settings import Settings
from substrata.formula.batch.weighed_lines import weigh_line
from substrata.formula.form_table import form_of
from substrata.formula.formula import Formula, Line, Target
from substrata.formula.preparation_choices import choice_kind
from substrata.ingredients.library import Library

Kind = Literal["added", "removed", "grams", "swapped", "form", "target", "text"]


@dataclass(frozen=True, kw_only=True)
class Change:
    """One difference."""

    kind: Kind
    text: str  # "Psyllium husk powder 27 → 32 g, + 18.5 %"
    line: str | None = None


def differences(before: Formula, after: Formula, library: Library, settings: Settings) -> tuple[Change, ...]:
    """Return the changes from one formula to another, lines first.

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
            changes.append(Change(kind="removed", line=old.id, text=f"{_name(old, library)} removed{_with(grams)}"))
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
    """Return what is written about a line that weighs the same."""
    if old.entered != new.entered:
        measured = f"{name}: measured as {old.entered or 'grams'} → {new.entered or 'grams'}"
        return Change(kind="text", line=new.id, text=measured)
    if old.locked != new.locked:
        return Change(kind="text", line=new.id, text=f"{name} {'locked' if new.locked else 'unlocked'}")
    forecast = next(described_differences(old, new), None)
    return Change(kind="text", line=new.id, text=f"{name}: {forecast}") if forecast else None


def _frame_changes(before: Formula, after: Formula) -> list[Change]:
    changes = []
    if before.form != after.form:
        changes.append(Change(kind="form", text=f"{form_of(before.form).name} → {form_of(after.form).name.lower()}"))
    if before.pieces != after.pieces:
        changes.append(Change(kind="form", text=f"{before.pieces} → {after.pieces} pieces"))
    if before.serving_pieces != after.serving_pieces:
        changes.append(Change(kind="form", text=f"{before.serving_pieces} → {after.serving_pieces} pieces per serving"))
    shared = {line.id for line in before.lines} & {line.id for line in after.lines}
    if [l.id for l in before.lines if l.id in shared] != [l.id for l in after.lines if l.id in shared]:
        changes.append(Change(kind="text", text="ingredients reordered"))
    for key in sorted({*before.targets, *after.targets}):
        was, now = before.targets.get(key), after.targets.get(key)
        if was != now:
            word = key.replace("_", " ")
            changes.append(Change(kind="target", text=f"target {word} {_bounds(was)} → {_bounds(now)}"))
    if before.name != after.name:
        changes.append(Change(kind="text", text=f"name “{before.name}” → “{after.name}”"))
    pairs: tuple[tuple[str, Any, Any], ...] = (
        ("mixing", before.mix, after.mix),
        ("bake", before.bake, after.bake),
        ("size", before.size, after.size),
    )
    for where, pair, other in pairs:
        changes += [Change(kind="text", text=f"{where}: {wish}") for wish in described_differences(pair, other)]
    changes += _prep_changes(before.prep, after.prep)
    changes += _sort_changes(before, after)
    if before.notes != after.notes:
        changes.append(Change(kind="text", text="notes rewritten"))
    return changes


def _sort_changes(before: Formula, after: Formula) -> list[Change]:
    changes = []
    if before.sorts != after.sorts:
        text = ", ".join(f"{sort.pieces} {sort.name}" for sort in after.sorts) or "one variety"
        changes.append(Change(kind="form", text=f"sorts: {text}"))
    if before.method != after.method:
        changes.append(Change(kind="text", text="method rewritten"))
    return changes


def _prep_changes(before: Mapping[str, float | str], after: Mapping[str, float | str]) -> list[Change]:
    """Return what is set otherwise on the Prep station, a change for each."""
    keys = sorted(key for key in {**before, **after} if before.get(key) != after.get(key))
    return [
        Change(kind="text", text=f"prep: {_spoken(key)} {_choice(key, before)} → {_choice(key, after)}") for key in keys
    ]


def _spoken(key: str) -> str:
    return key.replace("_", " ")


def _choice(key: str, choices: Mapping[str, float | str]) -> str:
    return (choice_kind(key) or Number()).words(choices.get(key)) if key in choices else AS_USUAL


def _bounds(window: Target | None) -> str:
    if window is None:
        return "usual range"
    low, high = (f"{side:g}" if side is not None else "" for side in (window.low, window.high))
    return f"{low}–{high}" if low and high else (f"≥ {low}" if low else f"≤ {high}" if high else "open")


def _name(line: Line, library: Library) -> str:
    if line.part is not None:
        return line.part.formula.name or "a part"
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
