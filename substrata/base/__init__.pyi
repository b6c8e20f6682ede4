from .documents.collection_kinds import Listed, Named, Nested
from .documents.field_kinds import Kind, Number, Where, Word
from .documents.records import Declared, declared, read_record, write_record
from .errors import FormulaError, LabelError, OvenError, SubstrataError
from .messages.message import Message, Wording
from .messages.plain import plain, words_of
from .messages.reader import Reader, read_by, reading
from .pan_table import Pan, PanKind, pans
from .settings import (
    MOST_EATERS,
    Convention,
    Lesson,
    PolyolRule,
    Settings,
    read_setting,
    read_settings,
    setting_options,
    settings_schema,
)
from .tables.science_mark import science_mark
from .tables.table_reader import constant, read_table, whole_constant
from .uncertainty import SDS_IN_HALF_90, Spread

__all__ = [
    "MOST_EATERS",
    "SDS_IN_HALF_90",
    "Convention",
    "Declared",
    "FormulaError",
    "Kind",
    "LabelError",
    "Lesson",
    "Listed",
    "Message",
    "Named",
    "Nested",
    "Number",
    "OvenError",
    "Pan",
    "PanKind",
    "PolyolRule",
    "Reader",
    "Settings",
    "Spread",
    "SubstrataError",
    "Where",
    "Word",
    "Wording",
    "constant",
    "declared",
    "pans",
    "plain",
    "read_by",
    "read_record",
    "read_setting",
    "read_settings",
    "read_table",
    "reading",
    "science_mark",
    "setting_options",
    "settings_schema",
    "whole_constant",
    "words_of",
    "write_record",
]
