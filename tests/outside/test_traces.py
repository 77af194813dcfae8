"""Recorded traces: hidden truths found again within their intervals, growth against a library of statistics, files as they come."""

from __future__ import annotations

import json
import socket
import subprocess
import sys
import time
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
import statsmodels.api as sm

from cutting.errors import CuttingError
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.simulation import cutting_of
from cutting.traces.fit import fit_trace
from cutting.traces.growth import fit_growth
from cutting.traces.table import Trace, chosen_from, read_table, trace_of
from devices.dynamometer import BEFORE, samples, truth_of
from tests.core.holes import HOLE, STACK, numbers_of


def request_of(x: Numbers, hole: int = 1) -> dict[str, Any]:
    point, cutting = cutting_of(x)
    layers = [
        {"name": one.material.name, "near": float(x.layers.near[k]), "far": float(x.layers.far[k]), "force": float(cutting.force[k]),
         "margin": float(cutting.margin_share[k])}
        for k, one in enumerate(x.setup.layers)
    ]  # fmt: skip
    rate = float(np.ravel(x.feed_rate)[0])
    return {
        "point": vars(point),
        "back": cutting.back,
        "chisel_share": cutting.chisel_share,
        "feed_rate": rate,
        "hole": hole,
        "layers": layers,
    }


def as_trace(rows: list[dict[str, float]], rate: float) -> Trace:
    return Trace(
        *(np.array(values) for values in ([r["time"] * rate / 60 for r in rows], *([r[n] for r in rows] for n in ("thrust", "torque"))))
    )


@pytest.mark.parametrize("base", [STACK, HOLE], ids=["stack", "one metal"])
def test_the_devices_hidden_truth_is_found_again(base: dict[str, Any]) -> None:
    """Of 95 % intervals about nineteen in twenty hold the truth; none lies far outside."""
    x = numbers_of(base)
    asked = request_of(x)
    held, far, count = 0, 0.0, 0
    for seed in range(24):
        truth = truth_of(seed, [one["name"] for one in asked["layers"]])
        fit = fit_trace(as_trace(list(samples(asked, truth, seed)), asked["feed_rate"]), x)
        hidden = {f"force {name}": value for name, value in truth.force.items()}
        hidden |= {"chisel share": truth.chisel * x.setup.drill.chisel_share, "margin": truth.margin}
        for one in fit.parameters:
            count += 1
            held += one.low <= hidden[one.name] <= one.high
            half = (one.high - one.low) / 2
            far = max(far, abs(one.value - hidden[one.name]) / half)
            assert half < 0.35 * one.value + 0.25
        assert fit.shift == pytest.approx(BEFORE + truth.shift, abs=0.02)
        assert fit.thrust_residual == pytest.approx(truth.thrust_noise, rel=0.15)
        assert fit.explained > 0.99
    assert held / count > 0.88
    assert far < 2.2


def test_a_channel_that_is_not_nulled_teaches_the_same() -> None:
    """An offset and a slow drift of the amplifier belong to it, and are off what is laid over the prediction."""
    x = numbers_of(HOLE)
    asked = request_of(x)
    clean = as_trace(list(samples(asked, truth_of(3, [one["name"] for one in asked["layers"]]), 3)), asked["feed_rate"])
    off = replace(clean, thrust=clean.thrust + 80.0 + np.linspace(0, 25, len(clean.depth)), torque=clean.torque - 0.4)
    first, second = fit_trace(clean, x), fit_trace(off, x)
    for one, other in zip(first.parameters, second.parameters, strict=True):
        assert other.value == pytest.approx(one.value, rel=0.01, abs=0.01)
    before = second.depth < -0.3
    assert abs(float(second.thrust[before].mean())) < 3 * second.thrust_residual / np.sqrt(before.sum()) + 1.0
    assert abs(float(second.torque[before].mean())) < 0.03
    assert second.thrust.max() == pytest.approx(first.thrust.max(), rel=0.02)
    assert np.std(second.thrust - second.fitted_thrust) == pytest.approx(second.thrust_residual, rel=0.01)


