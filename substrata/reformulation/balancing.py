"""``settle``: the formula comes into its targets by itself, with the least change, in several ways."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from substrata.base.messages.message import Joined, Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.settings import Settings
from substrata.base.tables.table_reader import constant
from substrata.formula.formula import Formula
from substrata.ingredients.library import Library
from substrata.reformulation.infeasibility import conflict_at
from substrata.reformulation.program.balance_problem import BalanceProblem
from substrata.reformulation.program.full_model_check import ModelCheck, check_by_model
from substrata.reformulation.program.piece_changes import Shaped, as_shaped, other_shapes, shape_name
from substrata.reformulation.request.balance_answer import BalanceAnswer, Relaxation, Status
from substrata.reformulation.request.balance_request import Wish, check_wish
from substrata.reformulation.solutions.alternatives import (
    Answer,
    Progress,
    different_ways,
    in_other_shapes,
    named,
    settled_in,
)
from substrata.reformulation.solutions.solution import Teller, line_changes, missed_texts
from substrata.reformulation.solutions.target_probability import chance, spread_over, target_probabilities, ten

_WAYS = 4
_LARGE_DOUBT_SHARE = 0.6
_AS_SURE = 0.05  # nearer than this to the wished probability is as sure as wished


def balance(
    formula: Formula,
    library: Library,
    settings: Settings = Settings(),  # noqa: B008 - frozen
    wish: Wish = Wish(),  # noqa: B008 - frozen
    *,
    saved: Formula | None = None,
    ways: int = _WAYS,
    on_progress: Progress = lambda _: None,
) -> BalanceAnswer:
    """Bring a formula into its targets. A pure function: the same wish gives the same answer.

    Args:
        formula: as it stands.
        library: the ingredients.
        settings: the kitchen's choices.
        wish: targets, limits and freedoms.
        saved: the last saved version: weight, rails and what to lead back to are measured against it.
        ways: how many different answers at most.
        on_progress: is told the progress, 0 to 1.

    Returns:
        Solutions, or the limits that conflict.

    Raises:
        FormulaError: when the wish cannot be meant; ``check_wish`` says how.
    """
    check_wish(wish, [line.id for line in formula.lines])
    problem = BalanceProblem(formula, library, settings, wish, saved=saved)
    stop = _cannot_begin(problem)
    if stop:
        return stop
    start = check_by_model(problem, problem.start)
    if not start.missed:
        return BalanceAnswer(
            status="fits", text=Message("balancing-all-targets-are-already-met"), started=_grams(problem)
        )
    on_progress(0.1)
    shaped = as_shaped(problem)
    solved = settled_in(shaped)
    on_progress(0.35)
    teller = Teller(problem, start)
    original = Answer(shaped=shaped, verdict=solved.verdict, met=solved.met)
    others = in_other_shapes(other_shapes(shaped))
    answers = different_ways(shaped, solved, ways, on_progress) if solved.met else []
    answers += [answer for answer in others if answer.met]
    if not answers:
        return _nearest(min((original, *others), key=lambda a: (round(a.verdict.violation, 5), a.cost)), teller)
    pool = named(answers, ways)
    return BalanceAnswer(
        status="settled",
        text=_text(pool[0][1]),
        ways=tuple(teller.way(name, answer) for name, answer in pool),
        surer=_surer(pool[0][1].problem, pool[0][1].verdict),
        started=_grams(problem),
    )


def _grams(problem: BalanceProblem) -> dict[str, float]:
    return {slot.id: slot.start for slot in problem.slots if slot.start > 0}


def _cannot_begin(problem: BalanceProblem) -> BalanceAnswer | None:
    """Where there is nothing to settle: an empty bowl, no line that may move, or another bread."""

    def stopped(status: Status, text: Wording) -> BalanceAnswer:
        return BalanceAnswer(status=status, text=text)

    if problem.original.batch.dough_g <= 0 or len(problem.original.inside.lines) < 2:
        return stopped("nothing", Message("balancing-no-dough-to-balance-yet"))
    movable = [slot for slot in problem.slots if slot.free and not slot.new]
    if not movable:
        return stopped("nothing", Message("balancing-all-ingredients-are-locked-unlock"))
    bases = [s for s in problem.slots if s.role in ("base", "fibre") and s.start > 0]
    if (
        bases
        and all(s.gone for s in bases)
        and not any(s.new and s.role == "base" and s.most > 0 for s in problem.slots)
    ):
        return stopped("begin", Message("balancing-that-would-leave-no-flour"))
    return _another_bread(problem)


def _another_bread(problem: BalanceProblem) -> BalanceAnswer | None:
    whole = problem.reference.batch.dough_g
    for role, share, name in (("egg", constant("egg_kept"), "egg"), ("cheese", constant("cheese_kept"), "cheese")):
        slots = [s for s in problem.slots if s.role == role and s.reference_g > 0]
        had = sum(s.reference_g for s in slots)
        remaining = sum(s.reference_g for s in slots if not s.gone)
        carries = had > constant("egg_batter_from") * whole
        back = any(s.role == role and s.new and s.most > 0 for s in problem.slots)
        if carries and had - remaining > share * had and not back:
            text = Message(
                "balancing-is-of-this-dough-and", name=name.capitalize(), had=Quantity(100 * had / whole, "%", digits=0)
            )
            return BalanceAnswer(status="begin", text=text)
    gel = [s for s in problem.slots if "psyllium" in s.material.flags and s.reference_g > 0]
    if gel and all(s.gone for s in gel) and sum(s.reference_g for s in gel) > constant("psyllium_dough") * whole:
        text = Message("balancing-psyllium-replaces-the-gluten-in")
        return BalanceAnswer(status="begin", text=text)
    return None


def _nearest(answer: Answer, teller: Teller) -> BalanceAnswer:
    problem, verdict, start = answer.problem, answer.verdict, answer.shaped.start
    present = start.figures.consistency if start.figures else None
    clash = (*_shapes_that_would_do(answer.shaped), *conflict_at(problem, verdict.grams, present))
    way = teller.way("nearest", answer)
    missed = Joined(missed_texts(problem, verdict), ", ")
    moves = _moves(problem, verdict)
    return BalanceAnswer(
        status="nearest",
        text=Message("balancing-not-all-targets-can-be"),
        ways=(way,) if way.changes or way.shape else (),
        nearest=Message("balancing-closest-result", missed=missed),
        clash=_sorted(clash),
        moves=moves,
        started=_grams(problem),
    )


def _shapes_that_would_do(original: Shaped) -> Iterator[Relaxation]:
    """Other pieces in which all could be met, where the wish does not allow them yet."""
    wish = original.problem.wish
    labels = {"pieces": Message("balancing-the-number-of-pieces"), "thickness": Message("balancing-the-thickness")}
    for key, text in labels.items():
        free = wish.with_changes(may_change_pieces=key == "pieces", may_change_thickness=key == "thickness")
        if getattr(wish, f"may_change_{key}"):
            continue
        answer = next((a for a in in_other_shapes(other_shapes(original, free)) if a.met), None)
        if answer is not None:
            yield Relaxation(
                text=text,
                kind="shape",
                key=key,
                price=Message("balancing-would-work", shape_name=shape_name(answer.shaped)),
            )


def _sorted(clash: Sequence[Relaxation]) -> tuple[Relaxation, ...]:
    """Return what would do comes first, and of that the targets: what the baker asked for is hers to give."""
    return tuple(
        sorted(clash, key=lambda relax: (not relax.enough, ("shape", "target", "handling", "rail").index(relax.kind)))
    )


def _moves(problem: BalanceProblem, verdict: ModelCheck) -> tuple[Wording, ...]:
    """Return what helps and is no gram: minutes and degrees for the handling, another tin for the thickness."""
    if "thickness" in verdict.missed:
        return (Message("balancing-use-a-wider-loaf-pan"),)
    if "handling" not in verdict.missed and "crumbly" not in verdict.missed:
        return ()
    dough = problem.at(verdict.grams)
    forecast = dough.handling
    if forecast is None:
        return ()
    target_class = problem.wish.handling or forecast.target_low
    moves = []
    point = next((p for p in forecast.minutes if p.class_name == target_class), None)
    if point is not None and abs(point.minutes - forecast.rest_min) > 1:
        moves.append(
            Message(
                "balancing-after-min-of-rest",
                target_class=target_class,
                minutes=Quantity(point.minutes, "min", digits=0),
            )
            if point.minutes
            else Message("balancing-right-after-mixing-without-a", target_class=target_class)
        )
    warm = next((p for p in forecast.degrees if p.class_name == target_class), None)
    if warm is not None and abs(warm.temperature_c - forecast.temperature_c) > 3:
        moves.append(
            Message(
                "balancing-at-c", target_class=target_class, temperature=Quantity(warm.temperature_c, "C", digits=0)
            )
        )
    return tuple(moves)


def _text(answer: Answer) -> Wording:
    count = len(line_changes(answer.problem, answer.verdict.grams)) + len(answer.shaped.changes)
    return Message("balancing-every-target-into-range", count=count)


def _surer(problem: BalanceProblem, verdict: ModelCheck) -> Wording:
    """How sure it could be made where that is less than was wished, and what would do more than any edit."""
    return Joined((_less_sure(problem, verdict), _whose_doubt(problem, verdict)))


def _less_sure(problem: BalanceProblem, verdict: ModelCheck) -> Wording:
    if not problem.wish.margin or not problem.targets:
        return ""
    reached = min((sure.probability for sure in target_probabilities(problem.at(verdict.grams))), default=1.0)
    wished = chance(-problem.wish.margin, 1.0, None, 0.0)
    if reached >= wished - _AS_SURE:
        return ""
    return Message("balancing-the-best-certainty-found-is", ten=ten(reached))


def _whose_doubt(problem: BalanceProblem, verdict: ModelCheck) -> Wording:
    """Return the one flour that is most of a target's doubt: its own label would do more than any edit."""
    for key in problem.targets:
        if key not in problem.base.ratios_of:
            continue
        name, share = spread_over(problem, verdict.grams, key)
        slot = next((s for s in problem.slots if s.name == name), None)
        from_pack = slot is not None and slot.material.name != slot.name
        if share >= _LARGE_DOUBT_SHARE and not from_pack:
            return Message(
                "balancing-add-the-label-of-your",
                name=name.partition(",")[0].lower(),
                share=Quantity(100 * share, "%", digits=0),
            )
    return ""
