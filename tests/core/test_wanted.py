"""Where no tool makes a feature, what would: its kind and the sizes that the feature asks of it."""

from __future__ import annotations

from typing import Any

import pytest

from cutting.advice.wanted import wanted_for, wanted_tool
from cutting.doors.json_form import read_request
from cutting.operations.holes.mill_hole.limits import LEAST_RATIO
from cutting.operations.registry import evaluate_quickly
from cutting.tooling.records import TOOL_KINDS, properties
from tests.core.every_kind import EVERY_KIND
from tests.core.heavy import heavy
from tests.core.holes import HOLE, hole

SIZES = {"drill": "Ø", "tap": "M", "cut off": "reaches", "face groove": "curved for Ø", "bore": "enters Ø"}


def asked(form: dict[str, Any]) -> Any:
    return read_request({name: value for name, value in form.items() if name not in ("tool", "settings")})[0]


@pytest.mark.parametrize("kind", EVERY_KIND)
def test_every_kind_says_what_it_wants_in_both_systems(kind: str) -> None:
    setup = heavy() if kind == "heavy bore" else asked(EVERY_KIND[kind])
    said = wanted_tool(setup).words
    assert SIZES.get(kind, "") in said.metric
    assert "None" not in said.metric + said.inch
    assert " mm" not in said.inch


def test_a_deeper_groove_wants_a_blade_that_reaches_further() -> None:
    form = {"operation": "cut off", "material": "C45", "machine": "two-axis lathe"}
    for diameter, bore, reach in ((30, 0, "15 mm"), (64, 0, "32 mm"), (64, 24, "20 mm")):
        cut = {"diameter": diameter, "bore": bore, "part_length": 40, "distance_from_chuck": 10}
        said = wanted_tool(asked({**form, "feature": cut}))
        assert f"reaches {reach}" in said.words.metric
        assert float(said.record["CDX"]) == float(said.record["CUTDIA"]) / 2 > float(reach.split()[0])


@pytest.mark.parametrize("kind", [kind for kind in EVERY_KIND if kind != "heavy bore"])
def test_what_is_wanted_can_be_entered_with_its_sizes(kind: str) -> None:
    """The record names a kind of the crib and properties that such a tool carries, and lies within their bounds."""
    record = wanted_tool(asked(EVERY_KIND[kind])).record
    made = TOOL_KINDS[record["kind"]]
    sizes = {name: value for name, value in record.items() if name not in ("kind", "designation")}
    assert set(sizes) <= set(made.properties)
    for symbol, value in sizes.items():
        known = properties()[symbol]
        if known.kind == "length":
            assert (known.low or 0.0) <= float(value) <= (known.high or 1e9), symbol


def test_a_limit_that_only_another_tool_meets_names_it() -> None:
    """A jobber Ø10 reaches some 80 mm: 120 deep asks for a drill that does; a limit that a setting meets asks for none."""
    deep = evaluate_quickly(hole(HOLE, feature={"diameter": "10 mm", "depth": "160 mm"}))
    setup = hole(HOLE, feature={"diameter": "10 mm", "depth": "160 mm"})
    found = {one.name: wanted_for(setup, one) for one in deep.limits}
    assert found["reach"] is not None
    assert "reaches 160 mm" in found["reach"].words.metric
    assert float(found["reach"].record["LU"]) > 160
    assert found["book_speed"] is None
    shallow = {one.name: wanted_for(hole(HOLE), one) for one in evaluate_quickly(hole(HOLE)).limits}
    assert shallow["reach"] is None


def test_what_is_entered_reaches_and_enters() -> None:
    """A mill leaves room for its chips and is no needle; bars, drills and taps reach beyond what they cut."""
    mill = asked(EVERY_KIND["mill hole"])
    hole_size, entered = mill.feature.diameter.nominal, wanted_tool(mill).record
    assert 0.8 * hole_size < LEAST_RATIO * float(entered["DC"]) <= hole_size
    bar = asked(EVERY_KIND["bore"])
    entered = wanted_tool(bar).record
    assert float(entered["OHX"]) > bar.feature.length
    assert float(entered["DMIN1"]) <= bar.feature.start_diameter
    tap = asked(EVERY_KIND["tap"])
    assert float(wanted_tool(tap).record["LU"]) > tap.feature.length
    face = asked(EVERY_KIND["face groove"])
    entered = wanted_tool(face).record
    assert float(entered["DAXN"]) < face.feature.outer_diameter.target < float(entered["DAXX"])
    assert float(entered["CDX"]) > face.feature.depth