def test_what_was_learned_makes_the_prediction_the_record() -> None:
    """The tables' thrust with what the fit teaches is the recorded one; other materials are left alone."""
    plain = numbers_of(STACK)
    asked = request_of(plain)
    truth = truth_of(11, [one["name"] for one in asked["layers"]])
    fit = fit_trace(as_trace(list(samples(asked, truth, 1)), asked["feed_rate"]), plain)
    force = {one.name.removeprefix("force "): one.value for one in fit.parameters if one.name.startswith("force ")}
    others = {one.name: one.value for one in fit.parameters}
    learned = {"force": force, "chisel_share": others["chisel share"], "margin": others["margin"]}
    taught = numbers_of({**STACK, "learned": learned})
    for k, layer in enumerate(plain.setup.layers):
        share = float(taught.lip_torque.ravel()[k] / plain.lip_torque.ravel()[k])
        assert share == pytest.approx(truth.force[layer.material.name], rel=0.02)
    steel = numbers_of({**HOLE, "learned": learned})
    assert float(steel.lip_torque.ravel()[0]) == pytest.approx(float(numbers_of(HOLE).lip_torque.ravel()[0]))


def test_growth_is_the_regression_of_a_library_of_statistics() -> None:
    """statsmodels 0.15, ordinary least squares of log(M/M1 − 1) on log N: the same line and the same 95 % intervals."""
    rng = np.random.default_rng(5)
    holes = np.array([5, 10, 20, 40, 60, 80, 100, 112])
    values = 2.0 * (1 + 0.01 * holes**0.7 * np.exp(rng.normal(0, 0.12, len(holes))))
    found = fit_growth(holes.tolist(), values.tolist(), 2.0)
    model = sm.OLS(np.log(values / 2.0 - 1), sm.add_constant(np.log(holes))).fit()
    (a_low, a_high), (b_low, b_high) = model.conf_int(0.05)
    assert (np.log(found.a), found.b) == pytest.approx(tuple(model.params))
    assert (np.log(found.a_low), np.log(found.a_high), found.b_low, found.b_high) == pytest.approx((a_low, a_high, b_low, b_high))
    assert found.holes_to(0.3) == pytest.approx((0.3 / found.a) ** (1 / found.b))
    assert 0.6 < found.b < 0.8


def test_growth_counts_the_holes_of_a_drill() -> None:
    """Learned growth stands before the law of wear: holes until the torque has grown to the worn drill's."""
    taught = numbers_of({**STACK, "learned": {"growth": [0.01, 0.7]}})
    assert float(taught.holes.ravel()[0]) == pytest.approx((0.3 / 0.01) ** (1 / 0.7), rel=1e-6)
    # a house that counts no wear leaves nothing to grow to: the law of wear stands
    sharp = {"house": {"wear_factor": 1.0}}
    assert numbers_of({**STACK, **sharp, "learned": {"growth": [0.01, 0.7]}}).holes == pytest.approx(numbers_of({**STACK, **sharp}).holes)


def recorded(along: str = "time [s];thrust [N];torque [N·cm]", lines: int = 60) -> str:
    rows = [f"{0.1 * k:.2f};{100.0 + k:.1f};{50.0 + k:.1f}" for k in range(lines)]
    return "\n".join([along, *rows]).replace(".", ",")


def test_a_file_is_read_as_it_comes() -> None:
    table = read_table(recorded())
    assert [(one.role, one.unit) for one in table.columns] == [("time", "s"), ("thrust", "N"), ("torque", "N·cm")]
    trace = trace_of(table, chosen_from(table, {}), 60.0)
    assert trace.depth[-1] == pytest.approx(5.9)  # 60 mm/min for 5.9 s
    assert trace.torque[0] == pytest.approx(0.5)
    inches = read_table("z (in),Fz kN,Mz in-lb\n" + "\n".join(f"{k / 100},{0.1},{10}" for k in range(30)))
    there = trace_of(inches, chosen_from(inches, {}), 60.0)
    assert (there.depth[-1], there.thrust[0], there.torque[0]) == pytest.approx((7.366, 100.0, 1.12985), rel=1e-4)
    other = read_table("A;B;C\n" + "\n".join(f"{k};1;2" for k in range(30)))
    named = chosen_from(
        other, {"along": "depth", "depth": "A", "depth_unit": "mm", "thrust": "C", "thrust_unit": "kN", "torque": "B", "torque_unit": "N·m"}
    )
    assert trace_of(other, named, 1.0).thrust[0] == 2000.0


