"""What goes in and out of the Pantry. Readings are the core's own dataclasses."""

from datetime import date
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field, StringConstraints

from api.document_schemas import model_of
from kitchen.models import Formula
from kitchen.models import Lot as LotRow
from kitchen.services.packs import OpenLot, PackReading
from kitchen.services.pantry import LONGEST_LIST, MOST_COMPARED, OpenIngredient, PantryList
from substrata.base import Spread, write_record
from substrata.formula import roles
from substrata.ingredients import Finding, Label, Lot, Mistake, PackFigure, PanelText, reference_figures
from substrata.nutrition import Compared, Layer

Short = Annotated[str, StringConstraints(max_length=120)]


LabelDocument = model_of(Label)


class LotDocument(model_of(Lot)):  # type: ignore[misc]  # made of the declaration
    """A pack document (docs/formats/pack.schema.json)."""

    substrata_pack: int = 1


class PackQuery(Schema):
    """What to look for in the pantry."""

    search: Short = ""
    role: Annotated[str, StringConstraints(max_length=20)] = ""
    without: Annotated[str, StringConstraints(max_length=20)] = ""
    own: bool = False  # packs only
    ingredient: Short = ""  # only packs of this one
    archived: bool = False
    limit: int = Field(60, ge=1, le=LONGEST_LIST)
    offset: int = Field(0, ge=0, le=1_000_000)


class PantryRow(Schema):
    """A pack, or a reference ingredient, in the list."""

    key: str
    lot_id: int | None
    ingredient: str
    name: str
    of: str  # the reference's name, for a pack
    role: str
    code: str
    layers: list[Layer]
    net_carbs: float
    protein: float
    capacity: float
    binding: float  # eggs per 100 g
    price_100g: float | None
    trouble: str
    on_hand_g: float | None
    use_by: date | None
    flags: list[str]

    @classmethod
    def from_compared(cls, compared: Compared, lot: LotRow | None = None) -> "PantryRow":
        """Return a row of what is compared."""
        return cls(
            key=compared.key,
            lot_id=lot.pk if lot else None,
            ingredient=compared.ingredient,
            name=compared.pack or compared.name,
            of=compared.name if compared.pack else "",
            role=compared.role,
            code=roles()[compared.role].code,
            layers=list(compared.layers),
            net_carbs=compared.net_carbs.value,
            protein=compared.protein.value,
            capacity=compared.capacity.value,
            binding=compared.binding.value,
            price_100g=compared.price_100g,
            trouble=lot.trouble if lot else "",
            on_hand_g=lot.on_hand_g if lot else None,
            use_by=lot.use_by if lot else None,
            flags=list(compared.flags),
        )


class PantryPage(Schema):
    """A page of the pantry: packs first, then the reference."""

    items: list[PantryRow]
    packs: int
    references: int

    @classmethod
    def from_service(cls, page: PantryList) -> "PantryPage":
        """Build a page of the services."""
        return cls(
            items=[
                *(PantryRow.from_compared(compared, lot) for lot, compared in page.packs),
                *(PantryRow.from_compared(compared) for compared in page.references),
            ],
            packs=page.pack_count,
            references=page.reference_count,
        )


class ParameterOut(Schema):
    """One number of knowledge with its source."""

    name: str
    value: float
    low: float
    high: float
    unit: str
    source: str
    note: str

    @classmethod
    def from_service(cls, name: str, spread: Spread, unit: str, source: str, note: str) -> "ParameterOut":
        """Build a parameter of the core."""
        return cls(name=name, value=spread.value, low=spread.low, high=spread.high, unit=unit, source=source, note=note)


