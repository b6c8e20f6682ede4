"""Read a nutrition panel from the clipboard, United States or European, into a label."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from substrata.base.errors import LabelError
from substrata.base.units import unit
from substrata.ingredients.labels.label_rounding import LabelStyle
from substrata.ingredients.labels.label_vocabulary import words
from substrata.ingredients.printed_label import FIGURES, Label

LONGEST_TEXT = 20_000
_NUMBER = r"(?:<|less than|under)?\s*\d+(?:[.,]\d+)?"
_AMOUNT = re.compile(rf"({_NUMBER})\s*(kcal|kj|mcg|µg|μg|ug|mg|iu|g|cal)?(?![\w%]|\s*%)", re.IGNORECASE)
_US_SIGNS = (
    "calories",
    "daily value",
    "total carb",
    "dietary fiber",
    "serving size",
    "nutrition facts",
    "total fat",
    "mcg",
)
_EU_SIGNS = ("kj", "of which", "per 100", "salt", "davon", "dont", "saturates", "nutrition declaration", "fibre")
_SERVING = re.compile(
    r"serv(?:ing|\.)?\s*size[:\s]*(?P<measure>[^\n(]*?)\s*\(?\s*(?P<grams>\d+(?:[.,]\d+)?)\s*(?P<unit>g|gr|grams?|oz)\b",
    re.IGNORECASE,
)
_PER = re.compile(
    r"\b(?:per|pro|pour|por|je|amount per)\s+(?:serving\s*\(?\s*)?(?P<grams>\d+(?:[.,]\d+)?)\s*(?P<unit>g|ml)\b",
    re.IGNORECASE,
)
# What stands on panels but is no figure of ours.
_IGNORED = re.compile(
    r"calories from fat\s*\d*|servings? per (container|pack(age)?)[^\n]*|% ?(daily value|dv|ri|nrv)\*?|not a significant source[^\n]*",
    re.IGNORECASE,
)


@dataclass(frozen=True, kw_only=True)
class PanelText:
    """What a pasted panel says."""

    style: LabelStyle | None  # None when the text does not tell: the baker must
    per_g: float | None  # None when no serving and no "per 100 g" is named
    per_digit_g: float
    serving_measure: str
    figures: dict[str, str]
    notes: tuple[str, ...]

    def label(self) -> Label:
        """Return the label, when the text said enough.

        Raises:
            LabelError: when style or serving is missing.
        """
        if self.style is None or self.per_g is None:
            missing = "style" if self.style is None else "per_g"
            raise LabelError(
                "the panel is incomplete", got="no " + missing, remedy="choose the label style", field=missing
            )
        return Label(
            style=self.style,
            per_g=self.per_g,
            per_digit_g=self.per_digit_g,
            serving_measure=self.serving_measure,
            figures=self.figures,
        )


def read_panel(text: str) -> PanelText:
    """Read a pasted panel.

    Returns:
        The label with what was read and what was not.

    Raises:
        LabelError: when it is too long or holds no figure at all.
    """
    if len(text) > LONGEST_TEXT:
        raise LabelError(
            "the text is too long", got=f"{len(text)} characters", allowed=f"up to {LONGEST_TEXT}", field="text"
        )
    cleaned = _IGNORED.sub(" ", text.replace("\x00", " ").replace("\t", " ").replace("|", " "))
    figures = dict(_figures(cleaned))
    if not figures:
        raise LabelError(
            "no nutrition values found",
            got=text.strip()[:60] or "nothing",
            allowed="a panel such as “Serving size 2 Tbsp (14 g) … Protein 3 g”",
            remedy="copy the whole panel",
            field="text",
        )
    grams, digit, measure = _serving(cleaned)
    style = _style(cleaned, figures)
    notes = []
    if style is None:
        notes.append("Choose the label style: the text does not say whether carbohydrate includes fiber.")
    if grams is None:
        notes.append("The text does not give the grams that the figures are for.")
    return PanelText(
        style=style, per_g=grams, per_digit_g=digit, serving_measure=measure, figures=figures, notes=tuple(notes)
    )


def _serving(text: str) -> tuple[float | None, float, str]:
    """Grams the figures are for, size of their last digit, and the household measure."""
    serving, per = _SERVING.search(text), _PER.search(text)
    # A European table may name a serving beside its first column, which is per 100 g.
    match = per if per and (not serving or per.start() < serving.start() or per["grams"] == "100") else serving
    if match is None:
        return None, 1.0, ""
    grams = match["grams"].replace(",", ".")
    digit = 10.0 ** -len(grams.partition(".")[2])
    size = unit("oz").size if match["unit"].lower() == "oz" else 1.0
    if match is per:
        return float(grams), 0.0 if float(grams) == 100 else digit, ""
    return float(grams) * size, digit * size, match["measure"].strip(" :,").lower()


def _style(text: str, figures: dict[str, str]) -> LabelStyle | None:
    phrase = text.lower()
    us, eu = (sum(sign in phrase for sign in signs) for signs in (_US_SIGNS, _EU_SIGNS))
    if "carbohydrate_g" not in figures:
        return "eu" if eu > us else "us"  # nothing hangs on it
    return "us" if us > eu else "eu" if eu > us else None


@dataclass(frozen=True, kw_only=True)
class _Mention:
    start: int
    end: int
    field: str


def _mentions(text: str) -> list[_Mention]:
    """Where each figure is named; of names that overlap the longest counts."""
    mentions: list[_Mention] = []
    folded = _fold(text)
    for word, field in words().items():
        if field not in FIGURES or word in ("kcal", "kj"):
            continue
        for match in re.finditer(rf"(?<![a-z]){re.escape(word)}(?![a-z])", folded):
            if not any(m.start < match.end() and match.start() < m.end for m in mentions):
                mentions.append(_Mention(start=match.start(), end=match.end(), field=field))
    return sorted(mentions, key=lambda m: m.start)


def _fold(text: str) -> str:
    """Lower case without accents, letter for letter, so that places stay the same."""
    table = str.maketrans("äöüßàâçéèêëîïôûùáíóúñ", "aousaaceeeeiiouuaioun")
    return text.lower().translate(table)


def _figures(text: str) -> Iterator[tuple[str, str]]:
    mentions, figures_read = _mentions(text), set()
    for place, mention in enumerate(mentions):
        until = mentions[place + 1].start if place + 1 < len(mentions) else len(text)
        after = text[mention.end : until]
        if mention.field.startswith("energy"):
            for field, amount in _energies(after):
                if field not in figures_read:
                    figures_read.add(field)
                    yield field, amount
            continue
        result = _AMOUNT.search(after.partition("\n\n")[0])
        before = re.search(rf"includes?\s+({_NUMBER})\s*g\s*$", text[: mention.start], re.IGNORECASE)
        if mention.field == "added_sugars_g" and before:
            amount = before.group(1)
        elif result and result.start() < 25:
            amount = result.group(1) + _unit_beside(mention.field, result.group(2))
        else:
            continue
        if mention.field not in figures_read:
            figures_read.add(mention.field)
            yield (
                mention.field,
                " ".join(amount.split()).replace("less than ", "<").replace("Less than ", "<").replace("< ", "<"),
            )


def _unit_beside(field: str, unit_text: str | None) -> str:
    """Return the unit only where it is another than the figure's own."""
    phrase = (unit_text or "").lower().replace("mcg", "ug").replace("µg", "ug").replace("μg", "ug")
    return "" if phrase in ("", field.rpartition("_")[2]) else f" {phrase}"


def _energies(after: str) -> Iterator[tuple[str, str]]:
    """Kilojoules and kilocalories, in any order; a bare number is kcal."""
    for result in list(_AMOUNT.finditer(after))[:2]:
        named = (result.group(2) or "").lower()
        number = result.group(1).strip()
        if named == "kj":
            yield "energy_kj", number
        elif named in ("kcal", "cal", ""):
            yield "energy_kcal", number
