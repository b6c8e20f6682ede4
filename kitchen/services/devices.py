"""The scale and thermometers of a kitchen: those at this server, or the simulated ones that ship with the app.

They stand in one kitchen, which chose them by hand; in any other there are none. Only simulated ones are driven.
"""

import json
import random
from dataclasses import dataclass
from functools import lru_cache

from django.conf import settings
from django.db import transaction

from devices.bridge import Bridge
from kitchen.errors import Refused
from kitchen.models import Kitchen, Membership
from kitchen.services.access import record, require
from kitchen.services.run_advice import case_of
from substrata.process import run as baked

_MOST_G = 5_000.0
_OFF_G = 0.004  # share by which a simulated hand pours over or under
_OVEN_OFF_K = 9.0  # by which the simulated oven differs from its forecast


@dataclass(frozen=True, kw_only=True)
class ScaleReading:
    """What the scale shows."""

    present: bool  # a scale is set up
    alive: bool
    grams: float | None
    stable: bool
    overload: bool
    age_s: float | None


@dataclass(frozen=True, kw_only=True)
class ProbeReading:
    """What one probe shows."""

    alive: bool
    celsius: float | None


@dataclass(frozen=True, kw_only=True)
class DeviceReadings:
    """Everything at the bench."""

    scale: ScaleReading
    core: ProbeReading
    oven: ProbeReading
    simulated: bool


@lru_cache(maxsize=1)
def _bridge() -> Bridge:
    return Bridge(settings.BENCH_SCALE, settings.BENCH_PROBE)


_NO_DEVICES = Bridge("", "")


def _bridge_of(member: Membership) -> Bridge:
    """Return what listens to the devices of a kitchen; to none where it chose none, or other ones stand here."""
    kind = Kitchen.Devices.SIMULATED if settings.BENCH_SIMULATED else Kitchen.Devices.HERE
    return _bridge() if member.kitchen.devices == kind else _NO_DEVICES


def _simulated(member: Membership) -> bool:
    return member.kitchen.devices == Kitchen.Devices.SIMULATED and settings.BENCH_SIMULATED


def device_choices() -> list[tuple[str, str]]:
    """Return the devices that a kitchen of this server may choose, with their names."""
    choices = [Kitchen.Devices.NONE]
    if settings.BENCH_SCALE or settings.BENCH_PROBE:
        choices.append(Kitchen.Devices.SIMULATED if settings.BENCH_SIMULATED else Kitchen.Devices.HERE)
    return [(choice.value, str(choice.label)) for choice in choices]


@transaction.atomic
def choose_devices(member: Membership, devices: str) -> Kitchen:
    """Choose which scale and thermometers a kitchen reads: none, those at this server, or simulated ones.

    Returns:
        The changed kitchen.

    Raises:
        Refused: when there are no such devices, or they stand in another kitchen.
    """
    require(member, "devices.use")
    choices = [choice for choice, _ in device_choices()]
    if devices not in choices:
        raise Refused(
            "this server has no such devices",
            got=devices[:20],
            allowed=", ".join(filter(None, choices)) or "none",
            remedy="set SUBSTRATA_SCALE and SUBSTRATA_PROBE to their addresses",
            field="devices",
        )
    if devices and Kitchen.objects.filter(devices=devices).exclude(pk=member.kitchen_id).exists():
        raise Refused(
            "the devices stand in another kitchen",
            got=devices,
            allowed="one kitchen at a time",
            remedy="choose none there first",
            field="devices",
        )
    member.kitchen.devices = devices
    member.kitchen.save(update_fields=["devices"])
    record(member, "kitchen.devices", devices=devices)
    return member.kitchen


def readings(member: Membership) -> DeviceReadings:
    """Return the newest of every device of a kitchen."""
    bridge = _bridge_of(member)
    scale = bridge.scale.latest() if bridge.scale else None
    probes = {channel: bridge.probe.latest(channel) if bridge.probe else None for channel in ("core", "oven")}

    def probe(channel: str) -> ProbeReading:
        probe_reading = probes[channel]
        celsius = (
            probe_reading.reading.celsius if probe_reading and probe_reading.reading and probe_reading.alive else None
        )
        return ProbeReading(alive=bool(probe_reading and probe_reading.alive and celsius is not None), celsius=celsius)

    return DeviceReadings(
        scale=ScaleReading(
            present=scale is not None,
            alive=bool(scale and scale.alive),
            grams=scale.reading.grams if scale and scale.reading else None,
            stable=bool(scale and scale.reading and scale.reading.stable),
            overload=bool(scale and scale.reading and scale.reading.overload),
            age_s=scale.age_s if scale else None,
        ),
        core=probe("core"),
        oven=probe("oven"),
        simulated=_simulated(member),
    )


def say(member: Membership, act: str, grams: float = 0.0) -> bool:
    """Tare the scale; pour into it or empty it where it is simulated.

    Returns:
        True where a device took the command.

    Raises:
        Refused: when there is no scale, or the act is for a simulated one only.
    """
    require(member, "devices.use")
    scale = _bridge_of(member).scale
    if scale is None:
        raise Refused(
            "no scale is set up",
            got="nothing",
            allowed="a scale chosen on the page of the kitchen",
            remedy="type the weight",
        )
    if act == "tare":
        return scale.say("T")
    if act not in ("pour", "empty") or not _simulated(member):
        raise Refused("a scale does not do that", got=act[:20], allowed="tare", field="act")
    if act == "empty":
        return scale.say("E")
    if not 0 <= grams <= _MOST_G:
        raise Refused("this amount is too large", got=f"{grams:g} g", allowed=f"up to {_MOST_G:g} g", field="grams")
    poured = grams * (1 + random.gauss(0, _OFF_G))
    return scale.say(f"P {poured:.1f} {min(1.5 + grams / 120, 5):.1f}")


def follow(member: Membership, run_id: int) -> bool:
    """Let the simulated probe follow a run's bake, as its forecast has it and with an error of its own.

    Returns:
        True where a simulated probe follows.

    Raises:
        Refused: when the probe is a real one.
    """
    require(member, "devices.use")
    probe = _bridge_of(member).probe
    if probe is None or not _simulated(member):
        raise Refused(
            "only a simulated thermometer follows a bake",
            got="none",
            allowed="simulated devices, chosen for the kitchen",
        )
    case = case_of(member, run_id)
    ran = baked(case, cells=25, keep_s=30.0)
    hot = case.oven_c + case.offset_k + _OVEN_OFF_K
    core = [[round(60 * m), round(c, 1)] for m, c in zip(ran.minutes.tolist(), ran.core_c.tolist(), strict=True)]
    return probe.say(json.dumps({"core": core[:400], "oven": [[0, hot]]}))
