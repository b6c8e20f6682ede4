"""What the zeros on the packs hide: the most that every "0 g" and "<1 g" can come to in a piece."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.messages.message import Message, Wording
from substrata.formula.batch.batch_lines import Batch, WeighedLine
from substrata.ingredients.printed_label import FIGURES, Label

WATCHED = ("carbohydrate_g", "sugars_g", "fat_g", "saturates_g", "trans_g", "protein_g", "sodium_mg")
_LEAST = {"g": 0.05, "mg": 5.0}  # a piece; less is not worth a line (house choice)


@dataclass(frozen=True, kw_only=True)
class HiddenAmount:
    """One printed zero."""

    line: str
    name: str
    figure: str
    printed: str  # as on the pack
    per_g: float  # grams that the figure is for
    most_per_100g: float
    most_a_piece: float  # in the figure's unit
    unit: str


@dataclass(frozen=True, kw_only=True)
class Hidden:
    """All zeros of one figure together."""

    figure: str
    name: str
    unit: str
    most_a_piece: float  # worst case: every zero at the top of its band
    text: Wording
    zeros: tuple[HiddenAmount, ...]


def hidden(batch: Batch, pieces: int) -> tuple[Hidden, ...]:
    """Worst cases a piece, by figure; only packs with a label can hide anything.

    Args:
        batch: the weighed lines.
        pieces: into how many pieces the dough is divided.

    Returns:
        The worst cases by figure, largest first.
    """
    rows = [zero for weighed in batch.lines for zero in _zeros(weighed, pieces)]
    whole = []
    for figure in WATCHED:
        zeros = tuple(sorted((z for z in rows if z.figure == figure), key=lambda z: -z.most_a_piece))
        if zeros:
            most = sum(z.most_a_piece for z in zeros)
            whole.append(
                Hidden(
                    figure=figure,
                    name=FIGURES[figure],
                    unit=zeros[0].unit,
                    most_a_piece=most,
                    text=_text(figure, most, zeros),
                    zeros=zeros,
                )
            )
    return tuple(whole)


def _zeros(weighed: WeighedLine, pieces: int) -> list[HiddenAmount]:
    pack = weighed.ingredient.pack
    if pack is None or pack.label is None:
        return []
    return [
        zero
        for figure in WATCHED
        if (zero := _zero(weighed, pack.label, pack.name, figure, pieces)) and zero.most_a_piece >= _LEAST[zero.unit]
    ]


def _zero(weighed: WeighedLine, label: Label, name: str, figure: str, pieces: int) -> HiddenAmount | None:
    most = label.per_100g(figure)
    if most is None or not label.hides(figure):
        return None
    return HiddenAmount(
        line=weighed.line.id,
        name=name,
        figure=figure,
        printed=label.figures[figure].strip(),
        per_g=label.per_g,
        most_per_100g=most.high,
        most_a_piece=most.high * weighed.grams.value / 100 / pieces,
        unit=figure.rpartition("_")[2],
    )


def _text(figure: str, most: float, zeros: tuple[HiddenAmount, ...]) -> Wording:
    top, unit = zeros[0], zeros[0].unit
    amount = f"{most:.2f}" if most < 1 else f"{most:.1f}"
    first = f"“{top.printed}” on {top.name} ({top.per_g:g} g serving)"
    others = Message("hidden-amounts-and-more", zeros=len(zeros) - 1) if len(zeros) > 1 else ""
    return Message(
        "hidden-amounts-up-to-of-per-piece",
        amount=amount,
        unit=unit,
        figures=FIGURES[figure].lower(),
        first=first,
        others=others,
    )
