"""Photos of what came out: read for their colour, kept small, deletable."""

from typing import Any

from django.db import transaction

from kitchen.errors import NotFound, Refused
from kitchen.models import Membership, RunPhoto
from kitchen.services.access import record, require, run_of
from substrata.inference import Reference, read_photo

MOST_PHOTOS = 12  # of a run


def add_photo(
    member: Membership,
    run_id: int,
    file: Any,
    at: tuple[float, float] | None = None,
    reference: Reference = "paper",
) -> RunPhoto:
    """Keep a photo and read the crust's colour off it.

    Args:
        member: who asks, in their kitchen.
        run_id: the run.
        file: with ``read``; None where none was sent.
        at: where the reference lies in it, as shares of width and height; None looks for white paper.
        reference: what lies there.

    Returns:
        The stored photo.

    Raises:
        FormulaError: when it is no photo, or cannot tell.
        Refused: when none was sent, or the run has enough of them.
    """
    require(member, "bakes.edit")
    run = run_of(member, run_id)
    if file is None:
        raise Refused("no photo was sent", got="nothing", allowed="a photo", remedy="choose one", field="photo")
    if run.photos.count() >= MOST_PHOTOS:
        raise Refused(
            "this bake has the most photos allowed",
            got=str(MOST_PHOTOS),
            allowed=f"up to {MOST_PHOTOS}",
            remedy="delete one",
        )
    photo = read_photo(file.read(), at=at, reference=reference)
    with transaction.atomic():
        stored = RunPhoto.objects.create(
            run=run,
            jpeg=photo.jpeg,
            lightness=photo.colour.lightness,
            error=photo.colour.error,
            evenness=photo.colour.evenness,
            created_by=member.user,
        )
        record(member, "run.photo", run.formula, run=run.pk)
    return stored


def photos_of(member: Membership, run_id: int) -> list[RunPhoto]:
    """Return the photos of a run, without their pixels."""
    return list(run_of(member, run_id).photos.defer("jpeg"))


def open_photo(member: Membership, run_id: int, photo_id: int) -> RunPhoto:
    """One photo.

    Returns:
        The photo with its pixels.

    Raises:
        NotFound: when the run has no such photo.
    """
    photo = run_of(member, run_id).photos.filter(pk=photo_id).first()
    if photo is None:
        raise NotFound("photo not found", got=str(photo_id), remedy="choose one of the photos of this bake")
    return photo


@transaction.atomic
def delete_photo(member: Membership, run_id: int, photo_id: int) -> None:
    """Take a photo away for good.

    Raises:
        NotFound: when the run has no such photo.
    """
    require(member, "bakes.edit")
    gone, _ = run_of(member, run_id).photos.filter(pk=photo_id).delete()
    if not gone:
        raise NotFound("photo not found", got=str(photo_id), remedy="choose one of the photos of this bake")
    record(member, "run.delete_photo", run=run_id)
