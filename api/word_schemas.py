"""The words of the page: every list of choices that the core's tables hold."""

from collections.abc import Iterator
from typing import Any

from ninja import Schema

from kitchen.models import Kitchen
from kitchen.services.devices import device_choices
from kitchen.services.pans import PAN_KINDS
from substrata.base import SDS_IN_HALF_90, Wording, constant, declared, read_table, setting_options, whole_constant
from substrata.evaluation import FigureMeaning, figure_meanings
from substrata.execution import ALSO, felt_words
from substrata.formula import MOST_TRAYS, WISHES, Mix, forms, roles
from substrata.inference import MOST_BYTES, fault_table
from substrata.ingredients import FIGURE_KINDS, fields
from substrata.nutrition import CONVENTIONS, allergen_words, budget_kinds, claim_kinds
from substrata.process import DEGREES, MINUTES, bakeware, classes, rest_places, texture_words
from substrata.reformulation import SureStep, axis_words, balance_keeps, exclusions, sure_steps
from substrata.scheduling import PlannedOven, Thing, things


def _kitchen_choices() -> Iterator[tuple[str, Any]]:
    """Yield each choice of the core's settings with the names that the kitchen's field has for its words."""
    for name in setting_options():
        yield name, dict(Kitchen._meta.get_field(name).flatchoices)  # type: ignore[union-attr]  # noqa: SLF001 - Django's own way to a field


class RoleOut(Schema):
    """A role with its code."""

    id: str
    code: str
    name: str


class FormOut(Schema):
    """A form to choose."""

    id: str
    name: str
    note: str


class ClaimOut(Schema):
    """A diet claim that can be certified."""

    id: str
    name: str
    basis: str


class FigureOut(Schema):
    """A figure that a label can carry."""

    id: str
    name: str
    unit: str
    places: dict[str, int]  # its place on a label of a style; not there where the style does not print it
    part: bool  # printed as a part of the figure above it


class WareOut(Schema):
    """Something a dough lies on in the oven."""

    id: str
    name: str


class ChoiceOut(Schema):
    """A value that a kitchen may choose."""

    id: str
    name: str


class ExclusionOut(ChoiceOut):
    """Something that can be left out, and the claim that it answers."""

    claim: str


class BudgetOut(Schema):
    """A thing of which a daily budget can be kept."""

    id: str
    name: str
    unit: str
    usual: float


class AllergenOut(Schema):
    """A fact that a pack can add: an allergen by its flag."""

    flag: str
    name: str


class ConventionOut(Schema):
    """A net-carb convention with its rule."""

    id: str
    rule: Wording


class FaultOut(Schema):
    """A fault that can be told."""

    id: str
    name: str
    group: str
    forms: list[str]  # none: every form
    picture: str


class SlipOut(Schema):
    """A small thing that is done or left."""

    id: str
    name: str
    asks: str
    good: bool  # to be done; else to be left


class AxisOut(Schema):
    """The ends of a drawn axis."""

    low: float
    high: float


class LimitsOut(Schema):
    """Numbers of the job that the page draws or checks by before it has an answer."""

    half_90_sds: float  # standard deviations in half of a 90 % range
    rest_most_min: float
    handling_axis: AxisOut  # consistency, log10 Pa s
    handling_minutes: AxisOut
    handling_degrees_c: AxisOut
    oven_trays: int  # of an oven that a plan begins with
    oven_shared_k: float  # stages so far apart share it
    night_from: str  # when nobody works, as a time of day
    night_to: str
    photo_most_mb: float
    bowl_from_g: float
    scale_empty_g: float
    scale_steady_s: float


def _limits() -> LimitsOut:
    rest = next(field.kind for field in declared(Mix) if field.key == "rest_min")
    oven = PlannedOven(name="oven")
    return LimitsOut(
        half_90_sds=SDS_IN_HALF_90,
        rest_most_min=getattr(rest, "high", 0.0),
        handling_axis=AxisOut(low=constant("handling_axis_low"), high=constant("handling_axis_high")),
        handling_minutes=AxisOut(low=float(MINUTES[0]), high=float(MINUTES[-1])),
        handling_degrees_c=AxisOut(low=float(DEGREES[0]), high=float(DEGREES[-1])),
        oven_trays=oven.trays,
        oven_shared_k=oven.share_k,
        night_from=f"{whole_constant('night_from_h'):02d}:00",
        night_to=f"{whole_constant('night_to_h'):02d}:00",
        photo_most_mb=MOST_BYTES / 1e6,
        bowl_from_g=constant("bowl_from_g"),
        scale_empty_g=constant("scale_empty_g"),
        scale_steady_s=constant("scale_steady_s"),
    )


