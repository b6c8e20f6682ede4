"""What is known of one real oven: how it differs from the house's model, learned from its bakes (``inference/calibration/oven_block.py``)."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from substrata.base.messages.message import Message, Wording
from substrata.base.messages.quantity import Quantity
from substrata.base.tables.table_reader import constant
from substrata.base.uncertainty import SDS_IN_HALF_90
from substrata.process.baking.simulation.oven_constants import oven_number

_UNKNOWN = Message("oven-profile-an-unknown-oven")


@dataclass(frozen=True, kw_only=True)
class OvenProfile:
    """How an oven differs from the model, as one joint estimate: its numbers belong together."""

    name: Wording = _UNKNOWN
    offset_k: float = 0.0  # really, over the setting
    offset_sd: float = oven_number("oven_offset_sd")
    convection: float = 1.0  # factor of the heat that moving air brings
    thickness: float = 1.0  # factor of the thickness of what is baked in it, beside what is written
    browning: float = 1.0  # factor of colour
    bakes: int = 0  # that stand behind it
    altitude_m: float = 0.0  # where it stands

    @property
    def half_90_k(self) -> float:
        """90 % half-range of the offset, K."""
        return SDS_IN_HALF_90 * self.offset_sd

    @property
    def text(self) -> Wording:
        """The oven in words."""
        if not self.bakes:
            return Message("oven-profile-unknown-c", name=self.name, half_90_k=Quantity(self.half_90_k, "K", digits=0))
        side = "hot" if self.offset_k > 0 else "cool"
        bakes = Message("oven-profile-bake") if self.bakes == 1 else Message("oven-profile-bakes", bakes=self.bakes)
        return Message(
            "oven-profile-c-from",
            name=self.name,
            offset_k=Quantity(abs(self.offset_k), "K", digits=0),
            side=side,
            half_90_k=Quantity(self.half_90_k, "K", digits=0, bare=True),
            bakes=bakes,
        )


def heating_minutes(to_c: float) -> int:
    """Return the minutes in which a cold oven reaches a temperature, °C: the one heating rate of protocol and plan."""
    return ceil((to_c - constant("cold_oven_c")) / constant("oven_heats_k_min"))
