"""What to do with a dough as it is felt: wait, warm, or so many grams of one thing.

At the bench the hand is right: the felt class stands for its middle, and the core gives only the slope and what waiting will
do. Waiting is offered where the curve of this dough crosses into the window, and nowhere else.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from substrata.base.errors import FormulaError
from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.evaluation.dough import Dough
from substrata.evaluation.figures import shaped_at
from substrata.execution.correction import Correction, as_felt, consistency_at, corrections, with_more
from substrata.execution.run_document import CRUMBLY, felt_words
from substrata.formula.batch.rounding_steps import to_the_scale
from substrata.process.rheology.cheese import cheese_share
from substrata.process.rheology.handling_classes import ClassBand, band_of, class_of

_MOST_WAYS = 3
_GREASY, _TEARS = "greasy", "tears"
ALSO = (_TEARS, _GREASY)


@dataclass(frozen=True, kw_only=True)
class FeelWay:
    """One thing that brings it into the window."""

    kind: str  # wait, warm, cool, add, press
    text: Wording
    minutes: float | None = None
    temperature_c: float | None = None
    line: str = ""
    ingredient: str = ""
    grams: float | None = None  # of the batches that are made


@dataclass(frozen=True, kw_only=True)
class FeelAdvice:
    """What to do with a dough that is felt."""

    felt: str
    minute: float
    target_low: str
    target_high: str
    fits: bool
    off_by: float  # decades from the nearer edge of the window; 0 inside
    bias: float  # decades by which the hand differs from the forecast; what a kitchen learns from
    forecast: str  # class that was forecast for that minute
    closes_in_min: float | None  # until it is too stiff to shape
    ways: tuple[FeelWay, ...]
    text: Wording


def feel(
    dough: Dough,
    *,
    class_name: str,
    minute: float | None = None,
    temperature_c: float | None = None,
    batches: float = 1.0,
    dry_air: bool = False,
) -> FeelAdvice:
    """Advice for a dough as it is felt. A pure function.

    Args:
        dough: as it was written, or as it was weighed.
        class_name: what was felt: a handling class, "crumbly", "tears" or "greasy".
        minute: after mixing; None takes the form's usual rest.
        temperature_c: of the dough, where it was measured.
        batches: by which grams are told.
        dry_air: heated or desert air, in which flours have dried on the shelf and skins dry at once.

    Returns:
        The advice with its ways.

    Raises:
        FormulaError: when the class is unknown, or there is no dough to feel.
    """
    allowed = (*felt_words(), *ALSO)
    if class_name not in allowed:
        raise FormulaError(
            "unknown dough feel",
            got=class_name[:40],
            allowed=", ".join(allowed),
            remedy="choose one of these",
            field="class",
        )
    if dough.handling is None:
        raise FormulaError(
            "there is no dough to feel yet",
            got="no ingredients",
            allowed="at least two ingredients",
            remedy="weigh the ingredients first",
        )
    hand = _Hand(dough, class_name, minute, temperature_c, batches)
    advice = _advice(hand, class_name)
    return replace(advice, text=f"{advice.text} {_in_dry_air(dough, batches)}") if dry_air else advice


def _in_dry_air(dough: Dough, batches: float) -> Wording:
    added = sum(w.grams.value for w in dough.inside.lines if w.role == "liquid") * batches
    if not added:
        return Message("feel-advice-cover-the-dough-right-away")
    return Message(
        "feel-advice-cover-the-dough-in-dry",
        as_poured=Quantity(as_poured(constant("dry_air_water") * added), "g", digits=-1),
    )


def _advice(hand: _Hand, class_name: str) -> FeelAdvice:
    if class_name == _GREASY:
        return hand.advice(0.0, _greasy(hand), fits=False)
    if class_name == CRUMBLY:
        return hand.advice(0.0, _crumbly(hand), fits=False)
    off = hand.off_by
    if off == 0:
        return hand.advice(off, (), fits=True)
    return hand.advice(off, _ways(hand), fits=False)


class _Hand:
    """A dough in a hand."""

    def __init__(
        self, dough: Dough, felt: str, minute: float | None, temperature_c: float | None, batches: float
    ) -> None:
        self.dough, self.felt, self.batches = dough, felt, batches
        self.target = dough.target_handling
        self.minute = dough.bowl().rest_min if minute is None else minute
        self.temperature_c = dough.bowl(self.minute).shaped_c if temperature_c is None else temperature_c
        self.thick = dough.piece.thickness_mm
        self.low, self.high = self.target.low, self.target.high
        self.now = consistency_at(dough, self.minute, self.temperature_c)
        self.hand = self._middle()
        self.bias = self.hand - self.now
        # The dough in the hand is another than the one that was forecast: the one that feels like this.
        self.real = as_felt(dough, self.hand, self.minute, self.temperature_c)
        self.bowl = self.real.bowl(self.minute)
        self.left = self.hand - consistency_at(self.real, self.minute, self.temperature_c)

    def _middle(self) -> float:
        if self.felt in (CRUMBLY, _GREASY):
            return self.now
        if self.felt == _TEARS:
            # What tears is too stiff to bend, by half a class.
            return self.high + constant("open_end") / 2
        return band_middle(band_of(self.felt, self.thick))

    @property
    def off_by(self) -> float:
        """Decades to the nearer edge: below 0 too soft, above 0 too stiff, 0 inside."""
        if self.hand < self.low:
            return self.hand - self.low
        return self.hand - self.high if self.hand >= self.high else 0.0

    @property
    def aim(self) -> float:
        """Somewhat inside the edge that was missed, or the middle of a narrow window."""
        inside = min(constant("felt_aim_inside"), (self.high - self.low) / 2)
        return self.low + inside if self.off_by < 0 else self.high - inside

    def over_minutes(self) -> tuple[np.ndarray, np.ndarray]:
        """Minutes from now on, and what the hand will feel."""
        minutes = self.minute + np.arange(0.0, constant("wait_most_min") + 0.5, 0.5)
        warm = replace(self.bowl, temperature_c=self.temperature_c, place_c=None)
        return minutes - self.minute, warm.over_minutes(minutes) + self.left

    def over_degrees(self) -> tuple[np.ndarray, np.ndarray]:
        """Degrees, and what the hand will feel."""
        degrees = np.arange(constant("advised_coolest_c"), constant("advised_warmest_c") + 1, 1.0)
        return degrees, self.bowl.over_degrees(degrees) + self.left

    def closes(self) -> float | None:
        """Minutes until it is too stiff; None when waiting does not make it so."""
        waited, felt = self.over_minutes()
        indices = np.flatnonzero(felt >= self.high)
        return float(waited[indices[0]]) if len(indices) and felt[0] < self.high else None

    def advice(self, off: float, ways: tuple[FeelWay, ...], *, fits: bool) -> FeelAdvice:
        closes = self.closes() if fits else None
        return FeelAdvice(
            felt=self.felt,
            minute=self.minute,
            target_low=self.target.lowest,
            target_high=self.target.highest,
            fits=fits,
            off_by=off,
            bias=0.0 if self.felt in (CRUMBLY, *ALSO) else self.bias,
            forecast=class_of(self.now, self.thick),
            closes_in_min=closes,
            ways=ways,
            text=self._text(ways, closes, fits=fits),
        )

    def _text(self, ways: tuple[FeelWay, ...], closes: float | None, *, fits: bool) -> Wording:
        form = self.dough.form.name.lower()
        if fits:
            closing_text = (
                Message("feel-advice-you-have-about-min-before", closes=Quantity(closes, "min", digits=0))
                if closes and closes > 0
                else ""
            )
            return Message("feel-advice-shape-it-now-is-right", felt=self.felt, form=form, closing_text=closing_text)
        if not ways:
            return Message("feel-advice-is-not-right-for-a-2", felt=self.felt.capitalize(), form=form)
        ways_text = Joined((way.text for way in ways), ", or ")
        return Message("feel-advice-is-not-right-for-a", felt=self.felt.capitalize(), form=form, ways_text=ways_text)


def band_middle(band: ClassBand) -> float:
    """Return the consistency that a felt class stands for: its middle, or somewhat inside of an open end.

    >>> band_middle(ClassBand(class_name="tacky", low=2.5, high=3.3))
    2.9
    """
    if band.low < -_LARGE:
        return band.high - constant("open_end")
    if band.high > _LARGE:
        return band.low + constant("open_end")
    return (band.low + band.high) / 2


_LARGE = 8.0


def _ways(hand: _Hand) -> tuple[FeelWay, ...]:
    ways = []
    soft = hand.off_by < 0
    if soft:
        ways += _waiting(hand)
    ways += _degrees(hand, soft=soft)
    change = hand.aim - hand.hand
    candidates = corrections(hand.real, change, minute=hand.minute, temperature_c=hand.temperature_c)
    ways += [_adding(hand, correction) for correction in candidates]
    if abs(hand.off_by) > constant("felt_far_off") and not any(correction.whole for correction in candidates):
        ways.insert(0, FeelWay(kind="check", text=Message("feel-advice-check-the-weights-first-the")))
    return tuple(ways[:_MOST_WAYS]) or (FeelWay(kind="check", text=Message("feel-advice-check-what-was-weighed-no")),)


def _waiting(hand: _Hand) -> list[FeelWay]:
    """Only where the curve crosses into the window."""
    waited, felt = hand.over_minutes()
    inside = np.flatnonzero((felt >= hand.low) & (felt < hand.high))
    if not len(inside) or waited[inside[0]] < constant("wait_least_min") / 2:
        return []
    minutes = max(float(np.ceil(waited[inside[0]])), constant("wait_least_min"))
    return [
        FeelWay(
            kind="wait",
            text=Message("feel-advice-wait-min", minutes=Quantity(minutes, "min", digits=0)),
            minutes=minutes,
        )
    ]


def _degrees(hand: _Hand, *, soft: bool) -> list[FeelWay]:
    """Warmer or cooler, for a dough that minds it: melted cheese and butter."""
    fat = hand.bowl.materials.melts
    if not fat:
        return []
    degrees, felt = hand.over_degrees()
    inside = degrees[(felt >= hand.low + 0.05) & (felt < hand.high - 0.05)]
    if soft:
        cooler = inside[inside < hand.temperature_c - 2]
        if not len(cooler):
            return []
        to = float(cooler.max())
        how = (
            Message("feel-advice-let-it-cool")
            if to >= constant("room_temperature")
            else Message("feel-advice-chill-it")
        )
        return [
            FeelWay(
                kind="cool", text=Message("feel-advice-to-c", how=how, to=Quantity(to, "C", digits=0)), temperature_c=to
            )
        ]
    warmer = inside[inside > hand.temperature_c + 2]
    return _warmer(hand, float(min(warmer.min() + 4, warmer.max()))) if len(warmer) else []


def _warmer(hand: _Hand, to: float) -> list[FeelWay]:
    if cheese_share(hand.dough.inside) >= constant("cheese_dough"):
        return [
            FeelWay(
                kind="warm",
                text=Message("feel-advice-warm-only-the-piece-you", to=Quantity(to, "C", digits=0)),
                temperature_c=to,
            )
        ]
    if to > constant("butter_runs_c"):
        return []
    return [
        FeelWay(
            kind="warm",
            text=Message("feel-advice-let-the-dough-warm-to", to=Quantity(to, "C", digits=0)),
            temperature_c=to,
        )
    ]


def _adding(hand: _Hand, correction: Correction) -> FeelWay:
    grams = as_poured(correction.grams * hand.batches)
    name = correction.name.partition(",")[0].lower()
    return FeelWay(
        kind="add",
        text=Message(
            "feel-advice-g", grams=Quantity(grams, "g", digits=-1), name=name, whole="yes" if correction.whole else "no"
        ),
        line=correction.line,
        ingredient=correction.ingredient,
        grams=grams,
    )


def as_poured(grams: float) -> float:
    """Return what a bench scale shows: tenths only where a gram would be too coarse."""
    return round(grams) if grams >= 3 else max(to_the_scale(grams), 0.1)


def _crumbly(hand: _Hand) -> tuple[FeelWay, ...]:
    """Press it; then as much liquid as fills its voids a little better than now."""
    ways = []
    if hand.bowl.method.pressed:
        ways.append(FeelWay(kind="press", text=Message("feel-advice-press-the-dough-together-firmly")))
    dough = hand.dough
    start = shaped_at(dough.inside, dough.formula, rest_min=hand.minute)[1]
    # Felt as crumbly, its voids are just not filled, whatever the forecast says.
    target = constant("coheres_from") * max(start, 1.0) if start > 1 else constant("coheres_from")
    step = 0.01 * dough.inside.dough_g
    for correction in corrections(dough, -0.1, minute=hand.minute, temperature_c=hand.temperature_c):
        for n in range(1, 16):
            more = with_more(dough, correction.line, n * step)
            if shaped_at(more.inside, more.formula, rest_min=hand.minute)[1] >= target:
                ways.append(_adding(hand, replace(correction, grams=n * step, whole=True)))
                break
    return tuple(ways[:_MOST_WAYS])


def _greasy(hand: _Hand) -> tuple[FeelWay, ...]:
    """Fat has come out: cooler, and hands off (common practice)."""
    cooler = max(hand.temperature_c - 8, 15.0)
    return (
        FeelWay(
            kind="cool",
            text=Message("feel-advice-let-the-dough-cool-to", cooler=Quantity(cooler, "C", digits=0)),
            temperature_c=cooler,
        ),
        FeelWay(kind="wait", text=Message("feel-advice-rest-the-dough-min-and"), minutes=5.0),
    )
