from .card_panels import Card, card, card_of
from .layer_picture import core_png
from .plan_calendar import calendar, table, task_rows
from .premix import PremixBags, premix_bags
from .printed_page import PAPERS, as_pdf, bag_html, label_html, recipe_html
from .recipe import Recipe, RecipeGroup, RecipeStep, recipe_of
from .recipe_formats import TEXT_STYLES, written
from .recipe_workbook import as_xlsx
from .sale_label import Business, PackLabel, pack_label
from .variants import Variant

__all__ = [
    "PAPERS",
    "TEXT_STYLES",
    "Business",
    "Card",
    "PackLabel",
    "PremixBags",
    "Recipe",
    "RecipeGroup",
    "RecipeStep",
    "Variant",
    "as_pdf",
    "as_xlsx",
    "bag_html",
    "calendar",
    "card",
    "card_of",
    "core_png",
    "label_html",
    "pack_label",
    "premix_bags",
    "recipe_html",
    "recipe_of",
    "table",
    "task_rows",
    "written",
]
