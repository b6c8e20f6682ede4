"""The Formula station: shelf, draft, versions, analysis, paste."""

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from api.bench_pass import BenchAuth, choices, hand_out
from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.messages import json_bytes
from api.person import kitchen_member
from api.schemas import (
    ArchiveIn,
    ChangeOut,
    DraftIn,
    ForkIn,
    FormulaOut,
    PasteIn,
    ScaledOut,
    ScaleIn,
    ShelfOut,
    ShelfPage,
    ShelfQuery,
    VersionDocument,
    VersionIn,
    VersionOut,
)
from kitchen.services import formulas
from kitchen.services.judging import judge, kitchen_library, packs_named, read_paste, scale_document
from substrata import Analysis, write_document
from substrata.evaluation import ScaleWish
from substrata.formula import PastedLine

router = Router(tags=["formula"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
FORMULA = "/kitchens/{int:kitchen_id}/formulas/{int:formula_id}"


@router.post(
    "/kitchens/{int:kitchen_id}/analyse", response={200: Analysis, **Problems}, operation_id="analyse", auth=BenchAuth()
)
def analyse(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> HttpResponse:
    """Judge a document without keeping it: what the page asks while a finger drags."""
    held, new = choices(request, kitchen_id)
    document = payload.model_dump()
    library = kitchen_library(kitchen_id, held.revision, packs_named(document))
    # Written straight from the core's dataclasses: validating our own figures would cost more than making them.
    response = HttpResponse(json_bytes(judge(library, held.settings, document)), content_type="application/json")
    if new:
        hand_out(request, response, held)
    return response


@router.post("/kitchens/{int:kitchen_id}/paste", response={200: list[PastedLine], **Problems}, operation_id="paste")
def paste(request: HttpRequest, kitchen_id: int, payload: PasteIn) -> list[PastedLine]:
    """Read a pasted ingredient list into lines."""
    return list(read_paste(payload.text, kitchen_member(request, kitchen_id).kitchen))


@router.post("/kitchens/{int:kitchen_id}/scale", response={200: ScaledOut, **Problems}, operation_id="scale")
def scale(request: HttpRequest, kitchen_id: int, payload: ScaleIn) -> ScaledOut:
    """Scale the same dough, more or less of it; nothing is kept."""
    kitchen = kitchen_member(request, kitchen_id).kitchen
    wish = ScaleWish(**payload.model_dump(exclude={"document"}))
    scaled = scale_document(kitchen, payload.document.model_dump(), wish)
    return ScaledOut(
        document=write_document(scaled.formula), factor=scaled.factor, dough_g=scaled.dough_g, piece_g=scaled.piece_g
    )


@router.get("/kitchens/{int:kitchen_id}/formulas", response={200: ShelfPage, **Problems}, operation_id="shelf")
def shelf(request: HttpRequest, kitchen_id: int, query: Query[ShelfQuery]) -> ShelfPage:
    """Formulas on the shelf, the last touched first."""
    rows = formulas.shelf(
        kitchen_member(request, kitchen_id), search=query.search, form=query.form, archived=query.archived
    )
    page = rows[query.offset : query.offset + query.limit]
    return ShelfPage(items=[ShelfOut.from_service(row) for row in page], total=rows.count())


@router.post(
    "/kitchens/{int:kitchen_id}/formulas", response={201: FormulaOut, **Problems}, operation_id="create_formula"
)
def create_formula(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> tuple[int, FormulaOut]:
    """Put a new formula on the shelf."""
    return 201, FormulaOut.from_service(
        formulas.create_formula(kitchen_member(request, kitchen_id), payload.model_dump())
    )


@router.get(FORMULA, response={200: FormulaOut, **Problems}, operation_id="open_formula")
def open_formula(request: HttpRequest, kitchen_id: int, formula_id: int) -> FormulaOut:
    """Open a formula with its draft."""
    return FormulaOut.from_service(formulas.open_formula(kitchen_member(request, kitchen_id), formula_id))


@router.put(f"{FORMULA}/draft", response={200: FormulaOut, 409: ProblemOut, **Problems}, operation_id="save_draft")
def save_draft(request: HttpRequest, kitchen_id: int, formula_id: int, payload: DraftIn) -> FormulaOut:
    """Save what is being edited."""
    document = payload.document.model_dump()
    return FormulaOut.from_service(
        formulas.save_draft(kitchen_member(request, kitchen_id), formula_id, document, payload.lock, payload.page)
    )


@router.post(
    f"{FORMULA}/versions", response={201: VersionOut, 409: ProblemOut, **Problems}, operation_id="save_version"
)
def save_version(request: HttpRequest, kitchen_id: int, formula_id: int, payload: VersionIn) -> tuple[int, VersionOut]:
    """Keep the draft as the next version."""
    saved = formulas.save_version(kitchen_member(request, kitchen_id), formula_id, payload.lock, payload.note)
    return 201, VersionOut.from_service(saved)


@router.get(f"{FORMULA}/versions", response={200: list[VersionOut], **Problems}, operation_id="versions")
def versions(request: HttpRequest, kitchen_id: int, formula_id: int) -> list[VersionOut]:
    """All versions, the newest first."""
    return [VersionOut.from_service(v) for v in formulas.versions(kitchen_member(request, kitchen_id), formula_id)]


@router.get(f"{FORMULA}/versions/{{int:number}}", response={200: VersionDocument, **Problems}, operation_id="version")
def version(request: HttpRequest, kitchen_id: int, formula_id: int, number: int) -> VersionDocument:
    """One version with its document."""
    result = formulas.version(kitchen_member(request, kitchen_id), formula_id, number)
    return VersionDocument(**VersionOut.from_service(result).model_dump(), document=result.document)


@router.get(f"{FORMULA}/compare", response={200: list[ChangeOut], **Problems}, operation_id="compare")
def compare(request: HttpRequest, kitchen_id: int, formula_id: int, before: int, after: int) -> list[ChangeOut]:
    """Differences in words between two versions; 0 is the draft."""
    changes = formulas.compare(kitchen_member(request, kitchen_id), formula_id, before, after)
    return [ChangeOut.from_service(change) for change in changes]


@router.post(f"{FORMULA}/fork", response={201: FormulaOut, **Problems}, operation_id="fork_formula")
def fork_formula(request: HttpRequest, kitchen_id: int, formula_id: int, payload: ForkIn) -> tuple[int, FormulaOut]:
    """Start a new formula from this one."""
    return 201, FormulaOut.from_service(
        formulas.fork_formula(kitchen_member(request, kitchen_id), formula_id, payload.name)
    )


@router.delete(f"{FORMULA}/blank", response={204: None, **Problems}, operation_id="discard_blank")
def discard_blank(request: HttpRequest, kitchen_id: int, formula_id: int) -> tuple[int, None]:
    """Take a formula away that was begun and left blank."""
    formulas.discard_blank(kitchen_member(request, kitchen_id), formula_id)
    return 204, None


@router.post(f"{FORMULA}/archive", response={200: ShelfOut, **Problems}, operation_id="archive_formula")
def archive_formula(request: HttpRequest, kitchen_id: int, formula_id: int, payload: ArchiveIn) -> ShelfOut:
    """Put a formula away, or back on the shelf."""
    changed = formulas.archive_formula(kitchen_member(request, kitchen_id), formula_id, archived=payload.archived)
    return ShelfOut.from_service(changed)
