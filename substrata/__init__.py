"""The science of grain-free, low-carb doughs as a pure library: no web, no database, no clock.

``analyse(formula, library, settings)`` is the one entrance; everything else is a part of it.
"""

from substrata.base.settings import Settings
from substrata.evaluation.analysis.analyse import Analysis, analyse
from substrata.formula.formula_document import read_document, write_document
from substrata.ingredients.library import Library, load_library

__all__ = ["Analysis", "Library", "Settings", "analyse", "load_library", "read_document", "write_document"]
