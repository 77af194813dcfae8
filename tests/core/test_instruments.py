"""What instruments send: one line of a gauge, the answers of a machine's agent, and what is missing between two of them."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest

from cutting.errors import CuttingError
from cutting.traces.agent import lost_between, read_streams, stretches
from cutting.traces.gauge_line import read_gauge_line


@pytest.mark.parametrize(
    ("line", "unit", "value"),
    [
        ("49.003 mm\r\n", "", 49.003),
        ("+49,003", "mm", 49.003),
        ("1.9292 in", "", 1.9292 * 25.4),
        ("-12 µm", "", -0.012),
        (" 0.0005 IN ", "in", 0.0127),
    ],
)
def test_a_line_of_a_gauge(line: str, unit: str, value: float) -> None:
    assert read_gauge_line(line, unit).value == pytest.approx(value)


@pytest.mark.parametrize("line", ["", "ERR 3", "49.003.1 mm", "49.003 mm 50.001 mm", "49.003 kg", "0x31", "1e5 mm", "٤٩ mm", "9" * 90])
def test_garbage_is_no_reading(line: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_gauge_line(line, "mm")
    assert refused.value.field == "reading"


def test_another_unit_than_it_was_paired_in_is_refused() -> None:
    with pytest.raises(CuttingError, match="set to in and was paired in mm"):
        read_gauge_line("1.9292 in", "mm")
    with pytest.raises(CuttingError, match="tells no unit"):
        read_gauge_line("49.003")


def document(rows: str, instance: str = "7", first: int = 1, after: int = 50, version: str = "1.4") -> str:
    return (
        f'<MTConnectStreams xmlns="urn:mtconnect.org:MTConnectStreams:{version}"><Header instanceId="{instance}" firstSequence="{first}" '
        f'lastSequence="{after - 1}" nextSequence="{after}"/><Streams><DeviceStream name="m"><ComponentStream component="Rotary"><Samples>'
        f"{rows}</Samples></ComponentStream></DeviceStream></Streams></MTConnectStreams>"
    )


def load(sequence: int, second: float, value: str) -> str:
    at = datetime(2026, 12, 2, 8, tzinfo=UTC) + timedelta(seconds=second)
    return f'<Load dataItemId="l" sequence="{sequence}" timestamp="{at:%Y-%m-%dT%H:%M:%S.%f}Z">{value}</Load>'


def test_observations_come_in_order_whatever_the_version_calls_its_elements() -> None:
    older = document(load(3, 2, "61") + load(1, 0, "60") + '<SpindleSpeed sequence="2" timestamp="2026-12-02T08:00:01Z">924</SpindleSpeed>')
    newer = document('<RotaryVelocity sequence="2" timestamp="2026-12-02T08:00:01Z">924</RotaryVelocity>', version="2.2")
    found = read_streams(older)
    assert [(one.name, one.value) for one in found.observations] == [("load", "60"), ("speed", "924"), ("load", "61")]
    assert [one.name for one in read_streams(newer).observations] == ["speed"]
    assert (found.instance, found.first, found.after) == ("7", 1, 50)


def test_what_is_not_available_is_a_gap_and_not_a_zero() -> None:
    rows = "".join(load(k, second, value) for k, (second, value) in enumerate([(0, "60"), (2, "62"), (5, "UNAVAILABLE"), (9, "61")], 1))
    parts = stretches(read_streams(document(rows)).observations, "load", datetime(2026, 12, 2, 8, 0, 12, tzinfo=UTC))
    times = [[(at.second, value) for at, value in part] for part in parts]
    assert times == [[(0, 60.0), (2, 62.0), (5, 62.0)], [(9, 61.0), (12, 61.0)]]


def test_a_gap_between_two_looks_is_told() -> None:
    one = read_streams(document("", first=1, after=50))
    assert lost_between(one, read_streams(document("", first=50, after=90))) == ""
    assert lost_between(one, read_streams(document("", first=1, after=90))) == ""
    assert lost_between(one, read_streams(document("", first=53, after=90))).startswith("3 observations")
    assert "started anew" in lost_between(one, read_streams(document("", instance="8", first=1, after=5)))


@pytest.mark.parametrize(
    "text",
    [
        "",
        "<html/>",
        "{}",
        "<MTConnectStreams/>",
        "<!DOCTYPE MTConnectStreams>" + document(""),
        '<!DOCTYPE x [<!ENTITY a "b">]>' + document(""),
        document("").replace("firstSequence", "first"),
        document('<Load sequence="x" timestamp="2026-12-02T08:00:01Z">1</Load>'),
        '<MTConnectError><Errors><Error errorCode="OUT_OF_RANGE">from is too old</Error></Errors></MTConnectError>',
    ],
)
def test_what_is_no_answer_of_an_agent_is_refused(text: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_streams(text)
    assert refused.value.field == "agent"
