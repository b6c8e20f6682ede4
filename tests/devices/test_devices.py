"""Devices: lines as scales print them, a simulated scale that behaves like one, and a bridge that survives its death."""

import json
import socket
import subprocess
import sys
import time
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from devices.bridge import Bridge, Device
from devices.lines import probe_line, weight_line
from devices.physics import CAPACITY_G, ProbePhysics, ScalePhysics


@pytest.mark.parametrize(
    ("text", "grams", "stable"),
    [
        # Forms in which bench scales print (common practice): header, sign, padding, dot or comma, unit.
        ("ST,GS,+  160.4 g", 160.4, True),
        ("US,GS,+  160.4 g", 160.4, False),
        ("ST,NT,-    2.0 g", -2.0, True),
        ("  160.4 g", 160.4, True),
        ("ST GS 0,160 kg", 160.0, True),
        ("5.64 oz", 159.8913, True),
        ("st,gs,1.5lb", 680.3886, True),
    ],
)
def test_lines_of_scales(text, grams, stable):
    found = weight_line(text)
    assert found.grams == pytest.approx(grams, abs=0.001)
    assert found.stable is stable


@pytest.mark.parametrize(
    "text", ["", "hello", "ST,GS,+ g", "160.4", "160.4 stones", "ST,GS,+1e9 g", "1" * 200 + " g", "\x00\x07 12 g?"]
)
def test_what_is_no_weight_is_no_reading(text):
    assert weight_line(text) is None


def test_overload_and_probes():
    assert weight_line("OL").overload
    assert weight_line("OL,GS,+9999.9 g").grams is None
    assert probe_line("CORE 64.2 C").celsius == 64.2
    assert probe_line("oven 350 F").celsius == 176.7
    assert probe_line("CORE ----").celsius is None
    assert probe_line("SOUP 10 C") is None


@given(st.text(max_size=120))
def test_no_line_breaks_the_reader(text):
    weight_line(text)
    probe_line(text)


@given(st.floats(-4999, 4999), st.sampled_from(["g", "kg", "oz", "lb"]), st.sampled_from([".", ","]))
def test_every_printed_weight_is_read_back(grams, unit, point):
    size = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}[unit]
    text = f"ST,GS,{'-' if grams < 0 else '+'}{abs(grams) / size:.4f} {unit}".replace(".", point)
    assert weight_line(text).grams == pytest.approx(grams, abs=0.06 * size / 100 + 0.05)


def settled(scale, seconds=12.0):
    for _ in range(int(seconds / 0.125)):
        scale.step(0.125)
    return weight_line(scale.line())


def test_a_bowl_fills_as_it_is_poured_and_comes_to_rest():
    scale = ScalePhysics()
    scale.pour(160, 4)
    scale.step(1.0)
    assert not weight_line(scale.line()).stable
    done = settled(scale)
    assert done.stable
    assert done.grams == pytest.approx(160, abs=0.6)


def test_tare_chain_and_creep():
    scale = ScalePhysics()
    scale.pour(400, 2)
    settled(scale)
    scale.tare()
    assert settled(scale).grams == pytest.approx(0, abs=0.6)
    scale.pour(36, 2)
    assert settled(scale).grams == pytest.approx(36, abs=0.8)
    scale.pour(2 * CAPACITY_G, 1)
    assert settled(scale).overload


def test_a_probe_follows_with_a_lag_and_can_be_pulled_out():
    probe = ProbePhysics()
    probe.follow([(0, 21), (600, 96)], [(0, 180)])
    probe.step(300)
    core, oven = (probe_line(text).celsius for text in probe.lines())
    assert core == pytest.approx(58.5, abs=4)
    assert oven == pytest.approx(180, abs=3)
    probe.plugged = False
    assert probe_line(probe.lines()[0]).celsius is None


def free():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


@pytest.fixture
def ports():
    found = free(), free()

    def start():
        return subprocess.Popen(
            [sys.executable, "-m", "devices.simulate", "--scale", str(found[0]), "--probe", str(found[1])]
        )

    running = [start()]
    yield found, running, start
    for process in running:
        process.kill()
        process.wait()


def wait_for(check, seconds=15.0):
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        found = check()
        if found:
            return found
        time.sleep(0.05)
    raise AssertionError("it never came")


def test_the_bridge_reads_tares_pours_and_survives_a_scale_that_dies_in_mid_pour(ports):
    (scale_port, probe_port), running, start = ports
    bridge = Bridge(f"socket://127.0.0.1:{scale_port}", f"socket://127.0.0.1:{probe_port}")
    wait_for(lambda: bridge.scale.latest().alive)
    assert bridge.scale.say("P 120 1")
    wait_for(lambda: (r := bridge.scale.latest().reading) and r.stable and abs(r.grams - 120) < 1)
    assert bridge.scale.say("T")
    wait_for(lambda: abs(bridge.scale.latest().reading.grams) < 1)
    assert bridge.probe.say('{"core": [[0, 50]], "oven": [[0, 180]]}')
    wait_for(lambda: (r := bridge.probe.latest("oven").reading) and r.celsius and r.celsius > 60)
    bridge.scale.say("P 300 20")
    running[0].kill()
    running[0].wait()
    dead = wait_for(lambda: (found := bridge.scale.latest()) and not found.alive and found, 10)
    assert dead.reading is not None  # the last number stays, and its age is told
    assert dead.age_s >= 3
    running.append(start())
    wait_for(lambda: bridge.scale.latest().alive)


def test_a_device_that_is_not_there_is_told_and_nothing_waits_for_it():
    lost = Device(f"socket://127.0.0.1:{free()}", weight_line)
    began = time.monotonic()
    assert not lost.latest().alive
    assert time.monotonic() - began < 1
    assert lost.say("T") is False


@pytest.mark.parametrize(
    "example", json.loads(Path(__file__).with_name("weight_lines.json").read_text(encoding="utf8"))
)
def test_the_bench_reads_the_lines_that_the_browser_reads(example):
    """The same examples are read by the page's own reader (``scaleLines.test.ts``)."""
    found = weight_line(example["line"])
    if example.get("overload"):
        assert (found.overload, found.grams) == (True, None)
    elif "grams" not in example:
        assert found is None
    else:
        assert found.grams == pytest.approx(example["grams"], abs=1e-4)
        assert found.stable is example["stable"]
