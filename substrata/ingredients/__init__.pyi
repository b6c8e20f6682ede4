from .ingredient import Ingredient
from .labels.label_check import Finding, LabelCheck, check_lot
from .labels.label_mistakes import Mistake
from .labels.label_rounding import LabelStyle
from .labels.pack_document import pack_schema, read_lot, write_lot
from .labels.pack_reading import PackFigure, contained, ingredient_of_lot, read_pack, reference_figures
from .labels.panel_text import PanelText, read_panel
from .labels.product_files import Mapped, ReadRow, fields, guess, read_rows
from .labels.product_tables import FileKind, Table, read_file
from .library import load_library
from .pack import Lot
from .printed_label import FIGURE_KINDS, Label
from .stock import Allocation, Need, StockedLot, allocate

__all__ = [
    "FIGURE_KINDS",
    "Allocation",
    "FileKind",
    "Finding",
    "Ingredient",
    "Label",
    "LabelCheck",
    "LabelStyle",
    "Lot",
    "Mapped",
    "Mistake",
    "Need",
    "PackFigure",
    "PanelText",
    "ReadRow",
    "StockedLot",
    "Table",
    "allocate",
    "check_lot",
    "contained",
    "fields",
    "guess",
    "ingredient_of_lot",
    "load_library",
    "pack_schema",
    "read_file",
    "read_lot",
    "read_pack",
    "read_panel",
    "read_rows",
    "reference_figures",
    "write_lot",
]
