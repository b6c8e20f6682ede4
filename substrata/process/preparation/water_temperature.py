"""How warm the water has to be for a wanted dough temperature: the heat balance of the dough, turned round."""

from __future__ import annotations

from dataclasses import dataclass

from substrata.base.tables.table_reader import constant
from substrata.process.rheology.dough_temperature import DoughHeat


@dataclass(frozen=True, kw_only=True)
class WaterTemperature:
    """The water's thermometer."""

    target_dough_c: float
    water_c: float  # what would give it
    within: bool  # whether it may be used
    limit_c: float  # no warmer: boiling, or where egg sets
    dough_at_limit_c: float  # dough temperature with the water at its limit
    dough_c: float  # dough temperature with the water as it is now


def water_for(heat: DoughHeat, line: str, target_c: float, *, room_c: float, has_egg: bool) -> WaterTemperature:
    """Temperature of one line that brings the dough to a wanted one.

    Args:
        heat: the dough's heat balance as it is now.
        line: the line of water.
        target_c: of the dough after mixing.
        room_c: of the kitchen, which takes a share of what the dough is above it.
        has_egg: then the water stays below where egg sets.

    Returns:
        The temperature, and whether it can be had.
    """
    line_heat = next(result for result in heat.lines if result.line == line)
    retained = 1 - constant("mixing_heat_lost")
    mixed = room_c + (target_c - room_c) / retained
    now = room_c + (heat.temperature_c - room_c) / retained
    needed = line_heat.temperature_c + (mixed - now) / line_heat.share
    limit = constant("cold_egg") if has_egg else 95.0
    at_limit = now + line_heat.share * (limit - line_heat.temperature_c)
    return WaterTemperature(
        target_dough_c=target_c,
        water_c=needed,
        within=1.0 <= needed <= limit,
        limit_c=limit,
        dough_at_limit_c=room_c + retained * (at_limit - room_c),
        dough_c=heat.temperature_c,
    )
