"""The Pantry: ingredients to find, and the word lists of the page."""

from django.http import HttpRequest
from ninja import Query, Router

from api.errors import ProblemOut
from api.schemas import ConventionOut, FormOut, IngredientOut, IngredientQuery, RoleOut, WordsOut
from substrata import load_library
from substrata.formula.form import forms, roles
from substrata.nutrition.net_carbs import CONVENTIONS

router = Router(tags=["pantry"])


@router.get("/words", response={200: WordsOut, 401: ProblemOut}, operation_id="words")
def words(request: HttpRequest) -> WordsOut:
    """Roles, forms and conventions."""
    return WordsOut(
        roles=[RoleOut(id=r.id, code=r.code, name=r.name) for r in roles().values()],
        forms=[FormOut(id=f.id, name=f.name, note=f.note) for f in forms().values()],
        conventions=[ConventionOut(id=key, rule=rule) for key, rule in CONVENTIONS.items()],
    )


@router.get("/ingredients", response={200: list[IngredientOut], 401: ProblemOut}, operation_id="find_ingredients")
def find_ingredients(request: HttpRequest, query: Query[IngredientQuery]) -> list[IngredientOut]:
    """Ingredients whose name or alias fits a few typed letters, the likeliest first."""
    library = load_library()
    return [IngredientOut.of(library[key]) for key in library.names.search(query.search, query.limit)]
