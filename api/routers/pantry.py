"""The Pantry: packs and ingredients to find, read, compare and keep; stock; files of products."""

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from api.bench_pass import forget_pass
from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.import_schemas import ImportIn, ImportOut, MatchIn
from api.pantry_schemas import (
    ArchivedOut,
    CompareQuery,
    IngredientPage,
    LotChangeIn,
    LotDocument,
    LotIn,
    LotOut,
    PackQuery,
    PanelTextIn,
    PanelTextOut,
    PantryPage,
    ReadingOut,
)
from api.person import kitchen_member
from api.schemas import ArchiveIn, IngredientOut, IngredientQuery
from api.stock_schemas import BakeIn, BakeOut, StockIn, StockOut, StockPage, StockQuery
from api.word_schemas import WordsOut
from kitchen.services import imports, packs, pantry, stock
from substrata import load_library
from substrata.formula import CheaperPack
from substrata.ingredients import read_panel
from substrata.nutrition import Compared

router = Router(tags=["pantry"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
KITCHEN = "/kitchens/{int:kitchen_id}"
LOT = f"{KITCHEN}/packs/{{int:lot_id}}"
BAKE = f"{KITCHEN}/bakes/{{int:bake_id}}"
IMPORT = f"{KITCHEN}/imports/{{int:import_id}}"


@router.get("/words", response={200: WordsOut, 401: ProblemOut}, operation_id="words")
def words(request: HttpRequest) -> WordsOut:
    """Roles, forms, conventions, claims, figures: the lists that the page draws from."""
    return WordsOut.everything()


@router.get("/ingredients", response={200: list[IngredientOut], 401: ProblemOut}, operation_id="find_ingredients")
def find_ingredients(request: HttpRequest, query: Query[IngredientQuery]) -> list[IngredientOut]:
    """Ingredients whose name or alias fits a few typed letters, the plainest first; like ones where none fits."""
    library = load_library()
    far = bool(query.search.strip()) and not library.names.spelled(query.search)
    return [
        IngredientOut.from_service(library[key], far=far) for key in library.names.search(query.search, query.limit)
    ]


@router.get(f"{KITCHEN}/pantry", response={200: PantryPage, **Problems}, operation_id="find_in_pantry")
def find_in_pantry(request: HttpRequest, kitchen_id: int, query: Query[PackQuery]) -> PantryPage:
    """Packs and ingredients that fit, packs first."""
    pantry_query = pantry.PantryQuery(**query.model_dump(exclude={"limit", "offset"}))
    result = pantry.find(kitchen_member(request, kitchen_id), pantry_query, offset=query.offset, limit=query.limit)
    return PantryPage.from_service(result)


@router.get(
    f"{KITCHEN}/ingredients/{{ingredient}}", response={200: IngredientPage, **Problems}, operation_id="open_ingredient"
)
def open_ingredient(request: HttpRequest, kitchen_id: int, ingredient: str) -> IngredientPage:
    """All that is known of a reference ingredient, with the kitchen's packs of it."""
    return IngredientPage.from_service(pantry.open_ingredient(kitchen_member(request, kitchen_id), ingredient))


@router.get(f"{KITCHEN}/compare", response={200: list[Compared], **Problems}, operation_id="compare_ingredients")
def compare_ingredients(request: HttpRequest, kitchen_id: int, query: Query[CompareQuery]) -> list[Compared]:
    """Ingredients and packs side by side."""
    return list(pantry.side_by_side(kitchen_member(request, kitchen_id), query.keys))


@router.post(f"{KITCHEN}/cheaper", response={200: list[CheaperPack], **Problems}, operation_id="cheaper_packs")
def cheaper_packs(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> list[CheaperPack]:
    """Packs that would do the same work for less."""
    return list(pantry.cheaper(kitchen_member(request, kitchen_id), payload.model_dump()))


@router.post(f"{KITCHEN}/choose-packs", response={200: dict[str, str], **Problems}, operation_id="choose_packs")
def choose_packs(request: HttpRequest, kitchen_id: int, payload: FormulaDocument) -> dict[str, str]:
    """Return the pack to be used up next for every line that goes by the reference: line -> key of the pack."""
    return stock.packs_for_lines(kitchen_member(request, kitchen_id), payload.model_dump())


@router.post(f"{KITCHEN}/packs/read", response={200: ReadingOut, **Problems}, operation_id="read_pack")
def read_pack(request: HttpRequest, kitchen_id: int, payload: LotDocument) -> ReadingOut:
    """Return what a pack means, before it is kept: what the page asks while a label is typed."""
    return ReadingOut.from_service(packs.read(kitchen_member(request, kitchen_id), payload.model_dump()))


@router.post(f"{KITCHEN}/packs/panel", response={200: PanelTextOut, **Problems}, operation_id="read_panel")
def read_panel_text(request: HttpRequest, kitchen_id: int, payload: PanelTextIn) -> PanelTextOut:
    """Read a pasted nutrition panel."""
    kitchen_member(request, kitchen_id)
    return PanelTextOut.from_service(read_panel(payload.text))


@router.post(f"{KITCHEN}/packs", response={201: LotOut, **Problems}, operation_id="create_pack")
def create_pack(request: HttpRequest, kitchen_id: int, payload: LotIn, response: HttpResponse) -> tuple[int, LotOut]:
    """Put a pack into the pantry."""
    forget_pass(response)
    created = packs.create_lot(kitchen_member(request, kitchen_id), payload.document.model_dump(), payload.on_hand_g)
    return 201, LotOut.from_service(created)


@router.get(LOT, response={200: LotOut, **Problems}, operation_id="open_pack")
def open_pack(request: HttpRequest, kitchen_id: int, lot_id: int) -> LotOut:
    """Return a pack with what it means and where it is used."""
    return LotOut.from_service(packs.open_lot(kitchen_member(request, kitchen_id), lot_id))


@router.put(LOT, response={200: LotOut, 409: ProblemOut, **Problems}, operation_id="save_pack")
def save_pack(
    request: HttpRequest, kitchen_id: int, lot_id: int, payload: LotChangeIn, response: HttpResponse
) -> LotOut:
    """Change a pack."""
    forget_pass(response)
    document = payload.document.model_dump()
    return LotOut.from_service(packs.save_lot(kitchen_member(request, kitchen_id), lot_id, document, payload.lock))


@router.post(f"{LOT}/archive", response={200: ArchivedOut, **Problems}, operation_id="archive_pack")
def archive_pack(request: HttpRequest, kitchen_id: int, lot_id: int, payload: ArchiveIn) -> ArchivedOut:
    """Put a pack away, or back."""
    changed = packs.archive_lot(kitchen_member(request, kitchen_id), lot_id, archived=payload.archived)
    return ArchivedOut(id=changed.pk, archived=changed.archived_at is not None)


@router.post(f"{LOT}/stock", response={200: StockOut, **Problems}, operation_id="change_stock")
def change_stock(request: HttpRequest, kitchen_id: int, lot_id: int, payload: StockIn) -> StockOut:
    """So much came in, or so much was counted."""
    return StockOut.from_service(
        stock.change_stock(kitchen_member(request, kitchen_id), lot_id, payload.kind, payload.grams)
    )


@router.get(f"{KITCHEN}/stock", response={200: StockPage, **Problems}, operation_id="stock")
def stock_list(request: HttpRequest, kitchen_id: int, query: Query[StockQuery]) -> StockPage:
    """Return what is on hand, the next to be used up first."""
    page = stock.shelf(kitchen_member(request, kitchen_id), offset=query.offset, limit=query.limit)
    return StockPage(items=[StockOut.from_service(shelved) for shelved in page.lots], total=page.total)


@router.get(f"{KITCHEN}/bakes", response={200: list[BakeOut], **Problems}, operation_id="bakes")
def bakes(request: HttpRequest, kitchen_id: int, over: bool = False) -> list[BakeOut]:
    """Planned bakes, or those that are over."""
    rows = stock.bakes(kitchen_member(request, kitchen_id), planned=not over)
    return [BakeOut.from_service(bake) for bake in rows[: stock.MOST_BAKES]]


@router.post(f"{KITCHEN}/bakes", response={201: BakeOut, **Problems}, operation_id="plan_bake")
def plan_bake(request: HttpRequest, kitchen_id: int, payload: BakeIn) -> tuple[int, BakeOut]:
    """Plan a bake and reserve what it takes."""
    created = stock.plan_bake(kitchen_member(request, kitchen_id), payload.formula_id, payload.batches, payload.on)
    return 201, BakeOut.from_service(created)


@router.post(f"{BAKE}/done", response={200: BakeOut, **Problems}, operation_id="finish_bake")
def finish_bake(request: HttpRequest, kitchen_id: int, bake_id: int) -> BakeOut:
    """Finish a bake: its packs lose what it took."""
    return BakeOut.from_service(stock.finish_bake(kitchen_member(request, kitchen_id), bake_id))


@router.post(f"{BAKE}/cancel", response={200: BakeOut, **Problems}, operation_id="cancel_bake")
def cancel_bake(request: HttpRequest, kitchen_id: int, bake_id: int) -> BakeOut:
    """Cancel a bake: its packs are free again."""
    return BakeOut.from_service(stock.cancel_bake(kitchen_member(request, kitchen_id), bake_id))


@router.post(f"{KITCHEN}/imports", response={201: ImportOut, **Problems}, operation_id="start_import")
def start_import(request: HttpRequest, kitchen_id: int, payload: ImportIn) -> tuple[int, ImportOut]:
    """Take a file of products in and match its columns."""
    return 201, ImportOut.from_service(
        imports.start_import(kitchen_member(request, kitchen_id), payload.file_name, payload.text)
    )


@router.get(IMPORT, response={200: ImportOut, **Problems}, operation_id="open_import")
def open_import(request: HttpRequest, kitchen_id: int, import_id: int) -> ImportOut:
    """How far an import is."""
    return ImportOut.from_service(imports.open_import(kitchen_member(request, kitchen_id), import_id))


@router.put(f"{IMPORT}/columns", response={200: ImportOut, **Problems}, operation_id="match_columns")
def match_columns(request: HttpRequest, kitchen_id: int, import_id: int, payload: MatchIn) -> ImportOut:
    """Change how the columns are read."""
    matched = imports.match_columns(kitchen_member(request, kitchen_id), import_id, **payload.model_dump())
    return ImportOut.from_service(matched)


@router.post(f"{IMPORT}/stop", response={200: ImportOut, **Problems}, operation_id="stop_import")
def stop_import(request: HttpRequest, kitchen_id: int, import_id: int) -> ImportOut:
    """Give an import up."""
    return ImportOut.from_service(imports.stop_import(kitchen_member(request, kitchen_id), import_id))
