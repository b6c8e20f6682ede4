"""What faults read: differences between the figures of a run and the marks of its formula."""

from __future__ import annotations

import numpy as np

from substrata.base.tables.table_reader import constant
from substrata.inference.bake_figures import FLAGS, NONE, PLACE, Marks
from substrata.ingredients.library import Floats

READINGS = (
    "stiff", "unfilled", "bound_low", "soft", "tack", "wetter", "core_short", "psyllium_over", "gum_over", "whey_over",
    "score_gummy", "still_rising", "rise_lost", "rise_short", "bound_high", "strain", "set_short", "darker", "moisture",
    "topping", "edge_near_burnt", "face_near_burnt", "paler", "under_gold", "drier", "thinner", "thicker", "filling", "fat",
    "warm_nut", "score_eggy", "score_coconut", "score_crumbly", "salt_over", "salt_under", "soda_left", "powder",
    "acid_left", "bound_less", "spreads", "erythritol", *FLAGS,
)  # fmt: skip


def readings(x: Floats, base: Floats, marks: Marks) -> dict[str, Floats]:
    """Return what faults read, of any number of runs at once.

    Args:
        x: figures of the runs, shape (…, figures).
        base: figures as written, shape (figures,).
        marks: of the dough as it is written.

    Returns:
        By name, each of shape (…).
    """

    def f(name: str) -> Floats:
        result: Floats = x[..., PLACE[name]]
        return result

    def r(name: str) -> float:
        return float(base[PLACE[name]])

    none = np.full(x.shape[:-1], NONE)

    def over(name: str, bound: float | None) -> Floats:
        return f(name) - bound if bound is not None else none

    def share(name: str, bound: float | None, sign: int) -> Floats:
        return sign * (f(name) - bound) / bound if bound else none

    wet = f("moisture") - r("moisture")
    # A crust that is baked nearly dry does not get soggy by a little more water.
    least = 0.0 if marks.cracker or marks.cookie else max(constant("moist_crumb") - r("moisture"), 0.0)
    return {
        "stiff": f("consistency") - marks.high,
        "unfilled": 1 - f("filled"),
        "bound_low": share("load", marks.load_low, -1),
        "bound_high": share("load", marks.load_high, 1),
        "bound_less": share("load", r("load"), -1),
        "soft": marks.low - f("consistency"),
        "tack": f("tack"),
        "wetter": wet - least,
        "drier": -wet,
        "moisture": f("moisture") if marks.cracker or marks.topped else none,
        "core_short": marks.target_core_c - f("core")
        if marks.crumb
        else np.minimum(marks.target_core_c - f("core"), 20.0),
        "psyllium_over": f("psyllium") - marks.psyllium_cap,
        "gum_over": f("gum") - marks.gum_cap,
        "whey_over": f("whey") - marks.whey_cap,
        "score_gummy": f("gummy"),
        "score_eggy": f("eggy"),
        "score_coconut": f("coconut"),
        "score_crumbly": f("crumbly"),
        "still_rising": f("later") - f("consistency"),
        "rise_lost": r("rise") - f("rise"),
        "rise_short": marks.dense_below - f("rise") if marks.dense_below is not None else none,
        "strain": f("strain") if marks.crumb else none,
        "set_short": marks.heat_set_least - f("heat_set") if marks.heat_set_least else none,
        "darker": r("top") - f("top"),
        "paler": f("top") - r("top"),
        "under_gold": f("top") - marks.gold,
        "edge_near_burnt": marks.burnt + 5 - f("edge"),
        "face_near_burnt": marks.burnt + 5 - np.minimum(f("top"), f("bottom")),
        "thinner": 1 - f("thickness"),
        "thicker": f("thickness") - 1,
        "topping": f("topping"),
        "filling": f("filling"),
        "fat": f("fat"),
        "warm_nut": f("temperature") - 33.0 if marks.nut else none,
        "salt_over": over("salt", marks.salt_high),
        "salt_under": marks.salt_low - f("salt") if marks.salt_low is not None else none,
        "soda_left": f("soda_left"),
        "powder": f("powder"),
        "acid_left": f("acid_left"),
        "spreads": 3.05 - f("warm") if marks.cookie else none,
        "erythritol": f("erythritol"),
        **{flag: f(flag) for flag in FLAGS},
    }
