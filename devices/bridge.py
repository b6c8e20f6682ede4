"""The bridge: reads a scale and a probe, simulated or real, and tells the newest reading with its age. A dead device is told as such.

A device is a serial address that pyserial knows: ``socket://127.0.0.1:7101``, ``/dev/ttyUSB0``, ``COM3``. It is opened when it is
first asked for, by a thread of its own, and left alone when nobody has asked for a while.
"""

from __future__ import annotations

import contextlib
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

import serial

from devices.lines import ProbeLine, WeightLine, probe_line, weight_line

_T = TypeVar("_T")
DEAD_S = 3.0  # silence after which a device is called dead
_REST_S, _AGAIN_S, _READ_S = 30.0, 1.0, 0.5


@dataclass(frozen=True, kw_only=True)
class Latest(Generic[_T]):
    """The newest reading of a device."""

    reading: _T | None
    age_s: float | None  # None where there never was one
    alive: bool


class Device(Generic[_T]):
    """One serial line."""

    def __init__(self, address: str, read: Callable[[str], _T | None], key: Callable[[_T], str] = lambda _: "") -> None:
        self.address, self._read, self._key = address, read, key
        self._newest: dict[str, tuple[float, _T]] = {}
        self._asked = 0.0
        self._lock = threading.Lock()
        self._thread: threading.Thread | None = None
        self._line: Any = None

    def latest(self, key: str = "") -> Latest[_T]:
        """Return the newest reading; the first call opens the line."""
        self._wake()
        with self._lock:
            newest = self._newest.get(key)
        if newest is None:
            return Latest(reading=None, age_s=None, alive=False)
        age = time.monotonic() - newest[0]
        return Latest(reading=newest[1], age_s=age, alive=age < DEAD_S)

    def say(self, text: str) -> bool:
        """Write a line to the device; False where it is not there."""
        self._wake()
        for _ in range(20):
            line = self._line
            if line is not None:
                with contextlib.suppress(serial.SerialException, OSError):
                    line.write(f"{text}\n".encode("ascii"))
                    return True
            time.sleep(0.05)
        return False

    def _wake(self) -> None:
        self._asked = time.monotonic()
        with self._lock:
            if self._thread is None or not self._thread.is_alive():
                self._thread = threading.Thread(target=self._run, name=f"device {self.address}", daemon=True)
                self._thread.start()

    def _run(self) -> None:
        while time.monotonic() - self._asked < _REST_S:
            try:
                with serial.serial_for_url(self.address, timeout=_READ_S) as line:
                    self._line = line
                    self._listen(line)
            except (serial.SerialException, OSError, ValueError):
                time.sleep(_AGAIN_S)
            finally:
                self._line = None

    def _listen(self, line: Any) -> None:
        while time.monotonic() - self._asked < _REST_S:
            raw = line.readline()
            if not raw:
                continue
            reading = self._read(raw.decode("ascii", "ignore").strip())
            if reading is not None:
                with self._lock:
                    self._newest[self._key(reading)] = time.monotonic(), reading


class Bridge:
    """A kitchen's scale and probe."""

    def __init__(self, scale: str, probe: str) -> None:
        self.scale: Device[WeightLine] | None = Device(scale, weight_line) if scale else None
        self.probe: Device[ProbeLine] | None = Device(probe, probe_line, lambda line: line.channel) if probe else None
