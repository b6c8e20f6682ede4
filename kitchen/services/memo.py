"""The one place that makes keys of computed answers: the same key is the same kitchen, oven, choices and release of the science."""

from collections.abc import Hashable
from dataclasses import astuple, dataclass
from hashlib import sha256
from typing import Any

import orjson

from kitchen.models import Kitchen, Oven
from kitchen.services.judging import SCIENCE_MARK
from kitchen.services.ovens import profile_of
from substrata.process import OvenProfile

Mark = tuple[Hashable, ...]


def kitchen_mark(kitchen: Kitchen) -> Mark:
    """Return what tells one state of a kitchen's choices, packs and lessons from another, under one release of the science."""
    return ("kitchen", kitchen.pk, kitchen.revision, SCIENCE_MARK)


def profile_mark(profile: OvenProfile) -> Mark:
    """Return what tells one state of an oven from another: all that is known of it, and where it stands."""
    return ("oven", *astuple(profile))


def ovens_mark(kitchen: Kitchen) -> Mark:
    """Return what tells one state of all the ovens of a kitchen from another."""
    rows = Oven.objects.filter(kitchen_id=kitchen.pk, archived=False).order_by("key")
    return tuple((row.key, *astuple(profile_of(row))) for row in rows)


def document_mark(document: dict[str, Any]) -> str:
    """Return what tells one document from another, in whatever order its keys stand."""
    return sha256(orjson.dumps(document, option=orjson.OPT_SORT_KEYS)).hexdigest()


@dataclass(frozen=True)
class MemoKey:
    """Something to be worked out, known by its key alone; what it is worked out from travels along."""

    key: Mark
    payload: Any

    def __hash__(self) -> int:
        return hash(self.key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, MemoKey) and self.key == other.key
