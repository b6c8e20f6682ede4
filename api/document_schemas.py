"""The formula document as it goes in and out; the core reads and refuses it."""

from typing import Annotated

from ninja import Schema
from pydantic import ConfigDict, Field, StringConstraints

Text = Annotated[str, StringConstraints(max_length=2_000)]


class StepDocument(Schema):
    """One drying step of a vegetable."""

    act: str
    minutes: float | None = None
    watts: float | None = None
    salt_g: float | None = None
    water_g: float | None = None
    times: int | None = None


class PrepDocument(Schema):
    """How the raw matter of a line is dried; the line's grams are what goes into the dough."""

    steps: list[StepDocument] = Field(default_factory=list, max_length=50)
    start_g: float | None = None
    weighed: bool = False


class LineDocument(Schema):
    """One line of a formula document; the core checks its values and names the line."""

    model_config = ConfigDict(extra="allow")

    id: str
    ingredient: str
    lot: str = ""
    grams: float | None = None
    entered: str = ""
    role: str = ""
    stage: str = ""
    treatment: str = ""
    note: str = ""
    locked: bool = False
    temperature_c: float | None = None
    prep: PrepDocument | None = None


class SizeDocument(Schema):
    """How a piece is shaped: one measure is held, the others follow."""

    held: str = ""
    thickness_mm: float | None = None
    length_mm: float | None = None
    pan: str = ""
    tray: str = ""
    gap_mm: float | None = None
    hole_mm: float | None = None


class FormDocument(Schema):
    """What is baked."""

    model_config = ConfigDict(extra="allow")

    kind: str
    pieces: int | float
    serving_pieces: int | float = 1
    size: SizeDocument = Field(default_factory=SizeDocument)


class MixDocument(Schema):
    """How a dough is mixed; what is left open follows from what is in it."""

    model_config = ConfigDict(extra="allow")

    temperature_c: float | None = None
    cheese: str = ""
    work: str = ""


class BakeStageDocument(Schema):
    """One stage of a bake."""

    kind: str
    minutes: float | None = None
    oven_c: float | None = None
    fan: bool | None = None


class BakeDocument(Schema):
    """What is wanted of the oven; what is left open follows from the form."""

    model_config = ConfigDict(extra="allow")

    moisture_percent: float | None = None
    oven_c: float | None = None
    fan: bool = False
    oven: str = ""
    moisture_from: str = ""
    ware: str = ""
    trays: int = 1
    dough_c: float | None = None
    altitude_m: float = 0.0
    stages: list[BakeStageDocument] = Field(default_factory=list, max_length=50)
    fried: str = ""
    frying_fat: str = ""


class WindowDocument(Schema):
    """Wanted bounds."""

    low: float | None = None
    high: float | None = None


class FormulaDocument(Schema):
    """A formula document (docs/formats/formula.schema.json)."""

    model_config = ConfigDict(extra="allow")

    substrata: int = 1
    name: str = ""
    notes: str = ""
    form: FormDocument
    mix: MixDocument = Field(default_factory=MixDocument)
    bake: BakeDocument = Field(default_factory=BakeDocument)
    prep: dict[str, float | str] = Field(default_factory=dict, max_length=60)
    lines: list[LineDocument] = Field(default_factory=list, max_length=1_000)
    targets: dict[str, WindowDocument] = Field(default_factory=dict)


class PrepIn(Schema):
    """A document to prepare, and the one it came from when a change is to be told."""

    document: FormulaDocument
    before: FormulaDocument | None = None
