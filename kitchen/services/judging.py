"""The core, with a kitchen's choices."""

from typing import Any

from kitchen.models import Kitchen
from substrata import Analysis, Settings, analyse, load_library, read_document
from substrata.formula.text_import import PastedLine, import_text

# Changes whenever the shipped tables or the figures of the shelf card do; cards of another mark are made anew.
CARD_MARK = "2026-11-25"


def card_mark(kitchen: Kitchen) -> str:
    """Which state of the science and of the kitchen's choices a shelf card was made by."""
    return f"{CARD_MARK} {kitchen.convention} {kitchen.polyol_rule}"


def core_settings(kitchen: Kitchen) -> Settings:
    """A kitchen's choices as the core's settings."""
    return Settings(
        spoons=kitchen.spoons,  # type: ignore[arg-type]  # the model's choices are the core's literals
        egg_scheme=kitchen.egg_scheme,  # type: ignore[arg-type]
        convention=kitchen.convention,  # type: ignore[arg-type]
        polyol_rule=kitchen.polyol_rule,  # type: ignore[arg-type]
    )


def judge(settings: Settings, document: dict[str, Any]) -> Analysis:
    """Analyse a document by a kitchen's choices.

    Raises:
        FormulaError: when the document cannot be read.
    """
    return analyse(read_document(document), load_library(), settings)


def read_paste(text: str) -> tuple[PastedLine, ...]:
    """Read a pasted ingredient list.

    Raises:
        FormulaError: when it is too long.
    """
    return import_text(text, load_library())


def shelf_card(kitchen: Kitchen, document: dict[str, Any]) -> dict[str, Any]:
    """What the shelf shows of a formula: its strata and the two figures one looks for."""
    judged = judge(core_settings(kitchen), document)
    piece = judged.nutrition.piece
    return {
        "strata": [{"role": line.role, "code": line.code, "share": round(line.share, 4)} for line in judged.lines],
        "net_carbs": round(piece.net_carbs.value, 2),
        "protein": round(piece.protein.value, 2),
        "pieces": document["form"]["pieces"],
        "outside": sum(b.primary and b.state in ("low", "high") for b in judged.brackets),
        "problems": len(judged.problems),
        "convention": kitchen.convention,
    }
