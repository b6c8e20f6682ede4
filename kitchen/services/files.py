"""Formulas and whole kitchens as one open file, and back: a formula travels with the packs and pans that make its figures."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from math import isfinite
from typing import Any

from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from kitchen.errors import Refused
from kitchen.models import Eater, Formula, FormulaVersion, Kitchen, Lot, Membership, Oven
from kitchen.services.access import formula_of, record, require
from kitchen.services.formulas import create_formula
from kitchen.services.judging import packs_named, settings_document
from kitchen.services.kitchens import bump_revision, change_settings, set_eaters
from kitchen.services.oven_readings import take_oven
from kitchen.services.ovens import bakes_changed
from kitchen.services.packs import described, new_key
from kitchen.services.pans import set_pans
from kitchen.services.stock import receive
from substrata import load_library, read_document, write_document
from substrata.base import SubstrataError
from substrata.ingredients import read_lot, write_lot

FILE_VERSION = 1
_VERSION = "substrata_file"
MOST_FORMULAS, MOST_PACKS, MOST_VERSIONS = 1_000, 3_000, 500


@dataclass(frozen=True, kw_only=True)
class ImportedFile:
    """What an import brought."""

    formulas: list[Formula]
    packs_added: int
    packs_known: int  # already here, by what they say
    settings_taken: bool


def formula_file(member: Membership, formula_id: int, *, versions: bool) -> dict[str, Any]:
    """One formula with the packs and pans that it uses; with all its versions if wished."""
    formula = formula_of(member, formula_id)
    entry = _entry(formula, versions=versions)
    return {_VERSION: FILE_VERSION, "formulas": [entry], **_used(member.kitchen, [entry])}


def kitchen_file(member: Membership) -> dict[str, Any]:
    """Return a whole kitchen: choices, eaters, pans, ovens with their logged bakes, packs with what is on hand, formulas with all versions."""
    kitchen = member.kitchen
    rows = kitchen.formulas.select_related("draft").prefetch_related("versions").order_by("pk")
    return {
        _VERSION: FILE_VERSION,
        "kitchen": {"name": kitchen.name, **settings_document(kitchen)},
        "pans": kitchen.pans,
        "ovens": [_oven(oven) for oven in kitchen.ovens.prefetch_related("bakes").order_by("pk")],
        "packs": [_pack(lot, on_hand=True) for lot in kitchen.lots.order_by("pk")],
        "formulas": [_entry(formula, versions=True) for formula in rows],
    }


def _entry(formula: Formula, *, versions: bool) -> dict[str, Any]:
    entry: dict[str, Any] = {"document": formula.draft.document}
    if formula.archived_at:
        entry["archived"] = True
    if versions:
        entry["versions"] = [
            {
                "number": v.number,
                "note": v.note,
                "changes": v.changes,
                "created_at": v.created_at.isoformat(),
                "document": v.document,
            }
            for v in formula.versions.order_by("number")
        ]
    return entry


def _documents(entries: Iterable[dict[str, Any]]) -> list[dict[str, Any]]:
    return [d for e in entries for d in (e["document"], *(v["document"] for v in e.get("versions", ())))]


def _used(kitchen: Kitchen, entries: list[dict[str, Any]]) -> dict[str, Any]:
    documents = _documents(entries)
    keys = frozenset().union(*(packs_named(document) for document in documents))
    sizes = [document.get("form", {}).get("size") or {} for document in documents]
    pans = {size.get(name) for size in sizes for name in ("pan", "tray")}
    return {
        "packs": [_pack(lot) for lot in kitchen.lots.filter(key__in=keys).order_by("pk")],
        "pans": [pan for pan in kitchen.pans if pan["id"] in pans],
    }


def _pack(lot: Lot, *, on_hand: bool = False) -> dict[str, Any]:
    entry = {"key": lot.key, "document": lot.document}
    if on_hand:
        entry |= {"on_hand_g": lot.on_hand_g, "archived": lot.archived_at is not None}
    return entry


def _oven(oven: Oven) -> dict[str, Any]:
    fields = ("formula_name", "document", "minutes", "before_g", "after_g", "probe_c", "readings")
    bakes = [{name: getattr(bake, name) for name in fields} for bake in oven.bakes.order_by("pk")]
    return {
        "key": oven.key,
        "name": oven.name,
        "altitude_m": oven.altitude_m,
        "archived": oven.archived,
        "bakes": bakes,
    }


@transaction.atomic
def take_file(member: Membership, content: dict[str, Any], *, settings: bool = False) -> ImportedFile:
    """Put what a file holds into a kitchen: all of it, or, when a part of it cannot be read, nothing.

    Args:
        member: who asks, in their kitchen.
        content: a file of ``formula_file`` or ``kitchen_file``, or a plain formula document.
        settings: take the file's choices, eaters and ovens too.

    Returns:
        What was imported, by kind and number.

    Raises:
        Refused: naming the part that is no such file.
        SubstrataError: when a formula or pack of it cannot be read.
    """
    require(member, "kitchen.import")
    if _VERSION not in content and "lines" in content:
        content = {_VERSION: FILE_VERSION, "formulas": [{"document": content}]}
    entries, packs = _checked(content)
    if settings and isinstance(content.get("kitchen"), dict):
        _take_choices(member, content)
    _take_pans(member, content.get("pans") or [])
    keys, added = _take_packs(member, packs)
    formulas = [_take_formula(member, entry, keys) for entry in entries]
    if added:
        bump_revision(member.kitchen)
    record(member, "file.take", formulas=len(formulas), packs=added)
    return ImportedFile(formulas=formulas, packs_added=added, packs_known=len(keys) - added, settings_taken=settings)


def _checked(content: dict[str, Any]) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    if content.get(_VERSION) != FILE_VERSION:
        raise Refused(
            "this is not a formula file",
            got=str(content.get(_VERSION, "no Substrata format marker"))[:40],
            allowed="a *.substrata.json file that was exported here",
            remedy="choose another file",
            field="file",
        )
    result = []
    for name, most in (("formulas", MOST_FORMULAS), ("packs", MOST_PACKS)):
        rows = content.get(name) or []
        fits = isinstance(rows, list) and all(isinstance(r, dict) and isinstance(r.get("document"), dict) for r in rows)
        if not fits or len(rows) > most:
            got = f"{len(rows)} items" if fits else "another kind of file"
            raise Refused(
                f"the {name} of the file cannot be read", got=got, allowed=f"up to {most} documents", field=name
            )
        result.append(rows)
    return result[0], result[1]


def _take_choices(member: Membership, content: dict[str, Any]) -> None:
    choices = content["kitchen"]
    values = {name: choices[name] for name in Kitchen.SETTINGS if name in choices}
    change_settings(member, values)
    if not Eater.objects.filter(kitchen_id=member.kitchen_id).exists():
        set_eaters(member, choices.get("eaters") or [])
    here = set(member.kitchen.ovens.values_list("key", flat=True))
    listed = content.get("ovens") or []
    if not isinstance(listed, list) or not all(isinstance(oven, dict) for oven in listed):
        raise Refused(
            "the ovens of the file cannot be read", got="another kind of file", allowed="a list", field="ovens"
        )
    for oven in listed:
        if oven.get("key") not in here:
            take_oven(member, oven)
    bakes_changed.send(Oven, member=member)
    member.kitchen.refresh_from_db()


def _number(value: Any) -> float | None:
    if value is None:
        return None
    if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value):
        raise Refused("a weight of the file cannot be read", got=str(value)[:40], allowed="a number", field="on_hand_g")
    return float(value)


def _take_pans(member: Membership, pans: list[dict[str, Any]]) -> None:
    here = {pan["id"] for pan in member.kitchen.pans}
    fresh = [pan for pan in pans if isinstance(pan, dict) and pan.get("id") not in here]
    if fresh:
        set_pans(member, [*member.kitchen.pans, *fresh])
        member.kitchen.refresh_from_db()


def _take_packs(member: Membership, packs: list[dict[str, Any]]) -> tuple[dict[str, str], int]:
    """Key in the file → key here; and how many were added. A pack that says the same is the same pack."""
    library = load_library()
    here = {_fingerprint(lot.document): lot.key for lot in member.kitchen.lots.order_by("-archived_at", "pk")}
    keys: dict[str, str] = {}
    added = 0
    for entry in packs:
        fingerprint = _fingerprint(write_lot(read_lot(entry["document"], "new")))
        if fingerprint not in here:
            lot = described(
                Lot(kitchen=member.kitchen, key=new_key(), updated_by=member.user), entry["document"], library
            )
            lot.archived_at = timezone.now() if entry.get("archived") else None
            lot.save()
            if (on_hand := _number(entry.get("on_hand_g")) or 0.0) > 0:
                receive(lot, on_hand, member.user)
            here[fingerprint] = lot.key
            added += 1
        keys[str(entry.get("key", ""))] = here[fingerprint]
    return keys, added


def _fingerprint(document: dict[str, Any]) -> str:
    return json.dumps(document, sort_keys=True)


def _take_formula(member: Membership, entry: dict[str, Any], keys: dict[str, str]) -> Formula:
    versions = entry.get("versions") or []
    if not isinstance(versions, list) or len(versions) > MOST_VERSIONS:
        raise Refused(
            "the versions cannot be read", got=f"{len(versions)}", allowed=f"up to {MOST_VERSIONS}", field="versions"
        )
    if not all(isinstance(v, dict) and isinstance(v.get("document"), dict) for v in versions):
        raise Refused(
            "a version cannot be read", got="another kind of file", allowed="the formula document", field="versions"
        )
    try:
        opened = create_formula(member, _at_home(entry["document"], keys))
        new_versions = [_version(v, n, keys) for n, v in enumerate(versions, 1)]
    except SubstrataError as error:
        name = str(entry["document"].get("name", "a formula"))[:80]
        raise Refused(
            f"{name}: {error.what}", got=error.got, allowed=error.allowed, remedy=error.remedy, field=error.field
        ) from error
    for version in new_versions:
        version.formula, version.author = opened.formula, member.user
    FormulaVersion.objects.bulk_create(new_versions)
    draft = opened.draft
    if new_versions:
        draft.base_number = new_versions[-1].number
        draft.changed = draft.document != new_versions[-1].document
        draft.save(update_fields=["base_number", "changed"])
    if entry.get("archived"):
        opened.formula.archived_at = timezone.now()
        opened.formula.save(update_fields=["archived_at"])
    return opened.formula


def _version(version: dict[str, Any], number: int, keys: dict[str, str]) -> FormulaVersion:
    document = write_document(read_document(_at_home(version.get("document") or {}, keys)))
    return FormulaVersion(
        number=number,
        document=document,
        note=str(version.get("note", ""))[:500],
        changes=[str(change)[:300] for change in version.get("changes") or []][:200],
        created_at=parse_datetime(str(version.get("created_at", ""))) or timezone.now(),
    )


def _at_home(document: dict[str, Any], keys: dict[str, str]) -> dict[str, Any]:
    """Return a document whose lines name the packs of this kitchen."""
    lines = document.get("lines")
    if not isinstance(lines, list):
        return document
    mapped = [
        line | {"lot": keys.get(line["lot"], line["lot"])} if isinstance(line, dict) and line.get("lot") else line
        for line in lines
    ]
    return document | {"lines": mapped}
