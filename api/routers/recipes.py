"""Recipes that are handed on and recipes that come in."""

from datetime import date
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Query, Router, Schema
from ninja.files import UploadedFile
from pydantic import Field

from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.person import person
from kitchen.errors import NotFound
from kitchen.services import parts, recipes
from substrata.exchange.text_import import PastedLine
from substrata.nutrition.statement import StatementPart
from substrata.recipe.label import Business
from substrata.recipe.recipe import Keeping, RecipeGroup, RecipeStep

router = Router(tags=["recipes"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
KITCHEN = "/kitchens/{int:kitchen_id}"


class RecipeIn(Schema):
    """A document, how much of it, and of which sort."""

    document: FormulaDocument
    batches: float = 1.0
    sort: str = Field(default="", max_length=80)


class RecipeOut(Schema):
    """A formula as it is handed on."""

    name: str
    form: str
    yields: str
    groups: list[RecipeGroup]
    steps: list[RecipeStep]
    keeping: Keeping
    cost: str
    net_carbs: str
    net_rule: str
    notes: str


class LabelIn(Schema):
    """What stands on a pack besides."""

    document: FormulaDocument
    style: Literal["us", "eu"]
    baked_on: date
    business: str = Field(default="", max_length=120)
    address: str = Field(default="", max_length=200)
    pieces_a_pack: int = Field(default=1, ge=1, le=1000)
    lot: str = Field(default="", max_length=40)
    width_mm: float = 90.0
    height_mm: float = 60.0

    def of(self) -> Business:
        """Who sells it."""
        return Business(name=self.business, address=self.address, pieces_a_pack=self.pieces_a_pack, lot=self.lot)


class LabelOut(Schema):
    """A label, and what is missing before it may be sold."""

    name: str
    statement: list[StatementPart]
    contains: str
    words: list[str]
    missing: list[str]


class FileRead(Schema):
    """What a file holds."""

    kind: str
    text: str
    document: FormulaDocument | None
    unread: list[str]
    pasted: list[PastedLine]


class ShareIn(Schema):
    """Whether the card has an address."""

    on: bool


class ShareOut(Schema):
    """The address; "" for none."""

    address: str


@router.post(f"{KITCHEN}/recipe", response={200: RecipeOut, **Problems}, operation_id="recipe")
def recipe(request: HttpRequest, kitchen_id: int, payload: RecipeIn) -> RecipeOut:
    """The recipe of a document, without keeping it."""
    made = recipes.recipe_document(
        person(request), kitchen_id, payload.document.model_dump(), payload.batches, payload.sort
    )
    return RecipeOut(**{name: getattr(made, name) for name in RecipeOut.model_fields})


@router.post(f"{KITCHEN}/recipe/files/{{style}}", response={200: bytes, **Problems}, operation_id="recipe_file")
def recipe_file(request: HttpRequest, kitchen_id: int, style: str, payload: RecipeIn) -> HttpResponse:
    """It as a file: text, markdown, csv, jsonld, xlsx, pdf-a4, pdf-letter, pdf-a6."""
    name, kind, data = recipes.recipe_file(
        person(request), kitchen_id, payload.document.model_dump(), style, payload.batches
    )
    return _download(name, kind, data)


@router.post(f"{KITCHEN}/label", response={200: LabelOut, **Problems}, operation_id="label")
def label(request: HttpRequest, kitchen_id: int, payload: LabelIn) -> LabelOut:
    """The label of a pack for sale."""
    made = recipes.label_of(
        person(request), kitchen_id, payload.document.model_dump(), payload.style, payload.of(), payload.baked_on
    )
    return LabelOut(**{name: getattr(made, name) for name in LabelOut.model_fields})


@router.post(f"{KITCHEN}/label/file", response={200: bytes, **Problems}, operation_id="label_file")
def label_file(request: HttpRequest, kitchen_id: int, payload: LabelIn) -> HttpResponse:
    """It as PDF."""
    made = recipes.label_of(
        person(request), kitchen_id, payload.document.model_dump(), payload.style, payload.of(), payload.baked_on
    )
    return _download("label.pdf", "application/pdf", recipes.label_file(made, payload.width_mm, payload.height_mm))


def _download(name: str, kind: str, data: bytes) -> HttpResponse:
    response = HttpResponse(data, content_type=kind)
    response.headers["Content-Disposition"] = f'attachment; filename="{name.encode("ascii", "replace").decode()}"'
    response["X-Content-Type-Options"] = "nosniff"
    return response


@router.post(f"{KITCHEN}/read-file", response={200: FileRead, **Problems}, operation_id="read_recipe_file")
def read_recipe_file(
    request: HttpRequest,
    kitchen_id: int,
    file: UploadedFile | None = File(None),  # type: ignore[type-arg]  # noqa: B008 - the framework's way
) -> FileRead:
    """What a page, a table, a workbook, a list or a document holds; nothing is kept."""
    found, pasted = recipes.read_recipe_file(
        person(request), kitchen_id, file.read() if file else b"", (file.name if file else "") or ""
    )
    return FileRead(
        kind=found.kind,
        text=found.text,
        document=None if found.document is None else FormulaDocument.model_validate(found.document),
        unread=list(found.unread),
        pasted=list(pasted),
    )


class PartOut(Schema):
    """A formula, ready to be a line of another."""

    part: dict[str, Any]
    name: str
    grams: float


class NewerPartOut(Schema):
    """A part of which there is a newer version."""

    line: str
    name: str
    number: int
    newest: int
    changes: list[str]
    part: dict[str, Any]


class IntoQuery(Schema):
    """Which formula it is to be a part of."""

    into: int = 0


@router.get(f"{KITCHEN}/formulas/{{int:formula_id}}/part", response={200: PartOut, **Problems}, operation_id="part_of")
def part_of(request: HttpRequest, kitchen_id: int, formula_id: int, query: Query[IntoQuery]) -> PartOut:
    """A formula as a line of another."""
    taken = parts.part_of(person(request), kitchen_id, formula_id, query.into)
    return PartOut(part=taken.part, name=taken.name, grams=taken.grams)


@router.post(f"{KITCHEN}/newer-parts", response={200: list[NewerPartOut], **Problems}, operation_id="newer_parts")
def newer_parts(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> list[NewerPartOut]:
    """Parts of a document of which the kitchen has a newer version."""
    found = parts.newer_parts(person(request), kitchen_id, payload.model_dump())
    return [
        NewerPartOut(
            line=one.line,
            name=one.name,
            number=one.number,
            newest=one.newest,
            changes=list(one.changes),
            part=one.part,
        )
        for one in found
    ]


@router.get(f"{KITCHEN}/formulas/{{int:formula_id}}/share", response={200: ShareOut, **Problems}, operation_id="share")
def share(request: HttpRequest, kitchen_id: int, formula_id: int) -> ShareOut:
    """Whether somebody without an account may read its card."""
    return _shared(recipes.share_of(person(request), kitchen_id, formula_id))


@router.post(
    f"{KITCHEN}/formulas/{{int:formula_id}}/share", response={200: ShareOut, **Problems}, operation_id="change_share"
)
def change_share(request: HttpRequest, kitchen_id: int, formula_id: int, payload: ShareIn) -> ShareOut:
    """Give it an address, or take it away."""
    return _shared(recipes.change_share(person(request), kitchen_id, formula_id, on=payload.on))


def _shared(row: object) -> ShareOut:
    key = getattr(row, "key", "")
    return ShareOut(address=f"/shared/{key}" if key else "")


def shared_card(request: HttpRequest, key: str) -> HttpResponse:
    """The read-only card behind an address."""
    try:
        text = recipes.shared_card(key)
    except NotFound:
        return HttpResponse("no such card", status=404, content_type="text/plain; charset=utf-8")
    response = HttpResponse(text)
    response["Cache-Control"] = "private, no-store"
    response["X-Robots-Tag"] = "noindex, nofollow"
    response["Referrer-Policy"] = "no-referrer"
    return response
