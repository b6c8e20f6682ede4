"""The kitchen's own pans and trays."""

from typing import Any, get_args

from django.db import transaction
from django.utils.text import slugify

from kitchen.errors import Conflict, Refused
from kitchen.models import Kitchen, Membership
from kitchen.services.access import record, require
from kitchen.services.kitchens import bump_revision
from substrata.base import PanKind, pans

MOST_PANS = 60
PAN_KINDS: tuple[str, ...] = get_args(PanKind)


@transaction.atomic
def set_pans(member: Membership, rows: list[dict[str, Any]], base: list[str] | None = None) -> list[dict[str, Any]]:
    """Replace the kitchen's own pans.

    Args:
        member: who asks, in their kitchen.
        rows: all of them, as they are to be.
        base: the ids that the person last saw; None overwrites whatever is there.

    Returns:
        The stored pans as JSON.

    Raises:
        Conflict: when there are others than were last seen.
        Refused: naming the pan that cannot be.
    """
    require(member, "ovens.edit")
    kitchen = Kitchen.objects.select_for_update().get(pk=member.kitchen_id)
    if base is not None and sorted(base) != sorted(pan["id"] for pan in kitchen.pans):
        raise Conflict(
            "someone else changed the pans while you were editing",
            current={"pans": kitchen.pans},
            remedy="look again, then change yours",
        )
    if len(rows) > MOST_PANS:
        raise Refused("too many pans", got=str(len(rows)), allowed=f"up to {MOST_PANS}", field="pans")
    checked: list[dict[str, Any]] = []
    for pan in rows:
        checked.append(_checked(pan, {p["id"] for p in checked} | set(pans())))
    kitchen.pans = checked
    kitchen.save(update_fields=["pans"])
    bump_revision(kitchen)
    record(member, "kitchen.pans", count=len(checked))
    return checked


def _checked(pan: dict[str, Any], names: set[str]) -> dict[str, Any]:
    name = str(pan.get("name", "")).strip()[:80]
    kind = pan.get("kind")
    if not name or kind not in PAN_KINDS:
        raise Refused(
            "the pan cannot be read",
            got=f"{name or 'no name'}, {kind}",
            allowed=", ".join(PAN_KINDS),
            field="pans",
        )
    sizes = {}
    for side, most in (("length_mm", 2000.0), ("width_mm", 2000.0), ("height_mm", 500.0)):
        value = float(pan.get(side) or (pan.get("length_mm") if side == "width_mm" else 0) or 0)
        if not 5 <= value <= most:
            raise Refused(
                f"{name}: {side} cannot be right", got=f"{value:g}", allowed=f"5 to {most:g} mm", field=f"pans.{side}"
            )
        sizes[side] = value
    base = f"own-{slugify(name)[:30] or 'pan'}"
    key = next(k for k in (base, *(f"{base}-{n}" for n in range(2, MOST_PANS + 3))) if k not in names)
    taper = 0.93 if kind == "tin" else 1.0
    return {"id": key, "name": name, "kind": kind, "region": "", "taper": taper, "source": "the kitchen's own", **sizes}
