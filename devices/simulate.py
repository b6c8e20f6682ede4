"""The simulated scale and probe: two serial lines over TCP, as common devices print them, and the words that drive them.

``python -m devices.simulate --scale 7101 --probe 7102``. A client that writes ``T`` tares, ``E`` empties, ``P 160 8`` pours 160 g in
8 s; on the probe's line ``U`` unplugs, ``I`` plugs in, and a JSON line ``{"core": [[s, °C], …], "oven": […]}`` is followed.
"""

from __future__ import annotations

import argparse
import asyncio
import contextlib
import json
import signal
from collections.abc import Callable

from devices.physics import ProbePhysics, ScalePhysics

_SCALE_S, _PROBE_S = 0.125, 0.5
_LONGEST = 200_000


async def serve(port: int, every_s: float, tick: Callable[[float], str], heard: Callable[[str], None]) -> None:
    """Print a device's lines to whoever listens, and hear what they write.

    Args:
        port: on loopback.
        every_s: between two prints.
        tick: lets so many seconds pass, and says what is printed.
        heard: a line from a client.
    """
    clients: set[asyncio.StreamWriter] = set()

    async def talk(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        clients.add(writer)
        try:
            while line := await reader.readline():
                with contextlib.suppress(ValueError, KeyError, TypeError):
                    heard(line.decode("ascii", "ignore").strip())
        except (ConnectionError, ValueError):
            pass
        finally:
            clients.discard(writer)
            writer.close()

    server = await asyncio.start_server(talk, "127.0.0.1", port, limit=_LONGEST)
    async with server:
        while True:
            await asyncio.sleep(every_s)
            output = (tick(every_s) + "\r\n").encode("ascii")
            for writer in list(clients):
                try:
                    writer.write(output)
                    await asyncio.wait_for(writer.drain(), 1.0)
                except (ConnectionError, TimeoutError):
                    clients.discard(writer)


def scale_heard(scale: ScalePhysics) -> Callable[[str], None]:
    """Return what a scale does when it is told something."""

    def heard(line: str) -> None:
        word, *rest = line.split()
        if word == "T":
            scale.tare()
        elif word == "E":
            scale.empty()
        elif word == "P":
            scale.pour(float(rest[0]), float(rest[1]))

    return heard


def probe_heard(probe: ProbePhysics) -> Callable[[str], None]:
    """Return what a probe does when it is told something."""

    def heard(line: str) -> None:
        if line in ("U", "I"):
            probe.plugged = line == "I"
        elif line.startswith("{"):
            message = json.loads(line)
            probe.follow(*([(float(s), float(c)) for s, c in message[channel]] for channel in ("core", "oven")))

    return heard


async def run(scale_port: int, probe_port: int) -> None:
    """Both, until they are stopped."""
    scale, probe = ScalePhysics(), ProbePhysics()

    def weigh(seconds: float) -> str:
        scale.step(seconds)
        return scale.line()

    def feel(seconds: float) -> str:
        probe.step(seconds)
        return "\r\n".join(probe.lines())

    await asyncio.gather(
        serve(scale_port, _SCALE_S, weigh, scale_heard(scale)), serve(probe_port, _PROBE_S, feel, probe_heard(probe))
    )


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--scale", type=int, default=7101)
    parser.add_argument("--probe", type=int, default=7102)
    options = parser.parse_args()
    loop = asyncio.new_event_loop()
    work = loop.create_task(run(options.scale, options.probe))
    for number in (signal.SIGINT, signal.SIGTERM):
        loop.add_signal_handler(number, work.cancel)
    with contextlib.suppress(asyncio.CancelledError):
        loop.run_until_complete(work)


if __name__ == "__main__":
    main()