class WordsOut(Schema):
    """The lists that the page draws from, so that it holds no knowledge itself."""

    meanings: list[FigureMeaning]  # of each figure with a target
    balance_keeps: list[str]  # what a balance keeps until a limit is switched off
    limits: LimitsOut
    roles: list[RoleOut]
    forms: list[FormOut]
    conventions: list[ConventionOut]
    claims: list[ClaimOut]
    label_figures: list[FigureOut]
    budgets: list[BudgetOut]
    allergens: list[AllergenOut]
    import_fields: list[str]
    bakeware: list[WareOut]
    most_trays: int
    wishes: list[ChoiceOut]  # how done a bake is wanted
    kitchen_choices: dict[str, list[ChoiceOut]]  # by the setting
    pan_kinds: list[str]  # of an own pan
    exclusions: list[ExclusionOut]  # what can be left out
    handling_classes: list[str]
    rest_places: list[ChoiceOut]  # where a dough rests
    plan_things: list[Thing]  # what a kitchen has, for plans
    sure_steps: list[SureStep]  # of the dial of a settle
    textures: list[ChoiceOut]
    axes: list[ChoiceOut]  # what can stand on a trade-off's second axis
    faults: list[FaultOut]
    slips: list[SlipOut]
    feels: list[str]  # what a dough can be felt as

    @classmethod
    def everything(cls) -> "WordsOut":
        """All lists of the core."""
        return cls(
            meanings=list(figure_meanings()),
            balance_keeps=balance_keeps(),
            limits=_limits(),
            roles=[RoleOut(id=r.id, code=r.code, name=r.name) for r in roles().values()],
            forms=[FormOut(id=f.id, name=f.name, note=f.note) for f in forms().values()],
            conventions=[ConventionOut(id=key, rule=rule) for key, rule in CONVENTIONS.items()],
            claims=[ClaimOut(id=c.key, name=c.name, basis=c.basis) for c in claim_kinds().values()],
            label_figures=[
                FigureOut(id=f.key, name=f.name, unit=f.unit, places=dict(f.places), part=f.part)
                for f in FIGURE_KINDS.values()
            ],
            budgets=[BudgetOut(id=b.key, name=b.name, unit=b.unit, usual=b.usual) for b in budget_kinds().values()],
            allergens=[AllergenOut(flag=flag, name=name) for flag, name in allergen_words().items()],
            import_fields=list(fields()),
            bakeware=[WareOut(id=ware.id, name=ware.name) for ware in bakeware().values()],
            most_trays=MOST_TRAYS,
            wishes=[ChoiceOut(id=key, name=name) for key, name in WISHES.items()],
            kitchen_choices={
                setting: [ChoiceOut(id=key, name=str(name)) for key, name in choices.items()]
                for setting, choices in _kitchen_choices()
            }
            | {"devices": [ChoiceOut(id=key, name=name) for key, name in device_choices()]},
            pan_kinds=list(PAN_KINDS),
            exclusions=[ExclusionOut(id=e.id, name=e.name, claim=e.claim) for e in exclusions().values()],
            handling_classes=[band.class_name for band in classes()],
            rest_places=[ChoiceOut(id=place.id, name=place.name) for place in rest_places().values()],
            plan_things=list(things().values()),
            sure_steps=list(sure_steps()),
            textures=[ChoiceOut(id=key, name=label) for key, label in texture_words().items()],
            axes=[ChoiceOut(id=key, name=name) for key, name in axis_words().items()],
            faults=[
                FaultOut(id=f.id, name=f.words, group=f.group, forms=sorted(f.forms), picture=f.picture)
                for f in fault_table().values()
            ],
            slips=[
                SlipOut(
                    id=row.text("slip"), name=row.text("words"), asks=row.text("asks"), good=row.text("good") == "1"
                )
                for row in read_table("slips.csv")
            ],
            feels=[*felt_words(), *ALSO],
        )
