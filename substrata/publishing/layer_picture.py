"""The core of a dough as a picture: its lines as strata by weight, to hand on as PNG."""

from __future__ import annotations

import io
from collections.abc import Callable
from functools import cache
from typing import TYPE_CHECKING

from substrata.base.errors import FormulaError
from substrata.base.messages.quantity import in_grams
from substrata.base.tables.table_reader import read_table
from substrata.evaluation.analysis.phrasing import short_name
from substrata.evaluation.dough import Dough
from substrata.formula.batch.batch_lines import WeighedLine

if TYPE_CHECKING:
    from PIL.ImageDraw import ImageDraw

_WIDE, _MARGIN, _COLUMN, _TALL = 840, 48, 300, 1000  # px
_INK, _PAPER, _QUIET = "#2b2620", "#f4efe6", "#635a4f"
_LEAST_PX = 6.0  # of a stratum: a pinch of salt is seen too
_LABEL_PX = 30  # of a name beside it
_TITLE_PX, _TEXT_PX = 40, 22
_Box = tuple[float, float, float, float]


@cache
def role_looks() -> dict[str, tuple[str, str]]:
    """Colour and pattern of each role (``role_looks.csv``)."""
    return {row.text("role"): (row.text("colour"), row.text("pattern")) for row in read_table("role_looks.csv")}


def heights(weights: list[float], tall: float, least: float = _LEAST_PX) -> list[float]:
    """Heights of strata that fill a column, each by its weight but none below what can be seen.

    >>> [round(px, 1) for px in heights([90.0, 10.0, 0.1], 200.0, 6.0)]
    [174.6, 19.4, 6.0]

    Returns:
        Heights in px, summing to the column.
    """
    small: set[int] = set()
    while True:
        rest = sum(g for n, g in enumerate(weights) if n not in small) or 1.0
        room = tall - least * len(small)
        more = {n for n, g in enumerate(weights) if n not in small and g / rest * room < least}
        if not more:
            return [least if n in small else g / rest * room for n, g in enumerate(weights)]
        small |= more


def core_png(dough: Dough) -> bytes:
    """Return the picture, 840 px wide.

    Raises:
        FormulaError: when nothing has a weight.
    """
    from PIL import Image, ImageDraw, ImageFont

    lines = [w for w in dough.batch.lines if w.grams.value > 0]
    if not lines:
        raise FormulaError(
            "there is nothing to draw",
            got="no weight",
            allowed="an ingredient with a weight",
            remedy="add what is in it",
        )
    top = _MARGIN + 100
    tall = max(_TALL, len(lines) * (_LABEL_PX + 4))
    image = Image.new("RGB", (_WIDE, top + tall + _MARGIN), _PAPER)
    draw = ImageDraw.Draw(image)
    title, text = ImageFont.load_default(_TITLE_PX), ImageFont.load_default(_TEXT_PX)
    formula = dough.formula
    draw.text((_MARGIN, _MARGIN - 8), _plain(formula.name)[:44] or "Formula", fill=_INK, font=title)
    caption = f"{in_grams(dough.batch.dough_g)} dough, {formula.pieces} {'piece' if formula.pieces == 1 else 'pieces'}, {dough.form.name.lower()}"
    draw.text((_MARGIN, _MARGIN + 46), caption, fill=_QUIET, font=text)
    high = heights([w.grams.value for w in lines], tall)
    tops = [top + sum(high[:n]) for n in range(len(lines))]
    labels = _beside([y + h / 2 - _LABEL_PX / 2 for y, h in zip(tops, high, strict=True)], top + tall - _LABEL_PX)
    for w, y, high_px, label in zip(lines, tops, high, labels, strict=True):
        _stratum(draw, w.role, (_MARGIN, y, _MARGIN + _COLUMN, y + high_px))
        draw.line((_MARGIN, y, _MARGIN + _COLUMN, y), fill=_INK, width=1)
        # What does not find room beside its stratum is led to it by a line.
        draw.line(
            (_MARGIN + _COLUMN, y + high_px / 2, _MARGIN + _COLUMN + 46, label + _LABEL_PX / 2), fill=_QUIET, width=1
        )
        draw.text((_MARGIN + _COLUMN + 56, label), f"{in_grams(w.grams.value)}  {_named(w)}", fill=_INK, font=text)
    draw.rectangle((_MARGIN, top, _MARGIN + _COLUMN, top + tall), outline=_INK, width=2)
    out = io.BytesIO()
    image.save(out, format="PNG", optimize=True)
    return out.getvalue()


def _beside(positions: list[float], lowest: float) -> list[float]:
    """Places for labels, each near where it is wanted and none over another, the last no lower than it may be.

    >>> _beside([0.0, 10.0, 100.0], 60.0)
    [0.0, 30.0, 60.0]

    Returns:
        Places in px.
    """
    places: list[float] = []
    for y in positions:
        places.append(max(y, places[-1] + _LABEL_PX) if places else y)
    for n in reversed(range(len(places))):
        places[n] = min(places[n], lowest - (len(places) - 1 - n) * _LABEL_PX)
    return places


def _named(w: WeighedLine) -> str:
    return _plain(short_name(w.ingredient.pack.name if w.ingredient.pack else w.ingredient.name))[:44]


def _plain(text: str) -> str:
    """Without what the picture's letters do not have."""
    return "".join(c if c.isprintable() and ord(c) < 0x250 else "?" for c in text)


def _stratum(draw: ImageDraw, role: str, box: _Box) -> None:
    colour, pattern = role_looks().get(role, ("#cccccc", "plain"))
    draw.rectangle(box, fill=colour)
    if pattern in _PATTERNS:
        _PATTERNS[pattern](draw, box)


def _dots(draw: ImageDraw, box: _Box) -> None:
    for x, y in _grid(box, 18):
        draw.ellipse((x - 1.5, y - 1.5, x + 1.5, y + 1.5), fill=_INK)


def _rings(draw: ImageDraw, box: _Box) -> None:
    for x, y in _grid(box, 30):
        draw.ellipse((x - 4, y - 4, x + 4, y + 4), outline=_INK)


def _lines(draw: ImageDraw, box: _Box) -> None:
    for x, y in _grid(box, 22):
        draw.line((x - 6, y + 3, x + 6, y - 3), fill=_INK)


def _cross(draw: ImageDraw, box: _Box) -> None:
    for x, y in _grid(box, 20):
        draw.line((x - 4, y - 4, x + 4, y + 4), fill=_INK)
        draw.line((x - 4, y + 4, x + 4, y - 4), fill=_INK)


def _waves(draw: ImageDraw, box: _Box) -> None:
    for x, y in _grid(box, 24):
        draw.arc((x - 8, y - 4, x, y + 4), 180, 360, fill=_INK)
        draw.arc((x, y - 4, x + 8, y + 4), 0, 180, fill=_INK)


def _grid(box: _Box, step: float) -> list[tuple[float, float]]:
    """Places for marks, every other row shifted; none near an edge."""
    left, top, right, bottom = box
    places = []
    for n in range(int((bottom - top) / step)):
        y = top + (n + 0.5) * step + ((bottom - top) % step) / 2
        x = left + step * (0.5 if n % 2 else 1.0)
        while x < right - step / 2:
            places.append((x, y))
            x += step
    return places


_PATTERNS: dict[str, Callable[[ImageDraw, _Box], None]] = {
    "dots": _dots,
    "rings": _rings,
    "lines": _lines,
    "cross": _cross,
    "waves": _waves,
}
