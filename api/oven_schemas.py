"""What goes in and out of the Shape and Oven stations."""

from datetime import datetime

from ninja import Schema
from pydantic import Field

from api.document_schemas import FormulaDocument, Text, model_of
from kitchen.models import LoggedBake, Oven
from substrata.base import Pan, Wording
from substrata.process import OvenProfile


class BakeQuestion(Schema):
    """A document to bake, and perhaps the minutes there are."""

    document: FormulaDocument
    within_min: float | None = Field(None, gt=0, le=300)


class PanDocument(model_of(Pan)):  # type: ignore[misc]  # made of the declaration
    """One of the kitchen's own pans or trays; inner measures."""


class PansIn(Schema):
    """All of them."""

    pans: list[PanDocument] = Field(max_length=200)
    seen: list[Text] | None = Field(None, max_length=200)  # ids when they were last looked at


class OvenIn(Schema):
    """A new oven."""

    name: Text
    altitude_m: float = Field(0.0, ge=-400, le=5000)


class OvenChange(Schema):
    """What changes about an oven."""

    name: Text | None = None
    altitude_m: float | None = Field(None, ge=-400, le=5000)
    archived: bool | None = None


class LoggedBakeIn(Schema):
    """What was seen of one bake."""

    document: FormulaDocument
    minutes: float | None = None
    before_g: float | None = None
    after_g: float | None = None
    probe_c: float | None = None


class LoggedBakeOut(Schema):
    """A logged bake."""

    id: int
    formula_name: str
    minutes: float | None
    before_g: float | None
    after_g: float | None
    probe_c: float | None
    logged_at: datetime

    @classmethod
    def from_service(cls, bake: LoggedBake) -> "LoggedBakeOut":
        """From a row."""
        return cls(
            id=bake.pk,
            formula_name=bake.formula_name,
            minutes=bake.minutes,
            before_g=bake.before_g,
            after_g=bake.after_g,
            probe_c=bake.probe_c,
            logged_at=bake.logged_at,
        )


class OvenOut(Schema):
    """An oven with what is known of it."""

    id: int
    key: str
    name: str
    altitude_m: float
    archived: bool
    offset_k: float
    offset_half_k: float
    prior_half_k: float  # what an unknown oven starts with
    bakes: list[LoggedBakeOut]
    learned_from: int  # bakes that stand behind it: those of runs too
    text: Wording

    @classmethod
    def from_service(cls, oven: Oven, profile: OvenProfile) -> "OvenOut":
        """From a row and its profile."""
        return cls(
            id=oven.pk,
            key=oven.key,
            name=oven.name,
            altitude_m=oven.altitude_m,
            archived=oven.archived,
            offset_k=profile.offset_k,
            offset_half_k=profile.half_90_k,
            prior_half_k=OvenProfile().half_90_k,
            bakes=[LoggedBakeOut.from_service(bake) for bake in oven.bakes.all()],
            learned_from=profile.bakes,
            text=profile.text,
        )
