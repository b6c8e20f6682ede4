from .bake_settings import MOST_TRAYS, WISHES
from .batch.cheaper_packs import CheaperPack, cheaper_packs
from .batch.sub_recipes import keys_in
from .batch.weighed_lines import weigh_formula, weigh_line
from .exchange.draft_merge import MergeConflict, Merged, merge_change
from .exchange.formula_difference import Change, differences
from .exchange.pasted_line import PastedLine
from .exchange.recipe_file import FileRecipe, file_recipe
from .exchange.spreadsheet_cells import safe_cell
from .exchange.text_import import import_text, with_phrases
from .form_table import Window, forms, roles
from .formula import MOST_PARTS_DEEP, Formula, Line, Mix, Part
from .formula_document import document_schema, read_document, write_document

__all__ = [
    "MOST_PARTS_DEEP",
    "MOST_TRAYS",
    "WISHES",
    "Change",
    "CheaperPack",
    "FileRecipe",
    "Formula",
    "Line",
    "MergeConflict",
    "Merged",
    "Mix",
    "Part",
    "PastedLine",
    "Window",
    "cheaper_packs",
    "differences",
    "document_schema",
    "file_recipe",
    "forms",
    "import_text",
    "keys_in",
    "merge_change",
    "read_document",
    "roles",
    "safe_cell",
    "weigh_formula",
    "weigh_line",
    "with_phrases",
    "write_document",
]
