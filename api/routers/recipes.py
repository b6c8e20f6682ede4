"""Recipes that are handed on and recipes that come in."""

from django.http import HttpRequest, HttpResponse
from ninja import File, Query, Router
from ninja.files import UploadedFile

from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.heavy import heavy
from api.person import kitchen_member
from api.recipe_schemas import (
    BagsIn,
    FileRead,
    IntoQuery,
    LabelIn,
    LabelOut,
    NewerPartOut,
    PartOut,
    RecipeIn,
    RecipeOut,
    ShareIn,
    ShareOut,
)
from kitchen.errors import NotFound
from kitchen.services import parts, recipes
from substrata.publishing import PremixBags

router = Router(tags=["recipes"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
KITCHEN = "/kitchens/{int:kitchen_id}"


@router.post(f"{KITCHEN}/recipe", response={200: RecipeOut, **Problems}, operation_id="recipe")
@heavy
def recipe(request: HttpRequest, kitchen_id: int, payload: RecipeIn) -> RecipeOut:
    """Return the recipe of a document, without keeping it."""
    document = recipes.recipe_document(
        kitchen_member(request, kitchen_id),
        payload.document.model_dump(),
        payload.batches,
        payload.sort,
        payload.formula_id,
    )
    return RecipeOut(**{name: getattr(document, name) for name in RecipeOut.model_fields})


@router.post(f"{KITCHEN}/recipe/files/{{style}}", response={200: bytes, **Problems}, operation_id="recipe_file")
@heavy
def recipe_file(request: HttpRequest, kitchen_id: int, style: str, payload: RecipeIn) -> HttpResponse:
    """Write a recipe as a file: text, markdown, csv, jsonld, xlsx, pdf-a4, pdf-letter, pdf-a6."""
    name, kind, data = recipes.recipe_file(
        kitchen_member(request, kitchen_id),
        payload.document.model_dump(),
        style,
        payload.batches,
        payload.sort,
        payload.formula_id,
    )
    return _download(name, kind, data)


@router.post(f"{KITCHEN}/premix-bags", response={200: PremixBags, **Problems}, operation_id="premix_bags")
@heavy
def bags(request: HttpRequest, kitchen_id: int, payload: BagsIn) -> PremixBags:
    """Premix bags of a document: what goes into each, and its label."""
    return recipes.bags_of(
        kitchen_member(request, kitchen_id), payload.document.model_dump(), payload.bags, payload.made_on
    )


@router.post(f"{KITCHEN}/premix-bags/file", response={200: bytes, **Problems}, operation_id="premix_bags_file")
@heavy
def bags_file(request: HttpRequest, kitchen_id: int, payload: BagsIn) -> HttpResponse:
    """Their labels as PDF, one a page."""
    bags = recipes.bags_of(
        kitchen_member(request, kitchen_id), payload.document.model_dump(), payload.bags, payload.made_on
    )
    return _download("bags.pdf", "application/pdf", recipes.bags_file(bags, payload.width_mm, payload.height_mm))


@router.post(f"{KITCHEN}/label", response={200: LabelOut, **Problems}, operation_id="label")
def label(request: HttpRequest, kitchen_id: int, payload: LabelIn) -> LabelOut:
    """Return the label of a pack for sale."""
    label_ = recipes.label_of(
        kitchen_member(request, kitchen_id),
        payload.document.model_dump(),
        payload.style,
        payload.to_core(),
        payload.baked_on,
    )
    return LabelOut(**{name: getattr(label_, name) for name in LabelOut.model_fields})


@router.post(f"{KITCHEN}/label/file", response={200: bytes, **Problems}, operation_id="label_file")
@heavy
def label_file(request: HttpRequest, kitchen_id: int, payload: LabelIn) -> HttpResponse:
    """Write a label as PDF."""
    label_ = recipes.label_of(
        kitchen_member(request, kitchen_id),
        payload.document.model_dump(),
        payload.style,
        payload.to_core(),
        payload.baked_on,
    )
    return _download("label.pdf", "application/pdf", recipes.label_file(label_, payload.width_mm, payload.height_mm))


def _download(name: str, kind: str, data: bytes) -> HttpResponse:
    response = HttpResponse(data, content_type=kind)
    response.headers["Content-Disposition"] = f'attachment; filename="{name.encode("ascii", "replace").decode()}"'
    response["X-Content-Type-Options"] = "nosniff"
    return response


@router.post(f"{KITCHEN}/read-file", response={200: FileRead, **Problems}, operation_id="read_recipe_file")
@heavy
def read_recipe_file(
    request: HttpRequest,
    kitchen_id: int,
    file: UploadedFile | None = File(None),  # type: ignore[type-arg]  # noqa: B008 - the framework's way
) -> FileRead:
    """Return what a page, a table, a workbook, a list or a document holds; nothing is kept."""
    recipe_, pasted = recipes.read_recipe_file(
        kitchen_member(request, kitchen_id), file.read() if file else b"", (file.name if file else "") or ""
    )
    return FileRead(
        kind=recipe_.kind,
        text=recipe_.text,
        document=None if recipe_.document is None else FormulaDocument.model_validate(recipe_.document),
        unread=list(recipe_.unread),
        pasted=list(pasted),
    )


@router.get(f"{KITCHEN}/formulas/{{int:formula_id}}/part", response={200: PartOut, **Problems}, operation_id="part_of")
def part_of(request: HttpRequest, kitchen_id: int, formula_id: int, query: Query[IntoQuery]) -> PartOut:
    """Return a formula as a line of another."""
    part = parts.part_of(kitchen_member(request, kitchen_id), formula_id, query.into)
    return PartOut(part=part.part, name=part.name, grams=part.grams)


@router.post(f"{KITCHEN}/newer-parts", response={200: list[NewerPartOut], **Problems}, operation_id="newer_parts")
def newer_parts(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> list[NewerPartOut]:
    """Parts of a document of which the kitchen has a newer version."""
    newer = parts.newer_parts(kitchen_member(request, kitchen_id), payload.model_dump())
    return [
        NewerPartOut(
            line=part.line,
            name=part.name,
            number=part.number,
            newest=part.newest,
            changes=list(part.changes),
            part=part.part,
        )
        for part in newer
    ]


@router.get(f"{KITCHEN}/formulas/{{int:formula_id}}/share", response={200: ShareOut, **Problems}, operation_id="share")
def share(request: HttpRequest, kitchen_id: int, formula_id: int) -> ShareOut:
    """Whether somebody without an account may read its card."""
    return _shared(recipes.share_of(kitchen_member(request, kitchen_id), formula_id))


@router.post(
    f"{KITCHEN}/formulas/{{int:formula_id}}/share", response={200: ShareOut, **Problems}, operation_id="change_share"
)
def change_share(request: HttpRequest, kitchen_id: int, formula_id: int, payload: ShareIn) -> ShareOut:
    """Give it an address, or take it away."""
    return _shared(recipes.change_share(kitchen_member(request, kitchen_id), formula_id, on=payload.on))


def _shared(row: object) -> ShareOut:
    key = getattr(row, "key", "")
    return ShareOut(address=f"/shared/{key}" if key else "")


def shared_card(request: HttpRequest, key: str) -> HttpResponse:
    """Return the read-only card behind an address."""
    try:
        text = recipes.shared_card(key)
    except NotFound:
        return HttpResponse("card not found", status=404, content_type="text/plain; charset=utf-8")
    # Its own style sheet, and no other that might be written into it.
    nonce = request.csp_nonce  # type: ignore[attr-defined]  # of the policy's middleware
    response = HttpResponse(text.replace("<style>", f'<style nonce="{nonce}">', 1))
    response["Cache-Control"] = "private, no-store"
    response["X-Robots-Tag"] = "noindex, nofollow"
    response["Referrer-Policy"] = "no-referrer"
    return response
