"""Tasks before the oven: what is a formula of its own, raw vegetable, weighing, melting, mixing."""

from __future__ import annotations

from substrata.base.messages.message import Message
from substrata.base.tables.table_reader import constant
from substrata.evaluation.forecasts.preparation_forecast import plan_preparation
from substrata.process.preparation.vegetable_stages import VegetableDrying
from substrata.scheduling.tasks.kitchen_things import MIXER
from substrata.scheduling.tasks.task_list import TaskList, plan_windows, work_rows

_DRY_USES = {"microwave": "microwave", "cook": "plate", "pan": "plate"}


class PreparationTasks:
    """Adds what is done before a dough is mixed, and the mixing."""

    def __init__(self, tasks: TaskList) -> None:
        self.tasks = tasks

    def add(self) -> str:
        """Add them all and return the task of mixing."""
        wet = [*self._vegetables(), *self._parts()]
        tasks = self.tasks
        weigh = tasks.add_by_hand(
            "weigh",
            "weigh",
            Message("preparation-tasks-weigh-ingredients-for", formula_name=tasks.dough.formula.name),
            len(tasks.steps("weigh")),
            "weigh",
        )
        return self._mix(wet, weigh)

    def _parts(self) -> list[str]:
        """Return what is a formula of its own is made before it is mixed in."""
        tasks = []
        for line in self.tasks.dough.formula.lines:
            if line.part is not None and line.grams:
                count = len(line.part.formula.lines)
                usual, low, high = (
                    a + b
                    for a, b in zip(
                        self.tasks.work_minutes("weigh", count), self.tasks.work_minutes("mix", 1), strict=True
                    )
                )
                text = Message("preparation-tasks-make-the", formula_name=line.part.formula.name)
                steps = (f"part:{line.id}",)
                tasks.append(
                    self.tasks.add(f"part:{line.id}", "prep", text, usual, low, high, hands="all", steps=steps)
                )
        return tasks

    def _vegetables(self) -> list[str]:
        """Raw vegetable: grated, dried, squeezed; returns what mixing waits for."""
        cards = (task.vegetable for task in plan_preparation(self.tasks.dough).tasks)
        return [self._vegetable(card) for card in cards if card is not None and card.steps]

    def _vegetable(self, card: VegetableDrying) -> str:
        name = card.name.partition(",")[0].lower()
        steps = [
            step
            for step in self.tasks.run.steps
            if step.id.startswith((f"raw:{card.line}", f"dry:{card.line}", f"dried:{card.line}"))
        ]
        weight = card.start_g * self.tasks.batches / 100
        usual, low, high = self.tasks.work_minutes("grate", weight)
        before = self.tasks.add(
            f"grate:{card.line}",
            "prep",
            Message("preparation-tasks-rice-or-shred-the", name=name),
            usual,
            low,
            high,
            hands="all",
            steps=(steps[0].id,),
        )
        for number, act in enumerate(card.steps, 1):
            task_id = f"dry:{card.line}:{number}"
            text = next((step.text for step in steps if step.id == task_id), act.act)
            if act.act == "squeeze":
                minutes = self.tasks.work_minutes("squeeze", weight)
                task = self.tasks.add(
                    task_id,
                    "prep",
                    Message("preparation-tasks-parts", text=text, name=name),
                    *minutes,
                    hands="all",
                    steps=(task_id,),
                )
            else:
                most = max(act.minutes, 1.0)
                uses = (_DRY_USES[act.act],) if act.act in _DRY_USES else ()
                task = self.tasks.add(
                    task_id, "dry", Message("preparation-tasks-parts", text=text, name=name), most, 0.85 * most, 1.2 * most,
                    hands="ends", head=1, tail=1, uses=uses, steps=(task_id,),
                )  # fmt: skip
            self.tasks.lag(before, task)
            before = task
        return before

    def _mix(self, wet: list[str], weigh: str) -> str:
        melted = self.tasks.melts
        steps = tuple(step.id for step in self.tasks.steps("mix") if step.id != "melt")
        before = weigh
        if melted:
            burst = next(step for step in self.tasks.run.steps if step.id == "melt")
            usual = (burst.minutes or 2) * max(self.tasks.batches, 1) + work_rows()["melt", ""].number_in("minutes", 0)
            before = self.tasks.add(
                "melt",
                "melt",
                burst.text,
                usual,
                0.85 * usual,
                1.2 * usual,
                hands="all",
                uses=("microwave",),
                steps=("melt",),
            )
            self.tasks.lag(weigh, before)
        by_machine = (
            self.tasks.dough.kind == "batter"
            or self.tasks.dough.inside.dough_g * self.tasks.batches > constant("by_machine_from_g")
        )
        mix = self.tasks.add(
            "mix",
            "mix",
            Message("preparation-tasks-mix", formula_name=self.tasks.dough.formula.name),
            *self.tasks.work_minutes("mix", 1),
            hands="all",
            steps=steps,
            uses=(MIXER,) if by_machine else (),
        )
        self.tasks.lag(
            before,
            mix,
            most=plan_windows()["melted"][0] if melted else None,
            reason=plan_windows()["melted"][1] if melted else "",
        )
        for task in wet:
            self.tasks.lag(task, mix, most=plan_windows()["squeezed"][0], reason=plan_windows()["squeezed"][1])
        return mix