class IngredientPage(Schema):
    """All that is known of a reference ingredient."""

    compared: Compared
    composition: list[PackFigure]
    parameters: list[ParameterOut]
    measures: list[ParameterOut]
    aliases: list[str]
    note: str
    packs: list[PantryRow]

    @classmethod
    def from_service(cls, opened: OpenIngredient) -> "IngredientPage":
        """Build an opened ingredient."""
        result = opened.ingredient
        return cls(
            compared=opened.compared,
            composition=list(reference_figures(result)),
            parameters=[
                ParameterOut.from_service(name, p.spread, p.unit, p.source, p.note)
                for name, p in result.behaviour.items()
            ],
            measures=[
                ParameterOut.from_service(name, m.grams, "g", m.source, "") for name, m in result.measures.items()
            ],
            aliases=list(result.aliases),
            note=result.note,
            packs=[PantryRow.from_compared(compared, lot) for lot, compared in opened.packs],
        )


class MistakeOut(Schema):
    """A slip that would explain a label, and the label put right."""

    code: str
    text: str
    label: LabelDocument | None  # type: ignore[valid-type]
    ingredient: str

    @classmethod
    def from_service(cls, mistake: Mistake) -> "MistakeOut":
        """Build a mistake of the core."""
        label = LabelDocument(**write_record(mistake.label)) if mistake.label else None
        return cls(code=mistake.code, text=mistake.text, label=label, ingredient=mistake.ingredient)


class ReadingOut(Schema):
    """What a pack means."""

    figures: list[PackFigure]
    findings: list[Finding]
    mistake: MistakeOut | None
    passes: bool
    pack: Compared
    reference: Compared

    @classmethod
    def from_service(cls, reading: PackReading) -> "ReadingOut":
        """Build a reading of the services."""
        check = reading.check
        return cls(
            figures=list(reading.figures),
            findings=list(check.findings),
            mistake=MistakeOut.from_service(check.mistake) if check.mistake else None,
            passes=check.passes,
            pack=reading.compared[0],
            reference=reading.compared[1],
        )


class UseOut(Schema):
    """A formula that takes from a pack."""

    id: int
    name: str

    @classmethod
    def from_service(cls, formula: Formula) -> "UseOut":
        """Build a formula in the list."""
        return cls(id=formula.pk, name=formula.name)


class LotOut(Schema):
    """A pack with what it means and where it is used."""

    id: int
    key: str
    document: dict[str, Any]
    lock: int
    archived: bool
    on_hand_g: float
    reserved_g: float
    reading: ReadingOut
    uses: list[UseOut]
    may_edit: bool

    @classmethod
    def from_service(cls, opened: OpenLot) -> "LotOut":
        """Build an opened pack."""
        return cls(
            id=opened.lot.pk,
            key=opened.lot.key,
            document=opened.lot.document,
            lock=opened.lot.lock,
            archived=opened.lot.archived_at is not None,
            on_hand_g=opened.lot.on_hand_g,
            reserved_g=opened.reserved_g,
            reading=ReadingOut.from_service(opened.reading),
            uses=[UseOut.from_service(formula) for formula in opened.uses],
            may_edit=opened.may_edit,
        )


class LotIn(Schema):
    """A new pack, and how much of it is on hand."""

    document: LotDocument
    on_hand_g: float = 0.0


class LotChangeIn(Schema):
    """A changed pack, with its lock as last seen."""

    document: LotDocument
    lock: int


class ArchivedOut(Schema):
    """Where a pack is now."""

    id: int
    archived: bool


class PanelTextIn(Schema):
    """A pasted nutrition panel."""

    text: str


class PanelTextOut(Schema):
    """What a pasted panel says; style or grams are null when it does not tell."""

    style: str | None
    per_g: float | None
    per_digit_g: float
    serving_measure: str
    figures: dict[str, str]
    notes: list[str]

    @classmethod
    def from_service(cls, read: PanelText) -> "PanelTextOut":
        """Build a read panel."""
        return cls(
            style=read.style,
            per_g=read.per_g,
            per_digit_g=read.per_digit_g,
            serving_measure=read.serving_measure,
            figures=read.figures,
            notes=list(read.notes),
        )


class CompareQuery(Schema):
    """Keys of what to look at side by side."""

    keys: list[Short] = Field(default_factory=list, max_length=MOST_COMPARED)
