"""Diet claims: does one hold, which line breaks it, or which line needs a certificate before it can be said.

A claim holds only if every line supports it. Grain-free is not gluten-free-tested, and gluten-free is
not grain-free. "Low carb" is no authorised claim in the United States or the European Union and is not
offered.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache, lru_cache
from typing import Literal

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import read_table
from substrata.base.tables.table_texts import without_weight
from substrata.formula.batch.batch_lines import Batch, WeighedLine

Verdict = Literal["holds", "fails", "unsure", "empty"]
Effect = Literal["fails", "needs", "strict", "school"]


@dataclass(frozen=True, kw_only=True)
class Ground:
    """Why one line breaks a claim or leaves it unsure."""

    line: str
    name: str
    reason: Wording


@dataclass(frozen=True, kw_only=True)
class Claim:
    """One claim about a formula."""

    key: str
    name: str
    verdict: Verdict  # unsure: it cannot be said without a certificate
    hint: bool  # not a claim for a label, only a pointer
    basis: str
    grounds: tuple[Ground, ...]
    text: Wording


@dataclass(frozen=True, kw_only=True)
class _Rule:
    effect: Effect
    kind: str  # flag, role or id
    match: str
    reason: str

    def applies(self, facts: _Facts) -> bool:
        """Whether an ingredient with these facts is meant."""
        if self.kind == "role":
            return facts.role == self.match
        if self.kind == "id":
            return facts.id in self.match.split()
        if self.match.endswith("*"):
            return any(flag.startswith(self.match[:-1]) for flag in facts.flags)
        return self.match in facts.flags


@dataclass(frozen=True, kw_only=True)
class ClaimKind:
    """A claim as the table has it."""

    key: str
    name: str
    hint: bool
    basis: str
    source: str
    rules: tuple[_Rule, ...]


@cache
def claim_kinds() -> dict[str, ClaimKind]:
    """All claims by key, in the order of the table."""
    rules: dict[str, list[_Rule]] = {}
    for row in read_table("claim_rules.csv"):
        kind, _, match = row.text("match").partition(":")
        effect: Effect = row.text("effect")  # type: ignore[assignment]  # the test of the tables holds it to the four
        rules.setdefault(row.text("claim"), []).append(
            _Rule(effect=effect, kind=kind, match=match, reason=row.text("reason"))
        )
    return {
        row.text("claim"): ClaimKind(
            key=row.text("claim"),
            name=row.text("name"),
            hint=row.text("hint") == "1",
            basis=row.text("basis"),
            source=row.text("source"),
            rules=tuple(rules[row.text("claim")]),
        )
        for row in read_table("claims.csv")
    }


def claims(batch: Batch, settings: Settings, *, unweighed: tuple[str, ...] = ()) -> tuple[Claim, ...]:
    """Every claim, judged line by line.

    Args:
        batch: the weighed lines.
        settings: whether this kitchen counts coconut as a nut and xanthan as grain.
        unweighed: names of lines that have no weight; while there are any no claim can hold.

    Returns:
        The claims with their verdicts.
    """
    lines = tuple((w.line.id, _label_name(w), _facts(w)) for w in batch.lines if w.grams.value > 0)
    return _judged(lines, _breaking(settings), unweighed)


def _label_name(weighed: WeighedLine) -> str:
    return weighed.ingredient.pack.name if weighed.ingredient.pack else weighed.ingredient.name


@lru_cache(maxsize=1024)
def _judged(
    lines: tuple[tuple[str, str, _Facts], ...], breaking: tuple[Effect, ...], unweighed: tuple[str, ...]
) -> tuple[Claim, ...]:
    """Return the claims of some lines; grams play no part, so a dragging finger asks only once."""
    return tuple(_claim(kind, lines, breaking, unweighed) for kind in claim_kinds().values())


def _claim(
    kind: ClaimKind,
    lines: tuple[tuple[str, str, _Facts], ...],
    breaking: tuple[Effect, ...],
    unweighed: tuple[str, ...],
) -> Claim:
    against: list[Ground] = []
    doubting: list[Ground] = []
    for line, name, facts in lines:
        result = _ground(kind.key, facts, breaking)
        if result:
            breaks, reason = result
            (against if breaks else doubting).append(Ground(line=line, name=name, reason=reason))
    verdict: Verdict = "fails" if against else "unsure" if doubting or unweighed else "holds"
    if not lines:
        verdict = "empty"
    grounds = tuple(against or doubting)
    return Claim(
        key=kind.key,
        name=kind.name,
        verdict=verdict,
        hint=kind.hint,
        basis=kind.basis,
        grounds=grounds,
        text=_text(kind, verdict, grounds, unweighed),
    )


@dataclass(frozen=True, kw_only=True)
class _Facts:
    """All that claims hang on, of one ingredient or pack."""

    id: str
    role: str
    flags: frozenset[str]
    may_contain: frozenset[str]
    certificates: frozenset[str]


def _facts(weighed: WeighedLine) -> _Facts:
    ingredient, pack = weighed.ingredient, weighed.ingredient.pack
    nothing: frozenset[str] = frozenset()
    return _Facts(
        id=ingredient.id,
        role=ingredient.role,
        flags=ingredient.flags,
        may_contain=pack.may_contain if pack else nothing,
        certificates=pack.certificates if pack else nothing,
    )


@lru_cache(maxsize=8192)
def _ground(claim: str, facts: _Facts, breaking: tuple[Effect, ...]) -> tuple[bool, Wording] | None:
    """Return what one line does to a claim: (it breaks it, why); None when it supports it. A certificate settles doubts only."""
    rules = claim_kinds()[claim].rules
    for rule in rules:
        if rule.effect in breaking and rule.applies(facts):
            return True, rule.reason
    if claim in facts.certificates:
        return None
    for rule in rules:
        if rule.effect in breaking and rule.kind == "flag" and rule.applies(replace(facts, flags=facts.may_contain)):
            return False, Message("claims-has-a-pack-that-may")
        if rule.effect == "needs" and rule.applies(facts):
            return False, rule.reason
    return None


def _breaking(settings: Settings) -> tuple[Effect, ...]:
    """Effects that break a claim: coconut breaks nut-free, and xanthan grain-free, only where a kitchen says so."""
    school: tuple[Effect, ...] = ("school",) if settings.coconut_is_nut else ()
    strict: tuple[Effect, ...] = ("strict",) if settings.xanthan_is_grain else ()
    return ("fails", *school, *strict)


def _text(kind: ClaimKind, verdict: Verdict, grounds: tuple[Ground, ...], unweighed: tuple[str, ...]) -> Wording:
    words = Joined((Message("claims-parts", name=g.name.partition(",")[0], reason=g.reason) for g in grounds[:3]), "; ")
    more = Message("claims-and-more", grounds=len(grounds) - 3) if len(grounds) > 3 else ""
    if verdict == "fails":
        return Message("claims-not", kind_name=kind.name.lower(), words=words, more=more)
    if verdict == "unsure" and not grounds:
        return Message("claims-cannot-be-said-yet", kind_name=kind.name, without_weight=without_weight(unweighed))
    if verdict == "unsure":
        return Message("claims-cannot-be-said-without-a", kind_name=kind.name, words=words, more=more)
    if verdict == "empty":
        return Message("claims-nothing-in-the-bowl-yet", kind_name=kind.name)
    return (
        Message("claims-no-ingredient-known-to-be", kind_name=kind.name)
        if kind.hint
        else Message("claims-all-ingredients-support-this-claim", kind_name=kind.name)
    )
