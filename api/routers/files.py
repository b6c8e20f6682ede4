"""Files: a formula or a kitchen as one open document, and what an empty kitchen may begin with."""

from typing import Any

from django.http import HttpRequest
from ninja import Router

from api.errors import ProblemOut
from api.file_schemas import FileIn, FileOut, HouseIn, HouseOut, ImportedFileOut
from api.person import kitchen_member
from api.schemas import FormulaOut, ShelfOut
from kitchen.services import files, house

router = Router(tags=["files"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
KITCHEN = "/kitchens/{int:kitchen_id}"


@router.get(
    f"{KITCHEN}/formulas/{{int:formula_id}}/file", response={200: FileOut, **Problems}, operation_id="formula_file"
)
def formula_file(request: HttpRequest, kitchen_id: int, formula_id: int, versions: bool = False) -> dict[str, Any]:
    """One formula with the packs and pans that it uses."""
    return files.formula_file(kitchen_member(request, kitchen_id), formula_id, versions=versions)


@router.get(f"{KITCHEN}/file", response={200: FileOut, **Problems}, operation_id="kitchen_file")
def kitchen_file(request: HttpRequest, kitchen_id: int) -> dict[str, Any]:
    """Return the whole kitchen."""
    return files.kitchen_file(kitchen_member(request, kitchen_id))


@router.post(f"{KITCHEN}/file", response={201: ImportedFileOut, **Problems}, operation_id="take_file")
def take_file(request: HttpRequest, kitchen_id: int, payload: FileIn) -> tuple[int, ImportedFileOut]:
    """Bring what a file holds into the kitchen: all of it or nothing."""
    result = files.take_file(kitchen_member(request, kitchen_id), payload.file, settings=payload.settings)
    return 201, ImportedFileOut(
        formulas=[ShelfOut.from_service(formula) for formula in result.formulas],
        packs_added=result.packs_added,
        packs_known=result.packs_known,
    )


@router.get(f"{KITCHEN}/house-formulas", response={200: list[HouseOut], **Problems}, operation_id="house_formulas")
def house_formulas(request: HttpRequest, kitchen_id: int) -> list[house.HouseFormula]:
    """Formulas to begin with."""
    kitchen_member(request, kitchen_id)
    return house.house_formulas()


@router.post(f"{KITCHEN}/house-formulas", response={201: FormulaOut, **Problems}, operation_id="copy_house_formula")
def copy_house_formula(request: HttpRequest, kitchen_id: int, payload: HouseIn) -> tuple[int, FormulaOut]:
    """Copy one onto the shelf."""
    return 201, FormulaOut.from_service(house.copy_house_formula(kitchen_member(request, kitchen_id), payload.name))
