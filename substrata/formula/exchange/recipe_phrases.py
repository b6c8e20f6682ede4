"""What a pasted list says besides its ingredients: its name, how many pieces it makes, how it is baked, what to do."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from substrata.base.tables.table_reader import constant
from substrata.formula.bake_settings import OVEN_C
from substrata.formula.exchange.form_vocabulary import form_in


@dataclass(frozen=True, kw_only=True)
class RecipePhrases:
    """What a line of a paste says of the whole formula; None where it says nothing."""

    name: str | None = None
    form: str | None = None  # its id, where a title or what it makes names one
    pieces: int | None = None
    oven_c: float | None = None
    fan: bool | None = None
    minutes: float | None = None  # middle of what was told
    note: str | None = None  # something to do, kept among the notes

    def __bool__(self) -> bool:
        return self != RecipePhrases()


_MOST_PIECES = 10_000
_LEAST_BARE = 4  # a number behind a title, from which it counts pieces (assumed)
_LONGEST = 600  # characters of a line that are looked at
_RANGE = r"(\d{1,4})(?:\s*(?:-|–|to)\s*(\d{1,4}))?"
_SLICES = re.compile(rf"{_RANGE}\s*(?:thin\s+|thick\s+)?(?:slices|pieces|wedges)\b", re.IGNORECASE)
_PIECES_IN = re.compile(rf"\b(?:makes|yields?|serves)\W*(?:about\s+)?{_RANGE}\b", re.IGNORECASE)
_PIECES_BEHIND = re.compile(
    rf"\s*(?:[-–—(,:]|\bx\b)\s*(?:makes|yields?|serves|for|x)?\s*(?:about\s+)?{_RANGE}\s*(?:pieces|pcs|rolls|buns|slices)?\s*\)?\s*$",
    re.IGNORECASE,
)
_COUNTED = re.compile(rf"^\W*{_RANGE}\s+((?:\w+[\s-]+){{0,3}}\w+)\W*$", re.IGNORECASE)
_BAKED = re.compile(r"^\W*(?:bake|baking\s+time|bake\s+time|cook\s+time)\b", re.IGNORECASE)
_PIECES = re.compile(
    r"^\W*(?:makes|yields?|serves|servings?|portions?|pieces)\b\W*(?:about|approx\w*|around|ca\.?)?\s*(\d{1,5})(?:\s*(?:-|–|to)\s*(\d{1,5}))?"
    r"|^\W*(\d{1,5})\s+(?:servings?|portions?|pieces)\W*$",
    re.IGNORECASE,
)
_DEGREES = re.compile(r"(\d{2,3})\s*(?:°|º|˚|degrees?|deg\.?)?\s*(celsius|fahrenheit|[cf])?\b", re.IGNORECASE)
_FAN_TEMPERATURE = re.compile(
    r"[/(,]?\s*(?:(?:fan|convection)\s*\d{3}\s*(?:°|º|˚)?\s*[cf]?\b|\d{3}\s*(?:°|º|˚)?\s*[cf]?\s*(?:fan|convection)\b)\s*\)?",
    re.IGNORECASE,
)
_SURELY_DEGREES = re.compile(r"\d{3}\s*(?:°|º|˚|degrees?\b|deg\b|[cf]\b)", re.IGNORECASE)
_GAS = re.compile(r"\bgas(?:\s+mark)?\s*(\d)\b", re.IGNORECASE)
_GAS_C = (140, 150, 170, 180, 190, 200, 220, 230, 240)  # marks 1 to 9 (common practice)
_MINUTES = re.compile(
    r"(\d{1,3})(?:\s*(?:-|–|to|or)\s*(\d{1,3}))?\s*(minutes?|mins?|m|hours?|hrs?|h)\b\.?", re.IGNORECASE
)
_HEATED = re.compile(r"\b(?:pre-?heat|bake[ds]?|baking|oven|roast|fan|gas)\b", re.IGNORECASE)
_FAN = re.compile(r"\b(?:fan|convection)\b", re.IGNORECASE)
# What a line begins with that says what to do (common practice).
_DOING = re.compile(
    r"^\W*(?:add|allow|arrange|bake|beat|blend|boil|brush|check|chill|combine|cook|cool|cover|cut|dissolve|divide|drain|drop|enjoy|fill|flatten|"
    r"fold|form|freeze|fry|grease|heat|keep|knead|leave|let|line|make|melt|microwave|mix|place|pour|preheat|press|prick|pulse|put|"
    r"remove|rest|roll|scoop|season|serve|set|shape|sift|slice|spoon|spread|sprinkle|squeeze|stir|store|take|top|transfer|turn|use|warm|"
    r"vent|seal|weigh|lay|score|dock|trim|work|steam|dip|drizzle|wring|wait|wash|whisk|wrap)\b\s+\w+",
    re.IGNORECASE,
)


def phrases_in(part: str) -> RecipePhrases:
    """Return what one line says of the whole formula; false when it says nothing.

    >>> phrases_in("Makes 8 rolls").pieces, phrases_in("bake at 400F for 15-17 min").minutes
    (8, 16.0)
    """
    whole, part = part, _short(part)
    pieces = _PIECES.match(part)
    if pieces:
        return RecipePhrases(pieces=_count(_SLICES.search(part) or pieces), form=form_in(part[pieces.end() :]))
    if _HEATED.search(part) or (_SURELY_DEGREES.search(part) and _MINUTES.search(part)):
        oven = _oven(part)
        if oven:
            pieces = _PIECES_IN.search(part)
            return replace(oven, pieces=_count(pieces)) if pieces else oven
        times = list(_MINUTES.finditer(part))
        if len(times) == 1 and _BAKED.match(part):
            return RecipePhrases(minutes=_minutes(times[0]), note=whole)
    if _DOING.match(part):
        return RecipePhrases(note=whole)
    return RecipePhrases()


def count_alone(part: str) -> RecipePhrases:
    """Return what a line says that is no ingredient and holds but a count and a form: "6 bagels".

    >>> count_alone("12 small rolls").pieces, count_alone("6 wishes").pieces
    (12, None)
    """
    match = _COUNTED.match(_short(part))
    form = form_in(match.group(3)) if match else None
    return (
        RecipePhrases(pieces=_piece_count(match.group(1), match.group(2)), form=form)
        if match and form
        else RecipePhrases()
    )


def phrases_in_title(title: str) -> tuple[str, int | None]:
    """Return a title without the count behind it, and that count.

    >>> phrases_in_title("Seed crackers – makes about 36"), phrases_in_title("Muffins (12)"), phrases_in_title("Rolls, seeded")
    (('Seed crackers', 36), ('Muffins', 12), ('Rolls, seeded', None))
    """
    title = _short(title)
    behind = _PIECES_BEHIND.search(title)
    # "Rolls (2)" is the second of its name.
    if behind is None or _count(behind) < _LEAST_BARE:
        return title, None
    return title[: behind.start()].strip(), _count(behind)


def _short(text: str) -> str:
    """One space between words and no endless line: what is searched with several patterns must not take for ever."""
    return " ".join(text[:_LONGEST].split())


def _count(match: re.Match[str]) -> int:
    return _piece_count(*match.groups())


def _piece_count(*text: str | None) -> int:
    numbers = [int(n) for n in text if n]
    return min(max(round(sum(numbers) / len(numbers)), 1), _MOST_PIECES)


def _oven(part: str) -> RecipePhrases:
    time = _MINUTES.search(part)
    rest = part.replace(time.group(), " ") if time else part
    # "190 °C / 170 °C fan": the one without a fan is taken where both are told.
    still = _FAN_TEMPERATURE.sub(" ", rest)
    both = still != rest and (_celsius(still) or 0.0) >= (OVEN_C.low or 0)
    celsius = _celsius(still if both else rest)
    if celsius is None or not (OVEN_C.low or 0) <= celsius <= (OVEN_C.high or 0):
        return RecipePhrases()
    return RecipePhrases(
        oven_c=celsius, fan=True if _FAN.search(part) and not both else None, minutes=_minutes(time) if time else None
    )


def _celsius(text: str) -> float | None:
    gas = _GAS.search(text)
    if gas and 1 <= int(gas.group(1)) <= len(_GAS_C):
        return float(_GAS_C[int(gas.group(1)) - 1])
    temperatures = [(float(m.group(1)), (m.group(2) or "").lower()[:1]) for m in _DEGREES.finditer(text)]
    # "200 °C / 400 °F": the one in degrees Celsius is taken as it stands.
    for value, unit in sorted(temperatures, key=lambda pair: pair[1] != "c"):
        if unit == "c" or (not unit and value < constant("surely_fahrenheit")):
            return value
        return float(round((value - 32) / 1.8))
    return None


def _minutes(match: re.Match[str]) -> float:
    low, high, unit = match.groups()
    middle = (float(low) + float(high or low)) / 2
    return middle * 60 if unit.lower().startswith("h") else middle