@pytest.mark.parametrize(
    ("text", "field", "says"),
    [
        ("", "text", "0 lines"),
        ("time;thrust;torque\n1;2;3", "text", "1 lines of numbers"),
        (recorded().replace("107,0", "nan"), "text", "line 9"),
        (recorded().replace("107,0", "NaN"), "text", "line 9"),
        (recorded().replace("107,0", "hat"), "text", "line 9: 'hat'"),
        (recorded().replace("107,0;", ""), "text", "line 9: 2 values"),
        (recorded("time [furlong];thrust [N];torque [N·cm]"), "time_unit", "in which unit"),
        (recorded("time [s];x;torque [N·cm]"), "thrust", "which column"),
        (recorded("time [s];thrust [mm];torque [N·cm]"), "thrust_unit", "in which unit"),
        (recorded().replace("\n1,00;", "\n0,10;"), "time", "line 12: time runs backwards"),
        ("time;thrust", "text", "1 lines"),
    ],
)
def test_a_file_that_cannot_be_is_refused_by_line(text: str, field: str, says: str) -> None:
    def read() -> None:
        table = read_table(text)
        trace_of(table, chosen_from(table, {}), 60.0)

    with pytest.raises(CuttingError) as refused:
        read()
    assert refused.value.field == field
    assert says in refused.value.message


def test_a_record_of_air_teaches_nothing() -> None:
    x = numbers_of(HOLE)
    depth = np.linspace(0, 40, 300)
    air = np.random.default_rng(1).normal(0, 5, 300)
    air[150] = 100.0
    with pytest.raises(CuttingError, match="shows no cut"):
        fit_trace(Trace(depth, air, air / 1000), x)


@pytest.mark.parametrize(
    "changed", [{"force": {"C45": 9}}, {"margin": -1}, {"chisel_share": 7}, {"growth": [0.1]}, {"growth": [0, 1]}, {"hat": 1}]
)
def test_nothing_absurd_can_be_learned(changed: dict[str, Any]) -> None:
    with pytest.raises(CuttingError) as refused:
        numbers_of({**HOLE, "learned": changed})
    assert refused.value.field.startswith("learned")


def test_the_device_speaks_lines_over_its_cable() -> None:
    """A process of its own on the loopback: one request, samples, done; nonsense is answered, not fallen over."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    device = subprocess.Popen([sys.executable, "-m", "devices.dynamometer", "--port", str(port), "--seed", "3"])
    try:
        for attempt in range(60):
            try:
                socket.create_connection(("127.0.0.1", port), timeout=1).close()
                break
            except OSError:
                assert attempt < 59
                time.sleep(0.1)

        def say(line: str) -> list[dict[str, Any]]:
            with socket.create_connection(("127.0.0.1", port), timeout=20) as wire, wire.makefile("rwb") as stream:
                stream.write(line.encode() + b"\n")
                stream.flush()
                return [json.loads(text) for text in stream]

        x = numbers_of(HOLE, settings={"cutting_speed": "130 m/min", "feed_per_rev": "0.23 mm/rev"})
        first, later = (say(json.dumps(request_of(x, hole))) for hole in (1, 300))
        assert first[-1] == {"done": True}
        assert max(one["torque"] for one in later[:-1]) > 1.1 * max(one["torque"] for one in first[:-1])
        assert "error" in say("hat")[0]
        assert "error" in say('{"layers": []}')[0]
        assert say(json.dumps(request_of(x)))[-1] == {"done": True}
    finally:
        device.terminate()
        device.wait(5)
